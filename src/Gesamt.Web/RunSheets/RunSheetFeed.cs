using Gesamt.Core.Work;
using Gesamt.Formats.Calendars;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Meetings;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.RunSheets;

/// <summary>The hours of run sheets in the owner’s feed; provisional ones say so.</summary>
public sealed class RunSheetFeed : IFeeds
{
    private const int MostSheets = 200,
        ShortestMinutes = 15;

    /// <inheritdoc/>
    public async Task<IReadOnlyList<CalendarMeeting>> EventsAsync(Desk desk, Instant since)
    {
        var sheets = await desk
            .Db.RunSheets.AsNoTracking()
            .Where(r => desk.Db.Projects.Any(p => p.Id == r.ProjectId && p.Standing.Ended == null && !p.Rehearsal))
            .OrderByDescending(r => r.Id)
            .Take(MostSheets)
            .ToListAsync();
        var files = await desk.Db.OpenManyAsync([.. sheets.Select(r => r.ProjectId)], desk.Calendar);
        List<CalendarMeeting> events = [];
        foreach (var row in sheets)
            if (
                files.TryGetValue(row.ProjectId, out var file)
                && desk.Tell(() => (RunSheet?)ProjectRunSheet.SheetOf(file, row), () => null)
                    is { MainDay: { } day } sheet
            )
                events.AddRange(
                    Of(desk, file, sheet, day, !await ProjectRunSheet.IsAgreedAsync(desk, file, sheet))
                        .Where(one => one.End > since)
                );
        return events;
    }

    private static IEnumerable<CalendarMeeting> Of(
        Desk desk,
        ProjectFile file,
        RunSheet sheet,
        LocalDate day,
        bool provisional
    ) =>
        sheet.Items.Select(item =>
        {
            var start = desk.Calendar.At(day.PlusDays(item.Day) + item.Start);
            return new CalendarMeeting(
                $"run-{file.Id.Value}-{item.Key}@{desk.Studio.MailDomain}",
                0,
                start,
                start + Duration.FromMinutes(Math.Max(item.Minutes, ShortestMinutes)),
                $"{item.What}, {file.Row.Title}",
                item.Who,
                item.Where,
                start
            )
            {
                Tentative = provisional,
            };
        });
}
