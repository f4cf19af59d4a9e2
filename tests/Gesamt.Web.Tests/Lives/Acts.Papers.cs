using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests.Lives;

/// <summary>What the owner does with letters, papers and money.</summary>
public static partial class Acts
{
    private static async Task LetterAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var (body, files) = (
            Operations.Pick(
                [
                    "Hello [first name, or: there], how are you?",
                    "Here is your page: [page link]",
                    "I will ring on Monday.",
                    "[unknown blank]",
                ],
                random
            ),
            Array.Empty<object>()
        );
        var (status, answer) = await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/letter",
            new
            {
                subject = $"About it {random.Next(1_000)}",
                body,
                files,
            }
        );
        if (status == HttpStatusCode.OK && random.Next(5) == 0 && JsonNode.Parse(answer)?["letter"] is { } letter)
            await life.OwnerAsync("POST", $"/api/letters/{letter}/take-back");
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task HeldAsync(Life life, Random random)
    {
        foreach (
            var letter in await life.Studio.LookAsync(
                (Gesamt.Store.GesamtDb db) =>
                    db
                        .Letters.Where(l => l.State == LetterState.Held)
                        .OrderBy(l => l.Id)
                        .Select(l => l.Id.Value)
                        .Take(4)
                        .ToListAsync()
            )
        )
            await (
                random.Next(6) switch
                {
                    0 => SkipAsync(life, letter, random),
                    1 => life.OwnerAsync(
                        "POST",
                        $"/api/letters/{letter}/later",
                        new
                        {
                            until = $"{life.Today.PlusDays(random.Next(-1, 9)):uuuu-MM-dd}T10:00:00",
                            subject = (string?)null,
                            body = (string?)null,
                        }
                    ),
                    _ => life.OwnerAsync(
                        "POST",
                        $"/api/letters/{letter}/release",
                        new { subject = (string?)null, body = (string?)null }
                    ),
                }
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    /// <summary>Skips a held letter, and half of the time takes that back, perhaps after something happened.</summary>
    private static async Task SkipAsync(Life life, long letter, Random random)
    {
        await life.OwnerAsync("POST", $"/api/letters/{letter}/skipped", new { skipped = true });
        if (random.Next(2) == 0)
            return;
        if (random.Next(3) == 0)
            await life.Studio.TickAsync();
        await life.OwnerAsync("POST", $"/api/letters/{letter}/skipped", new { skipped = false });
    }

    private static async Task AskedAsync(Life life, Random random)
    {
        foreach (
            var asked in (await life.LookAsync(life.Owner, "/api/today"))!
                .Value.GetProperty("ready")
                .GetProperty("asked")
                .EnumerateArray()
                .Take(3)
        )
        {
            var (path, run, step, occurrence) = (
                $"/api/projects/{asked.GetProperty("project").GetInt64()}/asked",
                asked.GetProperty("run").GetInt64(),
                asked.GetProperty("step").GetString(),
                asked.GetProperty("occurrence").GetInt32()
            );
            await life.OwnerAsync(
                "POST",
                path,
                new
                {
                    run,
                    step,
                    occurrence,
                    yes = random.Next(3) > 0,
                }
            );
            if (random.Next(3) == 0)
                await life.OwnerAsync(
                    "POST",
                    $"{path}/again",
                    new
                    {
                        run,
                        step,
                        occurrence,
                    }
                );
        }
        await life.Studio.TickAsync();
    }

    private static async Task ProposeAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}/proposal") is not { } draft
        )
            return;
        var offer = JsonNode.Parse(draft.GetProperty("offer").GetRawText())!;
        JsonObject Line(string key, string role, string? group, string price) =>
            new()
            {
                ["key"] = key,
                ["role"] = role,
                ["group"] = group,
                ["title"] = $"Part {key}",
                ["detail"] = "",
                ["quantity"] = $"{random.Next(1, 40)}",
                ["unit"] = "m²",
                ["unitPrice"] = price,
                ["tax"] = random.Next(4) == 0 ? "13.5" : "23",
                ["suggested"] = false,
            };
        offer["lines"] = new JsonArray(
            Line("g", "Included", null, "140"),
            Line("s", "OneOf", "access", "130.33"),
            Line("l", "OneOf", "access", "99.99"),
            Line("n", "Extra", null, "20")
        );
        if (random.Next(2) == 0)
            offer["lines"]![1]!["more"] = new JsonObject
            {
                ["text"] = "",
                ["link"] = "",
                ["picture"] = null,
                ["less"] = null,
                ["service"] = null,
                ["limits"] = new JsonObject { ["least"] = "0.5", ["most"] = "60" },
                ["steps"] = new JsonArray(),
            };
        // seldom with a discount, prices with tax, another currency, or a code with the signature
        if (random.Next(4) == 0)
            offer["less"] = new JsonObject
            {
                ["sort"] = "Share",
                ["figure"] = "5",
                ["why"] = "second project",
            };
        offer["gross"] = random.Next(4) == 0;
        if (random.Next(6) == 0)
            offer["currency"] = Operations.Pick(["JPY", "KWD", "GBP"], random);
        await SaveAsync(
            life,
            project,
            new JsonObject
            {
                ["edition"] = draft.GetProperty("edition").GetInt32(),
                ["offer"] = offer,
                ["contract"] = draft.GetProperty("contract").GetString(),
                ["signing"] = new JsonObject { ["signers"] = new JsonArray(), ["asksCode"] = random.Next(4) == 0 },
            }
        );
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/proposal/send",
            new { subject = "Your proposal", body = "Here it is: [proposal link]" }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    /// <summary>Keeps a draft. It was read a moment ago and changed as the page would: that something in it is not allowed is a fault of this act.</summary>
    private static async Task SaveAsync(Life life, long project, JsonObject draft)
    {
        var (status, answer) = await life.OwnerAsync("PUT", $"/api/projects/{project}/proposal", draft);
        if (status == HttpStatusCode.BadRequest)
            throw new LifeException($"A draft was not kept: {answer}");
    }

    /// <summary>Another contract in the place of one, or one voided.</summary>
    private static async Task ContractAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}") is not { } record
        )
            return;
        var papers = record
            .GetProperty("sheet")
            .GetProperty("papers")
            .EnumerateArray()
            .Select(paper => paper.GetProperty("contract"))
            .Where(contract => contract.ValueKind == System.Text.Json.JsonValueKind.Object)
            .ToList();
        if (papers.Count > 0 && random.Next(3) == 0)
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/contract/{papers[^1].GetProperty("version").GetInt64()}/void",
                new { words = random.Next(2) == 0 ? "" : $"Changed. {Life.Private}" }
            );
        else if (
            record.GetProperty("sheet").GetProperty("canAmend").GetBoolean()
            && await life.LookAsync(life.Owner, $"/api/projects/{project}/contract") is { } desk
        )
            await life.OwnerAsync(
                "POST",
                $"/api/projects/{project}/contract/send",
                new
                {
                    title = "Contract",
                    text = "## Scope\n\n[choice]\n\n[payments]",
                    signing = new
                    {
                        signers = random.Next(3) == 0 ? desk.GetProperty("who").EnumerateArray().Take(2).ToArray() : [],
                        asksCode = random.Next(4) == 0,
                    },
                    subject = "The contract",
                    body = "[page link]",
                }
            );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    /// <summary>What is agreed becomes more, or less.</summary>
    private static async Task AmendAsync(Life life, Random random)
    {
        if (await OneAsync(life, random) is not { } project)
            return;
        var (status, begun) = await life.OwnerAsync("POST", $"/api/projects/{project}/proposal/amend", new { });
        if (status != System.Net.HttpStatusCode.OK)
            return;
        var draft = JsonNode.Parse(begun)!;
        var line = draft["offer"]!["lines"]![0]!;
        line["quantity"] = $"{random.Next(1, 60)}";
        await SaveAsync(
            life,
            project,
            new JsonObject
            {
                ["edition"] = (int)draft["edition"]!,
                ["offer"] = draft["offer"]!.DeepClone(),
                ["contract"] = (string)draft["contract"]!,
            }
        );
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/proposal/send",
            new { subject = "A change", body = "[page link]" }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task RatesAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}/rate-sheet") is not { } rates
        )
            return;
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/rate-sheet{(random.Next(5) == 0 ? "/back" : "")}",
            new
            {
                services = rates
                    .GetProperty("services")
                    .EnumerateArray()
                    .Select(one => one.GetProperty("service").GetInt32())
                    .Take(random.Next(1, 4))
                    .ToArray(),
                subject = "What things cost",
                body = "[page link]",
            }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task HappenedAsync(Life life, Random random)
    {
        if (
            await OneAsync(life, random) is not { } project
            || await life.LookAsync(life.Owner, $"/api/projects/{project}") is not { } record
        )
            return;
        var can = record
            .GetProperty("path")
            .GetProperty("happen")
            .GetProperty("can")
            .EnumerateArray()
            .Select(one => one.GetProperty("sort").GetString()!)
            .ToList();
        // ends come seldom, else no life gets far
        var sort = can.Where(one =>
                random.Next(5) == 0
                || one
                    is not (
                        "NotAFit"
                        or "Referred"
                        or "Lost"
                        or "GoneQuiet"
                        or "Cancelled"
                        or "NotAnInquiry"
                        or "Waived"
                        or "Rest"
                    )
            )
            .ToList()
            is { Count: > 0 } some
            ? Operations.Pick(some, random)
            : "Call";
        var pay = record.GetProperty("sheet").GetProperty("toPay");
        var open = pay.GetProperty("invoices").EnumerateArray().ToList();
        var owed = open.Count > 0 ? Operations.Pick(open, random) : (JsonElement?)null;
        var amount = sort switch
        {
            "Paid" when owed is { } invoice => random.Next(3) == 0
                ? "10"
                : invoice
                    .EnumerateObject()
                    .Where(p => p.Value.ValueKind == JsonValueKind.String)
                    .Select(p => p.Value.GetString()!)
                    .Last(),
            "Paid" => pay.EnumerateObject()
                .Where(p => p.Value.ValueKind == JsonValueKind.String)
                .Select(p => p.Value.GetString())
                .FirstOrDefault()
                ?? "5",
            _ => $"{random.Next(1, 3000)}",
        };
        var file = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Files.Where(f => f.ProjectId == new ProjectId(project))
                    .Select(f => (long?)f.Id.Value)
                    .FirstOrDefaultAsync()
        );
        await life.OwnerAsync(
            "POST",
            $"/api/projects/{project}/happened",
            new
            {
                sort,
                words = sort == "Countersign" ? "Isolde Marrin" : $"Said so. {Life.Private}",
                on = random.Next(4) == 0 ? life.Today.PlusDays(-random.Next(4)).ToString("uuuu-MM-dd", null) : null,
                until = random.Next(2) == 0
                    ? life.Today.PlusDays(random.Next(1, 30)).ToString("uuuu-MM-dd", null)
                    : null,
                amount,
                tax = "23",
                onBooking = Operations.Pick(["40", "0", "100"], random),
                means = "Transfer",
                invoice = sort == "Paid" ? owed?.GetProperty("id").GetInt64() : null,
                file,
                credit = random.Next(2) == 0,
                terms = random.Next(2) == 0,
                recurring = Operations.Pick(["Stop", "GoOn"], random),
            }
        );
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    private static async Task VoidAsync(Life life, Random random)
    {
        var payments = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Payments.Where(p => p.GoneAt == null)
                    .Select(p => new { Project = p.ProjectId.Value, Id = p.Id.Value })
                    .ToListAsync()
        );
        if (payments.Count == 0)
            return;
        var one = Operations.Pick(payments, random);
        await life.OwnerAsync("POST", $"/api/projects/{one.Project}/payments/{one.Id}/void");
        await life.Studio.TickAsync();
    }
}
