using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Planning;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>One month by its weeks.</summary>
public static class MonthView
{
    private const int MostEntries = 4;

    /// <param name="day">Any day of it.</param>
    public static async Task<MonthDto> OfAsync(Desk desk, LocalDate day)
    {
        var first = new LocalDate(day.Year, day.Month, 1);
        var end = first.PlusMonths(1);
        var from = Week.MondayOf(first);
        var held = await HeldDays.OfAsync(
            desk,
            from,
            DateWords.DaysBetween(from, Week.MondayOf(end.PlusDays(-1)).PlusDays(Week.Days))
        );
        var notes = await DayNotes.OfAsync(desk, held);
        var titles = await TitlesAsync(desk, [.. notes.Select(note => note.Project).Distinct()]);
        var meetings = DayViews.Meetings(desk, held, await Week.BusyAsync(desk, held)).ToLookup(one => one.Day);
        var entries = held
            .Tasks.Select(one =>
                (one.Day, new MonthEntryDto(one.Task.Title, null, one.Task.Project.Value, one.Task.DoneAt is not null))
            )
            .Concat(
                notes
                    .Where(note => note.Note.Sort is DayNoteSort.Due or DayNoteSort.Date)
                    .Select(note =>
                        (
                            note.Note.Day,
                            new MonthEntryDto(
                                note.Note.Sort == DayNoteSort.Date
                                    ? $"{titles[note.Project]}: {note.Note.Words}"
                                    : note.Note.Words,
                                note.Note.Sort,
                                note.Project.Value,
                                false
                            )
                        )
                    )
            )
            // a date that matters is never left out
            .OrderByDescending(one => one.Item2.Sort == DayNoteSort.Date)
            .ToLookup(one => one.Day, one => one.Item2);
        return new(
            DateWords.Month(first),
            Load.Summary([.. held.Loads.Where(load => load.Day.Month == first.Month)]),
            new(first.PlusMonths(-1), desk.Today, end),
            [
                .. held.Loads.Select(load => new MonthDayDto(
                    DayViews.Head(desk, load),
                    load.Day.Month == first.Month,
                    [.. meetings[load.Day]],
                    [.. entries[load.Day].Take(MostEntries)],
                    Math.Max(0, entries[load.Day].Count() - MostEntries)
                )),
            ]
        );
    }

    private static Task<Dictionary<ProjectId, string>> TitlesAsync(Desk desk, List<ProjectId> ids) =>
        desk
            .Db.Projects.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .Select(p => new { p.Id, p.Title })
            .ToDictionaryAsync(p => p.Id, p => p.Title);
}
