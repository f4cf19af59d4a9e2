using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Core.Routines;

/// <summary>A line of a routine's text that cannot be read; says what is allowed there.</summary>
/// <param name="line">Counted from 1.</param>
public sealed class RoutineTextException(int line, string message) : FormatException($"Line {line}: {message}")
{
    public int Line { get; } = line;
}

/// <summary>A routine as a small text, one line a property; docs/routines-as-text.md says all of it. Writing and reading give the same routine.</summary>
public static class RoutineText
{
    private static readonly LocalTimePattern Time = LocalTimePattern.CreateWithInvariantCulture("HH:mm"),
        ReadTime = LocalTimePattern.CreateWithInvariantCulture("H:mm");

    private static readonly (string Words, Cause Cause)[] Causes =
    [
        ("it begins", Cause.RunBegun),
        ("the step before", Cause.PreviousStep),
        ("inquiry came", Cause.InquiryCame),
        ("proposal sent", Cause.ProposalSent),
        ("proposal opened", Cause.ProposalOpened),
        ("contract sent", Cause.ContractSent),
        ("contract signed", Cause.ContractSigned),
        ("booked", Cause.Booked),
        ("invoice due", Cause.InvoiceDue),
        ("payment received", Cause.PaymentReceived),
        ("meeting held", Cause.MeetingHeld),
        ("form returned", Cause.FormReturned),
        ("handed over", Cause.HandedOver),
        ("approved", Cause.Approved),
        ("the date", Cause.NamedDate),
    ];

    private static readonly (string Words, SpanUnit Unit)[] Units =
    [
        ("minute", SpanUnit.Minutes),
        ("hour", SpanUnit.Hours),
        ("day", SpanUnit.Days),
        ("business day", SpanUnit.BusinessDays),
        ("week", SpanUnit.Weeks),
        ("month", SpanUnit.Months),
        ("year", SpanUnit.Years),
    ];

    private static readonly (string Words, StopRule Rule)[] Stops =
    [
        .. StopRules.ToChoose.Select(rule => (RoutineWords.Word(rule), rule)),
    ];

    private static readonly (string Words, PagePart Part)[] Parts =
    [
        ("whole", PagePart.Whole),
        ("drafts", PagePart.Drafts),
        ("files", PagePart.Files),
        ("help", PagePart.Help),
    ];

    private static readonly (string Words, StepMode Mode)[] Modes =
    [
        ("asks first", StepMode.AsksFirst),
        ("by itself", StepMode.ByItself),
    ];

    private static readonly (string Words, LateStart Late)[] Late =
    [
        ("skip", LateStart.Skip),
        ("at once", LateStart.AtOnce),
        ("ask", LateStart.Ask),
    ];

    /// <summary>The routine as text; lines end with a line feed.</summary>
    public static string Write(Routine routine)
    {
        var text = new StringBuilder();
        void Line(string name, string value) => text.Append(name).Append(": ").Append(value).Append('\n');
        Line("routine", routine.Name);
        Line("key", routine.Key);
        Line("begins with", Word(Causes, routine.Begins));
        foreach (var variant in routine.Variants)
            Line(
                "variant",
                $"{variant.Name}, {variant.MonthsAhead.ToString(CultureInfo.InvariantCulture)} month{(variant.MonthsAhead == 1 ? "" : "s")} ahead"
            );
        foreach (var step in routine.Steps)
        {
            text.Append('\n');
            Line("step", step.Key);
            Line("when", WhenText(step.When));
            Line("do", ActionText(step.Action));
            Line("mode", Word(Modes, step.Mode));
            if (!step.Stops.IsEmpty)
                Line("unless", string.Join(", ", step.Stops.Select(rule => Word(Stops, rule))));
            foreach (var condition in step.If)
                Line(
                    "only if",
                    condition is Condition.SourceIs source ? $"source is {List(source.Is)}"
                        : condition is Condition.AnswerIs answer ? $"{Quoted(answer.Detail)} is {List(answer.Is)}"
                        : ""
                );
            if (!step.In.IsEmpty)
                Line("only in", List(step.In));
            if (step.LateStart != LateStart.Skip)
                Line("if past", Word(Late, step.LateStart));
            if (step.When.AnyHour)
                Line("any hour", "yes");
            if (step.Favour)
                Line("favour", "yes");
        }
        return text.ToString();
    }

    /// <exception cref="RoutineTextException">A line is not as it must be; its number and what is allowed are said.</exception>
    public static Routine Read(string text)
    {
        string? name = null,
            key = null;
        Cause? begins = null;
        List<Variant> variants = [];
        List<StepLines> steps = [];
        var number = 0;
        foreach (var raw in text.ReplaceLineEndings("\n").Split('\n'))
        {
            number++;
            var line = raw.Trim();
            if (line.Length == 0 || line[0] == '#')
                continue;
            var colon = line.IndexOf(':', StringComparison.Ordinal);
            if (colon < 1)
                throw new RoutineTextException(
                    number,
                    $"“{line}” has no colon; a line reads “when: 3 days after proposal sent”."
                );
            var (property, value) = (line[..colon].Trim().ToLowerInvariant(), line[(colon + 1)..].Trim());
            if (value.Length == 0)
                throw new RoutineTextException(number, $"“{property}” says nothing.");
            if (property == "step")
                steps.Add(new(number, value));
            else if (steps.Count > 0)
                steps[^1].Add(number, property, value);
            else if (property == "routine")
                name = value;
            else if (property == "key")
                key = value;
            else if (property == "begins with")
                begins = Of(Causes, value, number, "begins with");
            else if (property == "variant")
                variants.Add(VariantOf(value, number));
            else
                throw new RoutineTextException(
                    number,
                    $"“{property}” is not known here. Before the first step stand: routine, key, begins with, variant."
                );
        }
        return new(
            key ?? KeyOf(name ?? ""),
            name ?? throw new RoutineTextException(1, "The routine has no name: it begins with “routine: Its name”."),
            begins
                ?? throw new RoutineTextException(
                    1,
                    $"It is not said what it begins with: “begins with: ” and one of {Allowed(Causes)}."
                ),
            [.. steps.Select(step => step.Read())],
            [.. variants]
        );
    }

    /// <summary>The lines of one step, read when all are there.</summary>
    private sealed class StepLines(int number, string key)
    {
        private static readonly string[] Known =
        [
            "when",
            "do",
            "mode",
            "unless",
            "only if",
            "only in",
            "if past",
            "any hour",
            "favour",
        ];
        private readonly List<(int Number, string Name, string Value)> lines = [];

        public void Add(int line, string name, string value)
        {
            if (!Known.Contains(name))
                throw new RoutineTextException(
                    line,
                    $"“{name}” is not known in a step. Known are: step, {string.Join(", ", Known)}."
                );
            if (name != "only if" && lines.Any(other => other.Name == name))
                throw new RoutineTextException(line, $"“{name}” stands twice in the step “{key}”.");
            lines.Add((line, name, value));
        }

        public Step Read()
        {
            var when =
                One("when")
                ?? throw new RoutineTextException(
                    number,
                    $"The step “{key}” does not say when: “when: 3 days after proposal sent”."
                );
            var action =
                One("do")
                ?? throw new RoutineTextException(
                    number,
                    $"The step “{key}” does not say what it does: “do: letter its-key”."
                );
            var timing = TimingOf(when.Value, when.Number) with { AnyHour = Yes("any hour") };
            return new(
                key,
                timing,
                ActionOf(action.Value, action.Number),
                One("mode") is { } mode ? Of(Modes, mode.Value, mode.Number, "mode") : StepMode.AsksFirst,
                One("unless") is { } unless
                    ? [.. Split(unless.Value).Select(word => Of(Stops, word, unless.Number, "unless"))]
                    : [],
                One("if past") is { } past ? Of(Late, past.Value, past.Number, "if past") : LateStart.Skip,
                [.. lines.Where(line => line.Name == "only if").Select(line => ConditionOf(line.Value, line.Number))],
                One("only in") is { } variants ? [.. Split(variants.Value)] : [],
                Yes("favour")
            );
        }

        private (int Number, string Value)? One(string name) =>
            lines
                .Where(line => line.Name == name)
                .Select(line => ((int, string)?)(line.Number, line.Value))
                .FirstOrDefault();

        private bool Yes(string name) =>
            One(name) is { } line
            && (
                line.Value is "yes" or "no"
                    ? line.Value == "yes"
                    : throw new RoutineTextException(line.Number, $"“{name}” is yes or no.")
            );
    }

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
