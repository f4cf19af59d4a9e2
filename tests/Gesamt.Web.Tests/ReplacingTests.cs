using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests;

/// <summary>A contract in the place of a signed one binds to what was agreed, and what was agreed is invoiced as before. Each has a studio of its own, since a year goes by in it.</summary>
public sealed class ReplacingTests : IDisposable
{
    private readonly EmptyStudio studio = new();

    public void Dispose() => studio.Dispose();

    private async Task<(int Hundredths, string Contract)> ReplacedAsync(
        long project,
        string page,
        Visitor owner,
        Visitor client
    )
    {
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/contract/send",
            new
            {
                title = "The contract, anew",
                text = "## Scope\n\n[choice]\n\n## Payment\n\n[price]\n\n[payments]",
                signing = new { signers = Array.Empty<object>(), asksCode = false },
                subject = "Anew",
                body = "[page link]",
            }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
        var contract = (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("contract");
        Assert.Equal("The contract, anew", contract.GetProperty("title").GetString());
        await client.SignAsync(page);
        await studio.WaitUntilAsync(
            await studio.LookAsync((Hosting.Desk desk) => Task.FromResult(desk.Now)) + Duration.FromDays(400)
        );
        return (
            (int)
                await studio.LookAsync(db =>
                    db.Invoices.Where(i => i.ProjectId == new ProjectId(project)).SumAsync(i => i.TotalMinor)
                ),
            contract.GetProperty("text").GetRawText().Replace(@"\u202F", " ").Replace(@"\u00A0", " ")
        );
    }

    private static async Task PutAsync(Visitor owner, long project, JsonNode draft)
    {
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
    }

    private async Task SendAsync(Visitor owner, long project)
    {
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "Changed", body = "[page link]" }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
    }

    [Fact] // 31 × 140 + 9 × 130, since nine days were chosen where six were proposed: 5 510 × 1.23
    public async Task The_quantity_that_was_chosen_stays_the_one_that_is_invoiced()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "nine@lanternhouse.example");
        var draft = JsonNode.Parse((await owner.GetAsync($"/api/projects/{project}/proposal")).GetRawText())!;
        draft["offer"]!["lines"]![1]!["more"]!["limits"] = new JsonObject { ["least"] = "4", ["most"] = "12" };
        await PutAsync(owner, project, draft);
        await SendAsync(owner, project);
        var chosen = await client.PostAsync(
            $"{page}/api/accept",
            new { chosen = new[] { "s" }, quantities = new[] { new { key = "s", quantity = "9" } } }
        );
        Assert.True(chosen.IsSuccessStatusCode, await chosen.Content.ReadAsStringAsync());
        await client.SignAsync(page);
        var (invoiced, contract) = await ReplacedAsync(project, page, owner, client);
        Assert.Contains("Scaffold, 9", contract);
        Assert.Equal(677_730, invoiced);
    }

    [Fact] // 6 642.00 agreed, 40 % invoiced with the signature; 1 000 × 1.23 more by the amendment
    public async Task After_an_amendment_every_payment_stands_in_it_and_the_rest_is_invoiced()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "amended@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var begun = await owner.PostAsync($"/api/projects/{project}/proposal/amend", new { });
        var draft = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
        var line = draft["offer"]!["lines"]![0]!.DeepClone();
        (line["key"], line["title"], line["quantity"], line["unitPrice"]) = ("yard", "The yard", "1", "1000");
        draft["offer"]!["lines"]!.AsArray().Add(line);
        await PutAsync(owner, project, draft);
        await SendAsync(owner, project);
        await client.SignAsync(page);
        var (invoiced, contract) = await ReplacedAsync(project, page, owner, client);
        Assert.Contains("issued already: € 2 656.80", contract);
        Assert.Contains("€ 5 215.20", contract);
        Assert.Equal(787_200, invoiced);
        // and it can be amended once more, from all of it
        var again = await (await studio.OwnerAsync()).PostAsync($"/api/projects/{project}/proposal/amend", new { });
        Assert.Contains("7 872.00", (await again.Content.ReadAsStringAsync()).Replace(@"\u202F", " "));
    }
}
