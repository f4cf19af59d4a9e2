using System.Net;
using System.Text.Json;

namespace Gesamt.Web.Tests;

/// <summary>Steps that many tests begin with.</summary>
public static class Booking
{
    /// <summary>What the owner types in of an inquiry that came by phone.</summary>
    public static object TypedIn(long kind, string name, string mail, long? person = null) =>
        new
        {
            kind,
            name,
            mail,
            phone = (string?)null,
            profile = (string?)null,
            organisation = (string?)null,
            title = (string?)null,
            source = (string?)null,
            words = "by phone",
            date = (string?)null,
            person,
            letter = (long?)null,
            followUp = false,
        };

    public static async Task<long> InquireAsync(
        this Studio studio,
        Visitor visitor,
        string mail = "mona@lanternhouse.example",
        string? campaign = null
    )
    {
        await visitor.TokenAsync("/forms/mural");
        var answer = await visitor.PostAsync(
            "/forms/mural",
            new { answers = new Dictionary<string, string>(Studio.Answers) { ["mail"] = mail }, campaign }
        );
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        await studio.TickAsync();
        return await studio.LookAsync(async db => (await db.Projects.MaxAsync(p => p.Id)).Value);
    }

    /// <summary>An inquiry that the owner has answered with a letter, so that the next word is the client's.</summary>
    public static async Task<long> InquireAndAnswerAsync(this Studio studio, string mail)
    {
        var project = await studio.InquireAsync(new Visitor(studio), mail);
        Assert.True(
            (
                await (await studio.OwnerAsync()).PostAsync(
                    $"/api/projects/{project}/letter",
                    new { subject = "Your wall", body = "Could you measure it once more?" }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        return project;
    }

    /// <summary>Sends a proposal and opens the link of its letter; the visitor is then that client.</summary>
    public static async Task<(long Project, string Page)> ProposeAsync(
        this Studio studio,
        Visitor owner,
        Visitor client,
        string mail = "mona@lanternhouse.example"
    )
    {
        var project = await studio.InquireAsync(new Visitor(studio), mail);
        var draft = await owner.GetAsync($"/api/projects/{project}/proposal");
        object Line(string key, string role, string? group, string title, string quantity, string price) =>
            new
            {
                key,
                role,
                group,
                title,
                detail = "",
                quantity,
                unit = "",
                unitPrice = price,
                tax = "23",
                suggested = false,
            };
        var offer = JsonSerializer.Deserialize<Dictionary<string, object>>(draft.GetProperty("offer").GetRawText())!;
        offer["lines"] = new[]
        {
            Line("g", "Included", null, "Gable mural", "31", "140"),
            Line("s", "OneOf", "access", "Scaffold", "6", "130"),
            Line("l", "OneOf", "access", "Scissor lift", "4", "140"),
            Line("n", "Extra", null, "Name", "14", "20"),
        };
        var saved = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/proposal",
            System.Net.Http.Json.JsonContent.Create(
                new
                {
                    edition = draft.GetProperty("edition").GetInt32(),
                    offer,
                    contract = draft.GetProperty("contract").GetString(),
                }
            )
        );
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "Your proposal", body = "Here it is: [proposal link]" }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
        return (project, await studio.EnterAsync(owner, client, mail));
    }

    /// <summary>A signed project whose booking payment of 2 656.80 is open.</summary>
    public static async Task<(Visitor Owner, Visitor Client, long Project, string Page)> SignedByAllAsync(
        this Studio studio,
        string mail
    )
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, mail);
        await studio.SignedAsync(client, page);
        var countersigned = await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new { sort = "Countersign", words = "Isolde Marrin" }
        );
        Assert.True(countersigned.IsSuccessStatusCode, await countersigned.Content.ReadAsStringAsync());
        await studio.TickAsync();
        return (owner, client, project, page);
    }

    /// <summary>Follows the link of the newest letter to an address.</summary>
    public static async Task<string> EnterAsync(this Studio studio, Visitor owner, Visitor client, string mail)
    {
        var letters = await owner.GetAsync($"/api/post-office?address={mail}");
        var letter = await owner.GetAsync($"/api/post-office/{letters[0].GetProperty("id").GetInt64()}");
        var link = System
            .Text.RegularExpressions.Regex.Match(
                letter.GetProperty("text").GetString()!,
                @"http://studio\.example(/p/\S+)"
            )
            .Groups[1]
            .Value;
        var answer = await client.AskAsync(link);
        Assert.Equal(HttpStatusCode.Found, answer.StatusCode);
        var page = answer.Headers.Location!.ToString();
        await client.TokenAsync($"{page}/api");
        return page;
    }

    public static async Task<string> SignedAsync(this Studio studio, Visitor client, string page)
    {
        Assert.True(
            (await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s", "n" } })).IsSuccessStatusCode
        );
        return await SignAsync(client, page);
    }

    /// <summary>Signs what was chosen.</summary>
    /// <returns>The hash of the contract.</returns>
    public static async Task<string> SignAsync(this Visitor client, string page)
    {
        var hash = (await client.GetAsync($"{page}/api"))
            .GetProperty("booking")
            .GetProperty("contract")
            .GetProperty("hash")
            .GetString()!;
        var signed = await client.PostAsync(
            $"{page}/api/sign",
            new
            {
                name = "Mona Delarue",
                agreed = true,
                hash,
            }
        );
        Assert.True(signed.IsSuccessStatusCode, await signed.Content.ReadAsStringAsync());
        return hash;
    }

    /// <summary>Sends the contract of an agreed price as its page offers it.</summary>
    public static async Task<HttpResponseMessage> SendContractAsync(this Visitor owner, long project)
    {
        var desk = await owner.GetAsync($"/api/projects/{project}/contract");
        return await owner.PostAsync(
            $"/api/projects/{project}/contract/send",
            new
            {
                title = desk.GetProperty("title").GetString(),
                text = desk.GetProperty("text").GetString(),
                signing = desk.GetProperty("signing"),
                subject = "The contract",
                body = "Here: [page link]",
            }
        );
    }

    /// <summary>The number of a letter that all kinds share.</summary>
    public static async Task<int> LetterAsync(this Visitor owner, string key) =>
        (await owner.GetAsync("/api/letter-texts"))
            .EnumerateArray()
            .Single(letter =>
                letter.GetProperty("key").GetString() == key
                && letter.GetProperty("kind").ValueKind == JsonValueKind.Null
            )
            .GetProperty("id")
            .GetInt32();

    /// <summary>Changes the studio's own details as its page does.</summary>
    /// <returns>What they were.</returns>
    public static async Task<JsonElement> ChangeStudioAsync(
        this Visitor owner,
        Action<System.Text.Json.Nodes.JsonNode> change
    )
    {
        var was = await owner.GetAsync("/api/studio");
        var now = System.Text.Json.Nodes.JsonNode.Parse(was.GetRawText())!;
        change(now["said"]!);
        var saved = await owner.SendAsync(
            HttpMethod.Put,
            "/api/studio",
            System.Net.Http.Json.JsonContent.Create(now["said"])
        );
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        return was.GetProperty("said");
    }
}
