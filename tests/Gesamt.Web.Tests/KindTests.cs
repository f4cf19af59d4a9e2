using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Core.Projects;
using Gesamt.Store.Json;

namespace Gesamt.Web.Tests;

/// <summary>Everything of a kind is edited in the pages; projects that have begun keep what they began with.</summary>
public sealed class KindTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static async Task<long> KindAsync(Visitor owner, string name) =>
        (await owner.GetAsync("/api/kinds"))
            .EnumerateArray()
            .Single(kind => kind.GetProperty("name").GetString() == name)
            .GetProperty("id")
            .GetInt64();

    private static async Task<JsonNode> SettingsAsync(Visitor owner, long kind) =>
        JsonNode.Parse((await owner.GetAsync($"/api/kinds/{kind}")).GetProperty("settings").GetRawText())!;

    private static Task<HttpResponseMessage> SaveAsync(Visitor owner, long kind, JsonNode settings) =>
        owner.SendAsync(HttpMethod.Put, $"/api/kinds/{kind}/settings", JsonContent.Create(settings));

    private static async Task<long> NewKindAsync(
        Visitor owner,
        string name,
        string mainDate = "",
        bool usual = false
    ) => (
            await (
                await owner.PostAsync(
                    "/api/kinds",
                    new
                    {
                        name,
                        mainDate,
                        usual,
                    }
                )
            ).Content.ReadFromJsonAsync<JsonElement>()
        ).GetProperty("id").GetInt64();

    [Fact]
    public async Task A_new_project_begins_with_what_was_changed_and_one_begun_keeps_what_it_had()
    {
        var owner = await studio.OwnerAsync();
        var before = await studio.InquireAsync(new Visitor(studio), "before@lanternhouse.example");
        var kind = await KindAsync(owner, "Mural");
        var settings = await SettingsAsync(owner, kind);
        settings["path"]!["gates"]![4]!["name"] = "Painting";
        settings["path"]!["milestones"]!
            .AsArray()
            .Add(
                new JsonObject
                {
                    ["name"] = "wall primed",
                    ["gate"] = "Delivery",
                    ["by"] = "Said",
                }
            );
        settings["work"]!["phases"]![0]!["days"] = 3;
        Assert.Equal(HttpStatusCode.NoContent, (await SaveAsync(owner, kind, settings)).StatusCode);
        var after = await studio.InquireAsync(new Visitor(studio), "after@lanternhouse.example");
        async Task<JsonElement> LastGateAsync(long project) =>
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("path").GetProperty("gates")[4];
        Assert.Equal("Delivery", (await LastGateAsync(before)).GetProperty("name").GetString());
        Assert.Equal("Painting", (await LastGateAsync(after)).GetProperty("name").GetString());
        Assert.Empty((await LastGateAsync(before)).GetProperty("milestones").EnumerateArray());
        // reached when the owner says so, seen on the gate and in the Register
        var said = await owner.PostAsync(
            $"/api/projects/{after}/happened",
            new { sort = "Milestone", words = "wall primed" }
        );
        Assert.True(said.IsSuccessStatusCode, await said.Content.ReadAsStringAsync());
        Assert.Equal(
            "Mon 25 Jan",
            (await LastGateAsync(after)).GetProperty("milestones")[0].GetProperty("reached").GetString()
        );
        Assert.Contains(
            "wall primed",
            (await owner.GetAsync("/api/register?columns=Milestone")).GetRawText(),
            StringComparison.Ordinal
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    $"/api/projects/{before}/happened",
                    new { sort = "Milestone", words = "wall primed" }
                )
            ).StatusCode
        );
        settings = await SettingsAsync(owner, kind);
        settings["path"]!["gates"]![4]!["name"] = "";
        settings["path"]!["milestones"] = new JsonArray();
        await SaveAsync(owner, kind, settings);
    }

    [Theory]
    [InlineData("name", "", "name"), InlineData("name", "Menu boards", "name")]
    [InlineData("path.gates.0.has", false, "path.gates"), InlineData("path.gates.2.has", false, "path.win")]
    [InlineData("path.waiting", 0, "path.waiting"), InlineData("path.old", 1, "path.old")]
    [InlineData("path.bookingDays", -1, "path.bookingDays"), InlineData("work.rounds", 21, "work.rounds")]
    [
        InlineData("work.phases.1.name", "survey", "work.phases[1].name"),
        InlineData("work.phases.0.days", 0, "work.phases[0].days")
    ]
    [
        InlineData("inquiry.replyWithin", 31, "inquiry.replyWithin"),
        InlineData("details.0.name", "mail", "details[0].name")
    ]
    public async Task What_is_not_allowed_is_named_where_it_stands(string at, object value, string field)
    {
        var owner = await studio.OwnerAsync();
        var kind = await KindAsync(owner, "Mural");
        var settings = await SettingsAsync(owner, kind);
        var parts = at.Split('.');
        var node = settings;
        foreach (var part in parts[..^1])
            node = int.TryParse(part, out var index) ? node[index]! : node[part]!;
        node[parts[^1]] = JsonValue.Create(value);
        var refused = await SaveAsync(owner, kind, settings);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var errors = (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors");
        Assert.Contains(field, errors.EnumerateObject().Select(error => error.Name));
    }

    [Fact] // the rules of older projects and kinds hold names alone
    public void A_phase_that_was_a_name_reads_as_one_without_a_length()
    {
        var now = StoreJson.Write(KindRules.Default with { Phases = ["survey", new("paint", 5)] });
        var old = JsonNode.Parse(now)!.AsObject();
        old["phases"] = new JsonArray("survey", "paint");
        old.Remove("gateWords");
        old.Remove("milestones");
        var read = StoreJson.Read<KindRules>(old.ToJsonString());
        Assert.Equal([new("survey"), new("paint")], read.Phases);
        Assert.Empty(read.Milestones);
        Assert.Equal(5, StoreJson.Read<KindRules>(now).Phases[1].Days);
    }

    [Fact]
    public async Task A_kind_begun_from_nothing_has_nothing_or_what_is_usual()
    {
        var owner = await studio.OwnerAsync();
        var bare = await owner.GetAsync($"/api/kinds/{await NewKindAsync(owner, "Bare")}");
        Assert.Empty(bare.GetProperty("routines").EnumerateArray());
        var usual = await owner.GetAsync($"/api/kinds/{await NewKindAsync(owner, "Usual", "day", usual: true)}");
        Assert.NotEmpty(usual.GetProperty("routines").EnumerateArray());
        Assert.All(
            usual.GetProperty("routines").EnumerateArray(),
            routine => Assert.Empty(routine.GetProperty("trouble").EnumerateArray())
        );
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (
                await owner.PostAsync(
                    "/api/kinds",
                    new
                    {
                        name = "Usual",
                        mainDate = "",
                        usual = false,
                    }
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task A_letter_in_the_words_of_one_kind_is_written_with_for_its_projects_alone()
    {
        var owner = await studio.OwnerAsync();
        var kind = await KindAsync(owner, "Mural");
        object Words(string? key, string body) =>
            new
            {
                name = "Welcome to a wall",
                number = (int?)null,
                subject = "Welcome",
                body,
                edition = 0,
                files = Array.Empty<object>(),
                kind,
                key,
            };
        var made = await owner.PostAsync(
            "/api/letter-texts",
            Words("welcome", "Your wall is booked, [first name, or: there].")
        );
        Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        var id = (await made.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetInt32();
        // once for a kind
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.PostAsync("/api/letter-texts", Words("welcome", "Again."))).StatusCode
        );
        var mural = await studio.InquireAsync(new Visitor(studio), "own-words@lanternhouse.example");
        var board = (
            await (
                await owner.PostAsync(
                    "/api/inquiries",
                    Booking.TypedIn(await KindAsync(owner, "Menu boards"), "Bo Ard", "boards@lanternhouse.example")
                )
            ).Content.ReadFromJsonAsync<JsonElement>()
        );
        async Task<string?> WelcomeAsync(long project) =>
            (await owner.GetAsync($"/api/projects/{project}/letter"))
                .GetProperty("templates")
                .EnumerateArray()
                .Single(t => t.GetProperty("key").GetString() == "welcome")
                .GetProperty("openBody")
                .GetString();
        Assert.StartsWith("Your wall is booked", await WelcomeAsync(mural));
        Assert.DoesNotContain("Your wall is booked", await WelcomeAsync(board.GetProperty("id").GetInt64()));
        await owner.PostAsync($"/api/letter-texts/{id}/removed", new { removed = true });
        Assert.DoesNotContain("Your wall is booked", await WelcomeAsync(mural));
    }

    [Fact] // pages elsewhere still show the old address
    public async Task A_form_that_moves_is_found_at_every_address_it_had()
    {
        var owner = await studio.OwnerAsync();
        var kind = await KindAsync(owner, "Workshop");
        var form = JsonNode.Parse(
            (await owner.GetAsync($"/api/kinds/{kind}/forms"))
                .EnumerateArray()
                .First(f => f.GetProperty("purpose").GetString() == "Inquiry")
                .GetRawText()
        )!;
        async Task<HttpStatusCode> MoveAsync(string slug)
        {
            var now = (await owner.GetAsync($"/api/kinds/{kind}/forms"))
                .EnumerateArray()
                .First(f => f.GetProperty("purpose").GetString() == "Inquiry");
            form["edition"] = now.GetProperty("edition").GetInt32();
            form["slug"] = slug;
            return (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/forms/{now.GetProperty("id").GetInt32()}",
                    JsonContent.Create(form)
                )
            ).StatusCode;
        }
        Assert.Equal(HttpStatusCode.NoContent, await MoveAsync("learn-lettering"));
        Assert.Equal(HttpStatusCode.NoContent, await MoveAsync("learn-it"));
        foreach (var slug in new[] { "workshop", "learn-lettering", "learn-it" })
            Assert.Equal(HttpStatusCode.OK, (await new Visitor(studio).AskAsync($"/forms/{slug}")).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, await MoveAsync("mural"));
        Assert.Equal(HttpStatusCode.BadRequest, await MoveAsync("No Such Address"));
        // and back
        Assert.Equal(HttpStatusCode.NoContent, await MoveAsync("workshop"));
    }
}
