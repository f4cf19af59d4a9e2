using System.IO.Compression;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Formats.Files;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>All final files a client can open in one download (ZIP, APPNOTE 6.3), with the words on their use.</summary>
internal static class HandedOverZip
{
    private const string Uses = "how to use them.txt";

    /// <exception cref="MissingException">There is none to be seen.</exception>
    /// <exception cref="RefusedException">They wait for a payment.</exception>
    public static async Task<IResult> OfAsync(Desk desk, FileVault vault, ProjectFile file)
    {
        var shown = Sight.Shown(file.History);
        var rows = (
            await desk
                .Db.Files.AsNoTracking()
                .Where(f => f.ProjectId == file.Id && f.Group == FileGroup.Final && !f.Removed)
                .OrderBy(f => f.Id)
                .ToListAsync()
        )
            .Where(row => shown.Contains(row.Id))
            .ToList();
        if (rows.Count == 0 || !Sight.IsOpen(file.History, PagePart.Files))
            throw new MissingException("file");
        if (!FinalFiles.IsOpen(file.Case, FileGroup.Final))
            throw new RefusedException("These files open as soon as everything is paid.");
        return await PassingZip.OfAsync("handed over.zip", zip => WriteAsync(zip, vault, rows));
    }

    private static async Task WriteAsync(ZipArchive zip, FileVault vault, List<FileRow> rows)
    {
        var names = new EntryNames(Uses);
        var named = rows.Select(row => (Name: names.Take(row.Name), Row: row)).ToList();
        foreach (var (name, row) in named)
        {
            await using var entry = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
            await using var bytes = vault.Open(row.Hash);
            await bytes.CopyToAsync(entry);
        }
        var uses = named.Where(one => one.Row.Use.Length > 0).Select(one => $"{one.Name}: {one.Row.Use}").ToList();
        if (uses.Count == 0)
            return;
        await using var words = new StreamWriter(zip.CreateEntry(Uses, CompressionLevel.Fastest).Open());
        await words.WriteAsync(string.Join("\r\n", uses));
    }
}
