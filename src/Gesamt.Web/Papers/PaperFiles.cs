using Gesamt.Formats.Files;
using Gesamt.Store.Files;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>A file that papers can show.</summary>
public sealed record PaperFileDto(string Hash, string Name, bool IsPicture);

/// <summary>Pictures and files that proposals, services and contracts show: kept once, named by their SHA-256, so that what was sent goes on showing the same.</summary>
public static class PaperFiles
{
    private const string Film = "video/mp4";

    public static void MapPaperFiles(this RouteGroupBuilder api)
    {
        api.MapPost(
                "/paper-files",
                async (string name, Desk desk, FileVault vault, HttpContext http, CancellationToken stop) =>
                    await KeepAsync(desk, vault, name, http.Request.Body, isFilm: false, stop)
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        api.MapPost(
                "/introduction-films",
                async (string name, Desk desk, FileVault vault, HttpContext http, CancellationToken stop) =>
                    await KeepAsync(desk, vault, name, http.Request.Body, isFilm: true, stop)
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        api.MapGet("/paper-files/{hash}", (string hash, Desk desk, HttpContext http) => ServeAsync(desk, hash, http));
    }

    /// <summary>Keeps a picture or a PDF; or the film of an introduction.</summary>
    /// <exception cref="InvalidException">It is none.</exception>
    private static async Task<PaperFileDto> KeepAsync(
        Desk desk,
        FileVault vault,
        string name,
        Stream content,
        bool isFilm,
        CancellationToken stop
    )
    {
        var (plain, hash, _, type) = await KeptFiles.TakeAsync(vault, name, content, stop);
        var picture = FileTypes.IsShownPicture(type);
        if (isFilm && type != Film)
            throw new InvalidException(("file", "An introduction plays a film as MP4."));
        if (!isFilm && !picture && type != "application/pdf")
            throw new InvalidException(("file", "A paper shows pictures (PNG, JPEG, WebP or GIF) and PDF files."));
        return await desk.ActAsync(async act =>
        {
            if (!await desk.Db.PaperFiles.AnyAsync(f => f.Hash == hash, stop))
                desk.Db.PaperFiles.Add(
                    new()
                    {
                        Hash = hash,
                        Name = plain,
                        Type = type,
                        At = desk.Now,
                    }
                );
            return new PaperFileDto(hash, plain, picture);
        });
    }

    /// <exception cref="MissingException">No such file was kept for papers.</exception>
    public static async Task<IResult> ServeAsync(Desk desk, string hash, HttpContext http)
    {
        var row =
            await desk.Db.PaperFiles.AsNoTracking().SingleOrDefaultAsync(f => f.Hash == hash)
            ?? throw new MissingException("file");
        if (!desk.Vault.Has(hash))
            throw new MissingException("file");
        http.Response.Headers.ContentSecurityPolicy = "default-src 'none'; sandbox";
        http.Response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return row.Type == Film ? Results.File(desk.Vault.Open(hash), row.Type, enableRangeProcessing: true)
            : row.Type == "application/pdf" ? Results.File(desk.Vault.Open(hash), row.Type, row.Name)
            : Results.File(desk.Vault.Open(hash), row.Type);
    }
}
