using System.Collections.Immutable;
using Gesamt.Core.Texts;
using NodaTime;

namespace Gesamt.Core.Capture;

/// <summary>What the letters and files of a row of a table are known by.</summary>
/// <param name="Number">The project's own number, as it was counted so far.</param>
/// <param name="Names">Of the client, their organisation and the project.</param>
/// <param name="Since">The day of the inquiry.</param>
public sealed record RowMarks(int Row, string? Number, string? Mail, ImmutableArray<string> Names, LocalDate? Since);

/// <summary>By what a letter or a file was laid to a row, strongest first.</summary>
public enum LaidBy
{
    Number,
    Mail,
    Name,
}

/// <summary>The row that a letter or a file belongs to.</summary>
/// <param name="Row">Null where none fits, and where several do.</param>
/// <param name="InDoubt">That several fit.</param>
public readonly record struct Laid(int? Row, LaidBy? By, bool InDoubt);

/// <summary>Lays letters and files to the rows of a table, by number, mail address or name. It only offers: where several rows fit as well, none is chosen.</summary>
public sealed class Laying
{
    // a shorter number, and a shorter name, stands in too many texts that mean something else
    private const int LeastDigits = 3,
        LeastLetters = 4;

    private readonly Dictionary<int, RowMarks> rows;
    private readonly ILookup<string, int> byMail;
    private readonly ILookup<string, (string[] Words, int Row)> byNumber,
        byName;

    public Laying(IEnumerable<RowMarks> marks)
    {
        rows = marks.ToDictionary(row => row.Row);
        byMail = rows
            .Values.Where(row => row.Mail is not null)
            .ToLookup(row => row.Mail!, row => row.Row, StringComparer.OrdinalIgnoreCase);
        byNumber = rows
            .Values.Where(row => row.Number is not null)
            .Select(row => (Words: NumberOf(row.Number!), row.Row))
            .Where(number => number.Words.Length > 0)
            .ToLookup(number => number.Words[0]);
        byName = rows
            .Values.SelectMany(row => row.Names.Select(name => (Words: Words(name), row.Row)))
            .Where(name => IsName(name.Words))
            // looked up by its longest word, which the fewest texts hold
            .ToLookup(name => name.Words.MaxBy(word => word.Length)!);
    }

    /// <summary>The row of a letter: by the number in its words, else by who wrote or was written to, else by a name. Of several jobs of one client it is the one that had been inquired about last before it.</summary>
    /// <param name="addresses">Whoever wrote it or got it, without the studio.</param>
    /// <param name="words">Its subject, and what these people are called.</param>
    public Laid OfLetter(IEnumerable<string> addresses, IEnumerable<string> words, LocalDate? day)
    {
        var texts = words.Select(Words).ToList();
        var (number, mail) = (
            Union(texts.Select(text => WithNumber(text, begins: false))),
            Union(addresses.Select(address => byMail[address]))
        );
        // a number that happens to stand in a letter of somebody else
        if (number.Count > 0 && mail.Count > 0 && !number.Overlaps(mail))
            return new(null, LaidBy.Number, true);
        return Choose(
            [(number, LaidBy.Number), (mail, LaidBy.Mail), (Union(texts.Select(WithName)), LaidBy.Name)],
            day
        );
    }

    /// <summary>The row of a file: the outermost folder that says one, told more closely by those in it and by its own name.</summary>
    /// <param name="path">Its folders and its name, parted by slashes.</param>
    public Laid OfFile(string path) =>
        Choose(
            [
                .. path.Split('/')
                    .Select(Words)
                    .SelectMany(part =>
                        new[] { (WithNumber(part, begins: true), LaidBy.Number), (WithName(part), LaidBy.Name) }
                    ),
            ],
            null
        );

    /// <summary>The first that fits any row, narrowed by each of the others that fits some of these.</summary>
    private Laid Choose(IReadOnlyList<(HashSet<int> Rows, LaidBy By)> found, LocalDate? day)
    {
        HashSet<int>? fit = null;
        LaidBy? by = null;
        foreach (var (these, reason) in found.Where(one => one.Rows.Count > 0))
            if (fit is null)
                (fit, by) = ([.. these], reason);
            else if (fit.Count > 1 && fit.Overlaps(these))
            {
                fit.IntersectWith(these);
                by = reason < by ? reason : by;
            }
        if (fit is null)
            return new(null, null, false);
        if (fit.Count > 1 && LastBefore(fit, day) is { } last)
            fit = [last];
        return fit.Count == 1 ? new(fit.Single(), by, false) : new(null, by, true);
    }

    /// <summary>The row inquired about last before a day; null where that is none or several.</summary>
    private int? LastBefore(IEnumerable<int> fit, LocalDate? day) =>
        fit.Where(row => rows[row].Since <= day).GroupBy(row => rows[row].Since).MaxBy(same => same.Key) is { } last
        && last.Count() == 1
            ? last.Single()
            : null;

    private HashSet<int> WithNumber(string[] text, bool begins) =>
        [
            .. text.SelectMany(
                (word, at) =>
                    byNumber[Plain(word)]
                        .Concat(byNumber[word])
                        .Where(number =>
                            Stands(number.Words, text, at)
                            && (begins && at == 0 || Length(text, at, number.Words.Length) >= LeastDigits)
                        )
                        .Select(number => number.Row)
            ),
        ];

    /// <summary>As it is written: “018” has three digits, whatever number it is.</summary>
    private static int Length(string[] text, int at, int words) => text.Skip(at).Take(words).Sum(word => word.Length);

    private static bool Stands(string[] number, string[] text, int at) =>
        number.Length == 1 ? Plain(text[at]) == number[0] : text.AsSpan(at).StartsWith(number);

    private HashSet<int> WithName(string[] text) =>
        [
            .. text.SelectMany(word => byName[word])
                .Where(name => Array.TrueForAll(name.Words, word => text.Contains(word)))
                .Select(name => name.Row),
        ];

    private static HashSet<int> Union(IEnumerable<IEnumerable<int>> sets) => [.. sets.SelectMany(set => set)];

    /// <summary>Two words or more, or one that is long.</summary>
    private static bool IsName(string[] words) => words.Length > 1 || words is [{ Length: >= LeastLetters }];

    /// <summary>A number of one part is the same with or without noughts before it.</summary>
    private static string[] NumberOf(string number) => Words(number) is [var only] ? [Plain(only)] : Words(number);

    private static string Plain(string word) =>
        word.All(char.IsAsciiDigit) && word.TrimStart('0') is { Length: > 0 } plain ? plain : word;

    private static string[] Words(string text) =>
        new string([.. BareText.Of(text).Select(c => char.IsLetterOrDigit(c) ? c : ' ')]).Split(
            ' ',
            StringSplitOptions.RemoveEmptyEntries
        );
}
