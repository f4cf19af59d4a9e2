using System.Net;
using System.Text.Json;
using Gesamt.Core.Facts;

namespace Gesamt.Web.Tests;

/// <summary>What is put to a client for review, and what their page shows.</summary>
public sealed partial class DeliveryTests
{
    [Fact]
    public async Task One_round_too_many_is_refused_until_it_is_said_to_be_meant()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "rounds@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var draft = await KeepAsync(owner, project, "Drafts");
        object Up(bool beyond) =>
            new
            {
                files = new[] { draft },
                phase = "sketch",
                subject = "A draft",
                body = "Here: [page link]",
                beyond,
            };
        for (var round = 1; round <= 3; round++)
        {
            await DoAsync(owner, project, "reviews", Up(false));
            var open = (await client.GetAsync($"{page}/api"))
                .GetProperty("parts")
                .GetProperty("drafts")
                .GetProperty("rounds")[0];
            Assert.Equal($"Sketch, round {round} of 3", open.GetProperty("title").GetString());
            Assert.Equal(round == 3, open.GetProperty("last").GetBoolean());
            var again = await owner.PostAsync($"/api/projects/{project}/reviews", Up(false));
            Assert.Contains("still with the client", await again.Content.ReadAsStringAsync());
            await DoAsync(
                client,
                page,
                $"rounds/{open.GetProperty("id").GetString()}/changes",
                new { words = "Different, please." }
            );
        }
        var refused = await owner.PostAsync($"/api/projects/{project}/reviews", Up(false));
        Assert.Contains("3 rounds were agreed and this is round 4", await refused.Content.ReadAsStringAsync());
        await DoAsync(owner, project, "reviews", Up(true));
        Assert.True(
            (await client.GetAsync($"{page}/api"))
                .GetProperty("parts")
                .GetProperty("drafts")
                .GetProperty("rounds")[0]
                .GetProperty("beyond")
                .GetBoolean()
        );
    }

    private static async Task DoAsync(Visitor client, string page, string what, object body)
    {
        var answer = await client.PostAsync($"{page}/api/{what}", body);
        Assert.True(answer.IsSuccessStatusCode, $"{what}: {await answer.Content.ReadAsStringAsync()}");
    }

    [Fact]
    public async Task What_is_said_with_the_handover_stands_on_the_page_and_a_link_is_one()
    {
        var owner = await studio.OwnerAsync();
        var project = await BookedAsync(studio, owner, "said@lanternhouse.example");
        object Over(string review) =>
            new
            {
                files = Array.Empty<object>(),
                subject = "Done",
                body = "Here it is: [page link]",
                words = new
                {
                    goals = " Seen from the ferry: it is. ",
                    after = "",
                    review,
                    care = "No jet wash\nfor a year.",
                    links = new[] { new { address = "www.films.example/wall", use = "for your own site" } },
                },
            };
        var refused = await owner.PostAsync($"/api/projects/{project}/handover", Over("javascript:alert(1)"));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        Assert.Contains("A link begins with https://", await refused.Content.ReadAsStringAsync());
        await DoAsync(owner, project, "handover", Over("www.words.example/marrin"));
        await studio.TickAsync();
        await DoAsync(owner, project, "letter", new { subject = "Once more", body = "Your page: [page link]" });
        await studio.TickAsync();
        var client = new Visitor(studio);
        var page = await studio.EnterAsync(owner, client, "said@lanternhouse.example");
        var words = (await client.GetAsync($"{page}/api"))
            .GetProperty("parts")
            .GetProperty("files")
            .GetProperty("words");
        Assert.Equal("Seen from the ferry: it is.", words.GetProperty("goals").GetString());
        Assert.Equal("https://www.words.example/marrin", words.GetProperty("review").GetString());
        Assert.Equal(
            "https://www.films.example/wall",
            words.GetProperty("links")[0].GetProperty("address").GetString()
        );
        var paper = await (await client.AskAsync($"{page}/api/handed-over.pdf")).Content.ReadAsByteArrayAsync();
        var printed = PdfTools.Run("pdftotext", paper, "-layout", "FILE", "-").Said;
        foreach (
            var said in new[]
            {
                "No jet wash",
                "for your own site",
                "Seen from the ferry",
                "Handed over on 25 January 2027",
            }
        )
            Assert.Contains(said, printed, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_was_handed_over_comes_in_one_download_and_nothing_else_with_it()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "zip@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var finals = new[]
        {
            await KeepAsync(owner, project, "Final", "wall.png"),
            await KeepAsync(owner, project, "Final", "wall.png"),
        };
        await KeepAsync(owner, project, "Final", "hidden.png");
        await KeepAsync(owner, project, "Drafts", "draft.png");
        foreach (var file in finals)
            await DoAsync(owner, project, $"files/{file}/shown", new { shown = true, use = "for print" });
        var address = $"{page}/api/handed-over.zip";
        Assert.Equal(HttpStatusCode.NotFound, (await client.AskAsync(address)).StatusCode);
        await DoAsync(owner, project, "parts", new { part = "Files", open = true });
        var answer = await client.AskAsync(address);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        using var zip = new System.IO.Compression.ZipArchive(await answer.Content.ReadAsStreamAsync());
        Assert.Equal(["wall.png", "wall (2).png", "how to use them.txt"], zip.Entries.Select(entry => entry.FullName));
        using var words = new StreamReader(zip.Entries[2].Open());
        Assert.Equal("wall.png: for print\r\nwall (2).png: for print", await words.ReadToEndAsync());
        using var bytes = new MemoryStream();
        await zip.Entries[1].Open().CopyToAsync(bytes);
        Assert.Equal(Picture, bytes.ToArray());
    }

    [Fact]
    public async Task A_remark_points_at_a_place_of_a_draft_of_its_own_round_only()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "pins@lanternhouse.example");
        await studio.SignedAsync(client, page);
        await DoAsync(owner, project, "parts", new { part = "Drafts", open = true });
        var other = await KeepAsync(owner, project, "Drafts");
        var draft = await KeepAsync(owner, project, "Drafts");
        await DoAsync(
            owner,
            project,
            "reviews",
            new
            {
                files = new[] { draft },
                phase = "sketch",
                subject = "A draft",
                body = "Here: [page link]",
                beyond = false,
            }
        );
        async Task<JsonElement> RoundAsync() =>
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("drafts").GetProperty("rounds")[0];
        var round = await RoundAsync();
        var (id, file) = (
            round.GetProperty("id").GetString(),
            round.GetProperty("files")[0].GetProperty("id").GetString()!
        );
        Task<HttpResponseMessage> RemarkAsync(object? pin) =>
            client.PostAsync($"{page}/api/rounds/{id}/remark", new { words = "Bluer here.", pin });
        var elsewhere = await studio.LookAsync(db =>
            db.Files.Where(f => f.Id == new FileId(other)).Select(f => f.PublicId).SingleAsync()
        );
        foreach (
            var wrong in new object[]
            {
                new
                {
                    file = elsewhere,
                    x = 10,
                    y = 10,
                },
                new
                {
                    file = "nothing",
                    x = 10,
                    y = 10,
                },
                new
                {
                    file,
                    x = 1_001,
                    y = 0,
                },
                new { file, x = 10 },
                new { file },
                new { file, page = 0 },
                new { file, second = -1 },
                new
                {
                    file,
                    x = 1,
                    page = 2,
                },
                new
                {
                    file,
                    x = 1,
                    y = 1,
                    second = 2,
                },
            }
        )
        {
            var refused = await RemarkAsync(wrong);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains("A remark points at a place of a picture", await refused.Content.ReadAsStringAsync());
        }
        Assert.Empty((await RoundAsync()).GetProperty("said").EnumerateArray());
        foreach (
            var right in new object?[]
            {
                new
                {
                    file,
                    x = 0,
                    y = 1_000,
                },
                new { file, second = 65 },
                new { file, page = 3 },
                null,
                new
                {
                    file,
                    x = 500,
                    y = 250,
                    page = 2,
                },
            }
        )
            Assert.True((await RemarkAsync(right)).IsSuccessStatusCode);
        var said = (await RoundAsync()).GetProperty("said");
        Assert.Equal(
            ["", "at 1:05", "page 3", "", "page 2"],
            said.EnumerateArray().Select(one => one.GetProperty("where").GetString())
        );
        Assert.Equal(1_000, said[0].GetProperty("pin").GetProperty("y").GetInt32());
        Assert.Equal(JsonValueKind.Null, said[3].GetProperty("pin").ValueKind);
        // the owner reads the same places
        var review = await studio.LookAsync(async db =>
            (await db.Reviews.Where(r => r.PublicId == id).Select(r => r.Id).SingleAsync()).Value
        );
        var read = (await owner.GetAsync($"/api/projects/{project}/entries/Review/{review}"))
            .GetProperty("review")
            .GetProperty("said");
        Assert.Equal(draft, read[0].GetProperty("file").GetInt64());
        Assert.Equal(0, read[0].GetProperty("x").GetInt32());
        Assert.Equal(
            (500, 250, 2),
            (
                read[4].GetProperty("x").GetInt32(),
                read[4].GetProperty("y").GetInt32(),
                read[4].GetProperty("page").GetInt32()
            )
        );
        // what is said with a yes is kept with it; where it points must hold as anywhere
        Task<HttpResponseMessage> ApproveAsync(object? pin) =>
            client.PostAsync($"{page}/api/rounds/{id}/approve", new { words = " Just so. ", pin });
        Assert.Equal(HttpStatusCode.BadRequest, (await ApproveAsync(new { file, page = 0 })).StatusCode);
        Assert.Equal("Open", (await RoundAsync()).GetProperty("state").GetString());
        Assert.True((await ApproveAsync(new { file, page = 1 })).IsSuccessStatusCode);
        var approved = await RoundAsync();
        Assert.Equal("Approved", approved.GetProperty("state").GetString());
        Assert.Equal("Just so.", approved.GetProperty("said")[5].GetProperty("text").GetString());
    }

    [Fact]
    public async Task The_page_seen_as_the_client_is_the_page_the_client_sees()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "same@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var before = await owner.GetAsync($"/api/projects/{project}/as-client?with=Whole");
        Assert.NotEmpty(before.GetProperty("alsoVisible").EnumerateArray());
        Assert.Equal(
            JsonValueKind.Null,
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("whole").ValueKind
        ); // looking opens nothing
        await DoAsync(owner, project, "parts", new { part = "Whole", open = true });
        Assert.Equal(
            before.GetProperty("page").GetProperty("parts").GetProperty("whole").GetRawText(),
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("whole").GetRawText()
        );
    }

    [Fact]
    public async Task Closing_the_page_ends_its_link_and_a_new_one_does_not_revive_the_old()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "closed@lanternhouse.example");
        await DoAsync(owner, project, "link", new { open = false });
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.AskAsync($"{page}/api")).StatusCode);
        await DoAsync(owner, project, "link", new { open = true });
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.AskAsync($"{page}/api")).StatusCode);
    }
}
