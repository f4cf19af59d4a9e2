using System.Diagnostics;
using Gesamt.Core.Amounts;
using Gesamt.Formats.Invoices;
using SkiaSharp;
using Xunit;

namespace Gesamt.Formats.Tests.Invoices;

public class EpcCodeTests
{
    private const string Account = "IE29 AIBK 9311 5212 3456 78";
    private static readonly string Reference = CreditorReference.Of("2027-006");

    private static string? Text(
        decimal amount = 3985.20m,
        string iban = Account,
        string name = "Marrin Murals",
        string currency = "EUR"
    ) => EpcCode.Text(name, iban, "AIBKIE2D", Money.Of(amount, Currency.Of(currency)), Reference);

    [Fact] // EPC069-12, version 002: the lines in their order
    public void It_is_laid_out_as_the_guideline_says() =>
        Assert.Equal(
            $"BCD\n002\n1\nSCT\nAIBKIE2D\nMarrin Murals\nIE29AIBK93115212345678\nEUR3985.20\n\n{Reference}",
            Text()
        );

    [Fact]
    public void What_it_cannot_say_has_no_code()
    {
        Assert.Null(Text(currency: "GBP"));
        Assert.Null(Text(iban: ""));
        Assert.Null(Text(iban: "IE29 AIBK 9311 5212 3456 79"));
        Assert.Null(Text(amount: 0));
        Assert.Null(Text(amount: 1_000_000_000));
        Assert.Null(Text(name: " "));
        Assert.NotNull(Text(amount: 999_999_999.99m));
        Assert.NotNull(Text(amount: 0.01m));
    }

    [Fact] // at most 70 characters and one line
    public void A_long_name_is_cut_between_letters()
    {
        var lines = Text(name: new string('x', 69) + "🙂\nand more")!.Split('\n');
        Assert.Equal(10, lines.Length);
        Assert.Equal(new string('x', 69), lines[5]);
    }

    [Fact] // read back by a reader of somebody else's
    public async Task A_reader_of_codes_reads_the_same()
    {
        var modules = EpcCode.Modules(Text()!);
        Assert.True(modules.Length <= 17 + 4 * 13); // version 13 at most
        const int scale = 6;
        var size = (modules.Length + 2 * EpcCode.Quiet) * scale;
        using var bitmap = new SKBitmap(size, size);
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Clear(SKColors.White);
            using var dark = new SKPaint { Color = SKColors.Black };
            for (var row = 0; row < modules.Length; row++)
            for (var column = 0; column < modules.Length; column++)
                if (modules[row][column])
                    canvas.DrawRect(
                        (column + EpcCode.Quiet) * scale,
                        (row + EpcCode.Quiet) * scale,
                        scale,
                        scale,
                        dark
                    );
        }
        var path = Path.Combine(Directory.CreateTempSubdirectory("gesamt-code").FullName, "code.png");
        using (var data = bitmap.Encode(SKEncodedImageFormat.Png, 100))
        await using (var file = File.Create(path))
            data.SaveTo(file);
        using var reader = Process.Start(
            new ProcessStartInfo("zbarimg", ["--quiet", "--raw", path]) { RedirectStandardOutput = true }
        )!;
        var read = await reader.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await reader.WaitForExitAsync(TestContext.Current.CancellationToken);
        Assert.Equal(Text(), read.TrimEnd('\n'));
    }

    [Fact]
    public void As_a_picture_it_has_the_same_modules()
    {
        bool[][] modules =
        [
            [true, true, false],
            [false, true, false],
            [true, false, true],
        ];
        Assert.Equal("M4 4h2v1h-2zM5 5h1v1h-1zM4 6h1v1h-1zM6 6h1v1h-1z", EpcCode.Path(modules));
    }
}
