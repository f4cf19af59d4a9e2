using Gesamt.Core.Capture;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Capture;

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

/// <summary>The letters and files beside a table, laid to its rows by number, address or name.</summary>
public static class Beside
{
    private const int Shown = 300;

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
