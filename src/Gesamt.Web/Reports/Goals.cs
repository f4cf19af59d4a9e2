using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Projects;
using Gesamt.Core.Reports;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Reports;

/// <summary>What the owner wants to reach in a year, and how far that is.</summary>
internal static class Goals
{
    private const int LongestTitle = 100,
        MostMeasures = 8,
        MostGoals = 40;

    private const decimal MostNumber = 1_000_000_000;

    public static async Task<GoalsDto> OfAsync(Desk desk, int? year)
    {
        var of = YearOf(year ?? desk.Today.Year);
        var figures = new YearFigures(desk, of);
        List<GoalDto> goals = [];
        foreach (
            var row in await desk
                .Db.Goals.AsNoTracking()
                .Where(g => g.Year == of && !g.Removed)
                .OrderBy(g => g.Id)
                .ToListAsync()
        )
            goals.Add(await ToldAsync(figures, row));
        var years = await desk.Db.Goals.Where(g => !g.Removed).Select(g => g.Year).Distinct().ToListAsync();
        return new(
            of,
            [.. years.Append(desk.Today.Year).Append(of).Distinct().OrderDescending()],
            Elapsed(desk.Today, of),
            goals,
            YearFigures.All
        );
    }

    /// <summary>The goals of a year with their measures, as a table.</summary>
    public static async Task<FileContentHttpResult> TableAsync(Desk desk, int? year)
    {
        var goals = await OfAsync(desk, year);
        return TableFile.Of(
            $"goals-{goals.Year}",
            ["Year", "Goal", "Reached per cent", "Measure", "Stands", "Measure reached per cent"],
            goals.Goals.SelectMany(goal =>
                goal.Measures.Select(measure =>
                    (IReadOnlyList<string>)
                        [
                            $"{goals.Year}",
                            goal.Title,
                            $"{goal.Percent}",
                            measure.Words,
                            measure.Told,
                            $"{measure.Percent}",
                        ]
                )
            )
        );
    }

    /// <param name="id">The one that is changed; null sets a new one.</param>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<GoalId> SaveAsync(Desk desk, GoalId? id, SaveGoalDto save) =>
        desk.ActAsync(async act =>
        {
            var (title, measures) = await ReadAsync(desk, save);
            var year = YearOf(save.Year);
            if (id is null && await desk.Db.Goals.CountAsync(g => g.Year == year && !g.Removed) >= MostGoals)
                throw new InvalidException(("title", $"At most {MostGoals} goals a year."));
            var row = id is { } known ? await OneAsync(desk, known) : new() { Title = "", Measures = "[]" };
            (row.Year, row.Title, row.Measures) = (year, title, StoreJson.Write(measures));
            if (id is null)
                act.Db.Goals.Add(row);
            await act.Db.SaveChangesAsync();
            return row.Id;
        });

    /// <summary>Takes it out, or puts it back.</summary>
    public static Task RemoveAsync(Desk desk, GoalId id, bool removed) =>
        desk.ActAsync(async _ => (await OneAsync(desk, id)).Removed = removed);

    private static async Task<GoalDto> ToldAsync(YearFigures figures, GoalRow row)
    {
        var measures = StoreJson.Read<List<GoalMeasure>>(row.Measures);
        List<(GoalMeasure Measure, decimal? Present)> read = [];
        foreach (var measure in measures)
            read.Add((measure, await figures.OfAsync(measure)));
        // without a figure it stands where it began
        var standing = read.Select(one => new Measure(
                one.Measure.Start,
                one.Present ?? one.Measure.Start,
                one.Measure.Target
            ))
            .ToList();
        var told = read.Select(
                (one, i) =>
                    new MeasureDto(
                        one.Measure.Words.Length > 0 ? one.Measure.Words : YearFigures.Words(one.Measure.Figure),
                        Told(figures, one.Measure, one.Present),
                        GoalProgress.Percent([standing[i]])!.Value,
                        one.Measure.Figure is not null
                    )
            )
            .ToList();
        return new(
            row.Id.Value,
            row.Title,
            told is [{ } only] ? $"{only.Told} {only.Words}".TrimEnd() : $"{told.Count} measures, their mean",
            GoalProgress.Percent(standing) ?? 0,
            told,
            new(row.Year, row.Title, [.. measures.Select(Said)])
        );
    }

    /// <summary>“9 of 12”; “6 now, from 14 to 4” for what does not begin at nothing or falls.</summary>
    private static string Told(YearFigures figures, GoalMeasure measure, decimal? present)
    {
        string Words(decimal number) => figures.Told(measure.Figure, number);
        return (present, measure) switch
        {
            (null, _) => $"no figure yet, to reach {Words(measure.Target)}",
            ({ } now, { Start: 0, Target: >= 0 }) => $"{Words(now)} of {Words(measure.Target)}",
            ({ } now, _) => $"{Words(now)} now, from {Words(measure.Start)} to {Words(measure.Target)}",
        };
    }

    private static SaveMeasureDto Said(GoalMeasure measure) =>
        new(
            measure.Words,
            NumberText.Number(measure.Start),
            NumberText.Number(measure.Target),
            NumberText.Number(measure.Present),
            measure.Figure,
            measure.Kind,
            measure.Source,
            measure.AtLeast is { } least ? NumberText.Number(least) : null
        );

    /// <exception cref="InvalidException">Something is wrong; every field is named.</exception>
    private static async Task<(string Title, List<GoalMeasure>)> ReadAsync(Desk desk, SaveGoalDto save)
    {
        var (title, measures) = new GoalFields().Of(save);
        var kinds = measures.Select(one => one.Kind).OfType<long>().Select(id => new KindId(id)).Distinct().ToList();
        if (kinds.Count > 0 && await desk.Db.Kinds.CountAsync(k => kinds.Contains(k.Id)) < kinds.Count)
            throw new InvalidException(("kind", "Choose a kind of work."));
        return (title, measures);
    }

    /// <summary>Reads a goal as it was typed; the fields of its measures by their place, as “measures.0.target”.</summary>
    private sealed class GoalFields : TypedFields
    {
        public (string Title, List<GoalMeasure>) Of(SaveGoalDto save)
        {
            var title = save.Title.Trim();
            if (title.Length is 0 or > LongestTitle)
                Wrong("title", $"A goal is said in 1 to {LongestTitle} characters.");
            if (save.Measures.Count is 0 or > MostMeasures)
                Wrong("measures", $"A goal has 1 to {MostMeasures} measures.");
            List<GoalMeasure> measures = [.. save.Measures.Take(MostMeasures).Select(Of)];
            Demand();
            return (title, measures);
        }

        private GoalMeasure Of(SaveMeasureDto one, int at)
        {
            var words = one.Words.Trim();
            if (words.Length > LongestTitle)
                Wrong($"measures.{at}.words", $"At most {LongestTitle} characters.");
            if (words.Length == 0 && one.Figure is null)
                Wrong($"measures.{at}.words", "Say what is counted.");
            var counts = YearFigures.CountsProjects(one.Figure);
            var source = one.Source?.Trim() ?? "";
            if (source.Length > HeadLimits.Source)
                Wrong($"measures.{at}.source", $"At most {HeadLimits.Source} characters.");
            return new(
                words,
                Read($"measures.{at}.start", one.Start, 0) ?? 0,
                Read($"measures.{at}.target", one.Target, null) ?? 0,
                one.Figure is null ? Read($"measures.{at}.present", one.Present, 0) ?? 0 : 0,
                one.Figure,
                counts ? one.Kind : null,
                counts && source.Length > 0 ? source : null,
                counts ? Read($"measures.{at}.atLeast", one.AtLeast ?? "", null, none: true) : null
            );
        }

        private decimal? Read(string field, string text, decimal? empty, bool none = false)
        {
            if (text.Trim().Length == 0 && (empty is not null || none))
                return empty;
            if (
                NumberText.Exact(text.Trim()) is { } number
                && Math.Abs(number) <= MostNumber
                && decimal.Round(number, 2) == number
            )
                return number;
            Wrong(field, $"A number of at most two decimals, such as {NumberText.Number(12)}.{NumberText.Doubt(text)}");
            return null;
        }
    }

    private static double Elapsed(LocalDate today, int year) =>
        today.Year > year ? 1
        : today.Year < year ? 0
        : (double)today.DayOfYear / (CalendarSystem.Iso.GetDaysInYear(year));

    private static int YearOf(int year) =>
        year is >= 1990 and < 2200 ? year : throw new InvalidException(("year", "A year from 1990 to 2199."));

    private static async Task<GoalRow> OneAsync(Desk desk, GoalId id) =>
        await desk.Db.Goals.SingleOrDefaultAsync(g => g.Id == id) ?? throw new MissingException("goal");
}
