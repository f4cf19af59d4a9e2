using System.Globalization;
using System.Text;
using Gesamt.Core;
using Gesamt.Core.Texts;
using Gesamt.Formats.Calendars;
using Gesamt.Formats.Files;
using Gesamt.Formats.Tables;
using Gesamt.Store.Archives;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.People;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Archives;

/// <summary>What stands in an archive (see docs/archive.md), told from a copy of the database in which nothing happens any more. Nothing of it depends on the day it is made.</summary>
/// <param name="desk">At the copy.</param>
/// <param name="step">Called after each entry.</param>
internal sealed class ArchiveContents(Desk desk, ArchiveWriter archive, Action step, CancellationToken stop)
{
    private const int AtOnce = 200,
        LongestSubject = 60;

    private readonly EntryNames names = new(ArchiveFile.ListName);
    private readonly List<LeftBehind> left = [];

    /// <summary>What could not be taken along.</summary>
    public IReadOnlyList<LeftBehind> Left => left;

    /// <summary>About how many entries there will be.</summary>
    public static async Task<int> CountAsync(Desk desk, CancellationToken stop)
    {
        var papers = await desk.Db.Papers.Select(p => new { p.Hash, p.Data }).ToListAsync(stop);
        var files = await NamedFiles.HashesAsync(desk.Db, stop);
        files.ExceptWith(papers.SelectMany(p => new[] { p.Hash, p.Data ?? p.Hash }));
        files.ExceptWith(
            await desk.Db.Letters.Where(l => l.Original != null).Select(l => l.Original!).ToListAsync(stop)
        );
        return 2 * ArchiveTables.Of(desk.Db.Model).Count
            + await Told(desk).CountAsync(stop)
            + papers.Count
            + papers.Count(p => p.Data != null)
            + files.Count;
    }

    public async Task WriteAsync()
    {
        await AddAsync("READ ME.md", Described("archive.md"));
        await AddAsync("archive.schema.json", Described("archive.schema.json"));
        foreach (var table in ArchiveTables.Of(desk.Db.Model))
            await TableAsync(table);
        await AddAsync("calendar.ics", Encoding.UTF8.GetBytes(await CalendarAsync()));
        await AddAsync("people.vcf", Encoding.UTF8.GetBytes(await PeopleList.VCardsAsync(desk, null)));
        await LettersAsync();
        await PapersAsync();
        await ProjectFilesAsync();
        await OtherFilesAsync();
    }

    private static byte[] Described(string name)
    {
        using var stream = typeof(ArchiveFile).Assembly.GetManifestResourceStream(name)!;
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        return bytes.ToArray();
    }

    private async Task AddAsync(string name, ReadOnlyMemory<byte> bytes)
    {
        stop.ThrowIfCancellationRequested();
        await archive.AddAsync(names.Take(name.Split('/')), bytes);
        step();
    }

    private async Task TableAsync(ArchiveTable table)
    {
        var isLines = table.Entry.EndsWith(".jsonl", StringComparison.Ordinal);
        await archive.AddAsync(
            names.Take(table.Entry.Split('/')),
            async to =>
            {
                if (!isLines)
                    await RowText.WriteAsync(to, table.RowsAsync(desk.Db, stop), stop);
                else
                    await foreach (var row in table.RowsAsync(desk.Db, stop))
                    {
                        await to.WriteAsync(row, stop);
                        await to.WriteAsync("\n"u8.ToArray(), stop);
                    }
            }
        );
        step();
        if (isLines)
            return;
        await archive.AddAsync(
            names.Take("tables", $"{table.Name}.csv"),
            to => Csv.WriteAsync(to, table.Columns, table.RowsAsync(desk.Db, stop).Select(RowText.Cells))
        );
        step();
    }

    /// <summary>Meetings, own appointments, the dates that matter and what is due, of all projects but rehearsals (RFC 5545).</summary>
    private async Task<string> CalendarAsync()
    {
        var (db, domain) = (desk.Db, desk.Studio.MailDomain);
        var meetings = await db
            .Meetings.AsNoTracking()
            .OrderBy(m => m.Id)
            .Join(
                db.Projects,
                m => m.ProjectId,
                p => p.Id,
                (m, p) =>
                    new
                    {
                        Meeting = m,
                        p.Title,
                        Client = p.Client!.Name,
                    }
            )
            .ToListAsync(stop);
        var appointments = await db
            .Appointments.AsNoTracking()
            .Where(a => !a.Removed)
            .OrderBy(a => a.Id)
            .ToListAsync(stop);
        var dates = await db
            .Projects.Where(p => p.Standing.MainDate != null)
            .OrderBy(p => p.Id)
            .Select(p => new
            {
                p.Id,
                p.Title,
                p.Standing.MainDate,
            })
            .ToListAsync(stop);
        var tasks = await db
            .Tasks.Where(t => t.Due != null && t.DoneAt == null && !t.Removed)
            .OrderBy(t => t.Id)
            .Join(
                db.Projects,
                t => t.ProjectId,
                p => p.Id,
                (t, p) =>
                    new
                    {
                        t.Id,
                        t.Due,
                        t.Title,
                        Project = p.Title,
                    }
            )
            .ToListAsync(stop);
        return Invitations.Feed(
            desk.Studio.Name,
            meetings
                .Select(one => new CalendarMeeting(
                    one.Meeting.Uid,
                    one.Meeting.Sequence,
                    one.Meeting.Start,
                    one.Meeting.End,
                    $"{one.Meeting.Name}, {one.Title}",
                    one.Client,
                    one.Meeting.Where,
                    one.Meeting.Start,
                    Cancelled: one.Meeting.Cancelled
                ))
                .Concat(
                    appointments.Select(one => new CalendarMeeting(
                        $"appointment-{one.Id}@{domain}",
                        one.Edition,
                        one.Start,
                        one.End,
                        one.What,
                        "",
                        one.Where,
                        one.Start
                    ))
                ),
            dates
                .Select(one => new CalendarTask(
                    $"date-{one.Id.Value}@{domain}",
                    one.MainDate!.Value,
                    one.Title,
                    "",
                    desk.Calendar.StartOf(one.MainDate.Value)
                ))
                .Concat(
                    tasks.Select(one => new CalendarTask(
                        $"task-{one.Id.Value}@{domain}",
                        one.Due!.Value,
                        one.Title,
                        one.Project,
                        desk.Calendar.StartOf(one.Due.Value)
                    ))
                )
        );
    }

    /// <summary>Letters that went out or came in: others are still being written, and stand in their table.</summary>
    private static IQueryable<LetterRow> Told(Desk desk) =>
        desk
            .Db.Letters.AsNoTracking()
            .Where(l =>
                l.Original != null
                || l.State == LetterState.Sent
                || l.State == LetterState.Uncertain
                || l.State == LetterState.Received
                || l.State == LetterState.Kept
            );

    private async Task LettersAsync()
    {
        var ids = await Told(desk).OrderBy(l => l.Id).Select(l => l.Id).ToListAsync(stop);
        foreach (var some in ids.Chunk(AtOnce))
        foreach (
            var letter in await desk
                .Db.Letters.AsNoTracking()
                .Include(l => l.Files)
                .Where(l => some.Contains(l.Id))
                .OrderBy(l => l.Id)
                .ToListAsync(stop)
        )
        {
            var name = $"{letter.Id.Value:000000} {ShortText.Of(letter.Subject, LongestSubject)}.eml";
            if (Read(name, () => LetterFiles.MessageOf(desk, letter).Message) is not { } message)
                continue;
            var year = desk.Calendar.DateOf(letter.At).Year.ToString(CultureInfo.InvariantCulture);
            await AddAsync($"letters/{year}/{EntryNames.Part(name)}", message);
        }
    }

    /// <summary>Invoices, credit notes and signed contracts as the files that were kept of them.</summary>
    private async Task PapersAsync()
    {
        var papers = await desk.Db.Papers.AsNoTracking().OrderBy(p => p.Id).ToListAsync(stop);
        var numbers = await desk.Db.Invoices.ToDictionaryAsync(i => i.Id, i => i.Number, stop);
        var titles = await TitlesAsync();
        foreach (var paper in papers)
        {
            var name = paper.InvoiceId is { } invoice
                ? numbers.GetValueOrDefault(invoice, $"paper {paper.Id}")
                : $"contract {paper.VersionId?.Value} {titles.GetValueOrDefault(paper.ProjectId)}{(paper.Signatures > 0 ? $", signatures {paper.Signatures}" : "")}";
            await FileAsync(paper.Hash, "papers", $"{name}.pdf");
            if (paper.Data is { } data)
                await FileAsync(data, "papers", $"{name}.xml");
        }
    }

    private Task<Dictionary<ProjectId, string>> TitlesAsync() =>
        desk.Db.AllProjects.ToDictionaryAsync(p => p.Id, p => p.Title, stop);

    private async Task ProjectFilesAsync()
    {
        var titles = await TitlesAsync();
        foreach (var file in await desk.Db.Files.AsNoTracking().OrderBy(f => f.Id).ToListAsync(stop))
            await FileAsync(
                file.Hash,
                "files",
                $"{file.ProjectId.Value:00000} {titles.GetValueOrDefault(file.ProjectId)}",
                FileTypes.HandedOut(file.Name, file.Type)
            );
    }

    /// <summary>What other rows name and does not stand in the archive yet: receipts, pictures, files of bank statements, what went with letters.</summary>
    private async Task OtherFilesAsync()
    {
        foreach (var column in NamedFiles.Columns(desk.Db.Model).Where(column => !column.StaysHere))
        {
            // names of this program's own columns, which no parameter can stand for
            var sql =
                $"""SELECT "{column.Column}" AS Hash, {(column.NameColumn is { } name ? $"ifnull(\"{name}\", '')" : "''")} AS Name FROM "{column.Table}" WHERE "{column.Column}" IS NOT NULL ORDER BY "{column.Key}" """;
            foreach (var row in await desk.Db.Database.SqlQueryRaw<NamedFile>(sql).ToListAsync(stop))
                if (!archive.Holds(row.Hash))
                    await FileAsync(
                        row.Hash,
                        "files",
                        ArchiveTables.NameOf(column.Table),
                        row.Name.Length > 0 ? row.Name : row.Hash
                    );
        }
    }

    private sealed record NamedFile(string Hash, string Name);

    /// <summary>A kept file under a name; one that is not there any more is said to be left behind.</summary>
    private async Task FileAsync(string hash, params string[] path)
    {
        stop.ThrowIfCancellationRequested();
        if (!desk.Vault.Has(hash))
        {
            left.Add(new(hash, $"{string.Join('/', path)} is not there any more."));
            return;
        }
        await archive.AddAsync(
            names.Take(path),
            async to =>
            {
                await using var bytes = desk.Vault.Open(hash);
                await bytes.CopyToAsync(to, stop);
            }
        );
        step();
    }

    private byte[]? Read(string what, Func<byte[]> read)
    {
        try
        {
            return read();
        }
        catch (Exception e) when (e is IOException or FormatException or ArgumentException)
        {
            left.Add(
                new(
                    what,
                    e is IOException ? "A file of it is not there any more." : "It cannot be written as a message."
                )
            );
            return null;
        }
    }
}
