using System.Globalization;
using Gesamt.Core.Amounts;
using Gesamt.Core.Forms;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using Gesamt.Core.Texts;
using Gesamt.Formats.Tables;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Registers;

/// <summary>Every project in a table.</summary>
public static class Register
{
    private static readonly Func<GesamtDb, Task<List<string>>> KindNames = Prepared.Rows(
        (GesamtDb db) => db.Kinds.OrderBy(k => k.Name).Select(k => k.Name)
    );

    private static readonly Func<GesamtDb, Task<List<string>>> Sources = Prepared.Rows(
        (GesamtDb db) => db.Projects.Where(p => p.Source != null).Select(p => p.Source!).Distinct().OrderBy(s => s)
    );

    private static readonly Func<GesamtDb, Task<List<string>>> DetailNames = Prepared.Rows(
        (GesamtDb db) => db.Details.Select(d => d.Name).Distinct().OrderBy(d => d)
    );

    private static readonly Func<GesamtDb, Task<bool>> HasHours = EF.CompileAsyncQuery(
        (GesamtDb db) => db.Hours.Any(h => !h.Removed)
    );

    private static readonly Func<GesamtDb, Task<Instant?>> FirstBegan = EF.CompileAsyncQuery(
        (GesamtDb db) => db.Projects.Min(p => p.Standing.BeganAt)
    );

    private const int Most = 200;
    private static readonly RegisterColumn[] Usual =
    [
        RegisterColumn.Client,
        RegisterColumn.Kind,
        RegisterColumn.Stage,
        RegisterColumn.Turn,
        RegisterColumn.Date,
        RegisterColumn.Value,
        RegisterColumn.Owed,
    ];

    /// <summary>The table as it is asked for.</summary>
    public static async Task<RegisterDto> OfAsync(Desk desk, RegisterQuery query)
    {
        var offered = await OfferedAsync(desk, query);
        var columns = ColumnsOf(query, offered);
        var rows = await RowsAsync(desk, query);
        await WorkedAsync(desk, rows, columns);
        var sorted = Sorted(desk, rows, query);
        var groups = Grouped(desk, sorted, query.Group ?? RegisterGroup.Standing)
            .Select(group => Group(desk, group.Name, [.. group.Rows], columns, query.Details ?? [], query.Most ?? Most))
            .ToList();
        var booked = rows.Count(row => row.Standing.BookedAt is not null);
        return new(
            $"{rows.Count} project{(rows.Count == 1 ? "" : "s")}, {booked} booked, worth {desk.Sum(rows.Select(row => (NetBooked(row), row.Standing.Currency)))} net",
            [
                .. columns.Select(column => new RegisterColumnDto(
                    column,
                    RegisterCells.Words(column),
                    RegisterCells.IsAmount(column) || RegisterCells.IsHourly(column)
                )),
                .. (query.Details ?? []).Select(detail => new RegisterColumnDto(
                    null,
                    ShortText.Capital(detail),
                    false
                )),
            ],
            groups,
            await KindNames(desk.Db),
            await Sources(desk.Db),
            await YearsAsync(desk),
            await DetailNames(desk.Db),
            [
                .. offered.Select(column => new RegisterColumnDto(
                    column,
                    RegisterCells.Words(column),
                    RegisterCells.IsAmount(column) || RegisterCells.IsHourly(column)
                )),
            ]
        );
    }

    /// <summary>The same table as CSV: dates in ISO 8601, amounts as plain numbers.</summary>
    public static async Task<byte[]> CsvAsync(Desk desk, RegisterQuery query)
    {
        var columns = ColumnsOf(query, await OfferedAsync(desk, query));
        var all = await RowsAsync(desk, query);
        await WorkedAsync(desk, all, columns);
        var rows = Grouped(desk, Sorted(desk, all, query), query.Group ?? RegisterGroup.Standing)
            .SelectMany(group => group.Rows);
        return Csv.Write(
            [
                "Project",
                .. columns.Select(column =>
                    RegisterCells.IsAmount(column)
                        ? $"{RegisterCells.Words(column)}, {desk.Currency.Code}"
                        : RegisterCells.Words(column)
                ),
                .. (query.Details ?? []).Select(ShortText.Capital),
            ],
            rows.Select(row =>
                (IReadOnlyList<string>)
                    [
                        row.Title,
                        .. columns.Select(column => RegisterCells.Plain(desk, row, column)),
                        .. (query.Details ?? []).Select(detail => row.Details.GetValueOrDefault(detail, "")),
                    ]
            )
        );
    }

    /// <summary>Hourly figures are there only where hours are: with none kept they appear nowhere.</summary>
    private static async Task<IReadOnlyList<RegisterColumn>> OfferedAsync(Desk desk, RegisterQuery query)
    {
        var hours = !desk.Studio.HoursOff && await HasHours(desk.Db);
        return
        [
            .. Enum.GetValues<RegisterColumn>()
                .Where(column =>
                    (hours || !RegisterCells.IsHourly(column))
                    && (query.Routine is { Length: > 0 } || column != RegisterColumn.Routine)
                ),
        ];
    }

    /// <summary>Whoever looks for a routine sees how it stands.</summary>
    private static RegisterColumn[] ColumnsOf(RegisterQuery query, IReadOnlyList<RegisterColumn> offered)
    {
        var columns = query.Columns?.Where(offered.Contains).ToArray() is { Length: > 0 } chosen ? chosen : Usual;
        return offered.Contains(RegisterColumn.Routine) && !columns.Contains(RegisterColumn.Routine)
            ? [RegisterColumn.Routine, .. columns]
            : columns;
    }

    /// <summary>The hours of the rows, and what one of them earns, where that is asked for.</summary>
    private static async Task WorkedAsync(Desk desk, List<RegisterRow> rows, RegisterColumn[] columns)
    {
        if (!columns.Any(RegisterCells.IsHourly))
            return;
        var worked = await HourlyFigures.OfAllAsync(desk);
        foreach (var row in rows)
            if (worked.TryGetValue(new(row.Id), out var spent))
                (row.Minutes, row.AnHour) = (
                    spent.Minutes,
                    row.Standing.NetMinor is { } net ? spent.PerHour(desk.Amount(net, row.Standing.Currency)) : null
                );
    }

    private static async Task<List<RegisterRow>> RowsAsync(Desk desk, RegisterQuery query)
    {
        var projects = desk.Db.Projects.AsNoTracking();
        if (query.Kind is { Length: > 0 } kind)
        {
            var number = await desk.Db.Kinds.Where(k => k.Name == kind).Select(k => k.Id).FirstOrDefaultAsync();
            projects = projects.Where(p => p.Kind!.Name == kind || p.FurtherKinds.Contains(number.Value));
        }
        if (query.Source is { Length: > 0 } source)
            projects = projects.Where(p => p.Source == source);
        if (query.Stage is { } stage)
            projects = projects.Where(p => p.Standing.Stage == stage && p.Standing.Ended == null);
        if (query.Only is { } only)
            projects = Only(desk, projects, only);
        if (query.Words?.Trim() is { Length: > 0 } words)
            projects = projects.Where(p =>
                GesamtDb.Holds(p.Title, words)
                || GesamtDb.Holds(p.Client!.Name, words)
                || GesamtDb.Holds(p.Client.Organisation, words)
            );
        if (query.Year is { } year && year is > 1900 and < 3000)
        {
            var (from, to) = (desk.Calendar.StartOf(new(year, 1, 1)), desk.Calendar.StartOf(new(year + 1, 1, 1)));
            projects = projects.Where(p => p.Standing.BeganAt >= from && p.Standing.BeganAt < to);
        }
        var runs = await RoutineRuns.OfAsync(desk, query);
        if (runs is not null)
        {
            var on = runs.Keys.ToList();
            projects = projects.Where(p => on.Contains(p.Id));
        }
        var rows = await projects
            .Select(p => new RegisterRow(
                p.Id.Value,
                p.Title,
                p.Client!.Organisation ?? p.Client.Name,
                p.Kind!.Name,
                p.Source,
                p.Campaign,
                new RegisterStood
                {
                    Stage = p.Standing.Stage,
                    Turn = p.Standing.Turn,
                    Words = p.Standing.Words,
                    Since = p.Standing.Since,
                    Until = p.Standing.Until,
                    Ended = p.Standing.Ended,
                    MainDate = p.Standing.MainDate,
                    Currency = p.Standing.Currency,
                    AgreedMinor = p.Standing.AgreedMinor,
                    NetMinor = p.Standing.NetMinor,
                    PaidMinor = p.Standing.PaidMinor,
                    OwedMinor = p.Standing.OwedMinor,
                    BeganAt = p.Standing.BeganAt,
                    BookedAt = p.Standing.BookedAt,
                    FinishedAt = p.Standing.FinishedAt,
                    PutAway = p.Standing.PutAway,
                    Milestone = p.Standing.Milestone,
                }
            ))
            .ToListAsync();
        foreach (var row in rows)
            row.Run = runs?.GetValueOrDefault(new(row.Id));
        if (query.Details is { Length: > 0 } details)
        {
            var known = (await desk.Db.Details.AsNoTracking().Where(d => details.Contains(d.Name)).ToListAsync())
                .GroupBy(d => d.ProjectId.Value)
                .ToDictionary(group => group.Key, group => group.ToDictionary(d => d.Name, d => d.Value));
            var rules = (await desk.Db.Kinds.AsNoTracking().Select(k => new { k.Name, k.Rules }).ToListAsync())
                .GroupBy(k => k.Name)
                .ToDictionary(
                    same => same.Key,
                    same =>
                        same.SelectMany(k =>
                                desk.Tell(() => StoreJson.ReadOnce<KindRules>(k.Rules).AllDetails.ToList(), () => [])
                            )
                            .Where(rule => details.Contains(rule.Name))
                            .DistinctBy(rule => rule.Name)
                            .ToDictionary(rule => rule.Name, rule => rule.AsField)
                );
            foreach (var row in rows)
            {
                row.Details = known.GetValueOrDefault(row.Id, []);
                row.InHouse = row.Details.ToDictionary(
                    detail => detail.Key,
                    detail =>
                        rules[row.Kind].TryGetValue(detail.Key, out var field)
                            ? Sizes.InHouse(field, detail.Value)
                            : detail.Value
                );
            }
        }
        return query.Standing is { } standing ? [.. rows.Where(row => StandingOf(row) == standing)] : rows;
    }

    private static IQueryable<ProjectRow> Only(Desk desk, IQueryable<ProjectRow> projects, RegisterOnly only)
    {
        var (db, today, day) = (desk.Db, desk.Today, desk.Now - Duration.FromDays(1));
        var monday = today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday));
        var next = monday.PlusDays(7);
        return only switch
        {
            RegisterOnly.CameIn => projects.Where(p => p.Standing.BeganAt >= day),
            RegisterOnly.Late => projects.Where(p =>
                p.Standing.OnTable
                && (
                    p.Standing.LateSince != null
                    || db.Tasks.Any(t => t.ProjectId == p.Id && t.DoneAt == null && !t.Removed && t.Due < today)
                )
            ),
            _ => projects.Where(p =>
                p.Standing.OnTable
                && (
                    p.Standing.MainDate >= monday && p.Standing.MainDate < next
                    || db.Tasks.Any(t =>
                        t.ProjectId == p.Id && t.DoneAt == null && !t.Removed && t.Due >= monday && t.Due < next
                    )
                    || db.Invoices.Any(i => i.ProjectId == p.Id && i.OwedMinor > 0 && i.Due >= monday && i.Due < next)
                )
            ),
        };
    }

    private static async Task<IReadOnlyList<int>> YearsAsync(Desk desk)
    {
        var first = await FirstBegan(desk.Db);
        return first is { } began
            ?
            [
                .. Enumerable
                    .Range(desk.Calendar.DateOf(began).Year, desk.Today.Year - desk.Calendar.DateOf(began).Year + 1)
                    .Reverse(),
            ]
            : [];
    }

    private static RegisterStanding StandingOf(RegisterRow row) =>
        row.Standing switch
        {
            { PutAway: true } => RegisterStanding.PutAway,
            { Ended: not null } or { Stage: Stage.Finished } => RegisterStanding.Over,
            { BookedAt: not null } => RegisterStanding.Booked,
            _ => RegisterStanding.NotBooked,
        };

    private static List<RegisterRow> Sorted(Desk desk, List<RegisterRow> rows, RegisterQuery query)
    {
        Func<RegisterRow, IComparable?> by =
            Enum.TryParse<RegisterColumn>(query.Sort, out var column) ? row => RegisterCells.Key(desk, row, column)
            : string.Equals(query.Sort, "Title", StringComparison.Ordinal) ? row => row.Title
            : row => row.Standing.BeganAt;
        // what is not known stands last either way
        var known = rows.Where(row => by(row) is not null);
        var order = query.Desc ?? query.Sort is null;
        return
        [
            .. (order ? known.OrderByDescending(by) : known.OrderBy(by)).ThenBy(row => row.Id),
            .. rows.Where(row => by(row) is null),
        ];
    }

    private static IEnumerable<(string Name, IEnumerable<RegisterRow> Rows)> Grouped(
        Desk desk,
        List<RegisterRow> rows,
        RegisterGroup by
    )
    {
        if (by == RegisterGroup.None)
            return [("All", rows)];
        if (by == RegisterGroup.Standing)
            return rows.GroupBy(StandingOf)
                .OrderBy(group => group.Key)
                .Select(group => (Words(group.Key), group.AsEnumerable()));
        if (by is RegisterGroup.Month or RegisterGroup.BookedMonth)
            return rows.GroupBy(row =>
                    MonthOf(desk, by == RegisterGroup.Month ? row.Standing.BeganAt : row.Standing.BookedAt)
                )
                .OrderByDescending(group => group.Key)
                .Select(group =>
                    (
                        group.Key?.ToString("MMMM uuuu", CultureInfo.InvariantCulture) ?? "not booked",
                        group.AsEnumerable()
                    )
                );
        return rows.GroupBy(row =>
                by switch
                {
                    RegisterGroup.Year => row.Standing.BeganAt is { } began
                        ? desk.Calendar.DateOf(began).Year.ToString(CultureInfo.InvariantCulture)
                        : "not known",
                    RegisterGroup.Kind => row.Kind,
                    RegisterGroup.Source => row.Source ?? "not known",
                    RegisterGroup.Client => row.Client,
                    _ => row.Standing.Ended is { } end ? LineText.EndWords(end) : row.Standing.Stage.ToString(),
                }
            )
            .OrderBy(group => group.Key, StringComparer.OrdinalIgnoreCase)
            .Select(group => (group.Key, group.AsEnumerable()));
    }

    private static YearMonth? MonthOf(Desk desk, Instant? at) =>
        at is { } known ? desk.Calendar.DateOf(known).ToYearMonth() : null;

    private static RegisterGroupDto Group(
        Desk desk,
        string name,
        IReadOnlyList<RegisterRow> rows,
        RegisterColumn[] columns,
        string[] details,
        int most
    )
    {
        var booked = rows.Count(row => row.Standing.BookedAt is not null);
        return new(
            name,
            $"{rows.Count}{(booked > 0 ? $", {booked} booked" : "")}",
            [
                .. columns.Select(column =>
                    RegisterCells.IsAmount(column)
                        ? desk.Sum(rows.Select(row => (RegisterCells.Minor(row, column) ?? 0, row.Standing.Currency)))
                        : ""
                ),
                .. details.Select(_ => ""),
            ],
            [
                .. rows.Take(most)
                    .Select(row => new RegisterRowDto(
                        row.Id,
                        row.Title,
                        [
                            .. columns.Select(column => RegisterCells.Cell(desk, row, column)),
                            .. details.Select(detail => row.InHouse.GetValueOrDefault(detail, "")),
                        ]
                    )),
            ],
            Math.Max(0, rows.Count - most)
        );
    }

    private static long NetBooked(RegisterRow row) => row.Standing.BookedAt is null ? 0 : row.Standing.NetMinor ?? 0;

    private static string Words(RegisterStanding standing) =>
        standing switch
        {
            RegisterStanding.NotBooked => "Not yet booked",
            RegisterStanding.Booked => "Booked",
            RegisterStanding.Over => "Over, not put away yet",
            _ => "Put away",
        };
}
