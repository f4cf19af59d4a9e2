using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Papers;
using Gesamt.Web.StandIns;

namespace Gesamt.Web.Tests;

/// <summary>Invoices that come again, and what they are charged to.</summary>
public sealed class RecurringTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    /// <summary>A signed project with an invoice being written: € 393.60, due after a number of days.</summary>
    private async Task<(Visitor Owner, Visitor Client, long Project, string Page, int Edition)> WrittenAsync(
        string mail,
        int dueDays = 0
    )
    {
        var (owner, client, project, page) = await studio.SignedByAllAsync(mail);
        var bill = Bills.Lettering();
        bill["says"]!["dueDays"] = dueDays;
        var kept = await owner.KeepBillAsync(project, bill);
        return (owner, client, project, page, kept.GetProperty("edition").GetInt32());
    }

    private static Task<HttpResponseMessage> BeginAsync(
        Visitor owner,
        long project,
        int edition,
        string every,
        LocalDate first,
        int? count = null,
        LocalDate? until = null
    ) =>
        owner.PostAsync(
            $"/api/projects/{project}/bill/recurring",
            new
            {
                edition,
                every,
                first = first.ToString("uuuu-MM-dd", null),
                until = until?.ToString("uuuu-MM-dd", null),
                count,
            }
        );

    private static async Task Done(Task<HttpResponseMessage> answer)
    {
        var came = await answer;
        Assert.True(came.IsSuccessStatusCode, await came.Content.ReadAsStringAsync());
    }

    private Task<LocalDate> TodayAsync() => studio.LookAsync((Hosting.Desk desk) => Task.FromResult(desk.Today));

    /// <summary>Ten in the morning of a day.</summary>
    private async Task WaitAsync(LocalDate day) =>
        await studio.WaitUntilAsync(
            await studio.LookAsync((Hosting.Desk desk) => Task.FromResult(desk.Calendar.At(day + new LocalTime(10, 0))))
        );

    private Task<List<InvoiceRow>> IssuedAsync(long project) =>
        studio.LookAsync(db =>
            db.Invoices.AsNoTracking()
                .Where(i => i.ProjectId == new ProjectId(project) && i.Recurring != null)
                .OrderBy(i => i.Id)
                .ToListAsync()
        );

    private Task<int> FactsAsync(long project, string kind) =>
        studio.LookAsync(db => db.Facts.CountAsync(f => f.ProjectId == new ProjectId(project) && f.Kind == kind));

    private static async Task<JsonElement> MoneyAsync(Visitor owner, long project) =>
        (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("money");

    [Fact]
    public async Task Each_occurrence_is_issued_once_on_its_day_with_its_period_and_its_letter()
    {
        var (owner, _, project, _, edition) = await WrittenAsync("monthly@lanternhouse.example", 14);
        var first = await TodayAsync();
        await Done(BeginAsync(owner, project, edition, "Month", first, count: 3));
        // the first is today's
        var issued = Assert.Single(await IssuedAsync(project));
        Assert.Equal((39_360L, first.PlusDays(14), 0), (issued.TotalMinor, issued.Due, issued.Occurrence));
        Assert.Contains(
            "every month",
            (await MoneyAsync(owner, project)).GetProperty("recurring")[0].GetProperty("words").GetString()
        );
        await WaitAsync(first.PlusMonths(1).PlusDays(-1));
        Assert.Single(await IssuedAsync(project));
        await WaitAsync(first.PlusMonths(1));
        await studio.TickAsync();
        await studio.TickAsync();
        var both = await IssuedAsync(project);
        Assert.Equal(2, both.Count);
        var period = StoreJson.Read<InvoiceSnapshot>(both[1].Snapshot).More!.Performed!;
        Assert.Equal((first.PlusMonths(1), first.PlusMonths(2).PlusDays(-1)), (period.From, period.Until));
        // on its day, or, on a Sunday, with the next sending hours
        Assert.NotEqual(
            LetterState.Held,
            await studio.LookAsync(db =>
                db.Letters.Where(l => l.CarriesInvoice == both[1].Id).Select(l => l.State).SingleAsync()
            )
        );
        await WaitAsync(first.PlusMonths(2));
        await WaitAsync(first.PlusMonths(5));
        owner = await studio.OwnerAsync();
        Assert.Equal(3, (await IssuedAsync(project)).Count);
        Assert.Equal(1, await FactsAsync(project, nameof(Happening.RecurringStopped)));
        Assert.Equal(0, (await MoneyAsync(owner, project)).GetProperty("recurring").GetArrayLength());
    }

    [Fact] // a house that was shut for weeks: what is late asks first, and nothing is left out or twice
    public async Task What_was_missed_is_issued_and_its_letters_ask()
    {
        var (owner, _, project, _, edition) = await WrittenAsync("missed@lanternhouse.example");
        var first = (await TodayAsync()).PlusDays(2);
        await Done(BeginAsync(owner, project, edition, "Week", first));
        Assert.Empty(await IssuedAsync(project));
        await WaitAsync(first.PlusDays(21));
        var issued = await IssuedAsync(project);
        Assert.Equal([0, 1, 2, 3], issued.Select(i => i.Occurrence));
        var letters = await studio.LookAsync(db =>
            db.Letters.AsNoTracking()
                .Where(l => l.ProjectId == new ProjectId(project) && l.CarriesInvoice != null)
                .OrderBy(l => l.Id)
                .ToListAsync()
        );
        Assert.Equal(
            [LetterState.Held, LetterState.Held, LetterState.Held],
            letters.Where(l => issued.Take(3).Select(i => i.Id).Contains(l.CarriesInvoice!.Value)).Select(l => l.State)
        );
        Assert.NotEqual(LetterState.Held, letters.Single(l => l.CarriesInvoice == issued[3].Id).State);
    }

    [Fact]
    public async Task A_change_reaches_what_lies_ahead_alone_and_stopped_it_comes_no_more()
    {
        var (owner, _, project, _, edition) = await WrittenAsync("change@lanternhouse.example");
        var first = await TodayAsync();
        await Done(BeginAsync(owner, project, edition, "Month", first, until: first.PlusMonths(3)));
        var id = (await MoneyAsync(owner, project)).GetProperty("recurring")[0].GetProperty("id").GetInt64();
        await Done(owner.PostAsync($"/api/projects/{project}/recurring/{id}/open"));
        var draft = await owner.GetAsync($"/api/projects/{project}/bill");
        Assert.Equal(id, draft.GetProperty("for").GetProperty("of").GetProperty("changes").GetInt64());
        // it cannot go out as an invoice of its own by mistake
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/bill/issue",
                    new { edition = draft.GetProperty("edition").GetInt32() }
                )
            ).StatusCode
        );
        var kept = await owner.KeepBillAsync(project, Bills.Of(Bills.Line("Lettering", "1", "100", "23")));
        await Done(
            owner.SendAsync(
                HttpMethod.Put,
                $"/api/projects/{project}/recurring/{id}",
                JsonContent.Create(new { edition = kept.GetProperty("edition").GetInt32() })
            )
        );
        await WaitAsync(first.PlusMonths(1));
        owner = await studio.OwnerAsync();
        Assert.Equal([39_360L, 12_300L], (await IssuedAsync(project)).Select(i => i.TotalMinor));
        await Done(owner.PostAsync($"/api/projects/{project}/recurring/{id}/stop"));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{project}/recurring/{id}/stop")).StatusCode
        );
        await WaitAsync(first.PlusMonths(2));
        Assert.Equal(2, (await IssuedAsync(project)).Count);
    }

    [Theory]
    [InlineData("2020-01-01", null, null, "first")]
    [InlineData("2090-01-01", null, null, "first")]
    [InlineData(null, "2020-01-01", null, "until")]
    [InlineData(null, null, 0, "count")]
    [InlineData(null, null, 5_000, "count")]
    public async Task What_cannot_be_is_named(string? first, string? until, int? count, string field)
    {
        var (owner, _, project, _, edition) = await WrittenAsync($"{Guid.NewGuid():n}@lanternhouse.example");
        static LocalDate? Day(string? text) =>
            text is null ? null : NodaTime.Text.LocalDatePattern.Iso.Parse(text).Value;
        var answer = await BeginAsync(
            owner,
            project,
            edition,
            "Month",
            Day(first) ?? await TodayAsync(),
            count,
            Day(until)
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.True(
            (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors").TryGetProperty(field, out _)
        );
        Assert.Empty(await IssuedAsync(project));
    }

    [Fact]
    public async Task Whoever_ends_or_rests_a_project_says_what_becomes_of_them()
    {
        var (owner, _, project, _, edition) = await WrittenAsync("ends@lanternhouse.example");
        var first = await TodayAsync();
        await Done(BeginAsync(owner, project, edition, "Week", first.PlusDays(3)));
        var url = $"/api/projects/{project}/happened";
        var refused = await owner.PostAsync(url, new { sort = "Rest", words = "the scaffold is late" });
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("recurring", await refused.Content.ReadAsStringAsync());
        await Done(
            owner.PostAsync(
                url,
                new
                {
                    sort = "Rest",
                    words = "the scaffold is late",
                    recurring = "GoOn",
                }
            )
        );
        await WaitAsync(first.PlusDays(3));
        owner = await studio.OwnerAsync();
        Assert.Single(await IssuedAsync(project));
        await Done(owner.PostAsync(url, new { sort = "Lost", recurring = "Stop" }));
        await WaitAsync(first.PlusDays(20));
        Assert.Single(await IssuedAsync(project));
        Assert.Equal(1, await FactsAsync(project, nameof(Happening.RecurringStopped)));
    }

    /// <summary>The client pays the first of a weekly invoice with a card, and agrees that it is kept.</summary>
    private async Task<(Visitor Owner, Visitor Client, long Project, string Page, LocalDate First)> AgreedAsync(
        string mail,
        string card
    )
    {
        var (owner, client, project, page, edition) = await WrittenAsync(mail);
        var first = await TodayAsync();
        Assert.Equal(JsonValueKind.Null, (await WaysAsync(client, page)).GetProperty("consent").ValueKind);
        await Done(BeginAsync(owner, project, edition, "Month", first));
        Assert.Contains("may charge", (await WaysAsync(client, page)).GetProperty("consent").GetString());
        var invoice = Assert.Single(await IssuedAsync(project));
        var begun = await client.PostAsync(
            $"{page}/api/pay",
            new
            {
                means = "Card",
                invoice = invoice.PublicId,
                keeps = true,
            }
        );
        var address = (await begun.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("address").GetString()!;
        var house = new Visitor(studio);
        var door = address.Replace("/cards/", "/card-house/", StringComparison.Ordinal);
        await house.TokenAsync(door);
        await Done(house.PostAsync(door, new { number = card }));
        await studio.TickAsync();
        await studio.TickAsync();
        return (owner, client, project, page, first);
    }

    private static async Task<JsonElement> WaysAsync(Visitor client, string page) =>
        (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("ways");

    [Fact]
    public async Task With_consent_each_is_charged_on_its_day_and_the_client_sees_to_what_they_agreed()
    {
        var (owner, client, project, page, first) = await AgreedAsync("agreed@lanternhouse.example", PaymentHouse.Good);
        var kept = (await WaysAsync(client, page)).GetProperty("kept");
        Assert.Equal("card ending in 4000", kept.GetProperty("words").GetString());
        Assert.Contains("may charge", kept.GetProperty("consent").GetString());
        Assert.Equal(1, await FactsAsync(project, nameof(Happening.MeansKept)));
        await WaitAsync(first.PlusMonths(1));
        await studio.TickAsync();
        await studio.TickAsync();
        Assert.Equal([0L, 0L], (await IssuedAsync(project)).Select(i => i.OwedMinor));
        Assert.Equal(
            2,
            await studio.LookAsync(db => db.Payments.CountAsync(p => p.ProjectId == new ProjectId(project)))
        );
        // taken back, nothing is charged any more
        await Done(client.PostAsync($"{page}/api/kept-means/take-back"));
        Assert.Equal(JsonValueKind.Null, (await WaysAsync(client, page)).GetProperty("kept").ValueKind);
        Assert.Equal(HttpStatusCode.Conflict, (await client.PostAsync($"{page}/api/kept-means/take-back")).StatusCode);
        // an old notice of the payment it came with does not bring it back
        await client.PostAsync($"{page}/api/settle");
        await WaitAsync(first.PlusMonths(2));
        await studio.TickAsync();
        Assert.Equal([0L, 0L, 39_360L], (await IssuedAsync(project)).Select(i => i.OwedMinor));
        owner = await studio.OwnerAsync();
        Assert.Equal(JsonValueKind.Null, (await MoneyAsync(owner, project)).GetProperty("kept").ValueKind);
    }

    [Fact]
    public async Task Refused_once_it_is_tried_again_after_three_days()
    {
        var (_, _, project, _, first) = await AgreedAsync("once@lanternhouse.example", PaymentHouse.NoMoneyOnce);
        await WaitAsync(first.PlusMonths(1));
        await studio.TickAsync();
        Assert.Equal(39_360L, (await IssuedAsync(project))[1].OwedMinor);
        Assert.Equal(1, await FactsAsync(project, nameof(Happening.ChargeRefused)));
        await WaitAsync(first.PlusMonths(1).PlusDays(2));
        Assert.Equal(39_360L, (await IssuedAsync(project))[1].OwedMinor);
        await WaitAsync(first.PlusMonths(1).PlusDays(3));
        Assert.Equal(0L, (await IssuedAsync(project))[1].OwedMinor);
    }

    [Fact] // R5: the first attempt and three more, then it is the owner's
    public async Task Refused_four_times_it_is_yours()
    {
        var (_, _, project, _, first) = await AgreedAsync("later@lanternhouse.example", PaymentHouse.NoMoneyLater);
        var due = first.PlusMonths(1);
        foreach (var day in new[] { 0, 1, 3, 4, 5, 6, 7, 8, 12 })
            await WaitAsync(due.PlusDays(day));
        Assert.Equal(4, await FactsAsync(project, nameof(Happening.ChargeRefused)));
        var standing = await studio.LookAsync(db =>
            db.Projects.AsNoTracking().Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing).SingleAsync()
        );
        Assert.Equal((Core.Turns.Side.Yours, Core.Waiting.WaitKind.ChargeRefused), (standing.Turn, standing.Waits));
        var owner = await studio.OwnerAsync();
        await Done(owner.PostAsync($"/api/projects/{project}/happened", new { sort = "NoAnswerNeeded" }));
    }
}
