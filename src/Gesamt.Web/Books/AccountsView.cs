using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Accounts;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>All accounts with what is on them.</summary>
/// <param name="Unplaced">What moved and lies on none of them; empty for nothing.</param>
public sealed record AccountsDto(
    IReadOnlyList<AccountDto> Accounts,
    IReadOnlyList<AccountTransferDto> Transfers,
    string Unplaced
);

/// <param name="First">What names no account of its currency lies here.</param>
public sealed record AccountDto(long Id, SaveAccountDto Said, string Balance, string Since, bool First);

/// <param name="Words">“Current account to cash box, for change”.</param>
public sealed record AccountTransferDto(long Id, string On, string Words, string Amount, SaveTransferDto Said);

/// <summary>One account, entry by entry, the last first.</summary>
/// <param name="Before">The balance before the first day, or as it was opened.</param>
/// <param name="Years">Those it has books of.</param>
public sealed record StatementDto(
    string Name,
    LocalDate From,
    LocalDate Until,
    string Before,
    string After,
    IReadOnlyList<StatementRowDto> Rows,
    IReadOnlyList<int> Years
);

/// <param name="Balance">After it.</param>
public sealed record StatementRowDto(string Key, string On, string Title, string Words, string Amount, string Balance);

/// <summary>What lies on accounts.</summary>
internal static class AccountsView
{
    private const int MostTransfers = 60;

    public static async Task<AccountsDto> OfAsync(Desk desk)
    {
        var names = await AccountNames.OfAsync(desk);
        var earliest = await Journal.EarliestAsync(desk);
        var entries = (await Journal.OfAsync(desk, earliest, desk.Today, MoneyAs.Received))
            .Select(one => one.Entry)
            .ToList();
        var transfers = await AccountNames.TransfersAsync(desk, desk.Today);
        var moves = transfers.Select(one => one.Transfer).ToList();
        // what was before an account's books began is in its opening balance
        var unplaced = entries
            .Where(entry =>
                !names.All.Any(one => one.Account.Opening.Currency == entry.Amount.Currency && one.Account.IsFirst)
                && names.Of(entry).Length == 0
            )
            .ToList();
        return new(
            [
                .. names.All.Select(one => new AccountDto(
                    one.Row.Id.Value,
                    Said(one.Row, one.Account),
                    MoneyText.Of(
                        Balances.At(one.Account, entries, moves, desk.Today) ?? Money.Zero(one.Account.Opening.Currency)
                    ),
                    $"since {desk.Short(one.Row.OpenedOn)}",
                    one.Account.IsFirst
                )),
            ],
            [.. Enumerable.Reverse(transfers).Take(MostTransfers).Select(one => Of(desk, names, one))],
            unplaced.Count == 0
                ? ""
                : desk.Sum(unplaced.Select(one => (one.Amount.Minor, (string?)one.Amount.Currency.Code)))
        );
    }

    /// <summary>One account over a year, with the balance after each entry.</summary>
    /// <exception cref="MissingException">There is none.</exception>
    public static async Task<StatementDto> StatementAsync(Desk desk, AccountId id, int year)
    {
        var names = await AccountNames.OfAsync(desk);
        var (row, account) = names.All.FirstOrDefault(one => one.Row.Id == id);
        if (row is null)
            throw new MissingException("account");
        var (first, last) = (new LocalDate(year, 1, 1), new LocalDate(year, 12, 31));
        var all = (await Journal.OfAsync(desk, LocalDate.Min(account.Opened, first), last, MoneyAs.Received))
            .Where(one => account.Holds(one.Entry))
            .ToList();
        var transfers = (await AccountNames.TransfersAsync(desk, last))
            .Where(one => one.Row.FromId == id || one.Row.ToId == id)
            .ToList();
        var days = Balances.Of(
            account,
            all.Select(one => one.Entry),
            transfers.Select(one => one.Transfer),
            first,
            last
        );
        var shown = all.Where(one => one.Entry.On >= first).ToList();
        var told = await Told.OfAsync(desk, shown, MoneyAs.Received);
        var lines = shown
            .Select(one =>
                (
                    one.Entry.On,
                    Key: $"{one.Entry.Sort}-{one.Number}",
                    told.Of(one).Title,
                    Words: told.Of(one).What,
                    one.Entry.Amount
                )
            )
            .Concat(
                transfers
                    .Where(one => one.Transfer.On >= first)
                    .Select(one =>
                        (
                            one.Transfer.On,
                            Key: $"transfer-{one.Row.Id.Value}",
                            Title: one.Row.ToId == id
                                ? $"from {names.NameOf(one.Row.FromId)}"
                                : $"to {names.NameOf(one.Row.ToId)}",
                            Words: one.Row.Words,
                            Amount: one.Row.ToId == id ? one.Transfer.Arrived : -one.Transfer.Left
                        )
                    )
            )
            .OrderBy(line => line.On)
            .ThenBy(line => line.Key, StringComparer.Ordinal)
            .ToList();
        var running = days.Before + days.Opened;
        List<StatementRowDto> rows = [];
        foreach (var line in lines)
        {
            running += line.Amount;
            rows.Add(
                new(
                    line.Key,
                    desk.Short(line.On),
                    line.Title,
                    line.Words,
                    MoneyText.Signed(line.Amount),
                    MoneyText.Figures(running)
                )
            );
        }
        rows.Reverse();
        return new(
            row.Name,
            first,
            last,
            MoneyText.Of(days.Before + days.Opened),
            MoneyText.Of(days.After),
            rows,
            [.. Enumerable.Range(account.Opened.Year, desk.Today.Year - account.Opened.Year + 1).Reverse()]
        );
    }

    private static SaveAccountDto Said(AccountRow row, Account account) =>
        new(
            row.Name,
            row.Currency,
            row.Iban,
            [.. StoreJson.Read<List<PaymentMeans>>(row.Takes)],
            row.OpenedOn,
            MoneyText.Field(account.Opening)
        );

    private static AccountTransferDto Of(Desk desk, AccountNames names, (TransferRow Row, Transfer Transfer) one)
    {
        var (row, transfer) = one;
        var ways = $"{names.NameOf(row.FromId)} to {names.NameOf(row.ToId)}";
        return new(
            row.Id.Value,
            desk.Short(row.On),
            row.Words.Length > 0 ? $"{ways}, {row.Words}" : ways,
            transfer.Left.Currency == transfer.Arrived.Currency
                ? MoneyText.Of(transfer.Left)
                : $"{MoneyText.Of(transfer.Left)}, {MoneyText.Of(transfer.Arrived)}",
            new(
                row.On,
                row.FromId.Value,
                row.ToId.Value,
                MoneyText.Field(transfer.Left),
                MoneyText.Field(transfer.Arrived),
                row.Words
            )
        );
    }
}
