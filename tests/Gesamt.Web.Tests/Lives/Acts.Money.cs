using System.Net;
using System.Text.Json.Nodes;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests.Lives;

/// <summary>What the owner does with money besides the agreed price, and what the bank brings.</summary>
public static partial class Acts
{
    /// <summary>Writes an invoice, and issues it two times of three.</summary>
    private static async Task BillAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await WriteBillAsync(life, project, random) is not { } edition
        )
            return;
        if (random.Next(3) > 0)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/bill/issue",
                random.Next(2) == 0
                    ? new { edition }
                    : (object)
                        new
                        {
                            edition,
                            subject = "Invoice [invoice number]",
                            body = "Here it is: [invoice link]",
                        }
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    /// <summary>Keeps hours or a cost, takes some out; or puts what is left on an invoice and issues it.</summary>
    private static async Task SpentAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var url = $"/api/projects/{project}";
        if (random.Next(2) == 0)
            await life.OwnerAsync(
                "POST",
                $"{url}/hours",
                new
                {
                    on = (string?)null,
                    time = Operations.Pick(["2.25", "1:30", "20 min", "none"], random),
                    words = "Drawn",
                }
            );
        else
            await life.OwnerAsync(
                "POST",
                $"{url}/costs",
                new
                {
                    on = (string?)null,
                    what = "Paint",
                    payee = "",
                    category = "",
                    amount = $"{random.Next(1, 90)}",
                    tax = "23",
                    chargeOn = random.Next(3) > 0,
                }
            );
        if (await life.LookAsync(life.Owner, $"{url}/spent") is not { } spent)
            return;
        List<long> Ids(string sort) =>
            [.. spent.GetProperty(sort).EnumerateArray().Select(one => one.GetProperty("id").GetInt64())];
        var (hours, costs) = (Ids("hours"), Ids("costs"));
        if (random.Next(4) == 0 && hours.Count > 0)
            await life.OwnerAsync(
                "POST",
                $"{url}/hours/{Operations.Pick(hours, random)}/removed",
                new { removed = random.Next(2) == 0 }
            );
        // also what is charged already, which has to be refused
        var wanted = hours.Select(id => $"hours={id}").Concat(costs.Select(id => $"costs={id}")).ToList();
        if (
            random.Next(3) > 0
            || await life.LookAsync(
                life.Owner,
                $"{url}/spent/lines?rate=60&{string.Join('&', wanted.Take(random.Next(1, 4)))}"
            )
                is not { } lines
            || await WriteBillAsync(life, project, random, JsonNode.Parse(lines.GetProperty("lines").GetRawText()))
                is not { } edition
        )
            return;
        await life.OwnerAsync("POST", $"{url}/bill/issue", new { edition });
        await life.Studio.TickAsync();
    }

    private static async Task<int?> WriteBillAsync(Life life, long project, Random random, JsonNode? lines = null)
    {
        var url = $"/api/projects/{project}/bill";
        if (await life.LookAsync(life.Owner, url) is not { } draft)
            return null;
        var bill = JsonNode.Parse(draft.GetProperty("bill").GetRawText())!;
        bill["lines"] =
            lines
            ?? new JsonArray(
                new JsonObject
                {
                    ["key"] = "a",
                    ["title"] = "Lettering",
                    ["detail"] = "",
                    ["quantity"] = $"{random.Next(1, 20)}",
                    ["unit"] = "",
                    ["unitPrice"] = $"{random.Next(1, 90)}",
                    ["tax"] = Operations.Pick(["23", "0", "13.5"], random),
                }
            );
        bill["says"]!["dueDays"] = random.Next(0, 20);
        var (status, kept) = await life.OwnerAsync(
            "PUT",
            url,
            new { edition = draft.GetProperty("edition").GetInt32(), bill }
        );
        return status == HttpStatusCode.OK ? (int?)JsonNode.Parse(kept)!["edition"] : null;
    }

    /// <summary>Begins an invoice that comes again; or changes or stops one.</summary>
    private static async Task RecurringAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var running = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Recurring.Where(r => r.ProjectId == new ProjectId(project) && r.Next != null)
                    .Select(r => r.Id.Value)
                    .ToListAsync()
        );
        if (running.Count > 0 && random.Next(2) == 0)
        {
            var url = $"/api/projects/{project}/recurring/{Operations.Pick(running, random)}";
            if (random.Next(2) == 0)
                await life.OwnerAsync("POST", $"{url}/stop");
            else if (
                (await life.OwnerAsync("POST", $"{url}/open")).Item1 == HttpStatusCode.NoContent
                && await WriteBillAsync(life, project, random) is { } changed
            )
                await life.OwnerAsync("PUT", url, new { edition = changed });
        }
        else if (await WriteBillAsync(life, project, random) is { } edition)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/bill/recurring",
                new
                {
                    edition,
                    every = Operations.Pick(["Week", "TwoWeeks", "Month", "Year"], random),
                    first = $"{life.Today.PlusDays(random.Next(0, 9)):uuuu-MM-dd}",
                    until = (string?)null,
                    count = random.Next(3) == 0 ? random.Next(1, 4) : (int?)null,
                }
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task CreditAsync(Life life, Random random)
    {
        var invoices = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Invoices.Where(i => i.Sort == InvoiceSort.Invoice)
                    .Select(i => new { i.Id.Value, i.TotalMinor })
                    .ToListAsync()
        );
        if (invoices.Count == 0)
            return;
        var one = Operations.Pick(invoices, random);
        await life.OwnerAsync(
            "POST",
            $"/api/invoices/{one.Value}/credit",
            new { amount = $"{Math.Max(1, one.TotalMinor / 100 / random.Next(1, 4))}", why = "agreed by phone" }
        );
        await life.Studio.TickAsync();
    }

    private static async Task<PaymentRow?> PaymentAsync(Life life, Random random)
    {
        var payments = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Payments.AsNoTracking().Where(p => p.GoneAt == null).ToListAsync()
        );
        return payments.Count == 0 ? null : Operations.Pick(payments, random);
    }

    private static async Task RefundAsync(Life life, Random random)
    {
        if (await PaymentAsync(life, random) is not { } payment)
            return;
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{payment.ProjectId.Value}/payments/{payment.Id.Value}/refund",
            new
            {
                amount = $"{Math.Max(1, payment.AmountMinor / 100 / random.Next(1, 4))}",
                credit = random.Next(2) == 0,
                means = payment.Reference is not null && random.Next(3) > 0 ? null : "Transfer",
            }
        );
        await life.Studio.TickAsync();
    }

    private static async Task ChargedBackAsync(Life life, Random random)
    {
        if (await PaymentAsync(life, random) is not { } payment)
            return;
        if (payment.Reference is { } session && random.Next(2) == 0)
            await life.OwnerAsync("POST", $"/api/payment-house/{session}/take-back");
        else
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{payment.ProjectId.Value}/payments/{payment.Id.Value}/charged-back",
                new { }
            );
        await life.Studio.TickAsync();
    }

    /// <summary>Takes in today's statement of the bank in one of its forms; books, sets aside or undoes some lines.</summary>
    private static async Task BankAsync(Life life, Random random)
    {
        if (random.Next(2) == 0)
        {
            var file = await life.Owner.AskAsync(
                $"/api/stand-in-bank/statement?form={Operations.Pick(["Camt08", "Camt02", "Table"], random)}"
            );
            var (_, taken) = await life.OwnerAsync(
                "POST",
                "/api/bank/statements?name=today",
                Bytes(await file.Content.ReadAsByteArrayAsync())
            );
            // a table's columns are matched once
            if (taken.StartsWith('{') && JsonNode.Parse(taken)!["columns"] is { } table)
                await life.OwnerAsync(
                    "POST",
                    $"/api/bank/statements/{table["hash"]}/columns",
                    new
                    {
                        name = "today",
                        account = "IE16DEMO90017512345678",
                        columns = table["columns"]!.DeepClone(),
                    }
                );
        }
        if (await life.LookAsync(life.Owner, "/api/bank") is not { } bank)
            return;
        if (random.Next(6) == 0 && bank.GetProperty("files").EnumerateArray().ToList() is { Count: > 0 } files)
            await life.OwnerAsync(
                "DELETE",
                $"/api/bank/statements/{Operations.Pick(files, random).GetProperty("id").GetInt32()}"
            );
        foreach (var line in bank.GetProperty("open").EnumerateArray().Take(3))
        {
            var url = $"/api/bank/lines/{line.GetProperty("id").GetInt64()}";
            var offers = line.GetProperty("offers").EnumerateArray().Select(o => o.GetProperty("invoice").GetInt64());
            if (random.Next(4) == 0 || !offers.Any())
                await life.OwnerAsync("POST", $"{url}/set-aside");
            else
                await life.OwnerAsync("POST", $"{url}/book", new { invoices = offers.Take(random.Next(1, 3)) });
        }
        if (random.Next(3) == 0 && bank.GetProperty("done").EnumerateArray().ToList() is { Count: > 0 } done)
            await life.OwnerAsync(
                "POST",
                $"/api/bank/lines/{Operations.Pick(done, random).GetProperty("id").GetInt64()}/undo"
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }
}
