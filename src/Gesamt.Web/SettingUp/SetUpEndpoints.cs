using Gesamt.Store.Backups;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.SignIn;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;

namespace Gesamt.Web.SettingUp;

/// <summary>Who owns the new studio, as the first page asks it.</summary>
/// <param name="Zone">The browser's time zone.</param>
/// <param name="Code">The code that the program said when it started, from whoever does not sit at its machine.</param>
public sealed record SetUpDto(string Studio, string Name, string Mail, string Password, string Zone, string Code = "");

/// <summary>How a password holds.</summary>
public sealed record PasswordDto(bool Allowed, string Words);

/// <summary>The addresses of a house without a studio: setting one up, or bringing one back.</summary>
public static class SetUpEndpoints
{
    /// <summary>How much a backup may hold that is brought back by the page; a larger one is restored where it lies.</summary>
    public const long MostBytes = 20L * 1024 * 1024 * 1024;

    public static void MapSetUp(this RouteGroupBuilder api)
    {
        api.MapPost(
            "/set-up/password",
            (SetUpDto given) =>
                FirstStart.PasswordOf(OwnerOf(given)) is var reading
                    ? new PasswordDto(reading.Allowed, reading.Words)
                    : null
        );
        api.MapPost(
                "/set-up",
                async (
                    SetUpDto given,
                    HttpContext http,
                    Settings settings,
                    IPasswordHasher<StudioRow> hasher,
                    EmptyHouse house
                ) =>
                {
                    house.CheckCode(http, given.Code);
                    var owner = OwnerOf(given);
                    if (FirstStart.Mistakes(owner) is { Count: > 0 } mistakes)
                        throw new InvalidException([.. mistakes]);
                    await house.FillAsync(() => FirstStart.LayAsync(settings, hasher, owner));
                    return TypedResults.NoContent();
                }
            )
            .RequireRateLimiting(SignInEndpoints.RateLimit);
        api.MapPost("/set-up/restore", RestoreAsync)
            .WithMetadata(new RequestSizeLimitAttribute(MostBytes))
            .Accepts<byte[]>("application/octet-stream")
            .RequireRateLimiting(SignInEndpoints.RateLimit);
    }

    /// <summary>Brings a backup back: read and checked whole before anything of it is served.</summary>
    private static async Task<IResult> RestoreAsync(
        [FromQuery] string? code,
        HttpContext http,
        Settings settings,
        EmptyHouse house,
        CancellationToken stop
    )
    {
        house.CheckCode(http, code ?? "");
        var archive = Path.Combine(Path.GetTempPath(), $"gesamt-{Guid.NewGuid():n}.tar.gz");
        try
        {
            await using (var file = File.Create(archive))
                await http.Request.Body.CopyToAsync(file, stop);
            await house.FillAsync(async () =>
            {
                try
                {
                    await Backup.RestoreAsync(archive, settings.Data, stop);
                }
                catch (InvalidDataException e)
                {
                    throw new InvalidException(
                        ("file", e.Message.Replace(archive, "This file", StringComparison.Ordinal))
                    );
                }
            });
        }
        finally
        {
            File.Delete(archive);
        }
        return TypedResults.NoContent();
    }

    private static NewOwner OwnerOf(SetUpDto given) =>
        new(given.Studio, given.Name, given.Mail, given.Password, given.Zone);
}
