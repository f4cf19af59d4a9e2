using Gesamt.Core;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Checklists;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Reviews;

/// <summary>Where in a draft a remark points: a place in thousandths of its picture, a page, or a second.</summary>
/// <param name="File">The draft, as its page names it.</param>
public sealed record PinDto(string File, int? X = null, int? Y = null, int? Page = null, int? Second = null);

/// <summary>What a client says of a round.</summary>
/// <param name="Pin">Where it points; null for the round as a whole.</param>
public sealed record RemarkDto(string Words, PinDto? Pin = null);

/// <summary>Puts drafts up for review, and takes what the client says of them.</summary>
public static class Reviewing
{
    /// <summary>Puts drafts up: they are shown, the part Drafts of the client page is open, and a letter says so.</summary>
    /// <param name="beyond">That more rounds than agreed are meant.</param>
    /// <exception cref="RefusedException">A round is still open, or it would be one too many and that was not said.</exception>
    /// <exception cref="InvalidException">No draft was chosen, or the letter has a gap.</exception>
    public static async Task<LetterRow> PutUpAsync(
        Desk desk,
        ProjectId project,
        IReadOnlyCollection<long> files,
        string? phase,
        string subject,
        string body,
        bool beyond
    )
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (file.Case.End is not null)
                throw new RefusedException("The project has ended. Take it up again first.");
            if (ReviewRule.Open(file.History) is { } open)
                throw new RefusedException(
                    $"Round {open.Round} is still with the client. Withdraw it first, or wait for the answer."
                );
            if (phase is not null && !file.Case.Kind.HasPhase(phase))
                throw new InvalidException(("phase", $"This project has no phase “{phase}”."));
            var ids = files.Select(id => new FileId(id)).Distinct().ToList();
            var drafts = await desk
                .Db.Files.Where(f =>
                    f.ProjectId == project && ids.Contains(f.Id) && f.Group == FileGroup.Drafts && !f.Removed
                )
                .ToListAsync();
            if (drafts.Count == 0 || drafts.Count != ids.Count)
                throw new InvalidException(("files", "Choose one draft or several of this project."));
            if (await Checklist.LacksAsync(desk, file) is [_, ..] lacks)
                throw new InvalidException(("checklist", string.Join(' ', lacks)));
            var round = ReviewRule.NextRound(file.History);
            if (round > file.Case.Kind.Rounds && !beyond)
                throw new InvalidException(
                    (
                        "beyond",
                        $"{file.Case.Kind.Rounds} rounds were agreed and this is round {round}. Say that a further one is meant, and what it costs, in the letter."
                    )
                );
            var row = new ReviewRow
            {
                ProjectId = project,
                PublicId = Codes.New(),
                Phase = phase,
                Files = StoreJson.Write(ids),
                At = desk.Now,
            };
            desk.Db.Reviews.Add(row);
            await desk.Db.SaveChangesAsync();
            var shown = Sight.Shown(file.History);
            await act.RecordAsync(
                file,
                Actor.Owner,
                [
                    .. Sight.IsOpen(file.History, PagePart.Drafts)
                        ? []
                        : new Happening[] { new Happening.PartOpened(PagePart.Drafts) },
                    .. ids.Where(id => !shown.Contains(id)).Select(id => new Happening.FileShown(id)),
                    new Happening.ReviewOpened(row.Id, phase),
                ]
            );
            var letter = await LettersOut.ClaimAsync(act, file, subject, body, null);
            row.Words = letter.Body;
            return letter;
        });
    }

    /// <summary>Takes a round back that was put up by mistake; it does not count.</summary>
    /// <exception cref="RefusedException">It was answered.</exception>
    public static async Task WithdrawAsync(Desk desk, ReviewId id)
    {
        await desk.ActAsync(async act =>
        {
            var (row, file) = await OpenAsync(desk, id);
            if (ReviewRule.Open(file.History)?.Id != id)
                throw new RefusedException("The client has answered it already.");
            await act.RecordAsync(
                file,
                Actor.Owner,
                [new Happening.ReviewWithdrawn(id), .. FilesOf(row).Select(f => new Happening.FileHidden(f))]
            );
        });
    }

    /// <summary>An approval that does not hold: the round is open again and its phase goes on.</summary>
    public static async Task ReopenAsync(Desk desk, ReviewId id, Actor by)
    {
        await desk.ActAsync(async act =>
        {
            var (row, file) = await OpenAsync(desk, id);
            if (
                ReviewRule.Of(file.History).LastOrDefault(r => r.Round is not null)
                    is not { State: ReviewState.Approved } last
                || last.Id != id
            )
                throw new RefusedException("Only the approval of the last round can be taken back.");
            await act.RecordAsync(file, by, new Happening.ApprovalWithdrawn(id, row.Phase));
        });
    }

    /// <summary>What a client says of the open round: a remark, changes to make, or yes.</summary>
    /// <param name="words">Needed for all but a yes; said with one, they are a remark before it.</param>
    /// <param name="what">The fact, from the round and the words.</param>
    /// <exception cref="RefusedException">The round is not open any more.</exception>
    public static async Task AnswerAsync(
        Desk desk,
        ProjectId project,
        string publicId,
        string person,
        RemarkDto? words,
        Func<ReviewRow, NoteId, Happening> what
    )
    {
        await desk.ActAsync(async act =>
        {
            var row =
                await desk.Db.Reviews.SingleOrDefaultAsync(r => r.PublicId == publicId && r.ProjectId == project)
                ?? throw new MissingException("round");
            var file = await desk.OpenAsync(project);
            if (!Sight.IsOpen(file.History, PagePart.Drafts))
                throw new MissingException("round");
            if (ReviewRule.Open(file.History)?.Id != row.Id)
                throw new RefusedException(
                    "This round has been answered, or taken back. Load the page again to see what is open."
                );
            var note = words is null ? default : await NoteAsync(desk, row, words);
            var fact = what(row, note);
            if (fact is not Happening.RemarkLeft)
                row.AnsweredBy = person;
            await act.RecordAsync(
                file,
                Actor.Client,
                fact is Happening.ReviewApproved && words is not null
                    ? [new Happening.RemarkLeft(row.Id, note), fact]
                    : [fact]
            );
        });
    }

    /// <summary>The drafts of a round; none for one whose list is damaged.</summary>
    public static IReadOnlyList<FileId> FilesOf(ReviewRow row) => StoreJson.TryRead<List<FileId>>(row.Files) ?? [];

    private static async Task<NoteId> NoteAsync(Desk desk, ReviewRow review, RemarkDto remark)
    {
        if (remark.Words.Trim().Length is 0 or > 5_000)
            throw new InvalidException(("words", "Say in 1 to 5 000 characters what you see."));
        var pin = remark.Pin is { } at ? await PinAsync(desk, review, at) : null;
        var note = new NoteRow
        {
            ProjectId = review.ProjectId,
            Sort = NoteSort.Words,
            Text = remark.Words.Trim(),
            At = desk.Now,
            ReviewId = review.Id,
            Pin = pin is null ? null : StoreJson.Write(pin),
        };
        desk.Db.Notes.Add(note);
        await desk.Db.SaveChangesAsync();
        return note.Id;
    }

    /// <exception cref="InvalidException">It is of no draft of this round, or points at no one thing.</exception>
    private static async Task<RemarkPin> PinAsync(Desk desk, ReviewRow review, PinDto at)
    {
        var drafts = FilesOf(review);
        var file = await desk
            .Db.Files.Where(f => f.PublicId == at.File && f.ProjectId == review.ProjectId)
            .Select(f => (FileId?)f.Id)
            .SingleOrDefaultAsync();
        var pin =
            file is { } known && drafts.Contains(known) ? new RemarkPin(known, at.X, at.Y, at.Page, at.Second) : null;
        return pin is { IsOne: true }
            ? pin
            : throw new InvalidException(
                (
                    "pin",
                    "A remark points at a place of a picture, a page or a place of it, or a second of a film of this round."
                )
            );
    }

    /// <summary>Where a remark points; null for the round as a whole, or where it cannot be read.</summary>
    public static RemarkPin? PinOf(NoteRow note) => note.Pin is { } pin ? StoreJson.TryRead<RemarkPin>(pin) : null;

    private static async Task<(ReviewRow, ProjectFile)> OpenAsync(Desk desk, ReviewId id)
    {
        var row = await desk.Db.Reviews.SingleOrDefaultAsync(r => r.Id == id) ?? throw new MissingException("round");
        return (row, await desk.OpenAsync(row.ProjectId));
    }
}
