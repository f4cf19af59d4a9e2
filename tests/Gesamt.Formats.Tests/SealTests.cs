using System.Diagnostics;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Gesamt.Core.Amounts;
using Gesamt.Formats.Pdf;
using Gesamt.Formats.Texts;
using NodaTime;
using Xunit;

namespace Gesamt.Formats.Tests;

/// <summary>Sealed papers as independent readers see them: pdfsig, pdffonts and pdftotext of poppler, and qpdf.</summary>
public sealed class SealTests
{
    private static readonly Instant At = Instant.FromUtc(2027, 1, 25, 10, 30);
    private static readonly X509Certificate2 Key = MakeKey();
    private static readonly byte[] Sealed = PdfSeal.Seal(
        Papers.Draw(Contract(40), At),
        Key,
        "Signed by Zoë Gröhl and Ιόλη Μαρίν",
        At
    );

    private static X509Certificate2 MakeKey()
    {
        using var rsa = RSA.Create(2048);
        return new CertificateRequest(
            "CN=Marrin Murals",
            rsa,
            HashAlgorithmName.SHA256,
            RSASignaturePadding.Pkcs1
        ).CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddYears(10));
    }

    private static Money Eur(decimal major) => Money.Of(major, Currency.Eur);

    private static ContractPaper Contract(int lines) =>
        new(
            new("Marrin Murals", "4 Ferry Street", "isolde@marrin.example", "IE 1", "#0f4c46"),
            "Contract for a mural",
            "Harbour wall",
            ["Marrin Murals", "Zoë Gröhl"],
            MarkdownText.Numbered(
                """
                Between us, **Marrin Murals** and Zoë Gröhl.

                ## Scope
                Everything on the [page of the studio](https://marrin.example/scope).

                - two coats
                - one varnish

                ## Price
                ₺ 1, ₴ 2, € 3, £ 4; Привет, Καλημέρα.
                """
            ),
            [.. Enumerable.Range(1, lines).Select(i => new PaperLine($"Service {i}", "", Eur(i), "1", "1.00", "23 %"))],
            new(Eur(4340), [new("23 %", Eur(998.20m))], Eur(0), Eur(5338.20m)),
            [new("40 % to book", Eur(2135.28m))],
            new string('a', 64),
            [new("Zoë Gröhl", "client", "I agree.", "25 January 2027, 10:30", "192.0.2.7", new string('a', 64))]
        );

    private static (int Code, string Said) Run(string program, byte[] file, params string[] arguments)
    {
        var path = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.pdf");
        File.WriteAllBytes(path, file);
        try
        {
            var start = new ProcessStartInfo(program) { RedirectStandardOutput = true, RedirectStandardError = true };
            foreach (var argument in arguments)
                start.ArgumentList.Add(argument == "FILE" ? path : argument);
            using var process = Process.Start(start)!;
            var said = process.StandardOutput.ReadToEndAsync();
            var complained = process.StandardError.ReadToEnd();
            process.WaitForExit();
            return (process.ExitCode, said.Result + complained);
        }
        finally
        {
            File.Delete(path);
        }
    }

    private static bool Holds(byte[] file) =>
        Run("pdfsig", file, "FILE") is var (_, said)
        && said.Contains("Signature is Valid.", StringComparison.Ordinal)
        && said.Contains("Total document signed", StringComparison.Ordinal)
        && !said.Contains("Not total document signed", StringComparison.Ordinal);

    [Fact]
    public void A_sealed_paper_is_valid_whole_and_without_fault()
    {
        var (_, said) = Run("pdfsig", Sealed, "FILE");
        Assert.True(Holds(Sealed), said);
        Assert.Contains("ETSI.CAdES.detached", said);
        Assert.Contains("Marrin Murals", said);
        var (code, checkedBy) = Run("qpdf", Sealed, "--check", "FILE");
        Assert.True(code == 0, checkedBy);
        Assert.Contains("No syntax or stream encoding errors found", checkedBy);
    }

    [Fact]
    public void Nothing_can_be_appended_to_it_unseen()
    {
        Assert.False(Holds([.. Sealed, .. "% more\n"u8]), "a comment behind it is not noticed");
        Assert.False(Holds([.. Sealed, 0]), "a zero behind it is not noticed");
    }

    [Fact] // 200 random positions, each byte changed: no reader of the signature may call it whole
    public void No_byte_of_it_can_be_changed_unseen()
    {
        var random = new Random(20270125);
        // the place the signature is written into has room to spare: what is changed there is caught by comparing the whole file's hash
        var (from, to) = Gap(Sealed);
        var positions = Enumerable
            .Range(0, int.MaxValue)
            .Select(_ => random.Next(Sealed.Length))
            .Where(at => at < from || at >= to)
            .Distinct()
            .Take(200);
        Parallel.ForEach(
            positions,
            new ParallelOptions { MaxDegreeOfParallelism = 2 },
            at =>
            {
                var changed = (byte[])Sealed.Clone();
                changed[at] ^= 0x01;
                Assert.False(Holds(changed), $"byte {at} of {Sealed.Length} can be changed");
            }
        );
    }

    private static (int From, int To) Gap(byte[] file)
    {
        var text = System.Text.Encoding.Latin1.GetString(file);
        var range = System.Text.RegularExpressions.Regex.Match(text, @"/ByteRange\[0 (\d+) (\d+) (\d+)\]");
        return (int.Parse(range.Groups[1].Value), int.Parse(range.Groups[2].Value));
    }

    [Fact]
    public void Every_face_it_uses_lies_in_it_and_its_words_can_be_read_out()
    {
        var fonts = Run("pdffonts", Sealed, "FILE").Said.Split('\n').Skip(2).Where(line => line.Length > 0).ToList();
        Assert.NotEmpty(fonts);
        // columns: name, type, encoding, emb, sub, uni, object ID
        Assert.All(fonts, line => Assert.Equal("yes", line.Split(' ', StringSplitOptions.RemoveEmptyEntries)[^5]));
        var text = Run("pdftotext", Sealed, "-layout", "FILE", "-").Said;
        foreach (var said in new[] { "₺", "₴", "€", "£", "Привет", "Καλημέρα", "2.1", "page 1 of", "Zoë Gröhl" })
            Assert.Contains(said, text);
        var (code, info) = Run("pdfinfo", Sealed, "FILE");
        Assert.Equal(0, code);
        Assert.Contains("Contract for a mural: Harbour wall", info);
        Assert.Contains("marrin.example/scope", Run("pdfinfo", Sealed, "-url", "FILE").Said);
    }

    [Fact]
    public void The_head_of_a_table_stands_on_every_page_it_runs_over_and_no_total_alone()
    {
        var pages = Run("pdftotext", Sealed, "-layout", "FILE", "-").Said.Split('\f');
        var table = pages.Where(page => page.Contains("Service ", StringComparison.Ordinal)).ToList();
        Assert.True(table.Count >= 2, $"{table.Count} pages");
        Assert.All(table, page => Assert.Contains("quantity", page));
        var total = Assert.Single(
            pages,
            page =>
                page.Contains("5 338.20", StringComparison.Ordinal)
                || page.Contains("5\u00a0338.20", StringComparison.Ordinal)
        );
        Assert.Contains("Service 40", total);
    }
}
