using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Core.Reports;
using Gesamt.Core.Stages;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>Every figure of the reports over the whole demo: equal to a naive recount from the facts, and to what it opens.</summary>
public sealed class ReportsTests(FullStudio studio) : IClassFixture<FullStudio>
{
    private static readonly string[] Queries =
    [
        "",
        "year=all",
        "year=2026",
        "from=2026-03-01&until=2026-08-31",
        "kind=1&year=all",
        "source=a%20friend&year=all",
        "campaign=Harbour%20craft%20fair&year=all",
        "year=1999",
    ];

    public static TheoryData<string> Asked => [.. Queries];

    private static string Text(JsonElement element, string name) => element.GetProperty(name).ToString();

    private static int Number(JsonElement element, string name) => element.GetProperty(name).GetInt32();

    private static async Task<int> CountAsync(Visitor owner, string query, string pick)
    {
        var opened = await owner.GetAsync($"/api/reports/projects?{query}&{pick}&most=2000");
        Assert.Equal(Number(opened, "count"), opened.GetProperty("rows").GetArrayLength());
        return Number(opened, "count");
    }

    [Theory]
    [MemberData(nameof(Asked))]
    public async Task Each_figure_is_the_number_of_projects_it_opens(string query)
    {
        var owner = await studio.OwnerAsync();
        var reports = await owner.GetAsync($"/api/reports?{query}");
        var head = reports.GetProperty("head");
        foreach (
            var (name, of) in new[]
            {
                ("came", "Came"),
                ("won", "Won"),
                ("lost", "Lost"),
                ("apart", "Apart"),
                ("open", "Open"),
            }
        )
            Assert.Equal(Number(head, name), await CountAsync(owner, query, $"of={of}"));
        Assert.Equal(
            Number(head, "came"),
            Number(head, "won") + Number(head, "lost") + Number(head, "apart") + Number(head, "open")
        );
        foreach (var gate in reports.GetProperty("gates").EnumerateArray())
        {
            var at = $"gate={Text(gate, "gate")}";
            Assert.Equal(Number(gate, "came"), Number(gate, "passed") + Number(gate, "ended") + Number(gate, "open"));
            foreach (
                var (name, of) in new[] { ("came", "Came"), ("passed", "Passed"), ("ended", "Ended"), ("open", "Open") }
            )
                Assert.Equal(Number(gate, name), await CountAsync(owner, query, $"of={of}&{at}"));
            foreach (var reason in gate.GetProperty("reasons").EnumerateArray())
                Assert.StartsWith(
                    $"{await CountAsync(owner, query, $"of=Ended&{at}&reason={Text(reason, "reason")}")} ",
                    Text(reason, "words"),
                    StringComparison.Ordinal
                );
        }
        foreach (var length in reports.GetProperty("lengths").GetProperty("gates").EnumerateArray())
            Assert.Equal(
                Number(length, "count"),
                await CountAsync(owner, query, $"of=Stood&gate={Text(length, "gate")}")
            );
        foreach (var column in reports.GetProperty("columns").EnumerateArray())
        foreach (var (name, of) in new[] { ("came", "Came"), ("won", "Won"), ("newClients", "NewClients") })
            Assert.Equal(Number(column, name), await CountAsync(owner, query, $"of={of}&at={Text(column, "from")}"));
        Assert.Equal(
            Number(head, "came"),
            reports.GetProperty("columns").EnumerateArray().Sum(column => Number(column, "came"))
        );
        foreach (var chased in reports.GetProperty("chased").EnumerateArray())
            Assert.Equal(
                Number(chased, "count"),
                await CountAsync(owner, query, $"of=Chased&chases={Text(chased, "chases")}")
            );
    }

    [Theory]
    [InlineData("Source")]
    [InlineData("Campaign")]
    [InlineData("Kind")]
    [InlineData("Service")]
    [InlineData("Client")]
    [InlineData("Project")]
    public async Task What_each_brought_opens_its_projects_and_all_of_it_adds_up(string by)
    {
        var owner = await studio.OwnerAsync();
        var brought = (await owner.GetAsync($"/api/reports?year=all&by={by}&most=500")).GetProperty("brought");
        Assert.Equal(0, Number(brought, "more"));
        long all = 0;
        foreach (var row in brought.GetProperty("rows").EnumerateArray())
        {
            var pick = $"by={by}&key={Uri.EscapeDataString(Text(row, "key"))}";
            if (row.GetProperty("came").ValueKind != JsonValueKind.Null)
                Assert.Equal(Number(row, "came"), await CountAsync(owner, "year=all", $"of=Came&{pick}"));
            var won = (await owner.GetAsync($"/api/reports/projects?year=all&of=Won&{pick}&most=2000")).GetProperty(
                "rows"
            );
            Assert.Equal(Number(row, "won"), won.GetArrayLength());
            Assert.Equal(Minor(Text(row, "brought")), won.EnumerateArray().Sum(one => Minor(Text(one, "amount"))));
            all += Minor(Text(row, "brought"));
            Assert.Equal(Text(row, "anHour").Length > 0, await CountAsync(owner, "year=all", $"of=Hourly&{pick}") > 0);
        }
        Assert.Equal(
            await studio.LookAsync(db =>
                db.Projects.Where(p => p.Standing.BookedAt != null && p.Standing.Ended != EndReason.NotAnInquiry)
                    .SumAsync(p => p.Standing.NetMinor ?? 0)
            ),
            all
        );
        Assert.True(all > 0);
    }

    private static long Minor(string amount) =>
        long.Parse(
            $"0{new string([.. amount.Where(char.IsAsciiDigit)])}",
            System.Globalization.CultureInfo.InvariantCulture
        );

    [Theory]
    [InlineData(null)]
    [InlineData("a friend")]
    public async Task How_long_inquiries_stood_is_counted_of_each_that_came(string? source)
    {
        var owner = await studio.OwnerAsync();
        var said = (await owner.GetAsync($"/api/reports?year=all&source={source}"))
            .GetProperty("lengths")
            .GetProperty("gates")
            .EnumerateArray()
            .ToDictionary(gate => Enum.Parse<Gate>(Text(gate, "gate")), gate => Number(gate, "count"));
        var stood = await studio.LookAsync(
            async (Desk desk) =>
            {
                var asked = await desk
                    .Db.Projects.Where(p => p.Standing.Ended != EndReason.NotAnInquiry)
                    .Where(p => source == null || p.Source == source)
                    .Select(p => p.Id)
                    .ToListAsync();
                return (await desk.Db.OpenManyAsync(asked, desk.Calendar))
                    .Values.SelectMany(file => Passage.Of(file.Case).Stays)
                    .GroupBy(stay => stay.Gate)
                    .ToDictionary(same => same.Key, same => same.Count());
            }
        );
        Assert.True(stood[Gate.Lead] > 3);
        Assert.Equal(stood.OrderBy(gate => gate.Key), said.OrderBy(gate => gate.Key));
    }

    [Fact]
    public async Task The_funnel_equals_a_naive_recount_from_the_facts()
    {
        var owner = await studio.OwnerAsync();
        var said = (await owner.GetAsync("/api/reports?year=all"))
            .GetProperty("gates")
            .EnumerateArray()
            .ToDictionary(
                gate => Enum.Parse<Gate>(Text(gate, "gate")),
                gate => (Number(gate, "came"), Number(gate, "passed"), Number(gate, "ended"), Number(gate, "open"))
            );
        var cases = await studio.LookAsync(
            async (Desk desk) =>
            {
                var ids = await desk.Db.Projects.Select(p => p.Id).ToListAsync();
                return (await desk.Db.OpenManyAsync(ids, desk.Calendar)).Values.Select(file => file.Case).ToList();
            }
        );
        cases.RemoveAll(one => one.End?.What.Reason == EndReason.NotAnInquiry);
        // as it would have been read after every single fact
        var furthest = cases
            .Select(one =>
                (
                    Case: one,
                    Stage: one.History.Facts.Select(fact => fact.Happened)
                        .Distinct()
                        .Max(at =>
                            GateRule.StageOf(
                                GateRule.Read(
                                    one with
                                    {
                                        History = new(one.History.Facts.Where(fact => fact.Happened <= at)),
                                    }
                                )
                            )
                        )
                )
            )
            .ToList();
        foreach (var gate in Enum.GetValues<Gate>())
        {
            var came = furthest.Where(one => one.Case.Kind.Gates.Contains(gate) && one.Stage >= (Stage)gate).ToList();
            var here = came.Where(one => one.Stage == (Stage)gate).ToList();
            Assert.Equal(
                (
                    came.Count,
                    came.Count - here.Count,
                    here.Count(one => one.Case.End is not null),
                    here.Count(one => one.Case.End is null)
                ),
                said[gate]
            );
        }
        Assert.True(said[Gate.Lead].Item1 > 40);
    }

    [Fact] // R6: (agreed net − direct costs) / hours over the finished work
    public async Task An_hour_of_a_source_equals_its_own_recount()
    {
        var owner = await studio.OwnerAsync();
        var rows = (await owner.GetAsync("/api/reports?year=all"))
            .GetProperty("brought")
            .GetProperty("rows")
            .EnumerateArray()
            .ToList();
        Assert.Contains(rows, row => Text(row, "anHour").Length > 0);
        foreach (var row in rows)
        {
            var source = Text(row, "key");
            var hour = await studio.LookAsync(
                async (Desk desk) =>
                {
                    var done = await desk
                        .Db.Projects.Where(p => p.Source == source && p.Standing.FinishedAt != null)
                        .Where(p => desk.Db.Hours.Any(h => h.ProjectId == p.Id && !h.Removed))
                        .Select(p => new { p.Id, p.Standing.NetMinor })
                        .ToListAsync();
                    var ids = done.Select(one => (ProjectId?)one.Id).ToList();
                    var minutes = await desk
                        .Db.Hours.Where(h => ids.Contains(h.ProjectId) && !h.Removed)
                        .SumAsync(h => h.Minutes);
                    var costs = (
                        await desk
                            .Db.Costs.Where(c => ids.Contains(c.ProjectId) && !c.Removed && !c.ChargeOn)
                            .ToListAsync()
                    ).Sum(c =>
                        Math.Round(
                            c.GrossMinor / (1 + c.TaxPartsPerMillion / 1_000_000m),
                            0,
                            MidpointRounding.AwayFromZero
                        )
                    );
                    return minutes == 0
                        ? (long?)null
                        : (long)
                            Math.Round(
                                (done.Sum(one => one.NetMinor!.Value) - costs) * 60 / minutes,
                                0,
                                MidpointRounding.AwayFromZero
                            );
                }
            );
            Assert.Equal(hour, Text(row, "anHour").Length == 0 ? null : Minor(Text(row, "anHour")));
        }
    }

    [Fact]
    public async Task What_was_no_inquiry_is_nowhere_and_a_rehearsal_neither()
    {
        var owner = await studio.OwnerAsync();
        var nothing = await studio.LookAsync(db =>
            db.Projects.CountAsync(p => p.Standing.Ended == EndReason.NotAnInquiry)
        );
        Assert.True(nothing > 0);
        var all = await studio.LookAsync(db => db.Projects.CountAsync());
        Assert.Equal(
            all - nothing,
            Number((await owner.GetAsync("/api/reports?year=all")).GetProperty("head"), "came")
        );
    }

    [Theory]
    [InlineData("year=next", "year")]
    [InlineData("from=2027-13-01", "from")]
    [InlineData("from=2027-02-01&until=2027-01-01", "until")]
    [InlineData("most=0", "most")]
    public async Task What_cannot_be_asked_is_named(string query, string field)
    {
        var owner = await studio.OwnerAsync();
        var refused = await owner.AskAsync($"/api/reports?{query}");
        Assert.Equal(400, (int)refused.StatusCode);
        Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("of=Passed", "gate")]
    [InlineData("of=Chased", "chases")]
    [InlineData("of=Hourly", "of")]
    [InlineData("of=Came&at=2099-01-01", "at")]
    [InlineData("of=Came&at=soon", "at")]
    [InlineData("of=Came&most=5000", "most")]
    public async Task A_figure_that_is_none_is_named(string pick, string field)
    {
        var owner = await studio.OwnerAsync();
        var refused = await owner.AskAsync($"/api/reports/projects?{pick}");
        Assert.Equal(400, (int)refused.StatusCode);
        Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }
}
