using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Books;

/// <summary>The studio's accounts, and which of them an entry lies on.</summary>
internal sealed class AccountNames
{
    private readonly List<(AccountRow Row, Account Account)> all;

    private AccountNames(List<(AccountRow, Account)> all) => this.all = all;

    /// <summary>In the order they were made: the first of a currency holds what names none.</summary>
    public IReadOnlyList<(AccountRow Row, Account Account)> All => all;

    public static async Task<AccountNames> OfAsync(Desk desk)
    {
        var rows = await desk.Db.Accounts.AsNoTracking().Where(a => !a.Removed).OrderBy(a => a.Id).ToListAsync();
        var first = rows.GroupBy(row => row.Currency).Select(same => same.First().Id).ToHashSet();
        return new([
            .. rows.Select(row =>
                (
                    row,
                    new Account(
                        row.Id,
                        row.OpenedOn,
                        new(row.OpeningMinor, Currency.Of(row.Currency)),
                        first.Contains(row.Id)
                    )
                )
            ),
        ]);
    }

    /// <summary>Empty for one that lies on none.</summary>
    public string Of(Entry entry) => all.FirstOrDefault(one => one.Account.Holds(entry)).Row?.Name ?? "";

    public string NameOf(AccountId id) => all.FirstOrDefault(one => one.Row.Id == id).Row?.Name ?? "an account";

    /// <summary>The transfers up to a day.</summary>
    public static async Task<List<(TransferRow Row, Transfer Transfer)>> TransfersAsync(
        Desk desk,
        NodaTime.LocalDate last
    )
    {
        var codes = await desk.Db.Accounts.AsNoTracking().ToDictionaryAsync(a => a.Id, a => a.Currency);
        return
        [
            .. (
                await desk
                    .Db.Transfers.AsNoTracking()
                    .Where(t => !t.Removed && t.On <= last)
                    .OrderBy(t => t.On)
                    .ThenBy(t => t.Id)
                    .ToListAsync()
            ).Select(row =>
                (
                    row,
                    new Transfer(
                        row.On,
                        row.FromId,
                        row.ToId,
                        new(row.LeftMinor, Currency.Of(codes[row.FromId])),
                        new(row.ArrivedMinor, Currency.Of(codes[row.ToId]))
                    )
                )
            ),
        ];
    }
}
