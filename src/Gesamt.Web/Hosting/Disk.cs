using Gesamt.Core.Amounts;

namespace Gesamt.Web.Hosting;

/// <summary>The disk the studio lies on.</summary>
public sealed class Disk(Settings settings)
{
    private const long Megabyte = 1024 * 1024;

    /// <summary>That little room is left, in a sentence; null while there is enough, or where the system does not tell.</summary>
    public string? Trouble =>
        Left() is { } left && left < settings.DiskMegabytes
            ? $"The disk of the studio has only {NumberText.Number(left)} MB left. When it is full, nothing is kept and no letter goes out: make room on it."
            : null;

    private long? Left()
    {
        try
        {
            return new DriveInfo(Path.GetFullPath(settings.Data)).AvailableFreeSpace / Megabyte;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }
}
