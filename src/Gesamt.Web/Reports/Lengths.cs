using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Reports;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Reports;

/// <summary>A stay as it is listed.</summary>
internal sealed record Stood(ProjectId Project, Lasted Lasted, bool IsThere);

/// <summary>How long inquiries stand at each gate for the first time, those still there counted for as long as they have.</summary>
internal static class Lengths
{
    public static async Task<LengthsDto> OfAsync(Desk desk, ReportQuery query, ReportRange range)
    {
        var stays = await Cohort
            .Stays(desk, query, range)
            .GroupBy(stay => new
            {
                stay.Gate,
                stay.Since,
                stay.Days,
                stay.Left,
            })
            .Select(same => new { same.Key, Count = same.Count() })
            .ToListAsync();
        var gates = stays
            .GroupBy(same => same.Key.Gate)
            .OrderBy(same => same.Key)
            .Select(same =>
                (
                    Gate: same.Key,
                    Survival: KaplanMeier.Of(
                        same.SelectMany(one =>
                            Enumerable.Repeat(
                                new Lasted(
                                    one.Key.Days ?? DateWords.DaysBetween(one.Key.Since!.Value, desk.Today),
                                    one.Key.Left
                                ),
                                one.Count
                            )
                        )
                    )
                )
            )
            .ToList();
        return new(
            gates.Count == 0 ? 0 : gates.Max(gate => gate.Survival.Longest),
            [.. gates.Select(gate => Told(gate.Gate, gate.Survival))]
        );
    }

    /// <summary>The stays at one gate, the longest first.</summary>
    public static async Task<List<Stood>> AtAsync(Desk desk, ReportQuery query, ReportRange range, Gate gate) =>
        [
            .. (await Cohort.Stays(desk, query, range).Where(stay => stay.Gate == gate).ToListAsync())
                .Select(stay => new Stood(
                    stay.ProjectId,
                    new(stay.Days ?? DateWords.DaysBetween(stay.Since!.Value, desk.Today), stay.Left),
                    stay.Days is null
                ))
                .OrderByDescending(stay => stay.Lasted.Days)
                .ThenBy(stay => stay.Project.Value),
        ];

    public static string Days(int days) => days == 1 ? "1 day" : $"{days} days";

    private static LengthDto Told(Gate gate, Survival survival) =>
        new(
            gate,
            survival.Median switch
            {
                null => "not yet half",
                0 => "the same day",
                var days => Days(days.Value),
            },
            survival.Median,
            survival.Count,
            survival.Count - survival.Steps.Sum(step => step.Left),
            [.. survival.Steps.Select(step => new SurvivalStepDto(step.Days, Math.Round(step.Staying.Rough, 4)))]
        );
}
