using System.Diagnostics;
using System.Net;
using System.Text;
using Gesamt.Core.Papers;
using Gesamt.Store.Model;
using UglyToad.PdfPig;

namespace Gesamt.Web.Tests;

/// <summary>Proposal, contract, signature and invoice, as they are kept and printed.</summary>
public sealed class PaperTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task A_sent_version_hashes_to_what_sha256sum_says_and_is_canonical()
    {
        var (project, _) = await studio.ProposeAsync(
            await studio.OwnerAsync(),
            new Visitor(studio),
            "hash@lanternhouse.example"
        );
        var version = await studio.LookAsync(db =>
            db.Versions.AsNoTracking().SingleAsync(v => v.ProjectId == new ProjectId(project))
        );
        Assert.Equal(version.Canonical, CanonicalJson.Of(System.Text.Json.Nodes.JsonNode.Parse(version.Canonical)));
        using var sum = Process.Start(
            new ProcessStartInfo("sha256sum") { RedirectStandardInput = true, RedirectStandardOutput = true }
        )!;
        sum.StandardInput.BaseStream.Write(version.Canonical);
        sum.StandardInput.Close();
        Assert.StartsWith(version.Hash, await sum.StandardOutput.ReadToEndAsync());
    }

    [Fact]
    public async Task A_version_is_opened_as_what_it_is_and_as_nothing_else()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "sorts@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var versions = await studio.LookAsync(db =>
            db.Versions.AsNoTracking()
                .Where(v => v.ProjectId == new ProjectId(project))
                .OrderBy(v => v.Id)
                .ToListAsync()
        );
        Assert.Equal([PaperSort.Proposal, PaperSort.Contract], versions.Select(v => v.Sort));
        foreach (var version in versions)
        foreach (var sort in versions.Select(v => v.Sort))
            Assert.Equal(
                sort == version.Sort ? HttpStatusCode.OK : HttpStatusCode.NotFound,
                (await owner.AskAsync($"/api/projects/{project}/entries/{sort}/{version.Id.Value}")).StatusCode
            );
    }

    [Fact]
    public async Task Contract_and_invoice_say_what_was_chosen_who_signed_and_what_is_due()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "paper@lanternhouse.example");
        var hash = await studio.SignedAsync(client, page);
        var contract = await TextAsync(client, $"{page}/api/contract.pdf");
        Assert.Contains("Scaffold", contract);
        Assert.DoesNotContain("Scissorlift", contract);
        Assert.Contains("6642.00", contract);
        Assert.Contains("MonaDelarue", contract);
        Assert.Contains(hash[..30], contract);
        var invoice = await studio.LookAsync(db =>
            db.Invoices.AsNoTracking().SingleAsync(i => i.ProjectId == new ProjectId(project))
        );
        Assert.Equal(265_680, invoice.TotalMinor); // 40 % of 6 642.00
        var printed = await TextAsync(owner, $"/api/invoices/{invoice.Id.Value}.pdf");
        Assert.Contains(invoice.Number, printed);
        Assert.Contains("2160.00", printed); // net of the first instalment, 40 % of 5 400
        Assert.Contains("496.80", printed); // its VAT, BR-CO-17
        Assert.Contains("2656.80", printed);
    }

    [Fact]
    public async Task Two_windows_signing_at_once_make_one_signature_and_one_invoice()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "two@lanternhouse.example");
        await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } });
        var hash = (await client.GetAsync($"{page}/api"))
            .GetProperty("booking")
            .GetProperty("contract")
            .GetProperty("hash")
            .GetString();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 3)
                .Select(_ =>
                    client.PostAsync(
                        $"{page}/api/sign",
                        new
                        {
                            name = "Mona Delarue",
                            agreed = true,
                            hash,
                        }
                    )
                )
        );
        Assert.Single(answers, answer => answer.IsSuccessStatusCode);
        Assert.Equal(
            1,
            await studio.LookAsync(db =>
                db.Signatures.CountAsync(s =>
                    db.Versions.Any(v => v.Id == s.VersionId && v.ProjectId == new ProjectId(project))
                )
            )
        );
        Assert.Equal(
            1,
            await studio.LookAsync(db => db.Invoices.CountAsync(i => i.ProjectId == new ProjectId(project)))
        );
    }

    [Fact]
    public async Task A_card_is_charged_once_and_booked_also_when_nobody_comes_back()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "card@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var address = System
            .Text.Json.JsonDocument.Parse(await (await client.PostAsync($"{page}/api/pay")).Content.ReadAsStringAsync())
            .RootElement.GetProperty("address")
            .GetString()!;
        var again = System
            .Text.Json.JsonDocument.Parse(await (await client.PostAsync($"{page}/api/pay")).Content.ReadAsStringAsync())
            .RootElement.GetProperty("address")
            .GetString()!;
        Assert.Equal(address, again);
        var house = new Visitor(studio);
        await house.TokenAsync(address.Replace("/cards/", "/card-house/", StringComparison.Ordinal));
        var refused = await house.PostAsync(
            address.Replace("/cards/", "/card-house/", StringComparison.Ordinal),
            new { number = StandIns.PaymentHouse.NoMoney }
        );
        Assert.Contains("not enough money", await refused.Content.ReadAsStringAsync());
        Assert.True(
            (
                await house.PostAsync(
                    address.Replace("/cards/", "/card-house/", StringComparison.Ordinal),
                    new { number = StandIns.PaymentHouse.Good }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        await client.PostAsync($"{page}/api/settle");
        await studio.TickAsync();
        var paid = Assert.Single(
            await studio.LookAsync(db =>
                db.Payments.AsNoTracking().Where(p => p.ProjectId == new ProjectId(project)).ToListAsync()
            )
        );
        Assert.Equal((265_680, PaymentMeans.Card), (paid.AmountMinor, paid.Means));
    }

    [Fact]
    public async Task Invoices_are_numbered_without_gaps()
    {
        var owner = await studio.OwnerAsync();
        foreach (var i in Enumerable.Range(0, 3))
        {
            var client = new Visitor(studio);
            var (_, page) = await studio.ProposeAsync(owner, client, $"n{i}@lanternhouse.example");
            await studio.SignedAsync(client, page);
        }
        var numbers = await studio.LookAsync(db =>
            db.Invoices.OrderBy(i => i.Sequence).Select(i => i.Sequence).ToListAsync()
        );
        Assert.Equal(Enumerable.Range(1, numbers.Count), numbers);
    }

    private static async Task<string> TextAsync(Visitor visitor, string path)
    {
        var answer = await visitor.AskAsync(path);
        Assert.Equal("application/pdf", answer.Content.Headers.ContentType!.MediaType);
        using var pdf = PdfDocument.Open(await answer.Content.ReadAsByteArrayAsync());
        var text = new StringBuilder();
        foreach (var page in pdf.GetPages())
            text.Append(page.Text);
        // digits stand in cells of one width, so that a reader sees gaps between them
        return new([.. text.ToString().Where(c => !char.IsWhiteSpace(c))]);
    }
}
