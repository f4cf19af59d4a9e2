using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Store.Model;
using Gesamt.Web.Accounts;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Books;

/// <summary>Costs written down with the books: of a project, or of the studio as a whole. Those of a project are kept as its record keeps them.</summary>
public static class Costs
{
    private const int MostUsual = 40;

    /// <param name="project">The one it is of; null for the studio as a whole.</param>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static async Task<CostId> AddAsync(Desk desk, ProjectId? project, KeepCostDto cost)
    {
        if (project is { } of)
            return await Keeping.AddAsync(desk, of, cost);
        return await desk.ActAsync(async act =>
        {
            var row = new CostRow
            {
                Payee = "",
                What = "",
                Currency = (await CurrencyAsync(desk, null, cost.Account)).Code,
            };
            await Keeping.WriteAsync(desk, row, cost with { ChargeOn = false });
            act.Db.Costs.Add(row);
            await act.Db.SaveChangesAsync();
            return row.Id;
        });
    }

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    /// <exception cref="RefusedException">It is charged on.</exception>
    public static async Task ChangeAsync(Desk desk, CostId id, KeepCostDto cost)
    {
        var known = await ReadAsync(desk, id);
        if (known.ProjectId is { } project)
            await Keeping.ChangeAsync(desk, project, id, cost with { ChargeOn = known.ChargeOn });
        else
            await desk.ActAsync(async act =>
            {
                var row = await act.Db.Costs.SingleAsync(c => c.Id == id);
                await ClosedYears.DemandOpenAsync(desk, row.On);
                await Keeping.WriteAsync(desk, row, cost with { ChargeOn = false });
            });
    }

    /// <summary>Takes it out, or puts it back.</summary>
    /// <exception cref="RefusedException">It is charged on.</exception>
    public static async Task RemoveAsync(Desk desk, CostId id, bool removed)
    {
        if ((await ReadAsync(desk, id)).ProjectId is { } project)
            await Keeping.RemoveAsync(desk, project, id, removed);
        else
            await desk.ActAsync(async act =>
            {
                var row = await act.Db.Costs.SingleAsync(c => c.Id == id);
                await ClosedYears.DemandOpenAsync(desk, row.On);
                await Keeping.DemandUnmatchedAsync(desk, id);
                row.Removed = removed;
            });
    }

    /// <summary>Keeps the receipt, in the place of one that was there.</summary>
    /// <exception cref="InvalidException">It has no name, is empty, or is of no kind that is kept.</exception>
    public static async Task ReceiptAsync(Desk desk, CostId id, string name, Stream content, CancellationToken stop)
    {
        if ((await ReadAsync(desk, id)).ProjectId is { } project)
        {
            await Keeping.ReceiptAsync(desk, project, id, name, content, stop);
            return;
        }
        var (plain, hash, _, type) = await KeptFiles.TakeAsync(desk.Vault, name, content, stop);
        await desk.ActAsync(async act =>
        {
            var row = await act.Db.Costs.SingleAsync(c => c.Id == id);
            (row.ReceiptName, row.ReceiptHash, row.ReceiptType) = (plain, hash, type);
        });
    }

    /// <summary>One of them, as it is opened to be changed.</summary>
    public static async Task<OpenedCostDto> OpenAsync(Desk desk, CostId id)
    {
        var row = await ReadAsync(desk, id);
        var gross = new Money(row.GrossMinor, Currency.Of(row.Currency));
        var title = row.ProjectId is { } project
            ? await desk.Db.Projects.Where(p => p.Id == project).Select(p => p.Title).FirstOrDefaultAsync() ?? ""
            : "";
        return new(
            id.Value,
            row.ProjectId?.Value,
            title,
            new(
                row.On,
                row.Payee,
                row.What,
                row.Category,
                MoneyText.Field(gross),
                NumberText.Number(new Rate(row.TaxPartsPerMillion).InPercent),
                row.ChargeOn,
                row.AccountId?.Value
            ),
            row.ReceiptName,
            row.InvoiceId is null
                ? ""
                : "It was charged to the client. It stays as it is until that invoice is credited."
        );
    }

    /// <summary>The cost whose receipt is asked for.</summary>
    /// <exception cref="MissingException">There is none.</exception>
    public static async Task<CostRow> WithReceiptAsync(Desk desk, CostId id) =>
        await ReadAsync(desk, id) is { ReceiptHash: not null } row ? row : throw new MissingException("receipt");

    /// <summary>What is usual when money is written down.</summary>
    public static async Task<BookUsualDto> UsualAsync(Desk desk)
    {
        var costs = desk.Db.Costs.Where(c => !c.Removed);
        async Task<List<string>> MostAsync(IQueryable<string> of) =>
            [
                .. (
                    await of.Where(text => text != "")
                        .GroupBy(text => text)
                        .OrderByDescending(same => same.Count())
                        .Select(same => same.Key)
                        .Take(MostUsual)
                        .ToListAsync()
                ).Order(StringComparer.CurrentCulture),
            ];
        var tax = await costs
            .GroupBy(c => c.TaxPartsPerMillion)
            .OrderByDescending(same => same.Count())
            .Select(same => (int?)same.Key)
            .FirstOrDefaultAsync();
        return new(
            await MostAsync(costs.Select(c => c.Category)),
            await MostAsync(costs.Select(c => c.Payee)),
            [
                .. (
                    await desk.Db.Accounts.AsNoTracking().Where(a => !a.Removed).OrderBy(a => a.Id).ToListAsync()
                ).Select(a => new AccountNameDto(a.Id.Value, a.Name, a.Currency)),
            ],
            tax is { } known ? NumberText.Number(new Rate(known).InPercent) : "0"
        );
    }

    /// <summary>The currency a new cost is in: its project's, its account's, or the studio's own.</summary>
    internal static async Task<Currency> CurrencyAsync(Desk desk, ProjectId? project, long? account)
    {
        if (project is { } of)
            return desk.CurrencyOf(await desk.OpenAsync(of));
        return
            account is { } number
            && await desk.Db.Accounts.AsNoTracking().SingleOrDefaultAsync(a => a.Id == new AccountId(number)) is { } row
            ? Currency.Of(row.Currency)
            : desk.Currency;
    }

    private static async Task<CostRow> ReadAsync(Desk desk, CostId id) =>
        await desk.Db.Costs.AsNoTracking().SingleOrDefaultAsync(c => c.Id == id) ?? throw new MissingException("cost");
}
