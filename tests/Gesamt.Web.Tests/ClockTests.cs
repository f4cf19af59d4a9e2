using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>The one clock: what it ran becomes hours by local day.</summary>
public sealed class ClockTests
{
    private static async Task<JsonElement> DoAsync(Visitor owner, string what, object? body = null)
    {
        var answer = await owner.PostAsync($"/api/work-clock{what}", body);
        Assert.True(answer.IsSuccessStatusCode, $"{what}: {await answer.Content.ReadAsStringAsync()}");
        return await answer.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken);
    }

    private static Task<JsonElement> StartAsync(Visitor owner, long project, long? task = null) =>
        DoAsync(
            owner,
            "",
            new
            {
                project,
                task,
                words = "",
            }
        );

    private static async Task LaterAsync(Studio studio, Duration by) =>
        await studio.WaitUntilAsync(await studio.LookAsync((Desk desk) => Task.FromResult(desk.Now)) + by);

    private static async Task<(string Day, string Time)[]> HoursAsync(Visitor owner, long project) =>
        [
            .. (await owner.GetAsync($"/api/projects/{project}/spent"))
                .GetProperty("hours")
                .EnumerateArray()
                .Select(one => (one.GetProperty("on").GetString()!, one.GetProperty("time").GetString()!)),
        ];

    [Fact]
    public async Task Starting_it_for_another_stops_it_and_over_midnight_it_counts_by_day()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        var first = await studio.InquireAsync(new Visitor(studio), "first@clock.example");
        var second = await studio.InquireAsync(new Visitor(studio), "second@clock.example");
        await StartAsync(owner, first);
        await LaterAsync(studio, Duration.FromMinutes(75));
        // once more for the same is the same
        Assert.Equal("", (await StartAsync(owner, first)).GetProperty("kept").GetString());
        var over = await StartAsync(owner, second);
        Assert.StartsWith("Kept: 1 h 15 min for ", over.GetProperty("kept").GetString());
        Assert.Equal(second, over.GetProperty("clock").GetProperty("runs").GetProperty("project").GetInt64());
        Assert.Equal([("2027-01-25", "1 h 15 min")], await HoursAsync(owner, first));
        // it is a quarter to twelve by now: the rest is the next day's
        await LaterAsync(studio, Duration.FromHours(11.25));
        await DoAsync(owner, "/stop");
        await StartAsync(owner, second);
        await LaterAsync(studio, Duration.FromHours(2));
        await DoAsync(owner, "/stop");
        Assert.Equal(
            [("2027-01-26", "1 h"), ("2027-01-25", "1 h"), ("2027-01-25", "11 h 15 min")],
            (await HoursAsync(owner, second))
        );
        Assert.Equal(HttpStatusCode.Conflict, (await owner.PostAsync("/api/work-clock/stop")).StatusCode);
    }

    [Fact]
    public async Task What_ran_for_more_than_twelve_hours_is_asked_about_and_kept_as_it_is_answered()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "long@clock.example");
        await StartAsync(owner, project);
        await LaterAsync(studio, Duration.FromHours(20));
        owner = await studio.OwnerAsync();
        var stopped = await DoAsync(owner, "/stop");
        Assert.Empty(await HoursAsync(owner, project));
        var asked = Assert.Single(stopped.GetProperty("clock").GetProperty("asked").EnumerateArray());
        Assert.Equal("20 h, from Mon 25 Jan, 10:30, to Tue 26 Jan, 06:30", asked.GetProperty("ran").GetString());
        var id = asked.GetProperty("id").GetInt32();
        var wrong = await owner.PostAsync($"/api/work-clock/{id}/answer", new { time = "long", drop = false });
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        await DoAsync(owner, $"/{id}/answer", new { time = "6:30", drop = false });
        Assert.Equal([("2027-01-25", "6 h 30 min")], await HoursAsync(owner, project));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await owner.PostAsync($"/api/work-clock/{id}/answer", new { time = "1", drop = false })).StatusCode
        );
    }

    [Fact]
    public async Task Hours_go_into_a_task_and_figures_by_the_hour_are_there_only_where_hours_are()
    {
        await using var studio = new EmptyStudio();
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "hour@clock.example");
        await studio.SignedAsync(client, page);
        async Task<string> RecordAsync() =>
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetRawText();
        async Task<string[]> ColumnsAsync() =>
            [
                .. (await owner.GetAsync("/api/register"))
                    .GetProperty("offered")
                    .EnumerateArray()
                    .Select(column => column.GetProperty("column").GetString()!),
            ];
        Assert.DoesNotContain("an hour", await RecordAsync());
        Assert.DoesNotContain("AnHour", await ColumnsAsync());
        var made = await owner.PostAsync(
            $"/api/projects/{project}/tasks",
            new
            {
                title = "Prime",
                due = (string?)null,
                phase = (string?)null,
                plan = new
                {
                    workOn = (string?)null,
                    estimate = "10 h",
                    importance = (int?)null,
                    effort = (int?)null,
                    list = "",
                },
            }
        );
        var task = (await made.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt64();
        await StartAsync(owner, project, task);
        await LaterAsync(studio, Duration.FromHours(4));
        await DoAsync(owner, "/stop");
        var spent = await owner.GetAsync($"/api/projects/{project}/spent");
        Assert.Equal("Prime", spent.GetProperty("hours")[0].GetProperty("task").GetProperty("title").GetString());
        // 5 400.00 net over 4 hours, and over the 10 that the task is thought to take
        Assert.Equal(
            ("€ 1 350.00", "€ 540.00"),
            (
                Plain(spent.GetProperty("earns").GetProperty("soFar")),
                Plain(spent.GetProperty("earns").GetProperty("forecast"))
            )
        );
        Assert.Contains("an hour", await RecordAsync());
        Assert.Contains("AnHour", await ColumnsAsync());
        var register = await owner.GetAsync("/api/register?columns=Worked&columns=AnHour");
        Assert.Contains(
            "4 h,€ 1 350.00",
            string.Join(
                '\n',
                register
                    .GetProperty("groups")
                    .EnumerateArray()
                    .SelectMany(group => group.GetProperty("rows").EnumerateArray())
                    .Select(row => string.Join(',', row.GetProperty("cells").EnumerateArray().Select(Plain)))
            )
        );
        // switched off, no figure by the hour appears anywhere
        await StartAsync(owner, project);
        var running = await Assert.ThrowsAnyAsync<Exception>(() =>
            owner.ChangeStudioAsync(now => now["habits"]!["hoursOff"] = true)
        );
        Assert.Contains("habits.hoursOff", running.Message);
        await DoAsync(owner, "/stop");
        await owner.ChangeStudioAsync(now => now["habits"]!["hoursOff"] = true);
        Assert.DoesNotContain("an hour", await RecordAsync());
        Assert.DoesNotContain("AnHour", await ColumnsAsync());
        Assert.Equal(
            JsonValueKind.Null,
            (await owner.GetAsync($"/api/projects/{project}/spent")).GetProperty("earns").ValueKind
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    "/api/work-clock",
                    new
                    {
                        project,
                        task = (long?)null,
                        words = "",
                    }
                )
            ).StatusCode
        );
    }

    private static string Plain(JsonElement text) => text.GetString()!.Replace('\u202F', ' ').Replace('\u00A0', ' ');
}
