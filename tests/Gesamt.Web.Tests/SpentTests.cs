using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests;

/// <summary>Hours and costs of a project: kept, and charged once.</summary>
public sealed class SpentTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private Task<long> BeginAsync(string who) => studio.InquireAsync(new Visitor(studio), $"{who}@spent.example");

    private static async Task<long> KeepAsync(Visitor owner, long project, string sort, object what)
    {
        var kept = await owner.PostAsync($"/api/projects/{project}/{sort}", what);
        Assert.True(kept.IsSuccessStatusCode, await kept.Content.ReadAsStringAsync());
        return (await kept.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt64();
    }

    private static Task<long> HoursAsync(
        Visitor owner,
        long project,
        string time,
        string words = "",
        string? on = null
    ) =>
        KeepAsync(
            owner,
            project,
            "hours",
            new
            {
                time,
                words,
                on,
            }
        );

    private static object Cost(string amount = "61.50", string tax = "23", bool chargeOn = true) =>
        new
        {
            on = (string?)null,
            what = "Scaffold, two days",
            payee = "Northgate Hire",
            category = "hire",
            amount,
            tax,
            chargeOn,
        };

    private static Task<JsonElement> SpentAsync(Visitor owner, long project) =>
        owner.GetAsync($"/api/projects/{project}/spent");

    private static string Plain(JsonElement text) => text.GetString()!.Replace('\u202F', ' ').Replace('\u00A0', ' ');

    [Fact]
    public async Task Hours_and_costs_are_kept_changed_and_taken_out()
    {
        var owner = await studio.OwnerAsync();
        var project = await BeginAsync("kept");
        Assert.Equal(
            JsonValueKind.Null,
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("spent").ValueKind
        );
        var first = await HoursAsync(owner, project, "2.25", "Primed the wall", "2027-01-20");
        await HoursAsync(owner, project, "90 min");
        var cost = await KeepAsync(owner, project, "costs", Cost());
        var spent = await SpentAsync(owner, project);
        Assert.Equal(
            ("3 h 45 min", "€ 61.50", "€ 61.50"),
            (
                Plain(spent.GetProperty("sums").GetProperty("hours")),
                Plain(spent.GetProperty("sums").GetProperty("costs")),
                Plain(spent.GetProperty("sums").GetProperty("costsFree"))
            )
        );
        Assert.Equal("hire", spent.GetProperty("usual").GetProperty("categories")[0].GetString());
        Assert.Equal(
            "3 h 45 min, € 61.50 of costs",
            Plain((await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("spent"))
        );

        async Task<HttpStatusCode> PutAsync(string at, object what) =>
            (
                await owner.SendAsync(HttpMethod.Put, $"/api/projects/{project}/{at}", JsonContent.Create(what))
            ).StatusCode;
        Assert.Equal(
            HttpStatusCode.NoContent,
            await PutAsync(
                $"hours/{first}",
                new
                {
                    time = "1:30",
                    words = "",
                    on = "2027-01-21",
                }
            )
        );
        Assert.Equal(HttpStatusCode.NoContent, await PutAsync($"costs/{cost}", Cost("100", "0", chargeOn: false)));
        await owner.PostAsync($"/api/projects/{project}/hours/{first}/removed", new { removed = true });
        spent = await SpentAsync(owner, project);
        Assert.Equal("1 h 30 min", spent.GetProperty("sums").GetProperty("hours").GetString());
        Assert.Equal(JsonValueKind.Null, spent.GetProperty("sums").GetProperty("costsFree").ValueKind);
        await owner.PostAsync($"/api/projects/{project}/hours/{first}/removed", new { removed = false });
        Assert.Equal("3 h", (await SpentAsync(owner, project)).GetProperty("sums").GetProperty("hours").GetString());
        // of another project they are none
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await owner.PostAsync(
                    $"/api/projects/{await BeginAsync("other")}/hours/{first}/removed",
                    new { removed = true }
                )
            ).StatusCode
        );
    }

    [Theory]
    [InlineData("hours", "time", "a while", "1:30 or 90 min")]
    [InlineData("hours", "time", "25", "24 hours")]
    [InlineData("hours", "on", "2027-02-28", "later than today")]
    [InlineData("costs", "what", "", "1 to 200")]
    [InlineData("costs", "amount", "many", "above 0")]
    [InlineData("costs", "amount", "0", "above 0")]
    [InlineData("costs", "tax", "101", "between 0 and 100")]
    [InlineData("costs", "on", "1999-01-01", "twenty years")]
    public async Task What_is_wrong_is_named_by_its_field(string sort, string field, string value, string allowed)
    {
        var owner = await studio.OwnerAsync();
        var project = await BeginAsync($"wrong{Guid.NewGuid():n}");
        var said = JsonNode
            .Parse(
                sort == "hours"
                    ? """{"on":null,"time":"2","words":""}"""
                    : """{"on":null,"what":"Paint","payee":"","category":"","amount":"20","tax":"23","chargeOn":false}"""
            )!
            .AsObject();
        said[field] = value;
        var refused = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/projects/{project}/{sort}",
            JsonContent.Create(said)
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var errors = (
            await refused.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken)
        ).GetProperty("errors");
        Assert.Contains(allowed, errors.GetProperty(field)[0].GetString());
    }

    /// <summary>Kept hours and a cost on an invoice; what a client pays again is what the studio paid without its tax, with the studio's own.</summary>
    private static async Task<(JsonElement Kept, long Hours, long Cost)> WriteAsync(Visitor owner, long project)
    {
        var hours = await HoursAsync(owner, project, "2.25", "Primed", "2027-01-20");
        var more = await HoursAsync(owner, project, "1:30", "Sketched", "2027-01-22");
        var cost = await KeepAsync(owner, project, "costs", Cost());
        var lines = await owner.GetAsync(
            $"/api/projects/{project}/spent/lines?hours={hours}&hours={more}&costs={cost}&rate=60"
        );
        Assert.Equal(("2027-01-20"), lines.GetProperty("from").GetString());
        var bill = Bills.Of();
        bill["lines"] = JsonNode.Parse(lines.GetProperty("lines").GetRawText());
        return (await owner.KeepBillAsync(project, bill), hours, cost);
    }

    [Fact]
    public async Task What_was_kept_is_charged_once_and_free_again_when_it_is_credited()
    {
        var owner = await studio.OwnerAsync();
        var project = await BeginAsync("charged");
        var (kept, hours, cost) = await WriteAsync(owner, project);
        // 3.75 h at 60 are 225.00; 61.50 with 23 % are 50.00 without
        Assert.Equal(
            ["225.00", "50.00"],
            kept.GetProperty("sums").GetProperty("lines").EnumerateArray().Select(one => one.GetString())
        );
        async Task<HttpStatusCode> RemoveAsync() =>
            (
                await owner.PostAsync($"/api/projects/{project}/hours/{hours}/removed", new { removed = true })
            ).StatusCode;
        async Task<HttpStatusCode> LinesAsync() =>
            (await owner.AskAsync($"/api/projects/{project}/spent/lines?hours={hours}&rate=60")).StatusCode;
        // while it is being written neither changes
        Assert.Equal((HttpStatusCode.Conflict, HttpStatusCode.BadRequest), (await RemoveAsync(), await LinesAsync()));
        var issued = await owner.IssueAsync(project, kept);
        var spent = await SpentAsync(owner, project);
        Assert.All(
            spent.GetProperty("hours").EnumerateArray().Concat(spent.GetProperty("costs").EnumerateArray()),
            one => Assert.Contains(issued.GetProperty("number").GetString()!, one.GetProperty("charged").GetString())
        );
        Assert.Equal(JsonValueKind.Null, spent.GetProperty("sums").GetProperty("hoursFree").ValueKind);
        Assert.Equal((HttpStatusCode.Conflict, HttpStatusCode.BadRequest), (await RemoveAsync(), await LinesAsync()));
        // by its numbers alone it is not charged again either
        var bill = Bills.Of(Bills.Line("Once more", "1", "60", "23"));
        bill["lines"]![0]!["hours"] = new JsonArray(hours);
        var again = await owner.KeepBillAsync(project, bill);
        var refused = await owner.PostAsync(
            $"/api/projects/{project}/bill/issue",
            new { edition = again.GetProperty("edition").GetInt32() }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("charged already", await refused.Content.ReadAsStringAsync());
        await owner.SendAsync(HttpMethod.Delete, $"/api/projects/{project}/bill", null);

        var invoice = issued.GetProperty("invoice").GetInt64();
        await owner.PostAsync($"/api/invoices/{invoice}/credit", new { amount = "100", why = "goodwill" });
        Assert.Equal(HttpStatusCode.Conflict, await RemoveAsync());
        await owner.PostAsync($"/api/invoices/{invoice}/credit", new { amount = "238.25", why = "written anew" });
        Assert.Equal(HttpStatusCode.OK, await LinesAsync());
        Assert.Equal(
            "3 h 45 min",
            (await SpentAsync(owner, project)).GetProperty("sums").GetProperty("hoursFree").GetString()
        );
        Assert.Equal(HttpStatusCode.NoContent, await RemoveAsync());
    }

    [Fact]
    public async Task A_line_each_says_what_was_done_and_prices_with_tax_come_out_the_same()
    {
        var owner = await studio.OwnerAsync();
        var project = await BeginAsync("each");
        var hours = await HoursAsync(owner, project, "20 min", "Measured", "2027-01-20");
        var cost = await KeepAsync(owner, project, "costs", Cost());
        var lines = (
            await owner.GetAsync(
                $"/api/projects/{project}/spent/lines?hours={hours}&costs={cost}&rate=61.5&each=true&gross=true"
            )
        ).GetProperty("lines");
        Assert.Equal(
            ("Measured", "0.33", "61.5", "Scaffold, two days", "61.5"),
            (
                lines[0].GetProperty("title").GetString(),
                lines[0].GetProperty("quantity").GetString(),
                lines[0].GetProperty("unitPrice").GetString(),
                lines[1].GetProperty("title").GetString(),
                lines[1].GetProperty("unitPrice").GetString()
            )
        );
        var foreign = await owner.AskAsync($"/api/projects/{project}/spent/lines?costs={cost}&currency=GBP");
        Assert.Contains("was paid in EUR", await foreign.Content.ReadAsStringAsync());
        // whom it was paid to stays in the house
        Assert.DoesNotContain("Northgate", lines.GetRawText());
        // without a word the price list's own price of an hour
        var listed = await owner.GetAsync($"/api/projects/{project}/spent/lines?hours={hours}");
        Assert.Equal("62", listed.GetProperty("lines")[0].GetProperty("unitPrice").GetString());
        var none = await owner.AskAsync($"/api/projects/{project}/spent/lines?hours={hours}&rate=much");
        Assert.Equal(HttpStatusCode.BadRequest, none.StatusCode);
        Assert.Contains("An hour’s price", await none.Content.ReadAsStringAsync());
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.AskAsync($"/api/projects/{project}/spent/lines")).StatusCode
        );
    }

    [Fact]
    public async Task Kept_hours_do_not_come_again_and_again()
    {
        var owner = await studio.OwnerAsync();
        var project = await BeginAsync("again");
        var (kept, _, _) = await WriteAsync(owner, project);
        var refused = await owner.PostAsync(
            $"/api/projects/{project}/bill/recurring",
            new
            {
                edition = kept.GetProperty("edition").GetInt32(),
                every = "Month",
                first = "2027-03-01",
                until = (string?)null,
                count = (int?)null,
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("done once", await refused.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_cost_has_its_receipt()
    {
        var owner = await studio.OwnerAsync();
        var project = await BeginAsync("receipt");
        var cost = await KeepAsync(owner, project, "costs", Cost());
        var at = $"/api/projects/{project}/costs/{cost}/receipt";
        Assert.Equal(HttpStatusCode.NotFound, (await owner.AskAsync(at)).StatusCode);
        var bytes = "%PDF-1.4 a receipt"u8.ToArray();
        async Task<HttpResponseMessage> SendAsync(byte[] body, string name) =>
            await owner.SendAsync(
                HttpMethod.Post,
                $"{at}?name={name}",
                new ByteArrayContent(body) { Headers = { ContentType = new("application/octet-stream") } }
            );
        Assert.Equal(HttpStatusCode.BadRequest, (await SendAsync([], "empty.pdf")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await SendAsync(bytes, "scaffold.pdf")).StatusCode);
        var got = await owner.AskAsync(at);
        Assert.Equal(bytes, await got.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken));
        Assert.Contains("scaffold.pdf", got.Content.Headers.ContentDisposition!.ToString());
        Assert.Equal(
            "scaffold.pdf",
            (await SpentAsync(owner, project)).GetProperty("costs")[0].GetProperty("receipt").GetString()
        );
    }

    [Fact]
    public async Task An_import_with_hours_or_an_invoice_being_written_is_not_taken_back()
    {
        var owner = await studio.OwnerAsync();
        var import = await ImportTests.BeginAsync(
            owner,
            "Name,Mail,Inquired,Status\nAda Wells,ada@taken.example,2026-11-02,open\nBo Field,bo@taken.example,2026-11-03,open\nCy Marsh,cy@taken.example,2026-11-04,open\n"
        );
        await ImportTests.RunAsync(owner, import);
        var made = await studio.LookAsync(db =>
            db.Projects.Where(p => p.Client!.Mail!.EndsWith("@taken.example"))
                .OrderBy(p => p.Id)
                .Select(p => p.Id)
                .ToListAsync()
        );
        await owner.KeepBillAsync(made[0].Value, Bills.Lettering());
        var labelled = await owner.PostAsync(
            "/api/labels",
            new
            {
                label = "kept",
                project = made[1].Value,
                person = (long?)null,
                task = (long?)null,
            }
        );
        Assert.True(labelled.IsSuccessStatusCode, await labelled.Content.ReadAsStringAsync());
        var undone = await owner.PostAsync($"/api/imports/{import}/undo");
        Assert.Equal(HttpStatusCode.OK, undone.StatusCode);
        var left = await studio.LookAsync(db =>
            db.Projects.Where(p => p.Client!.Mail!.EndsWith("@taken.example"))
                .OrderBy(p => p.Id)
                .Select(p => p.Id)
                .ToListAsync()
        );
        Assert.Equal(made[..2], left);
    }

    [Fact]
    public async Task A_change_of_a_recurring_invoice_that_was_thrown_away_comes_back_as_one()
    {
        var owner = await studio.OwnerAsync();
        var project = await BeginAsync("comesback");
        var kept = await owner.KeepBillAsync(project, Bills.Lettering());
        var begun = await owner.PostAsync(
            $"/api/projects/{project}/bill/recurring",
            new
            {
                edition = kept.GetProperty("edition").GetInt32(),
                every = "Month",
                first = "2027-06-01",
                until = (string?)null,
                count = (int?)null,
            }
        );
        Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync());
        var recurring = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("money")
            .GetProperty("recurring")[0]
            .GetProperty("id")
            .GetInt64();
        await owner.PostAsync($"/api/projects/{project}/recurring/{recurring}/open");
        var changing = await owner.GetAsync($"/api/projects/{project}/bill");
        var of = changing.GetProperty("for").GetProperty("of");
        Assert.Equal(recurring, of.GetProperty("changes").GetInt64());
        await owner.SendAsync(HttpMethod.Delete, $"/api/projects/{project}/bill", null);
        Task<HttpResponseMessage> BackAsync() =>
            owner.SendAsync(
                HttpMethod.Put,
                $"/api/projects/{project}/bill",
                JsonContent.Create(
                    new
                    {
                        edition = 0,
                        bill = JsonNode.Parse(changing.GetProperty("bill").GetRawText()),
                        of = JsonNode.Parse(of.GetRawText()),
                    }
                )
            );
        Assert.Equal(HttpStatusCode.OK, (await BackAsync()).StatusCode);
        var back = await owner.GetAsync($"/api/projects/{project}/bill");
        Assert.Equal(recurring, back.GetProperty("for").GetProperty("of").GetProperty("changes").GetInt64());
        // it cannot be issued as an invoice of its own
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/bill/issue",
                    new { edition = back.GetProperty("edition").GetInt32() }
                )
            ).StatusCode
        );
        await owner.SendAsync(HttpMethod.Delete, $"/api/projects/{project}/bill", null);
        await owner.PostAsync($"/api/projects/{project}/recurring/{recurring}/stop");
        Assert.Equal(HttpStatusCode.Conflict, (await BackAsync()).StatusCode);
    }
}
