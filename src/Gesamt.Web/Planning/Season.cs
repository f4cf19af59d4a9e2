using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Planning;
using Gesamt.Core.Projects;
using Gesamt.Core.Texts;
using Gesamt.Core.Waiting;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>Months across, a line for each open project: phases, the date that matters, payments, rests; below, how full the weeks are.</summary>
public static class Season
{
    /// <summary>How far ahead a free week is looked for.</summary>
    private const int WeeksAhead = 52;

    /// <summary>A project as the season reads it.</summary>
    private sealed record Row(
        ProjectId Id,
        string Title,
        string Rules,
        StandingColumns Standing,
        IReadOnlyList<PhaseSpan> Phases
    )
    {
        public bool IsBooked => Standing.BookedAt is not null;

        /// <summary>When its work begins, while that is still ahead.</summary>
        public LocalDate? StartAfter(LocalDate today) =>
            Phases.Count > 0
            && Phases.All(phase => phase.State is not PhaseState.Done)
            && Phases[0].From is { } from
            && from > today
                ? from
                : null;
    }

    /// <param name="day">Any day of the first month.</param>
    /// <param name="span">Months across.</param>
    /// <param name="kind">Of what new work the next free start is asked; null for any.</param>
    public static async Task<SeasonDto> OfAsync(Desk desk, LocalDate day, int span, long? kind)
    {
        var first = new LocalDate(day.Year, day.Month, 1);
        var end = first.PlusMonths(span);
        var scale = new Scale(desk, first, end);
        var rows = await RowsAsync(desk);
        var dots = await SeasonDots.OfAsync(desk, scale, [.. rows.Select(row => (row.Id, row.Standing))]);
        var shown = rows.Select(row => desk.Tell(() => Told(desk, scale, row, dots[row.Id]), () => Untold(row)))
            .OfType<SeasonRowDto>()
            .ToList();
        var held = await HeldDays.OfAsync(desk, Earlier(first, desk.Today), Count(desk, first, end));
        var kinds = await KindsAsync(desk);
        var hours = kinds.FirstOrDefault(one => one.Id == kind)?.Hours ?? FreeStart.UsualHours;
        return new(
            Title(first, end.PlusDays(-1)),
            new(first.PlusMonths(-1), desk.Today, first.PlusMonths(1)),
            Starts(desk, rows, held, hours, kind, kinds),
            scale.Dto(span),
            shown,
            rows.Count - shown.Count,
            Weeks(desk, scale, held, hours)
        );
    }

    private sealed record Stored(ProjectId Id, string Title, string Rules, StandingColumns Standing);

    private static readonly Func<GesamtDb, IAsyncEnumerable<Stored>> OnTable = EF.CompileAsyncQuery(
        (GesamtDb db) =>
            db
                .Projects.AsNoTracking()
                .Where(p => p.Standing.OnTable && p.Standing.Ended == null)
                .Select(p => new Stored(p.Id, p.Title, p.Pinned.Rules, p.Standing))
    );

    /// <summary>By the date that matters; those without one last.</summary>
    private static async Task<List<Row>> RowsAsync(Desk desk)
    {
        var rows = await OnTable(desk.Db).ToListAsync();
        return
        [
            .. rows.Select(p => new Row(p.Id, p.Title, p.Rules, p.Standing, PhasesOf(p.Standing)))
                .OrderBy(row => row.Standing.MainDate ?? LocalDate.MaxIsoValue)
                .ThenBy(row => row.Title, StringComparer.Ordinal)
                .ThenBy(row => row.Id.Value),
        ];
    }

    private static IReadOnlyList<PhaseSpan> PhasesOf(StandingColumns standing) =>
        standing.Phases == "[]" ? [] : StoreJson.TryRead<List<PhaseSpan>>(standing.Phases) ?? [];

    /// <summary>Null where nothing of it lies in these months.</summary>
    private static SeasonRowDto? Told(Desk desk, Scale scale, Row row, SeasonDots.Of dots)
    {
        var phases = row.Phases.Select(phase => Phase(desk, scale, phase)).OfType<SeasonPhaseDto>().ToList();
        var date = Date(desk, scale, row);
        var rest = Rest(desk, scale, row);
        return phases.Count == 0 && date is null && rest is null && dots.Shown.Count == 0
            ? null
            : new(
                row.Id.Value,
                row.Title,
                Under(desk, row, dots),
                phases,
                dots.Shown,
                date,
                rest,
                dots.Money(desk, row.Standing)
            );
    }

    private static SeasonRowDto Untold(Row row) =>
        new(row.Id.Value, row.Title, Hosting.Untold.Words, [], [], null, null, new("", "", false));

    private static SeasonPhaseDto? Phase(Desk desk, Scale scale, PhaseSpan phase)
    {
        if (phase.From is not { } from)
            return null;
        var isOpen = phase.Until is null;
        // what is in work beyond its days goes on until today
        var until =
            phase.Until is { } end && (phase.State == PhaseState.Done || end > desk.Today || from > desk.Today) ? end
            : from > desk.Today ? from.PlusDays(1)
            : desk.Today.PlusDays(1);
        if (until == from)
            until = from.PlusDays(1);
        if (!scale.Touches(from, until))
            return null;
        var words = string.Join(
            ", ",
            new[]
            {
                phase.Name,
                $"{desk.Short(from)}{(phase.Until is { } known ? $" to {desk.Short(known)}" : ", until is not known")}",
                PhaseWord(phase, desk.Today),
            }
        );
        // booked is not begun
        var state = phase.State == PhaseState.InWork && from > desk.Today ? PhaseState.Ahead : phase.State;
        return new(words, state, scale.At(from), scale.At(until), isOpen);
    }

    private static string PhaseWord(PhaseSpan phase, LocalDate today) =>
        phase.State switch
        {
            PhaseState.Ahead when phase.From < today => "not begun",
            PhaseState.Ahead => "ahead",
            PhaseState.InWork when phase.From > today => "ahead",
            PhaseState.InWork => "in work",
            PhaseState.Resting => "resting",
            _ => "done",
        };

    private static SeasonDateDto? Date(Desk desk, Scale scale, Row row) =>
        row.Standing.MainDate is { } date && scale.Holds(date)
            ? new(
                scale.At(date),
                $"{desk.Short(date)}, {(row.IsBooked ? DayNotes.MainDate(desk, row.Rules) : "if agreed")}"
            )
            : null;

    private static SeasonRestDto? Rest(Desk desk, Scale scale, Row row)
    {
        if (row.Standing.Waits != WaitKind.Resting || row.Standing.Until is not { } until)
            return null;
        var end = desk.Calendar.DateOf(until);
        return scale.Touches(desk.Today, end)
            ? new(scale.At(desk.Today), scale.At(end), $"rests until {desk.Short(end)}")
            : null;
    }

    /// <summary>Where it is: what rests, what waits for being booked, what begins when, which phase is in work.</summary>
    private static string Under(Desk desk, Row row, SeasonDots.Of dots)
    {
        var words =
            row.Standing is { Waits: WaitKind.Resting, Until: { } until }
                ? $"rests until {desk.Short(desk.Calendar.DateOf(until))}"
            : !row.IsBooked || row.Phases.Count == 0 ? row.Standing.Words
            : row.StartAfter(desk.Today) is { } start ? $"starts {desk.Short(start)}"
            : row.Phases.FirstOrDefault(phase => phase.State is PhaseState.InWork or PhaseState.Resting) is { } now
                ? $"{now.Name}{(now.State == PhaseState.Resting ? " rests" : "")}{Undated(row)}"
            : row.Standing.Words;
        return ShortText.Capital(dots.Every is { } every ? $"{words}, {every}" : words);
    }

    /// <summary>Of what no length is known, no day is.</summary>
    private static string Undated(Row row) =>
        row.Phases.FirstOrDefault(phase => phase is { State: PhaseState.Ahead, From: null }) is { } phase
            ? $", {phase.Name} has no days"
            : "";

    private static StartsDto Starts(
        Desk desk,
        IReadOnlyList<Row> rows,
        HeldDays held,
        int hours,
        long? kind,
        IReadOnlyList<StartKindDto> kinds
    )
    {
        var next = rows.Where(row => row.IsBooked)
            .Select(row => (Row: row, Start: row.StartAfter(desk.Today)))
            .Where(one => one.Start is not null)
            .OrderBy(one => one.Start)
            .ThenBy(one => one.Row.Id.Value)
            .FirstOrDefault();
        var free = FreeStart.Of(held.Loads.Chunk(Week.Days), hours, desk.Today);
        return new(
            next.Row is null ? "" : $"{desk.Short(next.Start)}, {next.Row.Title}",
            next.Row?.Id.Value,
            free is { } monday ? desk.Short(monday) : $"no week in sight leaves {hours} h",
            hours,
            kinds.Any(one => one.Id == kind) ? kind : null,
            kinds
        );
    }

    private sealed record KindOf(KindId Id, string Name, string Rules);

    private static readonly Func<GesamtDb, Task<List<KindOf>>> Kinds = Prepared.Rows(
        (GesamtDb db) =>
            db
                .Kinds.AsNoTracking()
                .Where(k => !k.Removed)
                .OrderBy(k => k.Position)
                .Select(k => new KindOf(k.Id, k.Name, k.Rules))
    );

    private static async Task<IReadOnlyList<StartKindDto>> KindsAsync(Desk desk) =>
        [
            .. (await Kinds(desk.Db)).Select(k => new StartKindDto(
                k.Id.Value,
                k.Name,
                desk.Tell(() => StoreJson.ReadOnce<KindRules>(k.Rules).FirstWeekHours, () => null)
                    ?? FreeStart.UsualHours
            )),
        ];

    private static IReadOnlyList<SeasonWeekDto> Weeks(Desk desk, Scale scale, HeldDays held, int hours) =>
        [
            .. held
                .Loads.Chunk(Week.Days)
                .Where(week => scale.Touches(week[0].Day, week[0].Day.PlusDays(Week.Days)))
                .Select(week =>
                {
                    var (planned, open) = (week.Sum(day => day.Planned), week.Sum(day => day.Open));
                    var isFree = week[0].Day >= desk.Today && FreeStart.Left(week) >= hours * 60;
                    var load = new DayLoad(week[0].Day, open, 0, planned, 0);
                    return new SeasonWeekDto(
                        week[0].Day,
                        DateWords.DaysBetween(scale.First, week[0].Day),
                        $"week of {desk.Short(week[0].Day)}: {(load.Words.Length > 0 ? load.Words : "closed")}{(load.Over > 0 ? $", {WorkTime.Words(load.Over)} too much" : isFree ? ", free for a start" : "")}",
                        DayViews.Of(load).Share,
                        load.Over > 0,
                        isFree
                    );
                }),
        ];

    private static LocalDate Earlier(LocalDate first, LocalDate today) => Week.MondayOf(first < today ? first : today);

    /// <summary>Whole weeks from the earlier of both Mondays, until what is shown and what is looked through for a free week.</summary>
    private static int Count(Desk desk, LocalDate first, LocalDate end)
    {
        var from = Earlier(first, desk.Today);
        var ahead = desk.Today.PlusWeeks(WeeksAhead);
        var days = DateWords.DaysBetween(from, end > ahead ? end : ahead);
        return (days + Week.Days - 1) / Week.Days * Week.Days;
    }

    private static string Title(LocalDate first, LocalDate last) =>
        first.Year == last.Year
            ? $"{first.ToString("MMMM", CultureInfo.InvariantCulture)} to {DateWords.Month(last)}"
            : $"{DateWords.Month(first)} to {DateWords.Month(last)}";

    /// <summary>Days as places from the first that is shown.</summary>
    public sealed class Scale(Desk desk, LocalDate first, LocalDate end)
    {
        public LocalDate First { get; } = first;

        /// <summary>The day after the last.</summary>
        public LocalDate End { get; } = end;

        public bool Holds(LocalDate day) => day >= First && day < End;

        /// <summary>Whether any of these days is shown.</summary>
        public bool Touches(LocalDate from, LocalDate until) => from < End && until > First;

        /// <summary>A day's place; what lies outside stands at the edge.</summary>
        public int At(LocalDate day) =>
            DateWords.DaysBetween(
                First,
                day < First ? First
                    : day > End ? End
                    : day
            );

        public SeasonScaleDto Dto(int span) =>
            new(
                First,
                DateWords.DaysBetween(First, End),
                Holds(desk.Today) ? At(desk.Today) : null,
                span,
                [
                    .. Enumerable
                        .Range(0, span)
                        .Select(at => First.PlusMonths(at))
                        .Select(month => new SeasonMonthDto(
                            month.ToString(span > 6 ? "MMM" : "MMMM", CultureInfo.InvariantCulture),
                            At(month)
                        )),
                ]
            );
    }
}
