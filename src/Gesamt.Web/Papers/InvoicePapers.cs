using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Formats.Invoices;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Papers;

/// <summary>An invoice from its own copy: as it is printed, and as data by EN 16931.</summary>
public static class InvoicePapers
{
    /// <summary>Under which name the data lies in the PDF.</summary>
    public const string DataName = "invoice.xml";

    private const string DataWords = "An invoice as EN 16931 data is attached to this file.";

    /// <summary>The PDF with its data in it, and the data by itself where there is some.</summary>
    public static (byte[] Pdf, byte[]? Data) Draw(Desk desk, InvoiceRow row)
    {
        var snapshot = StoreJson.Read<InvoiceSnapshot>(row.Snapshot);
        var data =
            Of(row.Number, row.IssuedOn, row.Due, snapshot) is { } invoice && Ubl.WhyNot(invoice) is null
                ? Ubl.Write(invoice)
                : null;
        var at = desk.Calendar.StartOf(row.IssuedOn);
        var paper = Paper(desk, row.Number, row.IssuedOn, row.Due, snapshot, row.Sort == InvoiceSort.CreditNote);
        var drawn = Formats.Pdf.Papers.Draw(
            paper with
            {
                Foot = data is null ? paper.Foot : DataWords,
            },
            at,
            Print.Logo(desk, paper.Head)
        );
        return data is null
            ? (drawn, null)
            : (PdfAttachment.Attach(drawn, DataName, data, "text/xml", "EN 16931, UBL 2.1", at), data);
    }

    /// <summary>How it will look, before it has a number.</summary>
    public static byte[] Preview(Desk desk, InvoiceSnapshot snapshot, LocalDate due)
    {
        var paper = Paper(desk, "", desk.Today, due, snapshot, isCredit: false) with { IsPreview = true, Code = null };
        return Formats.Pdf.Papers.Draw(paper, desk.Now, Print.Logo(desk, paper.Head));
    }

    /// <summary>Why an invoice has no data; null where it has.</summary>
    public static string? WhyNoData(InvoiceRow row) =>
        WhyNoData(row.Number, row.IssuedOn, row.Due, StoreJson.Read<InvoiceSnapshot>(row.Snapshot));

    /// <inheritdoc cref="WhyNoData(InvoiceRow)"/>
    public static string? WhyNoData(string number, LocalDate issued, LocalDate due, InvoiceSnapshot snapshot) =>
        Of(number, issued, due, snapshot) is { } invoice
            ? Ubl.WhyNot(invoice)
            : "It was issued before invoices had their data beside them.";

    private static EInvoice? Of(string number, LocalDate issued, LocalDate due, InvoiceSnapshot snapshot)
    {
        if (snapshot.More is not { } more)
            return null;
        var (lines, allowances) = Lines(snapshot, more);
        return new(number, issued, more.Credits is null ? due : null, more.Seller, more.Buyer, lines, snapshot.Totals)
        {
            Credits = more.Credits,
            OrderReference = more.PurchaseReference,
            BuyerReference = snapshot.Project,
            Performed = more.Performed,
            Note = string.Join('\n', more.Notes),
            Terms = more.Late,
            Allowances = allowances,
            ExemptReason = more.ExemptReason,
            Payment =
                snapshot.Iban is { Length: > 0 } iban && more.Reference.Length > 0
                    ? new(more.Reference, iban, more.Seller.Name, snapshot.Head?.Bic ?? "")
                    : null,
        };
    }

    /// <summary>Lines without tax, and what a discount on the whole takes off each tax: together they are the nets of the sums.</summary>
    private static (ImmutableArray<ELine>, ImmutableArray<EAllowance>) Lines(InvoiceSnapshot snapshot, InvoiceMore more)
    {
        var currency = snapshot.Totals.RoundingAmount.Currency;
        var none = Money.Zero(currency);
        List<ELine> lines = [];
        List<EAllowance> allowances = [];
        foreach (var part in snapshot.Totals.Parts)
        {
            var same = snapshot.Lines.Where(line => line.Counted?.Tax == part.Kind).ToList();
            var priced = same.Select(line => line.Counted!.Priced(currency)).ToList();
            var sum = priced.Select(line => line.Net).Sum(currency);
            if (!more.Gross)
            {
                lines.AddRange(
                    same.Zip(
                        priced,
                        (line, price) =>
                            new ELine(
                                price.Quantity,
                                line.Counted!.Unit,
                                price.Net,
                                price.UnitPrice,
                                price.Discount,
                                part.Kind,
                                line.Title,
                                line.Detail
                            )
                    )
                );
                if (sum != part.Net)
                    allowances.Add(new(part.Kind, sum - part.Net, more.Less?.Words ?? "Discount"));
                continue;
            }
            // what was priced with the tax has its net from the whole, parted over the lines, so that no cent is lost
            var nets = sum.Minor == 0 ? [] : part.Net.Split([.. priced.Select(line => line.Net.Minor)]);
            lines.AddRange(
                same.Zip(
                    nets,
                    (line, net) =>
                    {
                        var quantity = line.Counted!.Quantity;
                        var each = decimal.Round(net.Major / quantity, 8);
                        var exact = Money.Of(each * quantity, currency) == net;
                        return new ELine(
                            exact ? quantity : 1,
                            exact ? line.Counted.Unit : "",
                            net,
                            exact ? each : net.Major,
                            none,
                            part.Kind,
                            line.Title,
                            line.Detail
                        );
                    }
                )
            );
        }
        return ([.. lines], [.. allowances]);
    }

    private static InvoicePaper Paper(
        Desk desk,
        string number,
        LocalDate issued,
        LocalDate due,
        InvoiceSnapshot snapshot,
        bool isCredit
    )
    {
        var head = snapshot.Head ?? Print.Letterhead(desk);
        var (more, iban) = (snapshot.More, snapshot.Iban ?? desk.Studio.Iban);
        var sums = Print.Sums(snapshot.Totals);
        return new(
            head,
            number,
            issued,
            due,
            snapshot.Addressee,
            snapshot.Project,
            snapshot.Share,
            more?.Whole?.Lines ?? [.. snapshot.Lines.Select(Line)],
            more is null ? sums : WithNets(sums, snapshot.Totals) with { Less = more.Less, Gross = more.Gross },
            iban,
            isCredit
        )
        {
            Facts = Facts(more),
            Whole = more?.Whole?.Sums,
            Notes = Notes(snapshot, more),
            Ways = isCredit ? [] : Ways(snapshot, more, iban, number, due),
            Code =
                isCredit || more is null
                    ? null
                    : EpcCode.Text(head.Studio, iban, head.Bic, snapshot.Totals.Payable, more.Reference),
        };
    }

    private static PaperSums WithNets(PaperSums sums, Totals totals) =>
        sums with
        {
            Taxes = [.. sums.Taxes.Zip(totals.Parts, (tax, part) => tax with { Net = part.Net })],
        };

    private static PaperLine Line(InvoiceLine line) =>
        line.Counted is { } counted
            ? new(
                line.Title,
                line.Detail,
                line.Net,
                NumberText.Number(counted.Quantity),
                line.UnitPrice,
                counted.Tax.Category.Words(counted.Tax.Rate),
                counted.Quantity == 1 ? UnitWords.One(counted.Unit) : UnitWords.Several(counted.Unit)
            )
            : new(line.Title, line.Detail, line.Net, line.Quantity, line.UnitPrice);

    private static ImmutableArray<PaperFact> Facts(InvoiceMore? more)
    {
        if (more is null)
            return [];
        List<PaperFact> facts = [];
        if (more.Performed is { } performed)
            facts.Insert(0, new("performed", DateWords.Between(performed.From, performed.Until)));
        if (more.Contract.Length > 0)
            facts.Add(new("contract", more.Contract));
        if (more.PurchaseReference.Length > 0)
            facts.Add(new("your reference", more.PurchaseReference));
        if (more.Credits is { } credits)
            facts.Add(new("takes back", $"invoice {credits.Number}"));
        return [.. facts];
    }

    /// <summary>What the law asks to be said of the tax goes before the owner's own words.</summary>
    private static ImmutableArray<string> Notes(InvoiceSnapshot snapshot, InvoiceMore? more)
    {
        if (more is null)
            return [];
        bool Has(TaxCategory category) => snapshot.Totals.Parts.Any(part => part.Category == category);
        return
        [
            .. Has(TaxCategory.ReverseCharge)
                ? new[] { $"{TaxCategories.ReverseChargeNote}: the tax is owed by the recipient." }
                : [],
            .. Has(TaxCategory.Exempt) ? new[] { $"Exempt from VAT: {more.ExemptReason}" } : [],
            .. more.Notes,
        ];
    }

    private static ImmutableArray<PaperWay> Ways(
        InvoiceSnapshot snapshot,
        InvoiceMore? more,
        string iban,
        string number,
        LocalDate due
    )
    {
        List<PaperWay> ways = [];
        var coded =
            more is not null
            && EpcCode.Text(more.Seller.Name, iban, snapshot.Head?.Bic ?? "", snapshot.Totals.Payable, more.Reference)
                is not null;
        if (iban.Length > 0)
            ways.Add(
                new(
                    $"By transfer, until {DateWords.Long(due)}",
                    [
                        $"IBAN {Iban.Written(iban)}",
                        number.Length == 0 ? "Reference: given as it is issued"
                        : more is null || more.Reference.Length == 0 ? $"Reference {number}"
                        : $"Reference {CreditorReference.Written(more.Reference)}",
                    ],
                    coded && number.Length > 0 ? "The code holds both for your bank’s app." : ""
                )
            );
        var others = new[]
        {
            more is { ByCard: true } ? "by card or from your account, on your page: the link is in the letter" : "",
            more?.PayAt ?? "",
        }
            .Where(words => words.Length > 0)
            .ToImmutableArray();
        if (others.Length > 0 || more?.Late.Length > 0)
            ways.Add(new(others.Length > 0 ? "Or" : "When it is late", others, more?.Late ?? ""));
        return [.. ways];
    }
}
