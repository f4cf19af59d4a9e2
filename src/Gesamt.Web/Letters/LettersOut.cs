using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Letters;

/// <summary>What the owner does with letters: write, send, take back, give an OK, skip.</summary>
public static class LettersOut
{
    /// <summary>Fills the blanks of a text the owner wrote and claims it. Inside the caller's transaction.</summary>
    /// <exception cref="InvalidException">It says nothing, or a blank has nothing to fill it; the blank is named.</exception>
    public static async Task<LetterRow> ClaimAsync(Desk desk, ProjectFile file, string subject, string body, VersionId? sends, LetterRow? draft = null)
    {
        var filled = Writing.Fill(subject.Trim(), body.Trim(), await Writing.WordsAsync(desk, file));
        Check(filled);
        var letter = draft ?? Sending.NewLetter(desk, file, "", "", byItself: false);
        (letter.Subject, letter.Body, letter.Gaps, letter.SendsVersion) = (filled.Subject, filled.Body, "", sends);
        letter.InReplyTo ??= await desk.Db.Letters.Where(l => l.ProjectId == file.Id && l.State == LetterState.Received).OrderByDescending(l => l.Id).Select(l => l.MessageId).FirstOrDefaultAsync();
        if (draft is null)
        {
            desk.Db.Letters.Add(letter);
            await desk.Db.SaveChangesAsync();
        }
        Sending.Claim(desk, letter, Sending.KeyOf(letter), Sending.Compose(desk, file.Row, letter), desk.Now + desk.Hold);
        return letter;
    }

    /// <summary>A held letter gets the owner's OK, perhaps edited, and goes out.</summary>
    /// <exception cref="RefusedException">It is no longer held: it was stopped, skipped or sent meanwhile.</exception>
    public static async Task ReleaseAsync(Desk desk, LetterId id, string? subject, string? body)
    {
        await using var transaction = await desk.BeginAsync();
        var (letter, file, _) = await HeldAsync(desk, id);
        await ClaimAsync(desk, file, subject ?? letter.Subject, body ?? letter.Body, letter.SendsVersion, letter);
        await desk.CommitAsync(transaction);
    }

    public static async Task SkipAsync(Desk desk, LetterId id)
    {
        await using var transaction = await desk.BeginAsync();
        var (letter, file, step) = await HeldAsync(desk, id);
        letter.State = LetterState.Skipped;
        await desk.RecordAsync(file, Actor.Owner, step is { } held ? [new Happening.StepSkipped(held)] : []);
        await desk.CommitAsync(transaction);
    }

    /// <summary>Takes a letter back that has not been handed over. A step's letter is held again; another becomes a draft.</summary>
    /// <exception cref="RefusedException">It has left the house.</exception>
    public static async Task TakeBackAsync(Desk desk, LetterId id)
    {
        await using var transaction = await desk.BeginAsync();
        var letter = await desk.Db.Letters.SingleOrDefaultAsync(l => l.Id == id) ?? throw new MissingException("letter");
        var outgoing = await desk.Db.Outbox.SingleOrDefaultAsync(o => o.LetterId == id && o.State == OutboxState.Claimed);
        if (outgoing is null || outgoing.HandOverBegan is not null) throw new RefusedException("The letter has left the house and cannot be taken back.");
        desk.Db.Outbox.Remove(outgoing);
        letter.State = letter.Step is null ? LetterState.Draft : LetterState.Held;
        letter.MessageId = null;
        desk.Touch(outgoing.ProjectId);
        await desk.CommitAsync(transaction);
    }

    private static async Task<(LetterRow, ProjectFile, StepRef?)> HeldAsync(Desk desk, LetterId id)
    {
        var letter = await desk.Db.Letters.SingleOrDefaultAsync(l => l.Id == id) ?? throw new MissingException("letter");
        if (letter.State != LetterState.Held)
            throw new RefusedException(letter.State switch
            {
                LetterState.Stopped => "It was stopped by itself meanwhile; the line says why.",
                LetterState.Skipped => "It was skipped already.",
                _ => "It is on its way already.",
            });
        return (letter, await desk.OpenAsync(letter.ProjectId!.Value), Sending.StepOf(letter));
    }

    private static void Check(FilledLetter filled)
    {
        if (filled.Gaps.Count > 0)
            throw new InvalidException([.. filled.Gaps.Select(gap => ($"blank:{gap}", $"The record does not know “{gap}”. Fill it in, or give the blank a text that stands by."))]);
        List<(string, string)> errors = [];
        if (filled.Subject.Length is 0 or > 200) errors.Add(("subject", "A subject of 1 to 200 characters is needed."));
        if (filled.Body.Length is 0 or > 50_000) errors.Add(("body", "A letter of 1 to 50 000 characters is needed."));
        if (errors.Count > 0) throw new InvalidException([.. errors]);
    }
}
