using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Formats.Pdf;
using NodaTime;
using UglyToad.PdfPig;
using Xunit;

namespace Gesamt.Formats.Tests;

/// <summary>Papers read back by PdfPig.</summary>
public sealed class PdfTests
{
    private static readonly Letterhead Head = new("Marrin Murals", "4 Ferry Street", "isolde@marrin.example", "IE 1", "#0f4c46");
    private static readonly Instant At = Instant.FromUtc(2027, 1, 25, 10, 30);

    private static Money Eur(decimal major) => Money.Of(major, Currency.Eur);

    private static InvoicePaper Invoice(int lines) => new(Head, "2027-004", new(2027, 1, 25), new(2027, 2, 1), ["Zoë Gröhl", "Lantern House"], "Harbour wall", "Instalment 1",
        [.. Enumerable.Range(1, lines).Select(i => new PaperLine($"Service {i}", "with a word on it", Eur(i * 1234.5m)))],
        new(Eur(5400), [("23 %", Eur(1242))], Eur(0), Eur(6642)), "IE00 DEMO");

    [Fact]
    public void An_invoice_says_number_dates_people_and_sums()
    {
        using var pdf = PdfDocument.Open(Papers.Draw(Invoice(3), At));
        var text = new string([.. pdf.GetPage(1).Text.Where(c => !char.IsWhiteSpace(c))]);
        foreach (var said in new[] { "Invoice2027-004", "25January2027", "1February2027", "ZoëGröhl", "5400.00", "VAT23%", "1242.00", "€6642.00" }) Assert.Contains(said, text);
    }

    [Fact]
    public void Figures_end_at_one_edge()
    {
        using var pdf = PdfDocument.Open(Papers.Draw(Invoice(6), At));
        // the last digit of every amount, seen by where its glyph's cell ends
        var ends = pdf.GetPage(1).Letters.Where(letter => letter.StartBaseLine.X > 500 && letter.Value is "0" or "5").GroupBy(letter => Math.Round(letter.StartBaseLine.Y))
            .Select(row => row.Max(letter => letter.EndBaseLine.X)).Where(x => x > 520).ToList();
        Assert.True(ends.Count >= 6);
        Assert.InRange(ends.Max() - ends.Min(), 0, 1.5);
    }

    [Fact]
    public void A_long_paper_flows_over_pages_and_loses_nothing()
    {
        using var pdf = PdfDocument.Open(Papers.Draw(Invoice(60), At));
        Assert.True(pdf.NumberOfPages >= 3);
        var text = string.Concat(pdf.GetPages().Select(page => page.Text));
        Assert.All(Enumerable.Range(1, 60), i => Assert.Contains($"Service {i}", text));
        Assert.Contains($"Page {pdf.NumberOfPages}", text);
    }

    [Fact]
    public void The_same_paper_is_the_same_file() => Assert.Equal(Papers.Draw(Invoice(3), At), Papers.Draw(Invoice(3), At));

    [Fact]
    public void A_contract_carries_its_text_choice_payments_and_signatures()
    {
        var paper = new ContractPaper(Head, "Contract for a mural", "Harbour wall", ["Marrin Murals", "Zoë Gröhl"], $"Between us.\n\nFair words for {MoneyText.Of(Eur(5338.20m))}.", [new("Gable", "", Eur(4340))],
            new(Eur(4340), [("23 %", Eur(998.20m))], Eur(0), Eur(5338.20m)), [("40 % to book", Eur(2135.28m))], new string('a', 64),
            ImmutableArray.Create(new SignaturePaper("Zoë Gröhl", "client", "I agree.", "25 January 2027, 10:30", "192.0.2.7", new string('a', 64))));
        using var pdf = PdfDocument.Open(Papers.Draw(paper, At));
        var text = new string([.. string.Concat(pdf.GetPages().Select(page => page.Text)).Where(c => !char.IsWhiteSpace(c))]);
        Assert.DoesNotContain(pdf.GetPages().SelectMany(page => page.Letters), letter => letter.Value is "\u202f" or "\0" or ""); // a glyph no font has
        foreach (var said in new[] { "Fairwordsfor€5338.20.", "Gable", "40%tobook", "2135.28", "ZoëGröhl", "192.0.2.7", new string('a', 40) }) Assert.Contains(said, text);
    }
}
