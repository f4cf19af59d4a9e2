using Gesamt.Store.Archives;
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

/// <summary>An archive that was read and found whole.</summary>
/// <param name="Made">The day it was made.</param>
/// <param name="OpensLinks">Whether links in letters that were sent go on to open.</param>
/// <param name="LeftBehind">What could not be taken along when it was made.</param>
public sealed record FoundArchiveDto(string Studio, string Made, bool OpensLinks, IReadOnlyList<string> LeftBehind);

/// <summary>What was brought back.</summary>
/// <param name="Archive">An archive, which waits for a password; null for a backup, which is back.</param>
public sealed record BroughtBackDto(FoundArchiveDto? Archive);

/// <param name="Password">Which the studio will have.</param>
/// <param name="Code">As in <see cref="SetUpDto"/>.</param>
public sealed record TakeInDto(string Password, string Code = "");

/// <summary>The addresses of a house without a studio: setting one up, or bringing one back.</summary>
public static class SetUpEndpoints
{
    /// <summary>How much a backup or an archive may hold that is brought back by the page; a larger one is restored where it lies.</summary>
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
            .LimitCalls(SignInEndpoints.RateLimit);
        api.MapPost("/set-up/restore", RestoreAsync)
            .WithMetadata(new RequestSizeLimitAttribute(MostBytes))
            .Accepts<byte[]>("application/octet-stream")
            .LimitCalls(SignInEndpoints.RateLimit);
        api.MapPost("/set-up/archive", TakeInAsync).LimitCalls(SignInEndpoints.RateLimit);
    }

    /// <summary>Brings a backup back, or looks an archive over, which waits for the password it goes without.</summary>
    private static async Task<BroughtBackDto> RestoreAsync(
        [FromQuery] string? code,
        HttpContext http,
        Settings settings,
        EmptyHouse house,
        CancellationToken stop
    )
    {
        house.CheckCode(http, code ?? "");
        var file = Path.Combine(Path.GetTempPath(), $"gesamt-{Guid.NewGuid():n}");
        try
        {
            await using (var to = File.Create(file))
                await http.Request.Body.CopyToAsync(to, stop);
            return await SaidOfAsync(
                file,
                async () =>
                {
                    if (ArchiveFile.IsOne(file))
                    {
                        var (list, studio) = await TakingIn.LookAsync(file, stop);
                        house.Keep(file, studio);
                        return new BroughtBackDto(Found(list));
                    }
                    await house.FillAsync(() => Backup.RestoreAsync(file, settings.Data, stop));
                    return new BroughtBackDto(null);
                }
            );
        }
        finally
        {
            if (house.Waiting?.File != file)
                File.Delete(file);
        }
    }

    private static FoundArchiveDto Found(ArchiveList list) =>
        new(
            list.Studio,
            list.Made.ToString("d MMMM yyyy", System.Globalization.CultureInfo.InvariantCulture),
            list.Entries.Any(entry => entry.Name == TakingIn.LinksKey),
            [.. list.LeftBehind.Select(left => $"{left.What}. {left.Why}")]
        );

    /// <summary>Takes the archive in that was looked over.</summary>
    private static async Task<Microsoft.AspNetCore.Http.HttpResults.NoContent> TakeInAsync(
        TakeInDto given,
        HttpContext http,
        Settings settings,
        IPasswordHasher<StudioRow> hasher,
        EmptyHouse house,
        CancellationToken stop
    )
    {
        house.CheckCode(http, given.Code);
        var (file, studio) =
            house.Waiting ?? throw new RefusedException("Choose the archive first: none has been read yet.");
        // before all of it is read once more
        FirstStart.Own(studio, hasher, given.Password);
        await SaidOfAsync(
            file,
            async () =>
            {
                await house.FillAsync(() => FirstStart.TakeInAsync(settings, hasher, file, given.Password, stop));
                return true;
            }
        );
        return TypedResults.NoContent();
    }

    /// <summary>What is wrong with a file is said of it, and not of where it lies here.</summary>
    private static async Task<T> SaidOfAsync<T>(string file, Func<Task<T>> act)
    {
        try
        {
            return await act();
        }
        catch (InvalidDataException e)
        {
            throw new InvalidException(("file", e.Message.Replace(file, "This file", StringComparison.Ordinal)));
        }
    }

    private static NewOwner OwnerOf(SetUpDto given) =>
        new(given.Studio, given.Name, given.Mail, given.Password, given.Zone);
}
