using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Calendar;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>What clients owe, the oldest first.</summary>
internal static class Owed
{
    private const int Most = 100;

    public static async Task<OwedToYouDto> OfAsync(Desk desk, List<AheadLine> ahead)
    {
        var open = ahead.Where(line => line.Placed.Place is Place.Sent or Place.Late).ToList();
        string Sum(IEnumerable<AheadLine> lines) =>
            desk.Sum(lines.Select(line => (line.Placed.Amount.Minor, (string?)line.Placed.Amount.Currency.Code)));
        var shown = open.Take(Most).ToList();
        var asks = await AsksAsync(desk, [.. shown.Select(line => line.Project).Distinct()]);
        var reminded = await Reminded.OfAsync(desk, [.. shown.Where(line => line.Placed.Place == Place.Late)]);
        return new(
            Sum(open),
            Sum(open.Where(line => line.Placed.Place == Place.Late)),
            open.Count,
            [
                .. shown.Select(line => new OwedRowDto(
                    line.Project.Value,
                    line.Title,
                    line.Words,
                    DateWords.Due(line.On!.Value, desk.Today, false),
                    line.Placed.Place == Place.Late,
                    asks.Contains(line.Project) ? "a letter asks for your OK"
                        : line.Invoice is { } invoice ? Words(desk, [.. reminded[invoice]])
                        : "",
                    MoneyText.Figures(line.Placed.Amount)
                )),
            ]
        );
    }

    private static string Words(Desk desk, List<LocalDate> reminded) =>
        reminded switch
        {
            [] => "",
            [var once] => $"reminded {desk.Short(once)}",
            [.., var last] => $"reminded {reminded.Count} times, last {desk.Short(last)}",
        };

    private static async Task<HashSet<ProjectId>> AsksAsync(Desk desk, List<ProjectId> projects) =>
        [
            .. await desk
                .Db.Projects.Where(p => projects.Contains(p.Id) && p.Standing.Held > 0)
                .Select(p => p.Id)
                .ToListAsync(),
        ];
}
