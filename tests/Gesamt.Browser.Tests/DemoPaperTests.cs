using System.Diagnostics;
using Gesamt.Store;
using Gesamt.Store.Files;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>Every paper of the demo as independent programs see it: poppler's and qpdf.</summary>
public sealed class DemoPaperTests
{
    private static readonly string Folder = Directory.CreateTempSubdirectory("gesamt-papers").FullName;

    private static (int Code, string Said) Run(string program, params string[] arguments)
    {
        var start = new ProcessStartInfo(program) { RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (var argument in arguments)
            start.ArgumentList.Add(argument);
        using var process = Process.Start(start)!;
        var complained = process.StandardError.ReadToEndAsync();
        var said = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return (process.ExitCode, said + complained.GetAwaiter().GetResult());
    }

    [Fact]
    public async Task Each_is_whole_has_its_letters_with_it_and_is_sealed_where_somebody_signed()
    {
        using var house = new House();
        _ = house.Address;
        await house.WaitUntilAsync(Instant.FromUtc(2027, 1, 25, 10, 31));
        await using var scope = house.Services.CreateAsyncScope();
        var (db, vault) = (
            scope.ServiceProvider.GetRequiredService<GesamtDb>(),
            scope.ServiceProvider.GetRequiredService<FileVault>()
        );
        var papers = await db.Papers.AsNoTracking().ToListAsync();
        Assert.True(papers.Count(paper => paper.Sealed) > 20, $"{papers.Count} papers");
        Assert.Contains(papers, paper => paper.InvoiceId is not null);
        List<string> wrong = [];
        try
        {
            foreach (var paper in papers)
            {
                var file = Path.Combine(Folder, $"{paper.Id}.pdf");
                await File.WriteAllBytesAsync(file, vault.Read(paper.Hash));
                if (Run("qpdf", "--check", file) is not (0, _))
                    wrong.Add($"{paper.Id}: qpdf finds a fault");
                // name, type, encoding, embedded: all of them are
                var fonts = Run("pdffonts", file).Said.Split('\n', StringSplitOptions.RemoveEmptyEntries)[2..];
                if (fonts.Length == 0 || fonts.Any(font => !font.Contains(" yes yes ", StringComparison.Ordinal)))
                    wrong.Add($"{paper.Id}: a font is not embedded");
                var text = Run("pdftotext", "-layout", file, "-").Said;
                if (!text.Contains("Marrin Murals", StringComparison.Ordinal))
                    wrong.Add($"{paper.Id}: nothing can be read");
                var signed = Run("pdfsig", file).Said;
                if (
                    paper.Sealed
                    != (
                        signed.Contains("Signature is Valid.", StringComparison.Ordinal)
                        && signed.Contains("Total document signed", StringComparison.Ordinal)
                        && !signed.Contains("Not total document signed", StringComparison.Ordinal)
                    )
                )
                    wrong.Add($"{paper.Id}: {signed}");
            }
        }
        finally
        {
            Directory.Delete(Folder, recursive: true);
        }
        Assert.True(wrong.Count == 0, string.Join("\n", wrong.Take(8)));
    }
}
