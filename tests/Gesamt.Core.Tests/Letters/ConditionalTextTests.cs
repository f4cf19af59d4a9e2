using Gesamt.Core.Letters;

namespace Gesamt.Core.Tests.Letters;

public class ConditionalTextTests
{
    private const string Text = """
        ## Scope
        The wall is painted.

        [if there is scaffold] The scaffold stands
        for the days named.

        [If there is no date] The day is agreed later.

        Always.
        """;

    [Theory]
    [InlineData("scaffold", true, true), InlineData("date", false, false), InlineData("", false, true)]
    public void A_paragraph_stands_only_where_its_condition_holds(string there, bool scaffold, bool noDate)
    {
        var text = ConditionalText.Of(Text, name => name == there);
        Assert.Equal(scaffold, text.Contains("The scaffold stands\nfor the days named.", StringComparison.Ordinal));
        Assert.Equal(noDate, text.Contains("The day is agreed later.", StringComparison.Ordinal));
        Assert.DoesNotContain("[", text);
        Assert.EndsWith("Always.", text);
    }

    [Theory]
    [
        InlineData("[if there is a scaffold] x", "scaffold"),
        InlineData("[if there are any gilded names] x", "gilded names")
    ]
    public void It_is_written_as_one_says_it(string text, string asked)
    {
        var names = new List<string>();
        ConditionalText.Of(
            text,
            name =>
            {
                names.Add(name);
                return true;
            }
        );
        Assert.Equal([asked], names);
    }

    [Fact]
    public void Looked_at_as_a_whole_it_holds_nothing_but_its_blanks() =>
        LetterText.Parse(ConditionalText.Whole(Text + "\n\n[price]"));
}
