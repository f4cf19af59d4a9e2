using System.Net;

namespace Gesamt.Web.Tests;

/// <summary>Inquiries that came by phone, by mail or by hand.</summary>
public sealed partial class InquiryTests
{
    [Theory] // check value 24: a title, a name, and one way to reach them
    [InlineData("Ring Me", null, "+353 87 555 0142", null, true)]
    [InlineData("Find Me", null, null, "https://profile.example/find-me", true)]
    [InlineData("Lost", null, null, null, false)]
    [InlineData("", "who@house.example", null, null, false)]
    [InlineData("Wrong", "who at house", null, null, false)]
    public async Task The_smallest_inquiry_is_a_name_and_one_way_to_reach_them(
        string name,
        string? mail,
        string? phone,
        string? profile,
        bool enough
    )
    {
        var owner = await studio.OwnerAsync();
        var answer = await TypeInAsync(owner, name, mail, phone, profile, followUp: false);
        Assert.Equal(enough ? HttpStatusCode.OK : HttpStatusCode.BadRequest, answer.StatusCode);
        if (!enough)
            return;
        await studio.TickAsync();
        var id = System
            .Text.Json.JsonDocument.Parse(await answer.Content.ReadAsStringAsync())
            .RootElement.GetProperty("id")
            .GetInt64();
        var record = await owner.GetAsync($"/api/projects/{id}");
        Assert.EndsWith(name, record.GetProperty("head").GetProperty("title").GetString());
        Assert.True(record.GetProperty("involved").GetProperty("waitsForAddress").GetBoolean());
        Assert.Equal("AnswerInquiry", record.GetProperty("path").GetProperty("turn").GetProperty("waits").GetString());
    }

    private static async Task<HttpResponseMessage> TypeInAsync(
        Visitor owner,
        string name,
        string? mail,
        string? phone,
        string? profile,
        bool followUp,
        long? letter = null
    )
    {
        var kind = (await owner.GetAsync("/api/kinds"))[0].GetProperty("id").GetInt64();
        return await owner.PostAsync(
            "/api/inquiries",
            new
            {
                kind,
                name,
                mail,
                phone,
                profile,
                organisation = (string?)null,
                title = (string?)null,
                source = (string?)null,
                words = "by phone",
                date = (string?)null,
                person = (long?)null,
                letter,
                followUp,
            }
        );
    }

    [Theory]
    [InlineData(true, 1)]
    [InlineData(false, 0)]
    public async Task What_the_owner_typed_in_gets_a_thank_you_only_when_asked_for(bool followUp, int letters)
    {
        var owner = await studio.OwnerAsync();
        var mail = $"typed{letters}@house.example";
        Assert.Equal(HttpStatusCode.OK, (await TypeInAsync(owner, "Typed In", mail, null, null, followUp)).StatusCode);
        await studio.TickAsync();
        Assert.Equal(letters, (await owner.GetAsync($"/api/post-office?address={mail}")).GetArrayLength());
    }

    [Fact]
    public async Task A_mail_file_lies_in_the_tray_until_it_becomes_an_inquiry_and_its_words_are_kept()
    {
        var owner = await studio.OwnerAsync();
        const string Mail =
            "From: Orla Finn <orla@finn-cakes.example>\r\nTo: isolde@marrin-murals.example\r\nSubject: A cake on my wall\r\nMessage-ID: <cake@finn-cakes.example>\r\nDate: Sun, 24 Jan 2027 10:00:00 +0000\r\nContent-Type: text/plain; charset=utf-8\r\n\r\nCould you paint a cake? My number is 087 555 0177.\r\n";
        var read = System
            .Text.Json.JsonDocument.Parse(
                await (
                    await owner.SendAsync(HttpMethod.Post, "/api/inquiries/letter", Bytes(Mail))
                ).Content.ReadAsStringAsync()
            )
            .RootElement;
        Assert.Equal(
            ("Orla Finn", "orla@finn-cakes.example", "087 555 0177"),
            (
                read.GetProperty("name").GetString(),
                read.GetProperty("mail").GetString(),
                read.GetProperty("phone").GetString()
            )
        );
        var letter = read.GetProperty("letter").GetInt64();
        Assert.Contains(
            (await owner.GetAsync("/api/tray")).GetProperty("letters").EnumerateArray(),
            one => one.GetProperty("id").GetInt64() == letter
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (await TypeInAsync(owner, "Orla Finn", "orla@finn-cakes.example", null, null, false, letter)).StatusCode
        );
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/tray")).GetProperty("letters").EnumerateArray(),
            one => one.GetProperty("id").GetInt64() == letter
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await TypeInAsync(owner, "Orla Finn", "orla@finn-cakes.example", null, null, false, letter)).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.SendAsync(HttpMethod.Post, "/api/inquiries/letter", Bytes(Mail))).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.SendAsync(HttpMethod.Post, "/api/inquiries/letter", Bytes(""))).StatusCode
        );
    }

    [Fact]
    public async Task Each_kind_asks_the_owner_its_own_details_before_it_is_a_lead_no_more()
    {
        var owner = await studio.OwnerAsync();
        var (project, _) = await LeadAsync(owner, "details@house.example");
        var sent = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/details",
            System.Net.Http.Json.JsonContent.Create(
                new
                {
                    values = new Dictionary<string, string>
                    {
                        ["wall size"] = "big",
                        ["surface"] = "ice",
                        ["shoe size"] = "42",
                    },
                }
            )
        );
        var errors = await sent.Content.ReadAsStringAsync();
        Assert.All(new[] { "wall size", "surface", "shoe size" }, name => Assert.Contains($"\"{name}\"", errors));
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/projects/{project}/details",
                    System.Net.Http.Json.JsonContent.Create(
                        new
                        {
                            values = new Dictionary<string, string>
                            {
                                ["wall size"] = "31.5",
                                ["surface"] = "brick",
                                ["likelihood"] = "high",
                            },
                        }
                    )
                )
            ).StatusCode
        );
        // 31.125 is asked about where it is typed; where it was worked out and stands as it was shown, it is left alone
        async Task<HttpStatusCode> WallAsync(string size) =>
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/projects/{project}/details",
                    System.Net.Http.Json.JsonContent.Create(
                        new { values = new Dictionary<string, string> { ["wall size"] = size } }
                    )
                )
            ).StatusCode;
        Assert.Equal(HttpStatusCode.BadRequest, await WallAsync("31.125"));
        Assert.Equal(HttpStatusCode.NoContent, await WallAsync("4.15 x 7.5"));
        Assert.Equal(HttpStatusCode.NoContent, await WallAsync("31.125"));
        Assert.Equal(HttpStatusCode.NoContent, await WallAsync("31.5"));
        var emptied = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/projects/{project}/details",
            System.Net.Http.Json.JsonContent.Create(
                new { values = new Dictionary<string, string> { ["wall size"] = "" } }
            )
        );
        Assert.Contains("correct it rather than leave it empty", await emptied.Content.ReadAsStringAsync());
        var rows = await owner.GetAsync("/api/register?details=surface&details=likelihood");
        Assert.Contains("brick", rows.ToString());
    }

    private async Task<(long, string)> LeadAsync(Visitor owner, string mail)
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        Assert.True(
            (
                await visitor.PostAsync(
                    "/forms/mural",
                    new { answers = new Dictionary<string, string>(Studio.Answers) { ["mail"] = mail } }
                )
            ).IsSuccessStatusCode
        );
        var id = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Projects.Where(p => p.Client!.Mail == mail)
                    .OrderByDescending(p => p.Id)
                    .Select(p => p.Id)
                    .FirstAsync()
        );
        Assert.NotNull(owner);
        return (id.Value, mail);
    }

    [Fact]
    public async Task A_referral_names_the_colleague_and_goes_with_a_letter_and_spam_goes_without()
    {
        var owner = await studio.OwnerAsync();
        var (project, mail) = await LeadAsync(owner, "sign@house.example");
        var colleague = (await owner.GetAsync("/api/people?sort=Colleague"))
            .GetProperty("rows")
            .EnumerateArray()
            .Single(p => p.GetProperty("name").GetString() == "Piet Sorrel")
            .GetProperty("id")
            .GetInt64();
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/happened",
                    new
                    {
                        sort = "Referred",
                        colleague,
                        subject = "Somebody better",
                        body = "Ask Piet Sorrel, [first name].",
                    }
                )
            ).StatusCode
        );
        await studio.TickAsync();
        var letters = await owner.GetAsync($"/api/post-office?address={mail}");
        Assert.Contains(letters.EnumerateArray(), one => one.GetProperty("subject").GetString() == "Somebody better");
        var line = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("line")
            .GetProperty("past")
            .ToString();
        Assert.Contains("Piet Sorrel", line);

        var (spam, address) = await LeadAsync(owner, "buy@pills.example");
        await studio.TickAsync();
        var before = (await owner.GetAsync($"/api/post-office?address={address}")).GetArrayLength();
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/projects/{spam}/happened", new { sort = "NotAnInquiry" })).StatusCode
        );
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 3, 1, 10, 0));
        owner = await studio.OwnerAsync();
        Assert.Equal(before, (await owner.GetAsync($"/api/post-office?address={address}")).GetArrayLength());
    }
}
