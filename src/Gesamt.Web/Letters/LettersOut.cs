using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Letters;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Letters;

/// <summary>A text the owner wrote.</summary>
/// <param name="Sends">A proposal that becomes sent with it.</param>
/// <param name="Template">The text it began with.</param>
/// <param name="Files">What goes with it.</param>
/// <param name="Later">When it goes out, if not now.</param>
/// <param name="Answers">The letter it answers; the client's newest when nothing is said.</param>
public sealed record Written(
    string Subject,
    string Body,
    VersionId? Sends = null,
    string? Template = null,
    IReadOnlyList<LetterFileRow>? Files = null,
    Instant? Later = null,
    LetterId? Answers = null
);

/// <summary>What the owner does with letters: write, send now or later, take back, give an OK, put off, skip.</summary>
public static class LettersOut
{
    private const long MostFileBytes = 15L * 1024 * 1024;
    private const int MostFiles = 20;

    /// <summary>Fills the blanks of a text the owner wrote and claims it.</summary>
    /// <exception cref="InvalidException">It says nothing, or a blank has nothing to fill it; the blank is named.</exception>
    public static Task<LetterRow> ClaimAsync(
        Act act,
        ProjectFile file,
        string subject,
        string body,
        VersionId? sends
    ) => ClaimAsync(act, file, new Written(subject, body, sends));

    /// <inheritdoc cref="ClaimAsync(Act, ProjectFile, string, string, VersionId?)"/>
    /// <param name="draft">A held letter that is sent; a new one otherwise.</param>
    /// <param name="with">What it can say besides what the record knows.</param>
    public static async Task<LetterRow> ClaimAsync(
        Act act,
        ProjectFile file,
        Written written,
        LetterRow? draft = null,
        Func<RecordWords, RecordWords>? with = null
    )
    {
        var known = await Writing.WordsAsync(act.Desk, file);
        var words = with is null ? known : with(known);
        var filled = draft is null
            ? Writing.Fill(written.Subject.Trim(), written.Body.Trim(), words)
            : Writing.FillOpen(written.Subject.Trim(), written.Body.Trim(), words);
        Check(filled, written.Files ?? draft?.Files ?? [], written.Later, act.Now);
        var reader = file.MailContact.Id;
        if (
            Sending.MentionsLink(filled.Body)
            && await act.Db.Links.AnyAsync(l => l.ProjectId == file.Id && l.PersonId == reader && l.EndedAt != null)
        )
            throw new InvalidException(("body", Links.Closed));
        var letter = draft ?? Sending.NewLetter(act.Desk, file, "", "", byItself: false);
        // the recipient comes from the record, as it is when the letter goes out
        if (draft is not null)
            Sending.Address(letter, file);
        (letter.Subject, letter.Body, letter.Gaps, letter.SendsVersion, letter.GoesAt) = (
            filled.Subject,
            filled.Body,
            "",
            written.Sends,
            written.Later
        );
        letter.Problem = null;
        letter.Template ??= written.Template;
        if (written.Files is { } files)
            letter.Files = [.. files];
        letter.InReplyTo = written.Answers is { } answered
            ? await act
                .Desk.Db.Letters.Where(l => l.Id == answered && l.ProjectId == file.Id)
                .Select(l => l.MessageId)
                .SingleOrDefaultAsync()
            : letter.InReplyTo
                ?? await act
                    .Desk.Db.Letters.Where(l => l.ProjectId == file.Id && l.State == LetterState.Received)
                    .OrderByDescending(l => l.Id)
                    .Select(l => l.MessageId)
                    .FirstOrDefaultAsync();
        if (draft is null)
        {
            act.Db.Letters.Add(letter);
            await act.Db.SaveChangesAsync();
        }
        Sending.Claim(act, letter, Sending.KeyOf(letter), written.Later ?? act.Now + act.Desk.Hold);
        return letter;
    }

    /// <summary>A held letter gets the owner's OK, perhaps edited, and goes out.</summary>
    /// <exception cref="RefusedException">It is no longer held: it was stopped, skipped or sent meanwhile.</exception>
    public static async Task ReleaseAsync(Desk desk, LetterId id, string? subject, string? body)
    {
        await desk.ActAsync(async act =>
        {
            var (letter, file, _) = await HeldAsync(desk, id);
            await ClaimAsync(
                act,
                file,
                new(subject ?? letter.Subject, body ?? letter.Body, letter.SendsVersion),
                letter
            );
        });
    }

    /// <summary>All held letters of one text get the owner's OK, each on its own, at most one to a project; what lacks something stays held.</summary>
    /// <returns>How many are on their way.</returns>
    public static async Task<int> ReleaseAllAsync(Desk desk, string template)
    {
        var letters = await desk
            .Db.Letters.AsNoTracking()
            .Where(l =>
                l.State == LetterState.Held
                && l.Template == template
                && l.Gaps == ""
                && (l.ProjectId == null || !desk.Db.RehearsalIds.Contains(l.ProjectId.Value))
            )
            .OrderByDescending(l => l.Id)
            .Select(l => new { l.Id, l.ProjectId })
            .ToListAsync();
        var sent = 0;
        foreach (var letter in letters.DistinctBy(l => l.ProjectId).Reverse().Select(l => l.Id))
        {
            desk.Db.ChangeTracker.Clear();
            try
            {
                await ReleaseAsync(desk, letter, null, null);
                sent++;
            }
            catch (Exception e) when (e is RefusedException or InvalidException)
            {
                // it was stopped a moment ago, or its record lacks something by now: it tells so itself
            }
        }
        return sent;
    }

    /// <summary>Leaves a held letter: its step is skipped.</summary>
    public static async Task SkipAsync(Desk desk, LetterId id)
    {
        await desk.ActAsync(async act =>
        {
            var (letter, file, step) = await HeldAsync(desk, id);
            letter.State = LetterState.Skipped;
            await act.RecordAsync(file, Actor.Owner, step is { } held ? [new Happening.StepSkipped(held)] : []);
        });
    }

    /// <summary>A letter that the owner skipped is held again, unless something stopped its step meanwhile.</summary>
    /// <exception cref="RefusedException">It was not skipped, or not by the owner: what it said was not true any more.</exception>
    public static async Task HoldAgainAsync(Desk desk, LetterId id)
    {
        await desk.ActAsync(async act =>
        {
            var letter =
                await desk.Db.Letters.SingleOrDefaultAsync(l => l.Id == id) ?? throw new MissingException("letter");
            if (letter is not { State: LetterState.Skipped, ProjectId: { } project })
                throw new RefusedException("It was not skipped, or is held again already.");
            var file = await desk.OpenAsync(project);
            var step = Sending.StepOf(letter);
            if (step is { } skipped && !file.History.WasSkippedByOwner(skipped))
                throw new RefusedException("It was not you who skipped it: what it says is not true any more.");
            // a step's own stop rules say so of its letter
            if (step is null && (file.Case.End is not null || file.Case.IsPutAway))
                throw new RefusedException("The project is over: nothing waits in it any more.");
            letter.State = LetterState.Held;
            await act.RecordAsync(file, Actor.Owner, step is { } held ? [new Happening.StepAsksAgain(held)] : []);
        });
    }

    /// <summary>A held letter comes up again later, with its text as it is, perhaps edited.</summary>
    /// <exception cref="InvalidException">The time is past, or more than a year away.</exception>
    public static async Task PutOffAsync(Desk desk, LetterId id, LocalDateTime until, string? subject, string? body)
    {
        if (desk.Calendar.At(until) <= desk.Now || until.Date > desk.Today.PlusYears(1))
            throw new InvalidException(("until", "Choose a time from now on, at most a year ahead."));
        await desk.ActAsync(async act =>
        {
            var (letter, file, step) = await HeldAsync(desk, id);
            if (step is not { } held)
                throw new RefusedException("It waits for what it lacks, not for a time. Send it or skip it.");
            (letter.State, letter.Subject, letter.Body) = (
                LetterState.PutOff,
                subject ?? letter.Subject,
                body ?? letter.Body
            );
            await act.RecordAsync(
                file,
                Actor.Owner,
                new Happening.StepReplanned(held),
                new Happening.StepFixed(held, until)
            );
        });
    }

    /// <summary>Takes a letter back that has not been handed over. A step's letter is held again; another becomes a draft.</summary>
    /// <exception cref="RefusedException">It has left the house.</exception>
    public static async Task TakeBackAsync(Desk desk, LetterId id)
    {
        await desk.ActAsync(async act =>
        {
            var letter =
                await desk.Db.Letters.SingleOrDefaultAsync(l => l.Id == id) ?? throw new MissingException("letter");
            var outgoing = await desk.Db.Outbox.SingleOrDefaultAsync(o =>
                o.LetterId == id && o.State == OutboxState.Claimed
            );
            if (outgoing is null || outgoing.HandOverBegan is not null)
                throw new RefusedException("The letter has left the house and cannot be taken back.");
            TakeBack(act, letter, outgoing);
        });
    }

    public static void TakeBack(Act act, LetterRow letter, OutboxRow outgoing)
    {
        act.Db.Outbox.Remove(outgoing);
        letter.State = letter.Step is null ? LetterState.Draft : LetterState.Held;
        (letter.MessageId, letter.GoesAt) = (null, null);
        act.Touch(outgoing.ProjectId);
    }

    private static async Task<(LetterRow, ProjectFile, StepRef?)> HeldAsync(Desk desk, LetterId id)
    {
        var letter =
            await desk.Db.Letters.Include(l => l.Files).SingleOrDefaultAsync(l => l.Id == id)
            ?? throw new MissingException("letter");
        if (letter.State != LetterState.Held)
            throw new RefusedException(
                letter.State switch
                {
                    LetterState.Stopped => "It was stopped by itself meanwhile; the line says why.",
                    LetterState.Skipped => "It was skipped already.",
                    LetterState.PutOff => "It was put off already.",
                    _ => "It is on its way already.",
                }
            );
        return (letter, await desk.OpenAsync(letter.ProjectId!.Value), Sending.StepOf(letter));
    }

    private static void Check(FilledLetter filled, IReadOnlyList<LetterFileRow> files, Instant? later, Instant now)
    {
        if (filled.Gaps.Count > 0)
            throw new InvalidException([
                .. filled.Gaps.Select(gap =>
                    (
                        $"blank:{gap}",
                        $"The record does not know “{gap}”. Fill it in, or give the blank a text that stands by."
                    )
                ),
            ]);
        List<(string, string)> errors = [];
        if (filled.Subject.Length is 0 or > 200)
            errors.Add(("subject", "A subject of 1 to 200 characters is needed."));
        if (filled.Body.Length is 0 or > 50_000)
            errors.Add(("body", "A letter of 1 to 50 000 characters is needed."));
        if (files.Count > MostFiles)
            errors.Add(("files", $"At most {MostFiles} files go with a letter."));
        if (files.Sum(file => file.Size) > MostFileBytes)
            errors.Add(
                (
                    "files",
                    $"Files with a letter have at most {MostFileBytes / (1024 * 1024)} MB together; larger ones are better put on the client's page."
                )
            );
        if (later is { } at && (at <= now || at > now + Duration.FromDays(366)))
            errors.Add(("later", "Choose a time from now on, at most a year ahead."));
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
    }
}
