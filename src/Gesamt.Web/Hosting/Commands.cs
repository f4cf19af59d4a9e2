using Gesamt.Store.Backups;

namespace Gesamt.Web.Hosting;

/// <summary>What the program does besides serving: backup TO, restore FROM.</summary>
public static class Commands
{
    /// <returns>The exit code; null when the arguments name no command and the studio is to be served.</returns>
    public static async Task<int?> RunAsync(string[] args, Settings settings)
    {
        if (args is not [("backup" or "restore") and var command, var path])
            return null;
        try
        {
            if (command == "backup")
                Console.WriteLine(
                    $"Kept in {await Backup.WriteAsync(settings.Data, path, TimeProvider.System.GetUtcNow())}"
                );
            else
            {
                await Backup.RestoreAsync(path, settings.Data);
                Console.WriteLine($"Restored to {settings.Data}");
            }
            return 0;
        }
        catch (Exception e) when (e is IOException or InvalidDataException or UnauthorizedAccessException)
        {
            await Console.Error.WriteLineAsync(e.Message);
            return 1;
        }
    }
}
