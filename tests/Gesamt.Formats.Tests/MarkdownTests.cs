using CsCheck;
using Gesamt.Formats.Texts;
using Xunit;

namespace Gesamt.Formats.Tests;

/// <summary>Markdown as CommonMark 0.31 has it, read into blocks.</summary>
public sealed class MarkdownTests
{
    private static IEnumerable<(BlockSort, string?, string)> Of(string text) =>
        MarkdownText.Blocks(text).Select(block => (block.Sort, block.Number, block.Plain));

    [Fact]
    public void Headings_paragraphs_lists_and_quotes_are_told_apart() =>
        Assert.Equal(
            [
                (BlockSort.Heading, null, "Scope"),
                (BlockSort.Paragraph, null, "A wall,\nand a gable."),
                (BlockSort.Item, null, "primer"),
                (BlockSort.Item, "1.", "first coat"),
                (BlockSort.Item, "2.", "second coat"),
                (BlockSort.Quote, null, "as agreed"),
                (BlockSort.Rule, null, ""),
            ],
            Of("# Scope\nA wall,\nand a gable.\n\n- primer\n\n1. first coat\n2. second coat\n\n> as agreed\n\n---")
        );

    [Fact]
    public void A_contract_counts_its_headings_and_what_stands_under_them() =>
        Assert.Equal(
            [null, "1", "1.1", "1.2", "2", "2.1"],
            MarkdownText.Numbered("Between us.\n\n## Scope\n\nA.\n\nB.\n\n## Price\n\nC.").Select(block => block.Number)
        );

    [Fact]
    public void One_without_headings_counts_its_paragraphs() =>
        Assert.Equal(["1", "2"], MarkdownText.Numbered("A.\n\nB.").Select(block => block.Number));

    [Theory]
    [InlineData("[x](javascript:alert(1))"), InlineData("[x](data:text/html,x)"), InlineData("[x](/p/abc)")]
    public void A_link_leads_to_a_page_or_an_address_or_nowhere(string text) =>
        Assert.All(MarkdownText.Blocks(text)[0].Runs, run => Assert.Null(run.Link));

    [Fact]
    public void Html_stands_as_it_was_typed() =>
        Assert.Equal(
            "<img src=x onerror=alert(1)>",
            Assert.Single(MarkdownText.Blocks("<img src=x onerror=alert(1)>")).Plain
        );

    [Fact]
    public void Whatever_a_stranger_is_called_stands_there_as_typed() =>
        Gen.String[Gen.Char[' ', '~'], 1, 40]
            .Select(name => name.Trim())
            .Where(name => name.Length > 0)
            .Sample(name =>
            {
                var block = Assert.Single(MarkdownText.Blocks($"Between us and {MarkdownText.Escaped(name)}"));
                Assert.Equal($"Between us and {name}", block.Plain);
                Assert.All(block.Runs, run => Assert.Equal((false, false, null), (run.Strong, run.Slanted, run.Link)));
            });
}
