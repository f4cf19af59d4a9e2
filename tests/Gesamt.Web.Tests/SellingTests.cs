using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests;

/// <summary>Proposals in depth, the price list, and signed papers, on the real server.</summary>
public sealed class SellingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    // the smallest PNG there is: one pixel
    private static readonly byte[] Picture = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
    );

    private static async Task<JsonNode> DraftAsync(Visitor owner, long project) =>
        JsonNode.Parse((await owner.GetAsync($"/api/projects/{project}/proposal")).GetRawText())!;

    private static async Task<HttpResponseMessage> ChangeAsync(Visitor owner, long project, Action<JsonNode> change)
    {
        var draft = await DraftAsync(owner, project);
        change(draft["offer"]!);
        return await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/proposal",
            JsonContent.Create(
                new
                {
                    edition = (int)draft["edition"]!,
                    offer = draft["offer"],
                    contract = (string)draft["contract"]!,
                }
            )
        );
    }

    private async Task SendAgainAsync(Visitor owner, long project)
    {
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "Changed", body = "[proposal link]" }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
    }

    private static async Task<string> KeepAsync(Visitor owner, string name, byte[] bytes)
    {
        var kept = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/paper-files?name={name}",
            new ByteArrayContent(bytes) { Headers = { ContentType = new("application/octet-stream") } }
        );
        Assert.True(kept.IsSuccessStatusCode, await kept.Content.ReadAsStringAsync());
        return JsonDocument.Parse(await kept.Content.ReadAsStringAsync()).RootElement.GetProperty("hash").GetString()!;
    }

    [Fact]
    public async Task A_quantity_within_its_limits_is_chosen_signed_and_invoiced_and_no_other()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "names@lanternhouse.example");
        await ChangeAsync(
            owner,
            project,
            offer => offer["lines"]![3]!["more"]!["limits"] = new JsonObject { ["least"] = "4", ["most"] = "30" }
        );
        await SendAgainAsync(owner, project);
        var refused = await client.PostAsync(
            $"{page}/api/accept",
            new { chosen = new[] { "s", "n" }, quantities = new[] { new { key = "n", quantity = "31" } } }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("quantity.n", await refused.Content.ReadAsStringAsync());
        foreach (var wrong in new[] { "many", "", "2.5", "-3", "1e9" })
            Assert.Equal(
                HttpStatusCode.BadRequest,
                (await client.AskAsync($"{page}/api/price?choose=s&choose=n&quantity=n%3D{wrong}")).StatusCode
            );
        var priced = await client.GetAsync($"{page}/api/price?choose=s&choose=n&quantity=n%3D20");
        Assert.Equal(
            "€ 6 789.60",
            priced.GetProperty("total").GetString()!.Replace('\u202f', ' ').Replace('\u00a0', ' ')
        ); // (4 340 + 780 + 400) × 1.23
        Assert.True(
            (
                await client.PostAsync(
                    $"{page}/api/accept",
                    new { chosen = new[] { "s", "n" }, quantities = new[] { new { key = "n", quantity = "20" } } }
                )
            ).IsSuccessStatusCode
        );
        await client.SignAsync(page);
        var (id, agreed) = (
            new ProjectId(project),
            await studio.LookAsync(db =>
                db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing.AgreedMinor).SingleAsync()
            )
        );
        Assert.Equal(678_960, agreed);
        Assert.Equal(
            271_584, // 40 %
            await studio.LookAsync(db =>
                db.Invoices.Where(i => i.ProjectId == id).Select(i => i.TotalMinor).SingleAsync()
            )
        );
    }

    [Fact]
    public async Task A_change_is_asked_and_the_next_version_says_what_is_different()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "different@lanternhouse.example");
        Assert.True(
            (
                await client.PostAsync($"{page}/api/change", new { words = "Two walls only", sort = "Objection" })
            ).IsSuccessStatusCode
        );
        Assert.Contains("objects to the proposal", (await owner.GetAsync($"/api/projects/{project}")).GetRawText());
        await ChangeAsync(
            owner,
            project,
            offer =>
            {
                offer["lines"]![0]!["quantity"] = "20";
                offer["lines"]!.AsArray().RemoveAt(3);
            }
        );
        var draft = await DraftAsync(owner, project);
        Assert.Equal(
            ["Cheaper: Gable mural, 20", "Gone: Name, 14"],
            draft["differences"]!.AsArray().Select(one => $"{one!["sort"]}: {one["what"]}")
        );
        await SendAgainAsync(owner, project);
        // the link of the first letter leads to the newest
        var proposal = (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("proposal");
        Assert.Equal(2, proposal.GetProperty("version").GetInt32());
        Assert.Equal(2, proposal.GetProperty("before").GetArrayLength());
        Assert.True(
            (
                await client.PostAsync($"{page}/api/decline", new { words = "The money went elsewhere" })
            ).IsSuccessStatusCode
        );
        Assert.Contains("The money went elsewhere", (await owner.GetAsync($"/api/projects/{project}")).GetRawText());
    }

    [Fact]
    public async Task What_ran_out_cannot_be_chosen_and_is_renewed_by_one_act()
    {
        await using var own = new EmptyStudio();
        var (owner, client) = (await own.OwnerAsync(), new Visitor(own));
        var project = await own.InquireAsync(new Visitor(own), "expired@lanternhouse.example");
        Assert.Equal(
            HttpStatusCode.Conflict, // nothing was sent yet
            (await owner.PostAsync($"/api/projects/{project}/proposal/renew")).StatusCode
        );
        await own.WaitUntilAsync(Instant.FromUtc(2027, 1, 26, 10, 0));
        var (second, page) = await own.ProposeAsync(owner, client, "expired2@lanternhouse.example");
        await own.WaitUntilAsync(Instant.FromUtc(2027, 3, 1, 10, 0));
        owner = await own.OwnerAsync();
        var read = (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("proposal");
        Assert.True(read.GetProperty("ranOut").GetBoolean());
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } })).StatusCode
        );
        var renewed = await owner.PostAsync($"/api/projects/{second}/proposal/renew");
        Assert.True(renewed.IsSuccessStatusCode, await renewed.Content.ReadAsStringAsync());
        await own.WaitUntilAsync(Instant.FromUtc(2027, 3, 1, 10, 10));
        var again = (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("proposal");
        Assert.False(again.GetProperty("ranOut").GetBoolean());
        Assert.Equal("15 March 2027", again.GetProperty("validUntil").GetString());
        Assert.True((await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } })).IsSuccessStatusCode);
    }

    [Fact]
    public async Task Everything_missing_is_named_with_its_place_and_nothing_goes_before()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "missing@lanternhouse.example");
        await ChangeAsync(owner, project, offer => offer["validUntil"] = "2020-01-01");
        var points = (await DraftAsync(owner, project))["points"]!.AsArray();
        Assert.Equal(
            ["validUntil", "lines"],
            points.Where(one => (bool)one!["blocks"]! && !(bool)one["done"]!).Select(one => (string)one!["where"]!)
        );
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "Yours", body = "[proposal link]" }
        );
        Assert.Equal(HttpStatusCode.BadRequest, sent.StatusCode);
        Assert.Contains("Valid until lies in the past", await sent.Content.ReadAsStringAsync());
    }

    [Theory]
    [InlineData("currency", "\"XXX\"", "ISO 4217"), InlineData("title", "\"LONG\"", "at most 200")]
    [InlineData("parts", "[{\"sort\":\"Picture\",\"picture\":\"../../x\"}]", "file once more")]
    [InlineData("less", "{\"sort\":\"Share\",\"figure\":\"101\",\"why\":\"\"}", "between 0 and 100")]
    [InlineData(
        "plan",
        "[{\"share\":\"100\",\"sort\":\"AroundDate\",\"days\":0,\"date\":null,\"invoiceDaysBefore\":14}]",
        "which date"
    )]
    public async Task What_cannot_be_kept_is_named_by_its_field(string field, string value, string said)
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), $"odd-{field}@lanternhouse.example");
        var answer = await ChangeAsync(
            owner,
            project,
            offer =>
                offer[field] = JsonNode.Parse(value.Replace("LONG", new string('x', 201), StringComparison.Ordinal))
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.Contains(said, text);
        Assert.Contains($"\"{field}", text);
    }

    [Fact]
    public async Task A_picture_is_shown_to_whom_it_was_sent_and_to_nobody_else()
    {
        var (owner, mona, ada) = (await studio.OwnerAsync(), new Visitor(studio), new Visitor(studio));
        var hash = await KeepAsync(owner, "hall.png", Picture);
        var (project, page) = await studio.ProposeAsync(owner, mona, "picture@lanternhouse.example");
        var (_, adas) = await studio.ProposeAsync(owner, ada, "nopicture@lanternhouse.example");
        await ChangeAsync(
            owner,
            project,
            offer =>
                offer["parts"]!
                    .AsArray()
                    .Add(
                        new JsonObject
                        {
                            ["sort"] = "Picture",
                            ["body"] = "The hall",
                            ["picture"] = hash,
                        }
                    )
        );
        Assert.Equal(HttpStatusCode.NotFound, (await mona.AskAsync($"{page}/api/papers/{hash}")).StatusCode);
        await SendAgainAsync(owner, project);
        var shown = await mona.AskAsync($"{page}/api/papers/{hash}");
        Assert.Equal(Picture, await shown.Content.ReadAsByteArrayAsync());
        Assert.Equal(HttpStatusCode.NotFound, (await ada.AskAsync($"{adas}/api/papers/{hash}")).StatusCode);
        var wrong = await owner.SendAsync(
            HttpMethod.Post,
            "/api/paper-files?name=song.mp3",
            new ByteArrayContent(Encoding.ASCII.GetBytes("no picture"))
            {
                Headers = { ContentType = new("application/octet-stream") },
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
    }

    [Fact]
    public async Task A_draft_kept_as_a_template_is_what_the_next_of_its_kind_begins_with()
    {
        await using var own = new EmptyStudio();
        var (owner, client) = (await own.OwnerAsync(), new Visitor(own));
        var (project, _) = await own.ProposeAsync(owner, client);
        await ChangeAsync(
            owner,
            project,
            offer =>
                offer["parts"] = JsonNode.Parse(
                    """[{"sort":"Why","heading":"Why","body":"Wet boots."},{"sort":"Services"}]"""
                )
        );
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.PostAsync($"/api/projects/{project}/proposal/template", new { name = " " })).StatusCode
        );
        Assert.True(
            (
                await owner.PostAsync($"/api/projects/{project}/proposal/template", new { name = "A wall" })
            ).IsSuccessStatusCode
        );
        var second = await own.InquireAsync(new Visitor(own), "next@lanternhouse.example");
        var draft = await DraftAsync(owner, second);
        Assert.Equal("Wet boots.", (string)draft["offer"]!["parts"]![0]!["body"]!);
        Assert.Equal(4, draft["offer"]!["lines"]!.AsArray().Count);
        Assert.Equal((string)draft["project"]!, (string)draft["offer"]!["title"]!);
    }

    [Fact]
    public async Task A_price_list_goes_out_as_a_table_and_comes_in_again_the_same()
    {
        var owner = await studio.OwnerAsync();
        Task<HttpResponseMessage> InAsync(string table) =>
            owner.SendAsync(
                HttpMethod.Post,
                "/api/services/table",
                new ByteArrayContent(Encoding.UTF8.GetBytes(table))
                {
                    Headers = { ContentType = new("application/octet-stream") },
                }
            );
        var first = await InAsync(
            "Service,Unit,Price,Tax %,Tax included,Price steps,Hours\r\n\"Journey, there and back\",km,0.60,23,yes,100: 0.50; 500: 0.40,\r\nAdvice,hour,60,23,no,,1\r\n"
        );
        Assert.Contains("\"added\":2", await first.Content.ReadAsStringAsync());
        var list = (await owner.GetAsync("/api/services")).GetProperty("services");
        Assert.Equal("Journey, there and back", list[0].GetProperty("title").GetString());
        Assert.Equal(2, list[0].GetProperty("more").GetProperty("steps").GetArrayLength());
        var table = await (await owner.AskAsync("/api/services.csv")).Content.ReadAsStringAsync();
        Assert.Equal(
            "{\"added\":0,\"changed\":0}",
            (await (await InAsync(table)).Content.ReadAsStringAsync()).Replace(" ", "", StringComparison.Ordinal)
        );
        Assert.Equal(table, await (await owner.AskAsync("/api/services.csv")).Content.ReadAsStringAsync());
        var wrong = await InAsync("Service,Price\r\nAdvice,60\r\nTravel,a lot\r\n");
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        Assert.Contains("Row 3, unitPrice", await wrong.Content.ReadAsStringAsync());
        // those of every kind are offered for any project, a price with tax worked out before it
        var project = await studio.InquireAsync(new Visitor(studio), "prices@lanternhouse.example");
        var journey = (await owner.GetAsync($"/api/projects/{project}/services"))
            .EnumerateArray()
            .Single(one => one.GetProperty("line").GetProperty("title").GetString() == "Journey, there and back");
        Assert.Equal("0.487805", journey.GetProperty("line").GetProperty("unitPrice").GetString());
    }

    [Fact]
    public async Task A_signed_contract_is_sealed_listed_and_known_again_by_its_bytes_alone()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "sealed@lanternhouse.example");
        await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } });
        await client.SignAsync(page);
        var file = await (await client.AskAsync($"{page}/api/contract.pdf")).Content.ReadAsByteArrayAsync();
        Assert.Contains("ETSI.CAdES.detached", Encoding.Latin1.GetString(file));
        var row = (await owner.GetAsync("/api/papers/signed"))
            .GetProperty("rows")
            .EnumerateArray()
            .Single(one => one.GetProperty("project").GetInt64() == project);
        Assert.True(row.GetProperty("sealed").GetBoolean());
        Assert.Equal("Mona Delarue", row.GetProperty("by").GetString());
        Assert.Empty((await owner.GetAsync("/api/papers/signed?voided=true")).GetProperty("rows").EnumerateArray());
        Assert.Empty((await owner.GetAsync("/api/papers/signed?year=2019")).GetProperty("rows").EnumerateArray());
        var stranger = new Visitor(studio);
        async Task<JsonElement> CheckAsync(byte[] bytes) =>
            await stranger.GetAsync($"/check/api/{Convert.ToHexStringLower(SHA256.HashData(bytes))}");
        var known = await CheckAsync(file);
        Assert.True(known.GetProperty("known").GetBoolean());
        Assert.Contains("signed by Mona Delarue", known.GetProperty("words").GetString());
        file[^1] ^= 1;
        Assert.False((await CheckAsync(file)).GetProperty("known").GetBoolean());
        Assert.Equal(HttpStatusCode.BadRequest, (await stranger.AskAsync("/check/api/abc")).StatusCode);
    }

    [Fact]
    public async Task A_proposal_in_another_currency_is_booked_and_paid_in_it_and_never_added_to_the_studios_own()
    {
        await using var own = new EmptyStudio();
        var (owner, client) = (await own.OwnerAsync(), new Visitor(own));
        var (home, homePage) = await own.ProposeAsync(owner, client, "home@lanternhouse.example");
        await own.SignedAsync(client, homePage);
        var abroad = new Visitor(own);
        var (project, page) = await own.ProposeAsync(owner, abroad, "abroad@lanternhouse.example");
        await ChangeAsync(owner, project, offer => offer["currency"] = "USD");
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "In dollars", body = "[proposal link]" }
        );
        Assert.True(sent.IsSuccessStatusCode);
        await own.TickAsync();
        await own.SignedAsync(abroad, page);
        var paid = await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new
            {
                sort = "Paid",
                on = (string?)null,
                words = (string?)null,
                until = (string?)null,
                amount = "1 000",
                means = "Transfer",
                invoice = await own.LookAsync(db =>
                    db.Invoices.Where(i => i.ProjectId == new ProjectId(project)).Select(i => i.Id.Value).SingleAsync()
                ),
            }
        );
        Assert.True(paid.IsSuccessStatusCode, await paid.Content.ReadAsStringAsync());
        static string Plain(JsonElement json) =>
            json.GetRawText()
                .Replace("\\u202F", " ")
                .Replace("\\u00A0", " ")
                .Replace('\u202f', ' ')
                .Replace('\u00a0', ' ');
        foreach (
            var place in new[]
            {
                $"/api/projects/{project}",
                "/api/today",
                "/api/turns",
                "/api/register",
                "/api/people",
                $"/api/projects/{project}/proposal",
            }
        )
            Assert.True((await owner.AskAsync(place)).IsSuccessStatusCode, place);
        var register = Plain(await owner.GetAsync("/api/register"));
        Assert.DoesNotContain("10 800.00", register); // the one in euro and the one in dollars, added up
        Assert.Contains("€ 5 400.00", register);
        Assert.Contains("1 000.00", Plain(await owner.GetAsync($"/api/projects/{project}")));
        Assert.NotEqual(home, project);
    }
}
