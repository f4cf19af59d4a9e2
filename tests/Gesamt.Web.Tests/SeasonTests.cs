using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>The season: phases, dates and payments of open projects, and from when new work could begin.</summary>
public sealed class SeasonTests(FullStudio studio) : IClassFixture<FullStudio>
{
    private static JsonElement Row(JsonElement season, string title) =>
        season.GetProperty("rows").EnumerateArray().Single(row => row.GetProperty("title").GetString() == title);

    private static string?[] Words(JsonElement row, string of) =>
        [.. row.GetProperty(of).EnumerateArray().Select(one => one.GetProperty("words").GetString())];

    [Fact]
    public async Task A_booked_project_shows_its_phases_its_date_and_its_payments()
    {
        var season = await (await studio.OwnerAsync()).GetAsync("/api/season");
        var row = Row(season, "Harbour bakery wall");
        Assert.Contains(Words(row, "phases"), words => words!.StartsWith("sketch, ", StringComparison.Ordinal));
        Assert.EndsWith(
            ", opening day",
            row.GetProperty("date").GetProperty("words").GetString(),
            StringComparison.Ordinal
        );
        Assert.Contains(Words(row, "dots"), words => words!.EndsWith("received", StringComparison.Ordinal));
        Assert.Contains(Words(row, "dots"), words => words!.EndsWith("to come", StringComparison.Ordinal));
        Assert.StartsWith("of ", row.GetProperty("money").GetProperty("under").GetString(), StringComparison.Ordinal);
        Assert.EndsWith(
            "if agreed",
            Row(season, "Saltmarsh gym").GetProperty("date").GetProperty("words").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task What_is_received_asked_for_and_to_come_is_the_agreed_price()
    {
        // every project with one agreed price and no invoice besides: the record's money is the oracle
        var owner = await studio.OwnerAsync();
        var sums = await studio.LookAsync(async (Desk desk) => (
                    await desk
                        .Db.Projects.AsNoTracking()
                        .Where(p => p.Standing.OnTable && p.Standing.AgreedMinor != null && p.Standing.Ended == null)
                        .Select(p => new
                        {
                            p.Id,
                            p.Title,
                            p.Standing,
                        })
                        .ToListAsync()
                ).Select(p => (p.Title, Agreed: p.Standing.AgreedMinor!.Value, Sum: p.Standing.PaidMinor + p.Standing.OwedMinor + Planning.SeasonDots.Agreed(p.Standing).Sum(part => part.Minor))).ToList());
        // paid, owed and to come can only differ from the price by what was billed besides it or credited
        var bare = sums.Where(one =>
                one.Title is "Harbour bakery wall" or "Signal box café" or "Kestrel climbing hall" or "Orchard school"
            )
            .ToList();
        Assert.Equal(4, bare.Count);
        Assert.All(bare, one => Assert.Equal((one.Title, one.Agreed), (one.Title, one.Sum)));
        Assert.NotEmpty((await owner.GetAsync("/api/season?months=12")).GetProperty("rows").EnumerateArray());
    }

    [Fact]
    public async Task The_next_free_start_follows_what_the_first_week_of_a_kind_takes()
    {
        var owner = await studio.OwnerAsync();
        var starts = (await owner.GetAsync("/api/season")).GetProperty("starts");
        Assert.Equal(10, starts.GetProperty("hours").GetInt32());
        var mural = starts
            .GetProperty("kinds")
            .EnumerateArray()
            .Single(kind => kind.GetProperty("name").GetString() == "Mural");
        Assert.Equal(14, mural.GetProperty("hours").GetInt32());
        var of = (await owner.GetAsync($"/api/season?kind={mural.GetProperty("id")}")).GetProperty("starts");
        Assert.Equal(14, of.GetProperty("hours").GetInt32());
        Assert.Matches("^Mon ", of.GetProperty("free").GetString());
    }

    [Fact]
    public async Task Phases_stored_beside_a_project_are_those_that_are_computed()
    {
        var ids = await studio.LookAsync(db => db.Projects.Select(p => p.Id).ToListAsync());
        foreach (var id in ids)
        {
            var (stored, computed) = await studio.LookAsync(
                async (Desk desk) =>
                {
                    var file = await desk.OpenAsync(id);
                    return (file.Row.Standing.Phases, Store.Json.StoreJson.Write(Core.Planning.Schedule.Of(file.Case)));
                }
            );
            Assert.Equal(computed, stored);
        }
    }

    [Fact]
    public async Task Other_months_and_spans_are_shown_as_asked()
    {
        var season = await (await studio.OwnerAsync()).GetAsync("/api/season?day=2026-11-15&months=12");
        var scale = season.GetProperty("scale");
        Assert.Equal("November 2026 to October 2027", season.GetProperty("title").GetString());
        Assert.Equal((365, 85), (scale.GetProperty("days").GetInt32(), scale.GetProperty("today").GetInt32()));
        Assert.Equal(12, scale.GetProperty("months").GetArrayLength());
        var far = await (await studio.OwnerAsync()).GetAsync("/api/season?day=2028-06-01&months=3");
        Assert.Equal(JsonValueKind.Null, far.GetProperty("scale").GetProperty("today").ValueKind);
        Assert.True(far.GetProperty("undated").GetInt32() > 0);
    }
}
