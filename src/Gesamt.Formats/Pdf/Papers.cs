using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Formats.Texts;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>A line of a paper, all of it as it is printed.</summary>
/// <param name="Quantity">“31 m²”; null where the line is one sum.</param>
/// <param name="UnitPrice">“140.00”.</param>
/// <param name="Rate">Of its tax, “23 %”.</param>
public sealed record PaperLine(
    string Title,
    string Detail,
    Money Net,
    string? Quantity = null,
    string? UnitPrice = null,
    string? Rate = null
);

/// <summary>Tax of one rate, named by it.</summary>
public sealed record PaperTax(string Rate, Money Tax);

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
);

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
        var title = $"{(paper.IsCredit ? "Credit note" : "Invoice")} {paper.Number}";
        return PdfSheet.Draw(
            paper.Head,
            title,
            at,
            logo,
            sheet =>
            {
                sheet.Paragraph(string.Join('\n', paper.Addressee));
                sheet.Gap(26);
                sheet.Title(title);
                sheet.Paragraph($"{paper.Project}. {paper.Share}", quiet: true);
                sheet.Gap(18);
                sheet.Facts(
                    4,
                    [
                        ("date", DateWords.Long(paper.IssuedOn)),
                        .. paper.IsCredit ? [] : new[] { ("due", DateWords.Long(paper.Due)) },
                    ]
                );
                Lines(sheet, paper.Lines, paper.Sums);
                Sums(sheet, paper.Sums, paper.IsCredit ? "Credited" : "To pay");
                sheet.Gap(16);
                if (paper.Iban.Length > 0 && !paper.IsCredit)
                    sheet.Paragraph($"By transfer to {paper.Iban}, with the reference {paper.Number}.");
            }
        );
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
        Lines(sheet, paper.Lines, sums);
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
    private static void Lines(PdfSheet sheet, ImmutableArray<PaperLine> lines, PaperSums sums)
    {
        List<(PdfColumn Column, Func<PaperLine, string> Of)> columns = [];
        if (lines.Any(line => line.Quantity is not null))
        {
            columns.Add((new("quantity", 84), line => line.Quantity ?? ""));
            columns.Add((new("each", 66), line => line.UnitPrice ?? ""));
        }
        if (lines.Any(line => line.Rate is not null))
            columns.Add((new("VAT", 38), line => line.Rate ?? ""));
        columns.Add((new(sums.Gross ? "with tax" : "net", 76), line => MoneyText.Figures(line.Net)));
        sheet.Table(
            [new("what", 0), .. columns.Select(column => column.Column)],
            [
                .. lines.Select(line => new PdfRow(
                    line.Title,
                    line.Detail,
                    [.. columns.Select(column => column.Of(line))]
                )),
            ],
            SumsHeight(sums)
        );
    }

    private static float SumsHeight(PaperSums sums) => 17 * (4 + sums.Taxes.Length) + 24;

    private static void Sums(PdfSheet sheet, PaperSums sums, string total)
    {
        sheet.Gap(6);
        if (sums.Less is { } less)
            sheet.Row(less.Words, MoneyText.Figures(-less.Amount), quiet: true, from: SumsLeft);
        sheet.Row("Net", MoneyText.Figures(sums.Net), from: SumsLeft);
        foreach (var tax in sums.Taxes)
            sheet.Row($"VAT {tax.Rate}", MoneyText.Figures(tax.Tax), quiet: true, from: SumsLeft);
        if (sums.Rounding.Minor != 0)
            sheet.Row("Rounding", MoneyText.Figures(sums.Rounding), quiet: true, from: SumsLeft);
        sheet.Gap(2);
        sheet.Rule(heavy: true, from: SumsLeft);
        sheet.Gap(4);
        sheet.Row(total, MoneyText.Of(sums.Total), strong: true, from: SumsLeft);
    }
}
