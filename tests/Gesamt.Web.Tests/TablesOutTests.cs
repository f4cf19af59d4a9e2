using System.Globalization;
using System.Text;
using Gesamt.Formats.Tables;
using Gesamt.Store;

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
}
