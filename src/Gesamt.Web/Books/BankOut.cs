using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Books;

/// <summary>A line of the bank with money that went out.</summary>
/// <param name="Amount">As a field takes it, without its sign.</param>
/// <param name="Said">With its currency.</param>
/// <param name="Costs">Costs it may have paid: of that amount, the nearest day first.</param>
public sealed record BankOutDto(
    long Id,
    NodaTime.LocalDate On,
    string Day,
    string Party,
    string Text,
    string Amount,
    string Said,
    IReadOnlyList<BankCostDto> Costs
);

/// <summary>A cost that a line may have paid.</summary>
public sealed record BankCostDto(long Id, string What, string On);

/// <summary>The cost that a line paid.</summary>
public sealed record BankPaysDto(long Cost);

/// <summary>Money out of the bank, matched to costs that were written down or booked themselves.</summary>
internal static class BankOut
{
    private const int Most = 60,
        Offers = 3,
        Days = 10;

    /// <summary>Lines nobody has said yet what they paid, the oldest first.</summary>
    public static async Task<IReadOnlyList<BankOutDto>> OfAsync(Desk desk)
    {
        var lines = await desk
            .Db.BankLines.AsNoTracking()
            .Where(l => l.State == BankLineState.Open && l.AmountMinor < 0)
            .OrderBy(l => l.On)
            .ThenBy(l => l.Id)
            .Take(Most)
            .ToListAsync();
        if (lines.Count == 0)
            return [];
        var amounts = lines.Select(l => -l.AmountMinor).Distinct().ToList();
        var (first, last) = (lines.Min(l => l.On).PlusDays(-Days), lines.Max(l => l.On).PlusDays(Days));
        var costs = await desk
            .Db.RealCosts.Where(c => c.On >= first && c.On <= last)
            .Where(c => amounts.Contains(c.GrossMinor) && !desk.Db.BankLines.Any(l => l.CostId == c.Id))
            .ToListAsync();
        return
        [
            .. lines.Select(line => new BankOutDto(
                line.Id.Value,
                line.On,
                desk.Short(line.On),
                line.Party,
                string.Join(", ", new[] { line.Text, line.Reference }.Where(text => text.Length > 0).Distinct()),
                MoneyText.Field(desk.Amount(-line.AmountMinor, line.Currency)),
                MoneyText.Of(desk.Amount(-line.AmountMinor, line.Currency)),
                [
                    .. costs
                        .Where(c =>
                            c.GrossMinor == -line.AmountMinor && c.Currency == line.Currency && Apart(c, line) <= Days
                        )
                        .OrderBy(c => Apart(c, line))
                        .ThenBy(c => c.Id)
                        .Take(Offers)
                        .Select(c => new BankCostDto(c.Id.Value, c.What, desk.Short(c.On))),
                ]
            )),
        ];
    }

    /// <summary>The line paid this cost.</summary>
    /// <exception cref="InvalidException">It is another amount, or another line paid it.</exception>
    public static Task PaysAsync(Desk desk, BankLineId id, CostId cost) =>
        desk.ActAsync(async act =>
        {
            var line =
                await act.Db.BankLines.SingleOrDefaultAsync(l => l.Id == id) ?? throw new MissingException("line");
            if (line.State == BankLineState.Booked)
                throw new RefusedException("This line is booked already. Undo that first.");
            var row =
                await act.Db.Costs.SingleOrDefaultAsync(c => c.Id == cost && !c.Removed)
                ?? throw new InvalidException(("cost", "There is no such cost."));
            if (row.GrossMinor != -line.AmountMinor || row.Currency != line.Currency)
                throw new InvalidException(("cost", "This cost is another amount than what went out."));
            if (await act.Db.BankLines.AnyAsync(l => l.CostId == cost))
                throw new InvalidException(("cost", "Another line of the bank paid this cost."));
            (line.State, line.CostId, line.ByItself, line.DoneAt) = (BankLineState.Booked, cost, false, act.Now);
        });

    private static int Apart(CostRow cost, BankLineRow line) => Math.Abs(NodaTime.Period.DaysBetween(cost.On, line.On));
}
