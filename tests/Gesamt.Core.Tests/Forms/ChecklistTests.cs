using Gesamt.Core.Forms;

namespace Gesamt.Core.Tests.Forms;

public sealed class ChecklistTests
{
    private static readonly FormField[] Fields =
    [
        new("head", FieldSort.Heading, "The wall"),
        new("dry", FieldSort.OneOf, "Is it dry?", Options: ["yes", "no"]) { Makes = new("no", "Measure again") },
        new("why", FieldSort.ShortText, "Why not?", ShownIf: new("dry", ["no"])),
        new("clean", FieldSort.OneOf, "Is it clean?", Options: ["yes", "no", "does not matter"])
        {
            Makes = new("no", "Wash it"),
        },
    ];

    private static Dictionary<string, string> Given(string dry, string clean) =>
        new[] { ("dry", dry), ("clean", clean) }
            .Where(pair => pair.Item2.Length > 0)
            .ToDictionary(pair => pair.Item1, pair => pair.Item2);

    [Theory] // common practice: answered “no”, then changed to “yes”: one task made, then withdrawn
    [InlineData("", "", "no", "", "dry", "")]
    [InlineData("no", "", "yes", "", "", "dry")]
    [InlineData("no", "yes", "no", "no", "clean", "")]
    [InlineData("no", "no", "yes", "does not matter", "", "dry clean")]
    [InlineData("no", "no", "no", "no", "", "")]
    [InlineData("no", "", "", "", "", "dry")]
    public void An_answer_makes_its_task_once_and_another_takes_it_back(
        string dry,
        string clean,
        string nowDry,
        string nowClean,
        string made,
        string withdrawn
    )
    {
        var change = ChecklistRule.Change(Fields, Given(dry, clean), Given(nowDry, nowClean));
        Assert.Equal(made, string.Join(' ', change.Made.Select(field => field.Key)));
        Assert.Equal(withdrawn, string.Join(' ', change.Withdrawn));
    }

    [Theory]
    [InlineData("", "", 0, 2)]
    [InlineData("yes", "", 1, 2)]
    [InlineData("no", "yes", 2, 3)]
    [InlineData("yes", "no", 2, 2)]
    public void What_is_shown_counts_and_headings_do_not(string dry, string clean, int answered, int questions) =>
        Assert.Equal(
            (answered, questions),
            (
                ChecklistRule.Answered(Fields, Given(dry, clean)),
                ChecklistRule.Questions(Fields, Given(dry, clean)).Length
            )
        );

    [Fact]
    public void Only_a_choice_of_a_checklist_makes_a_task()
    {
        Assert.Empty(FormRule.MistakesIn(Fields, inquiry: false, checklist: true));
        Assert.Equal(
            ["fields[1].makes", "fields[3].makes"],
            FormRule.MistakesIn(Fields, inquiry: false).Select(mistake => mistake.Field)
        );
        FormField[] wrong =
        [
            Fields[1] with
            {
                Makes = new("perhaps", "Measure again"),
            },
            Fields[3] with
            {
                Makes = new("no", " "),
            },
            new("text", FieldSort.ShortText, "Anything else?") { Makes = new("no", "Ask") },
        ];
        Assert.Equal(3, FormRule.MistakesIn(wrong, inquiry: false, checklist: true).Length);
    }
}
