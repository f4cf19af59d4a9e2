using System.Text;
using System.Xml.Linq;
using CsCheck;
using Gesamt.Core.Amounts;
using Gesamt.Formats.Invoices;
using NodaTime;
using Xunit;

namespace Gesamt.Formats.Tests.Invoices;

public class UblTests
{
    private static readonly EParty Seller =
            new(
                "Marrin Murals & Lettering",
                ["The Sail Loft", "4 Ferry Street", "Dunmarrin", "Co. Cork"],
                "IE",
                "VAT IE 1234567T",
                "isolde@marrin-murals.example",
                "Isolde Marrin",
                "+353 1 555 0100"
            ),
        Buyer =
            new(
                "Bäckerei Hafengasse",
                ["Hafengasse 2"],
                "AT",
                "ATU12345678",
                "oona@hafengasse.example",
                "Oona Pettigrew"
            );

    private static Money Eur(decimal amount) => Money.Of(amount, Currency.Eur);

    private static ELine Line(decimal quantity, decimal price, string tax, decimal less = 0) =>
        TaxText.Read(tax) is { } read
            ? new(
                quantity,
                "day",
                Eur(quantity * price) - Eur(less),
                price,
                Eur(less),
                new(read.Rate, read.Category),
                "Scaffold <6 days>",
                "put up & taken down"
            )
            : throw new ArgumentException("no tax", nameof(tax));

    /// <summary>As the studio puts one together: lines, and a discount on the whole parted by tax.</summary>
    private static EInvoice Of(decimal less, params ELine[] lines)
    {
        var priced = lines
            .Select(line => new PricedLine(line.Quantity, line.Price, line.Less, line.Tax.Rate)
            {
                Category = line.Tax.Category,
            })
            .ToList();
        var totals = Totals.OfLines(priced, Eur(less));
        return new("2027-006", new(2027, 2, 26), new LocalDate(2027, 3, 12), Seller, Buyer, [.. lines], totals)
        {
            Allowances =
            [
                .. Totals
                    .ByRate(priced, Currency.Eur)
                    .Zip(
                        totals.Parts,
                        (before, after) => new EAllowance(before.Kind, before.Net - after.Net, "second project")
                    )
                    .Where(one => one.Amount.Minor != 0),
            ],
            BuyerReference = "Harbour bakery wall",
            ExemptReason = "Artistic performance",
            Payment = new(CreditorReference.Of("2027-006"), "IE29 AIBK 9311 5212 3456 78", Seller.Name, "AIBKIE2D"),
        };
    }

    private static void Holds(EInvoice invoice)
    {
        var document = Ubl.Write(invoice);
        Assert.Empty(En16931.Broken(document));
        Assert.Empty(UblOrder.Misplaced(document));
    }

    [Fact]
    public void Each_category_of_tax_keeps_the_rules()
    {
        foreach (var tax in new[] { "23", "13.5", "0", "exempt", "reverse charge" })
            Holds(Of(0, Line(6, 130, tax)));
        Holds(
            Of(37.77m, Line(6, 130, "23", 12.34m), Line(0.333m, 99.99m, "13.5"), Line(2, 50, "exempt"), Line(1, 5, "0"))
        );
    }

    [Fact]
    public void A_credit_note_names_what_it_takes_back()
    {
        var note = Of(0, Line(1, 200, "23")) with
        {
            Number = "C2027-001",
            Due = null,
            Credits = new("2027-006", new(2027, 2, 26)),
        };
        Holds(note);
        var root = XDocument.Parse(Encoding.UTF8.GetString(Ubl.Write(note))).Root!;
        Assert.Equal("CreditNote", root.Name.LocalName);
        Assert.Equal(
            "2027-006",
            root.Descendants(En16931.Cac + "InvoiceDocumentReference").Single().Element(En16931.Cbc + "ID")!.Value
        );
    }

    [Fact]
    public void Days_orders_and_terms_stand_in_their_places()
    {
        var invoice = Of(0, Line(1, 200, "23")) with
        {
            OrderReference = "PO 4711",
            Performed = new(new(2027, 2, 1), new(2027, 3, 12)),
            Note = "Thank you.\nIt was a pleasure.",
            Terms = "After the due day interest is charged.",
        };
        Holds(invoice);
        Holds(invoice with { Performed = new(new(2027, 2, 1), new(2027, 2, 1)) });
        Assert.Contains(
            "<cbc:ActualDeliveryDate>2027-02-01",
            Text(invoice with { Performed = new(new(2027, 2, 1), new(2027, 2, 1)) })
        );
    }

    [Fact]
    public void Without_mail_addresses_it_is_plain_en_16931()
    {
        var invoice = Of(0, Line(1, 200, "23")) with { Buyer = Buyer with { Mail = "" } };
        Holds(invoice);
        Assert.DoesNotContain("peppol", Text(invoice));
        Assert.Contains("peppol", Text(Of(0, Line(1, 200, "23"))));
    }

    [Fact] // BT-32: a number at the tax office is no VAT identifier
    public void A_tax_number_without_its_country_stands_as_such()
    {
        var invoice = Of(0, Line(1, 200, "exempt")) with { Seller = Seller with { TaxNumber = "12 345/6789" } };
        Holds(invoice);
        Assert.Contains("<cbc:ID>TAX</cbc:ID>", Text(invoice));
    }

    [Fact] // BT-114: promised gross 600.00 at 23 %
    public void A_promised_gross_has_its_rounding()
    {
        var totals = Totals.OfGross(Eur(600), Rate.Percent(23));
        var invoice = Of(0, Line(1, 487.80m, "23")) with { Totals = totals };
        Holds(invoice);
        Assert.Contains("<cbc:PayableRoundingAmount currencyID=\"EUR\">0.01<", Text(invoice));
    }

    [Fact]
    public void Yen_have_no_decimals()
    {
        var yen = Currency.Of("JPY");
        var line = new ELine(3, "", new(3000, yen), 1000, new(0, yen), Tax.At(Rate.Percent(10)), "Drawing");
        var invoice = new EInvoice(
            "2027-001",
            new(2027, 1, 1),
            new LocalDate(2027, 1, 15),
            Seller,
            Buyer,
            [line],
            Totals.OfNet(new(3000, yen), Rate.Percent(10))
        )
        {
            BuyerReference = "x",
        };
        Holds(invoice);
        Assert.Contains("<cbc:PayableAmount currencyID=\"JPY\">3300<", Text(invoice));
    }

    [Fact]
    public void It_says_why_there_is_none()
    {
        var dinar = Currency.Of("KWD");
        Assert.Contains(
            "three",
            Ubl.WhyNot(Of(0) with { Totals = Totals.OfNet(new(1000, dinar), Rate.Percent(5)) })!.Replace("3", "three")
        );
        Assert.Contains("client’s country", Ubl.WhyNot(Of(0) with { Buyer = Buyer with { Country = "" } }));
        Assert.Contains("studio’s country", Ubl.WhyNot(Of(0) with { Seller = Seller with { Country = "XX" } }));
        Assert.Contains("tax number", Ubl.WhyNot(Of(0) with { Seller = Seller with { TaxNumber = " " } }));
        Assert.Contains("why it is exempt", Ubl.WhyNot(Of(0, Line(1, 5, "exempt")) with { ExemptReason = "" }));
        Assert.Contains(
            "client’s VAT number",
            Ubl.WhyNot(Of(0, Line(1, 5, "reverse charge")) with { Buyer = Buyer with { TaxNumber = "12/345" } })
        );
        Assert.Throws<NotSupportedException>(() => Ubl.Write(Of(0) with { Seller = Seller with { TaxNumber = "" } }));
    }

    [Fact] // XML 1.0, 2.2: what it cannot hold is left out, and nothing stops the paper
    public void Whatever_strangers_type_is_well_formed()
    {
        var odd = "a\u0001\uFFFE\uD800b ]]> <x> & “” 🙂";
        Holds(
            Of(0, Line(1, 20, "23") with { Name = odd, Description = odd }) with
            {
                Note = odd,
                Buyer = Buyer with { Name = odd },
            }
        );
    }

    private static readonly string[] Sorts = ["23", "13.5", "9", "0", "exempt", "reverse charge"];

    [Fact]
    public void Any_invoice_keeps_the_rules() =>
        Gen.Select(
                Gen.Select(Gen.Int[1, 5_000], Gen.Int[0, 999_999], Gen.Int[0, 5], Gen.Int[0, 30]).Array[1, 8],
                Gen.Int[0, 40]
            )
            .Sample(
                (lines, share) =>
                {
                    ELine[] made =
                    [
                        .. lines.Select(one =>
                        {
                            var line = Line(one.Item1 / 100m, one.Item2 / 1_000m, Sorts[one.Item3]);
                            var less = line.Net.Times(new Rate(one.Item4 * 10_000));
                            return line with { Less = less, Net = line.Net - less };
                        }),
                    ];
                    var sum = made.Sum(line => line.Net.Major);
                    if (sum > 0)
                        Holds(Of(decimal.Round(sum * share / 100, 2), made));
                },
                iter: 2_000
            );

    private static string Text(EInvoice invoice) => Encoding.UTF8.GetString(Ubl.Write(invoice));

    [Theory]
    [
        InlineData("VAT IE 1234567T", "IE1234567T"),
        InlineData("atu 1234 5678", "ATU12345678"),
        InlineData("EL123456789", "EL123456789"),
        InlineData("12 345/6789", null),
        InlineData("UST 12/345", null),
        InlineData("", null)
    ]
    public void A_vat_identifier_begins_with_its_country(string typed, string? vat) =>
        Assert.Equal(vat, TaxNumbers.Vat(typed));

    [
        Theory,
        InlineData("days", "DAY"),
        InlineData("m²", "MTK"),
        InlineData("hours", "HUR"),
        InlineData("letters", "C62"),
        InlineData("", "C62")
    ]
    public void Units_have_their_codes(string unit, string code) => Assert.Equal(code, UnitCodes.Of(unit));
}
