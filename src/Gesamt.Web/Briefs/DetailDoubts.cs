using Gesamt.Core;
using Gesamt.Core.Forms;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Briefs;

/// <param name="Take">Whether what the client said is right; else what was known stays.</param>
public sealed record DecideDetailDto(string Name, bool Take);

/// <summary>Answers that say something else than what is known: the owner decides which is right.</summary>
public static class DetailDoubts
{
    public static void MapDetailDoubts(this RouteGroupBuilder api) =>
        api.MapPost(
            "/projects/{id:long}/details/decide",
            async (long id, DecideDetailDto decide, Desk desk) =>
            {
                await DecideAsync(desk, new(id), decide);
                return TypedResults.NoContent();
            }
        );

    /// <summary>Asks about an answer; a newer one of the same detail takes its place.</summary>
    public static async Task AskAsync(Desk desk, ProjectId project, Contradiction doubt)
    {
        foreach (
            var before in await desk
                .Db.DetailDoubts.Where(d => d.ProjectId == project && d.Name == doubt.Detail && d.GoneAt == null)
                .ToListAsync()
        )
            before.GoneAt = desk.Now;
        desk.Db.DetailDoubts.Add(
            new()
            {
                ProjectId = project,
                Name = doubt.Detail,
                Said = doubt.Said,
                At = desk.Now,
            }
        );
    }

    /// <exception cref="RefusedException">It was decided already.</exception>
    private static async Task DecideAsync(Desk desk, ProjectId id, DecideDetailDto decide)
    {
        await desk.ActAsync(async act =>
        {
            var doubt =
                await desk.Db.DetailDoubts.SingleOrDefaultAsync(d =>
                    d.ProjectId == id && d.Name == decide.Name && d.GoneAt == null
                ) ?? throw new RefusedException("This was decided already. Load the page again.");
            doubt.GoneAt = desk.Now;
            if (
                decide.Take
                && await desk.Db.Details.SingleOrDefaultAsync(d => d.ProjectId == id && d.Name == decide.Name)
                    is { } known
            )
                known.Value = doubt.Said;
            await desk.Db.SaveChangesAsync();
            // steps may ask for it
            await act.RecordAsync(await desk.OpenAsync(id), Core.Facts.Actor.Owner);
        });
    }
}
