using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Formats.Files;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Files;

/// <param name="Use">A word on its use; null leaves it as it is.</param>
public sealed record ShowFileDto(bool Shown, string? Use);

/// <summary>What was kept, and where it was put.</summary>
public sealed record KeptDto(long Id, FileGroup Group, string? Phase);

/// <summary>Where a kept file belongs.</summary>
public sealed record PlaceDto(FileGroup Group, string? Phase);

/// <summary>The addresses of files.</summary>
public static class FileEndpoints
{
    public static void MapFiles(this RouteGroupBuilder api)
    {
        api.MapPost(
                "/projects/{id:long}/files",
                async (
                    long id,
                    string name,
                    FileGroup? group,
                    string? phase,
                    Desk desk,
                    FileVault vault,
                    HttpContext http,
                    CancellationToken stop
                ) =>
                {
                    var row = await KeptFiles.KeepAsync(
                        desk,
                        vault,
                        new(id),
                        new(name, group is { } said ? new(said, phase) : null, http.Request.Body),
                        Actor.Owner,
                        stop
                    );
                    return new KeptDto(row.Id.Value, row.Group, row.Phase);
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");

        api.MapPost(
            "/projects/{id:long}/files/{file:long}/shown",
            async (long id, long file, ShowFileDto show, Desk desk) =>
            {
                await KeptFiles.ShowAsync(desk, new(id), new(file), show.Shown, show.Use);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/files/{file:long}/place",
            async (long id, long file, PlaceDto to, Desk desk) =>
            {
                await KeptFiles.PlaceAsync(desk, new(id), new(file), new(to.Group, to.Phase));
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/files/{file:long}/removed",
            async (long id, long file, RemovedDto to, Desk desk) =>
            {
                await KeptFiles.RemoveAsync(desk, new(id), new(file), to.Removed);
                return TypedResults.NoContent();
            }
        );

        // as the client's page names them, so that the owner can look at it
        api.MapGet(
                "/projects/{id:long}/as-client/files/{file}",
                async (long id, string file, Desk desk, FileVault vault, HttpContext http) =>
                    Whole(http, vault, await AsClientAsync(desk, new(id), file))
            )
            .ExcludeFromDescription();
        api.MapGet(
                "/projects/{id:long}/as-client/files/{file}/preview",
                async (long id, string file, Desk desk, FileVault vault, HttpContext http) =>
                    await PreviewAsync(http, vault, await AsClientAsync(desk, new(id), file))
            )
            .ExcludeFromDescription();
        api.MapGet(
                "/files/{id:long}",
                async (long id, Desk desk, FileVault vault, HttpContext http) =>
                    Whole(http, vault, await RowAsync(desk, id))
            )
            .ExcludeFromDescription();
        api.MapGet(
                "/files/{id:long}/preview",
                async (long id, Desk desk, FileVault vault, HttpContext http) =>
                    await PreviewAsync(http, vault, await RowAsync(desk, id))
            )
            .ExcludeFromDescription();
    }

    /// <summary>The whole file as a download: it is never opened in the page's own place.</summary>
    public static IResult Whole(HttpContext http, FileVault vault, FileRow row) =>
        Whole(http, vault, row.Hash, row.Name, row.Type);

    /// <summary>The same of any bytes in the vault.</summary>
    public static IResult Whole(HttpContext http, FileVault vault, string hash, string name, string type)
    {
        http.Response.Headers.ContentSecurityPolicy = "default-src 'none'; sandbox";
        return Results.File(vault.Open(hash), type, FileTypes.HandedOut(name, type), enableRangeProcessing: true);
    }

    /// <summary>A small picture of a picture, made once and kept beside it.</summary>
    /// <exception cref="MissingException">It is no picture, or cannot be read.</exception>
    public static Task<IResult> PreviewAsync(HttpContext http, FileVault vault, FileRow row) =>
        PreviewAsync(http, vault, row.Hash, row.Type);

    /// <summary>The same of any bytes in the vault.</summary>
    public static async Task<IResult> PreviewAsync(HttpContext http, FileVault vault, string hash, string type)
    {
        if (!FileTypes.IsShownPicture(type))
            throw new MissingException("preview");
        return await SmallAsync(http, vault, hash);
    }

    /// <summary>The same of what is known to be a picture.</summary>
    public static async Task<IResult> SmallAsync(HttpContext http, FileVault vault, string hash)
    {
        var path = vault.SmallOf(hash);
        if (!File.Exists(path))
        {
            // one at a time: each may take some megabytes while it is made
            await Drawing.WaitAsync(http.RequestAborted);
            try
            {
                if (!File.Exists(path))
                    await Task.Run(() => Draw(vault, hash, path));
            }
            finally
            {
                Drawing.Release();
            }
        }
        // an empty one says that it was tried once, and that it is no picture that can be read
        if (new FileInfo(path).Length == 0)
            throw new MissingException("preview");
        http.Response.Headers.CacheControl = "private,max-age=3600";
        return Results.File(path, "image/jpeg");
    }

    private static readonly SemaphoreSlim Drawing = new(1, 1);

    private static void Draw(FileVault vault, string hash, string path)
    {
        var aside = $"{path}.{Guid.NewGuid():n}";
        File.WriteAllBytes(aside, Thumbnails.Of(() => vault.Open(hash)) ?? []);
        File.Move(aside, path, overwrite: true);
    }

    private static async Task<FileRow> AsClientAsync(Desk desk, ProjectId project, string file) =>
        await desk.Db.Files.AsNoTracking().SingleOrDefaultAsync(f => f.PublicId == file && f.ProjectId == project)
        ?? throw new MissingException("file");

    private static async Task<FileRow> RowAsync(Desk desk, long id)
    {
        var number = new FileId(id);
        return await desk.Db.Files.AsNoTracking().SingleOrDefaultAsync(f => f.Id == number)
            ?? throw new MissingException("file");
    }
}
