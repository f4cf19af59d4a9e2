using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Words;

/// <summary>Words that facts point to: notes, reasons, remarks.</summary>
public static class Notes
{
    /// <summary>Keeps a short text.</summary>
    /// <exception cref="InvalidException">It says nothing, or too much.</exception>
    public static async Task<NoteId> AddAsync(Desk desk, ProjectId id, NoteSort sort, string text)
    {
        Check(text);
        var note = new NoteRow
        {
            ProjectId = id,
            Sort = sort,
            Text = text.Trim(),
            At = desk.Now,
        };
        desk.Db.Notes.Add(note);
        await desk.Db.SaveChangesAsync();
        return note.Id;
    }

    /// <summary>Writes a note of the owner's, or what was said in a call, otherwise.</summary>
    /// <exception cref="RefusedException">They are a client's own words.</exception>
    public static async Task ChangeAsync(Desk desk, ProjectId project, NoteId id, string text)
    {
        await desk.ActAsync(async act =>
        {
            Check(text);
            (await OwnAsync(desk, project, id)).Text = text.Trim();
            act.Touch(project);
        });
    }

    /// <summary>Takes it out, as if it had never been written down, or puts it back where it was.</summary>
    /// <exception cref="RefusedException">They are a client's own words.</exception>
    public static async Task RemoveAsync(Desk desk, ProjectId project, NoteId id, bool removed)
    {
        await desk.ActAsync(async act =>
        {
            var row = await OwnAsync(desk, project, id);
            if (row.Removed == removed)
                return;
            row.Removed = removed;
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(
                await desk.OpenAsync(project),
                Actor.Owner,
                removed ? new Happening.NoteTakenBack(id) : new Happening.NotePutBack(id)
            );
        });
    }

    /// <summary>Pins it to Today, or takes it from there.</summary>
    /// <exception cref="RefusedException">They are a client's own words.</exception>
    public static Task PinAsync(Desk desk, ProjectId project, NoteId id, bool pinned) =>
        desk.ActAsync(async act =>
        {
            (await OwnAsync(desk, project, id)).PinnedAt = pinned ? desk.Now : null;
            act.Touch(project);
        });

    private static async Task<NoteRow> OwnAsync(Desk desk, ProjectId project, NoteId id)
    {
        var row =
            await desk.Db.Notes.SingleOrDefaultAsync(n => n.Id == id && n.ProjectId == project)
            ?? throw new MissingException("note");
        return row.Sort == NoteSort.Words
            ? throw new RefusedException("These are their own words: they stay as they were said.")
            : row;
    }

    private static void Check(string text)
    {
        if (text.Trim().Length is 0 or > 10_000)
            throw new InvalidException(("words", "Write 1 to 10 000 characters."));
    }
}

/// <summary>A client’s words.</summary>
public sealed record WordsDto(string Words);

/// <summary>Whether a note stands on Today.</summary>
public sealed record PinnedDto(bool Pinned);
