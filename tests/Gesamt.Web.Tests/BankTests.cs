using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using Gesamt.Formats.Bank;
using Gesamt.Store.Model;
using Gesamt.Web.Banking;

namespace Gesamt.Web.Tests;

/// <summary>Statements of the bank: what is booked by itself, what is asked about, and how all of it is undone.</summary>
public sealed class BankTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private const string Account = "IE29AIBK93115212345678";
    private static readonly LocalDate Day = new(2027, 1, 25);

    private static BankLine Line(
        decimal amount,
        string text,
        string reference,
        string bank,
        string party = "M. Farrow"
    ) => new(Day, Money.Of(amount, Currency.Eur), party, text, reference, bank);

    private static byte[] Camt(params BankLine[] lines) =>
        Camt053.Write(new(Account, [.. lines]), "1", Instant.FromUtc(2027, 1, 25, 18, 0));

    private static async Task<HttpResponseMessage> SendAsync(Visitor owner, byte[] file, string name = "january.xml")
    {
        var content = new ByteArrayContent(file);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        return await owner.SendAsync(HttpMethod.Post, $"/api/bank/statements?name={name}", content);
    }

    private static async Task<StatementTakenDto> TakeAsync(Visitor owner, byte[] file, string name = "january.xml")
    {
        var answer = await SendAsync(owner, file, name);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return JsonSerializer.Deserialize<StatementTakenDto>(
            await answer.Content.ReadAsStringAsync(),
            new JsonSerializerOptions(JsonSerializerDefaults.Web)
            {
                Converters = { new System.Text.Json.Serialization.JsonStringEnumConverter() },
            }
        )!;
    }

    private Task<InvoiceRow> InvoiceAsync(long project) =>
        studio.LookAsync(db =>
            db.Invoices.AsNoTracking().Where(i => i.ProjectId == new ProjectId(project)).OrderBy(i => i.Id).FirstAsync()
        );

    private Task<List<PaymentRow>> PaymentsAsync(long project) =>
        studio.LookAsync(db =>
            db.Payments.AsNoTracking()
                .Where(p => p.ProjectId == new ProjectId(project))
                .OrderBy(p => p.Id)
                .ToListAsync()
        );

    private Task<StandingColumns> StandingAsync(long project) =>
        studio.LookAsync(db =>
            db.Projects.AsNoTracking().Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing).SingleAsync()
        );

    private static async Task<JsonElement> OpenAsync(Visitor owner, string text) =>
        (await owner.GetAsync("/api/bank"))
            .GetProperty("open")
            .EnumerateArray()
            .Single(line => line.GetProperty("text").GetString()!.Contains(text, StringComparison.Ordinal));

    private static Task<HttpResponseMessage> SayAsync(
        Visitor owner,
        JsonElement line,
        string what,
        object? body = null
    ) => owner.PostAsync($"/api/bank/lines/{line.GetProperty("id").GetInt64()}/{what}", body ?? new { });

    [Fact] // R19: in whatever file the line comes, it is one payment
    public async Task Reference_and_amount_are_booked_by_themselves_and_once()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("itself@lanternhouse.example");
        var invoice = await InvoiceAsync(project);
        var line = Line(2_656.80m, "", CreditorReference.Of(invoice.Number), "S-1");
        var first = await TakeAsync(owner, Camt(line, Line(-4.20m, "coffee", "", "S-2")));
        Assert.Equal((2, 2, 1), (first.Lines, first.New, first.Booked));
        var payment = Assert.Single(await PaymentsAsync(project));
        Assert.Equal(
            (265_680L, PaymentMeans.Transfer, invoice.Id),
            (payment.AmountMinor, payment.Means, payment.InvoiceId)
        );
        Assert.NotNull((await StandingAsync(project)).BookedAt);
        var again = await TakeAsync(owner, Camt(line, Line(-4.20m, "coffee", "", "S-2")), "again.xml");
        Assert.Equal((2, 0, 0), (again.Lines, again.New, again.Booked));
        var old = Camt053.Write(new(Account, [line]), "2", Instant.FromUtc(2027, 1, 26, 18, 0), Camt053Version.V02);
        Assert.Equal(0, (await TakeAsync(owner, old, "old.xml")).New);
        Assert.Single(await PaymentsAsync(project));
        Assert.Contains(
            (await owner.GetAsync("/api/bank")).GetProperty("done").EnumerateArray(),
            done =>
                done.GetProperty("byItself").GetBoolean()
                && done.GetProperty("paid")[0].GetProperty("number").GetString() == invoice.Number
        );
    }

    /// <summary>Money out is one cost's, of that amount; what is matched stays as it is until that is undone.</summary>
    [Fact]
    public async Task Money_out_is_matched_to_a_cost()
    {
        var owner = await studio.OwnerAsync();
        object Cost(string what, string amount, string on) =>
            new
            {
                on,
                what,
                payee = "Harbour Mutual",
                category = "van",
                amount,
                tax = "0",
                chargeOn = false,
            };
        async Task<long> KeepAsync(string what, string amount, string on)
        {
            var kept = await owner.PostAsync("/api/costs", Cost(what, amount, on));
            return (await kept.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
                .GetProperty("id")
                .GetInt64();
        }
        var insured = await KeepAsync("Van insurance", "61", "2027-01-20");
        await KeepAsync("Too long ago", "61", "2026-12-01");
        var other = await KeepAsync("Another amount", "62", "2027-01-24");
        await TakeAsync(owner, Camt(Line(-61m, "POLICY 77", "", "O-1"), Line(-61m, "POLICY 78", "", "O-2")));
        async Task<List<JsonElement>> OutAsync() =>
            [
                .. (await owner.GetAsync("/api/bank/out"))
                    .EnumerateArray()
                    .Where(line =>
                        line.GetProperty("text").GetString()!.StartsWith("POLICY", StringComparison.Ordinal)
                    ),
            ];
        var lines = await OutAsync();
        Assert.Equal(2, lines.Count);
        Assert.All(
            lines,
            line =>
                Assert.Equal(
                    insured,
                    Assert.Single(line.GetProperty("costs").EnumerateArray()).GetProperty("id").GetInt64()
                )
        );
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await SayAsync(owner, lines[0], "cost", new { cost = other })).StatusCode
        );
        Assert.True((await SayAsync(owner, lines[0], "cost", new { cost = insured })).IsSuccessStatusCode);
        var left = Assert.Single(await OutAsync());
        Assert.Equal(0, left.GetProperty("costs").GetArrayLength());
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await SayAsync(owner, left, "cost", new { cost = insured })).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/costs/{insured}/removed", new { removed = true })).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/costs/{insured}",
                    JsonContent.Create(Cost("Van insurance", "70", "2027-01-20"))
                )
            ).StatusCode
        );
        Assert.Contains(
            (await owner.GetAsync("/api/bank")).GetProperty("done").EnumerateArray(),
            done => done.GetProperty("cost").GetString() == "Van insurance"
        );
        Assert.True((await SayAsync(owner, lines[0], "undo")).IsSuccessStatusCode);
        Assert.Equal(2, (await OutAsync()).Count);
    }

    [Fact]
    public async Task Undone_it_counts_nowhere_and_the_line_is_open_again()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("undone@lanternhouse.example");
        var invoice = await InvoiceAsync(project);
        await TakeAsync(owner, Camt(Line(2_656.80m, "", CreditorReference.Of(invoice.Number), "U-1")));
        var payment = Assert.Single(await PaymentsAsync(project)).Id.Value;
        // what the bank brought is not taken back behind its back
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{project}/payments/{payment}/void", new { })).StatusCode
        );
        var done = (await owner.GetAsync("/api/bank"))
            .GetProperty("done")
            .EnumerateArray()
            .First(one => one.GetProperty("paid")[0].GetProperty("number").GetString() == invoice.Number);
        Assert.True((await SayAsync(owner, done, "undo")).IsSuccessStatusCode);
        var standing = await StandingAsync(project);
        Assert.Equal((0L, 265_680L), (standing.PaidMinor, standing.OwedMinor));
        var open = await OpenAsync(owner, CreditorReference.Of(invoice.Number));
        var offer = open.GetProperty("offers")[0];
        Assert.Equal(
            (invoice.Number, "its reference and its amount"),
            (offer.GetProperty("number").GetString(), offer.GetProperty("why").GetString())
        );
        Assert.True(
            (await SayAsync(owner, open, "book", new { invoices = new[] { invoice.Id.Value } })).IsSuccessStatusCode
        );
        Assert.Equal(265_680L, (await StandingAsync(project)).PaidMinor);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await SayAsync(owner, open, "book", new { invoices = new[] { invoice.Id.Value } })).StatusCode
        );
    }

    [Fact]
    public async Task What_was_given_back_since_is_not_undone()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("gaveback@lanternhouse.example");
        var invoice = await InvoiceAsync(project);
        await TakeAsync(owner, Camt(Line(2_656.80m, "", CreditorReference.Of(invoice.Number), "G-1")));
        var payment = Assert.Single(await PaymentsAsync(project)).Id.Value;
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/payments/{payment}/refund",
                    new
                    {
                        amount = "100",
                        credit = false,
                        means = "Transfer",
                    }
                )
            ).IsSuccessStatusCode
        );
        var done = (await owner.GetAsync("/api/bank"))
            .GetProperty("done")
            .EnumerateArray()
            .First(one => one.GetProperty("paid")[0].GetProperty("number").GetString() == invoice.Number);
        Assert.Equal(HttpStatusCode.Conflict, (await SayAsync(owner, done, "undo")).StatusCode);
        Assert.Equal(255_680L, (await StandingAsync(project)).PaidMinor);
    }

    [Fact]
    public async Task One_line_pays_several_and_what_is_more_is_paid_ahead()
    {
        var (owner, _, one, _) = await studio.SignedByAllAsync("several1@lanternhouse.example");
        var (_, _, other, _) = await studio.SignedByAllAsync("several2@lanternhouse.example");
        var (first, second) = (await InvoiceAsync(one), await InvoiceAsync(other));
        await TakeAsync(owner, Camt(Line(5_400m, "both, thank you", "", "B-1")));
        var line = await OpenAsync(owner, "both, thank you");
        var ids = new[] { first.Id.Value, second.Id.Value };
        var shares = await owner.GetAsync(
            $"/api/bank/lines/{line.GetProperty("id").GetInt64()}/shares?invoices={ids[0]}&invoices={ids[1]}"
        );
        Assert.Equal(2, shares.GetProperty("parts").GetArrayLength());
        Assert.Contains("86.40", shares.GetProperty("left").GetString());
        Assert.Contains(
            "invoices",
            await (
                await SayAsync(owner, line, "book", new { invoices = Array.Empty<long>() })
            ).Content.ReadAsStringAsync()
        );
        Assert.True((await SayAsync(owner, line, "book", new { invoices = ids })).IsSuccessStatusCode);
        Assert.Equal(265_680L, (await StandingAsync(one)).PaidMinor);
        var standing = await StandingAsync(other);
        Assert.Equal((274_320L, 0L), (standing.PaidMinor, standing.OwedMinor));
        // undone, both are open
        Assert.True((await SayAsync(owner, line, "undo")).IsSuccessStatusCode);
        Assert.Equal((0L, 0L), ((await StandingAsync(one)).PaidMinor, (await StandingAsync(other)).PaidMinor));
    }

    [Fact]
    public async Task A_part_is_a_part_and_nothing_is_left_for_a_second_invoice()
    {
        var (owner, _, one, _) = await studio.SignedByAllAsync("part1@lanternhouse.example");
        var (_, _, other, _) = await studio.SignedByAllAsync("part2@lanternhouse.example");
        var (first, second) = (await InvoiceAsync(one), await InvoiceAsync(other));
        await TakeAsync(owner, Camt(Line(1_000m, $"first part of {first.Number}", "", "P-1")));
        var line = await OpenAsync(owner, $"first part of {first.Number}");
        Assert.Equal("its number, a part of the amount", line.GetProperty("offers")[0].GetProperty("why").GetString());
        Assert.Contains(
            second.Number,
            await (
                await SayAsync(owner, line, "book", new { invoices = new[] { first.Id.Value, second.Id.Value } })
            ).Content.ReadAsStringAsync()
        );
        Assert.True(
            (await SayAsync(owner, line, "book", new { invoices = new[] { first.Id.Value } })).IsSuccessStatusCode
        );
        Assert.Equal(165_680L, (await StandingAsync(one)).OwedMinor);
        Assert.Null((await StandingAsync(one)).BookedAt);
    }

    [Fact]
    public async Task The_columns_of_a_table_are_asked_once_and_remembered()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("table@lanternhouse.example");
        var invoice = await InvoiceAsync(project);
        byte[] Table(string rows) =>
            Encoding.UTF8.GetBytes($"Buchungstag;Betrag;Auftraggeber;Verwendungszweck\n{rows}");
        var file = Table($"25.01.2027;2.656,80;Mona Farrow;Rechnung {invoice.Number}\n26.01.2027;-12,00;Bank;Gebühr\n");
        var asked = (await TakeAsync(owner, file, "january.csv")).Columns!;
        Assert.Equal(
            [StatementColumn.Day, StatementColumn.Amount, StatementColumn.Party, StatementColumn.Text],
            asked.Columns
        );
        var url = $"/api/bank/statements/{asked.Hash}/columns";
        object Match(string account, params StatementColumn[] columns) =>
            new
            {
                name = "january.csv",
                account,
                columns = columns.Select(column => column.ToString()),
            };
        Assert.Contains(
            "account",
            await (await owner.PostAsync(url, Match("", [.. asked.Columns]))).Content.ReadAsStringAsync()
        );
        Assert.Contains(
            "columns",
            await (await owner.PostAsync(url, Match(Account, asked.Columns[0]))).Content.ReadAsStringAsync()
        );
        Assert.Contains(
            "columns",
            await (
                await owner.PostAsync(
                    url,
                    Match(
                        Account,
                        StatementColumn.Day,
                        StatementColumn.Amount,
                        StatementColumn.Amount,
                        StatementColumn.Text
                    )
                )
            ).Content.ReadAsStringAsync()
        );
        Assert.True((await owner.PostAsync(url, Match(Account, [.. asked.Columns]))).IsSuccessStatusCode);
        var line = await OpenAsync(owner, $"Rechnung {invoice.Number}");
        Assert.Equal("its number and its amount", line.GetProperty("offers")[0].GetProperty("why").GetString());
        var february = await TakeAsync(owner, Table("01.02.2027;9,99;Somebody;thanks\n"), "february.csv");
        Assert.Null(february.Columns);
        Assert.Equal(1, february.New);
        // taken back, its lines go, and its columns are asked for again
        var files = (await owner.GetAsync("/api/bank")).GetProperty("files");
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.SendAsync(
                    HttpMethod.Delete,
                    $"/api/bank/statements/{files[0].GetProperty("id").GetInt32()}",
                    null
                )
            ).StatusCode
        );
        Assert.NotNull((await TakeAsync(owner, Table("01.02.2027;9,99;Somebody;thanks\n"), "february.csv")).Columns);
    }

    [Fact]
    public async Task A_file_with_a_booked_line_stays_until_that_is_undone()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("stays@lanternhouse.example");
        var invoice = await InvoiceAsync(project);
        await TakeAsync(owner, Camt(Line(2_656.80m, "", CreditorReference.Of(invoice.Number), "T-1")));
        var bank = await owner.GetAsync("/api/bank");
        var file = $"/api/bank/statements/{bank.GetProperty("files")[0].GetProperty("id").GetInt32()}";
        Assert.Equal(HttpStatusCode.Conflict, (await owner.SendAsync(HttpMethod.Delete, file, null)).StatusCode);
        Assert.Equal(265_680L, (await StandingAsync(project)).PaidMinor);
        Assert.True((await SayAsync(owner, bank.GetProperty("done")[0], "undo")).IsSuccessStatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await owner.SendAsync(HttpMethod.Delete, file, null)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await owner.SendAsync(HttpMethod.Delete, file, null)).StatusCode);
    }

    [Fact] // statements overlap: a line of both stays with the other
    public async Task A_file_that_is_taken_back_leaves_what_another_says_too()
    {
        var owner = await studio.OwnerAsync();
        await TakeAsync(owner, Camt(Line(1.31m, "alone in the first", "", "V-1"), Line(1.32m, "in both", "", "V-2")));
        await TakeAsync(owner, Camt(Line(1.32m, "in both", "", "V-2"), Line(1.33m, "alone in the second", "", "V-3")));
        await SayAsync(owner, await OpenAsync(owner, "in both"), "set-aside");
        var files = (await owner.GetAsync("/api/bank")).GetProperty("files");
        async Task TakeBackAsync(int at) =>
            Assert.Equal(
                HttpStatusCode.NoContent,
                (
                    await owner.SendAsync(
                        HttpMethod.Delete,
                        $"/api/bank/statements/{files[at].GetProperty("id").GetInt32()}",
                        null
                    )
                ).StatusCode
            );
        await TakeBackAsync(1);
        await OpenAsync(owner, "alone in the second");
        var left = await owner.GetAsync("/api/bank");
        Assert.DoesNotContain("alone in the first", left.GetRawText());
        // what was said of it stays said
        Assert.Contains("1.32", left.GetProperty("done").GetRawText());
        await TakeBackAsync(0);
        Assert.DoesNotContain("1.32", (await owner.GetAsync("/api/bank")).GetRawText());
    }

    [Fact]
    public async Task What_is_set_aside_pays_nothing_and_comes_back()
    {
        var owner = await studio.OwnerAsync();
        await TakeAsync(owner, Camt(Line(1.12m, "interest of the quarter", "", "I-1")));
        var line = await OpenAsync(owner, "interest of the quarter");
        Assert.Equal(0, line.GetProperty("offers").GetArrayLength());
        Assert.True((await SayAsync(owner, line, "set-aside")).IsSuccessStatusCode);
        var done = (await owner.GetAsync("/api/bank")).GetProperty("done")[0];
        Assert.Equal(0, done.GetProperty("paid").GetArrayLength());
        Assert.True((await SayAsync(owner, line, "undo")).IsSuccessStatusCode);
        await OpenAsync(owner, "interest of the quarter");
    }

    [Theory]
    [InlineData("")]
    [InlineData("no statement at all")]
    [InlineData("<Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:camt.053.001.08\"><BkToCstmrStmt>")]
    [InlineData("<Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:camt.053.001.08\"><BkToCstmrStmt/></Document>")]
    public async Task What_is_no_statement_is_refused_in_words(string file)
    {
        var answer = await SendAsync(await studio.OwnerAsync(), Encoding.UTF8.GetBytes(file));
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        var errors = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors");
        Assert.NotEqual("", errors.GetProperty("file")[0].GetString());
    }

    [Fact] // in every form, the same payments are the same lines
    public async Task The_stand_in_bank_is_read_in_each_of_its_forms()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("standin@lanternhouse.example");
        var was = await InvoiceAsync(project);
        async Task<byte[]> FileAsync(string form) =>
            await (await owner.AskAsync($"/api/stand-in-bank/statement?form={form}")).Content.ReadAsByteArrayAsync();
        var (newer, older, table) = (await FileAsync("Camt08"), await FileAsync("Camt02"), await FileAsync("Table"));
        var first = await TakeAsync(owner, newer, "08.xml");
        Assert.True(first.New >= 3);
        Assert.Equal(0, (await TakeAsync(owner, older, "02.xml")).New);
        var asked = (await TakeAsync(owner, table, "today.csv")).Columns!;
        var read = await owner.PostAsync(
            $"/api/bank/statements/{asked.Hash}/columns",
            new
            {
                name = "today.csv",
                account = await studio.LookAsync(db => db.Studio.Select(s => s.Iban).SingleAsync()),
                columns = asked.Columns.Select(column => column.ToString()),
            }
        );
        Assert.Equal(0, (await read.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("new").GetInt32());
        Assert.Equal(was.Id, (await InvoiceAsync(project)).Id);
    }
}
