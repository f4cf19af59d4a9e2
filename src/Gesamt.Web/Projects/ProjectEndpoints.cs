using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.WhatHappened;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Projects;

/// <summary>A note in the owner’s words.</summary>
public sealed record NoteDto(string Text);

/// <summary>What a project is called, where it came from, and what it is besides its leading kind.</summary>
/// <param name="Kinds">Numbers of its further kinds; null leaves them as they are.</param>
/// <param name="Campaign">Empty for none; null leaves it as it is.</param>
public sealed record SaveHeadDto(
    string Title,
    string? Source,
    IReadOnlyList<long>? Kinds = null,
    string? Campaign = null
);

/// <summary>The addresses of a project’s record.</summary>
public static class ProjectEndpoints
{
    /// <exception cref="InvalidException">The title is none, or something is too long.</exception>
    private static Task SaveHeadAsync(Desk desk, ProjectId id, SaveHeadDto save) =>
        desk.ActAsync(async act =>
        {
            var (title, source) = (save.Title.Trim(), save.Source?.Trim() ?? "");
            if (title.Length is 0 or > HeadLimits.Title)
                throw new InvalidException(("title", $"A title of 1 to {HeadLimits.Title} characters is needed."));
            if (source.Length > HeadLimits.Source)
                throw new InvalidException(("source", $"At most {HeadLimits.Source} characters."));
            var campaign = TypedText.Of("campaign", save.Campaign ?? "", 0, HeadLimits.Campaign, "A campaign");
            var row = (await desk.OpenAsync(id)).Row;
            if (save.Campaign is not null)
                row.Campaign = campaign.Length > 0 ? campaign : null;
            if (save.Kinds is { } kinds)
                row.FurtherKinds = await FurtherAsync(desk, row, kinds);
            (row.Title, row.Source) = (title, source.Length > 0 ? source : null);
            act.Touch(id);
        });

    /// <exception cref="InvalidException">One is no kind of the studio.</exception>
    private static async Task<List<long>> FurtherAsync(Desk desk, ProjectRow row, IReadOnlyList<long> kinds)
    {
        List<long> further = [.. kinds.Distinct().Where(kind => new KindId(kind) != row.KindId)];
        var known = await desk.Db.Kinds.Where(k => !k.Removed).Select(k => k.Id).ToListAsync();
        // one that was put away since stays where it is
        return further.TrueForAll(kind => known.Contains(new(kind)) || row.FurtherKinds.Contains(kind))
            ? further
            : throw new InvalidException(("kinds", "A further kind is one of your kinds."));
    }

    public static void MapProjects(this RouteGroupBuilder api)
    {
        api.MapGet("/projects/{id:long}", (long id, Desk desk) => Record.OfAsync(desk, new(id)));
        api.MapGet(
            "/projects/{id:long}/entries/{what}/{entry:long}",
            (long id, OpensWhat what, long entry, Desk desk) => Reader.OfAsync(desk, new(id), what, entry)
        );

        api.MapGet(
                "/projects/{id:long}/answers/{answers:long}/paper.pdf",
                async (long id, long answers, Desk desk) =>
                    TypedResults.File(
                        await Reader.AnswersPaperAsync(desk, new(id), answers),
                        "application/pdf",
                        "answers.pdf"
                    )
            )
            .ExcludeFromDescription();
        api.MapGet(
                "/projects/{id:long}/history.pdf",
                async (long id, Desk desk) =>
                    TypedResults.File(await WholeHistory.PaperAsync(desk, new(id)), "application/pdf", "history.pdf")
            )
            .ExcludeFromDescription();
        api.MapPut(
            "/projects/{id:long}/head",
            async (long id, SaveHeadDto save, Desk desk) =>
            {
                await SaveHeadAsync(desk, new(id), save);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/happened",
            async (long id, HappenedDto what, Desk desk, HttpContext http) =>
            {
                await Happened.RecordAsync(
                    desk,
                    new(id),
                    what,
                    http.Connection.RemoteIpAddress?.MapToIPv4().ToString() ?? "unknown",
                    http.Request.Headers.UserAgent.ToString()
                );
                return TypedResults.NoContent();
            }
        );

        api.MapPost(
            "/projects/{id:long}/notes",
            async (long id, NoteDto note, Desk desk) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(new(id));
                    await act.RecordAsync(
                        file,
                        Actor.Owner,
                        new Happening.NoteWritten(await Notes.AddAsync(desk, file.Id, NoteSort.Note, note.Text))
                    );
                    return TypedResults.NoContent();
                });
            }
        );

        api.MapPut(
            "/projects/{id:long}/notes/{note:long}",
            async (long id, long note, NoteDto to, Desk desk) =>
            {
                await Notes.ChangeAsync(desk, new(id), new(note), to.Text);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/notes/{note:long}/pinned",
            async (long id, long note, PinnedDto to, Desk desk) =>
            {
                await Notes.PinAsync(desk, new(id), new(note), to.Pinned);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/notes/{note:long}/removed",
            async (long id, long note, RemovedDto to, Desk desk) =>
            {
                await Notes.RemoveAsync(desk, new(id), new(note), to.Removed);
                return TypedResults.NoContent();
            }
        );

        api.MapPost(
            "/projects/{id:long}/payments/{payment:long}/void",
            async (long id, long payment, Desk desk) =>
            {
                await Happened.VoidAsync(desk, new(id), new(payment));
                return TypedResults.NoContent();
            }
        );

        api.MapGet(
            "/contracts/{id:long}.pdf",
            async (long id, Desk desk) =>
            {
                var number = new VersionId(id);
                var row =
                    await desk
                        .Db.Versions.AsNoTracking()
                        .SingleOrDefaultAsync(v => v.Id == number && v.Sort == PaperSort.Contract)
                    ?? throw new MissingException("contract");
                return TypedResults.File(await KeptPapers.ReadAsync(desk, row), "application/pdf", "contract.pdf");
            }
        );
    }
}
