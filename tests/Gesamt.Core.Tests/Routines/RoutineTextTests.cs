using Gesamt.Core.Projects;
using Gesamt.Core.Routines;

namespace Gesamt.Core.Tests.Routines;

public class RoutineTextTests
{
    private const string Whole = """
        routine: Before the opening
        key: orders
        begins with: booked
        variant: in full, 3 months ahead
        variant: short, 1 month ahead

        step: permits
        when: 10 weeks before the date at 09:00
        do: tell me "Ask for the permit."
        mode: asks first
        only in: in full

        step: survey
        when: 2 business days after the step before
        do: form mural-start with letter start-questions
        mode: by itself
        unless: form returned, resting
        only if: source is a fair, "the web, second page"
        only if: "wall size" is 30
        if past: at once
        any hour: yes
        favour: yes

        """;

    [Fact]
    public void A_written_routine_is_read_as_it_was() =>
        Assert.Equal(Whole.ReplaceLineEndings("\n"), RoutineText.Write(RoutineText.Read(Whole)));

    [Fact]
    public void Any_routine_is_written_and_read_exactly() =>
        Gen.Select(
                Gen.Int[0, 400],
                Any.Of(Enum.GetValues<SpanUnit>()),
                Any.Of(Enum.GetValues<Cause>()),
                Any.Of(Actions),
                Any.Of(Enum.GetValues<StepMode>()),
                Any.Of(Enum.GetValues<LateStart>()),
                Gen.Bool,
                Gen.Bool
            )
            .Sample(
                (count, unit, cause, action, mode, late, before, flag) =>
                {
                    Step step = new(
                        "one",
                        new Timing(
                            cause,
                            new Span(before ? -count : count, count == 0 ? SpanUnit.Minutes : unit),
                            flag ? new LocalTime(9, 5) : null,
                            cause == Cause.NamedDate && flag ? "varnish day" : null,
                            flag
                        ),
                        action,
                        mode,
                        [StopRule.Answered, StopRule.HandedOver],
                        late,
                        flag ? [new Condition.AnswerIs("wall size", ["30", "40, or so"])] : [],
                        [],
                        before
                    );
                    var text = RoutineText.Write(new Routine("r", "A routine", Cause.InquiryCame, [step]));
                    var read = RoutineText.Read(text);
                    Assert.Equal(text, RoutineText.Write(read));
                    Assert.Equal(
                        (step.When, step.Mode, step.LateStart, step.Favour),
                        (read.Steps[0].When, read.Steps[0].Mode, read.Steps[0].LateStart, read.Steps[0].Favour)
                    );
                    Assert.Equal(step.Action, read.Steps[0].Action);
                },
                iter: 2_000
            );

    [Fact]
    public void Words_that_look_like_the_text_itself_come_back_as_they_were() =>
        Gen.Select(Any.Of(Odd), Any.Of(Odd), Any.Of(Enum.GetValues<SpanUnit>()), Gen.Int[0, 2])
            .Sample(
                (name, value, unit, count) =>
                {
                    Step[] steps =
                    [
                        new(
                            "one",
                            new Timing(Cause.NamedDate, new Span(-count, unit), new LocalTime(9, 0), name),
                            new StepAction.TellMe(value),
                            StepMode.AsksFirst,
                            [],
                            If: [new Condition.AnswerIs(name, [value, "30"]), new Condition.SourceIs([value])]
                        ),
                        new(
                            "two",
                            new Timing(Cause.Booked, new Span(count, unit), new LocalTime(18, 30)),
                            new StepAction.MeetingChoice(name, "a"),
                            StepMode.ByItself,
                            []
                        ),
                        new(
                            "three",
                            new Timing(Cause.Booked, Span.None),
                            new StepAction.Label(value, false),
                            StepMode.ByItself,
                            []
                        ),
                    ];
                    var read = RoutineText
                        .Read(RoutineText.Write(new("r", "A routine", Cause.Booked, [.. steps])))
                        .Steps;
                    Assert.Equal(
                        steps.Select(step => (step.When, step.Action)),
                        read.Select(step => (step.When, step.Action))
                    );
                    Assert.Equal([value, "30"], Assert.IsType<Condition.AnswerIs>(read[0].If[0]).Is);
                    Assert.Equal(name, Assert.IsType<Condition.AnswerIs>(read[0].If[0]).Detail);
                    Assert.Equal([value], Assert.IsType<Condition.SourceIs>(read[0].If[1]).Is);
                },
                iter: 2_000
            );

    private static readonly string[] Odd =
    [
        "source",
        "the date",
        "what is it",
        "day after tomorrow",
        "tea with letter a",
        "lunch at 12:00",
        "a \"b\" c",
        "\"",
        "a, b",
        "it begins",
        "with",
        "yes",
        "#1",
        "ein, zwei \"drei\"",
    ];

    [Fact]
    public void A_time_of_day_may_be_written_without_its_nought() =>
        Assert.Equal(
            new LocalTime(9, 0),
            RoutineText
                .Read("routine: A\nbegins with: booked\nstep: one\nwhen: 3 days after booked at 9:00\ndo: invoice")
                .Steps[0]
                .When.At
        );

    private static readonly StepAction[] Actions =
    [
        new StepAction.Letter("a"),
        new StepAction.Form("f", "a"),
        new StepAction.MeetingChoice("First call, with tea", "a"),
        new StepAction.Invoice(),
        new StepAction.Tasks("t"),
        .. Enum.GetValues<PagePart>().Select(part => new StepAction.OpenPart(part)),
        new StepAction.Label("gone cold", true),
        new StepAction.Label("gone cold", false),
        new StepAction.FollowOn("upkeep"),
        new StepAction.EndAsQuiet(),
        new StepAction.Hook("the till"),
        new StepAction.TellMe("ring them: today"),
    ];

    [Theory] // a line that cannot be read is named with what is allowed
    [InlineData("routine: A\nbegins with: breakfast", 2, "inquiry came")]
    [InlineData("routine: A\nbegins with: booked\nstep: one\nwhen: soon\ndo: invoice", 4, "3 days after proposal sent")]
    [InlineData("routine: A\nbegins with: booked\nstep: one\nwhen: with booked\ndo: dance", 5, "letter KEY")]
    [InlineData("routine: A\nbegins with: booked\nstep: one\nwhen: with booked\ndo: form f", 5, "with letter")]
    [InlineData(
        "routine: A\nbegins with: booked\nstep: one\nwhen: with booked\nunless: bored\ndo: invoice",
        5,
        "answered"
    )]
    [InlineData(
        "routine: A\nbegins with: booked\nstep: one\nwhen: with booked\nwhen: with booked\ndo: invoice",
        5,
        "twice"
    )]
    [InlineData("routine: A\nbegins with: booked\nvariant: short", 3, "3 months ahead")]
    [InlineData(
        "routine: A\nbegins with: booked\nstep: one\nwhen: 99999999999 days after booked\ndo: invoice",
        4,
        "9999"
    )]
    [InlineData("routine: A\nbegins with: booked\nstep: one\nwhen: with booked at noon\ndo: invoice", 4, "at 09:00")]
    [InlineData("nothing", 1, "colon")]
    [InlineData("begins with: booked", 1, "no name")]
    public void A_line_that_cannot_be_read_says_what_is_allowed(string text, int line, string allowed)
    {
        var error = Assert.Throws<RoutineTextException>(() => RoutineText.Read(text));
        Assert.Equal(line, error.Line);
        Assert.Contains(allowed, error.Message);
    }

    [Fact]
    public void Sentences_read_as_people_speak()
    {
        var routine = RoutineText.Read(Whole);
        Assert.Equal(
            "10 weeks before the opening day, at 09:00, only in full, tell me “Ask for the permit.”, asks first",
            RoutineWords.Sentence(routine.Steps[0], new Names())
        );
        Assert.Equal(
            "2 business days after the step before, if it came from a fair or the web, second page, if wall size is 30, unless form returned or resting, once all is settled, the form “MURAL-START” with the letter “START-QUESTIONS”, by itself",
            RoutineWords.Sentence(routine.Steps[1], new Names())
        );
    }

    [Theory] // what keeps a routine off is named by step and field
    [InlineData("letter gone", "steps[0].letter")]
    [InlineData("form gone with letter here", "steps[0].action")]
    [InlineData("times for \"gone\" with letter here", "steps[0].action")]
    [InlineData("tasks gone", "steps[0].action")]
    [InlineData("project gone", "steps[0].action")]
    [InlineData("hook \"gone\"", "steps[0].action")]
    public void What_is_missing_is_named(string action, string field) =>
        Assert.Equal(
            [field],
            RoutineRule
                .MistakesIn(
                    RoutineText.Read($"routine: A\nbegins with: booked\nstep: one\nwhen: with booked\ndo: {action}"),
                    new Names()
                )
                .Select(m => m.Path)
        );

    [Theory]
    [InlineData("when: 3 days before proposal sent", "steps[0].count")]
    [InlineData("when: 3 days after the step before", "steps[0].cause")]
    [InlineData("when: with booked\nonly in: nowhere", "steps[0].in")]
    public void What_cannot_be_is_named(string lines, string field) =>
        Assert.Equal(
            [field],
            RoutineRule
                .MistakesIn(
                    RoutineText.Read($"routine: A\nbegins with: booked\nstep: one\n{lines}\ndo: letter here"),
                    new Names()
                )
                .Select(m => m.Path)
        );

    [Theory] // what it tells only the owner has seen so far
    [InlineData("by itself", 1)]
    [InlineData("asks first", 0)]
    public void A_letter_of_progress_always_asks_first(string mode, int mistakes) =>
        Assert.Equal(
            mistakes,
            RoutineRule
                .MistakesIn(
                    RoutineText.Read(
                        $"routine: A\nbegins with: booked\nstep: one\nwhen: 2 weeks after booked\ndo: letter progress\nmode: {mode}"
                    ),
                    new Names()
                )
                .Count(mistake => mistake.Path == "steps[0].mode")
        );

    private sealed class Names : IRoutineNames, IRoutineParts
    {
        public string MainDate => "opening day";

        public string Letter(string key) => key.ToUpperInvariant();

        public string Form(string slug) => slug.ToUpperInvariant();

        public string Kind(string key) => key;

        public string TaskList(string key) => key;

        public string? MistakeInLetter(string key) => key == "gone" ? "There is no such letter." : null;

        public bool HasForm(string slug) => slug != "gone";

        public bool HasMeetingKind(string name) => name != "gone";

        public bool HasTaskList(string key) => key != "gone";

        public bool HasKind(string key) => key != "gone";

        public bool HasHook(string name) => name != "gone";
    }
}
