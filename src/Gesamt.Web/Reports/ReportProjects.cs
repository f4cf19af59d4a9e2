using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Store.Model;
using Gesamt.Web.Books;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Reports;

/// <summary>The projects behind a figure of the reports.</summary>
internal static class ReportProjects
{
    private const int Usual = 100,
        MostRows = 2_000;

    /// <summary>A project of a list, with what the list is about.</summary>
    private sealed record Listed(Came Project, string Words, long? NetMinor = null);

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static async Task<ReportProjectsDto> OfAsync(Desk desk, ReportQuery query, ReportPick pick)
    {
        if (pick.Most is < 1 or > MostRows)
            throw new InvalidException(("most", $"From 1 to {MostRows}."));
        var range = ReportRange.Of(desk, query, await ReportOverview.EarliestAsync(desk));
        var all = await ListedAsync(desk, query, range, pick);
        var shown = all.Take(pick.Most ?? Usual).ToList();
        var ids = shown.Select(one => one.Project.Id).ToList();
        var names = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .Select(p => new
            {
                p.Id,
                p.Title,
                Client = p.Client!.Organisation ?? p.Client.Name,
            })
            .ToDictionaryAsync(p => p.Id);
        return new(
            Title(pick),
            all.Count,
            all.Count - shown.Count,
            [
                .. shown.Select(one => new ReportProjectDto(
                    one.Project.Id.Value,
                    names[one.Project.Id].Title,
                    names[one.Project.Id].Client,
                    one.Words,
                    desk.Short(desk.Calendar.DateOf(one.Project.Began!.Value)),
                    one.NetMinor is { } net ? desk.Sum([(net, one.Project.Currency)]) : ""
                )),
            ]
        );
    }

    private static async Task<List<Listed>> ListedAsync(
        Desk desk,
        ReportQuery query,
        ReportRange range,
        ReportPick pick
    )
    {
        var days = Days(range, pick.At);
        if (pick.Of == ReportOf.NewClients)
            return
            [
                .. (await Cohort.FirstBookingsAsync(desk, query, range))
                    .Where(one => In(days, desk.Calendar.DateOf(one.Booked!.Value)))
                    .Select(one => new Listed(
                        one,
                        $"booked {desk.Short(desk.Calendar.DateOf(one.Booked!.Value))}",
                        one.NetMinor
                    )),
            ];
        var asked = Cohort.Asked(desk, query, range);
        var all = (await asked.ReadAsync()).Where(one => In(days, desk.Calendar.DateOf(one.Began!.Value)));
        if (pick.By is { } by)
            return await UnderAsync(desk, asked, [.. all], by, pick);
        if (pick.Of == ReportOf.Stood)
            return Stood(await Lengths.AtAsync(desk, query, range, GateOf(pick)), [.. all]);
        return [.. Picked(all, pick).Reverse().Select(one => new Listed(one, Became(one)))];
    }

    private static IEnumerable<Came> Picked(IEnumerable<Came> all, ReportPick pick) =>
        pick.Of switch
        {
            null or ReportOf.Came => pick.Gate is { } gate ? all.Where(one => one.CameTo(gate)) : all,
            ReportOf.Passed => all.Where(one => one.Passed(GateOf(pick))),
            ReportOf.Ended => all.Where(one =>
                one.EndedAt(GateOf(pick)) && (pick.Reason is null || one.Ended == pick.Reason)
            ),
            ReportOf.Open => all.Where(one => pick.Gate is { } gate ? one.OpenAt(gate) : one.IsOpen),
            ReportOf.Lost => all.Where(one => one.IsLost),
            ReportOf.Apart => all.Where(one => one.IsApart),
            ReportOf.Won => all.Where(one => one.IsWon),
            ReportOf.Chased => ReportOverview.ChasedTimes(
                all,
                pick.Chases ?? throw new InvalidException(("chases", "After how many reminders?"))
            ),
            _ => throw new InvalidException(("of", "That figure needs to say by what.")),
        };

    /// <summary>What stands under one heading of what was brought.</summary>
    private static async Task<List<Listed>> UnderAsync(
        Desk desk,
        IQueryable<ProjectRow> asked,
        List<Came> all,
        ReportBy by,
        ReportPick pick
    )
    {
        var shares = (await Brought.SharesAsync(desk, all, by)).Where(share => share.Key == (pick.Key ?? ""));
        if (pick.Of == ReportOf.Hourly)
        {
            var took = await HourlyFigures.OfAsync(desk, asked);
            return
            [
                .. shares
                    .Where(share => share.Whole && Brought.IsHourly(share.Project, took))
                    .Select(share => new Listed(
                        share.Project,
                        $"{WorkTime.Words(took[share.Project.Id].Minutes)}, {Brought.Hour(desk, [share.Project], took).AnHour} an hour",
                        share.NetMinor
                    )),
            ];
        }
        return
        [
            .. shares
                .Where(share => pick.Of != ReportOf.Won || share.Project.IsWon)
                .OrderByDescending(share => share.NetMinor)
                .ThenByDescending(share => share.Project.Began)
                .Select(share => new Listed(
                    share.Project,
                    Became(share.Project),
                    share.Project.IsWon ? share.NetMinor : null
                )),
        ];
    }

    private static List<Listed> Stood(List<Stood> stays, List<Came> all)
    {
        var by = all.ToDictionary(one => one.Id);
        return
        [
            .. stays
                .Where(stay => by.ContainsKey(stay.Project))
                .Select(stay => new Listed(
                    by[stay.Project],
                    (stay.Lasted.Days == 0 ? "the same day" : Lengths.Days(stay.Lasted.Days))
                        + (
                            stay.IsThere ? " so far"
                            : stay.Lasted.Left ? ""
                            : ", then back at an earlier gate"
                        )
                )),
        ];
    }

    private static string Became(Came one) =>
        one.Ended is { } reason ? $"{Funnel.Words(reason)} at {Where(one)}"
        : one.Furthest == Stage.Finished ? "finished"
        : one.IsWon ? "booked"
        : $"open at {Where(one)}";

    /// <summary>The stage it came to; what is finished ended after its last.</summary>
    private static string Where(Came one) => one.Furthest == Stage.Finished ? "the end" : $"{one.Furthest}";

    private static Gate GateOf(ReportPick pick) => pick.Gate ?? throw new InvalidException(("gate", "At which gate?"));

    private static bool In((LocalDate First, LocalDate Last) days, LocalDate on) => on >= days.First && on <= days.Last;

    /// <summary>Those of one column of the picture, or all.</summary>
    private static (LocalDate First, LocalDate Last) Days(ReportRange range, string? at)
    {
        if (at is not { Length: > 0 })
            return (range.First, range.Last);
        var day = MoneyRange.Day("at", at);
        return range.Columns.FirstOrDefault(column => day >= column.First && day <= column.Last) is { } column
            ? (column.First, column.Last)
            : throw new InvalidException(("at", "A day within the days that are looked at."));
    }

    private static string Title(ReportPick pick) =>
        pick.Of switch
        {
            ReportOf.Passed => $"Went on from {pick.Gate}",
            ReportOf.Ended => pick.Reason is { } reason
                ? $"{Core.Texts.ShortText.Capital(Funnel.Words(reason))} at {pick.Gate}"
                : $"Ended at {pick.Gate}",
            ReportOf.Open => pick.Gate is { } at ? $"Open at {at}" : "Open, not booked",
            ReportOf.Lost => "Lost",
            ReportOf.Apart => "Declined or referred",
            ReportOf.Won => "Became work",
            ReportOf.Stood => $"How long they stood at {pick.Gate}",
            ReportOf.NewClients => "New clients",
            ReportOf.Chased => pick.Chases switch
            {
                0 => "Agreed without a reminder",
                1 => "Agreed after 1 reminder",
                >= ReportOverview.ManyChases => $"Agreed after {ReportOverview.ManyChases} reminders or more",
                _ => $"Agreed after {pick.Chases} reminders",
            },
            ReportOf.Hourly => "What an hour is worked out from",
            _ => pick.Gate is { } gate ? $"Came to {gate}" : "Came in",
        };
}
