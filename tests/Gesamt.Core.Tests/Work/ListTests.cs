using System.Collections.Immutable;
using System.Globalization;
using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

/// <summary>Lists with typed columns: what is read of a cell, how it is written again, sums and steps.</summary>
public sealed class ListTests
{
    private static readonly LocalDate Today = Date("2027-01-25");

    private static ListColumn Column(ColumnSort sort, bool step = false) =>
        new(sort.ToString(), sort.ToString(), sort, sort == ColumnSort.OneOf ? ["idea", "Drawn"] : [], true, step);

    private static (string? Kept, string? Mistake) Read(ColumnSort sort, string typed, bool step = false) =>
        ListRule.Read(Column(sort, step), typed, Today, World.Calendar, Currency.Eur);

    [Theory]
    [InlineData(ColumnSort.Text, "  two \n lines ", "two lines")]
    [InlineData(ColumnSort.Number, "1,250.5", "1250.5")]
    [InlineData(ColumnSort.Number, "2,000", "2000")]
    [InlineData(ColumnSort.Amount, "4,20", "4.2 EUR")]
    [InlineData(ColumnSort.Amount, "€ 1,240", "1240 EUR")]
    [InlineData(ColumnSort.Amount, "20 GBP", "20 GBP")]
    [InlineData(ColumnSort.Amount, "£20.50", "20.5 GBP")]
    [InlineData(ColumnSort.Amount, "-38", "-38 EUR")]
    [InlineData(ColumnSort.Date, "12 mar", "2027-03-12")]
    [InlineData(ColumnSort.Date, "2027-02-30", null)]
    [InlineData(ColumnSort.YesNo, "Y", "yes")]
    [InlineData(ColumnSort.YesNo, "perhaps", null)]
    [InlineData(ColumnSort.OneOf, "drawn", "Drawn")]
    [InlineData(ColumnSort.OneOf, "posted", null)]
    [InlineData(ColumnSort.Link, "www.gulls.example/a", "https://www.gulls.example/a")]
    [InlineData(ColumnSort.Link, "javascript:alert(1)", null)]
    [InlineData(ColumnSort.Number, "a dozen", null)]
    [InlineData(ColumnSort.Amount, "1.125 JPY", null)]
    [InlineData(ColumnSort.Amount, "", "")]
    public void A_cell_is_read_as_people_write_it(ColumnSort sort, string typed, string? kept) =>
        Assert.Equal(kept, Read(sort, typed).Kept);

    [Theory]
    [InlineData(ColumnSort.Number, "1.500")]
    [InlineData(ColumnSort.Amount, "1.500")]
    public void What_could_be_two_numbers_is_asked_about(ColumnSort sort, string typed)
    {
        var (kept, mistake) = Read(sort, typed);
        Assert.Null(kept);
        Assert.Contains("1 500 or 1.5", mistake, StringComparison.Ordinal);
    }

    [Fact]
    public void A_step_is_done_or_not_and_a_plain_date_never_is()
    {
        Assert.Equal("2027-02-01 done", Read(ColumnSort.Date, "1 feb done", step: true).Kept);
        Assert.Null(Read(ColumnSort.Date, "1 feb done").Kept);
        Assert.Equal((Date("2027-02-01"), true), ListRule.DateIn("2027-02-01 done"));
    }

    [Fact]
    public void Amounts_are_summed_in_each_currency_by_itself_and_what_is_struck_out_counts_nothing()
    {
        var column = Column(ColumnSort.Amount);
        EntryState Row(string amount, bool struck = false) =>
            EntryState.Fresh with
            {
                Cells = ImmutableDictionary<string, string>.Empty.Add(column.Key, amount),
                Struck = struck,
            };
        var sum = Assert.Single(
            ListRule.Sums(
                [column, Column(ColumnSort.Text)],
                [Row("320 EUR"), Row("38 GBP"), Row("0.5 EUR"), Row("900 EUR", struck: true), EntryState.Fresh]
            )
        );
        Assert.Equal([Money.Of(320.5m, Currency.Eur), Money.Of(38, Currency.Of("GBP"))], sum.Amounts);
    }

    [Fact]
    public void The_steps_of_a_plan_are_called_by_what_their_entry_is()
    {
        ListColumn[] columns = [Column(ColumnSort.Date, step: true), new("w", "What", ColumnSort.Text, [])];
        var cells = ImmutableDictionary<string, string>.Empty.Add("Date", "2027-02-01").Add("w", "Gulls half way");
        var state = EntryState.Fresh with { Cells = cells };
        var step = Assert.Single(ListRule.Steps(columns, [("a", state), ("b", state with { Struck = true })]));
        Assert.Equal(("a", "Gulls half way", Date("2027-02-01"), false), (step.Entry, step.What, step.On, step.Done));
    }

    [Theory]
    [InlineData(ColumnSort.Number, "12", "4")]
    [InlineData(ColumnSort.Amount, "€ 12", "4.50")]
    [InlineData(ColumnSort.Date, "2027-02-01", "3 Mar 2027")]
    [InlineData(ColumnSort.YesNo, "yes", "No")]
    [InlineData(ColumnSort.Link, "https://a.example", "www.b.example")]
    [InlineData(ColumnSort.Text, "12", "a few")]
    [InlineData(ColumnSort.Text, "", "")]
    public void A_new_column_is_of_the_sort_that_holds_all_its_cells(ColumnSort sort, string one, string other) =>
        Assert.Equal(sort, ListRule.SortOf([one, "", other], Today, World.Calendar));

    private static readonly string[] Codes = ["EUR", "GBP", "JPY", "KWD"];

    private static readonly Gen<(ColumnSort Sort, string Kept)> Cells = Gen.OneOf(
        Gen.Decimal[-999_999, 999_999].Select(number => (ColumnSort.Number, Plain(decimal.Round(number, 4)))),
        Gen.Select(Gen.Long[-99_999_999, 99_999_999], Gen.Int[0, 3].Select(at => Codes[at]))
            .Select((minor, code) => (ColumnSort.Amount, $"{Plain(new Money(minor, Currency.Of(code)).Major)} {code}")),
        Gen.Int[0, 20_000]
            .Select(days => (ColumnSort.Date, ListRule.StepText(Date("2020-01-01").PlusDays(days), days % 2 == 0)))
    );

    private static string Plain(decimal number) => number.ToString("0.######", CultureInfo.InvariantCulture);

    [Fact]
    public void What_is_kept_reads_the_same_again_once_it_was_written() =>
        Cells.Sample(cell =>
        {
            var column = Column(cell.Sort, step: true);
            var written = ListRule.Written(column, cell.Kept, Currency.Eur);
            var (again, mistake) = ListRule.Read(column, written, Today, World.Calendar, Currency.Eur);
            if (again != cell.Kept)
                throw new InvalidOperationException($"{cell.Kept} was written {written}, read {again} ({mistake})");
        });

    [Fact]
    public void Sums_are_those_of_a_naive_count() =>
        Gen.Select(Gen.Long[-9_999_999, 9_999_999], Gen.Int[0, 2].Select(at => Codes[at]), Gen.Bool)
            .Array[0, 40]
            .Sample(rows =>
            {
                var column = Column(ColumnSort.Amount);
                var sums = ListRule.Sums(
                    [column],
                    rows.Select(row =>
                        EntryState.Fresh with
                        {
                            Cells = ImmutableDictionary<string, string>.Empty.Add(
                                column.Key,
                                $"{Plain(new Money(row.Item1, Currency.Of(row.Item2)).Major)} {row.Item2}"
                            ),
                            Struck = row.Item3,
                        }
                    )
                )[0];
                return rows.Where(row => !row.Item3)
                    .GroupBy(row => row.Item2)
                    .ToDictionary(same => same.Key, same => same.Sum(row => row.Item1))
                    .OrderBy(one => one.Key, StringComparer.Ordinal)
                    .SequenceEqual(
                        sums.Amounts.ToDictionary(sum => sum.Currency.Code, sum => sum.Minor)
                            .OrderBy(one => one.Key, StringComparer.Ordinal)
                    );
            });
}
