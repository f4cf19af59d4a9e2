using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Core.Amounts;

namespace Gesamt.Web.Tests;

/// <summary>What was agreed is changed by a paper with its own signature; and rate sheets that clients tick.</summary>
public sealed class AmendingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private async Task<(long Project, string Page, Visitor Owner, Visitor Client)> BookedAsync(string mail)
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, mail);
        await studio.SignedAsync(client, page);
        return (project, page, owner, client);
    }

    /// <summary>Begins an amendment and writes it.</summary>
    private static async Task<JsonNode> AmendAsync(Visitor owner, long project, Action<JsonArray> lines)
    {
        var begun = await owner.PostAsync($"/api/projects/{project}/proposal/amend", new { });
        Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync());
        var draft = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
        lines(draft["offer"]!["lines"]!.AsArray());
        var saved = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/proposal",
            JsonContent.Create(
                new
                {
                    edition = (int)draft["edition"]!,
                    offer = draft["offer"],
                    contract = (string)draft["contract"]!,
                    signing = draft["signing"],
                }
            )
        );
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        return JsonNode.Parse(await saved.Content.ReadAsStringAsync())!;
    }

    private async Task<HttpResponseMessage> SendAsync(Visitor owner, long project)
    {
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "A change", body = "[page link]" }
        );
        await studio.TickAsync();
        return sent;
    }

    private static JsonNode Another(JsonNode line, string key, string title, string quantity, string price)
    {
        var another = line.DeepClone();
        (another["key"], another["title"], another["quantity"], another["unitPrice"]) = (key, title, quantity, price);
        return another;
    }

    private static string Plain(string? amount) => amount!.Replace('\u202f', ' ').Replace('\u00a0', ' ');

    private Task<List<long>> InvoicesAsync(long project) =>
        studio.LookAsync(db =>
            db.Invoices.Where(i => i.ProjectId == new ProjectId(project))
                .OrderBy(i => i.Id)
                .Select(i => i.Sort == Store.Model.InvoiceSort.CreditNote ? -i.TotalMinor : i.TotalMinor)
                .ToListAsync()
        );

    private Task<long?> AgreedAsync(long project) =>
        studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing.AgreedMinor).SingleAsync()
        );

    [Fact] // (4 340 + 780 + 280) × 1.23 = 6 642.00, of which 40 %, 2 656.80, are invoiced with the signature; 1 000 × 1.23 more
    public async Task What_comes_on_top_is_in_force_from_its_signature_and_the_rest_is_split_anew()
    {
        var (project, page, owner, client) = await BookedAsync("more@lanternhouse.example");
        Assert.Equal([265_680], await InvoicesAsync(project));
        var draft = await AmendAsync(
            owner,
            project,
            lines => lines.Add(Another(lines[0]!, "yard", "The yard wall", "1", "1000"))
        );
        Assert.Equal("€ 2 656.80", Plain((string?)draft["amends"]!["invoiced"]));
        Assert.Equal("€ 5 215.20", Plain((string?)draft["amends"]!["left"]));
        Assert.Equal("€ 7 872.00", Plain((string?)draft["priced"]!["total"]));
        Assert.Equal("The yard wall", (string?)draft["differences"]!.AsArray().Single()!["what"]);

        Assert.True((await SendAsync(owner, project)).IsSuccessStatusCode);
        // until it is signed everything is as it was, and no second one is put
        Assert.Equal(664_200, await AgreedAsync(project));
        Assert.Contains(
            "waits for Mona Delarue",
            await (
                await owner.PostAsync($"/api/projects/{project}/proposal/amend", new { })
            ).Content.ReadAsStringAsync()
        );
        var contract = (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("contract");
        Assert.Equal("Amendment", contract.GetProperty("title").GetString());
        Assert.Equal("€ 6 642.00", Plain(contract.GetProperty("amends").GetProperty("before").GetString()));
        Assert.Equal("€ 7 872.00", Plain(contract.GetProperty("priced").GetProperty("total").GetString()));
        Assert.Contains("The yard wall: new", contract.GetProperty("text").GetRawText());

        await client.SignAsync(page);
        Assert.Equal(787_200, await AgreedAsync(project));
        Assert.Equal([265_680], await InvoicesAsync(project));
        // what is left goes out as one invoice on its day, and together they are the new price
        var day = await studio.LookAsync((Hosting.Desk desk) => Task.FromResult(desk.Now)) + Duration.FromDays(400);
        await studio.WaitUntilAsync(day);
        Assert.Equal(787_200, (await InvoicesAsync(project)).Sum());

        // both papers are kept, each with its signatures, sealed
        var kept = (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("kept");
        Assert.Equal(2, kept.GetArrayLength());
        foreach (var paper in kept.EnumerateArray())
        {
            var file = await (
                await client.AskAsync($"{page}/api/contracts/{paper.GetProperty("number").GetInt32()}.pdf")
            ).Content.ReadAsByteArrayAsync();
            Assert.Contains("Signature is Valid", PdfTools.Run("pdfsig", file, "FILE").Said);
        }
        Assert.Equal(HttpStatusCode.NotFound, (await client.AskAsync($"{page}/api/contracts/99.pdf")).StatusCode);
    }

    [Fact]
    public async Task With_an_amendment_to_sign_nothing_is_chosen_again_though_nothing_was_invoiced_yet()
    {
        await (await studio.OwnerAsync()).ChangeStudioAsync(now => now["habits"]!["onBooking"] = "0");
        var (project, page, owner, client) = await BookedAsync("uninvoiced@lanternhouse.example");
        await (await studio.OwnerAsync()).ChangeStudioAsync(now => now["habits"]!["onBooking"] = "40");
        Assert.Empty(await InvoicesAsync(project));
        await AmendAsync(owner, project, lines => lines.RemoveAt(1));
        Assert.True((await SendAsync(owner, project)).IsSuccessStatusCode);
        var booking = (await client.GetAsync($"{page}/api")).GetProperty("booking");
        Assert.Equal("Sign", booking.GetProperty("step").GetString());
        Assert.Equal(JsonValueKind.Null, booking.GetProperty("proposal").ValueKind);
        await client.SignAsync(page);
    }

    [Fact]
    public async Task What_was_invoiced_beyond_the_new_price_becomes_a_credit_note()
    {
        var (project, page, owner, client) = await BookedAsync("less@lanternhouse.example");
        // everything but a scaffold of one day is taken out: 130 × 1.23 = 159.90
        var draft = await AmendAsync(
            owner,
            project,
            lines =>
            {
                lines.RemoveAt(2);
                lines.RemoveAt(0);
                lines[0]!["quantity"] = "1";
            }
        );
        Assert.Equal("€ 2 496.90", Plain((string?)draft["amends"]!["credited"]));
        await SendAsync(owner, project);
        await client.SignAsync(page);
        Assert.Equal(15_990, await AgreedAsync(project));
        Assert.Equal([265_680, -249_690], await InvoicesAsync(project));
        var said = (await owner.GetAsync($"/api/projects/{project}")).GetRawText();
        Assert.Contains("Credit note", said);
        // what is owed of the invoice is what is agreed now
        Assert.Equal(
            15_990,
            await studio.LookAsync(db =>
                db.Invoices.Where(i => i.ProjectId == new ProjectId(project))
                    .OrderBy(i => i.Id)
                    .Select(i => i.OwedMinor)
                    .FirstAsync()
            )
        );
    }

    [Fact]
    public async Task An_amendment_that_changes_nothing_or_leaves_a_choice_does_not_go()
    {
        var (project, _, owner, _) = await BookedAsync("nothing@lanternhouse.example");
        await AmendAsync(owner, project, _ => { });
        Assert.Contains("Nothing is different", await (await SendAsync(owner, project)).Content.ReadAsStringAsync());
        var draft = await AmendAsync(
            owner,
            project,
            lines =>
            {
                var extra = Another(lines[0]!, "x", "To add", "1", "10");
                extra["role"] = "Extra";
                lines.Add(extra);
            }
        );
        Assert.Contains("signed as it stands", draft["points"]!.ToJsonString());
        Assert.Equal(HttpStatusCode.BadRequest, (await SendAsync(owner, project)).StatusCode);
    }

    [Fact]
    public async Task A_voided_amendment_cannot_be_signed_and_one_in_force_cannot_be_voided()
    {
        var (project, page, owner, client) = await BookedAsync("voided@lanternhouse.example");
        async Task<long> PutAsync(string price)
        {
            await AmendAsync(owner, project, lines => lines.Add(Another(lines[0]!, "y", "Yard", "1", price)));
            Assert.True((await SendAsync(owner, project)).IsSuccessStatusCode);
            return (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("sheet")
                .GetProperty("papers")
                .EnumerateArray()
                .Last(paper => paper.GetProperty("contract").ValueKind != JsonValueKind.Null)
                .GetProperty("contract")
                .GetProperty("version")
                .GetInt64();
        }
        var first = await PutAsync("500");
        var hash = (await client.GetAsync($"{page}/api"))
            .GetProperty("booking")
            .GetProperty("contract")
            .GetProperty("hash")
            .GetString();
        await owner.PostAsync($"/api/projects/{project}/contract/{first}/void", new { words = "" });
        var late = await client.PostAsync(
            $"{page}/api/sign",
            new
            {
                name = "Mona Delarue",
                agreed = true,
                hash,
            }
        );
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
        Assert.Equal(664_200, await AgreedAsync(project));
        // the page shows the contract that is in force again
        Assert.Equal(
            JsonValueKind.Null,
            (await client.GetAsync($"{page}/api"))
                .GetProperty("booking")
                .GetProperty("contract")
                .GetProperty("amends")
                .ValueKind
        );
        var second = await PutAsync("700");
        await client.SignAsync(page);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{project}/contract/{second}/void", new { words = "" })).StatusCode
        );
        Assert.Equal(750_300, await AgreedAsync(project)); // (5 400 + 700) × 1.23
        // a third changes what the second made
        var third = await AmendAsync(owner, project, lines => lines.RemoveAt(lines.Count - 1));
        Assert.Equal("Gone", (string?)third["differences"]!.AsArray().Single()!["sort"]);
    }

    [Fact]
    public async Task A_rate_sheet_is_ticked_and_begins_the_proposal()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var project = await studio.InquireAsync(new Visitor(studio), "rates@lanternhouse.example");
        var services = (await owner.GetAsync($"/api/projects/{project}/rate-sheet"))
            .GetProperty("services")
            .EnumerateArray()
            .Select(one => one.GetProperty("service").GetInt32())
            .ToList();
        Assert.True(services.Count >= 2);
        object Sheet(params int[] of) =>
            new
            {
                services = of,
                subject = "What things cost",
                body = "[page link]",
            };
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.PostAsync($"/api/projects/{project}/rate-sheet", Sheet())).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.PostAsync($"/api/projects/{project}/rate-sheet", Sheet(999_999))).StatusCode
        );
        Assert.True(
            (await owner.PostAsync($"/api/projects/{project}/rate-sheet", Sheet([.. services]))).IsSuccessStatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{project}/rate-sheet", Sheet([.. services]))).StatusCode
        );
        await studio.TickAsync();
        var page = await studio.EnterAsync(owner, client, "rates@lanternhouse.example");
        var seen = await client.GetAsync($"{page}/api");
        Assert.Equal(services.Count, seen.GetProperty("parts").GetProperty("rates").GetArrayLength());
        Assert.Contains("rate sheet", seen.GetProperty("toDo").GetRawText());
        foreach (var wrong in new int[][] { [], [999_999] })
            Assert.Equal(
                HttpStatusCode.BadRequest,
                (await client.PostAsync($"{page}/api/rate-sheet", new { services = wrong })).StatusCode
            );
        Assert.True(
            (
                await client.PostAsync($"{page}/api/rate-sheet", new { services = new[] { services[1] } })
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await client.PostAsync($"{page}/api/rate-sheet", new { services = new[] { services[0] } })).StatusCode
        );
        var record = await owner.GetAsync($"/api/projects/{project}");
        Assert.Contains("ticked on the rate sheet", record.GetRawText());
        Assert.Equal(
            services[1],
            (await owner.GetAsync($"/api/projects/{project}/proposal"))
                .GetProperty("offer")
                .GetProperty("lines")
                .EnumerateArray()
                .Single()
                .GetProperty("more")
                .GetProperty("service")
                .GetInt32()
        );
    }
}
