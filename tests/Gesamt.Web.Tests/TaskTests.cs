using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Core.Facts;

namespace Gesamt.Web.Tests;

/// <summary>Tasks of a project: what is said of them, lists laid on it, what is the client's to do.</summary>
public sealed class TaskTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private Task<long> BeginAsync(string who) => studio.InquireAsync(new Visitor(studio), $"{who}@tasks.example");

    private static async Task<long> AddAsync(Visitor owner, long project, object task)
    {
        var made = await owner.PostAsync($"/api/projects/{project}/tasks", task);
        Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        return (await made.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt64();
    }

    private static object Task(
        string title,
        string? due = null,
        object? plan = null,
        object? words = null,
        bool? isClients = null,
        int? edition = null
    ) =>
        new
        {
            title,
            due,
            phase = (string?)null,
            doneBy = (string?)null,
            plan,
            words,
            isClients,
            edition,
        };

    private static object Plan(string estimate = "", int? importance = null, string list = "", string? workOn = null) =>
        new
        {
            workOn,
            estimate,
            importance,
            effort = (int?)null,
            list,
        };

    private static async Task<JsonElement> TasksAsync(Visitor owner, long project) =>
        (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("tasks");

    private static JsonElement[] Open(JsonElement tasks) => [.. tasks.GetProperty("open").EnumerateArray()];

    private static string Title(JsonElement task) => task.GetProperty("kept").GetProperty("title").GetString()!;

    private static Task<HttpResponseMessage> PutAsync(Visitor owner, string address, object body) =>
        owner.SendAsync(HttpMethod.Put, address, JsonContent.Create(body));

    [Fact]
    public async Task While_a_project_rests_its_tasks_stay_away_from_Today()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("rests"));
        await AddAsync(owner, project, Task("Scrape the gable", "2027-01-25"));
        async Task<bool> IsOnTodayAsync() =>
            (await owner.GetAsync("/api/today")).GetRawText().Contains("Scrape the gable", StringComparison.Ordinal);
        Assert.True(await IsOnTodayAsync());
        // what came in before the rest does not end it
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 1, 25, 10, 31));
        var rests = await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new
            {
                sort = "Rest",
                until = "2027-03-01",
                words = "Winter",
            }
        );
        Assert.True(rests.IsSuccessStatusCode, await rests.Content.ReadAsStringAsync());
        Assert.False(await IsOnTodayAsync());
        var goesOn = await owner.PostAsync($"/api/projects/{project}/happened", new { sort = "GoOn" });
        Assert.True(goesOn.IsSuccessStatusCode, await goesOn.Content.ReadAsStringAsync());
        Assert.True(await IsOnTodayAsync());
    }

    [Fact]
    public async Task A_task_keeps_all_that_is_said_of_it_and_its_due_day_whatever_day_it_is_worked_on()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("all"));
        var id = await AddAsync(
            owner,
            project,
            Task(
                "Order scaffold",
                "2027-02-05",
                Plan("3 h", 3, "Scaffold", "2027-02-01"),
                new
                {
                    description = "Two days, both gables",
                    finished = "the order is confirmed",
                    steps = new[]
                    {
                        new { title = "ring Northgate", done = true },
                        new { title = "pay", done = false },
                    },
                }
            )
        );
        var task = Assert.Single(Open(await TasksAsync(owner, project)));
        Assert.Equal("1 of 2 parts, 3 h, important, worked on Mon 1 Feb", task.GetProperty("about").GetString());
        Assert.Equal("Fri 5 Feb", task.GetProperty("due").GetString());
        var kept = task.GetProperty("kept");
        Assert.Equal("the order is confirmed", kept.GetProperty("words").GetProperty("finished").GetString());
        Assert.Equal("Scaffold", kept.GetProperty("plan").GetProperty("list").GetString());
        // a part is ticked; what is not named stays
        var ticked = await owner.PostAsync($"/api/projects/{project}/tasks/{id}/step", new { step = 1, done = true });
        Assert.Equal(HttpStatusCode.NoContent, ticked.StatusCode);
        await PutAsync(owner, $"/api/projects/{project}/tasks/{id}", Task("Order the scaffold", "2027-02-05"));
        var changed = Assert.Single(Open(await TasksAsync(owner, project)));
        Assert.Equal("2 of 2 parts, 3 h, important, worked on Mon 1 Feb", changed.GetProperty("about").GetString());
    }

    [Fact]
    public async Task Bad_input_names_its_field_and_what_was_changed_elsewhere_is_not_written_over()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("bad"));
        var id = await AddAsync(owner, project, Task("Varnish"));
        var address = $"/api/projects/{project}/tasks/{id}";
        foreach (
            var (body, field) in new (object, string)[]
            {
                (Task(" "), "title"),
                (Task("Varnish", plan: Plan("soon")), "plan.estimate"),
                (Task("Varnish", plan: Plan("1001 h")), "plan.estimate"),
                (Task("Varnish", plan: Plan(importance: 4)), "plan.importance"),
                (Task("Varnish", plan: Plan(list: new string('x', 61))), "plan.list"),
                (
                    Task(
                        "Varnish",
                        words: new
                        {
                            description = new string('x', 4_001),
                            finished = "",
                            steps = Array.Empty<object>(),
                        }
                    ),
                    "words.description"
                ),
                (
                    Task(
                        "Varnish",
                        words: new
                        {
                            description = "",
                            finished = "",
                            steps = new[] { new { title = " ", done = false } },
                        }
                    ),
                    "words.steps"
                ),
            }
        )
        {
            var refused = await PutAsync(owner, address, body);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains($"\"{field}\"", await refused.Content.ReadAsStringAsync());
        }
        var step = await owner.PostAsync($"{address}/step", new { step = 0, done = true });
        Assert.Equal(HttpStatusCode.BadRequest, step.StatusCode);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await PutAsync(owner, address, Task("Varnish all", edition: 0))).StatusCode
        );
        var stale = await PutAsync(owner, address, Task("Varnish none", edition: 0));
        Assert.Equal(HttpStatusCode.Conflict, stale.StatusCode);
        Assert.Contains("Varnish all", await stale.Content.ReadAsStringAsync());
        Assert.Equal("Varnish all", Title(Assert.Single(Open(await TasksAsync(owner, project)))));
    }

    [Fact] // common practice: 2 of 5 tasks done, one more added: 40 %, then 33 %
    public async Task Progress_is_told_and_the_order_is_offered_beside_the_due_day()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("progress"));
        Assert.Equal(JsonValueKind.Null, (await TasksAsync(owner, project)).GetProperty("progress").ValueKind);
        List<long> ids = [];
        for (var i = 0; i < 5; i++)
            ids.Add(await AddAsync(owner, project, Task($"Wall {i}", $"2027-03-0{i + 1}")));
        foreach (var id in ids.Take(2))
            await owner.PostAsync($"/api/projects/{project}/tasks/{id}/done", new { done = true });
        Assert.Equal("2 of 5 done, 40 %", (await TasksAsync(owner, project)).GetProperty("progress").GetString());
        await AddAsync(owner, project, Task("Ring the council", plan: Plan(importance: 3)));
        var tasks = await TasksAsync(owner, project);
        Assert.Equal("2 of 6 done, 33 %", tasks.GetProperty("progress").GetString());
        Assert.Equal(["Wall 2", "Wall 3", "Wall 4", "Ring the council"], Open(tasks).Select(Title));
        Assert.Equal(
            ["Ring the council", "Wall 2", "Wall 3", "Wall 4"],
            Open(tasks).OrderBy(task => task.GetProperty("offered").GetInt32()).Select(Title)
        );
    }

    [Fact]
    public async Task Lists_are_laid_together_in_their_order_with_the_days_that_were_shown_before()
    {
        var (owner, project) = (await studio.OwnerAsync(), await BeginAsync("lists"));
        async Task<string> ListAsync(string name, params object[] items)
        {
            var made = await owner.PostAsync(
                "/api/task-lists",
                new
                {
                    name,
                    edition = 0,
                    items,
                }
            );
            Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
            return (await made.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
                .GetProperty("key")
                .GetString()!;
        }
        object Item(string title, int count, object? more = null) =>
            new
            {
                title,
                count,
                unit = "Days",
                phase = (string?)null,
                doneBy = (string?)null,
                more,
            };
        var paint = await ListAsync("Paint", Item("Buy the primer", -10), Item("Prime", -9), Item("Second coat", -8));
        var paper = await ListAsync(
            "Paperwork",
            Item(
                "Ask the council",
                -30,
                new
                {
                    estimate = "45 min",
                    importance = 3,
                    effort = (int?)null,
                    description = "the form on their page",
                    finished = "the stamp is there",
                    steps = new[] { "fill in", "post" },
                    isClients = false,
                }
            ),
            Item(
                "Sign the council's form",
                -20,
                new
                {
                    estimate = "",
                    importance = (int?)null,
                    effort = (int?)null,
                    description = "",
                    finished = "",
                    steps = Array.Empty<string>(),
                    isClients = true,
                }
            )
        );
        var main = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("head")
            .GetProperty("date")
            .GetProperty("day")
            .GetString()!;
        var before = (await owner.GetAsync($"/api/projects/{project}/task-lists"))
            .EnumerateArray()
            .First(list => list.GetProperty("key").GetString() == paint)
            .GetProperty("tasks")[0];
        Assert.Equal(
            "10 days before the opening day",
            before.GetProperty("counted").GetString()!.Replace("before opening", "before the opening")
        );
        var laid = await owner.PostAsync(
            $"/api/projects/{project}/task-lists",
            new
            {
                lists = new object[]
                {
                    new { list = paper, leave = Array.Empty<int>() },
                    new { list = paint, leave = new[] { 1 } },
                },
            }
        );
        Assert.True(laid.IsSuccessStatusCode, await laid.Content.ReadAsStringAsync());
        var open = Open(await TasksAsync(owner, project)).OrderBy(task => task.GetProperty("id").GetInt64()).ToList();
        Assert.Equal(
            ["Ask the council", "Sign the council's form", "Buy the primer", "Second coat"],
            open.Select(Title)
        );
        Assert.Equal(
            ["Paperwork", "Paperwork", "Paint", "Paint"],
            open.Select(task => task.GetProperty("kept").GetProperty("plan").GetProperty("list").GetString())
        );
        Assert.Equal(
            [false, true, false, false],
            open.Select(task => task.GetProperty("kept").GetProperty("isClients").GetBoolean())
        );
        Assert.Equal("0 of 2 parts, 45 min, important", open[0].GetProperty("about").GetString());
        var day = NodaTime.Text.LocalDatePattern.Iso.Parse(main).Value.PlusDays(-10);
        Assert.Equal(
            NodaTime.Text.LocalDatePattern.Iso.Format(day),
            open[2].GetProperty("kept").GetProperty("due").GetString()
        );
        var none = await owner.PostAsync($"/api/projects/{project}/task-lists", new { lists = Array.Empty<object>() });
        Assert.Equal(HttpStatusCode.BadRequest, none.StatusCode);
    }

    [Fact]
    public async Task What_is_the_clients_to_do_stands_on_their_page_once_it_is_open_and_they_tick_it()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "theirs@tasks.example");
        await AddAsync(owner, project, Task("Haggle with Northgate over the lift", "2027-02-01"));
        await AddAsync(
            owner,
            project,
            Task(
                "Clear the wall",
                "2027-02-03",
                words: new
                {
                    description = "the bins and the ivy",
                    finished = "",
                    steps = new[] { new { title = "bins", done = false } },
                },
                isClients: true
            )
        );
        var closed = (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("tasks");
        Assert.Equal(JsonValueKind.Null, closed.ValueKind);
        await owner.PostAsync($"/api/projects/{project}/parts", new { part = "Tasks", open = true });
        var answer = await client.GetAsync($"{page}/api");
        Assert.DoesNotContain("Northgate", answer.GetRawText());
        var task = Assert.Single(answer.GetProperty("parts").GetProperty("tasks").EnumerateArray());
        Assert.Equal(
            ("Clear the wall", "due Wed 3 Feb", "the bins and the ivy"),
            (
                task.GetProperty("title").GetString(),
                task.GetProperty("due").GetString(),
                task.GetProperty("description").GetString()
            )
        );
        Assert.Contains("Clear the wall, due Wed 3 Feb", answer.GetProperty("toDo").GetRawText());
        var id = task.GetProperty("id").GetString();
        await client.TokenAsync($"{page}/api");
        var part = await client.PostAsync($"{page}/api/tasks/{id}/step", new { step = 0, done = true });
        Assert.Equal(HttpStatusCode.NoContent, part.StatusCode);
        var done = await client.PostAsync($"{page}/api/tasks/{id}/done", new { done = true });
        Assert.Equal(HttpStatusCode.NoContent, done.StatusCode);
        Assert.Contains("task done by", (await owner.GetAsync($"/api/projects/{project}")).GetRawText());
        // a task of the owner's has no address there, and a closed part no task
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await client.PostAsync($"{page}/api/tasks/1/done", new { done = true })).StatusCode
        );
        await owner.PostAsync($"/api/projects/{project}/parts", new { part = "Tasks", open = false });
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await client.PostAsync($"{page}/api/tasks/{id}/done", new { done = false })).StatusCode
        );
    }

    [Fact]
    public async Task The_day_shows_what_is_the_owners_to_do_by_now_and_never_what_is_the_clients()
    {
        await using var own = new EmptyStudio();
        var owner = await own.OwnerAsync();
        var project = await own.InquireAsync(new Visitor(own), "today@tasks.example");
        await AddAsync(owner, project, Task("Due today", "2027-01-25"));
        await AddAsync(owner, project, Task("Worked on today", "2027-02-05", Plan(workOn: "2027-01-25")));
        await AddAsync(owner, project, Task("Another day", "2027-02-05", Plan(workOn: "2027-01-26")));
        await AddAsync(owner, project, Task("Theirs", "2027-01-25", isClients: true));
        Assert.Equal(
            ["Due today, due today", "Worked on today, due Fri 5 Feb"],
            (await owner.GetAsync("/api/today"))
                .GetProperty("day")
                .GetProperty("tasks")
                .EnumerateArray()
                .Select(task => $"{task.GetProperty("title")}, {task.GetProperty("due")}")
        );
    }
}
