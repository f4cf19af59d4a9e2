using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Testimonials;

/// <summary>Keeps words that pleased, with the letter or note they stand in. The owner’s alone.</summary>
public static class Praising
{
    internal const int LongestWords = 2_000,
        LongestName = 120;

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<PraiseId> AddAsync(Desk desk, ProjectId project, KeepPraiseDto praise) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = new PraiseRow { ProjectId = project, Words = "" };
            var (on, who) = await SourceAsync(act, file, praise, row);
            Write(desk, row, praise with { On = praise.On ?? on, Who = praise.Who ?? who });
            act.Db.Praise.Add(row);
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.PraiseKept(row.Id));
            return row.Id;
        });

    public static Task ChangeAsync(Desk desk, ProjectId project, PraiseId id, KeepPraiseDto to) =>
        ChangeAsync(desk, project, id, row => Write(desk, row, to));

    public static Task RemoveAsync(Desk desk, ProjectId project, PraiseId id, bool removed) =>
        ChangeAsync(desk, project, id, row => row.Removed = removed);

    private static Task ChangeAsync(Desk desk, ProjectId project, PraiseId id, Action<PraiseRow> change) =>
        desk.ActAsync(async act =>
        {
            change(
                await act.Db.Praise.SingleOrDefaultAsync(p => p.Id == id && p.ProjectId == project)
                    ?? throw new MissingException("praise")
            );
            act.Touch(project);
        });

    private static void Write(Desk desk, PraiseRow row, KeepPraiseDto praise)
    {
        row.Words = TypedText.Of("words", praise.Words, 1, LongestWords, "What was said");
        row.Who = TypedText.Of("who", praise.Who ?? "", 0, LongestName, "Who said it");
        row.On = desk.Calendar.DateOf(Moments.Of(desk, praise.On));
    }

    /// <summary>The day and the writer of what it stands in.</summary>
    private static async Task<(NodaTime.LocalDate? On, string Who)> SourceAsync(
        Act act,
        ProjectFile file,
        KeepPraiseDto praise,
        PraiseRow row
    )
    {
        if (praise.Letter is { } letter)
        {
            var from =
                await act
                    .Db.Letters.AsNoTracking()
                    .SingleOrDefaultAsync(l => l.Id == new LetterId(letter) && l.ProjectId == file.Id)
                ?? throw new MissingException("letter");
            row.LetterId = from.Id;
            return (act.Calendar.DateOf(from.At), from.FromName);
        }
        if (praise.Note is { } note)
        {
            var from =
                await act
                    .Db.Notes.AsNoTracking()
                    .SingleOrDefaultAsync(n => n.Id == new NoteId(note) && n.ProjectId == file.Id && !n.Removed)
                ?? throw new MissingException("note");
            row.NoteId = from.Id;
            return (act.Calendar.DateOf(from.At), file.Row.Client!.Name);
        }
        return (null, file.Row.Client!.Name);
    }
}
