using Gesamt.Store;
using Gesamt.Store.Archives;
using Gesamt.Store.Backups;
using Gesamt.Web.Archives;
using Gesamt.Web.Hosting;
using Gesamt.Web.SettingUp;
using Gesamt.Web.SignIn;

namespace Gesamt.Web;

/// <summary>What the program does besides serving: backup TO, restore FROM, archive TO [with-links].</summary>
public static class Commands
{
    /// <summary>What needs nothing of the program but its folder.</summary>
    /// <returns>The exit code; null when the arguments name no such command.</returns>
    public static async Task<int?> BeforeAsync(string[] args, Settings settings)
    {
        try
        {
            switch (args)
            {
                case ["backup", var to]:
                    Console.WriteLine(
                        $"Kept in {await Backup.WriteAsync(settings.Data, to, TimeProvider.System.GetUtcNow())}"
                    );
                    return 0;
                case ["restore", var from]:
                    await RestoreAsync(from, settings);
                    Console.WriteLine($"Restored to {settings.Data}");
                    return 0;
                case ["archive", ..] when !Sqlite.HoldsStudio(settings.Database):
                    throw new FileNotFoundException($"There is no studio in {settings.Data}.");
                default:
                    return null;
            }
        }
        catch (Exception e)
            when (e is IOException or InvalidDataException or InvalidException or UnauthorizedAccessException)
        {
            await Console.Error.WriteLineAsync(e.Message);
            return 1;
        }
    }

    /// <summary>What needs the studio, but serves nothing.</summary>
    /// <returns>The exit code; null when the arguments name no such command.</returns>
    public static async Task<int?> WithServicesAsync(string[] args, IServiceProvider services) =>
        args switch
        {
            ["archive", var to] => await ArchiveEndpoints.WriteAsync(services, to, withLinks: false),
            ["archive", var to, "with-links"] => await ArchiveEndpoints.WriteAsync(services, to, withLinks: true),
            _ => null,
        };

    private static async Task RestoreAsync(string from, Settings settings)
    {
        if (ArchiveFile.IsOne(from))
            await FirstStart.TakeInAsync(
                settings,
                SignInEndpoints.NewHasher(),
                from,
                settings.OwnerPassword ?? await AskedAsync()
            );
        else
            await Backup.RestoreAsync(from, settings.Data);
    }

    /// <summary>An archive holds no password: it is asked for where the program was started.</summary>
    private static async Task<string> AskedAsync()
    {
        await Console.Error.WriteLineAsync("An archive goes without a password. Type the one the studio will have:");
        return await Console.In.ReadLineAsync() ?? "";
    }
}
