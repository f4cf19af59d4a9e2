using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests;

/// <summary>A project asks for money in one currency, whichever of its papers comes first.</summary>
public sealed class OneCurrencyTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task A_price_after_an_invoice_is_in_the_invoices_currency()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "one@currency.example");
        var bill = Bills.Lettering();
        bill["currency"] = "GBP";
        await owner.IssueAsync(project, await owner.KeepBillAsync(project, bill));
        // the price list, and so a new draft, are in the studio's own
        var draft = await owner.GetAsync($"/api/projects/{project}/proposal");
        Assert.Equal("EUR", draft.GetProperty("offer").GetProperty("currency").GetString());
        Assert.Contains(
            draft.GetProperty("points").EnumerateArray(),
            point => point.GetProperty("words").GetString()!.Contains("is in GBP", StringComparison.Ordinal)
        );
        var refused = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "Your proposal", body = "Here: [proposal link]" }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var agreed = await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new
            {
                sort = "PriceAgreed",
                amount = "1000",
                tax = "23",
                onBooking = "40",
            }
        );
        Assert.True(agreed.IsSuccessStatusCode, await agreed.Content.ReadAsStringAsync());
        var amounts = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("money")
            .GetProperty("lines")
            .EnumerateArray()
            .Select(line => line.GetProperty("amount").GetString()!)
            .ToList();
        Assert.Contains(amounts, amount => amount.EndsWith("230.00", StringComparison.Ordinal));
        Assert.All(amounts, amount => Assert.StartsWith("GBP", amount));
        // and what the studio counts in stays from then on
        var changed = JsonNode
            .Parse((await owner.GetAsync("/api/studio")).GetProperty("said").GetRawText())!
            .AsObject();
        changed["money"]!["currency"] = "USD";
        var kept = await owner.SendAsync(HttpMethod.Put, "/api/studio", JsonContent.Create(changed));
        Assert.Contains("the currency stays", await kept.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task While_a_proposal_is_with_the_client_no_invoice_goes_out_in_another()
    {
        var owner = await studio.OwnerAsync();
        var (project, page) = await studio.ProposeAsync(owner, new Visitor(studio), "open@currency.example");
        Assert.StartsWith("/p/", page);
        var bill = Bills.Lettering();
        bill["currency"] = "GBP";
        var kept = await owner.KeepBillAsync(project, bill);
        var point = kept.GetProperty("points").EnumerateArray().Single(one => one.GetProperty("blocks").GetBoolean());
        Assert.Equal("currency", point.GetProperty("field").GetString());
        var refused = await owner.PostAsync(
            $"/api/projects/{project}/bill/issue",
            new { edition = kept.GetProperty("edition").GetInt32() }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        bill["currency"] = "EUR";
        await owner.IssueAsync(project, await owner.KeepBillAsync(project, bill));
    }
}
