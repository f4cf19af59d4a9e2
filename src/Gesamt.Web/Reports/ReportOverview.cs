using Gesamt.Core;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Reports;

/// <summary>What became of the inquiries of some days: one list that all its figures are counted from, and that each of them opens.</summary>
internal static class ReportOverview
{
    private const int MostNames = 100;

    /// <summary>So many reminders or more are one figure.</summary>
    public const int ManyChases = 4;

    /// <summary>Rows of what was brought, unless more are asked for.</summary>
    public const int Usual = 8,
        MostRows = 500;

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static async Task<ReportsDto> OfAsync(Desk desk, ReportQuery query, ReportBy by, int most)
    {
        if (most is < 1 or > MostRows)
            throw new InvalidException(("most", $"From 1 to {MostRows}."));
        var earliest = await EarliestAsync(desk);
        var range = ReportRange.Of(desk, query, earliest);
        var beside = desk.BesideAsync(second => BesideAsync(second, query, range, earliest));
        var all = await Cohort.Asked(desk, query, range).ReadAsync();
        var (lengths, booked, took, choices) = await beside;
        return new(
            Head(range, all),
            Funnel.Of(all),
            lengths,
            Columns(desk, range, all, booked),
            await Brought.OfAsync(desk, all, took, by, most),
            Chased(all),
            choices
        );
    }

    /// <summary>Who or what brought how much, as a table.</summary>
    public static async Task<FileContentHttpResult> TableAsync(Desk desk, ReportQuery query, ReportBy by)
    {
        var range = ReportRange.Of(desk, query, await EarliestAsync(desk));
        return await Brought.TableAsync(desk, await Cohort.Asked(desk, query, range).ReadAsync(), by);
    }

    /// <summary>The day the first inquiry came; today where none has.</summary>
    public static async Task<LocalDate> EarliestAsync(Desk desk) =>
        await desk.Db.Projects.MinAsync(p => p.Standing.BeganAt) is { } began
            ? desk.Calendar.DateOf(began)
            : desk.Today;

    /// <summary>Those whose price was agreed, by how many reminders went before.</summary>
    public static IEnumerable<Came> ChasedTimes(IEnumerable<Came> all, int chases) =>
        all.Where(one => one.Chases is { } times && (chases >= ManyChases ? times >= ManyChases : times == chases));

    /// <summary>What can be read without the inquiries themselves.</summary>
    private static async Task<(
        LengthsDto Lengths,
        List<LocalDate> Booked,
        IReadOnlyDictionary<ProjectId, Took> Took,
        ReportChoicesDto Choices
    )> BesideAsync(Desk desk, ReportQuery query, ReportRange range, LocalDate earliest) =>
        (
            await Lengths.OfAsync(desk, query, range),
            await Cohort.FirstBookingDaysAsync(desk, query, range),
            await HourlyFigures.OfAsync(
                desk,
                Cohort.Asked(desk, query, range).Where(p => p.Standing.FinishedAt != null)
            ),
            await ChoicesAsync(desk, earliest)
        );

    private static ReportHeadDto Head(ReportRange range, List<Came> all) =>
        new(
            range.Title,
            range.First,
            range.Last,
            all.Count,
            all.Count(one => one.IsWon),
            all.Count(one => one.IsLost),
            all.Count(one => one.IsApart),
            all.Count(one => one.IsOpen)
        );

    private static IReadOnlyList<ReportColumnDto> Columns(
        Desk desk,
        ReportRange range,
        List<Came> all,
        List<LocalDate> booked
    )
    {
        var columns = range.Columns;
        var begin = columns.Select(column => column.First).ToList();
        var came = all.ToLookup(one => At(desk.Calendar.DateOf(one.Began!.Value)));
        var first = booked.CountBy(At).ToDictionary();
        return
        [
            .. columns.Select(
                (column, at) =>
                    new ReportColumnDto(
                        column.Name,
                        column.Long,
                        column.First,
                        column.Last,
                        came[at].Count(),
                        came[at].Count(one => one.IsWon),
                        first.GetValueOrDefault(at)
                    )
            ),
        ];

        // they follow each other without a gap
        int At(LocalDate on)
        {
            var at = begin.BinarySearch(on);
            return at >= 0 ? at : ~at - 1;
        }
    }

    private static IReadOnlyList<ChasedDto> Chased(List<Came> all) =>
        all.All(one => one.Chases is null)
            ? []
            :
            [
                .. Enumerable
                    .Range(0, ManyChases + 1)
                    .Select(chases => new ChasedDto(
                        chases,
                        chases == 0 ? "none"
                            : chases == ManyChases ? $"{ManyChases} or more"
                            : $"{chases}",
                        ChasedTimes(all, chases).Count()
                    )),
            ];

    private static async Task<ReportChoicesDto> ChoicesAsync(Desk desk, LocalDate earliest) =>
        new(
            [
                .. (
                    await desk
                        .Db.Kinds.AsNoTracking()
                        .OrderBy(k => k.Name)
                        .Select(k => new { k.Id, k.Name })
                        .ToListAsync()
                ).Select(k => new ReportKindDto(k.Id.Value, k.Name)),
            ],
            await desk
                .Db.Projects.Where(p => p.Source != null)
                .Select(p => p.Source!)
                .Distinct()
                .OrderBy(source => source)
                .Take(MostNames)
                .ToListAsync(),
            await desk
                .Db.Projects.Where(p => p.Campaign != null)
                .Select(p => p.Campaign!)
                .Distinct()
                .OrderBy(campaign => campaign)
                .Take(MostNames)
                .ToListAsync(),
            [.. Enumerable.Range(earliest.Year, Math.Max(1, desk.Today.Year - earliest.Year + 1)).Reverse()]
        );
}
