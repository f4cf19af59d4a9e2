using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Formats.Pdf;
using Gesamt.Formats.Texts;
using NodaTime;
using UglyToad.PdfPig;
using Xunit;

namespace Gesamt.Formats.Tests;

/// <summary>Papers read back by PdfPig.</summary>
public sealed class PdfTests
{
    private static readonly Letterhead Head = new(
        "Marrin Murals",
        "4 Ferry Street",
        "isolde@marrin.example",
        "IE 1",
        "#0f4c46"
    );
    private static readonly Instant At = Instant.FromUtc(2027, 1, 25, 10, 30);

    private static Money Eur(decimal major) => Money.Of(major, Currency.Eur);

    private static InvoicePaper Invoice(int lines) =>
        new(
            Head,
            "2027-004",
            new(2027, 1, 25),
            new(2027, 2, 1),
            ["Zoë Gröhl", "Lantern House"],
            "Harbour wall",
            "Instalment 1",
            [
                .. Enumerable
                    .Range(1, lines)
                    .Select(i => new PaperLine($"Service {i}", "with a word on it", Eur(i * 1234.5m))),
            ],
            new(Eur(5400), [new("23 %", Eur(1242))], Eur(0), Eur(6642)),
            "IE16 DEMO 9001 7512 3456 78"
        );

    [Fact]
    public void An_invoice_says_number_dates_people_and_sums()
    {
        using var pdf = PdfDocument.Open(Papers.Draw(Invoice(3), At));
        var text = new string([.. pdf.GetPage(1).Text.Where(c => !char.IsWhiteSpace(c))]);
        foreach (
            var said in new[]
            {
                "Invoice2027-004",
                "25January2027",
                "1February2027",
                "ZoëGröhl",
                "5400.00",
                "VAT23%",
                "1242.00",
                "€6642.00",
            }
        )
            Assert.Contains(said, text);
    }

    [Fact]
    public void Figures_end_at_one_edge()
    {
        using var pdf = PdfDocument.Open(Papers.Draw(Invoice(6), At));
        // the last digit of every amount, seen by where its glyph's cell ends
        var ends = pdf.GetPage(1)
            .Letters.Where(letter => letter.StartBaseLine.X > 500 && letter.Value is "0" or "5")
            .GroupBy(letter => Math.Round(letter.StartBaseLine.Y))
            .Select(row => row.Max(letter => letter.EndBaseLine.X))
            .Where(x => x > 520)
            .ToList();
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
        Assert.Contains($"page {pdf.NumberOfPages} of {pdf.NumberOfPages}", text);
    }

    [Fact]
    public void The_same_paper_is_the_same_file() =>
        Assert.Equal(Papers.Draw(Invoice(3), At), Papers.Draw(Invoice(3), At));

    [Fact]
    public void A_contract_carries_its_text_choice_payments_and_signatures()
    {
        var paper = new ContractPaper(
            Head,
            "Contract for a mural",
            "Harbour wall",
            ["Marrin Murals", "Zoë Gröhl"],
            MarkdownText.Numbered($"Between us.\n\nFair words for {MoneyText.Of(Eur(5338.20m))}."),
            [new("Gable", "", Eur(4340))],
            new(Eur(4340), [new("23 %", Eur(998.20m))], Eur(0), Eur(5338.20m)),
            [new("40 % to book", Eur(2135.28m))],
            new string('a', 64),
            ImmutableArray.Create(
                new SignaturePaper(
                    "Zoë Gröhl",
                    "client",
                    "I agree.",
                    "25 January 2027, 10:30",
                    "192.0.2.7",
                    new string('a', 64)
                ),
                new SignaturePaper("Isolde Marrin", "studio", "I give it.", "24 January 2027", "", new string('a', 64))
            )
        );
        using var pdf = PdfDocument.Open(Papers.Draw(paper, At));
        var text = new string([
            .. string.Concat(pdf.GetPages().Select(page => page.Text)).Where(c => !char.IsWhiteSpace(c)),
        ]);
        Assert.DoesNotContain(
            pdf.GetPages().SelectMany(page => page.Letters),
            letter => letter.Value is "\u202f" or "\0" or ""
        ); // a glyph no font has
        foreach (
            var said in new[]
            {
                "Fairwordsfor€5338.20.",
                "Gable",
                "40%tobook",
                "2135.28",
                "ZoëGröhl",
                "192.0.2.7“Iagree.”",
                "forthestudio,24January2027“Igiveit.”", // given beforehand, from no address
                new string('a', 40),
            }
        )
            Assert.Contains(said, text);
    }

    private static string Read(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return string.Concat(document.GetPages().SelectMany(page => page.Text).Where(c => !char.IsWhiteSpace(c)));
    }

    [Theory] // read back as text, so that what is drawn is a letter and no box
    [
        InlineData("Ελένη Παππά"),
        InlineData("Дарья Чернова"),
        InlineData("佐藤さくら"),
        InlineData("Zoë & Łukasz 🎨"),
        InlineData("Дом “Oona” 佐藤")
    ]
    public void Names_of_every_script_print_and_so_do_signatures(string name)
    {
        var plain = string.Concat(name.Where(c => !char.IsWhiteSpace(c)));
        Assert.Contains(
            plain,
            Read(Papers.Draw(Invoice(1) with { Addressee = [name], Head = Head with { Studio = name } }, At))
        );
        var contract = new ContractPaper(
            Head,
            "Contract",
            name,
            [name],
            MarkdownText.Numbered(MarkdownText.Escaped(name)),
            [],
            null,
            [],
            "abc",
            [new(name, "client", "I agree.", "25 January 2027", "192.0.2.1", "abc")]
        );
        Assert.Contains(plain, Read(Papers.Draw(contract, At)));
    }

    [Fact]
    public void A_long_name_and_a_long_word_stay_on_their_side()
    {
        var head = Head with
        {
            Studio = "The Worshipful Company of Sign Writers and Mural Painters of Dunmarrin",
            Address = "4 Ferry Street\nDunmarrin\nCo. Wexford",
            Mail = "a-very-long-address-of-a-studio@marrin-murals-and-lettering.example",
        };
        using var pdf = PdfDocument.Open(
            Papers.Draw(
                Invoice(0) with
                {
                    Head = head,
                    Lines = [new(new string('w', 200), "", Eur(1), "31 m²", "140.00")],
                },
                At
            )
        );
        var words = pdf.GetPage(1).GetWords().ToList();
        var letters = pdf.GetPage(1).Letters;
        Assert.All(letters, letter => Assert.InRange(letter.BoundingBox.Right, 47, 546));
        // the studio's words on the left half, its address on the right, each on lines of its own
        Assert.All(
            words.Where(word => word.Text is "Worshipful" or "Company" or "Writers"),
            word => Assert.True(word.BoundingBox.Right < 297)
        );
        Assert.Contains(words, word => word.Text == "Dunmarrin" && word.BoundingBox.Left > 297);
        Assert.True(
            letters
                .Where(letter => letter.Value == "w" && letter.BoundingBox.Bottom < 600)
                .Max(letter => letter.BoundingBox.Right) < 300
        );
    }

    [Fact]
    public void Lines_show_quantity_and_unit_price()
    {
        var text = Read(
            Papers.Draw(Invoice(0) with { Lines = [new("Gable mural", "", Eur(4340), "31 m²", "140.00")] }, At)
        );
        foreach (var said in new[] { "quantity", "each", "31m²", "140.00", "4340.00" })
            Assert.Contains(said, text);
    }

    [Fact]
    public void The_same_paper_gives_the_same_bytes() =>
        Assert.Equal(Papers.Draw(Invoice(3), At), Papers.Draw(Invoice(3), At));

    [Fact]
    public void The_logo_stands_at_the_head()
    {
        using var bitmap = new SkiaSharp.SKBitmap(60, 30);
        bitmap.Erase(SkiaSharp.SKColors.Teal);
        using var data = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Png, 100);
        using var pdf = PdfDocument.Open(Papers.Draw(Invoice(1), At, data.ToArray()));
        Assert.Single(pdf.GetPage(1).GetImages());
        // bytes that are no picture are left out
        Assert.NotEmpty(Papers.Draw(Invoice(1), At, [1, 2, 3]));
    }
}
