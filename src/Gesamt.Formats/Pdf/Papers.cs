using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>A line of a paper: what, its quantity in words, its net.</summary>
public sealed record PaperLine(string Title, string Detail, Money Net);

/// <summary>The sums of a paper, named by the rate they carry.</summary>
public sealed record PaperSums(Money Net, ImmutableArray<(string Rate, Money Tax)> Taxes, Money Rounding, Money Total);

/// <summary>What an invoice says.</summary>
/// <param name="Addressee">Name, organisation and address, a line each.</param>
public sealed record InvoicePaper(
    Letterhead Head, string Number, LocalDate IssuedOn, LocalDate Due, ImmutableArray<string> Addressee,
    string Project, string Share, ImmutableArray<PaperLine> Lines, PaperSums Sums, string Iban, bool IsCredit = false);

/// <summary>What a contract says: its text, what was chosen, how it is paid, and who signed what.</summary>
public sealed record ContractPaper(
    Letterhead Head, string Title, string Project, ImmutableArray<string> Parties, string Text, ImmutableArray<PaperLine> Lines, PaperSums? Sums,
    ImmutableArray<(string Words, Money Amount)> Payments, string Hash, ImmutableArray<SignaturePaper> Signatures);

/// <summary>A signature as printed on the last page.</summary>
public sealed record SignaturePaper(string Name, string Side, string Consent, string At, string Address, string Hash);

/// <summary>Draws the studio's papers.</summary>
public static class Papers
{
    public static byte[] Draw(InvoicePaper paper, Instant at)
    {
        var title = $"{(paper.IsCredit ? "Credit note" : "Invoice")} {paper.Number}";
        using var sheet = new PdfSheet(paper.Head, title, at);
        sheet.Title(title);
        sheet.Paragraph(paper.IsCredit ? $"Issued {DateWords.Long(paper.IssuedOn)}" : $"Issued {DateWords.Long(paper.IssuedOn)}, due {DateWords.Long(paper.Due)}", quiet: true);
        sheet.Gap(8);
        sheet.Paragraph(string.Join('\n', paper.Addressee));
        sheet.Heading(paper.Project);
        sheet.Paragraph(paper.Share, quiet: true);
        sheet.Gap(6);
        sheet.Rule(heavy: true);
        Lines(sheet, paper.Lines);
        Sums(sheet, paper.Sums, paper.IsCredit ? "Credited" : "To pay");
        sheet.Gap(16);
        if (paper.Iban.Length > 0 && !paper.IsCredit) sheet.Paragraph($"By transfer to {paper.Iban}, with the reference {paper.Number}.");
        return sheet.Save();
    }

    public static byte[] Draw(ContractPaper paper, Instant at)
    {
        using var sheet = new PdfSheet(paper.Head, $"{paper.Title}: {paper.Project}", at);
        sheet.Title(paper.Title);
        sheet.Paragraph(paper.Project);
        sheet.Paragraph(string.Join('\n', paper.Parties), quiet: true);
        sheet.Gap(6);
        sheet.Paragraph(paper.Text);
        if (paper.Sums is { } sums) Choice(sheet, paper, sums);
        sheet.Heading("Signatures");
        sheet.Paragraph($"SHA-256 of this version: {paper.Hash}", quiet: true);
        foreach (var signature in paper.Signatures) Signature(sheet, signature);
        if (paper.Signatures.IsEmpty) sheet.Paragraph("Not signed yet.");
        return sheet.Save();
    }

    private static void Choice(PdfSheet sheet, ContractPaper paper, PaperSums sums)
    {
        sheet.Heading("What was chosen");
        sheet.Rule(heavy: true);
        Lines(sheet, paper.Lines);
        Sums(sheet, sums, "Total");
        sheet.Heading("Payments");
        foreach (var (words, amount) in paper.Payments) sheet.Row(words, MoneyText.Of(amount));
    }

    private static void Signature(PdfSheet sheet, SignaturePaper signature)
    {
        sheet.Gap(8);
        sheet.Heading(signature.Name);
        sheet.Paragraph($"for the {signature.Side}, {signature.At}, from {signature.Address}\n“{signature.Consent}”\nSHA-256 {signature.Hash}", quiet: true);
    }

    private static void Lines(PdfSheet sheet, ImmutableArray<PaperLine> lines)
    {
        foreach (var line in lines) sheet.Row(line.Title, MoneyText.Figures(line.Net), detail: line.Detail);
        sheet.Rule();
    }

    private static void Sums(PdfSheet sheet, PaperSums sums, string total)
    {
        sheet.Row("Net", MoneyText.Figures(sums.Net));
        foreach (var (rate, tax) in sums.Taxes) sheet.Row($"VAT {rate}", MoneyText.Figures(tax));
        if (sums.Rounding.Minor != 0) sheet.Row("Rounding", MoneyText.Figures(sums.Rounding));
        sheet.Rule(heavy: true);
        sheet.Row(total, MoneyText.Of(sums.Total), strong: true);
    }
}
