using Gesamt.Core.Capture;

namespace Gesamt.Core.Tests.Capture;

public sealed class LayingTests
{
    private static RowMarks Row(int row, string? number, string? mail, string? since = null, params string[] names) =>
        new(
            row,
            number,
            mail,
            [.. names],
            since is null ? null : NodaTime.Text.LocalDatePattern.Iso.Parse(since).Value
        );

    private static readonly Laying Table = new([
        Row(2, "0017", "mona@table.example", "2026-02-03", "Mona Delarue", "Harbour mural"),
        Row(3, "2026-041", "til@table.example", "2026-03-25", "Til Crane", "Lantern House"),
        Row(4, "018", "mona@table.example", "2026-09-01", "Mona Delarue", "Courtyard wall"),
        Row(5, "8", null, null, "Bea Moss"),
        Row(6, null, null, null, "Øyvind Ås", "Tidewater"),
    ]);

    private static Laid Letter(string mail, string subject, string? day = null) =>
        Table.OfLetter([mail], [subject], day is null ? null : NodaTime.Text.LocalDatePattern.Iso.Parse(day).Value);

    [Theory]
    [InlineData("someone@else.example", "Re: offer 2026-041", 3, LaidBy.Number)]
    [InlineData("TIL@table.example", "Hello", 3, LaidBy.Mail)]
    [InlineData("planner@else.example", "For Crane, Til: the wall", 3, LaidBy.Name)]
    [InlineData("planner@else.example", "Lights at lantern house", 3, LaidBy.Name)]
    [InlineData("planner@else.example", "tidewater, second draft", 6, LaidBy.Name)]
    public void A_letter_goes_by_number_then_address_then_name(string mail, string subject, int row, LaidBy by) =>
        Assert.Equal(new Laid(row, by, false), Letter(mail, subject));

    [Theory]
    [InlineData("2026-02-10", "Hello", 2)]
    [InlineData("2026-09-01", "Hello", 4)]
    [InlineData("2026-12-01", "About the harbour mural", 2)]
    [InlineData("2026-12-01", "018: when?", 4)]
    public void Of_several_jobs_of_one_client_it_is_the_named_one_else_the_one_begun_last(
        string day,
        string subject,
        int row
    ) => Assert.Equal(row, Letter("mona@table.example", subject, day).Row);

    [Fact]
    public void Where_several_fit_as_well_or_reasons_disagree_none_is_chosen()
    {
        Assert.Equal(new Laid(null, LaidBy.Mail, true), Letter("mona@table.example", "Hello", "2026-01-01"));
        Assert.Equal(new Laid(null, LaidBy.Number, true), Letter("til@table.example", "room 018"));
        Assert.Equal(new Laid(null, null, false), Letter("nobody@else.example", "8 lamps, 17 chairs"));
    }

    [Theory]
    [InlineData("Delarue Mona/Courtyard wall/plan.pdf", 4, LaidBy.Name)]
    [InlineData("Delarue Mona/17 walls.pdf", 2, LaidBy.Number)]
    [InlineData("Jobs/0017 something/for Til Crane.pdf", 2, LaidBy.Number)]
    [InlineData("8/plan.pdf", 5, LaidBy.Number)]
    [InlineData("8_moss.pdf", 5, LaidBy.Number)]
    [InlineData("old/2026-041-final.pdf", 3, LaidBy.Number)]
    [InlineData("oyvind as/x.png", 6, LaidBy.Name)]
    public void A_file_goes_by_its_outermost_folder_told_more_closely_inside(string path, int row, LaidBy by) =>
        Assert.Equal(new Laid(row, by, false), Table.OfFile(path));

    [Theory]
    [InlineData("Delarue Mona/plan.pdf", true)]
    [InlineData("plan 8.pdf", false)]
    [InlineData("2026/12/plan.pdf", false)]
    [InlineData("Bea/plan.pdf", false)]
    [InlineData("", false)]
    public void A_file_that_says_too_little_goes_nowhere(string path, bool doubt) =>
        Assert.Equal((null, doubt), (Table.OfFile(path).Row, Table.OfFile(path).InDoubt));

    [Fact]
    public void Whatever_a_stranger_writes_the_row_is_one_of_the_table() =>
        Gen.Select(Gen.String, Gen.String, Gen.String)
            .Sample(
                (name, number, text) =>
                {
                    var laying = new Laying([Row(2, number, null, null, name), Row(3, text, name, null, number)]);
                    foreach (var laid in new[] { laying.OfFile(text), laying.OfLetter([name], [text, number], null) })
                        Assert.True(laid.Row is null or 2 or 3 && !(laid.Row is not null && laid.InDoubt));
                }
            );
}
