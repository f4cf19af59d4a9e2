using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Gesamt.Web.Demo;

namespace Gesamt.Web.Tests;

/// <summary>Lists, mood boards and shared notes: written by the owner, changed by clients where they may, seen, undone, approved.</summary>
public sealed class ListTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private sealed record Begun(Visitor Owner, Visitor Client, long Project, string Page);

    private async Task<Begun> BeginAsync(string who)
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var mail = $"{who}@lists.example";
        var project = await studio.InquireAsync(new Visitor(studio), mail);
        await AskedAsync(
            owner.PostAsync(
                $"/api/projects/{project}/letter",
                new { subject = "Here", body = "Your page: [page link]" }
            )
        );
        await studio.TickAsync();
        return new(owner, client, project, await studio.EnterAsync(owner, client, mail));
    }

    private static async Task<JsonElement> AskedAsync(Task<HttpResponseMessage> asked)
    {
        var answer = await asked;
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return text.Length > 0 ? JsonDocument.Parse(text).RootElement : default;
    }

    private static async Task<string> RefusedAsync(
        Task<HttpResponseMessage> asked,
        HttpStatusCode status = HttpStatusCode.BadRequest
    )
    {
        var answer = await asked;
        Assert.Equal(status, answer.StatusCode);
        return await answer.Content.ReadAsStringAsync();
    }

    private static async Task<string> NewAsync(Begun at, string sort, string name = "Budget") =>
        (await AskedAsync(at.Owner.PostAsync($"/api/projects/{at.Project}/lists", new { name, sort })))
            .GetProperty("id")
            .GetString()!;

    private static object Column(
        string name,
        string sort,
        string[]? choices = null,
        bool sum = false,
        bool step = false
    ) =>
        new
        {
            key = name,
            name,
            sort,
            choices = choices ?? [],
            sum,
            step,
        };

    private static async Task<HttpResponseMessage> SavingAsync(
        Visitor owner,
        string list,
        string reader,
        params object[] columns
    )
    {
        var own = await owner.GetAsync($"/api/lists/{list}");
        return await owner.SendAsync(
            HttpMethod.Put,
            $"/api/lists/{list}",
            JsonContent.Create(
                new
                {
                    edition = own.GetProperty("edition").GetInt32(),
                    name = own.GetProperty("list").GetProperty("name").GetString(),
                    reader,
                    columns,
                }
            )
        );
    }

    private static Task<HttpResponseMessage> Put(
        Visitor by,
        string lists,
        string list,
        string key,
        int edition,
        Dictionary<string, string> cells
    ) =>
        by.SendAsync(HttpMethod.Put, $"{lists}/lists/{list}/entries/{key}", JsonContent.Create(new { edition, cells }));

    private static Task<HttpResponseMessage> PictureAsync(Visitor by, string lists, string list, string name) =>
        by.SendAsync(
            HttpMethod.Post,
            $"{lists}/lists/{list}/pictures?name={name}",
            new ByteArrayContent(DemoPictures.Draw(name))
            {
                Headers = { ContentType = new("application/octet-stream") },
            }
        );

    private static async Task OpenAsync(Begun at, string part) =>
        await AskedAsync(at.Owner.PostAsync($"/api/projects/{at.Project}/parts", new { part, open = true }));

    private static async Task<JsonElement[]> ShownAsync(Begun at, string part) =>
        [.. (await at.Client.GetAsync($"{at.Page}/api")).GetProperty("parts").GetProperty(part).EnumerateArray()];

    private static string[] Words(JsonElement list) =>
        [
            .. list.GetProperty("entries")
                .EnumerateArray()
                .Select(entry =>
                    string.Join(
                        " | ",
                        entry
                            .GetProperty("cells")
                            .EnumerateArray()
                            .Select(cell => cell.GetProperty("words").GetString())
                    ) + (entry.GetProperty("struck").GetBoolean() ? " (struck)" : "")
                ),
        ];

    private static async Task<JsonElement> ListAsync(Begun at, string list) =>
        (await at.Owner.GetAsync($"/api/lists/{list}")).GetProperty("list");

    private static async Task<string[]> ChangesAsync(Begun at, string list) =>
        [
            .. (await at.Owner.GetAsync($"/api/lists/{list}"))
                .GetProperty("changes")
                .EnumerateArray()
                .Select(change => change.GetProperty("words").GetString()!),
        ];

    private static readonly object[] Budget =
    [
        Column("What", "Text"),
        Column("Costs", "Amount", sum: true),
        Column("On", "Date"),
        Column("Paid", "YesNo"),
    ];

    [Fact]
    public async Task A_list_is_found_by_its_name_and_by_what_stands_in_it_until_it_is_taken_out()
    {
        var at = await BeginAsync("found");
        var list = await NewAsync(at, "Rows", "Seating");
        await AskedAsync(SavingAsync(at.Owner, list, "Owner", Budget));
        await AskedAsync(Put(at.Owner, "/api", list, "a", 0, new() { ["What"] = "Quillfeather, by the window" }));
        async Task<string[]> FindAsync(string words) =>
            [
                .. (await at.Owner.GetAsync($"/api/search?words={words}"))
                    .EnumerateArray()
                    .Where(hit => hit.GetProperty("list").ValueKind == JsonValueKind.String)
                    .Select(hit =>
                        $"{hit.GetProperty("sort")} {hit.GetProperty("title")} {hit.GetProperty("list").GetString() == list} {hit.GetProperty("project").GetInt64() == at.Project}"
                    ),
            ];
        string[] entry = ["Entry Seating True True"];
        Assert.Equal(["List Seating True True"], await FindAsync("seating"));
        Assert.Equal(entry, await FindAsync("quillf"));
        // an entry and its list are taken out, each by itself
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/removed", new { removed = true }));
        Assert.Empty(await FindAsync("seating"));
        Assert.Empty(await FindAsync("quillf"));
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/removed", new { removed = false }));
        Assert.Equal(entry, await FindAsync("quillf"));
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/entries/a/removed", new { removed = true }));
        Assert.Empty(await FindAsync("quillf"));
    }

    [Fact]
    public async Task Rows_are_typed_summed_in_each_currency_and_wrong_cells_are_named()
    {
        var at = await BeginAsync("rows");
        var list = await NewAsync(at, "Rows");
        await AskedAsync(SavingAsync(at.Owner, list, "Owner", Budget));
        await AskedAsync(
            Put(
                at.Owner,
                "/api",
                list,
                "a",
                0,
                new()
                {
                    ["What"] = "Paint",
                    ["Costs"] = "1,240",
                    ["On"] = "12 mar",
                }
            )
        );
        await AskedAsync(Put(at.Owner, "/api", list, "b", 0, new() { ["What"] = "Size", ["Costs"] = "38 GBP" }));
        await AskedAsync(Put(at.Owner, "/api", list, "c", 0, new() { ["What"] = "Lift", ["Costs"] = "60.5" }));
        var read = await ListAsync(at, list);
        Assert.Equal(
            ["Paint | € 1 240.00 | Fri 12 Mar | ", "Size | GBP 38.00 |  | ", "Lift | € 60.50 |  | "],
            Words(read).Select(Plain)
        );
        Assert.Equal("€ 1 300.50 and GBP 38.00", Plain(read.GetProperty("sums")[0].GetProperty("words").GetString()!));

        var refused = await RefusedAsync(
            Put(
                at.Owner,
                "/api",
                list,
                "d",
                0,
                new()
                {
                    ["Costs"] = "1.500",
                    ["Paid"] = "soon",
                    ["Gone"] = "x",
                }
            )
        );
        foreach (var named in new[] { "cells.Costs", "1 500 or 1.5", "cells.Paid", "Yes or no.", "cells.Gone" })
            Assert.Contains(named, refused, StringComparison.Ordinal);
        Assert.Contains("cells", await RefusedAsync(Put(at.Owner, "/api", list, "d", 0, [])), StringComparison.Ordinal);
        await RefusedAsync(Put(at.Owner, "/api", list, "a", 0, new() { ["What"] = "Ink" }), HttpStatusCode.Conflict);
        Assert.Equal(3, Words(await ListAsync(at, list)).Length);
    }

    private static string Plain(string text) => text.Replace('\u00a0', ' ').Replace('\u202f', ' ');

    [Fact]
    public async Task A_column_that_holds_something_else_now_has_its_cells_read_anew_or_says_which_does_not()
    {
        var at = await BeginAsync("columns");
        var list = await NewAsync(at, "Rows");
        await AskedAsync(SavingAsync(at.Owner, list, "Owner", Column("What", "Text"), Column("Many", "Text")));
        await AskedAsync(Put(at.Owner, "/api", list, "a", 0, new() { ["Many"] = "12" }));
        await AskedAsync(
            SavingAsync(at.Owner, list, "Owner", Column("What", "Text"), Column("Many", "Number", sum: true))
        );
        Assert.Equal("12", (await ListAsync(at, list)).GetProperty("sums")[0].GetProperty("words").GetString());
        var refused = await RefusedAsync(
            SavingAsync(at.Owner, list, "Owner", Column("What", "Text"), Column("Many", "Date"))
        );
        Assert.Contains("columns[1].sort", refused, StringComparison.Ordinal);
        Assert.Contains(
            "“12” stands in it",
            JsonSerializer.Deserialize<JsonElement>(refused).ToString(),
            StringComparison.Ordinal
        );
        // a column that was taken out keeps its cells, should it be put back
        await AskedAsync(SavingAsync(at.Owner, list, "Owner", Column("What", "Text")));
        await AskedAsync(SavingAsync(at.Owner, list, "Owner", Column("What", "Text"), Column("Many", "Number")));
        Assert.Equal([" | 12"], Words(await ListAsync(at, list)));
        foreach (
            var (columns, field) in new (object[], string)[]
            {
                ([], "columns"),
                ([Column("A", "Text"), Column("a", "Text")], "columns[1].name"),
                ([Column("A", "OneOf", ["one"])], "columns[0].choices"),
            }
        )
            Assert.Contains(
                $"\"{field}\"",
                await RefusedAsync(SavingAsync(at.Owner, list, "Owner", columns)),
                StringComparison.Ordinal
            );
    }

    [Fact]
    public async Task A_client_changes_what_they_may_marked_until_seen_and_undone_and_no_turn_changes()
    {
        var at = await BeginAsync("prunes");
        var board = await NewAsync(at, "Board", "Which gulls?");
        var first = (await AskedAsync(PictureAsync(at.Owner, "/api", board, "loud.png")))
            .GetProperty("key")
            .GetString()!;
        var lists = $"{at.Page}/api";
        await RefusedAsync(
            Put(at.Owner, "/api", board, "k", 0, new() { ["words"] = "No picture" }),
            HttpStatusCode.Conflict
        );
        await RefusedAsync(
            at.Client.PostAsync($"{lists}/lists/{board}/entries/{first}/struck", new { struck = true }),
            HttpStatusCode.NotFound
        );
        await AskedAsync(SavingAsync(at.Owner, board, "Edited"));
        await RefusedAsync(
            at.Client.PostAsync($"{lists}/lists/{board}/entries/{first}/struck", new { struck = true }),
            HttpStatusCode.NotFound
        );
        await OpenAsync(at, "Boards");
        var turn = (await at.Owner.GetAsync($"/api/projects/{at.Project}"))
            .GetProperty("path")
            .GetProperty("turn")
            .GetRawText();

        await AskedAsync(at.Client.PostAsync($"{lists}/lists/{board}/entries/{first}/struck", new { struck = true }));
        var theirs = (await AskedAsync(PictureAsync(at.Client, lists, board, "ferry.png")))
            .GetProperty("key")
            .GetString()!;
        await AskedAsync(Put(at.Client, lists, board, theirs, 1, new() { ["words"] = "Like this" }));
        Assert.Equal([" (struck)", "Like this"], Words((await ShownAsync(at, "boards"))[0]));
        var changes = await ChangesAsync(at, board);
        // the words on the picture they had just added are one change with it
        Assert.Equal(2, changes.Length);
        Assert.Contains("added “Like this”, today", changes[0], StringComparison.Ordinal);
        Assert.Contains("struck out loud.png, today", changes[1], StringComparison.Ordinal);
        var record = await at.Owner.GetAsync($"/api/projects/{at.Project}");
        Assert.Equal(turn, record.GetProperty("path").GetProperty("turn").GetRawText());
        Assert.Equal(2, record.GetProperty("sheet").GetProperty("lists")[0].GetProperty("unseen").GetInt32());
        Assert.Single(
            record.GetProperty("line").GetProperty("past").EnumerateArray(),
            entry =>
                entry.GetRawText().Contains("changed \\u201CWhich gulls?", StringComparison.Ordinal)
                || entry.GetRawText().Contains("changed “Which gulls?", StringComparison.Ordinal)
        );
        // the client is shown no marks
        Assert.All(
            (await ShownAsync(at, "boards"))[0].GetProperty("entries").EnumerateArray(),
            entry => Assert.Equal(JsonValueKind.Null, entry.GetProperty("mark").ValueKind)
        );

        var own = await at.Owner.GetAsync($"/api/lists/{board}");
        async Task<HttpResponseMessage> UndoAsync(int which, bool undone = true) =>
            await at.Owner.PostAsync(
                $"/api/lists/{board}/changes/{own.GetProperty("changes")[which].GetProperty("id").GetInt64()}/undone",
                new { undone }
            );
        await AskedAsync(UndoAsync(0));
        Assert.Equal([" (struck)"], Words(await ListAsync(at, board)));
        await AskedAsync(UndoAsync(0, undone: false));
        Assert.Equal([" (struck)", "Like this"], Words(await ListAsync(at, board)));
        await AskedAsync(UndoAsync(0));
        await AskedAsync(UndoAsync(1));
        Assert.Equal([""], Words(await ListAsync(at, board)));
        await RefusedAsync(UndoAsync(1), HttpStatusCode.NotFound);

        await AskedAsync(at.Client.PostAsync($"{lists}/lists/{board}/entries/{first}/struck", new { struck = true }));
        own = await at.Owner.GetAsync($"/api/lists/{board}");
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{board}/entries/{first}/struck", new { struck = false }));
        Assert.Contains(
            "changed again since",
            await RefusedAsync(UndoAsync(0), HttpStatusCode.Conflict),
            StringComparison.Ordinal
        );
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{board}/seen", new { seen = true }));
        Assert.Empty(await ChangesAsync(at, board));
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{board}/seen", new { seen = false }));
        Assert.Single(await ChangesAsync(at, board));
        // what the owner takes out needs no looking at
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{board}/entries/{first}/removed", new { removed = true }));
        Assert.Empty(await ChangesAsync(at, board));
    }

    [Fact]
    public async Task The_final_board_is_approved_as_it_was_read_and_a_change_after_it_says_so()
    {
        var at = await BeginAsync("final");
        var board = await NewAsync(at, "Board", "Final");
        await RefusedAsync(
            at.Owner.PostAsync($"/api/lists/{board}/final", new { final = true }),
            HttpStatusCode.Conflict
        );
        var key = (await AskedAsync(PictureAsync(at.Owner, "/api", board, "still.png")))
            .GetProperty("key")
            .GetString()!;
        await AskedAsync(SavingAsync(at.Owner, board, "Edited"));
        await OpenAsync(at, "Boards");
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{board}/final", new { final = true }));
        var shown = (await ShownAsync(at, "boards"))[0];
        Assert.False(shown.GetProperty("edits").GetBoolean());
        Assert.Contains(
            "Look at the mood board “Final”",
            (await at.Client.GetAsync($"{at.Page}/api")).GetProperty("toDo")[0].GetProperty("words").GetString(),
            StringComparison.Ordinal
        );
        await RefusedAsync(
            at.Client.PostAsync($"{at.Page}/api/lists/{board}/entries/{key}/struck", new { struck = true }),
            HttpStatusCode.Conflict
        );
        var hash = shown.GetProperty("hash").GetString();
        await AskedAsync(Put(at.Owner, "/api", board, key, 1, new() { ["words"] = "On the ridge" }));
        await RefusedAsync(
            at.Client.PostAsync($"{at.Page}/api/lists/{board}/approve", new { hash }),
            HttpStatusCode.Conflict
        );
        hash = (await ShownAsync(at, "boards"))[0].GetProperty("hash").GetString();
        await AskedAsync(at.Client.PostAsync($"{at.Page}/api/lists/{board}/approve", new { hash }));
        Assert.StartsWith(
            "approved ",
            (await ListAsync(at, board)).GetProperty("state").GetString(),
            StringComparison.Ordinal
        );
        await AskedAsync(Put(at.Owner, "/api", board, key, 2, new() { ["words"] = "By the door" }));
        Assert.Equal("changed since it was approved", (await ListAsync(at, board)).GetProperty("state").GetString());
        await AskedAsync(Put(at.Owner, "/api", board, key, 3, new() { ["words"] = "On the ridge" }));
        Assert.StartsWith(
            "approved ",
            (await ListAsync(at, board)).GetProperty("state").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal(
            "image/jpeg",
            (await at.Client.AskAsync($"{at.Page}/api/lists/{board}/pictures/{key}/preview"))
                .Content
                .Headers
                .ContentType
                ?.MediaType
        );
    }

    [Fact]
    public async Task Only_what_is_shown_is_read_and_only_what_is_edited_is_changed()
    {
        var at = await BeginAsync("shown");
        var (mine, read, notes) = (
            await NewAsync(at, "Rows", "Mine"),
            await NewAsync(at, "Rows", "Theirs to read"),
            await NewAsync(at, "Notes", "Ours")
        );
        await AskedAsync(SavingAsync(at.Owner, read, "Shown", Column("What", "Text")));
        await AskedAsync(SavingAsync(at.Owner, notes, "Edited"));
        await OpenAsync(at, "Lists");
        Assert.Equal(
            ["Theirs to read"],
            (await ShownAsync(at, "lists")).Select(list => list.GetProperty("name").GetString())
        );
        Assert.Equal(
            JsonValueKind.Null,
            (await at.Client.GetAsync($"{at.Page}/api")).GetProperty("parts").GetProperty("notes").ValueKind
        );
        var cells = new Dictionary<string, string> { ["What"] = "x", ["words"] = "x" };
        await RefusedAsync(Put(at.Client, $"{at.Page}/api", mine, "k", 0, cells), HttpStatusCode.NotFound);
        await RefusedAsync(Put(at.Client, $"{at.Page}/api", notes, "k", 0, cells), HttpStatusCode.NotFound);
        await RefusedAsync(Put(at.Client, $"{at.Page}/api", read, "k", 0, cells), HttpStatusCode.Conflict);
        await OpenAsync(at, "Notes");
        await AskedAsync(Put(at.Client, $"{at.Page}/api", notes, "k", 0, new() { ["words"] = "First.\n\nSecond." }));
        Assert.Equal(["First.\n\nSecond."], Words((await ShownAsync(at, "notes"))[0]));
        // another project's list is not theirs by its name
        var other = await BeginAsync("another");
        await OpenAsync(other, "Notes");
        await RefusedAsync(Put(other.Client, $"{other.Page}/api", notes, "z", 0, cells), HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_table_is_read_before_it_is_taken_over_and_written_as_it_is_read_again()
    {
        var at = await BeginAsync("table");
        var list = await NewAsync(at, "Rows", "Guests");
        const string Text = "Name;Came;Gave;Seats\r\nÉ. Vogt;2027-03-12;€ 20,50;2\r\nO. Pettigrew;;1.500;soon\r\n";
        var read = await AskedAsync(
            at.Owner.SendAsync(
                HttpMethod.Post,
                $"/api/lists/{list}/table",
                new ByteArrayContent(Encoding.UTF8.GetBytes(Text))
                {
                    Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
                }
            )
        );
        Assert.Equal(
            ["Text", "Date", "Text", "Text"],
            read.GetProperty("columns").EnumerateArray().Select(column => column.GetProperty("sort").GetString())
        );
        Assert.Equal(
            ["É. Vogt", "Fri 12 Mar", "€ 20,50", "2"],
            read.GetProperty("told")[0].EnumerateArray().Select(cell => cell.GetString())
        );
        var columns = new[]
        {
            new
            {
                heading = "Name",
                key = read.GetProperty("columns")[0].GetProperty("key").GetString(),
                sort = "Text",
            },
            new
            {
                heading = "Gave",
                key = (string?)null,
                sort = "Amount",
            },
        };
        var refused = await RefusedAsync(
            at.Owner.PostAsync(
                $"/api/lists/{list}/rows",
                new { columns, rows = new[] { new[] { "A", "20,50" }, ["B", "1.500"] } }
            )
        );
        Assert.Contains("rows[1][1]", refused, StringComparison.Ordinal);
        await AskedAsync(
            at.Owner.PostAsync(
                $"/api/lists/{list}/rows",
                new { columns, rows = new[] { new[] { "B", "1500" }, ["A", "20,50"], ["=1+1", ""] } }
            )
        );
        Assert.Contains(
            "every cell is empty",
            await RefusedAsync(
                at.Owner.PostAsync($"/api/lists/{list}/rows", new { columns, rows = new[] { new[] { "", "" } } })
            ),
            StringComparison.Ordinal
        );
        var csv = await (await at.Owner.AskAsync($"/api/lists/{list}/table.csv")).Content.ReadAsStringAsync();
        Assert.Equal(["Name,Gave", "B,1500", "A,20.5", "'=1+1,"], csv.TrimStart('\ufeff').TrimEnd().Split("\r\n"));
        Assert.Contains(
            "table",
            await RefusedAsync(
                at.Owner.SendAsync(
                    HttpMethod.Post,
                    $"/api/lists/{list}/table",
                    new ByteArrayContent([0, 1, 2]) { Headers = { ContentType = new("application/octet-stream") } }
                )
            ),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Kept_ones_are_laid_several_at_once_in_their_order_without_their_dates()
    {
        var at = await BeginAsync("laid");
        var list = await NewAsync(at, "Rows", "Plan");
        await AskedAsync(
            SavingAsync(at.Owner, list, "Owner", Column("What", "Text"), Column("Out", "Date", step: true))
        );
        await AskedAsync(Put(at.Owner, "/api", list, "a", 0, new() { ["What"] = "First", ["Out"] = "2027-01-20" }));
        var board = await NewAsync(at, "Board", "Look");
        await AskedAsync(PictureAsync(at.Owner, "/api", board, "loud.png"));
        async Task<string> KeepAsync(string of, string name) =>
            (await AskedAsync(at.Owner.PostAsync($"/api/lists/{of}/kept", new { name })))
                .GetProperty("id")
                .GetString()!;
        var (one, two) = (await KeepAsync(list, "Plan of posts"), await KeepAsync(board, "Looks"));
        var to = await BeginAsync("laid-on");
        await AskedAsync(
            to.Owner.PostAsync($"/api/projects/{to.Project}/lists/lay", new { lists = new[] { two, one } })
        );
        var laid = (await to.Owner.GetAsync($"/api/projects/{to.Project}")).GetProperty("sheet").GetProperty("lists");
        Assert.Equal(
            ["Looks, 1 picture, only for you", "Plan of posts, 1 row, only for you"],
            laid.EnumerateArray()
                .Select(line => $"{line.GetProperty("name").GetString()}, {line.GetProperty("about").GetString()}")
        );
        Assert.Equal(["First | "], Words(await ListAsync(to, laid[1].GetProperty("id").GetString()!)));
        Assert.Contains(
            "reader",
            await RefusedAsync(SavingAsync(at.Owner, one, "Shown", Column("What", "Text"))),
            StringComparison.Ordinal
        );
        await RefusedAsync(
            to.Owner.PostAsync($"/api/projects/{to.Project}/lists/lay", new { lists = new[] { list } }),
            HttpStatusCode.NotFound
        );
    }

    [Fact]
    public async Task A_step_stands_on_its_day_and_in_the_feed_until_it_is_done()
    {
        var at = await BeginAsync("steps");
        var list = await NewAsync(at, "Rows", "Posts");
        await AskedAsync(
            SavingAsync(at.Owner, list, "Owner", Column("What", "Text"), Column("Out", "Date", step: true))
        );
        await AskedAsync(Put(at.Owner, "/api", list, "a", 0, new() { ["What"] = "Gulls half way", ["Out"] = "today" }));
        await AskedAsync(Put(at.Owner, "/api", list, "b", 0, new() { ["What"] = "Later", ["Out"] = "in 3 days" }));
        async Task<string[]> DueAsync() =>
            [
                .. (await at.Owner.GetAsync("/api/today"))
                    .GetProperty("day")
                    .GetProperty("steps")
                    .EnumerateArray()
                    .Where(step => step.GetProperty("list").GetString() == list)
                    .Select(step => step.GetProperty("title").GetString()!),
            ];
        Assert.Equal(["Out: Gulls half way"], await DueAsync());
        // the week names both, each on its day
        var week = (await at.Owner.GetAsync("/api/week")).ToString();
        Assert.Contains("due: Out: Gulls half way", week, StringComparison.Ordinal);
        Assert.Contains("due: Out: Later", week, StringComparison.Ordinal);
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/entries/a/steps/Out/done", new { done = true }));
        Assert.Empty(await DueAsync());
        // no step any more, it is a date still; and a step again
        foreach (var step in new[] { false, true })
            await AskedAsync(
                SavingAsync(at.Owner, list, "Owner", Column("What", "Text"), Column("Out", "Date", step: step))
            );
        Assert.Equal(["Out: Gulls half way"], await DueAsync());
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/entries/a/steps/Out/done", new { done = true }));
        Assert.Contains(", done", Words(await ListAsync(at, list))[0], StringComparison.Ordinal);
        await RefusedAsync(
            at.Owner.PostAsync($"/api/lists/{list}/entries/a/steps/What/done", new { done = true }),
            HttpStatusCode.NotFound
        );
    }

    [Fact]
    public async Task The_order_is_the_owners_and_what_was_taken_out_is_put_back()
    {
        var at = await BeginAsync("order");
        var list = await NewAsync(at, "Notes", "Ours");
        foreach (var key in new[] { "a", "b", "c" })
            await AskedAsync(Put(at.Owner, "/api", list, key, 0, new() { ["words"] = key }));
        await AskedAsync(
            at.Owner.SendAsync(
                HttpMethod.Put,
                $"/api/lists/{list}/order",
                JsonContent.Create(new { keys = new[] { "c", "a", "b" } })
            )
        );
        Assert.Equal(["c", "a", "b"], Words(await ListAsync(at, list)));
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/entries/a/removed", new { removed = true }));
        Assert.Equal(["c", "b"], Words(await ListAsync(at, list)));
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/entries/a/removed", new { removed = false }));
        Assert.Equal(["c", "a", "b"], Words(await ListAsync(at, list)));
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/removed", new { removed = true }));
        Assert.Equal(HttpStatusCode.NotFound, (await at.Owner.AskAsync($"/api/lists/{list}")).StatusCode);
        await AskedAsync(at.Owner.PostAsync($"/api/lists/{list}/removed", new { removed = false }));
        Assert.Equal(["c", "a", "b"], Words(await ListAsync(at, list)));
    }
}
