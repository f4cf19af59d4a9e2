using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Accounts;

/// <summary>Accounts and transfers between them: made, changed, taken out and put back.</summary>
public static class AccountBooks
{
    private const int LongestName = 60,
        LongestWords = 200,
        Most = 30;

    /// <param name="id">The one that is changed; null makes a new one.</param>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<AccountId> SaveAsync(Desk desk, AccountId? id, SaveAccountDto save)
    {
        var name = TypedText.Of("name", save.Name, 1, LongestName, "An account’s name");
        var currency = CurrencyOf(save.Currency);
        var iban = save.Iban.Trim();
        if (iban.Length > 0 && !Iban.IsValid(iban))
            throw new InvalidException(("iban", Iban.Allowed));
        var opening = TypedMoney.Balance(currency, save.Opening, "opening");
        return desk.ActAsync(async act =>
        {
            var openedOn = save.OpenedOn ?? act.Today;
            if (openedOn > act.Today)
                throw new InvalidException(("openedOn", "Its books begin today or earlier."));
            await ClosedYears.DemandOpenAsync(desk, openedOn, "openedOn");
            var row = id is { } known ? await OneAsync(desk, known) : null;
            if (row is null)
            {
                if (await act.Db.Accounts.CountAsync(a => !a.Removed) >= Most)
                    throw new RefusedException($"There are {Most} accounts already.");
                act.Db.Accounts.Add(row = new() { Name = name, Currency = currency.Code });
            }
            else
            {
                await ClosedYears.DemandOpenAsync(desk, row.OpenedOn, "openedOn");
                if (row.Currency != currency.Code)
                    throw new InvalidException(("currency", $"It is kept in {row.Currency}, and stays so."));
                if (await FirstAsync(desk, row.Id) is { } first && openedOn > first)
                    throw new InvalidException(
                        ("openedOn", $"Something lies on it from {desk.Short(first)}: its books begin then or earlier.")
                    );
            }
            (row.Name, row.Iban, row.Takes) = (name, Iban.Plain(iban), StoreJson.Write(save.Takes.Distinct().ToList()));
            (row.OpenedOn, row.OpeningMinor) = (openedOn, opening.Minor);
            await act.Db.SaveChangesAsync();
            return row.Id;
        });
    }

    /// <summary>Takes an account out, or puts it back.</summary>
    /// <exception cref="RefusedException">Something lies on it.</exception>
    public static Task RemoveAsync(Desk desk, AccountId id, bool removed) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, id);
            if (removed && await FirstAsync(desk, id) is not null)
                throw new RefusedException($"Money was booked on {row.Name}: it stays. Rename it if it is out of use.");
            if (removed)
                await ClosedYears.DemandOpenAsync(desk, row.OpenedOn);
            row.Removed = removed;
        });

    /// <param name="id">The one that is changed; null makes a new one.</param>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<TransferId> SaveAsync(Desk desk, TransferId? id, SaveTransferDto save) =>
        desk.ActAsync(async act =>
        {
            var on = save.On ?? act.Today;
            if (on > act.Today)
                throw new InvalidException(("on", "Nothing can have happened later than today."));
            await ClosedYears.DemandOpenAsync(desk, on);
            if (save.From == save.To)
                throw new InvalidException(("to", "Choose another account than the one it leaves."));
            var (from, to) = (await SideAsync(desk, save.From, on, "from"), await SideAsync(desk, save.To, on, "to"));
            var left = TypedMoney.Of(Currency.Of(from.Currency), save.Left, "left");
            var arrived =
                from.Currency == to.Currency ? left : TypedMoney.Of(Currency.Of(to.Currency), save.Arrived, "arrived");
            var words = TypedText.Of("words", save.Words, 0, LongestWords, "What it was for");
            var row = id is { } known ? await OneAsync(desk, known) : null;
            if (row is null)
                act.Db.Transfers.Add(row = new());
            else
                await ClosedYears.DemandOpenAsync(desk, row.On);
            (row.On, row.FromId, row.ToId, row.Words) = (on, from.Id, to.Id, words);
            (row.LeftMinor, row.ArrivedMinor) = (left.Minor, arrived.Minor);
            await act.Db.SaveChangesAsync();
            return row.Id;
        });

    /// <summary>Takes a transfer out, or puts it back.</summary>
    public static Task RemoveAsync(Desk desk, TransferId id, bool removed) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, id);
            await ClosedYears.DemandOpenAsync(desk, row.On);
            row.Removed = removed;
        });

    /// <summary>The first day on which something names the account; null for an empty one.</summary>
    private static async Task<LocalDate?> FirstAsync(Desk desk, AccountId id)
    {
        AccountId? named = id;
        LocalDate?[] days =
        [
            await desk.Db.Costs.Where(c => c.AccountId == named && !c.Removed).MinAsync(c => (LocalDate?)c.On),
            await desk.Db.Incomes.Where(i => i.AccountId == named && !i.Removed).MinAsync(i => (LocalDate?)i.On),
            await desk
                .Db.Transfers.Where(t => (t.FromId == id || t.ToId == id) && !t.Removed)
                .MinAsync(t => (LocalDate?)t.On),
            await desk.Db.Payments.Where(p => p.AccountId == named).MinAsync(p => (Instant?)p.At) is { } at
                ? desk.Calendar.DateOf(at)
                : null,
        ];
        return days.Min();
    }

    private static async Task<AccountRow> SideAsync(Desk desk, long number, LocalDate on, string field)
    {
        var row =
            await desk.Db.Accounts.AsNoTracking().SingleOrDefaultAsync(a => a.Id == new AccountId(number) && !a.Removed)
            ?? throw new InvalidException((field, "Choose an account."));
        return on >= row.OpenedOn
            ? row
            : throw new InvalidException(
                (
                    "on",
                    $"The books of {row.Name} begin on {desk.Short(row.OpenedOn)}: what was before is in its balance."
                )
            );
    }

    private static Currency CurrencyOf(string code) =>
        code.Trim().ToUpperInvariant() is var plain && Currency.All.ContainsKey(plain)
            ? Currency.Of(plain)
            : throw new InvalidException(("currency", "A currency by its three letters (ISO 4217), such as EUR."));

    private static async Task<AccountRow> OneAsync(Desk desk, AccountId id) =>
        await desk.Db.Accounts.SingleOrDefaultAsync(a => a.Id == id) ?? throw new MissingException("account");

    private static async Task<TransferRow> OneAsync(Desk desk, TransferId id) =>
        await desk.Db.Transfers.SingleOrDefaultAsync(t => t.Id == id) ?? throw new MissingException("transfer");
}
