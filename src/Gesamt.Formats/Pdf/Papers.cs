using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Formats.Texts;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>A line of a paper, all of it as it is printed.</summary>
/// <param name="Quantity">“31 m²”, or the number alone with <paramref name="Unit"/> beside it; null where the line is one sum.</param>
/// <param name="UnitPrice">“140.00”.</param>
/// <param name="Rate">Of its tax, “23 %”.</param>
public sealed record PaperLine(
    string Title,
    string Detail,
    Money Net,
    string? Quantity = null,
    string? UnitPrice = null,
    string? Rate = null,
    string? Unit = null
);

/// <summary>Tax of one rate, named by it.</summary>
/// <param name="Net">What it is taken of; null on papers that do not say.</param>
public sealed record PaperTax(string Rate, Money Tax, Money? Net = null);

/// <summary>A discount on the whole, and why.</summary>
public sealed record PaperLess(string Words, Money Amount);

/// <summary>The sums of a paper.</summary>
/// <param name="Less">Taken off before <paramref name="Net"/>; null for none.</param>
/// <param name="Gross">Whether the lines include the tax.</param>
public sealed record PaperSums(
    Money Net,
    ImmutableArray<PaperTax> Taxes,
    Money Rounding,
    Money Total,
    PaperLess? Less = null,
    bool Gross = false
);

/// <summary>An instalment as it is printed.</summary>
public sealed record PaperPayment(string Words, Money Amount);

/// <summary>What an invoice says.</summary>
/// <param name="Addressee">Name, organisation and address, a line each.</param>
public sealed record InvoicePaper(
    Letterhead Head,
    string Number,
    LocalDate IssuedOn,
    LocalDate Due,
    ImmutableArray<string> Addressee,
    string Project,
    string Share,
    ImmutableArray<PaperLine> Lines,
    PaperSums Sums,
    string Iban,
    bool IsCredit = false
)
{
    /// <summary>What else stands beside its dates: “performed”, “contract”, “your reference”.</summary>
    public ImmutableArray<PaperFact> Facts { get; init; } = [];

    /// <summary>The agreed price it is a part of; null for one that stands by itself.</summary>
    public PaperWhole? Whole { get; init; }

    /// <summary>Below the sums, a paragraph each.</summary>
    public ImmutableArray<string> Notes { get; init; } = [];

    /// <summary>How it is paid, along the foot; none for a credit note.</summary>
    public ImmutableArray<PaperWay> Ways { get; init; } = [];

    /// <summary>What the QR code beside the ways holds; null for none.</summary>
    public string? Code { get; init; }

    /// <summary>Whether it is looked at before it is issued, and says so.</summary>
    public bool IsPreview { get; init; }

    /// <summary>Said at the foot, such as that the same invoice lies in the file as data; the studio's particulars where it is empty.</summary>
    public string Foot { get; init; } = "";
}

/// <summary>A word beside the dates of an invoice.</summary>
public sealed record PaperFact(string Name, string Value);

/// <summary>The agreed price an instalment is a part of, with what was billed of it before and what will be: together they are this part.</summary>
/// <param name="Words">“Agreed, net”.</param>
/// <param name="Less">Each with what it takes off, “of it billed before, 40 %, 2027-002”.</param>
/// <param name="Part">“This part, net”.</param>
public sealed record PaperWhole(string Words, Money Amount, ImmutableArray<PaperLess> Less, string Part);

/// <summary>A way to pay: a heading, its lines, and small words below.</summary>
public sealed record PaperWay(string Heading, ImmutableArray<string> Lines, string Small = "");

/// <summary>What a contract says: its text, what was chosen, how it is paid, and who signed what.</summary>
public sealed record ContractPaper(
    Letterhead Head,
    string Title,
    string Project,
    ImmutableArray<string> Parties,
    ImmutableArray<TextBlock> Text,
    ImmutableArray<PaperLine> Lines,
    PaperSums? Sums,
    ImmutableArray<PaperPayment> Payments,
    string Hash,
    ImmutableArray<SignaturePaper> Signatures,
    OwnPages? Own = null
);

/// <summary>The owner's own file as the contract: its pages go before those that are drawn.</summary>
/// <param name="Hash">SHA-256 of it as it was put to the client.</param>
public sealed record OwnPages(string Name, string Hash);

/// <summary>A signature as printed on the last page.</summary>
/// <param name="Proof">How it is known to be them, besides the link; empty for the link alone.</param>
public sealed record SignaturePaper(
    string Name,
    string Side,
    string Consent,
    string At,
    string Address,
    string Hash,
    string Proof = ""
);

/// <summary>Draws the studio's papers. The same paper gives the same bytes.</summary>
public static class Papers
{
    // sums stand in the right half of the page
    private const float SumsLeft = 311;

    /// <param name="logo">The picture its letterhead names.</param>
    public static byte[] Draw(InvoicePaper paper, Instant at, byte[]? logo = null)
    {
        var sort = paper.IsCredit ? "Credit note" : "Invoice";
        var title = paper.IsPreview ? $"{sort}, not issued yet" : $"{sort} {paper.Number}";
        return PdfSheet.Draw(
            paper.Head,
            title,
            at,
            logo,
            sheet =>
            {
                sheet.Paragraph(string.Join('\n', paper.Addressee));
                sheet.Gap(20);
                sheet.Title(title);
                sheet.Paragraph(
                    paper.Share.Length > 0 ? $"{paper.Project}, {paper.Share}" : paper.Project,
                    quiet: true
                );
                sheet.Gap(18);
                sheet.Facts(
                    4,
                    [
                        ("date", paper.IsPreview ? "on its issue" : DateWords.Long(paper.IssuedOn)),
                        .. paper.IsCredit ? [] : new[] { ("due", DateWords.Long(paper.Due)) },
                        .. paper.Facts.Select(fact => (fact.Name, fact.Value)),
                    ]
                );
                Lines(
                    sheet,
                    paper.Lines,
                    paper.Sums,
                    SumsHeight(paper.Sums) + 17 * (paper.Whole?.Less.Length + 2 ?? 0)
                );
                Whole(sheet, paper.Whole, paper.Sums);
                Sums(sheet, paper.Sums, paper.IsCredit ? "Credited" : "To pay", paper.Whole?.Part ?? "Net");
                sheet.Gap(16);
                foreach (var note in paper.Notes)
                    sheet.Paragraph(note);
                if (!paper.Ways.IsEmpty)
                    sheet.Ways(paper.Code, paper.Ways);
            },
            paper.Foot
        );
    }

    /// <summary>The agreed price, and what other invoices ask of it.</summary>
    private static void Whole(PdfSheet sheet, PaperWhole? whole, PaperSums sums)
    {
        if (whole is null)
            return;
        sheet.Gap(6);
        sheet.Row(whole.Words, MoneyText.Figures(whole.Amount), from: SumsLeft);
        foreach (var less in whole.Less)
            sheet.Row(less.Words, MoneyText.Figures(-less.Amount), quiet: true, from: SumsLeft);
        if (sums.Gross)
            sheet.Row(whole.Part, MoneyText.Figures(sums.Total), from: SumsLeft);
    }

    /// <inheritdoc cref="Draw(InvoicePaper, Instant, byte[])"/>
    public static byte[] Draw(ContractPaper paper, Instant at, byte[]? logo = null) =>
        PdfSheet.Draw(
            paper.Head,
            $"{paper.Title}: {paper.Project}",
            at,
            logo,
            sheet =>
            {
                sheet.Title(paper.Title);
                sheet.Paragraph(paper.Project, quiet: true);
                sheet.Gap(14);
                sheet.Facts(2, [.. paper.Parties.Select((party, i) => (i == 0 ? "between" : "and", party))]);
                sheet.Blocks(paper.Text);
                if (paper.Own is { } own)
                {
                    sheet.Paragraph($"The contract is “{own.Name}”: the pages before this one.");
                    sheet.Paragraph($"SHA-256 of that file: {own.Hash}", quiet: true);
                }
                if (paper.Sums is { } sums)
                    Choice(sheet, paper, sums);
                Signatures(sheet, paper);
            }
        );

    private static void Choice(PdfSheet sheet, ContractPaper paper, PaperSums sums)
    {
        sheet.Heading("What was chosen");
        sheet.Gap(6);
        Lines(sheet, paper.Lines, sums, SumsHeight(sums));
        Sums(sheet, sums, "Total");
        sheet.Heading("Payments");
        foreach (var payment in paper.Payments)
            sheet.Row(payment.Words, MoneyText.Of(payment.Amount));
    }

    private static void Signatures(PdfSheet sheet, ContractPaper paper)
    {
        if (paper.Signatures.IsEmpty)
        {
            sheet.Heading("Signatures");
            sheet.Paragraph("Not signed yet.");
            sheet.Paragraph($"SHA-256 of this version: {paper.Hash}", quiet: true);
            return;
        }
        sheet.NewPage();
        sheet.Title("Signatures");
        sheet.Paragraph(
            $"under “{paper.Title}: {paper.Project}”. All of them are for the version with the SHA-256 {paper.Hash}.",
            quiet: true
        );
        foreach (var signature in paper.Signatures)
            Signature(sheet, signature);
    }

    private static void Signature(PdfSheet sheet, SignaturePaper signature)
    {
        sheet.Gap(12);
        sheet.Heading(signature.Name);
        sheet.Rule();
        sheet.Gap(4);
        var from = signature.Address.Length > 0 ? $", from {signature.Address}" : "";
        sheet.Paragraph(
            $"for the {signature.Side}, {signature.At}{from}{(signature.Proof.Length > 0 ? $"\n{signature.Proof}" : "")}\n“{signature.Consent}”\nSHA-256 {signature.Hash}",
            quiet: true
        );
    }

    /// <summary>What is not known of any line has no column.</summary>
    private static void Lines(PdfSheet sheet, ImmutableArray<PaperLine> lines, PaperSums sums, float after)
    {
        List<(PdfColumn Column, Func<PaperLine, string> Of)> columns = [];
        var apart = lines.Any(line => line.Unit is not null);
        if (lines.Any(line => line.Quantity is not null))
        {
            columns.Add((new("quantity", apart ? 44 : 84), line => line.Quantity ?? ""));
            if (apart)
                columns.Add((new("", 44, Begins: true), line => line.Unit ?? ""));
            columns.Add((new("each", 60), line => line.UnitPrice ?? ""));
        }
        if (lines.Any(line => line.Rate is not null))
            columns.Add((new("VAT", 38), line => line.Rate ?? ""));
        columns.Add((new(sums.Gross ? "with tax" : "net", 70), line => MoneyText.Figures(line.Net)));
        sheet.Table(
            [new("what", 0), .. columns.Select(column => column.Column)],
            [
                .. lines.Select(line => new PdfRow(
                    line.Title,
                    line.Detail,
                    [.. columns.Select(column => column.Of(line))]
                )),
            ],
            after
        );
    }

    private static float SumsHeight(PaperSums sums) => 17 * (4 + sums.Taxes.Length) + 24;

    private static void Sums(PdfSheet sheet, PaperSums sums, string total, string net = "Net")
    {
        sheet.Gap(net == "Net" ? 6 : 0);
        if (sums.Less is { } less)
            sheet.Row(less.Words, MoneyText.Figures(-less.Amount), quiet: true, from: SumsLeft);
        sheet.Row(sums.Gross ? "Net" : net, MoneyText.Figures(sums.Net), from: SumsLeft);
        foreach (var tax in sums.Taxes)
            sheet.Row(
                tax.Net is { } of ? $"VAT {tax.Rate} of {MoneyText.Figures(of)}" : $"VAT {tax.Rate}",
                MoneyText.Figures(tax.Tax),
                quiet: true,
                from: SumsLeft
            );
        if (sums.Rounding.Minor != 0)
            sheet.Row("Rounding", MoneyText.Figures(sums.Rounding), quiet: true, from: SumsLeft);
        sheet.Gap(2);
        sheet.Rule(heavy: true, from: SumsLeft);
        sheet.Gap(4);
        sheet.Row(total, MoneyText.Of(sums.Total), strong: true, from: SumsLeft);
    }
}
