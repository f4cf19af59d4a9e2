using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Money as it comes, and as it goes back: through the provider, by hand, and by a bank that takes it back.</summary>
public sealed class PayingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private async Task<string> PayAsync(Visitor client, string page, string number, string means = "Card")
    {
        var begun = await client.PostAsync($"{page}/api/pay", new { means });
        var address = (await begun.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("address").GetString()!;
        var house = new Visitor(studio);
        var door = address.Replace("/cards/", "/card-house/", StringComparison.Ordinal);
        await house.TokenAsync(door);
        var paid = await house.PostAsync(door, new { number });
        Assert.True(paid.IsSuccessStatusCode, await paid.Content.ReadAsStringAsync());
        return address[(address.LastIndexOf('/') + 1)..];
    }

    private Task<PaymentRow> PaymentAsync(long project) =>
        studio.LookAsync(db => db.Payments.AsNoTracking().SingleAsync(p => p.ProjectId == new ProjectId(project)));

    private Task<StandingColumns> StandingAsync(long project) =>
        studio.LookAsync(db =>
            db.Projects.AsNoTracking().Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing).SingleAsync()
        );

    private async Task<JsonElement> HouseAsync(Visitor owner, string session) =>
        (await owner.GetAsync("/api/payment-house"))
            .EnumerateArray()
            .Single(one => one.GetProperty("session").GetString() == session);

    private static async Task<HttpResponseMessage> NoticeAsync(Studio studio, string body, string signature)
    {
        using var outside = studio.CreateClient();
        var request = new HttpRequestMessage(HttpMethod.Post, "/notices/payments")
        {
            Content = new StringContent(body),
        };
        request.Headers.Add(Invoicing.Notices.SignatureHeader, signature);
        return await outside.SendAsync(request);
    }

    [Fact]
    public async Task The_same_notice_ten_times_books_once_and_a_forged_one_nothing()
    {
        var (owner, client, project, page) = await studio.SignedByAllAsync("ten@lanternhouse.example");
        var session = await PayAsync(client, page, StandIns.PaymentHouse.Good);
        var listed = await HouseAsync(owner, session);
        var (body, signature) = (
            listed.GetProperty("notice").GetString()!,
            listed.GetProperty("signature").GetString()!
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await NoticeAsync(studio, body, new string('0', 64))).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await NoticeAsync(studio, "not even JSON", "")).StatusCode);
        Assert.Equal(
            HttpStatusCode.RequestEntityTooLarge,
            (await NoticeAsync(studio, new string('x', 200_000), signature)).StatusCode
        );
        for (var i = 0; i < 10; i++)
            Assert.Equal(HttpStatusCode.NoContent, (await NoticeAsync(studio, body, signature)).StatusCode);
        Assert.Equal(265_680, (await PaymentAsync(project)).AmountMinor);
        Assert.NotNull((await StandingAsync(project)).BookedAt);
    }

    [Fact] // the notice of a chargeback before that of the payment, and the old one after it
    public async Task Notices_in_any_order_leave_things_as_they_are_with_the_provider()
    {
        var (owner, client, project, page) = await studio.SignedByAllAsync("order@lanternhouse.example");
        var session = await PayAsync(client, page, StandIns.PaymentHouse.Good);
        var paid = await HouseAsync(owner, session);
        Assert.True((await owner.PostAsync($"/api/payment-house/{session}/take-back")).IsSuccessStatusCode);
        var back = await HouseAsync(owner, session);
        foreach (var notice in new[] { back, paid, back, paid })
            Assert.Equal(
                HttpStatusCode.NoContent,
                (
                    await NoticeAsync(
                        studio,
                        notice.GetProperty("notice").GetString()!,
                        notice.GetProperty("signature").GetString()!
                    )
                ).StatusCode
            );
        Assert.NotNull((await PaymentAsync(project)).GoneAt);
        var standing = await StandingAsync(project);
        Assert.Equal((null, 265_680L), (standing.BookedAt, standing.OwedMinor));
    }

    [Fact]
    public async Task Money_that_comes_later_is_booked_when_it_comes_and_refused_money_is_said()
    {
        var (owner, client, project, page) = await studio.SignedByAllAsync("slow@lanternhouse.example");
        await PayAsync(client, page, StandIns.PaymentHouse.EmptyAccount, "Account");
        await studio.TickAsync();
        var booking = (await client.GetAsync($"{page}/api")).GetProperty("booking");
        Assert.Contains(
            "on its way",
            booking.GetProperty("invoices")[0].GetProperty("pay").GetProperty("onItsWay").GetString()
        );
        await studio.WaitUntilAsync((await NowAsync()) + Duration.FromHours(25));
        await studio.TickAsync();
        booking = (await client.GetAsync($"{page}/api")).GetProperty("booking");
        Assert.Contains(
            "refused",
            booking.GetProperty("invoices")[0].GetProperty("pay").GetProperty("onItsWay").GetString()
        );
        Assert.Equal(
            0,
            await studio.LookAsync(db => db.Payments.CountAsync(p => p.ProjectId == new ProjectId(project)))
        );
        // what was refused is tried again, another way
        await PayAsync(client, page, StandIns.PaymentHouse.Slow);
        await studio.TickAsync();
        Assert.Equal(
            0,
            await studio.LookAsync(db => db.Payments.CountAsync(p => p.ProjectId == new ProjectId(project)))
        );
        await studio.WaitUntilAsync((await NowAsync()) + Duration.FromHours(2));
        await studio.TickAsync();
        Assert.Equal(PaymentMeans.Card, (await PaymentAsync(project)).Means);
    }

    private Task<Instant> NowAsync() => studio.LookAsync((Hosting.Desk desk) => Task.FromResult(desk.Now));

    [Fact]
    public async Task A_refund_goes_back_the_way_it_came_once_and_with_a_credit_note_nothing_is_owed()
    {
        var (owner, client, project, page) = await studio.SignedByAllAsync("refund@lanternhouse.example");
        await PayAsync(client, page, StandIns.PaymentHouse.Good);
        await studio.TickAsync();
        var payment = (await PaymentAsync(project)).Id.Value;
        var url = $"/api/projects/{project}/payments/{payment}/refund";
        Assert.Contains(
            "amount",
            await (await owner.PostAsync(url, new { amount = "3000", credit = true })).Content.ReadAsStringAsync()
        );
        Assert.True((await owner.PostAsync(url, new { amount = "100", credit = true })).IsSuccessStatusCode);
        await studio.TickAsync();
        await studio.TickAsync();
        var refund = Assert.Single(
            await studio.LookAsync(db =>
                db.Refunds.AsNoTracking().Where(r => r.ProjectId == new ProjectId(project)).ToListAsync()
            )
        );
        Assert.Equal((RefundState.Done, 10_000L), (refund.State, refund.AmountMinor));
        Assert.NotNull(refund.NoteId);
        var standing = await StandingAsync(project);
        Assert.Equal((0L, 255_680L), (standing.OwedMinor, standing.PaidMinor));
        Assert.NotNull(standing.BookedAt);
        Assert.Equal(Core.Stages.Stage.Delivery, standing.Stage);
        Assert.Equal(
            1,
            await studio.LookAsync(db =>
                db.Facts.CountAsync(f =>
                    f.ProjectId == new ProjectId(project) && f.Kind == nameof(Happening.PaymentRefunded)
                )
            )
        );
    }

    [Fact] // a cheque in two parts, the second of them too much
    public async Task Money_from_outside_comes_in_parts_and_what_is_more_is_kept_ahead()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("cheque@lanternhouse.example");
        var invoice = await InvoiceAsync(project);
        Task<HttpResponseMessage> PaidAsync(string amount, bool? ahead = null) =>
            owner.PostAsync(
                $"/api/projects/{project}/happened",
                new
                {
                    sort = "Paid",
                    amount,
                    means = "Cheque",
                    invoice,
                    ahead,
                }
            );
        Assert.True((await PaidAsync("1000")).IsSuccessStatusCode);
        Assert.Equal(165_680L, (await StandingAsync(project)).OwedMinor);
        var refused = await PaidAsync("2000");
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.True(
            (await refused.Content.ReadFromJsonAsync<JsonElement>())
                .GetProperty("errors")
                .TryGetProperty("ahead", out _)
        );
        Assert.True((await PaidAsync("2000", ahead: true)).IsSuccessStatusCode);
        var standing = await StandingAsync(project);
        Assert.Equal((0L, 300_000L), (standing.OwedMinor, standing.PaidMinor));
        Assert.NotNull(standing.BookedAt);
    }

    [Fact] // R2: a refund without a credit note reopens its gate, and takes no win back
    public async Task Without_a_credit_note_it_is_owed_again()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("again@lanternhouse.example");
        await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new
            {
                sort = "Paid",
                amount = "2656.80",
                means = "Transfer",
                invoice = await InvoiceAsync(project),
            }
        );
        var payment = (await PaymentAsync(project)).Id.Value;
        var url = $"/api/projects/{project}/payments/{payment}/refund";
        Assert.Contains(
            "means",
            await (await owner.PostAsync(url, new { amount = "56.80", credit = false })).Content.ReadAsStringAsync()
        );
        Assert.True(
            (
                await owner.PostAsync(
                    url,
                    new
                    {
                        amount = "56.80",
                        credit = false,
                        means = "Transfer",
                    }
                )
            ).IsSuccessStatusCode
        );
        var standing = await StandingAsync(project);
        Assert.Equal((Core.Stages.Stage.Payment, 5_680L), (standing.Stage, standing.OwedMinor));
        Assert.NotNull(standing.BookedAt);
        // what is left of it can go back too, and no more
        Assert.Contains(
            "2 600.00",
            (
                await (
                    await owner.PostAsync(
                        url,
                        new
                        {
                            amount = "2600.01",
                            credit = false,
                            means = "Cash",
                        }
                    )
                ).Content.ReadAsStringAsync()
            ).Replace("\\u202F", " ")
        );
    }

    private Task<long> InvoiceAsync(long project) =>
        studio.LookAsync(async db =>
            (await db.Invoices.Where(i => i.ProjectId == new ProjectId(project)).Select(i => i.Id).FirstAsync()).Value
        );

    [Fact]
    public async Task A_refund_that_the_provider_refuses_becomes_the_owners()
    {
        var (owner, client, project, page) = await studio.SignedByAllAsync("norefund@lanternhouse.example");
        await PayAsync(client, page, StandIns.PaymentHouse.NoRefunds);
        await studio.TickAsync();
        var payment = (await PaymentAsync(project)).Id.Value;
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/payments/{payment}/refund",
                    new { amount = "100", credit = false }
                )
            ).IsSuccessStatusCode
        );
        var standing = await StandingAsync(project);
        Assert.Equal((Core.Turns.Side.Yours, Core.Waiting.WaitKind.RefundRefused), (standing.Turn, standing.Waits));
        var read = await owner.GetAsync($"/api/projects/{project}/entries/Payment/{payment}");
        Assert.Contains("Not given back", read.GetProperty("sums")[0].GetProperty("label").GetString());
        // by hand instead
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
    }

    [Fact] // 7-checks 23, common practice: the gate reopens and the win is taken back
    public async Task A_cheque_that_bounces_takes_the_win_back()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("cheque@lanternhouse.example");
        var invoice = await InvoiceAsync(project);
        foreach (var amount in new[] { "1000", "1656.80" })
            Assert.True(
                (
                    await owner.PostAsync(
                        $"/api/projects/{project}/happened",
                        new
                        {
                            sort = "Paid",
                            amount,
                            means = "Cheque",
                            invoice,
                        }
                    )
                ).IsSuccessStatusCode
            );
        Assert.NotNull((await StandingAsync(project)).BookedAt);
        var second = await studio.LookAsync(async db =>
            (await db.Payments.Where(p => p.ProjectId == new ProjectId(project)).MaxAsync(p => p.Id)).Value
        );
        var url = $"/api/projects/{project}/payments/{second}/charged-back";
        Assert.Contains(
            "on",
            await (await owner.PostAsync(url, new { on = "2026-01-01" })).Content.ReadAsStringAsync()
        );
        Assert.True((await owner.PostAsync(url, new { })).IsSuccessStatusCode);
        var standing = await StandingAsync(project);
        Assert.Equal(
            (null, Core.Stages.Stage.Payment, 165_680L),
            (standing.BookedAt, standing.Stage, standing.OwedMinor)
        );
        Assert.Equal(HttpStatusCode.Conflict, (await owner.PostAsync(url, new { })).StatusCode);
    }

    [Fact]
    public async Task A_client_says_that_it_is_paid_and_asks_about_it()
    {
        var (owner, client, project, page) = await studio.SignedByAllAsync("said@lanternhouse.example");
        var name = (await client.GetAsync($"{page}/api"))
            .GetProperty("booking")
            .GetProperty("invoices")[0]
            .GetProperty("publicId")
            .GetString();
        Assert.True((await client.PostAsync($"{page}/api/invoices/{name}/paid")).IsSuccessStatusCode);
        Assert.True((await client.PostAsync($"{page}/api/invoices/{name}/paid")).IsSuccessStatusCode);
        Assert.Equal(
            1,
            await studio.LookAsync(db =>
                db.Facts.CountAsync(f =>
                    f.ProjectId == new ProjectId(project) && f.Kind == nameof(Happening.SaidToBePaid)
                )
            )
        );
        Assert.Equal(265_680, (await StandingAsync(project)).OwedMinor);
        Assert.True(
            (
                await client.PostAsync(
                    $"{page}/api/invoices/{name}/ask",
                    new { words = "The scaffold was ours.", sort = "Objection" }
                )
            ).IsSuccessStatusCode
        );
        var standing = await StandingAsync(project);
        Assert.Equal((Core.Turns.Side.Yours, Core.Waiting.WaitKind.InvoiceAsked), (standing.Turn, standing.Waits));
        var pay = (await client.GetAsync($"{page}/api"))
            .GetProperty("booking")
            .GetProperty("invoices")[0]
            .GetProperty("pay");
        Assert.True(pay.GetProperty("asked").GetBoolean() && pay.GetProperty("saidPaid").GetBoolean());
        Assert.StartsWith("RF", pay.GetProperty("transfer").GetProperty("reference").GetString());
        Assert.Equal(HttpStatusCode.NotFound, (await client.PostAsync($"{page}/api/invoices/none/paid")).StatusCode);
    }
}

/// <summary>Every invoice of the demo keeps the rules of EN 16931.</summary>
public sealed class DemoInvoiceTests(FullStudio studio) : IClassFixture<FullStudio>
{
    [Fact]
    public async Task Every_invoice_of_the_demo_keeps_the_rules()
    {
        await studio.OwnerAsync();
        var papers = await studio.LookAsync(
            async (Hosting.Desk desk) =>
            {
                List<(string Number, byte[]? Data)> all = [];
                foreach (var row in await desk.Db.Invoices.AsNoTracking().ToListAsync())
                    all.Add(
                        (
                            row.Number,
                            (await Papers.KeptPapers.OfAsync(desk, row)).Data is { } hash ? desk.Vault.Read(hash) : null
                        )
                    );
                return all;
            }
        );
        Assert.True(papers.Count > 40);
        Assert.All(
            papers,
            paper =>
            {
                Assert.NotNull(paper.Data);
                Assert.Empty(Formats.Tests.Invoices.En16931.Broken(paper.Data));
                Assert.Empty(Formats.Tests.Invoices.UblOrder.Misplaced(paper.Data));
            }
        );
    }
}
