using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Gesamt.Core.Calendar;
using NodaTime;
using Matching = Gesamt.Core.People.Matching;

namespace Gesamt.Core.Capture;

/// <summary>What a slip becomes.</summary>
public enum SlipSort
{
    Note,
    Call,
    Task,
}

/// <summary>A project a slip can name.</summary>
/// <param name="Names">Its title, its client and their organisation.</param>
public sealed record SlipProject(ProjectId Id, ImmutableArray<string> Names, LocalDate? Date);

/// <summary>Words that were understood, and as what.</summary>
public sealed record Understood(string Words, string As);

/// <summary>A slip as it is read. What was not understood stays in the text.</summary>
/// <param name="Due">Its day.</param>
/// <param name="Minutes">How long it is thought to take.</param>
public sealed record SlipReading(
    SlipSort Sort,
    string Text,
    ProjectId? Project,
    LocalDate? Due,
    int? Minutes,
    bool Important,
    ImmutableArray<string> Labels,
    ImmutableArray<Understood> Read
);

/// <summary>Reads plain words: the project by its name (“for harbour”), “fri”, “12 mar”, “in 3 days”, “2 weeks before” (the project's date), “5 hours”, “important”, “label sign”, “note” or “call” in front.</summary>
public static partial class SlipReader
{
    /// <param name="here">The project whose record is open, for a slip that names none.</param>
    /// <param name="chosen">What the writer said that it becomes; null goes by its words.</param>
    /// <param name="isOfHere">It is written on the record itself: what sounds like another project is only text.</param>
    public static SlipReading Read(
        string text,
        LocalDate today,
        StudioCalendar calendar,
        IReadOnlyList<SlipProject> projects,
        ProjectId? here = null,
        SlipSort? chosen = null,
        bool isOfHere = false
    )
    {
        var rest = new Rest(text.Trim());
        var spoken = rest.Take(InFront()) is { } front ? front.Groups[1].Value.ToLowerInvariant() : null;
        var (project, names) = isOfHere ? (null, []) : ProjectIn(rest, projects);
        var of = project ?? projects.FirstOrDefault(p => p.Id == here);
        List<string> labels = [];
        while (rest.Take(Label(), match => $"label {match.Groups[1].Value.ToLowerInvariant()}") is { } label)
            labels.Add(label.Groups[1].Value.ToLowerInvariant());
        // of what was said or noted every word stays, days too
        var (whole, known) = (rest.Text, rest.Read.Count);
        var due = DueIn(rest, today, calendar, of);
        var minutes = rest.Take(Takes(), match => $"takes {match.Value}") is { } takes
            ? WorkTime.MinutesOf(takes)
            : (int?)null;
        var important = rest.Take(Important(), _ => "important") is not null;
        // a call with a day still to come is something to do; one without has been
        var sort =
            chosen
            ?? spoken switch
            {
                "note" => SlipSort.Note,
                "call" when due is null => SlipSort.Call,
                "task" => SlipSort.Task,
                _ => due is not null || minutes is not null || important ? SlipSort.Task : SlipSort.Note,
            };
        if (sort != SlipSort.Task)
        {
            (due, minutes, important) = (null, null, false);
            rest.GoBack(whole, known);
        }
        var said = spoken == "call" && sort == SlipSort.Task ? $"Call {rest.Text}" : rest.Text;
        List<Understood> read =
        [
            new(
                spoken ?? "",
                sort switch
                {
                    SlipSort.Task => "a task",
                    SlipSort.Call => "a call",
                    _ => "a note",
                }
            ),
            .. names,
            .. rest.Read,
        ];
        return new(sort, said.Trim(), of?.Id, due, minutes, important, [.. labels], [.. read]);
    }

    /// <summary>“for” or “about” and the beginning of words of one project's name, as many words as fit; two projects that fit are none.</summary>
    private static (SlipProject?, IEnumerable<Understood>) ProjectIn(Rest rest, IReadOnlyList<SlipProject> projects)
    {
        (SlipProject Project, string[][] Names)[]? called = null;
        for (var named = Named().Match(rest.Text); named.Success; named = Named().Match(rest.Text, named.Index + 1))
        {
            called ??= [.. projects.Select(project => (project, project.Names.Select(WordsOf).ToArray()))];
            var words = named.Groups[1].Value.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            string?[] beginnings = [.. words.Select(word => word.Length < 3 ? null : Matching.Plain(word))];
            for (var count = words.Length; count > 0; count--)
            {
                var asked = beginnings[..count];
                var fits = called.Where(one => one.Names.Any(name => Fits(asked, name))).ToList();
                if (fits is not [var (only, _)])
                    continue;
                var taken = $"{rest.Text[named.Index..named.Groups[1].Index]}{string.Join(' ', words[..count])}";
                rest.Cut(named.Index, taken.Length);
                return (only, [new(taken, only.Names[0])]);
            }
        }
        return (null, []);
    }

    private static string[] WordsOf(string name) => (Matching.Plain(name) ?? "").Split(' ');

    private static bool Fits(string?[] beginnings, string[] words) =>
        beginnings.All(beginning =>
            beginning is not null && words.Any(word => word.StartsWith(beginning, StringComparison.Ordinal))
        );

    private static LocalDate? DueIn(Rest rest, LocalDate today, StudioCalendar calendar, SlipProject? project)
    {
        if (
            rest.Take(
                DatePhrases.Around(),
                match => project?.Date is { } d ? Words(calendar.Add(d, DatePhrases.SpanOf(match)), today) : null,
                _ => project?.Date is not null
            ) is
            { } around
        )
            return calendar.Add(project!.Date!.Value, DatePhrases.SpanOf(around));
        if (
            rest.Take(DatePhrases.InSoLong(), match => Words(calendar.Add(today, DatePhrases.SpanOf(match)), today)) is
            { } after
        )
            return calendar.Add(today, DatePhrases.SpanOf(after));
        if (
            rest.Take(
                DatePhrases.Iso(),
                match => DatePhrases.IsoOf(match) is { } date ? Words(date, today) : null,
                match => DatePhrases.IsoOf(match) is not null
            ) is
            { } iso
        )
            return DatePhrases.IsoOf(iso);
        if (
            rest.Take(
                DatePhrases.DayMonth(),
                match => DatePhrases.DateOf(match, today) is { } date ? Words(date, today) : null,
                match => DatePhrases.DateOf(match, today) is not null && IsMonth(match, rest.Text)
            ) is
            { } written
        )
            return DatePhrases.DateOf(written, today);
        if (
            rest.Take(
                DatePhrases.Weekday(),
                match => Words(DatePhrases.DayNamed(match.Groups[1].Value, today), today),
                match => IsDay(match, rest.Text)
            ) is
            { } day
        )
            return DatePhrases.DayNamed(day.Groups[1].Value, today);
        return null;
    }

    /// <summary>“sun”, “sat” and “wed” are words, too: “the sun over the door” is no day. They are one after “on” or “by”, or where nothing follows and no article stands before.</summary>
    private static bool IsDay(Match match, string text)
    {
        if (match.Groups[1].Value.ToLowerInvariant() is not ("sun" or "sat" or "wed") || match.Groups["prep"].Success)
            return true;
        var before = text[..match.Index].Split(' ', StringSplitOptions.RemoveEmptyEntries).TakeLast(2);
        return text[(match.Index + match.Length)..].Trim(' ', ',', '.').Length == 0
            && !before.Any(word => word.ToLowerInvariant() is "the" or "a" or "my" or "our" or "of" or "in" or "under");
    }

    /// <summary>“may” and “march” are words, too: “wall 4 may need a coat”. They are a month after “on” or “by”, with a capital, with a year, or where nothing follows.</summary>
    private static bool IsMonth(Match match, string text)
    {
        var name = match.Groups[2].Success ? match.Groups[2].Value : match.Groups[3].Value;
        return name.ToLowerInvariant() is not ("may" or "march")
            || match.Groups["prep"].Success
            || match.Groups[5].Success
            || char.IsUpper(name[0])
            || text[(match.Index + match.Length)..].Trim(' ', ',', '.').Length == 0;
    }

    private static string Words(LocalDate date, LocalDate today) => $"due {DateWords.Short(date, today)}";

    /// <summary>The text that is not understood yet, and what was.</summary>
    private sealed class Rest(string text)
    {
        public string Text { get; private set; } = text;
        public List<Understood> Read { get; } = [];

        public Match? Take(Regex words, Func<Match, string?>? meaning = null, Func<Match, bool>? when = null)
        {
            if (words.Matches(Text).FirstOrDefault(one => when?.Invoke(one) != false) is not { } match)
                return null;
            if (meaning?.Invoke(match) is { } means)
                Read.Add(new(match.Value.Trim(), means));
            Cut(match.Index, match.Length);
            return match;
        }

        /// <summary>Takes back what was cut since the text was that, and so many were understood.</summary>
        public void GoBack(string text, int understood)
        {
            Text = text;
            Read.RemoveRange(understood, Read.Count - understood);
        }

        public void Cut(int index, int length) =>
            Text = Spaces().Replace(Text.Remove(index, length), " ").Trim(' ', ',');
    }

    [GeneratedRegex(@"^(note|call|task)\b[:,]?\s*", RegexOptions.IgnoreCase)]
    private static partial Regex InFront();

    [GeneratedRegex(@"\b(?:for|about)\s+((?:[\p{L}\p{N}&'’.-]+\s*){1,4})", RegexOptions.IgnoreCase)]
    private static partial Regex Named();

    [GeneratedRegex(DatePhrases.WholeNumber + WorkTime.Pattern + @"(?![\w-])", RegexOptions.IgnoreCase)]
    private static partial Regex Takes();

    [GeneratedRegex(@"\bimportant\b", RegexOptions.IgnoreCase)]
    private static partial Regex Important();

    [GeneratedRegex(@"\blabel\s+([\p{L}\p{N}-]{1,40})", RegexOptions.IgnoreCase)]
    private static partial Regex Label();

    [GeneratedRegex(@"\s{2,}")]
    private static partial Regex Spaces();
}
