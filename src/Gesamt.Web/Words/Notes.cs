using Gesamt.Core;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Words;

/// <summary>Words that facts point to: notes, reasons, remarks.</summary>
public static class Notes
{
    /// <summary>Keeps a short text.</summary>
    /// <exception cref="InvalidException">It says nothing, or too much.</exception>
    public static async Task<NoteId> AddAsync(Desk desk, ProjectId id, NoteSort sort, string text)
    {
        if (text.Trim().Length is 0 or > 10_000)
            throw new InvalidException(("words", "Write 1 to 10 000 characters."));
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
}

/// <summary>A client’s words.</summary>
public sealed record WordsDto(string Words);
