using System.IO.Compression;

namespace Gesamt.Web.Hosting;

/// <summary>A ZIP that is put together for one answer (APPNOTE 6.3): on the disk, which it leaves as soon as it is read, since it may be large.</summary>
internal static class PassingZip
{
    public static async Task<IResult> OfAsync(string name, Func<ZipArchive, Task> write)
    {
        var whole = new FileStream(
            Path.Combine(Path.GetTempPath(), Path.GetRandomFileName()),
            FileMode.CreateNew,
            FileAccess.ReadWrite,
            FileShare.None,
            bufferSize: 64 * 1024,
            FileOptions.DeleteOnClose | FileOptions.Asynchronous
        );
        try
        {
            using (var zip = new ZipArchive(whole, ZipArchiveMode.Create, leaveOpen: true))
                await write(zip);
            whole.Position = 0;
            return Results.Stream(whole, "application/zip", name);
        }
        catch
        {
            await whole.DisposeAsync();
            throw;
        }
    }
}
