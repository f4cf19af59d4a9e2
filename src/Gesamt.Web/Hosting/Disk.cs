using Gesamt.Core.Amounts;

namespace Gesamt.Web.Hosting;

/// <summary>The disk the studio lies on, and that of its backups where it is another.</summary>
public sealed class Disk(Settings settings)
{
    private const long Megabyte = 1024 * 1024;

    private sealed record Room(long Left, long Whole)
    {
        public static Room? Of(string folder)
        {
            try
            {
                var drive = new DriveInfo(Path.GetFullPath(folder));
                return new(drive.AvailableFreeSpace / Megabyte, drive.TotalSize / Megabyte);
            }
            catch (Exception e) when (e is IOException or UnauthorizedAccessException)
            {
                return null;
            }
        }
    }

    /// <summary>Of which little room is left, in a sentence each; none while there is enough, or where the system does not tell.</summary>
    public IReadOnlyList<string> Troubles
    {
        get
        {
            var (studio, backups) = (Room.Of(settings.Data), Room.Of(settings.BackupFolder));
            List<string> troubles = [];
            if (IsFull(studio))
                troubles.Add(
                    $"The disk of the studio has {Left(studio)} left. When it is full, nothing is kept and no letter goes out: make room on it."
                );
            // a system says of a folder only how large its disk is: one of the same size is taken for the same
            if (backups?.Whole != studio?.Whole && IsFull(backups))
                troubles.Add(
                    $"The disk of the backups has {Left(backups)} left. When it is full, no backup is made: make room on it."
                );
            return troubles;
        }
    }

    private bool IsFull([System.Diagnostics.CodeAnalysis.NotNullWhen(true)] Room? room) =>
        room is not null && room.Left < settings.DiskMegabytes;

    private static string Left(Room room) =>
        room.Left == 0 ? "less than 1 MB" : $"only {NumberText.Number(room.Left)} MB";
}
