using System.IO.Compression;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Books;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>The books: costs and income, accounts, what figures are made of, tax, and the folder of a year.</summary>
public sealed partial class BooksTests(FullStudio studio) : IClassFixture<FullStudio>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private static string Plain(string? text) => text!.Replace('\u202F', ' ').Replace('\u00A0', ' ');

    private static string Plain(JsonElement text) => Plain(text.GetString());

    private static object Cost(
        string what,
        string amount,
        string? on = null,
        long? account = null,
        string tax = "23",
        string category = "materials"
    ) =>
        new
        {
            on,
            what,
            payee = "Corrigan Paints",
            category,
            amount,
            tax,
            chargeOn = false,
            account,
        };

    private static async Task<long> DoneAsync(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync(Stop);
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonDocument.Parse(text).RootElement.GetProperty("id").GetInt64();
    }

    private static async Task<string> RefusedAsync(HttpResponseMessage answer, string field)
    {
        var text = await answer.Content.ReadAsStringAsync(Stop);
        Assert.False(answer.IsSuccessStatusCode, text);
        return JsonDocument.Parse(text).RootElement.GetProperty("errors").GetProperty(field)[0].GetString()!;
    }

    private static Task<HttpResponseMessage> PutAsync(Visitor owner, string path, object what) =>
        owner.SendAsync(HttpMethod.Put, path, JsonContent.Create(what));

    private static async Task<List<(string Title, string Amount)>> PartsAsync(Visitor owner, string query) =>
        [
            .. (await owner.GetAsync($"/api/money/parts?{query}&most=2000"))
                .GetProperty("rows")
                .EnumerateArray()
                .Select(row => (row.GetProperty("title").GetString()!, Plain(row.GetProperty("amount")))),
        ];

    /// <summary>“− 61.50” in minor units.</summary>
    private static long Minor(string amount) =>
        (amount.Contains('\u2212', StringComparison.Ordinal) || amount.Contains('-', StringComparison.Ordinal) ? -1 : 1)
        * long.Parse(
            new string([.. amount.Where(char.IsAsciiDigit)]),
            System.Globalization.CultureInfo.InvariantCulture
        );

    [Fact]
    public async Task A_cost_of_the_studio_is_kept_with_its_receipt_changed_and_taken_out()
    {
        var owner = await studio.OwnerAsync();
        var id = await DoneAsync(await owner.PostAsync("/api/costs", Cost("Sable brushes", "84.05")));
        var receipt = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/costs/{id}/receipt?name=brushes.png",
            Bytes([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A])
        );
        Assert.True(receipt.IsSuccessStatusCode, await receipt.Content.ReadAsStringAsync(Stop));
        var opened = await owner.GetAsync($"/api/costs/{id}");
        Assert.Equal("brushes.png", opened.GetProperty("receipt").GetString());
        Assert.Equal(JsonValueKind.Null, opened.GetProperty("project").ValueKind);
        Assert.Contains(("Sable brushes", "\u2212 84.05"), await PartsAsync(owner, "show=Spent"));
        Assert.True((await PutAsync(owner, $"/api/costs/{id}", Cost("Sable brushes", "90.00"))).IsSuccessStatusCode);
        Assert.Contains(("Sable brushes", "\u2212 90.00"), await PartsAsync(owner, "show=Spent"));
        await owner.PostAsync($"/api/costs/{id}/removed", new { removed = true });
        Assert.DoesNotContain(await PartsAsync(owner, "show=Spent"), row => row.Title == "Sable brushes");
        await owner.PostAsync($"/api/costs/{id}/removed", new { removed = false });
        Assert.Contains(("Sable brushes", "\u2212 90.00"), await PartsAsync(owner, "show=Spent"));
    }

    private static ByteArrayContent Bytes(byte[] content)
    {
        var bytes = new ByteArrayContent(content);
        bytes.Headers.ContentType = new("application/octet-stream");
        return bytes;
    }

    [Theory]
    [InlineData("what", "", "10", "23", null, "1 to 200")]
    [InlineData("amount", "Paint", "0", "23", null, "above 0")]
    [InlineData("amount", "Paint", "plenty", "23", null, "above 0")]
    [InlineData("tax", "Paint", "10", "123", null, "between 0 and 100")]
    [InlineData("on", "Paint", "10", "23", "2027-02-01", "later than today")]
    public async Task A_wrong_cost_names_its_field(
        string field,
        string what,
        string amount,
        string tax,
        string? on,
        string words
    )
    {
        var owner = await studio.OwnerAsync();
        var answer = await owner.PostAsync("/api/costs", Cost(what, amount, on, tax: tax));
        Assert.Contains(words, await RefusedAsync(answer, field), StringComparison.Ordinal);
    }

    /// <summary>The demo's whole books by month: every figure of the picture equals the sum of the entries it opens, and a year its months.</summary>
    [Theory]
    [InlineData("Received")]
    [InlineData("Billed")]
    public async Task Every_figure_is_the_sum_of_what_it_opens(string how)
    {
        var owner = await studio.OwnerAsync();
        foreach (var year in (int[])[2024, 2025, 2026, 2027])
        {
            var money = await owner.GetAsync($"/api/money?year={year}&as={how}");
            var columns = money.GetProperty("columns").EnumerateArray().ToList();
            Assert.Equal(12, columns.Count);
            foreach (var column in columns)
            {
                var days =
                    $"from={column.GetProperty("from").GetString()}&until={column.GetProperty("until").GetString()}&as={how}";
                foreach (var part in column.GetProperty("parts").EnumerateArray())
                {
                    var show = part.GetProperty("show").GetString();
                    var rows = await PartsAsync(owner, $"{days}&show={show}");
                    var sum = rows.Sum(row => Minor(row.Amount));
                    Assert.Equal(part.GetProperty("minor").GetInt64(), show is "Spent" or "Recurs" ? -sum : sum);
                }
            }
            var whole = (await PartsAsync(owner, $"year={year}&as={how}")).Sum(row => Minor(row.Amount));
            Assert.Equal(whole, columns.Sum(column => ResultOf(column)));
            Assert.Equal(whole, Minor(Plain(money.GetProperty("head").GetProperty("result"))));
        }
    }

    private static long ResultOf(JsonElement column) =>
        column.GetProperty("result") is { ValueKind: JsonValueKind.Object } result
            ? result.GetProperty("minor").GetInt64()
            : 0;

    /// <summary>What a naive recount of the rows finds: payments that hold, less what was given back, less costs, plus other income.</summary>
    [Fact]
    public async Task The_years_equal_a_recount_of_the_rows()
    {
        var owner = await studio.OwnerAsync();
        var all = await owner.GetAsync("/api/money?year=all");
        var recount = await studio.LookAsync(
            async (GesamtDb db) =>
            {
                var payments = await db
                    .Payments.Where(p => p.GoneAt == null && p.Currency == "EUR")
                    .SumAsync(p => p.AmountMinor);
                var refunds = await db
                    .Refunds.Where(r => r.State == RefundState.Done && r.Currency == "EUR")
                    .SumAsync(r => r.AmountMinor);
                var costs = await db.Costs.Where(c => !c.Removed && c.Currency == "EUR").SumAsync(c => c.GrossMinor);
                var incomes = await db
                    .Incomes.Where(i => !i.Removed && i.Currency == "EUR")
                    .SumAsync(i => i.GrossMinor);
                return payments - refunds - costs + incomes;
            }
        );
        Assert.Equal(recount, Minor(Plain(all.GetProperty("head").GetProperty("result"))));
    }

    /// <summary>Over the demo: what a booked project has agreed to is what it paid, owes and will owe; one that is not booked counts by its chance.</summary>
    [Fact]
    public async Task Every_project_stands_in_one_place_of_the_forecast()
    {
        var lines = await studio.LookAsync(
            (Desk desk) => Ahead.OfAsync(desk, desk.Currency, new LocalDate(2040, 12, 31))
        );
        var rows = await studio.LookAsync(
            (GesamtDb db) => db.Projects.AsNoTracking().Where(p => p.Standing.Ended == null).ToListAsync()
        );
        var again = await studio.LookAsync(
            async (GesamtDb db) => (await db.Recurring.Select(r => r.ProjectId).ToListAsync()).ToHashSet()
        );
        Assert.True(lines.Count > 20);
        foreach (var row in rows.Where(row => !again.Contains(row.Id) && row.Standing.OnTable))
        {
            var of = lines.Where(line => line.Project == row.Id).ToList();
            var owed = of.Where(line => line.Invoice is not null).Sum(line => line.Placed.Amount.Minor);
            Assert.Equal(row.Standing.OwedMinor, owed);
            var ahead = of.Where(line => line.Invoice is null).ToList();
            Assert.All(
                ahead,
                line =>
                    Assert.Equal(
                        row.Standing.BookedAt is null ? Core.Books.Place.Likely : Core.Books.Place.ToCome,
                        line.Placed.Place
                    )
            );
            if (row.Standing.AgreedMinor is { } agreed && row.Standing.PaidMinor + row.Standing.OwedMinor <= agreed)
                Assert.True(
                    ahead.Sum(line => line.Placed.Whole.Minor)
                        <= agreed - row.Standing.PaidMinor - row.Standing.OwedMinor,
                    row.Title
                );
        }
    }

    [Fact] // counted here by what the letters say
    public async Task What_is_late_says_how_often_the_client_was_reminded()
    {
        var owner = await studio.OwnerAsync();
        var rows = (await owner.GetAsync("/api/money"))
            .GetProperty("owed")
            .GetProperty("rows")
            .EnumerateArray()
            .Where(row => row.GetProperty("late").GetBoolean())
            .ToDictionary(row => row.GetProperty("number").GetString()!, row => row.GetProperty("next").GetString()!);
        var subjects = await studio.LookAsync(
            (GesamtDb db) => db.Letters.Where(l => l.State == LetterState.Sent).Select(l => l.Subject).ToListAsync()
        );
        Assert.Contains(rows, row => row.Value.StartsWith("reminded 4 times, last ", StringComparison.Ordinal));
        foreach (var (invoice, next) in rows.Where(row => row.Value != "a letter asks for your OK"))
        {
            var number = invoice.Split(' ')[1];
            var times = subjects.Count(s => s.StartsWith($"Invoice {number} was due on ", StringComparison.Ordinal));
            Assert.StartsWith(
                times switch
                {
                    0 => "",
                    1 => "reminded ",
                    _ => $"reminded {times} times",
                },
                next,
                StringComparison.Ordinal
            );
            Assert.Equal(times == 0, next.Length == 0);
        }
    }

    /// <summary>The folder of a year, read by other programs than the one that wrote it: a plain reader of CSV, and the bytes of the papers themselves.</summary>
    [Fact]
    public async Task A_year_is_closed_and_handed_over_with_a_control_that_proves_itself()
    {
        var owner = await studio.OwnerAsync();
        Assert.Contains(
            "once it is over",
            await RefusedAsync(await owner.PostAsync("/api/money/years/2027/closed", new { closed = true }), "year"),
            StringComparison.Ordinal
        );
        Assert.True((await owner.PostAsync("/api/money/years/2025/closed", new { closed = true })).IsSuccessStatusCode);
        Assert.Contains(
            "2025 is closed",
            await RefusedAsync(await owner.PostAsync("/api/costs", Cost("Late find", "12", "2025-06-01")), "on"),
            StringComparison.Ordinal
        );
        using var folder = await owner.SendAsync(HttpMethod.Get, "/api/money/years/2025/folder.zip", null);
        Assert.True(folder.IsSuccessStatusCode);
        using var zip = new ZipArchive(await folder.Content.ReadAsStreamAsync(Stop));
        List<string[]> Table(string name)
        {
            using var reader = new StreamReader(zip.GetEntry(name)!.Open(), Encoding.UTF8);
            return [.. Cells(reader.ReadToEnd())];
        }
        var journal = Table("journal.csv");
        Assert.Equal(
            ["Day", "Sort", "Who", "What", "Category", "Account", "Amount", "Currency", "Tax rate", "Receipt"],
            journal[0]
        );
        Assert.All(journal.Skip(1), row => Assert.StartsWith("2025-", row[0], StringComparison.Ordinal));
        decimal Number(string text) => decimal.Parse(text, System.Globalization.CultureInfo.InvariantCulture);
        var control = Assert.Single(Table("control.csv").Skip(1));
        Assert.Equal(journal.Skip(1).Sum(row => Number(row[6])), Number(control[1]));
        Assert.Equal(0m, Number(control[5]));
        var accounts = Table("accounts.csv").Skip(1).ToList();
        Assert.Equal(Number(control[2]), accounts.Sum(row => Number(row[7]) - Number(row[2]) - Number(row[3])));
        // every paper and every receipt the journal names lies beside it
        foreach (var file in journal.Skip(1).Select(row => row[9]).Where(name => name.Length > 0).Distinct())
        {
            using var bytes = new MemoryStream();
            zip.GetEntry(file)!.Open().CopyTo(bytes);
            Assert.True(bytes.Length > 100, file);
            if (file.EndsWith(".pdf", StringComparison.Ordinal))
                Assert.StartsWith("%PDF-", Encoding.Latin1.GetString(bytes.ToArray(), 0, 8), StringComparison.Ordinal);
        }
        Assert.Contains(
            zip.Entries,
            entry =>
                entry.FullName.StartsWith("invoices/", StringComparison.Ordinal)
                && entry.Name.EndsWith(".xml", StringComparison.Ordinal)
        );
        Assert.Contains(zip.Entries, entry => entry.FullName.StartsWith("receipts/", StringComparison.Ordinal));
        var years = await owner.GetAsync("/api/money/years");
        var closed = years.EnumerateArray().Single(one => one.GetProperty("year").GetInt32() == 2025);
        Assert.NotEqual("", closed.GetProperty("closed").GetString());
        Assert.Equal("", closed.GetProperty("changed").GetString());
        await owner.PostAsync("/api/money/years/2025/closed", new { closed = false });
        Assert.True((await owner.PostAsync("/api/costs", Cost("Late find", "12", "2025-06-01"))).IsSuccessStatusCode);
    }

    /// <summary>RFC 4180, read by hand: quoted cells, doubled quotes.</summary>
    private static IEnumerable<string[]> Cells(string text)
    {
        List<string> row = [];
        var cell = new StringBuilder();
        var quoted = false;
        foreach (var (i, c) in text.TrimStart('\uFEFF').Index())
            switch (c)
            {
                case '"' when quoted && i + 1 < text.Length && text.TrimStart('\uFEFF')[i + 1] == '"':
                    cell.Append('"');
                    quoted = false;
                    break;
                case '"':
                    quoted = !quoted;
                    break;
                case ',' when !quoted:
                    row.Add(cell.ToString());
                    cell.Clear();
                    break;
                case '\n' when !quoted:
                    row.Add(cell.ToString().TrimEnd('\r'));
                    cell.Clear();
                    yield return [.. row];
                    row.Clear();
                    break;
                default:
                    cell.Append(c);
                    break;
            }
    }

    /// <summary>Tax as billed and as received, each recounted from the papers: over all years the two differ by what is not paid.</summary>
    [Fact]
    public async Task Tax_is_summed_by_rate_as_billed_or_as_received()
    {
        var owner = await studio.OwnerAsync();
        async Task<JsonElement> TaxAsync(string how)
        {
            await owner.PostAsync("/api/money/tax", new { @as = how });
            var tax = await owner.GetAsync("/api/money/tax?from=2024-01-01&until=2026-12-31");
            Assert.Equal(how, tax.GetProperty("as").GetString());
            return tax.GetProperty("currencies")[0];
        }
        var billed = await TaxAsync("Billed");
        var expected = await studio.LookAsync(
            async (GesamtDb db) =>
                (
                    await db.Invoices.Where(i => i.Year > 0 && i.IssuedOn <= new LocalDate(2026, 12, 31)).ToListAsync()
                ).Sum(i =>
                    (i.Sort == InvoiceSort.CreditNote ? -1 : 1)
                    * Store.Json.StoreJson.Read<Papers.InvoiceSnapshot>(i.Snapshot).Totals.Tax.Minor
                )
        );
        var income = 640_00L - 520_33;
        Assert.Equal(expected + income, Minor(Plain(billed.GetProperty("outputTax"))));
        var received = await TaxAsync("Received");
        Assert.True(Minor(Plain(received.GetProperty("outputTax"))) < Minor(Plain(billed.GetProperty("outputTax"))));
        Assert.Equal(Plain(billed.GetProperty("inputTax")), Plain(received.GetProperty("inputTax")));
        Assert.Contains(
            "not before the first",
            await RefusedAsync(
                await owner.SendAsync(HttpMethod.Get, "/api/money/tax?from=2026-02-01&until=2026-01-01", null),
                "until"
            ),
            StringComparison.Ordinal
        );
        await owner.PostAsync("/api/money/tax", new { @as = "Billed" });
    }

    [Fact]
    public async Task The_owners_own_chance_goes_before_the_counts()
    {
        var owner = await studio.OwnerAsync();
        async Task<JsonElement> ProposalAsync() =>
            (await owner.GetAsync("/api/money/chances"))
                .EnumerateArray()
                .Single(one => one.GetProperty("stage").GetString() == "Proposal");
        var counted = (await ProposalAsync()).GetProperty("percent").GetInt32();
        Assert.InRange(counted, 1, 99);
        Assert.True(
            (await PutAsync(owner, "/api/money/chances/Proposal", new { percent = "100 %" })).IsSuccessStatusCode
        );
        Assert.Equal(100, (await ProposalAsync()).GetProperty("percent").GetInt32());
        // what is no whole share is said to be none, and the figure stays
        foreach (var wrong in new[] { "101", "-1", "70.5", "7O", "most" })
            Assert.Contains(
                "0 to 100",
                await RefusedAsync(
                    await PutAsync(owner, "/api/money/chances/Proposal", new { percent = wrong }),
                    "percent"
                ),
                StringComparison.Ordinal
            );
        Assert.True((await PutAsync(owner, "/api/money/chances/Proposal", new { percent = "" })).IsSuccessStatusCode);
        Assert.Equal(counted, (await ProposalAsync()).GetProperty("percent").GetInt32());
    }

    /// <summary>A payment that was only written down by mistake never came; one the bank took back came and went.</summary>
    [Fact]
    public async Task A_chargeback_came_and_went_and_a_mistake_never_came()
    {
        var owner = await studio.OwnerAsync();
        var invoice = await studio.LookAsync(
            (GesamtDb db) =>
                db
                    .Invoices.AsNoTracking()
                    .Where(i => i.OwedMinor > 100_00 && i.Year > 0)
                    .OrderBy(i => i.Id)
                    .FirstAsync()
        );
        var project = invoice.ProjectId.Value;
        async Task<long> PayAsync() =>
            await studio.LookAsync(
                async (Desk desk) =>
                {
                    var paid = await owner.PostAsync(
                        $"/api/projects/{project}/happened",
                        new
                        {
                            sort = "Paid",
                            amount = "50",
                            invoice = invoice.Id.Value,
                            means = "Cash",
                        }
                    );
                    Assert.True(paid.IsSuccessStatusCode, await paid.Content.ReadAsStringAsync(Stop));
                    return (await desk.Db.Payments.OrderByDescending(p => p.Id).FirstAsync()).Id.Value;
                }
            );
        async Task<List<string>> AmountsAsync() =>
            [
                .. (await PartsAsync(owner, "show=Received"))
                    .Where(row => row.Amount.EndsWith(" 50.00", StringComparison.Ordinal))
                    .Select(row => row.Amount),
            ];
        var before = await AmountsAsync();
        var mistake = await PayAsync();
        await owner.PostAsync($"/api/projects/{project}/payments/{mistake}/void", new { });
        Assert.Equal(before, await AmountsAsync());
        var bounced = await PayAsync();
        var back = await owner.PostAsync($"/api/projects/{project}/payments/{bounced}/charged-back", new { });
        Assert.True(back.IsSuccessStatusCode, await back.Content.ReadAsStringAsync(Stop));
        Assert.Equal(
            before.Concat(["+ 50.00", "\u2212 50.00"]).Order(StringComparer.Ordinal),
            (await AmountsAsync()).Order(StringComparer.Ordinal)
        );
    }
}
