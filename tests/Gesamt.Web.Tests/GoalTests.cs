using System.Text.Json;

namespace Gesamt.Web.Tests;

/// <summary>Goals: set, changed, taken out, and measured by figures that count themselves.</summary>
public sealed class GoalTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static object Measure(
        string start,
        string target,
        string? figure = null,
        string present = "",
        string words = "",
        long? kind = null,
        string? source = null,
        string? atLeast = null
    ) =>
        new
        {
            words,
            start,
            target,
            present,
            figure,
            kind,
            source,
            atLeast,
        };

    private static async Task<long> SetAsync(Visitor owner, string title, int year, params object[] measures)
    {
        var done = await owner.PostAsync(
            "/api/goals",
            new
            {
                year,
                title,
                measures,
            }
        );
        var text = await done.Content.ReadAsStringAsync();
        Assert.True(done.IsSuccessStatusCode, text);
        return JsonDocument.Parse(text).RootElement.GetProperty("id").GetInt64();
    }

    private static async Task<JsonElement> GoalAsync(Visitor owner, string title, int year = 2027) =>
        (await owner.GetAsync($"/api/goals?year={year}"))
            .GetProperty("goals")
            .EnumerateArray()
            .Single(goal => goal.GetProperty("title").GetString() == title);

    [Fact]
    public async Task Typed_measures_at_80_and_40_per_cent_are_a_goal_at_60()
    {
        var owner = await studio.OwnerAsync();
        await SetAsync(
            owner,
            "Two at once",
            2027,
            Measure("10", "30", present: "26", words: "pages"),
            Measure("0", "10", present: "4", words: "walks")
        );
        var goal = await GoalAsync(owner, "Two at once");
        Assert.Equal(60, goal.GetProperty("percent").GetInt32());
        Assert.Equal("2 measures, their mean", goal.GetProperty("under").GetString());
        Assert.Equal(
            ["26 now, from 10 to 30", "4 of 10"],
            goal.GetProperty("measures").EnumerateArray().Select(one => one.GetProperty("told").GetString())
        );
    }

    [Fact]
    public async Task A_figure_counts_by_itself_and_only_what_it_is_narrowed_to()
    {
        var owner = await studio.OwnerAsync();
        await SetAsync(owner, "All of them", 2027, Measure("0", "4", "Inquiries"));
        await SetAsync(owner, "From the fair", 2027, Measure("0", "4", "Inquiries", source: "a fair"));
        async Task<(string?, string?)> ToldAsync() =>
            (
                (await GoalAsync(owner, "All of them")).GetProperty("under").GetString(),
                (await GoalAsync(owner, "From the fair")).GetProperty("under").GetString()
            );
        var before = await ToldAsync();
        await studio.InquireAsync(new Visitor(studio), "goal-one@lanternhouse.example");
        await studio.LookAsync(db =>
            db.AllProjects.OrderByDescending(p => p.Id)
                .Take(1)
                .ExecuteUpdateAsync(set => set.SetProperty(p => p.Source, "a fair"))
        );
        var after = await ToldAsync();
        Assert.Equal(Plus(before.Item1, 1), after.Item1);
        Assert.Equal("0 of 4 inquiries", before.Item2);
        Assert.Equal("1 of 4 inquiries", after.Item2);

        static string Plus(string? told, int more) =>
            $"{int.Parse(told!.Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture) + more} of 4 inquiries";
    }

    [Fact]
    public async Task Every_figure_can_be_measured_by_in_a_studio_where_nothing_has_happened()
    {
        var owner = await studio.OwnerAsync();
        foreach (var figure in Enum.GetNames<Store.Model.GoalFigure>())
            await SetAsync(owner, $"By {figure}", 2031, Measure("5", "10", figure));
        foreach (var goal in (await owner.GetAsync("/api/goals?year=2031")).GetProperty("goals").EnumerateArray())
            Assert.Equal(0, goal.GetProperty("percent").GetInt32());
        Assert.Contains(
            "no figure yet",
            (await GoalAsync(owner, "By AnHour", 2031)).GetProperty("under").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_goal_is_changed_taken_out_and_put_back()
    {
        var owner = await studio.OwnerAsync();
        var id = await SetAsync(owner, "Draw more", 2028, Measure("", "50", words: "drawings"));
        var changed = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/goals/{id}",
            System.Net.Http.Json.JsonContent.Create(
                new
                {
                    year = 2028,
                    title = "Draw much more",
                    measures = new[] { Measure("0", "100", present: "25", words: "drawings") },
                }
            )
        );
        Assert.True(changed.IsSuccessStatusCode, await changed.Content.ReadAsStringAsync());
        Assert.Equal(25, (await GoalAsync(owner, "Draw much more", 2028)).GetProperty("percent").GetInt32());
        await owner.PostAsync($"/api/goals/{id}/removed", new { removed = true });
        Assert.Equal(0, (await owner.GetAsync("/api/goals?year=2028")).GetProperty("goals").GetArrayLength());
        await owner.PostAsync($"/api/goals/{id}/removed", new { removed = false });
        Assert.Equal(1, (await owner.GetAsync("/api/goals?year=2028")).GetProperty("goals").GetArrayLength());
    }

    [Fact]
    public async Task What_is_wrong_is_named_by_its_field()
    {
        var owner = await studio.OwnerAsync();
        async Task<string> RefusedAsync(object goal)
        {
            var refused = await owner.PostAsync("/api/goals", goal);
            Assert.Equal(400, (int)refused.StatusCode);
            return await refused.Content.ReadAsStringAsync();
        }
        var many = await RefusedAsync(
            new
            {
                year = 2027,
                title = "Wrong",
                measures = new[] { Measure("much", "", words: ""), Measure("0", "1e99", "Booked", atLeast: "a lot") },
            }
        );
        foreach (
            var field in new[]
            {
                "measures.0.words",
                "measures.0.start",
                "measures.0.target",
                "measures.1.target",
                "measures.1.atLeast",
            }
        )
            Assert.Contains($"\"{field}\"", many, StringComparison.Ordinal);
        var one = new[] { Measure("0", "5", "Booked") };
        Assert.Contains(
            "\"title\"",
            await RefusedAsync(
                new
                {
                    year = 2027,
                    title = " ",
                    measures = one,
                }
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "\"year\"",
            await RefusedAsync(
                new
                {
                    year = 12,
                    title = "x",
                    measures = one,
                }
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "\"measures\"",
            await RefusedAsync(
                new
                {
                    year = 2027,
                    title = "x",
                    measures = Array.Empty<object>(),
                }
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "\"kind\"",
            await RefusedAsync(
                new
                {
                    year = 2027,
                    title = "x",
                    measures = new[] { Measure("0", "5", "Booked", kind: 999) },
                }
            ),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task What_the_form_s_address_says_brought_a_visitor_is_kept_and_cut_where_it_is_too_long()
    {
        var owner = await studio.OwnerAsync();
        var plain = await new Visitor(studio).AskAsync("/forms/mural/plain?campaign=Harbour%20%22fair%22");
        Assert.Contains(
            "value=\"Harbour &quot;fair&quot;\"",
            await plain.Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "/forms/mural/plain?campaign=Harbour%20%22fair%22\"",
            await (
                await new Visitor(studio).AskAsync("/i/mural?campaign=Harbour%20%22fair%22")
            ).Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
        var id = await studio.InquireAsync(
            new Visitor(studio),
            "leaflet@lanternhouse.example",
            campaign: new string('x', 5_000)
        );
        var record = await owner.GetAsync($"/api/projects/{id}");
        Assert.Equal(
            new string('x', Core.Projects.HeadLimits.Campaign),
            record.GetProperty("head").GetProperty("campaign").GetString()
        );
    }
}
