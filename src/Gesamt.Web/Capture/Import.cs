using System.Collections.Immutable;
using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Capture;
using Gesamt.Core.People;
using Gesamt.Core.Projects;
using Gesamt.Formats.Tables;
using Gesamt.Store.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Capture;

/// <summary>Which column is what, and how the table writes.</summary>
/// <param name="Kind">The kind of rows that name none.</param>
public sealed record MatchingDto(ImportColumn[] Columns, DateStyle Dates, NumberStyle Numbers, long? Kind)
{
    /// <summary>Rows that the owner chose for places (folders of files, addresses of letters); 0 leaves what is in them out.</summary>
    public Dictionary<string, int> Places { get; init; } = [];
}

/// <param name="Read">What would be kept, each with its name; dates with their weekday.</param>
public sealed record PreviewRowDto(int Row, IReadOnlyList<string> Read, IReadOnlyList<string> Wrong);

/// <param name="Separator">What parts the columns; null for a workbook.</param>
/// <param name="NumbersInDoubt">That the amounts can be read in both styles and mean different sums.</param>
/// <param name="DateStyles">Those by which every date can be read; more than one asks to look.</param>
public sealed record ImportDto(
    int Id,
    string Name,
    ImportState State,
    int Total,
    int Read,
    int Made,
    string? Problem,
    string? Separator,
    IReadOnlyList<string> Headings,
    IReadOnlyList<IReadOnlyList<string>> Sample,
    MatchingDto Matching,
    bool NumbersInDoubt,
    IReadOnlyList<DateStyle> DateStyles,
    IReadOnlyList<PreviewRowDto> Preview,
    int WrongRows,
    IReadOnlyList<PreviewRowDto> Errors,
    BesideTableDto Beside
);

/// <summary>What a row says, read by the matching.</summary>
public sealed record ImportRowRead(
    int Row,
    string? Name,
    string? Organisation,
    string? Mail,
    string? Phone,
    string? Profile,
    string? Title,
    string? Number,
    KindId? Kind,
    string? Source,
    string? Campaign,
    LocalDate? Inquired,
    LocalDate? Date,
    ImportStanding Standing,
    Money? Amount,
    string? Words,
    ImmutableArray<string> Wrong
);

/// <summary>How a project of a table stands.</summary>
public enum ImportStanding
{
    Open,
    Booked,
    Finished,
    Lost,
    Declined,
    Quiet,
}

/// <summary>Takes over a table kept so far: its columns are matched, every row is shown before it is taken, wrong rows are named, and all of it can be undone.</summary>
public static class Import
{
    private const int Shown = 12,
        MostErrors = 200;

    // what people write for where a job stands, common practice
    private static readonly (ImportStanding Standing, string[] Words)[] Standings =
    [
        (ImportStanding.Finished, ["done", "finished", "completed", "complete", "delivered", "paid", "closed"]),
        (ImportStanding.Booked, ["booked", "won", "confirmed", "signed", "active"]),
        (ImportStanding.Lost, ["lost", "cancelled", "canceled", "no"]),
        (ImportStanding.Declined, ["declined", "rejected"]),
        (ImportStanding.Quiet, ["quiet", "cold", "ghosted", "unanswered"]),
        (ImportStanding.Open, ["", "open", "new", "lead", "inquiry", "proposal", "pending", "waiting"]),
    ];

    /// <summary>Keeps an uploaded table, to be matched.</summary>
    public static async Task<int> BeginAsync(
        Desk desk,
        FileVault vault,
        string name,
        Stream content,
        CancellationToken stop
    )
    {
        var (hash, _) = await vault.KeepAsync(content, 20 * 1024 * 1024, stop);
        var row = new ImportRow
        {
            Name = name.Trim().Length == 0 ? "table" : name.Trim()[..Math.Min(120, name.Trim().Length)],
            Hash = hash,
            State = ImportState.Matching,
            At = desk.Now,
        };
        var table = await TableAsync(vault, row);
        var guess = TableValues.Guess(table.Headings);
        row.Total = table.Rows.Count;
        row.Matching = StoreJson.Write(
            new MatchingDto(
                [.. guess],
                (StylesOf(table, guess) is { IsEmpty: false } told ? told : StylesOfAny(table)).FirstOrDefault(),
                NumbersOf(table, guess) ?? NumberStyle.Point,
                await desk.Db.Kinds.OrderBy(k => k.Id).Select(k => (long?)k.Id.Value).FirstOrDefaultAsync(stop)
            )
        );
        desk.Db.Imports.Add(row);
        await desk.Db.SaveChangesAsync(stop);
        return row.Id;
    }

    /// <summary>A kept table with how its columns are matched and what would come of its first rows.</summary>
    public static async Task<ImportDto> OfAsync(Desk desk, FileVault vault, int id, MatchingDto? tried = null)
    {
        var row = await OneAsync(desk, id);
        var table = await TableAsync(vault, row);
        var matching = tried ?? StoreJson.Read<MatchingDto>(row.Matching);
        if (matching.Columns.Length != table.Headings.Count)
            throw new InvalidException(("columns", $"The table has {table.Headings.Count} columns."));
        var twice = matching
            .Columns.Where(column => column != ImportColumn.LeaveOut)
            .GroupBy(column => column)
            .FirstOrDefault(same => same.Count() > 1);
        if (twice is not null)
            throw new InvalidException(("columns", $"Two columns are “{twice.Key}”. Each thing stands in one column."));
        // while it goes on it is asked for again and again
        var hasBeside = row.State != ImportState.Running && await Beside.AnyAsync(desk, id);
        var all = hasBeside || row.State == ImportState.Matching ? await ReadAllAsync(desk, table, matching) : [];
        var read = row.State == ImportState.Matching ? all : [];
        return new(
            row.Id,
            row.Name,
            row.State,
            row.Total,
            row.Read,
            row.Made,
            row.Problem,
            table.Separator == '\t' ? "tab" : table.Separator?.ToString(),
            table.Headings,
            [.. table.Rows.Take(3)],
            matching,
            TableValues.NumbersInDoubt(Cells(table, [.. matching.Columns], ImportColumn.Amount)),
            StylesOf(table, [.. matching.Columns]),
            [.. read.Take(Shown).Select(one => Preview(desk, one))],
            read.Count(one => one.Wrong.Length > 0),
            row.State == ImportState.Matching
                ? [.. read.Where(one => one.Wrong.Length > 0).Take(MostErrors).Select(one => Preview(desk, one))]
                : StoreJson.Read<List<PreviewRowDto>>(row.Errors),
            hasBeside ? await Beside.OfAsync(desk, id, all, matching) : BesideTableDto.None
        );
    }

    /// <summary>The table as it lies in its file.</summary>
    public static async Task<TableText> TableAsync(FileVault vault, ImportRow row)
    {
        await using var stream = vault.Open(row.Hash);
        using var bytes = new MemoryStream();
        await stream.CopyToAsync(bytes);
        return TableFile.Read(bytes.ToArray());
    }

    /// <summary>Every row, read by the matching.</summary>
    public static async Task<IReadOnlyList<ImportRowRead>> ReadAllAsync(
        Desk desk,
        TableText table,
        MatchingDto matching
    )
    {
        var kinds = (await desk.Db.Kinds.AsNoTracking().ToListAsync()).ToDictionary(
            k => k.Name.ToLowerInvariant(),
            k => k.Id
        );
        var at = matching
            .Columns.Select((column, i) => (column, i))
            .Where(pair => pair.column != ImportColumn.LeaveOut)
            .ToDictionary(pair => pair.column, pair => pair.i);
        return [.. table.Rows.Select((cells, i) => ReadRow(desk, i + 2, cells, at, matching, kinds))];
    }

    private static ImportRowRead ReadRow(
        Desk desk,
        int number,
        IReadOnlyList<string> cells,
        Dictionary<ImportColumn, int> at,
        MatchingDto matching,
        Dictionary<string, KindId> kinds
    )
    {
        List<string> wrong = [];
        string? Text(ImportColumn column) => at.TryGetValue(column, out var i) && cells[i].Length > 0 ? cells[i] : null;
        LocalDate? Day(ImportColumn column)
        {
            if (Text(column) is not { } text)
                return null;
            if (TableValues.Date(text, matching.Dates) is { } date)
                return date;
            wrong.Add($"{column}: “{text}” is no date written that way.");
            return null;
        }
        var (name, organisation, mail, phone, profile) = (
            Text(ImportColumn.Name),
            Text(ImportColumn.Organisation),
            Text(ImportColumn.Mail)?.ToLowerInvariant(),
            Text(ImportColumn.Phone),
            Text(ImportColumn.Profile)
        );
        if (name is null && organisation is null)
            wrong.Add("There is no name.");
        if (mail is not null && !MailAddress.IsValid(mail))
            wrong.Add($"Mail: “{mail}” is no mail address.");
        if (mail is null && phone is null && profile is null)
            wrong.Add("There is no way to reach them.");
        var kind = Text(ImportColumn.Kind) is { } kindName
            ? kinds.TryGetValue(kindName.ToLowerInvariant(), out var known)
                ? known
                : (KindId?)null
            : matching.Kind is { } id
                ? new KindId(id)
                : null;
        if (kind is null)
            wrong.Add($"Kind: one of {string.Join(", ", kinds.Keys)}.");
        var inquired = Day(ImportColumn.Inquired);
        if (inquired > desk.Today)
            wrong.Add("Inquired: this day is still to come.");
        Money? amount = null;
        if (Text(ImportColumn.Amount) is { } amountText)
            if (TableValues.Number(amountText, matching.Numbers) is { } major and >= 0 and < 100_000_000)
                amount = Money.Of(major, desk.Currency);
            else
                wrong.Add($"Amount: “{amountText}” is no amount written that way.");
        var standing = StandingOf(Text(ImportColumn.Standing) ?? "");
        if (standing is null)
            wrong.Add(
                $"Standing: “{Text(ImportColumn.Standing)}” is not known. Known are {string.Join(", ", Standings.Select(s => s.Words.First(word => word.Length > 0)))}."
            );
        foreach (
            var (column, most) in new[]
            {
                (ImportColumn.Name, 120),
                (ImportColumn.Organisation, 160),
                (ImportColumn.Title, HeadLimits.Title),
                (ImportColumn.Number, 60),
                (ImportColumn.Source, HeadLimits.Source),
                (ImportColumn.Campaign, HeadLimits.Campaign),
                (ImportColumn.Words, 10_000),
                (ImportColumn.Phone, 60),
            }
        )
            if (Text(column)?.Length > most)
                wrong.Add($"{column}: at most {most} characters.");
        return new(
            number,
            name,
            organisation,
            mail,
            phone,
            profile,
            Text(ImportColumn.Title),
            Text(ImportColumn.Number),
            kind,
            Text(ImportColumn.Source),
            Text(ImportColumn.Campaign),
            inquired,
            Day(ImportColumn.Date),
            standing ?? ImportStanding.Open,
            amount,
            Text(ImportColumn.Words),
            [.. wrong]
        );
    }

    private static ImportStanding? StandingOf(string text)
    {
        var words = text.ToLowerInvariant().Split(' ', StringSplitOptions.TrimEntries);
        return Standings
            .Where(known => words.Any(known.Words.Contains))
            .Select(known => (ImportStanding?)known.Standing)
            .FirstOrDefault();
    }

    /// <summary>One row as it would come in, with what is wrong with it.</summary>
    public static PreviewRowDto Preview(Desk desk, ImportRowRead row)
    {
        string? Day(string name, LocalDate? date) =>
            date is { } day ? $"{name}: {day.ToString("ddd d MMM uuuu", CultureInfo.InvariantCulture)}" : null;
        string?[] read =
        [
            row.Name ?? row.Organisation,
            row.Name is null ? null : row.Organisation,
            row.Mail ?? row.Phone ?? row.Profile,
            row.Title,
            row.Number is { } number ? $"number {number}" : null,
            row.Source is { } source ? $"from {source}" : null,
            row.Campaign is { } campaign ? $"campaign {campaign}" : null,
            Day("inquired", row.Inquired),
            Day("date", row.Date),
            row.Standing.ToString().ToLowerInvariant(),
            row.Amount is { } amount ? MoneyText.Of(amount) : null,
        ];
        return new(row.Row, [.. read.OfType<string>()], row.Wrong);
    }

    /// <summary>The row of one table taken over.</summary>
    public static async Task<ImportRow> OneAsync(Desk desk, int id) =>
        await desk.Db.Imports.SingleOrDefaultAsync(i => i.Id == id) ?? throw new MissingException("import");

    private static ImmutableArray<DateStyle> StylesOf(TableText table, ImmutableArray<ImportColumn> columns) =>
        TableValues.StylesOf(
            Cells(table, columns, ImportColumn.Date).Concat(Cells(table, columns, ImportColumn.Inquired))
        );

    /// <summary>Of the first column that reads as dates, whatever it is called.</summary>
    private static ImmutableArray<DateStyle> StylesOfAny(TableText table) =>
        Enumerable
            .Range(0, table.Headings.Count)
            .Select(at => TableValues.StylesOf(table.Rows.Select(row => row[at])))
            .FirstOrDefault(styles => !styles.IsEmpty, []);

    private static NumberStyle? NumbersOf(TableText table, ImmutableArray<ImportColumn> columns) =>
        TableValues.NumbersOf(Cells(table, columns, ImportColumn.Amount));

    private static IEnumerable<string> Cells(
        TableText table,
        ImmutableArray<ImportColumn> columns,
        ImportColumn column
    ) => columns.IndexOf(column) is >= 0 and var at ? table.Rows.Select(row => row[at]) : [];
}
