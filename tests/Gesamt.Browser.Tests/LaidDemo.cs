using Microsoft.Data.Sqlite;

namespace Gesamt.Browser.Tests;

/// <summary>The demo, laid once in a program of tests; each of its houses begins with a copy of its own.</summary>
public static class LaidDemo
{
    private static readonly Lock Gate = new();
    private static string? laid;

    /// <param name="lay">Lays the demo in a folder, and ends what it began for that.</param>
    public static void CopyTo(string data, Action<string> lay)
    {
        lock (Gate)
        {
            if (laid is null)
            {
                var folder = Directory.CreateTempSubdirectory("gesamt-laid").FullName;
                lay(folder);
                // so that everything stands in the files that are copied
                SqliteConnection.ClearAllPools();
                AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(folder, recursive: true);
                laid = folder;
            }
        }
        foreach (var file in Directory.GetFiles(laid, "*", SearchOption.AllDirectories))
        {
            var copy = Path.Combine(data, Path.GetRelativePath(laid, file));
            Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
            File.Copy(file, copy);
        }
    }
}
