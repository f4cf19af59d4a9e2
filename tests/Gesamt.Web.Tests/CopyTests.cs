using System.IO.Compression;
using System.Text;
using System.Text.Json;
using Gesamt.Store;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Everything of one project, and what a person may ask for, each in one file; what of it is whose alone is in <see cref="PrivacyTests"/>.</summary>
public sealed class CopyTests(FullStudio studio) : IClassFixture<FullStudio>
{
    /// <summary>The entries of a ZIP that an address answers with.</summary>
    internal static async Task<SortedDictionary<string, byte[]>> EntriesAsync(Visitor visitor, string address)
    {
        var answer = await visitor.AskAsync(address);
        if (!answer.IsSuccessStatusCode)
            Assert.Fail($"{address}: {answer.StatusCode} {await answer.Content.ReadAsStringAsync()}");
        await using var content = await answer.Content.ReadAsStreamAsync();
        using var zip = new ZipArchive(content, ZipArchiveMode.Read);
        var entries = new SortedDictionary<string, byte[]>(StringComparer.Ordinal);
        foreach (var entry in zip.Entries)
        {
            using var bytes = new MemoryStream();
            await using var from = entry.Open();
            await from.CopyToAsync(bytes);
            entries.Add(entry.FullName, bytes.ToArray());
        }
        return entries;
    }

    /// <summary>What can be read in a file.</summary>
    internal static string TextOf(string name, byte[] bytes) =>
        name.EndsWith(".pdf", StringComparison.Ordinal)
            ? PdfTools.Run("pdftotext", bytes, "-layout", "FILE", "-").Said
            : Encoding.UTF8.GetString(bytes);

    /// <summary>The demo's project with the most letters.</summary>
    private Task<(long Id, long Client)> BusiestAsync() =>
        studio.LookAsync(
            async (GesamtDb db) =>
            {
                var row = await db
                    .Projects.OrderByDescending(p =>
                        db.Letters.Count(l => l.ProjectId == p.Id && l.State == LetterState.Sent)
                    )
                    .Select(p => new { p.Id, p.ClientId })
                    .FirstAsync();
                return (row.Id.Value, row.ClientId.Value);
            }
        );

    [Fact]
    public async Task A_projects_copy_holds_all_of_it_and_nothing_of_any_other()
    {
        var owner = await studio.OwnerAsync();
        var (id, _) = await BusiestAsync();
        var copy = await EntriesAsync(owner, $"/api/projects/{id}/everything.zip");
        foreach (var (name, bytes) in copy.Where(entry => entry.Key.EndsWith(".json", StringComparison.Ordinal)))
        foreach (var row in JsonDocument.Parse(bytes).RootElement.EnumerateArray())
            if (row.TryGetProperty("projectId", out var project))
                Assert.True(project.GetInt64() == id, $"{name} holds a row of another project");
        async Task HoldsAsync(string folder, Func<GesamtDb, Task<int>> count) =>
            Assert.Equal(
                await studio.LookAsync(count),
                copy.Keys.Count(name => name.StartsWith(folder, StringComparison.Ordinal))
            );
        await HoldsAsync(
            "letters/",
            db =>
                db.Letters.CountAsync(l =>
                    l.ProjectId == new ProjectId(id)
                    && (
                        l.State == LetterState.Sent
                        || l.State == LetterState.Received
                        || l.State == LetterState.Uncertain
                        || l.State == LetterState.Kept
                    )
                )
        );
        await HoldsAsync("files/", db => db.Files.CountAsync(f => f.ProjectId == new ProjectId(id) && !f.Removed));
        async Task HasRowsAsync(string table, Func<GesamtDb, Task<int>> count) =>
            Assert.Equal(
                await studio.LookAsync(count),
                JsonDocument.Parse(copy[$"tables/{table}.json"]).RootElement.GetArrayLength()
            );
        await HasRowsAsync("facts", db => db.Facts.CountAsync(f => f.ProjectId == new ProjectId(id)));
        await HasRowsAsync("projects", _ => Task.FromResult(1));
        await HasRowsAsync(
            "signatures",
            db =>
                db.Signatures.CountAsync(s =>
                    db.Versions.Any(v => v.Id == s.VersionId && v.ProjectId == new ProjectId(id))
                )
        );
    }

    [Fact]
    public async Task The_history_of_a_project_is_a_paper_with_every_letter_and_answer_in_full()
    {
        var owner = await studio.OwnerAsync();
        var (id, _) = await BusiestAsync();
        var answer = await owner.AskAsync($"/api/projects/{id}/history.pdf");
        Assert.Equal("application/pdf", answer.Content.Headers.ContentType?.MediaType);
        var paper = await answer.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        Assert.Equal(0, PdfTools.Run("qpdf", paper, "--check", "FILE").Code);
        // without the breaks of lines, which stand anywhere
        static string Flat(string text) => string.Concat(text.Where(c => char.IsLetterOrDigit(c) || c is '.' or ','));
        var text = Flat(PdfTools.Run("pdftotext", paper, "FILE", "-").Said);
        var (letters, notes) = await studio.LookAsync(
            async (GesamtDb db) =>
                (
                    await db
                        .Letters.Where(l => l.ProjectId == new ProjectId(id) && l.State == LetterState.Sent)
                        .Select(l => l.Body)
                        .ToListAsync(),
                    await db
                        .Notes.Where(n => n.ProjectId == new ProjectId(id) && !n.Removed)
                        .Select(n => n.Text)
                        .ToListAsync()
                )
        );
        Assert.True(letters.Count > 3, $"{letters.Count} letters");
        // the sentence each begins with; a page's foot may stand within a longer one
        foreach (var words in letters.Concat(notes).Select(body => body.Split('\n').First(line => line.Length > 0)))
            Assert.Contains(Flat(words), text);
    }

    [Fact]
    public async Task Whoever_is_not_there_has_no_copy()
    {
        var owner = await studio.OwnerAsync();
        foreach (
            var address in new[]
            {
                "/api/projects/99999/everything.zip",
                "/api/projects/99999/history.pdf",
                "/api/people/99999/copy.zip",
                "/api/archive/gesamt-archive-20270125-103000.zip",
            }
        )
            Assert.Equal(System.Net.HttpStatusCode.NotFound, (await owner.AskAsync(address)).StatusCode);
        var stranger = new Visitor(studio);
        foreach (var address in new[] { "/api/projects/1/everything.zip", "/api/people/1/copy.zip", "/api/archive" })
            Assert.Equal(System.Net.HttpStatusCode.Unauthorized, (await stranger.AskAsync(address)).StatusCode);
    }
}
