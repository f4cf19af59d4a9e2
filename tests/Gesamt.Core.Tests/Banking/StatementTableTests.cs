using System.Collections.Immutable;
using Gesamt.Core.Banking;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Banking;

public class StatementTableTests
{
    private static readonly ImmutableArray<StatementColumn> Plain =
    [
        StatementColumn.Day,
        StatementColumn.Text,
        StatementColumn.Amount,
    ];

    private static BankStatement Read(ImmutableArray<StatementColumn> columns, params string[][] rows) =>
        StatementTable.Read("IE29", rows, columns, Currency.Eur);

    [Fact]
    public void Columns_are_guessed_by_what_banks_call_them()
    {
        Assert.Equal(
            [
                StatementColumn.Day,
                StatementColumn.Text,
                StatementColumn.Out,
                StatementColumn.In,
                StatementColumn.LeaveOut,
            ],
            StatementTable.Guess(["Posted", "Description", "Debit", "Credit", "Balance"])
        );
        Assert.Equal(
            [
                StatementColumn.Day,
                StatementColumn.Party,
                StatementColumn.Text,
                StatementColumn.Amount,
                StatementColumn.Currency,
            ],
            StatementTable.Guess([
                "Buchungsdatum",
                "Auftraggeber/Empfänger",
                "Verwendungszweck",
                "Betrag (EUR)",
                "Währung",
            ])
        );
    }

    [Fact]
    public void Days_and_amounts_are_read_as_the_whole_column_says()
    {
        var lines = Read(
            Plain,
            ["25.01.2027", "a", "1.234,50"],
            ["03.02.2027", "b", "-20,00"],
            ["", "balance", "9,00"]
        ).Lines;
        Assert.Equal(
            [(Date("2027-01-25"), Eur(1234.5m)), (Date("2027-02-03"), Eur(-20))],
            lines.Select(l => (l.On, l.Amount))
        );
    }

    [Fact] // with or without its sign, money out is out
    public void Money_in_and_money_out_in_columns_of_their_own()
    {
        ImmutableArray<StatementColumn> columns = [StatementColumn.Day, StatementColumn.In, StatementColumn.Out];
        var lines = Read(
            columns,
            ["2027-01-25", "100.00", ""],
            ["2027-01-26", "", "20.00"],
            ["2027-01-27", "", "-5.00"]
        ).Lines;
        Assert.Equal([Eur(100), Eur(-20), Eur(-5)], lines.Select(line => line.Amount));
    }

    [Theory, InlineData("RF18 5390 0754 7034 thank you"), InlineData("SEPA rf18539007547034")]
    public void A_structured_reference_is_found_among_the_words(string text) =>
        Assert.True(CreditorReference.IsValid(Read(Plain, ["2027-01-25", text, "1.00"]).Lines[0].Reference));

    [Fact]
    public void What_cannot_be_read_is_said()
    {
        Assert.Equal("columns", Assert.Throws<StatementException>(() => Read([StatementColumn.Text])).Field);
        Assert.Contains("amount", Assert.Throws<StatementException>(() => Read([StatementColumn.Day])).Message);
        Assert.Contains("no day", Assert.Throws<StatementException>(() => Read(Plain, ["soon", "a", "1"])).Message);
        Assert.Contains(
            "no amount",
            Assert.Throws<StatementException>(() => Read(Plain, ["2027-01-25", "a", "much"])).Message
        );
        Assert.Contains(
            "account",
            Assert.Throws<StatementException>(() => Read(Plain, ["2027-01-25", "a", "9999999999999999"])).Message
        );
    }
}
