using Gesamt.Core.Amounts;
using Gesamt.Store.Archives;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Archives;

/// <summary>An archive that can be fetched.</summary>
/// <param name="When">As a sentence says it.</param>
public sealed record KeptArchiveDto(string Name, string When, string Size);

/// <summary>How far one has come.</summary>
/// <param name="Percent">0 to 99; null while it is not known.</param>
public sealed record ArchiveRunDto(int? Percent, string Words);

/// <summary>The archive of the studio.</summary>
/// <param name="Problem">Why the last one was not made; empty when it was.</param>
public sealed record ArchiveDto(KeptArchiveDto? Kept, ArchiveRunDto? Running, string Problem);

/// <param name="WithLinks">Takes along what opens clients' links.</param>
public sealed record MakeArchiveDto(bool WithLinks);

/// <summary>The addresses of the archive, and making one without the pages.</summary>
public static class ArchiveEndpoints
{
    public static void MapArchive(this RouteGroupBuilder api)
    {
        MapCopies(api);
        api.MapGet("/archive", Of);
        api.MapPost(
            "/archive",
            (MakeArchiveDto make, Archiving archiving, Desk desk) =>
            {
                archiving.Begin(make.WithLinks);
                return Of(archiving, desk);
            }
        );
        api.MapPost(
            "/archive/stop",
            (Archiving archiving) =>
            {
                archiving.Stop();
                return TypedResults.NoContent();
            }
        );
        api.MapDelete(
            "/archive",
            (Archiving archiving) =>
            {
                archiving.Forget();
                return TypedResults.NoContent();
            }
        );
        api.MapGet(
                "/archive/{name}",
                (string name, Archiving archiving) =>
                    // the one that is kept alone: a name is never a path
                    archiving.Kept
                        is { } kept
                    && kept.Name == name
                        ? Results.File(kept.FullName, "application/zip", kept.Name, enableRangeProcessing: true)
                        : throw new MissingException("archive")
            )
            .ExcludeFromDescription();
    }

    private static void MapCopies(RouteGroupBuilder api)
    {
        api.MapGet("/projects/{id:long}/everything.zip", (long id, Desk desk) => ProjectCopy.OfAsync(desk, new(id)))
            .ExcludeFromDescription();
        api.MapGet("/people/{id:long}/copy.zip", (long id, Desk desk) => PersonCopy.OfAsync(desk, new(id)))
            .ExcludeFromDescription();
    }

    private static ArchiveDto Of(Archiving archiving, Desk desk) =>
        new(
            archiving.Kept is { } kept
                ? new(
                    kept.Name,
                    desk.Precisely(Instant.FromDateTimeUtc(Archiving.MadeAt(kept))),
                    FileSize.Words(kept.Length)
                )
                : null,
            archiving.Progress switch
            {
                null => null,
                { All: 0 } => new(null, "Papers are drawn, and what there is is counted."),
                { Done: var done, All: var all } => new(
                    Math.Min(99, 100 * done / all),
                    $"{NumberText.Number(done)} of about {NumberText.Number(all)} files."
                ),
            },
            archiving.Problem is { } problem ? $"No archive was made. {problem}" : ""
        );

    /// <summary>Makes an archive from the command line, also while the studio runs.</summary>
    /// <returns>The exit code.</returns>
    public static async Task<int> WriteAsync(IServiceProvider services, string to, bool withLinks)
    {
        var last = -1;
        try
        {
            await services
                .GetRequiredService<Archiving>()
                .WriteAsync(
                    to,
                    withLinks,
                    progress =>
                    {
                        var tenth = progress.All == 0 ? 0 : 10 * progress.Done / progress.All;
                        if (tenth > last)
                            Console.Error.WriteLine($"{10 * (last = tenth)} %");
                    },
                    CancellationToken.None
                );
        }
        catch (Exception e) when (e is IOException or InvalidDataException or UnauthorizedAccessException)
        {
            await Console.Error.WriteLineAsync(e.Message);
            return 1;
        }
        using var reader = await ArchiveReader.OpenAsync(to);
        foreach (var left in reader.List.LeftBehind)
            Console.WriteLine($"Left behind: {left.What}. {left.Why}");
        Console.WriteLine(
            $"{reader.List.Entries.Count} files of {reader.List.Studio} are kept in {to}, read back and found sound"
        );
        return 0;
    }
}
