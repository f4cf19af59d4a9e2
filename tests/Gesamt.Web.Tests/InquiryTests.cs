using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Gesamt.Core.Forms;
using Gesamt.Store.Json;

namespace Gesamt.Web.Tests;

/// <summary>Forms and the other ways inquiries come in.</summary>
public sealed partial class InquiryTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static ByteArrayContent Bytes(string text) =>
        new(Encoding.UTF8.GetBytes(text))
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
        };

    private Task<int> ProjectsAsync(string mail) =>
        studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Projects.CountAsync(p => p.Client!.Mail == mail));

    [Fact]
    public async Task A_condition_asks_only_when_it_holds_and_a_hidden_answer_is_not_kept()
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        var answers = new Dictionary<string, string>(Studio.Answers)
        {
            ["mail"] = "condition@house.example",
            ["access"] = "no",
        };
        var refused = await visitor.PostAsync("/forms/mural", new { answers });
        Assert.Contains("why-not", await refused.Content.ReadAsStringAsync());
        answers["why-not"] = "a canal";
        Assert.True((await visitor.PostAsync("/forms/mural", new { answers })).IsSuccessStatusCode);
        answers["access"] = "yes";
        answers["mail"] = "hidden@house.example";
        Assert.True((await visitor.PostAsync("/forms/mural", new { answers })).IsSuccessStatusCode);
        var kept = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Answers.OrderBy(a => a.Id).Select(a => a.Items).ToListAsync()
        );
        Assert.Contains(kept, items => items.Contains("a canal", StringComparison.Ordinal));
        Assert.DoesNotContain("why-not", kept[^1]);
    }

    [Fact]
    public async Task A_form_without_script_sends_once_however_often_it_is_sent_and_keeps_its_file()
    {
        var visitor = new Visitor(studio);
        var page = await (await visitor.AskAsync("/forms/mural/plain")).Content.ReadAsStringAsync();
        var token = System.Net.WebUtility.HtmlDecode(
            System.Text.RegularExpressions.Regex.Match(page, "name=\"token\" value=\"([^\"]+)\"").Groups[1].Value
        );
        Assert.DoesNotContain("<script", page);
        MultipartFormDataContent Form(string mail)
        {
            var form = new MultipartFormDataContent
            {
                { new StringContent(token), "token" },
                { new StringContent(""), "website" },
            };
            foreach (var (key, text) in new Dictionary<string, string>(Studio.Answers) { ["mail"] = mail })
                form.Add(new StringContent(text), $"f-{key}");
            form.Add(
                new ByteArrayContent([
                    0x89,
                    0x50,
                    0x4e,
                    0x47,
                    0x0d,
                    0x0a,
                    0x1a,
                    0x0a,
                    0,
                    0,
                    0,
                    13,
                    0x49,
                    0x48,
                    0x44,
                    0x52,
                    0,
                    0,
                    0,
                    1,
                    0,
                    0,
                    0,
                    1,
                ]),
                "f-photos",
                "wall.png"
            );
            return form;
        }
        var wrong = await visitor.SendAsync(HttpMethod.Post, "/forms/mural/plain", Form("no address"));
        var again = await wrong.Content.ReadAsStringAsync();
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        Assert.Contains("A mail address, such as", again);
        Assert.Contains("A lantern.", again); // nothing typed is lost
        for (var i = 0; i < 2; i++)
            Assert.Contains(
                "has arrived",
                await (
                    await visitor.SendAsync(HttpMethod.Post, "/forms/mural/plain", Form("plain@house.example"))
                ).Content.ReadAsStringAsync()
            );
        Assert.Equal(1, await ProjectsAsync("plain@house.example"));
        Assert.Equal(
            "wall.png",
            await studio.LookAsync(
                (Gesamt.Store.GesamtDb db) =>
                    db
                        .Files.Where(f =>
                            db.Projects.Any(p => p.Id == f.ProjectId && p.Client!.Mail == "plain@house.example")
                        )
                        .Select(f => f.Name)
                        .SingleAsync()
            )
        );
    }

    [Fact]
    public async Task A_file_belongs_to_its_form_and_is_taken_once()
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        var path = $"/forms/mural/files?name=wall.txt&token={Uri.EscapeDataString(visitor.Token)}";
        var sent = await visitor.SendAsync(HttpMethod.Post, path, Bytes("a wall of bricks"));
        var id = System
            .Text.Json.JsonDocument.Parse(await sent.Content.ReadAsStringAsync())
            .RootElement.GetProperty("id")
            .GetString()!;
        var answers = new Dictionary<string, string>(Studio.Answers)
        {
            ["mail"] = "file@house.example",
            ["photos"] = id,
        };
        Assert.True((await visitor.PostAsync("/forms/mural", new { answers })).IsSuccessStatusCode);
        answers["mail"] = "again@house.example";
        Assert.Contains(
            "photos",
            await (await visitor.PostAsync("/forms/mural", new { answers })).Content.ReadAsStringAsync()
        );
        Assert.Equal(0, await ProjectsAsync("again@house.example"));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await visitor.SendAsync(HttpMethod.Post, "/forms/mural/files?name=wall.txt&token=none", Bytes("x"))
            ).StatusCode
        );
    }

    [Fact]
    public async Task A_token_of_another_form_or_an_old_one_sends_nothing()
    {
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/lettering");
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await visitor.PostAsync("/forms/mural", new { answers = Studio.Answers })).StatusCode
        );
    }

    [Fact]
    public async Task A_form_is_made_changed_and_taken_away_and_what_was_answered_keeps_its_questions()
    {
        var owner = await studio.OwnerAsync();
        var kind = (await owner.GetAsync("/api/kinds"))[0].GetProperty("id").GetInt64();
        var made = await owner.PostAsync($"/api/kinds/{kind}/forms", new { title = "Quick question" });
        var id = System
            .Text.Json.JsonDocument.Parse(await made.Content.ReadAsStringAsync())
            .RootElement.GetProperty("id")
            .GetInt32();
        var form = (await owner.GetAsync($"/api/kinds/{kind}/forms"))
            .EnumerateArray()
            .Single(f => f.GetProperty("id").GetInt32() == id);
        object Save(object fields, bool closed, int edition) =>
            new
            {
                title = "Quick question",
                intro = "",
                fields,
                thanks = "Thank you kindly.",
                goTo = (string?)null,
                source = "the fair",
                closed,
                edition,
            };
        object[] fields =
        [
            new
            {
                key = "name",
                sort = "ShortText",
                label = "Who are you?",
                required = true,
                hint = (string?)null,
                unit = (string?)null,
                options = (string[]?)null,
                fills = "name",
                shownIf = (object?)null,
            },
            new
            {
                key = "mail",
                sort = "Mail",
                label = "Mail",
                required = true,
                hint = (string?)null,
                unit = (string?)null,
                options = (string[]?)null,
                fills = "mail",
                shownIf = (object?)null,
            },
        ];
        var bad = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/forms/{id}",
            System.Net.Http.Json.JsonContent.Create(Save(fields[..1], false, 0))
        );
        Assert.Contains("Ask for a way to reach people", await bad.Content.ReadAsStringAsync());
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/forms/{id}",
                    System.Net.Http.Json.JsonContent.Create(Save(fields, false, 0))
                )
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/forms/{id}",
                    System.Net.Http.Json.JsonContent.Create(Save(fields, false, 0))
                )
            ).StatusCode
        );

        var slug = form.GetProperty("slug").GetString();
        var visitor = new Visitor(studio);
        await visitor.TokenAsync($"/forms/{slug}");
        var thanks = await visitor.PostAsync(
            $"/forms/{slug}",
            new { answers = new { name = "Ida", mail = "ida@fair.example" } }
        );
        Assert.Contains("Thank you kindly.", await thanks.Content.ReadAsStringAsync());
        Assert.Equal(
            "the fair",
            await studio.LookAsync(
                (Gesamt.Store.GesamtDb db) =>
                    db.Projects.Where(p => p.Client!.Mail == "ida@fair.example").Select(p => p.Source).SingleAsync()
            )
        );

        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.SendAsync(HttpMethod.Delete, $"/api/forms/{id}", null)).StatusCode
        );
        await owner.SendAsync(
            HttpMethod.Put,
            $"/api/forms/{id}",
            System.Net.Http.Json.JsonContent.Create(Save(fields, true, 1))
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await visitor.PostAsync(
                    $"/forms/{slug}",
                    new { answers = new { name = "Ida", mail = "late@fair.example" } }
                )
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.SendAsync(HttpMethod.Delete, $"/api/forms/{id}", null)).StatusCode
        );
        var items = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Answers.Where(a => a.Form == "Quick question").Select(a => a.Items).SingleAsync()
        );
        Assert.Equal("Who are you?", StoreJson.Read<List<Answer>>(items)[0].Question);
    }

    [Fact]
    public async Task The_snippet_names_the_form_only_and_its_frame_may_stand_elsewhere()
    {
        var visitor = new Visitor(studio);
        var script = await (await visitor.AskAsync("/embed/mural.js")).Content.ReadAsStringAsync();
        Assert.Contains("/i/mural?embedded", script);
        Assert.DoesNotContain("Your name", script);
        Assert.Contains(
            "frame-ancestors *",
            (await visitor.AskAsync("/i/mural?embedded")).Headers.GetValues("Content-Security-Policy").Single()
        );
        Assert.Contains(
            "frame-ancestors 'none'",
            (await visitor.AskAsync("/p/any")).Headers.GetValues("Content-Security-Policy").Single()
        );
        Assert.Equal(HttpStatusCode.NotFound, (await visitor.AskAsync("/embed/none.js")).StatusCode);
    }
}
