using Gesamt.Core.Amounts;
using Gesamt.Core.Proposals;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <summary>What the services of a draft are expected to take, by the price list; the owner's alone to see.</summary>
/// <param name="Hours">“34 h”; null where no service says any.</param>
/// <param name="Cost">Direct costs; null where no service says any.</param>
/// <param name="Hourly">What an hour would bring: the net price without those costs, by the hours (common practice); null without hours.</param>
public sealed record ExpectedDto(string? Hours, string? Cost, string? Hourly);

internal static class ExpectedWork
{
    /// <param name="net">The price without tax.</param>
    public static async Task<ExpectedDto?> OfAsync(
        Desk desk,
        IReadOnlyCollection<OfferLine> lines,
        Currency currency,
        Money net
    )
    {
        var ids = lines.Select(line => line.Service).OfType<int>().Distinct().ToList();
        if (ids.Count == 0 || currency != desk.Currency)
            return null;
        var services = await desk
            .Db.Services.AsNoTracking()
            .Where(s => ids.Contains(s.Id))
            .ToDictionaryAsync(s => s.Id, s => (s.Hours, s.Cost));
        var taken = lines
            .Where(line => line.Service is { } id && services.ContainsKey(id))
            .Select(line => (line.Quantity, services[line.Service!.Value].Hours, services[line.Service!.Value].Cost))
            .ToList();
        var hours = taken.Sum(one => one.Quantity * (one.Hours ?? 0));
        var cost = Money.Of(taken.Sum(one => one.Quantity * (one.Cost ?? 0)), currency);
        return hours == 0 && cost.Minor == 0
            ? null
            : new(
                hours == 0 ? null : $"{NumberText.Number(decimal.Round(hours, 2))} h",
                cost.Minor == 0 ? null : MoneyText.Figures(cost),
                hours == 0 ? null : MoneyText.Figures(Money.Of((net - cost).Major / hours, currency))
            );
    }
}
