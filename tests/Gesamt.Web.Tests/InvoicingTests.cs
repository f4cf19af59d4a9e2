using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Core.Facts;
using Gesamt.Formats.Tests.Invoices;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Invoices written by hand, their papers and their list.</summary>
public sealed class InvoicingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private Task<byte[]> KeptAsync(long invoice, bool data) =>
        studio.LookAsync(
            async (Hosting.Desk desk) =>
            {
                var row = await desk.Db.Invoices.AsNoTracking().SingleAsync(i => i.Id == new InvoiceId(invoice));
                var paper = await Papers.KeptPapers.OfAsync(desk, row);
                return desk.Vault.Read(data ? paper.Data! : paper.Hash);
            }
        );

    [Fact]
    public async Task An_invoice_by_hand_gets_its_number_and_goes_with_its_data()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "byhand@lanternhouse.example");
        var kept = await owner.KeepBillAsync(project, Bills.Lettering());
        Assert.Equal(
            "€ 393.60",
            kept.GetProperty("sums").GetProperty("total").GetString()!.Replace('\u202F', ' ').Replace('\u00A0', ' ')
        );
        var number = kept.GetProperty("for").GetProperty("number").GetString();
        var preview = await owner.AskAsync($"/api/projects/{project}/bill/preview.pdf");
        Assert.Equal("application/pdf", preview.Content.Headers.ContentType!.MediaType);
        var issued = await owner.IssueAsync(
            project,
            kept,
            new
            {
                edition = kept.GetProperty("edition").GetInt32(),
                subject = "Invoice [invoice number]",
                body = "Here is [invoice number] over [invoice owed], due on [invoice due].",
            }
        );
        Assert.Equal(number, issued.GetProperty("number").GetString());
        await studio.WaitUntilAsync(
            studio.Services.GetRequiredService<TimeProvider>().GetUtcNow().ToInstantOf() + Duration.FromMinutes(1)
        );
        await studio.TickAsync();
        var id = issued.GetProperty("invoice").GetInt64();
        var letter = await studio.LookAsync(db =>
            db.Letters.AsNoTracking().Include(l => l.Files).SingleAsync(l => l.CarriesInvoice == new InvoiceId(id))
        );
        Assert.Equal((LetterState.Sent, $"Invoice {number}"), (letter.State, letter.Subject));
        Assert.Equal([$"invoice-{number}.pdf", $"invoice-{number}.xml"], letter.Files.Select(file => file.Name));

        var (pdf, data) = (await KeptAsync(id, false), await KeptAsync(id, true));
        Assert.Empty(En16931.Broken(data));
        Assert.Empty(UblOrder.Misplaced(data));
        Assert.Equal(0, PdfTools.Run("qpdf", pdf, "--check", "FILE").Code);
        Assert.Contains("invoice.xml", PdfTools.Run("pdfdetach", pdf, "-list", "FILE").Said);
        var inside = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.xml");
        Assert.Equal(0, PdfTools.Run("pdfdetach", pdf, "-save", "1", "-o", inside, "FILE").Code);
        Assert.Equal(data, await File.ReadAllBytesAsync(inside, TestContext.Current.CancellationToken));
        File.Delete(inside);
        Assert.Equal(0, PdfTools.Run("xmllint", data, "--noout", "FILE").Code);
        // it is written no more, and is asked for besides any price
        Assert.Equal(0, (await owner.GetAsync($"/api/projects/{project}/bill")).GetProperty("edition").GetInt32());
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{project}/bill/issue", new { edition = 1 })).StatusCode
        );
    }

    [Fact]
    public async Task What_is_wrong_with_it_is_named_by_its_field()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "wrong@lanternhouse.example");
        var refused = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/bill",
            JsonContent.Create(new { edition = 0, bill = Bills.Of(Bills.Line("Names", "many", "20", "120")) })
        );
        var said = await refused.Content.ReadAsStringAsync();
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("lines[0].quantity", said);
        Assert.Contains("lines[0].tax", said);
        var kept = await owner.KeepBillAsync(project, Bills.Of(Bills.Line("", "1", "20", "exempt")));
        var points = kept.GetProperty("points").EnumerateArray().Where(p => p.GetProperty("blocks").GetBoolean());
        Assert.Equal(["lines[0].title", "exemptReason"], points.Select(p => p.GetProperty("field").GetString()));
        var issue = await owner.PostAsync(
            $"/api/projects/{project}/bill/issue",
            new { edition = kept.GetProperty("edition").GetInt32() }
        );
        Assert.Equal(HttpStatusCode.BadRequest, issue.StatusCode);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.AskAsync($"/api/projects/{project}/bill/preview.pdf")).StatusCode
        );
        // written in another window meanwhile
        var stale = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/bill",
            JsonContent.Create(new { edition = 0, bill = Bills.Lettering() })
        );
        Assert.Equal(HttpStatusCode.Conflict, stale.StatusCode);
    }

    [Fact] // Directive 2006/112/EC, articles 196 and 226 (11a): the buyer abroad owes the tax
    public async Task Under_reverse_charge_both_tax_numbers_stand_on_it()
    {
        var owner = await studio.OwnerAsync();
        await owner.ChangeStudioAsync(said => said["money"]!["taxNumber"] = "VAT IE 1234567T");
        var project = await studio.InquireAsync(new Visitor(studio), "abroad@hafengasse.example");
        var kept = await owner.KeepBillAsync(project, Bills.Of(Bills.Line("Sign", "1", "900", "reverse charge")));
        Assert.Contains("client’s tax number", kept.GetProperty("points")[0].GetProperty("words").GetString());
        await owner.ChangeClientAsync(
            project,
            person =>
            {
                person["taxNumber"] = "ATU12345678";
                person["country"] = "AT";
                person["address"] = "Hafengasse 2\n1020 Wien";
                person["buyer"] = "Business";
            }
        );
        var issued = await owner.IssueAsync(project, kept);
        var data = await KeptAsync(issued.GetProperty("invoice").GetInt64(), true);
        Assert.Empty(En16931.Broken(data));
        var text = System.Text.Encoding.UTF8.GetString(data);
        foreach (var part in new[] { "ATU12345678", "IE1234567T", "VATEX-EU-AE", ">AT<", ">900.00<" })
            Assert.Contains(part, text);
        var printed = PdfTools
            .Run("pdftotext", await KeptAsync(issued.GetProperty("invoice").GetInt64(), false), "FILE", "-")
            .Said;
        Assert.Contains("Reverse charge", printed);
        Assert.Contains("ATU12345678", printed);
    }

    [Fact]
    public async Task Of_a_currency_with_three_decimals_it_says_why_there_is_no_data()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "dinar@lanternhouse.example");
        var bill = Bills.Lettering();
        bill["currency"] = "KWD";
        var kept = await owner.KeepBillAsync(project, bill);
        Assert.Contains("KWD has 3", kept.GetProperty("noData").GetString());
        var issued = await owner.IssueAsync(project, kept);
        var id = issued.GetProperty("invoice").GetInt64();
        Assert.Equal(HttpStatusCode.Conflict, (await owner.AskAsync($"/api/invoices/{id}.xml")).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await owner.AskAsync($"/api/invoices/{id}.pdf")).StatusCode);
        // another currency in the same project would have to be added up with this one
        var euro = await owner.KeepBillAsync(project, Bills.Lettering());
        Assert.Equal("currency", euro.GetProperty("points")[0].GetProperty("field").GetString());
    }

    [Fact] // each number once and none left out, also when sixteen are issued at the same moment
    public async Task Sixteen_at_once_have_numbers_without_gaps()
    {
        var owner = await studio.OwnerAsync();
        List<(long Project, JsonElement Kept)> bills = [];
        for (var i = 0; i < 16; i++)
        {
            var project = await studio.InquireAsync(new Visitor(studio), $"sixteen{i}@lanternhouse.example");
            bills.Add((project, await owner.KeepBillAsync(project, Bills.Lettering())));
        }
        var answers = await Task.WhenAll(bills.Select(bill => owner.IssueAsync(bill.Project, bill.Kept)));
        Assert.Equal(16, answers.Select(answer => answer.GetProperty("number").GetString()).Distinct().Count());
        var sequences = await studio.LookAsync(db =>
            db.Invoices.Where(i => i.Sort == InvoiceSort.Invoice && i.Year == 2027)
                .Select(i => i.Sequence)
                .ToListAsync()
        );
        Assert.Equal(Enumerable.Range(1, sequences.Count), sequences.Order());
    }

    [Fact]
    public async Task A_credit_note_by_hand_takes_a_part_back()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "part@lanternhouse.example");
        var issued = await owner.IssueAsync(project, await owner.KeepBillAsync(project, Bills.Lettering()));
        var id = issued.GetProperty("invoice").GetInt64();
        Assert.Contains(
            "393.60",
            (
                await (
                    await owner.PostAsync($"/api/invoices/{id}/credit", new { amount = "400", why = "door" })
                ).Content.ReadAsStringAsync()
            )
        );
        Assert.Contains(
            "why",
            await (
                await owner.PostAsync($"/api/invoices/{id}/credit", new { amount = "40", why = " " })
            ).Content.ReadAsStringAsync()
        );
        Assert.True(
            (
                await owner.PostAsync($"/api/invoices/{id}/credit", new { amount = "93.60", why = "the door was ours" })
            ).IsSuccessStatusCode
        );
        var rows = await studio.LookAsync(db =>
            db.Invoices.AsNoTracking()
                .Where(i => i.ProjectId == new ProjectId(project))
                .OrderBy(i => i.Id)
                .ToListAsync()
        );
        Assert.Equal([(39_360, 30_000), (9_360, 0)], rows.Select(row => (row.TotalMinor, row.OwedMinor)));
        var data = await KeptAsync(rows[1].Id.Value, true);
        Assert.Empty(En16931.Broken(data));
        Assert.Empty(UblOrder.Misplaced(data));
        Assert.Contains(rows[0].Number, System.Text.Encoding.UTF8.GetString(data));
    }

    [Fact]
    public async Task Late_interest_is_proposed_with_its_working_and_asked_for_once()
    {
        var owner = await studio.OwnerAsync();
        var was = await owner.ChangeStudioAsync(said =>
        {
            said["billing"]!["late"] = "PerMonth";
            said["billing"]!["lateFigure"] = "1";
        });
        var project = await studio.InquireAsync(new Visitor(studio), "late@lanternhouse.example");
        var bill = Bills.Of(Bills.Line("Sign", "1", "1000", "0"));
        bill["says"]!["dueDays"] = 0;
        var issued = await owner.IssueAsync(project, await owner.KeepBillAsync(project, bill));
        var id = issued.GetProperty("invoice").GetInt64();
        // the day after it was due bears the first day's interest: 1 000 × 12 % / 365
        await studio.WaitUntilAsync(
            studio.Services.GetRequiredService<TimeProvider>().GetUtcNow().ToInstantOf() + Duration.FromDays(10)
        );
        owner = await studio.OwnerAsync();
        var read = await owner.GetAsync($"/api/projects/{project}/entries/Invoice/{id}");
        var late = read.GetProperty("invoice").GetProperty("late");
        Assert.Equal("€ 3.29", late.GetProperty("total").GetString()!.Replace('\u202F', ' ').Replace('\u00A0', ' '));
        Assert.Contains("10 days: 12 % a year", late.GetProperty("working")[0].GetString());
        Assert.True((await owner.PostAsync($"/api/invoices/{id}/interest")).IsSuccessStatusCode);
        var draft = await owner.GetAsync($"/api/projects/{project}/bill");
        Assert.Equal(
            issued.GetProperty("number").GetString(),
            draft.GetProperty("for").GetProperty("interest").GetString()
        );
        var asked = await owner.IssueAsync(project, draft);
        Assert.Empty(En16931.Broken(await KeptAsync(asked.GetProperty("invoice").GetInt64(), true)));
        Assert.Equal(HttpStatusCode.Conflict, (await owner.PostAsync($"/api/invoices/{id}/interest")).StatusCode);
        await owner.ChangeStudioAsync(said =>
            said["billing"] = JsonNode.Parse(was.GetProperty("billing").GetRawText())
        );
    }

    [Fact]
    public async Task The_list_shows_what_is_open_by_age_client_and_month_and_as_a_table()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "listed@lanternhouse.example");
        await owner.ChangeClientAsync(project, person => person["name"] = "Zora Listed");
        var first = await owner.IssueAsync(project, await owner.KeepBillAsync(project, Bills.Lettering()));
        var yen = await studio.InquireAsync(new Visitor(studio), "listed2@lanternhouse.example");
        await owner.ChangeClientAsync(yen, person => person["name"] = "Zora Listed");
        var bill = Bills.Lettering();
        bill["currency"] = "JPY";
        await owner.IssueAsync(yen, await owner.KeepBillAsync(yen, bill));
        var list = await owner.GetAsync("/api/invoices?words=zora");
        Assert.Equal(2, list.GetProperty("sums").GetProperty("count").GetInt32());
        var owed = list.GetProperty("sums")
            .GetProperty("owed")
            .GetString()!
            .Replace('\u202F', ' ')
            .Replace('\u00A0', ' ');
        Assert.Contains("€ 393.60", owed);
        Assert.Contains("394", owed);
        foreach (var by in new[] { "Age", "Client", "Month", "Number" })
        {
            var groups = (await owner.GetAsync($"/api/invoices?words=zora&by={by}")).GetProperty("groups");
            Assert.Equal(2, groups.EnumerateArray().Sum(group => group.GetProperty("rows").GetArrayLength()));
            Assert.Equal(2, groups.EnumerateArray().Sum(group => group.GetProperty("count").GetInt32()));
        }
        Assert.Equal(
            0,
            (await owner.GetAsync("/api/invoices?words=zora&show=Paid"))
                .GetProperty("sums")
                .GetProperty("count")
                .GetInt32()
        );
        Assert.Equal(
            0,
            (await owner.GetAsync("/api/invoices?words=zora&month=2026-01"))
                .GetProperty("sums")
                .GetProperty("count")
                .GetInt32()
        );
        var table = await (await owner.AskAsync("/api/invoices.csv?words=zora")).Content.ReadAsStringAsync();
        Assert.Contains(first.GetProperty("number").GetString()!, table);
        Assert.Contains("EUR,320.00,73.60,393.60,393.60,open", table.Replace("\"", ""));
    }
}

/// <summary>Invoices as their page writes them.</summary>
internal static class Bills
{
    public static JsonObject Line(string title, string quantity, string price, string tax) =>
        new()
        {
            ["key"] = Guid.NewGuid().ToString("n")[..8],
            ["title"] = title,
            ["detail"] = "",
            ["quantity"] = quantity,
            ["unit"] = "letters",
            ["unitPrice"] = price,
            ["tax"] = tax,
        };

    public static JsonObject Of(params JsonObject[] lines) =>
        new()
        {
            ["currency"] = "EUR",
            ["gross"] = false,
            ["lines"] = new JsonArray([.. lines]),
            ["less"] = null,
            ["says"] = new JsonObject
            {
                ["about"] = "extra lettering",
                ["purchaseReference"] = "PO 4711",
                ["performedFrom"] = "2027-01-20",
                ["performedUntil"] = "2027-01-24",
                ["exemptReason"] = "",
                ["note"] = "Thank you.",
                ["dueDays"] = 14,
                ["files"] = new JsonArray(),
            },
        };

    /// <summary>16 letters at 20.00 and 23 %: € 393.60.</summary>
    public static JsonObject Lettering() => Of(Line("Extra lettering", "16", "20", "23"));

    public static async Task<JsonElement> KeepBillAsync(this Visitor owner, long project, JsonObject bill)
    {
        var now = await owner.GetAsync($"/api/projects/{project}/bill");
        var saved = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/bill",
            JsonContent.Create(new { edition = now.GetProperty("edition").GetInt32(), bill })
        );
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        return await saved.Content.ReadFromJsonAsync<JsonElement>();
    }

    public static async Task<JsonElement> IssueAsync(
        this Visitor owner,
        long project,
        JsonElement kept,
        object? issue = null
    )
    {
        var answer = await owner.PostAsync(
            $"/api/projects/{project}/bill/issue",
            issue ?? new { edition = kept.GetProperty("edition").GetInt32() }
        );
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    /// <summary>Changes what is kept of a project's client.</summary>
    public static async Task ChangeClientAsync(this Visitor owner, long project, Action<JsonNode> change)
    {
        var bill = await owner.GetAsync($"/api/projects/{project}/bill");
        var person = bill.GetProperty("for").GetProperty("person").GetInt64();
        var details = JsonNode.Parse(
            (await owner.GetAsync($"/api/people/{person}")).GetProperty("details").GetRawText()
        )!;
        change(details);
        var saved = await owner.SendAsync(HttpMethod.Put, $"/api/people/{person}", JsonContent.Create(details));
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
    }

    public static Instant ToInstantOf(this DateTimeOffset at) => Instant.FromDateTimeOffset(at);
}
