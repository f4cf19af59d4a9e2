using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Letters;
using Gesamt.Core.Stages;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Letters;

/// <summary>What was done since the last letter of progress, to be told in the next one: a draft for the owner, who knows what of it is for the client.</summary>
internal static class Progress
{
    /// <returns>Several lines; null where nothing was done since.</returns>
    public static async Task<string?> OfAsync(Desk desk, ProjectFile file)
    {
        if (Booking.WonAt(file.Case) is not { } won)
            return null;
        var last = await desk
            .Db.Letters.Where(l =>
                l.ProjectId == file.Id && l.Template == Blanks.ProgressLetter && l.State == LetterState.Sent
            )
            .MaxAsync(l => (Instant?)l.At);
        var since = last ?? won;
        string[] done = [.. await TasksAsync(desk, file, since), .. Rounds(file, since), .. PhasesDone(file, since)];
        if (done.Length == 0)
            return null;
        var day = DateWords.Long(desk.Calendar.DateOf(since));
        List<string> parts =
        [
            $"{(last is null ? "Done so far" : $"Done since {day}")}:\n{string.Join('\n', done.Select(one => $"- {one}"))}",
        ];
        if (InWork(file) is { Length: > 0 } now)
            parts.Add($"In work now: {now}.");
        if (await WorkedAsync(desk, file, since) is { } worked)
            parts.Add($"Worked {(last is null ? "so far" : $"since {day}")}: {worked}.");
        return string.Join("\n\n", parts);
    }

    /// <summary>The owner’s tasks; the client knows what they did themselves.</summary>
    private static async Task<IReadOnlyList<string>> TasksAsync(Desk desk, ProjectFile file, Instant since) =>
        await desk
            .Db.Tasks.Where(t =>
                t.ProjectId == file.Id
                && !t.Removed
                && !t.Closing
                && t.PublicId == null
                && t.DoneAt > since
                // what the owner worries about is never the client’s to read
                && (t.MadeFrom == null || !t.MadeFrom.StartsWith(TaskRow.ObstacleMark))
            )
            .OrderBy(t => t.DoneAt)
            .Select(t => t.Title)
            .ToListAsync();

    private static IEnumerable<string> Rounds(ProjectFile file, Instant since) =>
        from review in ReviewRule.Of(file.History)
        where review is { State: ReviewState.Approved, Answered: { } at } && at > since
        select $"{ShortText.Capital(review.Phase ?? "draft")}, round {review.Round}: you said yes";

    private static IEnumerable<string> PhasesDone(ProjectFile file, Instant since) =>
        from phase in PhaseRule.Of(file.Case)
        where phase is { State: PhaseState.Done, Since: { } at } && at > since
        select $"{ShortText.Capital(phase.Name)} is done";

    private static string InWork(ProjectFile file) =>
        string.Join(
            ", ",
            PhaseRule.Of(file.Case).Where(phase => phase.State == PhaseState.InWork).Select(phase => phase.Name)
        );

    /// <summary>Only where the kind says so.</summary>
    private static async Task<string?> WorkedAsync(Desk desk, ProjectFile file, Instant since)
    {
        if (!file.Case.Kind.TellsHours || desk.Studio.HoursOff)
            return null;
        var from = desk.Calendar.DateOf(since);
        var minutes = await desk
            .Db.Hours.Where(h => h.ProjectId == file.Id && !h.Removed && h.On >= from)
            .SumAsync(h => h.Minutes);
        return minutes > 0 ? WorkTime.Words(minutes) : null;
    }
}
