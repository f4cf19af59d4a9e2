using Gesamt.Core.Capture;
using Gesamt.Core.Facts;
using Gesamt.Formats.Mail;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Capture;

/// <summary>What became of one file that was handed in beside a table.</summary>
/// <param name="Known">Letters that are kept already, and what was handed in before.</param>
/// <param name="Unread">Messages that cannot be read.</param>
public sealed record HandedInDto(int Letters, int Files, int Known, int Unread);

/// <summary>A folder of files or an address of letters, and the row these go to.</summary>
/// <param name="Row">Null for what is left out.</param>
/// <param name="ByHand">That the owner chose it.</param>
public sealed record LaidPlaceDto(
    ImportPart Sort,
    string Place,
    int Count,
    int? Row,
    LaidBy? By,
    bool InDoubt,
    bool ByHand
);

/// <summary>A row that letters and files can be laid to.</summary>
public sealed record RowNameDto(int Row, string Name);

/// <summary>The letters and files beside a table.</summary>
/// <param name="Out">How many of them go nowhere.</param>
/// <param name="Places">What goes nowhere by itself first.</param>
/// <param name="More">How many places are not shown.</param>
public sealed record BesideTableDto(
    int Letters,
    int Files,
    int Out,
    IReadOnlyList<LaidPlaceDto> Places,
    int More,
    IReadOnlyList<RowNameDto> Rows
)
{
    public static BesideTableDto None { get; } = new(0, 0, 0, [], 0, []);
}

/// <summary>A letter or a file beside a table, and the row it is laid to.</summary>
/// <param name="Place">The folder or the address it is shown under.</param>
public sealed record LaidPart(ImportPartRow Part, string Place, Laid Laid, bool ByHand);

/// <summary>Letters and files of one row, read and in the vault.</summary>
public sealed record BesideRead(
    IReadOnlyList<ImportPartRow> Parts,
    IReadOnlyList<LetterRow> Letters,
    IReadOnlyList<ImportPartRow> Files
);

/// <summary>Letters (mbox, RFC 4155; .eml, RFC 5322) and files in their folders that are handed in beside a table, and laid to its rows by number, address or name.</summary>
public static class Beside
{
    public const long MostBytes = 2L * 1024 * 1024 * 1024;

    private const int Most = 20_000,
        LongestPath = 500,
        Shown = 300,
        AtOnce = 200;

    private static readonly string[] MailEndings = [".mbox", ".mbx", ".eml"];

    /// <summary>Keeps a file, or every message of a mailbox, until the table is taken over.</summary>
    /// <param name="path">Its name with the folders it lies in, parted by slashes.</param>
    /// <param name="letters">That it was given as letters, whatever its name: many mailboxes have none that tells.</param>
    /// <exception cref="InvalidException">It is of no kind that is kept, has no name, or there are too many.</exception>
    public static async Task<HandedInDto> HandInAsync(
        Desk desk,
        int id,
        string path,
        bool letters,
        Stream content,
        CancellationToken stop
    )
    {
        await OpenAsync(desk, id);
        string[] parts =
        [
            .. path.Replace('\\', '/')
                .Split('/')
                .Select(part => new string([.. part.Where(c => !char.IsControl(c))]).Trim())
                .Where(part => part is not ("" or "." or "..")),
        ];
        if (parts.Length == 0 || path.Length > LongestPath)
            throw new InvalidException(
                ("path", $"A file needs a name, of at most {LongestPath} characters with its folders.")
            );
        return letters || MailEndings.Contains(System.IO.Path.GetExtension(parts[^1]).ToLowerInvariant())
            ? await LettersAsync(desk, id, content, stop)
            : await FileAsync(desk, id, parts, content, stop);
    }

    private static async Task<HandedInDto> FileAsync(
        Desk desk,
        int id,
        string[] path,
        Stream content,
        CancellationToken stop
    )
    {
        var (name, hash, size, type) = await KeptFiles.TakeAsync(desk.Vault, path[^1], content, stop);
        var place = string.Join('/', path[..^1]);
        return await desk.ActAsync(async act =>
        {
            if (
                await act.Db.ImportParts.AnyAsync(
                    p => p.ImportId == id && p.Hash == hash && p.Place == place && p.Name == name,
                    stop
                )
            )
                return new HandedInDto(0, 0, 1, 0);
            await AddAsync(
                act,
                id,
                [
                    new()
                    {
                        ImportId = id,
                        Sort = ImportPart.File,
                        Name = name,
                        Place = place,
                        Hash = hash,
                        Size = size,
                        Type = type,
                    },
                ]
            );
            return new HandedInDto(0, 1, 0, 0);
        });
    }

    private static async Task<HandedInDto> LettersAsync(Desk desk, int id, Stream content, CancellationToken stop)
    {
        var before = (
            await desk.Db.ImportParts.Where(p => p.ImportId == id).Select(p => p.Hash).ToListAsync(stop)
        ).ToHashSet();
        var (kept, known, unread) = (0, 0, 0);
        List<ImportPartRow> some = [];
        async Task SaveAsync()
        {
            await desk.ActAsync(act => AddAsync(act, id, some));
            kept += some.Count;
            some.Clear();
        }
        try
        {
            await foreach (var message in Mbox.ReadAsync(content, IncomingMail.MostBytes, stop))
            {
                if (LetterFiles.Read(message) is not { } mail)
                    unread++;
                else if (await LetterFiles.IsKnownAsync(desk, mail, stop))
                    known++;
                else if (await PartOfAsync(desk, id, message, mail, stop) is var part && before.Add(part.Hash))
                    some.Add(part);
                else
                    known++;
                if (some.Count == AtOnce)
                    await SaveAsync();
            }
        }
        catch (FormatException e)
        {
            throw new InvalidException(("file", e.Message));
        }
        if (some.Count > 0)
            await SaveAsync();
        return kept + known + unread > 0
            ? new(kept, 0, known, unread)
            : throw new InvalidException(
                ("file", "This is no mail: choose messages saved as .eml, or a mailbox saved as .mbox.")
            );
    }

    private static async Task<ImportPartRow> PartOfAsync(
        Desk desk,
        int id,
        byte[] message,
        IncomingLetter mail,
        CancellationToken stop
    ) =>
        new()
        {
            ImportId = id,
            Sort = ImportPart.Letter,
            Name = mail.Subject,
            Place = string.Join(
                '\n',
                mail.Recipients.Prepend(mail.FromAddress)
                    .Where(one => one.Length > 0 && one != desk.Studio.Mail)
                    .Distinct()
            ),
            People = string.Join('\n', mail.RecipientNames.Prepend(mail.FromName)),
            At = mail.Date,
            Hash = await Incoming.OriginalAsync(desk, message, stop),
            Size = message.Length,
            Type = "message/rfc822",
        };

    private static async Task AddAsync(Act act, int id, IReadOnlyCollection<ImportPartRow> parts)
    {
        await OpenAsync(act.Desk, id);
        if (await act.Db.ImportParts.CountAsync(p => p.ImportId == id) + parts.Count > Most)
            throw new InvalidException(
                (
                    "file",
                    $"At most {Most} letters and files beside one table. Split the table and hand in what belongs to each part."
                )
            );
        act.Db.ImportParts.AddRange(parts);
        await act.Db.SaveChangesAsync();
        act.Db.ChangeTracker.Clear();
    }

    private static async Task OpenAsync(Desk desk, int id)
    {
        if ((await Import.OneAsync(desk, id)).State != ImportState.Matching)
            throw new RefusedException("Letters and files are handed in before the table is taken over.");
    }

    /// <summary>Takes away all that was handed in beside a table that is not taken over yet.</summary>
    public static Task TakeAwayAsync(Desk desk, int id) =>
        desk.ActAsync(async act =>
        {
            await OpenAsync(desk, id);
            await act.Db.ImportParts.Where(part => part.ImportId == id).ExecuteDeleteAsync();
        });

    /// <summary>Every letter and file beside a table with the row it goes to.</summary>
    public static async Task<IReadOnlyList<LaidPart>> LaidAsync(
        Desk desk,
        int id,
        IReadOnlyList<ImportRowRead> rows,
        MatchingDto matching
    )
    {
        var parts = await desk
            .Db.ImportParts.AsNoTracking()
            .Where(p => p.ImportId == id)
            .OrderBy(p => p.Id)
            .ToListAsync();
        if (parts.Count == 0)
            return [];
        var right = rows.Where(row => row.Wrong.Length == 0).ToList();
        var laying = new Laying(
            right.Select(row => new RowMarks(
                row.Row,
                row.Number,
                row.Mail,
                [.. new[] { row.Name, row.Organisation, row.Title }.OfType<string>()],
                row.Inquired
            ))
        );
        var (numbers, mails) = (
            right.Select(row => row.Row).ToHashSet(),
            right.Select(row => row.Mail).OfType<string>().ToHashSet()
        );
        return [.. parts.Select(part => LayOne(desk, part, laying, mails, numbers, matching))];
    }

    private static LaidPart LayOne(
        Desk desk,
        ImportPartRow part,
        Laying laying,
        HashSet<string> mails,
        HashSet<int> numbers,
        MatchingDto matching
    )
    {
        var isFile = part.Sort == ImportPart.File;
        var addresses = isFile ? [] : part.Place.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        var place = isFile
            ? part.Place.Length > 0
                ? part.Place
                : part.Name
            : Array.Find(addresses, mails.Contains) ?? addresses.FirstOrDefault("");
        if (part.TakenTo is { } taken)
            return new(part, place, new(taken, null, false), false);
        if (matching.Places.TryGetValue(place, out var chosen))
            return new(part, place, new(numbers.Contains(chosen) ? chosen : null, null, false), true);
        return new(
            part,
            place,
            isFile
                ? laying.OfFile(part.Place.Length > 0 ? $"{part.Place}/{part.Name}" : part.Name)
                : laying.OfLetter(
                    addresses,
                    part.People.Split('\n').Prepend(part.Name),
                    part.At is { } at ? desk.Calendar.DateOf(at) : null
                ),
            false
        );
    }

    /// <summary>Whether anything is beside a table.</summary>
    public static Task<bool> AnyAsync(Desk desk, int id) => desk.Db.ImportParts.AnyAsync(part => part.ImportId == id);

    /// <summary>What is beside a table, by folders and addresses.</summary>
    public static async Task<BesideTableDto> OfAsync(
        Desk desk,
        int id,
        IReadOnlyList<ImportRowRead> rows,
        MatchingDto matching
    )
    {
        var laid = await LaidAsync(desk, id, rows, matching);
        var places = laid.GroupBy(one => (one.Part.Sort, one.Place, one.Laid, one.ByHand))
            .Select(same => new LaidPlaceDto(
                same.Key.Sort,
                same.Key.Place,
                same.Count(),
                same.Key.Laid.Row,
                same.Key.Laid.By,
                same.Key.Laid.InDoubt,
                same.Key.ByHand
            ))
            // one that was just chosen stays where it was found
            .OrderBy(place => place.Row is not null && !place.ByHand)
            .ThenBy(place => place.Sort)
            .ThenBy(place => place.Place, StringComparer.Ordinal)
            .ThenBy(place => place.Row)
            .ToList();
        return new(
            laid.Count(one => one.Part.Sort == ImportPart.Letter),
            laid.Count(one => one.Part.Sort == ImportPart.File),
            laid.Count(one => one.Laid.Row is null),
            [.. places.Take(Shown)],
            Math.Max(0, places.Count - Shown),
            laid.Count == 0
                ? []
                :
                [
                    .. rows.Where(row => row.Wrong.Length == 0)
                        .Select(row => new RowNameDto(
                            row.Row,
                            string.Join(
                                ", ",
                                new[] { row.Name ?? row.Organisation, row.Title, row.Number }.OfType<string>()
                            )
                        )),
                ]
        );
    }

    /// <summary>Reads the letters of one row and keeps their files, before the act that adds them.</summary>
    public static async Task<BesideRead> ReadAsync(Desk desk, IReadOnlyList<ImportPartRow> parts)
    {
        var (letters, _, _) = await LetterFiles.ReadAsync(
            desk,
            parts.Where(part => part.Sort == ImportPart.Letter).Select(part => desk.Vault.Read(part.Hash)),
            default
        );
        return new(parts, letters, [.. parts.Where(part => part.Sort == ImportPart.File)]);
    }

    /// <summary>Adds what was read to the project that its row has become.</summary>
    /// <param name="at">When the project began, which is as much as is known of when a file was kept.</param>
    public static async Task AddAsync(Act act, ProjectFile file, ImportRowRead row, BesideRead read, Instant at)
    {
        if (read.Parts.Count == 0)
            return;
        await LetterFiles.AddAsync(
            act,
            file,
            read.Letters,
            // what an address that is not known as the studio's wrote to the client was the studio's own
            from =>
                from != act.Desk.Studio.Mail && (row.Mail is null || from == row.Mail || !IsTo(row.Mail, from, read))
        );
        var files = read
            .Files.Select(part => new FileRow
            {
                ProjectId = file.Id,
                PublicId = Codes.New() + Codes.New(),
                Group = FileGroup.Supplied,
                Name = part.Name,
                Hash = part.Hash,
                Size = part.Size,
                Type = part.Type,
                At = at,
                By = Actor.Owner,
            })
            .ToList();
        act.Db.Files.AddRange(files);
        await act.Db.SaveChangesAsync();
        await act.RecordKeptAsync(
            file,
            Actor.Owner,
            [.. files.Select(one => (at, (Happening)new Happening.FileKept(one.Id, one.Group)))]
        );
        var ids = read.Parts.Select(part => part.Id).ToList();
        await act
            .Db.ImportParts.Where(part => ids.Contains(part.Id))
            .ExecuteUpdateAsync(set => set.SetProperty(part => part.TakenTo, row.Row));
    }

    private static bool IsTo(string mail, string from, BesideRead read) =>
        read.Letters.Any(letter => letter.FromMail == from && letter.ToMail == mail);
}
