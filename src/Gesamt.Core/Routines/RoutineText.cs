using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime.Text;

namespace Gesamt.Core.Routines;

/// <summary>A line of a routine's text that cannot be read; says what is allowed there.</summary>
/// <param name="line">Counted from 1.</param>
public sealed class RoutineTextException(int line, string message) : FormatException($"Line {line}: {message}")
{
    public int Line { get; } = line;
}

/// <summary>A routine as a small text, one line a property; docs/routines-as-text.md says all of it. Writing and reading give the same routine.</summary>
public static partial class RoutineText
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
        ("proposal runs out", Cause.ProposalRunsOut),
        ("contract sent", Cause.ContractSent),
        ("contract signed", Cause.ContractSigned),
        ("booked", Cause.Booked),
        ("invoice due", Cause.InvoiceDue),
        ("payment received", Cause.PaymentReceived),
        ("meeting held", Cause.MeetingHeld),
        ("form returned", Cause.FormReturned),
        ("handed over", Cause.HandedOver),
        ("approved", Cause.Approved),
        ("ended", Cause.Ended),
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
        ("tasks", PagePart.Tasks),
        ("run-sheet", PagePart.RunSheet),
        ("introduction", PagePart.Introduction),
        ("lists", PagePart.Lists),
        ("boards", PagePart.Boards),
        ("notes", PagePart.Notes),
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
}
