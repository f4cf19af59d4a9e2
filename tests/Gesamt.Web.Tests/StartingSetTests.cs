using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Core.Letters;
using Gesamt.Web.SettingUp;
using Gesamt.Web.SignIn;

namespace Gesamt.Web.Tests;

/// <summary>A studio as it is after its first page.</summary>
public sealed class FreshStudio() : Studio(withProjects: false, Lay())
{
    private static string Lay()
    {
        var data = Directory.CreateTempSubdirectory("gesamt-web").FullName;
        FirstStart
            .LayAsync(
                new() { Data = data },
                SignInEndpoints.NewHasher(),
                new("Inkwell & Daughter", "Mara Quince", "mara@inkwell.example", "harbour light", "Europe/Berlin")
            )
            .GetAwaiter()
            .GetResult();
        return data;
    }

    /// <summary>Takes a starting set, or nothing.</summary>
    public static async Task BeginAsync(Visitor owner, string? set) =>
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.PostAsync(
                    "/api/starting-sets/begin",
                    new
                    {
                        set,
                        currency = "EUR",
                        zone = "Europe/Berlin",
                        tax = "19",
                    }
                )
            ).StatusCode
        );
}

/// <summary>What a new studio may begin with works as it is: every form, letter, routine and paper of it.</summary>
public sealed class StartingSetTests
{
    public static TheoryData<string> Sets =>
        [
            .. Directory
                .GetDirectories(Path.Combine(Studio.Root, "sets"))
                .Where(folder => File.Exists(Path.Combine(folder, "set.json")))
                .Select(folder => Path.GetFileName(folder)),
        ];

    [Fact]
    public async Task There_is_a_set_for_each_of_six_trades_and_a_way_with_nothing()
    {
        await using var studio = new FreshStudio();
        var owner = await studio.OwnerAsync();
        var begin = await owner.GetAsync("/api/starting-sets");
        Assert.Equal(
            ["murals", "photography", "web", "stationery", "illustration", "advice"],
            begin.GetProperty("sets").EnumerateArray().Select(set => set.GetProperty("key").GetString())
        );
        await FreshStudio.BeginAsync(owner, null);
        Assert.Empty((await owner.GetAsync("/api/kinds")).EnumerateArray());
        // and every view can be looked at
        foreach (
            var path in new[]
            {
                "/api/today",
                "/api/turns",
                "/api/register",
                "/api/routines",
                "/api/letter-texts",
                "/api/people",
            }
        )
            await owner.GetAsync(path);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    "/api/starting-sets/begin",
                    new
                    {
                        set = "advice",
                        currency = "EUR",
                        zone = "Etc/UTC",
                        tax = "",
                    }
                )
            ).StatusCode
        );
    }

    [Theory]
    [MemberData(nameof(Sets))]
    public async Task Every_kind_of_a_set_takes_an_inquiry_to_a_booked_project_in_its_own_words(string set)
    {
        await using var studio = new FreshStudio();
        var owner = await studio.OwnerAsync();
        await FreshStudio.BeginAsync(owner, set);
        Assert.All(
            (await owner.GetAsync("/api/routines")).EnumerateArray(),
            routine => Assert.Empty(routine.GetProperty("trouble").EnumerateArray())
        );
        Assert.All(
            (await owner.GetAsync("/api/letter-texts")).EnumerateArray(),
            letter =>
            {
                LetterText.Parse(letter.GetProperty("subject").GetString()!);
                LetterText.Parse(letter.GetProperty("body").GetString()!);
            }
        );
        foreach (var kind in (await owner.GetAsync("/api/kinds")).EnumerateArray())
            await LivesAsync(studio, owner, kind);
    }

    private static async Task LivesAsync(FreshStudio studio, Visitor owner, JsonElement kind)
    {
        var (id, slug) = (kind.GetProperty("id").GetInt64(), kind.GetProperty("key").GetString()!);
        var page = await owner.GetAsync($"/api/kinds/{id}");
        Assert.NotEmpty(page.GetProperty("services").EnumerateArray());
        Assert.All(
            page.GetProperty("services").EnumerateArray(),
            service => Assert.Equal("19", service.GetProperty("tax").GetString())
        );
        LetterText.Parse(ConditionalText.Whole(page.GetProperty("contract").GetProperty("body").GetString()!));
        var mail = $"{slug}@lanternhouse.example";
        var visitor = new Visitor(studio);
        var form = await visitor.TokenAsync($"/forms/{slug}");
        var answers = form.GetProperty("fields")
            .EnumerateArray()
            .Where(field => field.GetProperty("required").GetBoolean())
            .ToDictionary(field => field.GetProperty("key").GetString()!, field => AnswerOf(field, mail));
        var sent = await visitor.PostAsync($"/forms/{slug}", new { answers });
        Assert.True(sent.IsSuccessStatusCode, $"{slug}: {await sent.Content.ReadAsStringAsync()}");
        await studio.TickAsync();
        var project = await studio.LookAsync(async db => (await db.Projects.MaxAsync(p => p.Id)).Value);
        // the thank-you has gone out by itself, with nothing left open in it
        var letters = await owner.GetAsync($"/api/post-office?address={mail}");
        Assert.Single(letters.EnumerateArray());
        await ProposeAsync(owner, project, page.GetProperty("services")[0]);
        await studio.TickAsync();
        var client = new Visitor(studio);
        var path = await studio.EnterAsync(owner, client, mail);
        Assert.True(
            (await client.PostAsync($"{path}/api/accept", new { chosen = Array.Empty<string>() })).IsSuccessStatusCode
        );
        var contract = (await client.GetAsync($"{path}/api")).GetProperty("booking").GetProperty("contract");
        Assert.DoesNotContain(
            "[",
            contract.GetProperty("text").GetRawText()[1..].Replace("\"runs\":[", "", StringComparison.Ordinal)
        );
        await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new { sort = "BookedStraightAway", words = "known" }
        );
        foreach (var sort in new[] { "Waived", "Waived" })
            await owner.PostAsync($"/api/projects/{project}/happened", new { sort, words = "for this test" });
        await studio.TickAsync();
        var record = await owner.GetAsync($"/api/projects/{project}");
        Assert.Equal(
            ["Lead", "Proposal", "Contract", "Payment", "Delivery"],
            record
                .GetProperty("path")
                .GetProperty("gates")
                .EnumerateArray()
                .Select(gate => gate.GetProperty("name").GetString())
        );
    }

    private static async Task ProposeAsync(Visitor owner, long project, JsonElement service)
    {
        var draft = await owner.GetAsync($"/api/projects/{project}/proposal");
        var offer = JsonNode.Parse(draft.GetProperty("offer").GetRawText())!;
        offer["lines"] = new JsonArray(
            new JsonObject
            {
                ["key"] = "a",
                ["role"] = "Included",
                ["group"] = null,
                ["title"] = service.GetProperty("title").GetString(),
                ["detail"] = service.GetProperty("detail").GetString(),
                ["quantity"] = "2",
                ["unit"] = service.GetProperty("unit").GetString(),
                ["unitPrice"] = service.GetProperty("unitPrice").GetString(),
                ["tax"] = "19",
                ["suggested"] = false,
            }
        );
        var saved = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/proposal",
            System.Net.Http.Json.JsonContent.Create(
                new
                {
                    edition = draft.GetProperty("edition").GetInt32(),
                    offer,
                    contract = draft.GetProperty("contract").GetString(),
                }
            )
        );
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        var desk = await owner.GetAsync($"/api/projects/{project}/letter");
        var letter = desk.GetProperty("templates")
            .EnumerateArray()
            .Single(t => t.GetProperty("key").GetString() == "proposal");
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new
            {
                subject = letter.GetProperty("openSubject").GetString(),
                body = letter.GetProperty("openBody").GetString(),
            }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
    }

    private static string AnswerOf(JsonElement field, string mail) =>
        field.GetProperty("sort").GetString() switch
        {
            "Mail" => mail,
            "Number" => "31",
            "Date" => "2027-09-10",
            "Consent" => "yes",
            "OneOf" or "AnyOf" => field.GetProperty("options")[0].GetString()!,
            _ => "Mona Delarue",
        };

    [Fact] // a second set, and the same once more, leave everything that is there as it was
    public async Task A_set_added_later_brings_what_is_missing_and_changes_nothing()
    {
        await using var studio = new FreshStudio();
        var owner = await studio.OwnerAsync();
        await FreshStudio.BeginAsync(owner, "stationery");
        async Task<Dictionary<int, string>> LettersAsync() =>
            (await owner.GetAsync("/api/letter-texts"))
                .EnumerateArray()
                .ToDictionary(l => l.GetProperty("id").GetInt32(), l => l.GetProperty("body").GetString()!);
        var before = await LettersAsync();
        foreach (var set in new[] { "photography", "stationery" })
            Assert.True((await owner.PostAsync($"/api/starting-sets/{set}")).IsSuccessStatusCode);
        var after = await LettersAsync();
        Assert.All(before, letter => Assert.Equal(letter.Value, after[letter.Key]));
        Assert.Equal(6, (await owner.GetAsync("/api/kinds")).GetArrayLength());
        Assert.All(
            (await owner.GetAsync("/api/routines")).EnumerateArray(),
            routine => Assert.Empty(routine.GetProperty("trouble").EnumerateArray())
        );
        // a photographer's handover speaks of a gallery, the stationer's does not
        var own = await studio.LookAsync(db =>
            db.LetterTemplates.Where(l => l.Key == "handover").Select(l => new { l.KindId, l.Body }).ToListAsync()
        );
        Assert.Equal(3, own.Count);
        Assert.Single(own, letter => letter.KindId == null && !letter.Body.Contains("pictures are ready"));
    }

    [Theory]
    [InlineData("nowhere", "EUR", "Etc/UTC", "", "set"), InlineData("../demo", "EUR", "Etc/UTC", "", "set")]
    [InlineData("advice", "XXX", "Etc/UTC", "", "currency"), InlineData("advice", "EUR", "Mars/Olympus", "", "zone")]
    [InlineData("advice", "EUR", "Etc/UTC", "much", "tax"), InlineData("advice", "EUR", "Etc/UTC", "101", "tax")]
    public async Task What_is_none_is_named_and_nothing_is_begun(
        string set,
        string currency,
        string zone,
        string tax,
        string field
    )
    {
        await using var studio = new FreshStudio();
        var owner = await studio.OwnerAsync();
        var refused = await owner.PostAsync(
            "/api/starting-sets/begin",
            new
            {
                set,
                currency,
                zone,
                tax,
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync());
        Assert.Empty((await owner.GetAsync("/api/kinds")).EnumerateArray());
    }

    [Fact]
    public async Task Each_step_goes_by_being_done_or_by_saying_so_and_can_be_put_back()
    {
        await using var studio = new FreshStudio();
        var owner = await studio.OwnerAsync();
        await FreshStudio.BeginAsync(owner, "advice");
        async Task<List<string>> OpenAsync() =>
            [
                .. (await owner.GetAsync("/api/today"))
                    .GetProperty("firstSteps")
                    .EnumerateArray()
                    .Select(step => step.GetProperty("step").GetString()!),
            ];
        Assert.Equal(["Work", "Prices", "Hours", "Mail", "Form"], await OpenAsync());
        await owner.ChangeStudioAsync(now => now["hours"]!["sendFrom"] = "09:00:00");
        await owner.PostAsync("/api/first-steps/Form/done");
        Assert.Equal(["Work", "Prices", "Mail"], await OpenAsync());
        await owner.PostAsync("/api/first-steps/Form/open");
        Assert.Equal(["Work", "Prices", "Mail", "Form"], await OpenAsync());
        foreach (var step in await OpenAsync())
            await owner.PostAsync($"/api/first-steps/{step}/done");
        Assert.Empty(await OpenAsync());
    }
}
