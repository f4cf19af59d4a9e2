using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>A line of a paper, all of it as it is printed.</summary>
/// <param name="Quantity">“31 m²”; null where the line is one sum.</param>
/// <param name="UnitPrice">“140.00”.</param>
public sealed record PaperLine(
    string Title,
    string Detail,
    Money Net,
    string? Quantity = null,
    string? UnitPrice = null
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
    string Text,
    ImmutableArray<PaperLine> Lines,
    PaperSums? Sums,
    ImmutableArray<PaperPayment> Payments,
    string Hash,
    ImmutableArray<SignaturePaper> Signatures
);

/// <summary>A signature as printed on the last page.</summary>
public sealed record SignaturePaper(string Name, string Side, string Consent, string At, string Address, string Hash);

/// <summary>Draws the studio's papers. The same paper gives the same bytes.</summary>
public static class Papers
{
    /// <param name="logo">The picture its letterhead names.</param>
    public static byte[] Draw(InvoicePaper paper, Instant at, byte[]? logo = null)
    {
        var title = $"{(paper.IsCredit ? "Credit note" : "Invoice")} {paper.Number}";
        using var sheet = new PdfSheet(paper.Head, title, at, logo);
        sheet.Title(title);
        sheet.Paragraph(
            paper.IsCredit
                ? $"Issued {DateWords.Long(paper.IssuedOn)}"
                : $"Issued {DateWords.Long(paper.IssuedOn)}, due {DateWords.Long(paper.Due)}",
            quiet: true
        );
        sheet.Gap(8);
        sheet.Paragraph(string.Join('\n', paper.Addressee));
        sheet.Heading(paper.Project);
        sheet.Paragraph(paper.Share, quiet: true);
        sheet.Gap(6);
        sheet.Rule(heavy: true);
        Lines(sheet, paper.Lines);
        Sums(sheet, paper.Sums, paper.IsCredit ? "Credited" : "To pay");
        sheet.Gap(16);
        if (paper.Iban.Length > 0 && !paper.IsCredit)
            sheet.Paragraph($"By transfer to {paper.Iban}, with the reference {paper.Number}.");
        return sheet.Save();
    }

    /// <inheritdoc cref="Draw(InvoicePaper, Instant, byte[])"/>
    public static byte[] Draw(ContractPaper paper, Instant at, byte[]? logo = null)
    {
        using var sheet = new PdfSheet(paper.Head, $"{paper.Title}: {paper.Project}", at, logo);
        sheet.Title(paper.Title);
        sheet.Paragraph(paper.Project);
        sheet.Paragraph(string.Join('\n', paper.Parties), quiet: true);
        sheet.Gap(6);
        sheet.Paragraph(paper.Text);
        if (paper.Sums is { } sums)
            Choice(sheet, paper, sums);
        sheet.Heading("Signatures");
        sheet.Paragraph($"SHA-256 of this version: {paper.Hash}", quiet: true);
        foreach (var signature in paper.Signatures)
            Signature(sheet, signature);
        if (paper.Signatures.IsEmpty)
            sheet.Paragraph("Not signed yet.");
        return sheet.Save();
    }

    private static void Choice(PdfSheet sheet, ContractPaper paper, PaperSums sums)
    {
        sheet.Heading("What was chosen");
        sheet.Rule(heavy: true);
        Lines(sheet, paper.Lines);
        Sums(sheet, sums, "Total");
        sheet.Heading("Payments");
        foreach (var payment in paper.Payments)
            sheet.Row(payment.Words, MoneyText.Of(payment.Amount));
    }

    private static void Signature(PdfSheet sheet, SignaturePaper signature)
    {
        sheet.Gap(8);
        sheet.Heading(signature.Name);
        var from = signature.Address.Length > 0 ? $", from {signature.Address}" : "";
        sheet.Paragraph(
            $"for the {signature.Side}, {signature.At}{from}\n“{signature.Consent}”\nSHA-256 {signature.Hash}",
            quiet: true
        );
    }

    private static void Lines(PdfSheet sheet, ImmutableArray<PaperLine> lines)
    {
        if (lines.Any(line => line.Quantity is not null))
            sheet.Columns("Quantity", "Unit price", "Net");
        foreach (var line in lines)
            if (line is { Quantity: { } quantity, UnitPrice: { } price })
                sheet.Priced(line.Title, line.Detail, quantity, price, MoneyText.Figures(line.Net));
            else
                sheet.Row(line.Title, MoneyText.Figures(line.Net), detail: line.Detail);
        sheet.Rule();
    }

    private static void Sums(PdfSheet sheet, PaperSums sums, string total)
    {
        if (sums.Less is { } less)
            sheet.Row(less.Words, MoneyText.Figures(-less.Amount));
        sheet.Row("Net", MoneyText.Figures(sums.Net));
        foreach (var tax in sums.Taxes)
            sheet.Row($"VAT {tax.Rate}", MoneyText.Figures(tax.Tax));
        if (sums.Rounding.Minor != 0)
            sheet.Row("Rounding", MoneyText.Figures(sums.Rounding));
        sheet.Rule(heavy: true);
        sheet.Row(total, MoneyText.Of(sums.Total), strong: true);
    }
}
