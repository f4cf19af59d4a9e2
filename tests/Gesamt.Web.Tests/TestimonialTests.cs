using System.Net;
using System.Text.Json;

namespace Gesamt.Web.Tests;

/// <summary>Praise kept, words to quote approved by the client, two leaves given and taken back.</summary>
public sealed class TestimonialTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private const string Praise = "Everybody stops on the platform now.";

    /// <summary>A project with its client’s page open and nothing owed.</summary>
    private async Task<(Visitor Owner, Visitor Client, long Project, string Page)> BeginAsync(string who)
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var mail = $"{who}@praise.example";
        var project = await studio.InquireAsync(new Visitor(studio), mail);
        await AskedAsync(
            owner.PostAsync(
                $"/api/projects/{project}/letter",
                new { subject = "Here", body = "Your page: [page link]" }
            )
        );
        await studio.TickAsync();
        return (owner, client, project, await studio.EnterAsync(owner, client, mail));
    }

    private static async Task AskedAsync(Task<HttpResponseMessage> asked)
    {
        var answer = await asked;
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
    }

    private static object Put(string words = Praise) =>
        new
        {
            words,
            name = "Mona Delarue",
            subject = "May I quote you?",
            body = "Please look: [page link]",
        };

    private static Task<JsonElement> SheetAsync(Visitor owner, long project) =>
        owner.GetAsync($"/api/projects/{project}/praise");

    private static async Task<JsonElement> ShownAsync(Visitor client, string page) =>
        (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("testimonial");

    private static Task ApproveAsync(Visitor client, string page, JsonElement shown, string words) =>
        AskedAsync(
            client.PostAsync(
                $"{page}/api/testimonial/approve",
                new
                {
                    words,
                    name = "Mona D.",
                    hash = shown.GetProperty("hash").GetString(),
                }
            )
        );

    private static async Task<HttpResponseMessage> AnswerAsync(Visitor client, string page, string to, bool given) =>
        await client.PostAsync(
            $"{page}/api/leave",
            new
            {
                to,
                given,
                wording = (await ShownAsync(client, page))
                    .GetProperty("leaves")
                    .EnumerateArray()
                    .Where(leave => leave.GetProperty("to").GetString() == to)
                    .Select(leave => leave.GetProperty("wording").GetString())
                    .FirstOrDefault("none"),
            }
        );

    [Fact]
    public async Task Praise_is_kept_from_a_letter_with_its_day_and_writer_and_never_shown_to_the_client()
    {
        var (owner, client, project, page) = await BeginAsync("kept");
        var letter = await studio.LookAsync(async db =>
            (await db.Letters.Where(l => l.ProjectId == new Core.ProjectId(project)).MaxAsync(l => l.Id)).Value
        );
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/praise", new { words = Praise, letter }));
        var kept = Assert.Single((await SheetAsync(owner, project)).GetProperty("kept").EnumerateArray());
        Assert.Equal("Isolde Marrin, Mon 25 Jan", kept.GetProperty("said").GetString());
        Assert.Equal($"Letter.{letter}", kept.GetProperty("opens").GetString());
        Assert.Equal(JsonValueKind.Null, (await ShownAsync(client, page)).ValueKind);
        Assert.DoesNotContain(Praise, (await client.GetAsync($"{page}/api")).GetRawText());
        Assert.Equal(
            "kept",
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("praise").GetString()
        );
    }

    [Fact]
    public async Task Of_another_project_s_letter_nothing_is_kept()
    {
        var (owner, _, project, _) = await BeginAsync("other");
        var answer = await owner.PostAsync($"/api/projects/{project}/praise", new { words = Praise, letter = 999_999 });
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        var empty = await owner.PostAsync($"/api/projects/{project}/praise", new { words = " " });
        Assert.Contains("What was said is said in 1 to 2000 characters.", await empty.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task The_client_changes_the_words_until_they_are_right_and_only_those_may_be_quoted()
    {
        var (owner, client, project, page) = await BeginAsync("words");
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/testimonial/put", Put()));
        var shown = await ShownAsync(client, page);
        Assert.Equal(Praise, shown.GetProperty("words").GetProperty("words").GetString());
        // to be quoted is asked for once there are words
        Assert.Equal(
            ["Show"],
            shown.GetProperty("leaves").EnumerateArray().Select(leave => leave.GetProperty("to").GetString())
        );
        Assert.Equal(HttpStatusCode.Conflict, (await AnswerAsync(client, page, "Quote", true)).StatusCode);
        await ApproveAsync(client, page, shown, "Everybody stops on the platform.");
        Assert.False((await SheetAsync(owner, project)).GetProperty("mayQuote").GetBoolean());
        await AskedAsync(AnswerAsync(client, page, "Quote", true));
        var sheet = await SheetAsync(owner, project);
        Assert.True(sheet.GetProperty("mayQuote").GetBoolean());
        Assert.Equal(
            "Everybody stops on the platform.",
            sheet.GetProperty("approved").GetProperty("words").GetString()
        );
        Assert.Equal("Mona D.", sheet.GetProperty("approved").GetProperty("name").GetString());
    }

    [Fact]
    public async Task Words_that_were_changed_meanwhile_are_not_approved()
    {
        var (owner, client, project, page) = await BeginAsync("stale");
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/testimonial/put", Put()));
        var shown = await ShownAsync(client, page);
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/testimonial/back", new { }));
        Assert.Equal(JsonValueKind.Null, (await ShownAsync(client, page)).ValueKind);
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/testimonial/put", Put("It glows.")));
        var late = await client.PostAsync(
            $"{page}/api/testimonial/approve",
            new
            {
                words = Praise,
                name = "Mona",
                hash = shown.GetProperty("hash").GetString(),
            }
        );
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
        Assert.Contains("changed while you read them", await late.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_leave_keeps_its_sentence_and_is_taken_back_by_the_client_at_any_time()
    {
        var (owner, client, project, page) = await BeginAsync("leave");
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/testimonial/put", Put("")));
        await AskedAsync(AnswerAsync(client, page, "Show", true));
        await AskedAsync(client.PostAsync($"{page}/api/leave/revoke", new { to = "Show" }));
        var leave = (await SheetAsync(owner, project)).GetProperty("leaves").EnumerateArray().Last();
        Assert.Equal("Revoked", leave.GetProperty("state").GetString());
        Assert.StartsWith("taken back ", leave.GetProperty("said").GetString(), StringComparison.Ordinal);
        Assert.Contains("may show pictures of this work", leave.GetProperty("wording").GetString());
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await client.PostAsync($"{page}/api/leave/revoke", new { to = "Show" })).StatusCode
        );
    }

    [Fact]
    public async Task What_they_said_on_the_phone_is_noted_on_its_day_in_its_words()
    {
        var (owner, client, project, page) = await BeginAsync("phone");
        await AskedAsync(
            owner.PostAsync(
                $"/api/projects/{project}/leave",
                new
                {
                    to = "Show",
                    state = "Given",
                    wording = "Show it, but not the till",
                    on = "2027-01-20",
                }
            )
        );
        var leave = (await SheetAsync(owner, project)).GetProperty("leaves").EnumerateArray().Last();
        Assert.Equal("given Wed 20 Jan", leave.GetProperty("said").GetString());
        Assert.Equal("Show it, but not the till", leave.GetProperty("wording").GetString());
        // they see it, and can take it back
        Assert.Single((await ShownAsync(client, page)).GetProperty("leaves").EnumerateArray());
        await AskedAsync(client.PostAsync($"{page}/api/leave/revoke", new { to = "Show" }));
    }

    [Fact]
    public async Task Nobody_who_owes_something_is_asked_and_the_reason_is_said()
    {
        var (owner, _, project, _) = await studio.SignedByAllAsync("owes@praise.example");
        var answer = await owner.PostAsync($"/api/projects/{project}/testimonial/put", Put());
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Contains("waits until all that is due is paid", await answer.Content.ReadAsStringAsync());
        Assert.Equal("all that is due is paid", (await SheetAsync(owner, project)).GetProperty("waits").GetString());
    }

    [Fact]
    public async Task The_list_of_all_praise_is_narrowed_by_what_may_be_done_and_given_out_as_csv()
    {
        await using var apart = new EmptyStudio();
        var all = new TestimonialTests(apart);
        var (owner, client, project, page) = await all.BeginAsync("list");
        var (_, _, other, _) = await all.BeginAsync("only-kept");
        await AskedAsync(owner.PostAsync($"/api/projects/{other}/praise", new { words = "=SUM(it glows)" }));
        await AskedAsync(owner.PostAsync($"/api/projects/{project}/testimonial/put", Put()));
        await ApproveAsync(client, page, await ShownAsync(client, page), Praise);
        await AskedAsync(AnswerAsync(client, page, "Quote", true));
        await AskedAsync(AnswerAsync(client, page, "Show", false));

        async Task<long[]> ListAsync(string query) =>
            [
                .. (await owner.GetAsync($"/api/praise?{query}"))
                    .GetProperty("rows")
                    .EnumerateArray()
                    .Select(row => row.GetProperty("project").GetInt64()),
            ];
        Assert.Equal([project, other], await ListAsync(""));
        Assert.Equal([project], await ListAsync("standing=MayBeQuoted"));
        Assert.Equal([project], await ListAsync("standing=Refused"));
        Assert.Equal([other], await ListAsync("standing=NotAsked"));
        Assert.Equal([project], await ListAsync("words=PLATFORM"));
        Assert.Empty(await ListAsync("standing=MayBeShown"));
        var csv = await (await owner.AskAsync("/api/praise.csv")).Content.ReadAsStringAsync();
        Assert.Contains(Praise, csv);
        // no table program takes it for a formula
        Assert.Contains("'=SUM", csv);
        await AskedAsync(client.PostAsync($"{page}/api/leave/revoke", new { to = "Quote" }));
        Assert.Empty(await ListAsync("standing=MayBeQuoted"));
        Assert.Equal([project], await ListAsync("standing=Revoked"));
    }
}
