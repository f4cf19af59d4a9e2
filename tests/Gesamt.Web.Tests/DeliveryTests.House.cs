using System.Net;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Store.Backups;

namespace Gesamt.Web.Tests;

/// <summary>Putting away, templates, and a backup that is whole.</summary>
public sealed partial class DeliveryTests
{
    [Fact]
    public async Task A_finished_project_is_put_away_found_and_counted_once()
    {
        // time goes on here, so it has a studio of its own
        await using var later = new EmptyStudio();
        var owner = await later.OwnerAsync();
        var project = await BookedAsync(later, owner, "quicksilver@lanternhouse.example", "2000");
        var refused = await owner.PostAsync($"/api/projects/{project}/away", new { away = true });
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        await DoAsync(owner, project, "happened", new { sort = "HandedOver" });
        await DoAsync(owner, project, "happened", new { sort = "Approved" });
        await later.WaitUntilAsync(Instant.FromUtc(2027, 5, 3, 9, 0)); // 14 days before the opening day
        owner = await later.OwnerAsync();
        var open = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0];
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "Paid",
                amount = open.GetProperty("owed").GetString(),
                means = "Transfer",
                invoice = open.GetProperty("id").GetInt64(),
            }
        );
        foreach (
            var task in (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("sheet")
                .GetProperty("tasks")
                .GetProperty("open")
                .EnumerateArray()
                .ToList()
        )
            await DoAsync(owner, project, $"tasks/{task.GetProperty("id").GetInt64()}/done", new { done = true });
        Assert.Equal(Stage.Finished, (await StandingAsync(later, project)).Stage);
        await DoAsync(owner, project, "away", new { away = true });
        var register = await owner.GetAsync("/api/register?standing=PutAway&columns=Value&columns=Paid");
        Assert.Equal(
            ["€\u00a02\u202f000.00", "€\u00a02\u202f460.00"],
            register.GetProperty("groups")[0].GetProperty("sums").EnumerateArray().Select(sum => sum.GetString())
        );
        Assert.Contains("quicksilver", (await owner.GetAsync("/api/search?words=quicksilver")).GetRawText());
        Assert.DoesNotContain($"\"id\":{project},", (await owner.GetAsync("/api/turns")).GetRawText());
    }

    [Fact]
    public async Task Templates_are_edited_with_their_blanks_checked_and_stale_saves_refused()
    {
        var owner = await studio.OwnerAsync();
        var kind = (await owner.GetAsync("/api/kinds"))
            .EnumerateArray()
            .Single(k => k.GetProperty("name").GetString() == "Upkeep")
            .GetProperty("id")
            .GetInt64();
        async Task<HttpResponseMessage> PutAsync(string path, object body) =>
            await owner.SendAsync(HttpMethod.Put, path, System.Net.Http.Json.JsonContent.Create(body));
        Assert.Contains(
            "fist name",
            await (
                await PutAsync(
                    $"/api/letter-texts/{await owner.LetterAsync("welcome")}",
                    new
                    {
                        name = "Welcome",
                        number = (int?)null,
                        subject = "Hello",
                        body = "Hello [fist name]",
                        edition = 0,
                        files = Array.Empty<object>(),
                    }
                )
            ).Content.ReadAsStringAsync()
        );
        Assert.True(
            (
                await PutAsync(
                    $"/api/letter-texts/{await owner.LetterAsync("before-the-date")}",
                    new
                    {
                        name = "Before",
                        number = 7,
                        subject = "Soon",
                        body = "Hello [first name]",
                        edition = 0,
                        files = Array.Empty<object>(),
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await PutAsync(
                    $"/api/letter-texts/{await owner.LetterAsync("before-the-date")}",
                    new
                    {
                        name = "Before",
                        number = 7,
                        subject = "Soon",
                        body = "Mine",
                        edition = 0,
                        files = Array.Empty<object>(),
                    }
                )
            ).StatusCode
        );
        var page = await owner.GetAsync($"/api/kinds/{kind}");
        var wrong = await PutAsync(
            $"/api/kinds/{kind}/services",
            new
            {
                edition = page.GetProperty("edition").GetInt32(),
                services = new[]
                {
                    new
                    {
                        id = 0,
                        title = "",
                        detail = "",
                        unit = "",
                        unitPrice = "x",
                        tax = "300",
                    },
                },
            }
        );
        Assert.Equal(
            ["services[0].tax", "services[0].title", "services[0].unitPrice"],
            JsonDocument
                .Parse(await wrong.Content.ReadAsStringAsync())
                .RootElement.GetProperty("errors")
                .EnumerateObject()
                .Select(e => e.Name)
                .Order()
        );
        var id = page.GetProperty("routines")
            .EnumerateArray()
            .Single(r => r.GetProperty("name").GetString() == "After an inquiry")
            .GetProperty("id")
            .GetInt32();
        var routine = System.Text.Json.Nodes.JsonNode.Parse(
            (await owner.GetAsync($"/api/routines/{id}")).GetProperty("routine").GetRawText()
        )!;
        routine["steps"]![3]!["count"] = -3;
        var back = await PutAsync($"/api/routines/{id}", new { edition = 0, routine });
        Assert.Contains("steps[3].count", await back.Content.ReadAsStringAsync());
        routine["steps"]![3]!["count"] = 12;
        Assert.True((await PutAsync($"/api/routines/{id}", new { edition = 0, routine })).IsSuccessStatusCode);
        Assert.Contains(
            "when: 12 days after the step before",
            (await owner.GetAsync($"/api/routines/{id}")).GetProperty("text").GetString()
        );
    }

    [Fact]
    public async Task A_backup_taken_while_writes_go_on_is_whole_and_restores()
    {
        await using var busy = new EmptyStudio();
        var owner = await busy.OwnerAsync();
        var project = await busy.InquireAsync(new Visitor(busy), "backup@lanternhouse.example");
        await KeepAsync(owner, project, "Supplied");
        using var stop = new CancellationTokenSource();
        var writing = Task.Run(async () =>
        {
            for (var i = 0; !stop.IsCancellationRequested; i++)
                await DoAsync(owner, project, "notes", new { text = $"note {i}" });
        });
        while (await busy.LookAsync(db => db.Notes.CountAsync()) < 5)
            await Task.Yield();
        var folder = Directory.CreateTempSubdirectory("gesamt-restored").FullName;
        try
        {
            var archive = await Backup.WriteAsync(
                busy.Data,
                folder,
                new DateTimeOffset(2027, 1, 25, 10, 30, 0, TimeSpan.Zero)
            );
            await stop.CancelAsync();
            await writing;
            var restored = Path.Combine(folder, "studio");
            await Backup.RestoreAsync(archive, restored);
            await using var again = new OnFolder(restored);
            var found = await (await again.OwnerAsync()).GetAsync($"/api/projects/{project}");
            Assert.Equal(
                "sketch.png",
                found.GetProperty("sheet").GetProperty("work").GetProperty("files")[0].GetProperty("name").GetString()
            );
            Assert.Equal(
                Picture,
                await (await (await again.OwnerAsync()).AskAsync("/api/files/1")).Content.ReadAsByteArrayAsync()
            );
            Assert.InRange(
                await again.LookAsync(db => db.Notes.CountAsync()),
                5,
                await busy.LookAsync(db => db.Notes.CountAsync())
            );
            await Assert.ThrowsAsync<IOException>(() => Backup.RestoreAsync(archive, restored)); // never over something
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }
}
