using Gesamt.Core.Letters;

namespace Gesamt.Core.Tests.Letters;

public class LetterTests
{
    private static FilledText Fill(string text, params (string, string?)[] values) =>
        LetterText.Parse(text).Fill(values.ToDictionary(v => v.Item1, v => v.Item2));

    [Fact]
    public void Blanks_are_filled_from_the_record() =>
        Assert.Equal("Hello Oona,", Fill("Hello [first name],", ("first name", "Oona")).Text);

    [Fact]
    public void A_stand_by_text_fills_what_is_unknown() =>
        Assert.Equal("Hello there,", Fill("Hello [first name, or: there],").Text);

    [Fact]
    public void A_blank_with_neither_is_a_gap_and_named()
    {
        var filled = Fill("It opens on [date] and [date].", ("date", " "));
        Assert.Equal(["date"], filled.Gaps);
        Assert.True(filled.HasGaps);
    }

    [Theory]
    [InlineData("Hello [frist name]", "frist name"), InlineData("Hello [first name", "never closed")]
    public void A_mistake_in_a_template_is_named(string text, string named) =>
        Assert.Contains(named, Assert.Throws<LetterTextException>(() => LetterText.Parse(text)).Message);

    [Fact]
    public void A_doubled_bracket_is_a_bracket() => Assert.Equal("[sic] Hello", Fill("[[sic] Hello").Text);

    [Fact]
    public void Text_without_brackets_stays_as_it_is() =>
        Gen.String.Where(text => !text.Contains('[')).Sample(text => Assert.Equal(text, Fill(text).Text));

    [Fact]
    public void Every_blank_has_a_value_or_is_unknown_by_name() =>
        Assert.Equal(
            Blanks.Names.Order(),
            Blanks.Of(new RecordWords(null, null, null, "Wall", "Mural", null, "Studio", "Owner")).Keys.Order()
        );
}

public class FilingTests
{
    private sealed class Index : IFilingIndex
    {
        public ProjectId? ByMessageId(string id) => id == "known@studio.example" ? new ProjectId(1) : null;

        public ProjectId? ByReplyAddress(string address) => address == "p2@studio.example" ? new ProjectId(2) : null;

        public IReadOnlyList<ProjectId> OpenProjectsOf(string address) =>
            address switch
            {
                "one@x.example" => [new(3)],
                "planner@x.example" => [new(4), new(5)],
                _ => [],
            };
    }

    private static Filed Of(string reference, string to, string from) =>
        Filing.Of(new IncomingMarks([reference], [to], from), new Index());

    [Theory]
    [InlineData("known@studio.example", "p2@studio.example", "planner@x.example", 1)]
    [InlineData("other@x.example", "p2@studio.example", "planner@x.example", 2)]
    [InlineData("other@x.example", "mail@studio.example", "one@x.example", 3)]
    public void A_letter_is_filed_by_what_it_answers_then_its_address_then_its_sender(
        string reference,
        string to,
        string from,
        long project
    ) => Assert.Equal(new ProjectId(project), Of(reference, to, from).Project);

    [Fact]
    public void A_sender_of_several_projects_is_never_guessed()
    {
        var filed = Of("other@x.example", "mail@studio.example", "planner@x.example");
        Assert.Null(filed.Project);
        Assert.Equal([new ProjectId(4), new ProjectId(5)], filed.Candidates);
    }

    [Fact]
    public void Quoted_text_is_folded_with_its_introduction()
    {
        var (own, quoted) = QuotedText.Split(
            "Yes, Friday suits.\n\nOn Mon 25 Jan Isolde wrote:\n> Does Friday suit?\n> Isolde\n"
        );
        Assert.Equal("Yes, Friday suits.", own);
        Assert.StartsWith("On Mon", quoted);
    }
}
