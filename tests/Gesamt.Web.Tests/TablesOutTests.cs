using System.Globalization;
using System.IO.Compression;
using System.Text;
using Gesamt.Formats.Tables;
using Gesamt.Store;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Every table can be taken along, and says in figures what the database holds.</summary>
public sealed class TablesOutTests(FullStudio studio) : IClassFixture<FullStudio>
{
    private static async Task<IReadOnlyList<IReadOnlyList<string>>> RowsAsync(Visitor owner, string path)
    {
        var answer = await owner.AskAsync(path);
        var bytes = await answer.Content.ReadAsByteArrayAsync();
        Assert.True(answer.IsSuccessStatusCode, $"{path}: {Encoding.UTF8.GetString(bytes)}");
        Assert.Equal("text/csv", answer.Content.Headers.ContentType?.MediaType);
        return Encoding.UTF8.GetString(bytes).TrimEnd().Contains('\n', StringComparison.Ordinal)
            ? TableText.Read(bytes).Rows
            : [];
    }

    private static decimal Number(string cell) => decimal.Parse(cell, CultureInfo.InvariantCulture);

    [Fact]
    public async Task Of_every_project_tasks_hours_costs_and_run_sheet_come_out_whole()
    {
        var owner = await studio.OwnerAsync();
        var ids = await studio.LookAsync((GesamtDb db) => db.Projects.Select(p => p.Id).ToListAsync());
        var (tasks, minutes, spent, items) = (0, 0m, 0m, 0);
        foreach (var id in ids)
        {
            tasks += (await RowsAsync(owner, $"/api/projects/{id.Value}/tasks.csv")).Count;
            minutes += (await RowsAsync(owner, $"/api/projects/{id.Value}/hours.csv")).Sum(row => Number(row[1]) * 60);
            spent += (await RowsAsync(owner, $"/api/projects/{id.Value}/costs.csv")).Sum(row => Number(row[4]));
            items += (await RowsAsync(owner, $"/api/projects/{id.Value}/run-sheet.csv")).Count;
        }
        var held = await studio.LookAsync(
            async (GesamtDb db) =>
                (
                    Tasks: await db.Tasks.CountAsync(t => !t.Removed),
                    Minutes: await db.Hours.Where(h => !h.Removed).SumAsync(h => h.Minutes),
                    Spent: await db.Costs.Where(c => c.ProjectId != null && !c.Removed).SumAsync(c => c.GrossMinor),
                    Items: (await db.RunSheets.Select(r => r.Items).ToListAsync()).Sum(json =>
                        System.Text.Json.JsonDocument.Parse(json).RootElement.GetArrayLength()
                    )
                )
        );
        Assert.True(held is { Tasks: > 0, Minutes: > 0, Spent: > 0, Items: > 0 }, $"{held}");
        // four decimals of an hour are less than a second
        Assert.Equal(
            (held.Tasks, held.Minutes, held.Spent / 100m, held.Items),
            (tasks, (int)Math.Round(minutes), spent, items)
        );
    }

    [Theory]
    [InlineData("Source")]
    [InlineData("Kind")]
    [InlineData("Client")]
    [InlineData("Service")]
    public async Task What_it_brought_adds_up_to_what_was_agreed(string by)
    {
        var owner = await studio.OwnerAsync();
        var rows = await RowsAsync(owner, $"/api/reports/brought.csv?year=all&by={by}");
        var agreed = await studio.LookAsync(
            (GesamtDb db) =>
                db
                    .Projects.Where(p => !p.Rehearsal && p.Standing.BookedAt != null && p.Standing.NetMinor != null)
                    .SumAsync(p => p.Standing.NetMinor!.Value)
        );
        Assert.Equal(agreed / 100m, rows.Sum(row => Number(row[4])));
        Assert.True(agreed > 0);
    }

    [Fact]
    public async Task Goals_come_out_with_their_measures()
    {
        var owner = await studio.OwnerAsync();
        var goals = await owner.GetAsync("/api/goals?year=2027");
        var rows = await RowsAsync(owner, "/api/goals.csv?year=2027");
        Assert.NotEmpty(rows);
        Assert.Equal(
            goals
                .GetProperty("goals")
                .EnumerateArray()
                .SelectMany(goal =>
                    goal.GetProperty("measures")
                        .EnumerateArray()
                        .Select(measure =>
                            (goal.GetProperty("title").GetString(), measure.GetProperty("told").GetString())
                        )
                ),
            rows.Select(row => ((string?)row[1], (string?)row[4]))
        );
    }

    [Fact] // with Python's own csv, mailbox and zipfile, and Debian's python3-icalendar and python3-vobject
    public async Task Other_programs_read_tables_feed_contacts_letters_and_a_year_as_they_are_handed_out()
    {
        var owner = await studio.OwnerAsync();
        await owner.PostAsync("/api/studio/feed");
        var feed = (await owner.GetAsync("/api/studio"))
            .GetProperty("feed")
            .GetString()!
            .Replace("http://studio.example", "", StringComparison.Ordinal);
        var ids = await studio.LookAsync((GesamtDb db) => db.Projects.Select(p => p.Id).ToListAsync());
        Dictionary<string, string> handedOut = new()
        {
            ["register.csv"] = "/api/register.csv?putAway=true",
            ["people.csv"] = "/api/people.csv",
            ["invoices.csv"] = "/api/invoices.csv?show=All",
            ["entries.csv"] = "/api/money/entries.csv?year=2026",
            ["praise.csv"] = "/api/praise.csv",
            ["brought.csv"] = "/api/reports/brought.csv?year=all",
            ["feed.ics"] = feed,
            ["people.vcf"] = "/api/people.vcf",
            ["2026.zip"] = "/api/money/years/2026/folder.zip",
        };
        foreach (var id in ids)
            handedOut[$"{id.Value}.mbox"] = $"/api/projects/{id.Value}/letters.mbox";
        var said = await ReadByOthersAsync(owner, handedOut);
        async Task IsToldAsync(string what, Func<GesamtDb, Task<int>> count) =>
            Assert.Contains($"{what} {await studio.LookAsync(count)}", said);
        await IsToldAsync("table register.csv", db => db.Projects.CountAsync(p => !p.Rehearsal));
        await IsToldAsync("table invoices.csv", db => db.Invoices.CountAsync());
        await IsToldAsync("cards", db => db.People.CountAsync(p => p.MergedInto == null && p.RemovedAt == null));
        await IsToldAsync(
            "letters",
            db =>
                db.Letters.CountAsync(l =>
                    l.ProjectId != null
                    && (
                        l.State == LetterState.Sent
                        || l.State == LetterState.Uncertain
                        || l.State == LetterState.Received
                        || l.State == LetterState.Kept
                    )
                )
        );
        Assert.Contains(said, line => line.StartsWith("events ", StringComparison.Ordinal) && line != "events 0");
        Assert.Contains(said, line => line.StartsWith("year 2026.zip ", StringComparison.Ordinal));
    }

    private static async Task<string[]> ReadByOthersAsync(Visitor owner, Dictionary<string, string> handedOut)
    {
        using var all = new MemoryStream();
        using (var zip = new ZipArchive(all, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, path) in handedOut)
            {
                using var answer = await owner.AskAsync(path);
                Assert.True(answer.IsSuccessStatusCode, path);
                await using var entry = zip.CreateEntry(name).Open();
                await answer.Content.CopyToAsync(entry);
            }
        var (code, said) = PdfTools.Run(
            "/usr/bin/python3",
            all.ToArray(),
            Path.Combine(Studio.Root, "tests", "Gesamt.Web.Tests", "Tools", "read_out.py"),
            "FILE"
        );
        Assert.True(code == 0, said);
        return said.Split('\n', StringSplitOptions.RemoveEmptyEntries);
    }
}
