using System.Runtime.InteropServices;

namespace Gesamt.Store.Files;

/// <summary>What lies in the studio's folder is its owner's alone to read.</summary>
public static class Private
{
    // octal 077: no rights for group and others on anything this process makes
    private const uint OwnerOnly = 0x3f;

    /// <summary>From here on everything this process writes is readable by its owner alone.</summary>
    public static void FromHereOn()
    {
        if (!OperatingSystem.IsWindows())
            _ = Umask(OwnerOnly);
    }

    /// <summary>Takes the rights of others from a folder and what an earlier Gesamt wrote into it.</summary>
    public static void Shut(string folder)
    {
        if (OperatingSystem.IsWindows() || !Directory.Exists(folder))
            return;
        const UnixFileMode others =
            UnixFileMode.GroupRead
            | UnixFileMode.GroupWrite
            | UnixFileMode.GroupExecute
            | UnixFileMode.OtherRead
            | UnixFileMode.OtherWrite
            | UnixFileMode.OtherExecute;
        foreach (
            var path in Directory.EnumerateFileSystemEntries(folder, "*", SearchOption.AllDirectories).Prepend(folder)
        )
            try
            {
                if (File.GetUnixFileMode(path) is var mode && (mode & others) != 0)
                    File.SetUnixFileMode(path, mode & ~others);
            }
            catch (Exception e) when (e is IOException or UnauthorizedAccessException)
            {
                // somebody else's, or gone meanwhile
            }
    }

    [DllImport("libc", EntryPoint = "umask")]
    private static extern uint Umask(uint mask);
}
