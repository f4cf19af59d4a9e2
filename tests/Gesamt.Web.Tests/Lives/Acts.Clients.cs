using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Web.Access;
using Gesamt.Web.StandIns;

namespace Gesamt.Web.Tests.Lives;

/// <summary>What clients do on their pages.</summary>
public static partial class Acts
{
    private static async Task ClientAsync(Life life, Random random)
    {
        if (life.Clients.Count == 0)
            return;
        var (page, client) = Operations.Pick(
            life.Clients.OrderBy(pair => pair.Key, StringComparer.Ordinal).ToList(),
            random
        );
        if (await life.LookAsync(client, $"{page}/api") is not { } seen)
            return;
        var api = $"{page}/api";
        switch (seen.GetProperty("booking").GetProperty("step").GetString())
        {
            case "Choose" when random.Next(2) == 0:
                await life.SendAsync(client, "POST", $"{api}/opened");
                await life.SendAsync(client, "GET", $"{api}/price?choose=s&choose=n");
                await (
                    random.Next(8) switch
                    {
                        0 => life.SendAsync(client, "POST", $"{api}/change", new { words = "A little less, please." }),
                        1 => life.SendAsync(client, "POST", $"{api}/decline", new { words = "Not this year." }),
                        _ => life.SendAsync(
                            client,
                            "POST",
                            $"{api}/accept",
                            new
                            {
                                chosen = random.Next(5) == 0 ? ["l"] : new[] { "s", "n" },
                                quantities = random.Next(2) == 0
                                    ? new[] { new { key = "s", quantity = $"{random.Next(1, 60)}.5" } }
                                    : [],
                            }
                        ),
                    }
                );
                break;
            case "Sign" when random.Next(8) == 0:
                await life.SendAsync(
                    client,
                    "POST",
                    $"{api}/contract/{Operations.Pick(["ask", "decline"], random)}",
                    new { words = "Not with these rights.", sort = "Objection" }
                );
                break;
            case "Sign" when random.Next(4) > 0:
                var contract = seen.GetProperty("booking").GetProperty("contract");
                await life.SendAsync(
                    client,
                    "POST",
                    $"{api}/sign",
                    new
                    {
                        name = Operations.Pick(["Mona Delarue", "Μόνα", "Мона", "墙"], random),
                        agreed = true,
                        hash = contract.GetProperty("hash").GetString(),
                        code = contract.GetProperty("turn").GetProperty("asksCode").GetBoolean()
                            ? await CodeAsync(life, random, client, api)
                            : "",
                    }
                );
                break;
            case "Book" when random.Next(3) > 0:
                await PayAsync(life, random, client, api);
                break;
            case not "Book" when random.Next(4) == 0:
                await PayAsync(life, random, client, api);
                break;
            case not null
                when random.Next(2) == 0
                    && seen.GetProperty("parts").GetProperty("testimonial")
                        is { ValueKind: JsonValueKind.Object } shown:
                await LeaveAsync(random, shown, (what, body) => life.SendAsync(client, "POST", $"{api}/{what}", body));
                break;
            case not null
                when random.Next(2) == 0
                    && seen.GetProperty("parts").GetProperty("runSheet")
                        is { ValueKind: JsonValueKind.Object } runSheet:
                await life.SendAsync(
                    client,
                    "POST",
                    $"{api}/run-sheet/agree",
                    new { hash = runSheet.GetProperty("hash").GetString() }
                );
                await life.SendAsync(client, "GET", $"{api}/run-sheet.pdf");
                if (random.Next(3) == 0)
                    await life.SendAsync(client, "POST", $"{api}/ask", new { part = "RunSheet", words = "Where?" });
                break;
            case not null when random.Next(3) == 0:
                await TheirListAsync(life, random, client, api, seen.GetProperty("parts"));
                break;
            case not null when random.Next(5) == 0:
                await TickAsync(life, random, client, api, seen);
                break;
            default:
                await PartsAsync(life, random, client, api, seen);
                break;
        }
        await life.Studio.TickAsync();
        await life.EnterAsync();
    }

    /// <summary>Pays what is open by some card, and may agree that it is kept; or takes that back.</summary>
    private static async Task PayAsync(Life life, Random random, Visitor client, string api)
    {
        if (random.Next(6) == 0)
        {
            await life.SendAsync(client, "POST", $"{api}/kept-means/take-back");
            return;
        }
        var (status, address) = await life.SendAsync(
            client,
            "POST",
            $"{api}/pay",
            new { means = "Card", keeps = random.Next(2) == 0 }
        );
        if (status != HttpStatusCode.OK)
            return;
        var session = (string)JsonNode.Parse(address)!["address"]!;
        var card = $"/card-house/{session[(session.LastIndexOf('/') + 1)..].Split('?')[0]}";
        var payer = new Visitor(life.Studio);
        var (found, door) = await life.SendAsync(payer, "GET", card);
        if (found == HttpStatusCode.OK && JsonNode.Parse(door)?["token"] is { } token)
            payer.Token = (string)token!;
        await life.SendAsync(
            payer,
            "POST",
            card,
            new
            {
                number = Operations.Pick(
                    [
                        PaymentHouse.Good,
                        PaymentHouse.Slow,
                        PaymentHouse.NoMoney,
                        PaymentHouse.NoRefunds,
                        PaymentHouse.NoMoneyOnce,
                        PaymentHouse.NoMoneyLater,
                    ],
                    random
                ),
            }
        );
        await life.SendAsync(client, "POST", $"{api}/settle");
    }

    /// <summary>Asks for a code, and reads it in the mail; seldom types another.</summary>
    private static async Task<string> CodeAsync(Life life, Random random, Visitor client, string api)
    {
        await life.SendAsync(client, "POST", $"{api}/code");
        await life.Studio.TickAsync();
        var sent = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.SignCodes.OrderByDescending(code => code.At).AsNoTracking().FirstOrDefaultAsync()
        );
        return random.Next(5) == 0 || sent is null
            ? "123456"
            : life.Studio.Services.GetRequiredService<SignCodes>().CodeOf(sent);
    }

    private static async Task PartsAsync(Life life, Random random, Visitor client, string api, JsonElement seen)
    {
        if (
            seen.GetProperty("parts").GetProperty("drafts") is { ValueKind: JsonValueKind.Object } drafts
            && drafts.GetProperty("rounds").EnumerateArray().FirstOrDefault()
                is { ValueKind: JsonValueKind.Object } round
            && random.Next(2) == 0
        )
            await life.SendAsync(
                client,
                "POST",
                $"{api}/rounds/{round.GetProperty("id").GetString()}/{Operations.Pick(["remark", "changes", "approve"], random)}",
                new { words = "A little bluer." }
            );
        else if (
            seen.GetProperty("parts").GetProperty("forms").EnumerateArray().FirstOrDefault()
                is { ValueKind: JsonValueKind.Object } form
            && random.Next(2) == 0
        )
        {
            var answers = new JsonObject();
            foreach (var field in form.GetProperty("fields").EnumerateArray())
                if (
                    Sensible(JsonNode.Parse(field.GetRawText())!.AsObject(), "mona@lanternhouse.example", random) is
                    { } answer
                )
                    answers[field.GetProperty("key").GetString()!] = answer;
            await life.SendAsync(
                client,
                "POST",
                $"{api}/forms/{form.GetProperty("slug").GetString()}{(random.Next(3) == 0 ? "/draft" : "")}",
                new JsonObject { ["answers"] = answers }
            );
        }
        else if (
            seen.GetProperty("parts").GetProperty("rates") is { ValueKind: JsonValueKind.Array } rates
            && random.Next(2) == 0
        )
            await life.SendAsync(
                client,
                "POST",
                $"{api}/rate-sheet",
                new { services = rates.EnumerateArray().Select(one => one.GetProperty("service").GetInt32()).Take(1) }
            );
        else if (
            seen.GetProperty("meetings").GetProperty("chooseTime").ValueKind == JsonValueKind.String
            && await life.LookAsync(client, $"{api}/times") is { } times
            && times.GetProperty("days").GetArrayLength() > 0
        )
        {
            var days = times.GetProperty("days");
            var open = days[random.Next(days.GetArrayLength())].GetProperty("times");
            await life.SendAsync(
                client,
                "POST",
                $"{api}/times",
                new
                {
                    start = open[random.Next(open.GetArrayLength())].GetProperty("start").GetString(),
                    zone = "America/New_York",
                    answers = Array.Empty<string>(),
                }
            );
        }
        else if (
            seen.GetProperty("parts").GetProperty("brief") is { ValueKind: JsonValueKind.Object } brief
            && brief.GetProperty("open").GetBoolean()
        )
            await (
                random.Next(2) == 0
                    ? life.SendAsync(
                        client,
                        "POST",
                        $"{api}/brief/approve",
                        new { hash = brief.GetProperty("hash").GetString() }
                    )
                    : life.SendAsync(client, "POST", $"{api}/brief/remark", new { words = "Bluer." })
            );
        else if (
            seen.GetProperty("meetings").GetProperty("all").EnumerateArray().FirstOrDefault()
                is { ValueKind: JsonValueKind.Object } meeting
            && random.Next(2) == 0
        )
            await life.SendAsync(client, "POST", $"{api}/meetings/{meeting.GetProperty("id").GetString()}/cancel");
        else if (
            seen.GetProperty("parts").GetProperty("files") is { ValueKind: JsonValueKind.Object }
            && random.Next(2) == 0
        )
            await (
                random.Next(2) == 0
                    ? life.SendAsync(client, "POST", $"{api}/approve")
                    : life.SendAsync(
                        client,
                        "POST",
                        $"{api}/files?name=photo.txt",
                        Bytes(Encoding.UTF8.GetBytes($"photo {random.Next(99)}"))
                    )
            );
        else
            await life.SendAsync(
                client,
                "GET",
                $"{api}{Operations.Pick(["/contract.pdf", "/price", "/times?zone=Nowhere", "/files/none", "/invoices/none.pdf"], random)}"
            );
    }
}
