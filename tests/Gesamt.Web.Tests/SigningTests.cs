using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using UglyToad.PdfPig;

namespace Gesamt.Web.Tests;

/// <summary>Contracts signed by several, with a code, on the owner's own file; asked about, declined, voided and replaced, on the real server.</summary>
public sealed class SigningTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private const string Ada = "ada@lanternhouse.example";

    private static async Task<JsonElement> ContractAsync(Visitor client, string page) =>
        (await client.GetAsync($"{page}/api")).GetProperty("booking").GetProperty("contract");

    private static Task<HttpResponseMessage> SignAsync(
        Visitor client,
        string page,
        string name,
        string hash,
        string code = ""
    ) =>
        client.PostAsync(
            $"{page}/api/sign",
            new
            {
                name,
                agreed = true,
                hash,
                code,
            }
        );

    private static async Task<string> SaidAsync(HttpResponseMessage answer) =>
        Regex.Unescape(await answer.Content.ReadAsStringAsync());

    /// <summary>Somebody who decides as well.</summary>
    private static async Task<long> SecondAsync(Visitor owner, long project, string? mail = Ada)
    {
        var made = await owner.PostAsync(
            "/api/people",
            new
            {
                sort = "Client",
                name = "Ada Quill",
                greeted = (string?)null,
                organisation = (string?)null,
                mail,
                phone = "+353 1 555 0100",
                profile = (string?)null,
                prefers = (string?)null,
                address = (string?)null,
                taxNumber = (string?)null,
                notes = "",
                edition = 0,
            }
        );
        Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        var person = JsonDocument
            .Parse(await made.Content.ReadAsStringAsync())
            .RootElement.GetProperty("id")
            .GetInt64();
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/people",
                    new
                    {
                        person,
                        part = "Decides",
                        has = true,
                    }
                )
            ).IsSuccessStatusCode
        );
        return person;
    }

    private static async Task<HttpResponseMessage> SetSigningAsync(
        Visitor owner,
        long project,
        Func<JsonElement, object> signing
    )
    {
        var draft = await owner.GetAsync($"/api/projects/{project}/proposal");
        return await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/proposal",
            JsonContent.Create(
                new
                {
                    edition = draft.GetProperty("edition").GetInt32(),
                    offer = draft.GetProperty("offer"),
                    contract = draft.GetProperty("contract").GetString(),
                    signing = signing(draft.GetProperty("who")),
                }
            )
        );
    }

    private async Task SendAgainAsync(Visitor owner, long project)
    {
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "Changed", body = "[proposal link]" }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
    }

    /// <summary>A PDF as another program makes one.</summary>
    private static byte[] OwnPdf()
    {
        var builder = new UglyToad.PdfPig.Writer.PdfDocumentBuilder();
        var font = builder.AddStandard14Font(UglyToad.PdfPig.Fonts.Standard14Fonts.Standard14Font.Helvetica);
        foreach (var text in new[] { "Our own terms, first page", "and the second" })
            builder.AddPage(UglyToad.PdfPig.Content.PageSize.A4).AddText(text, 12, new(50, 700), font);
        return builder.Build();
    }

    private static async Task<string> KeepAsync(Visitor owner, byte[] bytes, string name = "terms.pdf")
    {
        var kept = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/paper-files?name={name}",
            new ByteArrayContent(bytes) { Headers = { ContentType = new("application/octet-stream") } }
        );
        Assert.True(kept.IsSuccessStatusCode, await kept.Content.ReadAsStringAsync());
        return JsonDocument.Parse(await kept.Content.ReadAsStringAsync()).RootElement.GetProperty("hash").GetString()!;
    }

    private async Task<string> CodeAsync(Visitor owner, string mail)
    {
        await studio.TickAsync();
        var letters = await owner.GetAsync($"/api/post-office?address={mail}");
        var letter = await owner.GetAsync($"/api/post-office/{letters[0].GetProperty("id").GetInt64()}");
        return Regex
            .Match(letter.GetProperty("text").GetString()!, @"^\s*(\d{6})\s*$", RegexOptions.Multiline)
            .Groups[1]
            .Value;
    }

    /// <summary>Who the list of signed papers says is still to sign.</summary>
    private static async Task<string?> WaitsAsync(Visitor owner, long project) =>
        (await owner.GetAsync("/api/papers/signed"))
            .GetProperty("rows")
            .EnumerateArray()
            .Single(row => row.GetProperty("project").GetInt64() == project)
            .GetProperty("waits")
            .GetString();

    [Fact]
    public async Task Two_sign_the_owners_own_file_one_after_the_other_each_with_a_code()
    {
        var (owner, client, second) = (await studio.OwnerAsync(), new Visitor(studio), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "two@lanternhouse.example");
        var ada = await SecondAsync(owner, project);
        var hash = await KeepAsync(owner, OwnPdf());
        var kept = await SetSigningAsync(
            owner,
            project,
            who => new
            {
                signers = who.EnumerateArray()
                    .Select(one => new { person = one.GetProperty("person").GetInt64(), name = "" })
                    .ToList(),
                asksCode = true,
                file = new { hash, name = "terms.pdf" },
            }
        );
        Assert.True(kept.IsSuccessStatusCode, await kept.Content.ReadAsStringAsync());
        await SendAgainAsync(owner, project);
        Assert.True(
            (await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s", "n" } })).IsSuccessStatusCode
        );
        var contract = await ContractAsync(client, page);
        var version = contract.GetProperty("hash").GetString()!;
        Assert.Equal("terms.pdf", contract.GetProperty("file").GetProperty("name").GetString());
        Assert.Equal(HttpStatusCode.OK, (await client.AskAsync($"{page}/api/papers/{hash}")).StatusCode);

        // the second one's page says whose turn it is, and lets nobody sign before
        var theirs = await owner.GetAsync($"/api/projects/{project}/people/{ada}/link");
        var entered = await second.AskAsync(new Uri(theirs.GetProperty("address").GetString()!).PathAndQuery);
        var other = entered.Headers.Location!.ToString();
        await second.TokenAsync($"{other}/api");
        Assert.False((await ContractAsync(second, other)).GetProperty("turn").GetProperty("yours").GetBoolean());
        Assert.Contains(
            "Mona Delarue signs first",
            await SaidAsync(await SignAsync(second, other, "Ada Quill", version, "123456"))
        );

        // without a code, with a wrong one, and with the one that was sent
        Assert.Contains(
            "Ask for a code first",
            await SaidAsync(await SignAsync(client, page, "Mona Delarue", version))
        );
        Assert.True((await client.PostAsync($"{page}/api/code", new { })).IsSuccessStatusCode);
        Assert.Contains("a moment ago", await SaidAsync(await client.PostAsync($"{page}/api/code", new { })));
        var code = await CodeAsync(owner, "two@lanternhouse.example");
        Assert.Matches(@"^\d{6}$", code);
        var wrong = code == "000000" ? "000001" : "000000";
        var refused = await SignAsync(client, page, "Mona Delarue", version, wrong);
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("\"code\"", await refused.Content.ReadAsStringAsync());
        Assert.True(
            (await SignAsync(client, page, "Mona Delarue", version, $" {code[..3]} {code[3..]} ")).IsSuccessStatusCode
        );

        // the first signature is not the client's yet: nothing is invoiced, the next one is written to
        Assert.Equal(
            0,
            await studio.LookAsync(db => db.Invoices.CountAsync(i => i.ProjectId == new ProjectId(project)))
        );
        await studio.TickAsync();
        var asked = await owner.GetAsync($"/api/post-office?address={Ada}");
        Assert.Equal(1, asked.GetArrayLength());
        Assert.Contains(
            "/enter/",
            (await owner.GetAsync($"/api/post-office/{asked[0].GetProperty("id").GetInt64()}"))
                .GetProperty("text")
                .GetString()
        );
        Assert.Equal("Ada Quill, you", await WaitsAsync(owner, project));
        Assert.True((await second.PostAsync($"{other}/api/code", new { })).IsSuccessStatusCode);
        var signed = await SignAsync(second, other, "Ada Quill", version, await CodeAsync(owner, Ada));
        Assert.True(signed.IsSuccessStatusCode, await signed.Content.ReadAsStringAsync());
        Assert.Contains("signed already", await SaidAsync(await SignAsync(second, other, "Ada Quill", version)));
        Assert.Equal(
            1,
            await studio.LookAsync(db => db.Invoices.CountAsync(i => i.ProjectId == new ProjectId(project)))
        );
        await studio.TickAsync();
        Assert.Equal("you", await WaitsAsync(owner, project));
        // neither code is left, and the record shows none
        Assert.Equal(
            0,
            await studio.LookAsync(db =>
                db.SignCodes.CountAsync(c =>
                    db.Versions.Any(v => v.Id == c.VersionId && v.ProjectId == new ProjectId(project))
                )
            )
        );
        Assert.DoesNotContain(
            code,
            string.Join(' ', await studio.LookAsync(db => db.Letters.Select(l => l.Body).ToListAsync()))
        );

        // an amendment begins with the same signers and the code, and a text of its own
        var amendment = JsonDocument
            .Parse(
                await (
                    await owner.PostAsync($"/api/projects/{project}/proposal/amend", new { })
                ).Content.ReadAsStringAsync()
            )
            .RootElement.GetProperty("signing");
        Assert.Equal(
            ["Mona Delarue", "Ada Quill"],
            amendment.GetProperty("signers").EnumerateArray().Select(one => one.GetProperty("name").GetString())
        );
        Assert.True(amendment.GetProperty("asksCode").GetBoolean());
        Assert.Equal(JsonValueKind.Null, amendment.GetProperty("file").ValueKind);

        // the file: the owner's pages, then what was chosen and who signed how, sealed as a whole
        var file = await (await client.AskAsync($"{page}/api/contract.pdf")).Content.ReadAsByteArrayAsync();
        using var document = PdfDocument.Open(file);
        Assert.Contains("first page", document.GetPage(1).Text);
        Assert.Contains("and the second", document.GetPage(2).Text);
        var rest = string.Concat(Enumerable.Range(3, document.NumberOfPages - 2).Select(n => document.GetPage(n).Text));
        Assert.Contains("Ada Quill", rest);
        Assert.Contains("Mona Delarue", rest);
        Assert.Contains("By a code of six digits that was sent to two@lanternhouse.example", rest);
        Assert.Contains("Scaffold", rest);
        Assert.Contains(hash, rest.Replace("\n", ""));
        Assert.Contains(
            "total document signed",
            PdfTools.Run("pdfsig", file, "FILE").Said,
            StringComparison.OrdinalIgnoreCase
        );
        Assert.Contains("Signature is Valid", PdfTools.Run("pdfsig", file, "FILE").Said);
        Assert.Equal(0, PdfTools.Run("qpdf", file, "--check", "FILE").Code);
    }

    [Fact]
    public async Task A_code_is_no_good_after_five_wrong_ones_or_half_an_hour()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "tries@lanternhouse.example");
        await SetSigningAsync(owner, project, _ => new { signers = Array.Empty<object>(), asksCode = true });
        await SendAgainAsync(owner, project);
        await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } });
        var hash = (await ContractAsync(client, page)).GetProperty("hash").GetString()!;
        await client.PostAsync($"{page}/api/code", new { });
        var code = await CodeAsync(owner, "tries@lanternhouse.example");
        for (var i = 0; i < 5; i++)
            await SignAsync(client, page, "Mona Delarue", hash, code == "111111" ? "222222" : "111111");
        Assert.Contains(
            "not good any more",
            await SaidAsync(await SignAsync(client, page, "Mona Delarue", hash, code))
        );
        var now = await studio.LookAsync((Hosting.Desk desk) => Task.FromResult(desk.Now));
        await studio.WaitUntilAsync(now + Duration.FromMinutes(2));
        Assert.True((await client.PostAsync($"{page}/api/code", new { })).IsSuccessStatusCode);
        var next = await CodeAsync(owner, "tries@lanternhouse.example");
        await studio.WaitUntilAsync(now + Duration.FromMinutes(33));
        Assert.Contains(
            "not good any more",
            await SaidAsync(await SignAsync(client, page, "Mona Delarue", hash, next))
        );
    }

    [Fact]
    public async Task A_contract_is_asked_about_declined_and_replaced()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "asks@lanternhouse.example");
        await client.PostAsync($"{page}/api/accept", new { chosen = new[] { "s" } });
        Assert.True(
            (
                await client.PostAsync(
                    $"{page}/api/contract/ask",
                    new { words = "Who holds the rights?", sort = "Question" }
                )
            ).IsSuccessStatusCode
        );
        async Task<string> WaitsAsync() =>
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()!;
        Assert.Equal("ContractAsked", await WaitsAsync());
        Assert.True((await ContractAsync(client, page)).GetProperty("asked").GetBoolean());
        Assert.True(
            (
                await client.PostAsync($"{page}/api/contract/decline", new { words = "Not with these rights." })
            ).IsSuccessStatusCode
        );
        Assert.Equal("ContractAsked", await WaitsAsync()); // the older of the two
        var hash = await studio.LookAsync(db =>
            db.Versions.Where(v => v.ProjectId == new ProjectId(project) && v.Sort == Store.Model.PaperSort.Contract)
                .Select(v => v.Hash)
                .SingleAsync()
        );
        var late = await SignAsync(client, page, "Mona Delarue", hash);
        Assert.Contains("no contract to sign", await SaidAsync(late));

        // another one, with other words; what it would lack is said
        var desk = JsonNode.Parse((await owner.GetAsync($"/api/projects/{project}/contract")).GetRawText())!;
        object Send(string text) =>
            new
            {
                title = "Contract, second draft",
                text,
                signing = desk["signing"],
                subject = "Another contract",
                body = "[page link]",
            };
        Assert.Contains(
            "There is no blank",
            await SaidAsync(await owner.PostAsync($"/api/projects/{project}/contract/send", Send("[no such blank]")))
        );
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/contract/send",
            Send("## Rights\n\nAll rights are yours, [full name].")
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        await studio.TickAsync();
        Assert.Contains("All rights are yours, Mona Delarue", (await ContractAsync(client, page)).GetRawText());
        await client.SignAsync(page);
        Assert.Equal("Countersign", await WaitsAsync());

        // a signed one is voided by the owner alone, with a reason on the line
        var version = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("papers")
            .EnumerateArray()
            .Last(paper => paper.GetProperty("contract").ValueKind != JsonValueKind.Null)
            .GetProperty("contract")
            .GetProperty("version")
            .GetInt64();
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/contract/{version}/void",
                    new { words = "Signed by mistake" }
                )
            ).IsSuccessStatusCode
        );
        Assert.Contains("Signed by mistake", (await owner.GetAsync($"/api/projects/{project}")).GetRawText());
        Assert.Contains(
            "void already",
            await SaidAsync(
                await owner.PostAsync($"/api/projects/{project}/contract/{version}/void", new { words = "" })
            )
        );
        Assert.Equal("SendContract", await WaitsAsync());
    }

    [Theory]
    [InlineData("encrypted"), InlineData("damaged"), InlineData("picture")]
    public async Task Only_a_pdf_that_can_be_signed_is_a_contract(string what)
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), $"{what}@lanternhouse.example");
        var bytes = what switch
        {
            "damaged" => [.. OwnPdf()[..200], .. "%%EOF"u8],
            "encrypted" => PdfTools.Encrypted(OwnPdf()),
            _ => Convert.FromBase64String(
                "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
            ),
        };
        var hash = await KeepAsync(owner, bytes, what == "picture" ? "p.png" : "c.pdf");
        var refused = await SetSigningAsync(
            owner,
            project,
            _ => new
            {
                signers = Array.Empty<object>(),
                asksCode = false,
                file = new { hash, name = "c.pdf" },
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("\"file\"", await refused.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task Whoever_cannot_be_written_to_cannot_be_one_of_several_who_sign()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, _) = await studio.ProposeAsync(owner, client, "unreached@lanternhouse.example");
        await SecondAsync(owner, project, mail: null);
        await SetSigningAsync(
            owner,
            project,
            who => new
            {
                signers = who.EnumerateArray()
                    .Select(one => new { person = one.GetProperty("person").GetInt64(), name = "" })
                    .ToList(),
                asksCode = false,
            }
        );
        var draft = await owner.GetAsync($"/api/projects/{project}/proposal");
        Assert.Contains("Ada Quill has no mail address", draft.GetProperty("points").GetRawText());
        var refused = await owner.PostAsync(
            $"/api/projects/{project}/proposal/send",
            new { subject = "Changed", body = "[proposal link]" }
        );
        Assert.Contains("\"signers\"", await refused.Content.ReadAsStringAsync());
        // and nobody signs who has no part that decides
        var stranger = await SetSigningAsync(
            owner,
            project,
            _ => new { signers = new[] { new { person = 999_999, name = "Nobody" } }, asksCode = false }
        );
        Assert.Contains("Nobody cannot sign", await SaidAsync(stranger));
    }
}
