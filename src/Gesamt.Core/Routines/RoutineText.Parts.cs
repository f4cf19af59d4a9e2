using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>The parts of a line: when, what, on which condition; lists, quotes and words.</summary>
public static partial class RoutineText
{
    /// <summary>“3 days after proposal sent at 09:00”, “with inquiry came”, “2 months before the date "varnish day"”.</summary>
    private static Timing TimingOf(string text, int line)
    {
        LocalTime? at = null;
        if (Outside(text, " at ", last: true) is > 0 and var mark)
        {
            if (ReadTime.Parse(text[(mark + 4)..].Trim()) is not { Success: true, Value: var time })
                throw new RoutineTextException(
                    line,
                    $"“{text[(mark + 4)..].Trim()}” is no time of day. It reads “at 09:00”."
                );
            (at, text) = (time, text[..mark].Trim());
        }
        var (offset, rest) = text.StartsWith("with ", StringComparison.Ordinal)
            ? (Span.None, text[5..].Trim())
            : SpanOf(text, line);
        if (!rest.StartsWith("the date", StringComparison.Ordinal))
            return new(Of(Causes, rest, line, "when"), offset, at);
        var named = rest["the date".Length..].Trim();
        return new(Cause.NamedDate, offset, at, named.Length == 0 ? null : Unquoted(named, line));
    }

    private static (Span, string) SpanOf(string text, int line)
    {
        var (side, sign) = Outside(text, " after ") >= 0 ? (" after ", 1) : (" before ", -1);
        var cut = Outside(text, side);
        var words =
            cut < 0
                ? []
                : text[..cut].Split(' ', 2, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (
            words.Length != 2
            || !int.TryParse(words[0], NumberStyles.None, CultureInfo.InvariantCulture, out var count)
            || count > RoutineRule.MostCount
        )
            throw new RoutineTextException(
                line,
                $"“{text}” is no time. It reads “3 days after proposal sent”, “2 months before the date” or “with inquiry came”, up to {RoutineRule.MostCount} of: {string.Join(", ", Units.Select(unit => $"{unit.Words}s"))}."
            );
        return (new(sign * count, Of(Units, words[1].TrimEnd('s'), line, "when")), text[(cut + side.Length)..].Trim());
    }

    private static StepAction ActionOf(string text, int line)
    {
        string After(string word) =>
            text[word.Length..].Trim() is { Length: > 0 } rest
                ? rest
                : throw new RoutineTextException(line, $"“{text}” does not say which.");
        (string, string) WithLetter(string word) =>
            After(word) is var rest && Outside(rest, " with letter ", last: true) is > 0 and var at
                ? (Unquoted(rest[..at].Trim(), line), rest[(at + " with letter ".Length)..].Trim())
                : throw new RoutineTextException(line, $"“{text}” must end with “with letter its-key”.");
        return text.Split(' ')[0] switch
        {
            "letter" => new StepAction.Letter(After("letter")),
            "form" => WithLetter("form") is var (slug, letter)
                ? new StepAction.Form(slug, letter)
                : throw new InvalidOperationException(),
            "times" => WithLetter("times for") is var (kind, letter)
                ? new StepAction.MeetingChoice(kind, letter)
                : throw new InvalidOperationException(),
            "invoice" when text == "invoice" => new StepAction.Invoice(),
            "tasks" => new StepAction.Tasks(After("tasks")),
            "open" => new StepAction.OpenPart(Of(Parts, After("open"), line, "open")),
            "label" => new StepAction.Label(Unquoted(After("label"), line), true),
            "unlabel" => new StepAction.Label(Unquoted(After("unlabel"), line), false),
            "project" => new StepAction.FollowOn(After("project")),
            "end" when text == "end as gone quiet" => new StepAction.EndAsQuiet(),
            "hook" => new StepAction.Hook(Unquoted(After("hook"), line)),
            "tell" when text.StartsWith("tell me ", StringComparison.Ordinal) => new StepAction.TellMe(
                Unquoted(After("tell me"), line)
            ),
            _ => throw new RoutineTextException(
                line,
                $"“{text}” is nothing a step does. It reads: letter KEY, form KEY with letter KEY, times for \"KIND\" with letter KEY, invoice, tasks KEY, open PART, label \"NAME\", unlabel \"NAME\", project KIND, end as gone quiet, hook \"NAME\", tell me \"WORDS\"."
            ),
        };
    }

    private static string ActionText(StepAction action) =>
        action switch
        {
            StepAction.Letter letter => $"letter {letter.Key}",
            StepAction.Form form => $"form {form.Slug} with letter {form.Key}",
            StepAction.MeetingChoice choice => $"times for {Quoted(choice.Kind)} with letter {choice.Key}",
            StepAction.Invoice => "invoice",
            StepAction.Tasks tasks => $"tasks {tasks.Key}",
            StepAction.OpenPart open => $"open {Word(Parts, open.Part)}",
            StepAction.Label label => $"{(label.On ? "label" : "unlabel")} {Quoted(label.Name)}",
            StepAction.FollowOn follow => $"project {follow.Kind}",
            StepAction.EndAsQuiet => "end as gone quiet",
            StepAction.Hook hook => $"hook {Quoted(hook.Name)}",
            StepAction.TellMe tell => $"tell me {Quoted(tell.Words)}",
            _ => throw new ArgumentOutOfRangeException(nameof(action), action, "No such action."),
        };

    private static string WhenText(Timing when)
    {
        var cause =
            when.Cause == Cause.NamedDate
                ? when.DateName is { } name
                    ? $"the date {Quoted(name)}"
                    : "the date"
                : Word(Causes, when.Cause);
        var at = when.At is { } time ? $" at {Time.Format(time)}" : "";
        if (when.Offset == Span.None)
            return $"with {cause}{at}";
        var size = Math.Abs(when.Offset.Count);
        return $"{size.ToString(CultureInfo.InvariantCulture)} {Word(Units, when.Offset.Unit)}{(size == 1 ? "" : "s")} {(when.Offset.Count < 0 ? "before" : "after")} {cause}{at}";
    }

    private static Condition ConditionOf(string text, int line)
    {
        var cut = Outside(text, " is ");
        if (cut < 1)
            throw new RoutineTextException(
                line,
                $"“{text}” is no condition. It reads “source is fair, phone” or “\"wall size\" is 30”."
            );
        ImmutableArray<string> values = [.. Split(text[(cut + 4)..])];
        return text[..cut].Trim() is var what && what == "source"
            ? new Condition.SourceIs(values)
            : new Condition.AnswerIs(Unquoted(what, line), values);
    }

    private static Variant VariantOf(string text, int line)
    {
        var comma = text.LastIndexOf(',');
        if (
            comma > 0
            && text[(comma + 1)..].Split(' ', StringSplitOptions.RemoveEmptyEntries)
                is [var count, "months" or "month", "ahead"]
            && int.TryParse(count, NumberStyles.None, CultureInfo.InvariantCulture, out var months)
        )
            return new(text[..comma].Trim(), months);
        throw new RoutineTextException(line, $"“{text}” is no variant. It reads “short, 3 months ahead”.");
    }

    private static string List(ImmutableArray<string> values) =>
        string.Join(
            ", ",
            values.Select(value =>
                value.Contains(',', StringComparison.Ordinal)
                || value.Contains('"', StringComparison.Ordinal)
                || value != value.Trim()
                    ? Quoted(value)
                    : value
            )
        );

    /// <summary>Values between commas; one with a comma or a quotation mark of its own stands in quotation marks, and its own are doubled.</summary>
    private static IEnumerable<string> Split(string text)
    {
        var (value, quoted, any) = (new StringBuilder(), false, false);
        string? Taken() =>
            any ? value.ToString()
            : value.ToString().Trim() is { Length: > 0 } plain ? plain
            : null;
        for (var i = 0; i < text.Length; i++)
            if (text[i] == '"' && quoted && i + 1 < text.Length && text[i + 1] == '"')
                value.Append(text[++i]);
            else if (text[i] == '"')
            {
                // what stood before a quotation mark is only the space after a comma
                if (!quoted && value.ToString().Trim().Length == 0)
                    value.Clear();
                (quoted, any) = (!quoted, true);
            }
            else if (text[i] == ',' && !quoted)
            {
                if (Taken() is { } one)
                    yield return one;
                value.Clear();
                any = false;
            }
            else if (!any || quoted || !char.IsWhiteSpace(text[i]))
                value.Append(text[i]);
        if (Taken() is { } last)
            yield return last;
    }

    /// <summary>Where a word stands outside quotation marks, or −1.</summary>
    private static int Outside(string text, string word, bool last = false)
    {
        var (found, quoted) = (-1, false);
        for (var i = 0; i < text.Length; i++)
            if (text[i] == '"')
                quoted = !quoted;
            else if (!quoted && string.CompareOrdinal(text, i, word, 0, word.Length) == 0)
            {
                found = i;
                if (!last)
                    break;
            }
        return found;
    }

    private static string Quoted(string text) => $"\"{text.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";

    private static string Unquoted(string text, int line)
    {
        var plain =
            text.Length >= 2 && text[0] == '"' && text[^1] == '"'
                ? text[1..^1].Replace("\"\"", "\u0000", StringComparison.Ordinal)
                : text;
        return plain.Length == 0 || plain.Contains('"', StringComparison.Ordinal)
            ? throw new RoutineTextException(
                line,
                $"“{text}” is no name: it stands in one pair of quotation marks; a quotation mark in it is doubled."
            )
            : plain.Replace('\0', '"');
    }

    private static string Word<T>((string Words, T Value)[] table, T value)
        where T : struct => table.First(pair => pair.Value.Equals(value)).Words;

    private static T Of<T>((string Words, T Value)[] table, string words, int line, string property)
        where T : struct =>
        table
            .Where(pair => pair.Words == words.Trim().ToLowerInvariant())
            .Select(pair => (T?)pair.Value)
            .FirstOrDefault()
        ?? throw new RoutineTextException(
            line,
            $"“{words}” is not known for “{property}”. Allowed are: {Allowed(table)}."
        );

    private static string Allowed<T>((string Words, T Value)[] table) =>
        string.Join(", ", table.Select(pair => pair.Words));

    /// <summary>A key made of a name: small letters, digits and hyphens.</summary>
    public static string KeyOf(string name)
    {
        var plain = string.Join(
            '-',
            new string([.. name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : ' ')]).Split(
                ' ',
                StringSplitOptions.RemoveEmptyEntries
            )
        );
        return plain.Length == 0 ? "routine" : plain[..Math.Min(plain.Length, 40)].Trim('-');
    }
}
