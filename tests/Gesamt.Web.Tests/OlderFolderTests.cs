using System.Text.Json;
using Gesamt.Store.Backups;

namespace Gesamt.Web.Tests;

/// <summary>A folder of the release before this one opens, and everything in it is where it was.</summary>
/// <remarks>Folders/2026-11-25.tar.gz was made by that release's own demo and its own backup, which had no list of its entries yet.</remarks>
public sealed class OlderFolderTests
{
    private sealed class Older(string data) : Studio(withProjects: true, data);

    [Fact]
    public async Task The_folder_of_the_release_before_opens_and_all_of_it_is_there()
    {
        using var folder = new Folder();
        var data = folder.Of("studio");
        await Backup.RestoreAsync(Path.Combine(Studio.Root, "tests", "Gesamt.Web.Tests", "Folders", "2026-11-25.tar.gz"), data, TestContext.Current.CancellationToken);
        var before = Server.Read(data, "gesamt.db", "SELECT Id || Kind || Payload FROM Facts ORDER BY Id");
        var standings = Server.Read(data, "gesamt.db", "SELECT Id || Standing_Stage || Standing_Turn || Standing_PaidMinor || Standing_OwedMinor FROM Projects ORDER BY Id");
        Assert.True(before.Count > 500 && standings.Count > 60, $"{before.Count} facts, {standings.Count} projects");
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();

        await using var studio = new Older(data);
        var owner = await studio.OwnerAsync();
        Assert.Equal(before, Server.Read(data, "gesamt.db", "SELECT Id || Kind || Payload FROM Facts ORDER BY Id").Take(before.Count));
        Assert.Equal(standings, Server.Read(data, "gesamt.db", "SELECT Id || Standing_Stage || Standing_Turn || Standing_PaidMinor || Standing_OwedMinor FROM Projects ORDER BY Id"));
        foreach (var page in new[] { "/api/today", "/api/turns", "/api/register", "/api/people", "/api/tray", "/api/routines", "/api/kinds", "/api/letter-texts", "/api/sessions" }) Assert.True((await owner.AskAsync(page)).IsSuccessStatusCode, page);
        foreach (var id in await studio.LookAsync(db => db.Projects.Select(p => p.Id).ToListAsync()))
        {
            var record = await owner.GetAsync($"/api/projects/{id.Value}");
            Assert.DoesNotContain("cannot be told", record.GetRawText());
            foreach (var paper in record.GetProperty("papers").EnumerateArray()) Assert.True((await owner.AskAsync(paper.EnumerateObject().Last().Value.GetString()!)).IsSuccessStatusCode);
        }
        foreach (var file in await studio.LookAsync(db => db.Files.Select(f => f.Id).ToListAsync())) Assert.True((await owner.AskAsync($"/api/files/{file.Value}")).IsSuccessStatusCode);
        // links in letters sent then open now
        var letters = (await owner.GetAsync("/api/post-office")).EnumerateArray().Where(l => l.GetProperty("fromStudio").GetBoolean()).Select(l => l.GetProperty("id").GetInt64());
        var opened = 0;
        foreach (var letter in letters.Take(30))
            foreach (System.Text.RegularExpressions.Match link in System.Text.RegularExpressions.Regex.Matches((await owner.GetAsync($"/api/post-office/{letter}")).GetProperty("text").GetString()!, @"http://studio\.example(/p/\S+)"))
                if ((await new Visitor(studio).AskAsync(link.Groups[1].Value)).Headers.Contains("Set-Cookie")) opened++;
        Assert.True(opened > 0);
        Assert.Equal(JsonValueKind.Array, (await owner.GetAsync("/api/today")).GetProperty("troubles").ValueKind);
        Assert.Empty((await owner.GetAsync("/api/today")).GetProperty("troubles").EnumerateArray());
    }
}
