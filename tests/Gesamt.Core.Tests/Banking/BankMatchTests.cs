using Gesamt.Core.Banking;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Banking;

public class BankMatchTests
{
    private static OpenInvoice Open(long id, string number, decimal owed, string payer, string due = "2027-02-01") =>
        new(new(id), number, CreditorReference.Of(number), Eur(owed), Date(due), [payer, "Harbour Lane Bakery"]);

    private static readonly OpenInvoice[] Invoices =
    [
        Open(1, "2027-006", 400, "Oona Pettigrew"),
        Open(2, "2027-007", 400, "Ada Quill", "2027-01-20"),
        Open(3, "2027-0061", 90, "Cato Ware"),
    ];

    private static BankLine Line(decimal amount, string text = "", string party = "", string reference = "") =>
        new(Date("2027-01-25"), Eur(amount), party, text, reference);

    private static (long, BankReason)[] Offers(BankLine line) =>
        [.. BankMatch.Of(line, Invoices).Select(offer => (offer.Invoice.Invoice.Value, offer.Reason))];

    [Fact]
    public void Reference_and_amount_are_beyond_doubt()
    {
        var line = Line(400, reference: CreditorReference.Written(Invoices[0].Reference));
        Assert.Equal(1, BankMatch.Certain(line, Invoices)!.Invoice.Value);
        Assert.Equal(BankReason.ReferenceAndAmount, Offers(line)[0].Item2);
    }

    [Fact] // never by itself: another amount, a reference two invoices share, money out, a mistyped reference
    public void Anything_less_is_only_offered()
    {
        var reference = Invoices[0].Reference;
        Assert.Null(BankMatch.Certain(Line(399.99m, reference: reference), Invoices));
        Assert.Equal((1, BankReason.Reference), Offers(Line(399.99m, reference: reference))[0]);
        Assert.Null(
            BankMatch.Certain(Line(400, reference: reference), [.. Invoices, Invoices[0] with { Invoice = new(9) }])
        );
        Assert.Empty(Offers(Line(-400, reference: reference)));
        Assert.Null(BankMatch.Certain(Line(400, reference: reference[..^1] + "9"), Invoices));
        Assert.Null(
            BankMatch.Certain(new(Date("2027-01-25"), Money.Of(400, Currency.Of("GBP")), "", "", reference), Invoices)
        );
    }

    [Theory]
    [
        InlineData("Invoice 2027-006, thank you"),
        InlineData("RE 2027/006"),
        InlineData("2027 006"),
        InlineData("rf.. 2027006")
    ]
    public void A_number_is_found_as_people_write_it(string text) =>
        Assert.Equal((1, BankReason.NumberAndAmount), Offers(Line(400, text))[0]);

    [Theory, InlineData("20270061"), InlineData("12027006"), InlineData("2027-0060")]
    public void A_longer_number_is_another(string text) =>
        Assert.DoesNotContain(Offers(Line(400, text)), offer => offer is (1, BankReason.NumberAndAmount));

    [Fact] // amount and number, amount and payer, amount alone, number alone with a part
    public void Offers_stand_in_their_order()
    {
        Assert.Equal(
            [(1, BankReason.PayerAndAmount), (2, BankReason.Amount)],
            Offers(Line(400, party: "PETTIGREW OÓNA MRS"))
        );
        // of equals the one due first
        Assert.Equal([(2, BankReason.Amount), (1, BankReason.Amount)], Offers(Line(400, party: "Somebody Else")));
        Assert.Equal([(2, BankReason.NumberAndAmount), (1, BankReason.Amount)], Offers(Line(400, "for 2027-007")));
        Assert.Equal([(1, BankReason.Number)], Offers(Line(150, "part of 2027-006")));
        Assert.Empty(Offers(Line(17, "coffee", "Cato Ware")));
    }

    [Fact]
    public void The_same_lines_have_the_same_keys_and_equal_ones_are_told_apart()
    {
        BankLine[] lines = [Line(10, "coffee"), Line(10, "coffee"), Line(10, "tea"), Line(10, "coffee")];
        var keys = BankLineKey.Of(new("IE29", [.. lines]));
        Assert.Equal(4, keys.Distinct().Count());
        Assert.Equal(keys, BankLineKey.Of(new("IE29", [.. lines])));
        Assert.Empty(keys.Intersect(BankLineKey.Of(new("AT61", [.. lines]))));
        // the bank's own reference is the same whatever the day and the words become
        var first = BankLineKey.Of(new("IE29", [Line(10, "coffee") with { BankReference = "B1" }]));
        Assert.Equal(first, BankLineKey.Of(new("IE29", [Line(10, "COFFEE SHOP") with { BankReference = "B1" }])));
    }
}
