using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Routines;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Testimonials;

/// <summary>What was said of a project, and what its client lets the studio make of it.</summary>
public static class PraiseOfProject
{
    /// <summary>What matters of it in one line; null while there is nothing.</summary>
    public static string? Line(Desk desk, ProjectFile file)
    {
        var state = TestimonialRule.Of(file.History);
        string[] parts =
        [
            state.MayQuote ? "may be quoted"
            : state.IsOpen ? $"words with the client since {Day(desk, state.PutAt)}"
            : state.Quote.State == LeaveState.Revoked ? "not to be quoted any more"
            : state.Declined is not null || state.Quote.State == LeaveState.Refused ? "would rather not be quoted"
            : "",
            state.MayShow ? "may be shown"
            : state.Show.State == LeaveState.Revoked ? "not to be shown any more"
            : "",
        ];
        var line = string.Join(", ", parts.Where(part => part.Length > 0));
        return line.Length > 0 ? line
            : state != Testimonial.None ? "answered"
            : file.History.Any<Happening.PraiseKept>() ? "kept"
            : null;
    }

    public static async Task<ProjectPraiseDto> OfAsync(Desk desk, ProjectFile file)
    {
        var state = TestimonialRule.Of(file.History);
        var versions = await VersionsAsync(desk, file.Id);
        var rows = await desk
            .Db.Praise.AsNoTracking()
            .Where(p => p.ProjectId == file.Id && !p.Removed)
            .OrderByDescending(p => p.On)
            .ThenByDescending(p => p.Id)
            .ToListAsync();
        return new(
            [.. rows.Select(row => Of(desk, row))],
            Favours.WaitFor(file.Case),
            StateWords(desk, state),
            state.IsOpen ? Quotable(versions, state.Put) : null,
            Quotable(versions, state.Approved),
            NameOf(file),
            [.. Enum.GetValues<LeaveTo>().Select(to => LeaveOf(desk, state.Of(to), to, versions))],
            state.MayQuote
        );
    }

    private static PraiseDto Of(Desk desk, PraiseRow row) =>
        new(
            row.Id.Value,
            row.Words,
            row.On,
            row.Who,
            row.Who.Length > 0 ? $"{row.Who}, {desk.Short(row.On)}" : desk.Short(row.On)!,
            row.LetterId is { } letter ? $"Letter.{letter.Value}"
                : row.NoteId is { } note ? $"Note.{note.Value}"
                : null
        );

    internal static string StateWords(Desk desk, Testimonial state) =>
        state.IsOpen ? $"with the client since {Day(desk, state.PutAt)}"
        : state.Declined is { } no ? $"declined {Day(desk, no)}"
        : state.ApprovedAt is { } yes ? $"approved {Day(desk, yes)}"
        : "";

    internal static LeaveDto LeaveOf(
        Desk desk,
        Leave leave,
        LeaveTo to,
        IReadOnlyDictionary<VersionId, VersionRow> versions
    ) =>
        new(
            to,
            leave.State,
            leave.State switch
            {
                LeaveState.Unasked => "",
                LeaveState.Asked => $"asked {Day(desk, leave.Since)}",
                LeaveState.Given => $"given {Day(desk, leave.Since)}",
                LeaveState.Refused => $"refused {Day(desk, leave.Since)}",
                _ => $"taken back {Day(desk, leave.Since)}",
            },
            leave.Wording is { } wording && versions.TryGetValue(wording, out var kept)
                ? Versions.Read<LeaveWording>(kept).Sentence
                : TestimonialRule.Wording(to, desk.Studio.Name)
        );

    internal static QuotableDto? Quotable(IReadOnlyDictionary<VersionId, VersionRow> versions, VersionId? words) =>
        words is { } id && versions.TryGetValue(id, out var version) ? Versions.Read<QuotableDto>(version) : null;

    internal static Task<Dictionary<VersionId, VersionRow>> VersionsAsync(Desk desk, ProjectId project) =>
        desk
            .Db.Versions.AsNoTracking()
            .Where(v => v.ProjectId == project && (v.Sort == PaperSort.Testimonial || v.Sort == PaperSort.Leave))
            .ToDictionaryAsync(v => v.Id);

    /// <summary>“Fiona Byrne, Signal Box Café”.</summary>
    private static string NameOf(ProjectFile file) =>
        file.Row.Client!.Organisation is { Length: > 0 } organisation && organisation != file.Row.Client.Name
            ? $"{file.Row.Client.Name}, {organisation}"
            : file.Row.Client.Name;

    internal static string Day(Desk desk, Instant? at) =>
        at is { } known ? desk.Short(desk.Calendar.DateOf(known))! : "";

    /// <summary>Puts words to the client, with a letter; once all is settled between them, and only one at a time.</summary>
    /// <exception cref="RefusedException">Something stands in the way; it is said.</exception>
    public static Task<LetterRow> PutAsync(Desk desk, ProjectId project, PutTestimonialDto put) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            if (Favours.WaitFor(file.Case) is { } waits)
                throw new RefusedException($"Not yet: asking waits until {waits}.");
            if (TestimonialRule.Of(file.History).IsOpen)
                throw new RefusedException("Words are with the client already. Take them back first.");
            var words = Read(put.Words, put.Name, least: 0);
            var letter = await LettersOut.ClaimAsync(act, file, put.Subject, put.Body, null);
            var version = await Versions.AddAsync(desk, project, PaperSort.Testimonial, words);
            await act.RecordAsync(file, Actor.Owner, new Happening.TestimonialPut(version.Id));
            return letter;
        });

    /// <param name="least">0 where the client is to write them.</param>
    internal static QuotableDto Read(string words, string name, int least) =>
        new(
            TypedText.Of("words", words, least, Praising.LongestWords, "What is quoted"),
            TypedText.Of("name", name, 1, Praising.LongestName, "The name it is given with")
        );

    public static Task TakeBackAsync(Desk desk, ProjectId project) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            if (TestimonialRule.Of(file.History).IsOpen)
                await act.RecordAsync(file, Actor.Owner, new Happening.TestimonialTakenBack());
        });

    /// <summary>What the client said elsewhere, by phone or in a letter, on its day.</summary>
    /// <exception cref="InvalidException">It is no answer.</exception>
    public static Task NoteAsync(Desk desk, ProjectId project, NoteLeaveDto said) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var at = Moments.Of(desk, said.On);
            if (said.State == LeaveState.Revoked)
            {
                Revocable(file, said.To);
                await act.RecordAtAsync(file, Actor.Owner, at, new Happening.LeaveRevoked(said.To));
                return;
            }
            if (said.State is not (LeaveState.Given or LeaveState.Refused))
                throw new InvalidException(("state", "A leave is given, refused or taken back."));
            var wording = said.Wording?.Trim() is { Length: > 0 } own
                ? TypedText.Of("wording", own, 1, Praising.LongestWords, "What was agreed to")
                : TestimonialRule.Wording(said.To, desk.Studio.Name);
            await act.RecordAtAsync(
                file,
                Actor.Owner,
                at,
                await AnswerAsync(desk, project, said.To, said.State, wording)
            );
        });

    /// <summary>The answer to a leave with its wording kept.</summary>
    internal static async Task<Happening> AnswerAsync(
        Desk desk,
        ProjectId project,
        LeaveTo to,
        LeaveState state,
        string wording
    )
    {
        var version = await Versions.AddAsync(desk, project, PaperSort.Leave, new LeaveWording(wording));
        return state == LeaveState.Given
            ? new Happening.LeaveGiven(to, version.Id)
            : new Happening.LeaveRefused(to, version.Id);
    }

    /// <exception cref="RefusedException">It was never given, or is taken back already.</exception>
    internal static void Revocable(ProjectFile file, LeaveTo to)
    {
        if (TestimonialRule.Of(file.History).Of(to).State != LeaveState.Given)
            throw new RefusedException("There is no such leave to take back.");
    }
}
