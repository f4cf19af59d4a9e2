namespace Gesamt.Web.Hosting;

/// <summary>How large a whole file of the studio is, in words.</summary>
public static class FileSize
{
    public static string Words(long bytes) =>
        bytes < 1024 * 1024 ? $"{Math.Max(1, bytes / 1024)} kB" : $"{bytes / (1024 * 1024)} MB";
}
