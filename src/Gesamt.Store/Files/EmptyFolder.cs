namespace Gesamt.Store.Files;

/// <summary>A folder that is filled whole or not at all: what comes into it is made beside it, and takes its place once all of it is there.</summary>
public static class EmptyFolder
{
    private const string Unfinished = ".part";

    /// <param name="fill">Given the folder beside, to fill and check it; what it throws leaves nothing behind.</param>
    /// <exception cref="IOException">The folder holds something already; nothing is overwritten.</exception>
    public static async Task FillAsync(string folder, Func<string, Task> fill)
    {
        if (File.Exists(folder) || Directory.Exists(folder) && Directory.EnumerateFileSystemEntries(folder).Any())
            throw new IOException(
                $"{folder} is not empty. Bring a studio back into a folder of its own, so that nothing is overwritten."
            );
        var aside = $"{Whole(folder)}.{Guid.NewGuid():n}{Unfinished}";
        try
        {
            Directory.CreateDirectory(aside);
            await fill(aside);
            Private.Shut(aside);
            if (Directory.Exists(folder))
                Directory.Delete(folder);
            Directory.Move(aside, folder);
        }
        finally
        {
            if (Directory.Exists(aside))
                Directory.Delete(aside, recursive: true);
        }
    }

    /// <summary>Takes away what was being made beside a folder when the program was killed.</summary>
    public static void TidyUp(string folder)
    {
        var whole = Whole(folder);
        foreach (
            var left in Directory.GetDirectories(
                Path.GetDirectoryName(whole)!,
                $"{Path.GetFileName(whole)}.*{Unfinished}"
            )
        )
            if (Guid.TryParseExact(left[(whole.Length + 1)..^Unfinished.Length], "n", out _))
                Directory.Delete(left, recursive: true);
    }

    private static string Whole(string folder) => Path.TrimEndingDirectorySeparator(Path.GetFullPath(folder));
}
