using System.IO.Compression;
using Gesamt.Core;
using Gesamt.Core.Texts;
using Gesamt.Formats.Files;
using Gesamt.Formats.Tables;
using Gesamt.Store.Archives;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Projects;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Archives;

/// <summary>Everything of one project in one ZIP (APPNOTE 6.3), for the owner: its history to read, its letters, papers and files, and its rows as the archive has them.</summary>
internal static class ProjectCopy
{
    public static async Task<IResult> OfAsync(Desk desk, ProjectId id)
    {
        var file = await desk.OpenAsync(id);
        return await PassingZip.OfAsync(
            $"{EntryNames.Part(file.Row.Title)}.zip",
            async zip =>
            {
                var copy = new CopyWriter(desk, zip);
                await copy.AddAsync(await WholeHistory.PaperAsync(desk, id), "history.pdf");
                await copy.LettersAsync(await LetterFiles.RowsAsync(desk, id), "letters");
                await copy.PapersAsync(id, "papers");
                await copy.FilesAsync(
                    await desk
                        .Db.Files.AsNoTracking()
                        .Where(f => f.ProjectId == id && !f.Removed)
                        .OrderBy(f => f.Id)
                        .ToListAsync(),
                    "files"
                );
                await copy.ReceiptsAsync(id, "receipts");
                foreach (var table in ArchiveTables.Of(desk.Db.Model))
                    await TableAsync(desk, copy, table, id);
                await copy.SayLeftAsync();
            }
        );
    }

    private static async Task TableAsync(Desk desk, CopyWriter copy, ArchiveTable table, ProjectId id)
    {
        List<byte[]> rows = [];
        await foreach (var row in table.RowsAsync(desk.Db, id, CancellationToken.None))
            rows.Add(row);
        if (rows.Count == 0)
            return;
        await copy.AddAsync(RowText.Array(rows), "tables", $"{table.Name}.json");
        await copy.AddAsync(Csv.Write(table.Columns, rows.Select(RowText.Cells)), "tables", $"{table.Name}.csv");
    }
}

/// <summary>Writes a ZIP of what can be copied of a project; what is not there any more is said in it, and takes nothing else along.</summary>
internal sealed class CopyWriter(Desk desk, ZipArchive zip)
{
    private const int LongestSubject = 60;
    private const string LeftName = "what is missing.txt";

    private readonly EntryNames names = new(LeftName);
    private readonly List<string> left = [];

    public async Task AddAsync(byte[] bytes, params string[] path)
    {
        await using var entry = zip.CreateEntry(names.Take(path), CompressionLevel.Fastest).Open();
        await entry.WriteAsync(bytes);
    }

    public async Task LettersAsync(IEnumerable<LetterRow> letters, params string[] folder)
    {
        foreach (var letter in letters)
        {
            var day = desk.Calendar.DateOf(letter.At);
            var name =
                $"{NodaTime.Text.LocalDatePattern.Iso.Format(day)} {ShortText.Of(letter.Subject, LongestSubject)}.eml";
            try
            {
                await AddAsync(LetterFiles.MessageOf(desk, letter).Message, [.. folder, name]);
            }
            catch (Exception e) when (e is IOException or FormatException or ArgumentException)
            {
                left.Add(string.Join('/', [.. folder, name]));
            }
        }
    }

    /// <summary>Its invoices, credit notes and signed contracts as they were handed out.</summary>
    public async Task PapersAsync(ProjectId id, params string[] folder)
    {
        var numbers = await desk.Db.Invoices.Where(i => i.ProjectId == id).ToDictionaryAsync(i => i.Id, i => i.Number);
        foreach (
            var paper in await desk
                .Db.Papers.AsNoTracking()
                .Where(p => p.ProjectId == id)
                .OrderBy(p => p.Id)
                .ToListAsync()
        )
        {
            var name =
                paper.InvoiceId is { } invoice ? numbers.GetValueOrDefault(invoice, $"paper {paper.Id}")
                : paper.Signatures > 0 ? $"contract {paper.VersionId?.Value}, signatures {paper.Signatures}"
                : $"contract {paper.VersionId?.Value}";
            await FileAsync(paper.Hash, [.. folder, $"{name}.pdf"]);
            if (paper.Data is { } data)
                await FileAsync(data, [.. folder, $"{name}.xml"]);
        }
    }

    public async Task FilesAsync(IEnumerable<FileRow> files, params string[] folder)
    {
        foreach (var file in files)
            await FileAsync(file.Hash, [.. folder, FileTypes.HandedOut(file.Name, file.Type)]);
    }

    public async Task ReceiptsAsync(ProjectId id, params string[] folder)
    {
        foreach (
            var cost in await desk
                .Db.Costs.AsNoTracking()
                .Where(c => c.ProjectId == id && !c.Removed && c.ReceiptHash != null)
                .OrderBy(c => c.Id)
                .ToListAsync()
        )
            await FileAsync(cost.ReceiptHash!, [.. folder, cost.ReceiptName ?? $"receipt {cost.Id.Value}"]);
    }

    private async Task FileAsync(string hash, string[] path)
    {
        if (!desk.Vault.Has(hash))
        {
            left.Add(string.Join('/', path));
            return;
        }
        await using var entry = zip.CreateEntry(names.Take(path), CompressionLevel.Fastest).Open();
        await using var bytes = desk.Vault.Open(hash);
        await bytes.CopyToAsync(entry);
    }

    /// <summary>Says what should stand here and does not; the last entry, where there is anything to say.</summary>
    public async Task SayLeftAsync()
    {
        if (left.Count == 0)
            return;
        await using var words = new StreamWriter(zip.CreateEntry(LeftName, CompressionLevel.Fastest).Open());
        await words.WriteAsync(
            $"These are named in the studio, and their files are not there any more:\r\n{string.Join("\r\n", left)}\r\n"
        );
    }
}
