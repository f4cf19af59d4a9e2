using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;

namespace Gesamt.Web.Tests;

public sealed class ImportTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static readonly TimeSpan Poll = TimeSpan.FromMilliseconds(50),
        Longest = TimeSpan.FromMinutes(4);

    internal static async Task<int> BeginAsync(Visitor owner, string table)
    {
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(table))
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
        };
        var answer = await owner.SendAsync(HttpMethod.Post, "/api/imports?name=jobs.csv", content);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement.GetProperty("id").GetInt32();
    }

    internal static async Task<JsonElement> RunAsync(Visitor owner, int id)
    {
        var matching = (await owner.GetAsync($"/api/imports/{id}")).GetProperty("matching");
        Assert.Equal(HttpStatusCode.NoContent, (await owner.PostAsync($"/api/imports/{id}/run", matching)).StatusCode);
        return await EndedAsync(owner, id);
    }

    private static async Task<JsonElement> EndedAsync(Visitor owner, int id)
    {
        using var patience = new CancellationTokenSource(Longest);
        while (true)
        {
            var now = await owner.GetAsync($"/api/imports/{id}");
            if (now.GetProperty("state").GetString() != "Running")
                return now;
            await Task.Delay(Poll, patience.Token);
        }
    }

    [Fact]
    public async Task How_dates_are_written_is_read_from_a_column_that_is_not_matched_yet()
    {
        var owner = await studio.OwnerAsync();
        var id = await BeginAsync(
            owner,
            "Client;E-mail;Premier contact\r\nMona Delarue;mona@table.example;23/02/2026\r\nIda Roe;ida@table.example;03/04/2026\r\n"
        );
        var matching = (await owner.GetAsync($"/api/imports/{id}")).GetProperty("matching");
        Assert.Equal("LeaveOut", matching.GetProperty("columns")[2].GetString());
        Assert.Equal("DayMonthYear", matching.GetProperty("dates").GetString());
    }

    [Fact]
    public async Task A_table_is_read_shown_taken_over_and_taken_back()
    {
        var owner = await studio.OwnerAsync();
        var before = await studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Projects.CountAsync());
        var id = await BeginAsync(
            owner,
            "Client;E-mail;Type;Inquiry received;Event date;Status;Price;Notes\r\nMona Delarue;mona@table.example;Mural;03/02/2026;12/06/2026;done;€ 1.200,50;\"a wall; of bricks\"\r\nNobody;;Mural;;;;;\r\nIda Roe;ida@table.example;Castle;;;;;\r\nTil Crane;til@table.example;Mural;25/03/2026;;lost;;\r\nBea Moss;bea@table.example;mural;;01/05/2027;;;\r\n"
        );
        var read = await owner.GetAsync($"/api/imports/{id}");
        Assert.Equal(
            (";", 5, 2),
            (
                read.GetProperty("separator").GetString(),
                read.GetProperty("total").GetInt32(),
                read.GetProperty("wrongRows").GetInt32()
            )
        );
        // a date in March beyond the twelfth tells days from months; the weekday is shown before anything is kept
        Assert.Equal("DayMonthYear", Assert.Single(read.GetProperty("dateStyles").EnumerateArray()).GetString());
        Assert.Contains("date: Fri 12 Jun 2026", read.GetProperty("preview")[0].ToString());
        var wrong = read.GetProperty("errors").ToString();
        Assert.Contains("no way to reach them", wrong);
        Assert.Contains("Kind: one of", wrong);
        Assert.Equal(before, await studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Projects.CountAsync()));

        var done = await RunAsync(owner, id);
        Assert.Equal(
            ("Done", 3, 2),
            (
                done.GetProperty("state").GetString(),
                done.GetProperty("made").GetInt32(),
                done.GetProperty("errors").GetArrayLength()
            )
        );
        var rows = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Projects.Where(p => p.Client!.Mail!.EndsWith("@table.example"))
                    .OrderBy(p => p.Id)
                    .Select(p => new
                    {
                        p.Client!.Name,
                        p.Standing.Stage,
                        p.Standing.Ended,
                        p.Standing.AgreedMinor,
                        p.Standing.PutAway,
                        p.Standing.OwedMinor,
                    })
                    .ToListAsync()
        );
        Assert.Equal(["Mona Delarue", "Til Crane", "Bea Moss"], rows.Select(r => r.Name));
        Assert.Equal(
            (Gesamt.Core.Stages.Stage.Finished, 120050L, true, 0L),
            (rows[0].Stage, rows[0].AgreedMinor!.Value, rows[0].PutAway, rows[0].OwedMinor)
        );
        Assert.Equal(Gesamt.Core.Facts.EndReason.Lost, rows[1].Ended);
        await studio.TickAsync();
        // nobody of an old table is written to
        Assert.Equal(0, (await owner.GetAsync("/api/post-office?address=table.example")).GetArrayLength());

        // what went on since stays
        var went = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Projects.Where(p => p.Client!.Mail == "bea@table.example").Select(p => p.Id).SingleAsync()
        );
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 1, 25, 10, 45));
        await owner.PostAsync($"/api/projects/{went.Value}/notes", new { text = "She rang." });
        // and so does one that the clock runs for, though nothing is said of it yet
        var worked = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Projects.Where(p => p.Client!.Name == "Til Crane").Select(p => p.Id).SingleAsync()
        );
        await owner.PostAsync(
            "/api/work-clock",
            new
            {
                project = worked.Value,
                task = (long?)null,
                words = "",
            }
        );
        var undone = JsonDocument
            .Parse(await (await owner.PostAsync($"/api/imports/{id}/undo")).Content.ReadAsStringAsync())
            .RootElement;
        Assert.Equal((1, 2), (undone.GetProperty("removed").GetInt32(), undone.GetProperty("kept").GetInt32()));
        Assert.Equal(before + 2, await studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Projects.CountAsync()));
        Assert.Equal(HttpStatusCode.Conflict, (await owner.PostAsync($"/api/imports/{id}/undo")).StatusCode);
    }

    [Fact]
    public async Task Many_rows_come_in_with_their_order_kept()
    {
        var owner = await studio.OwnerAsync();
        var table = new StringBuilder("Name,Mail,Inquired,Status\n");
        for (var i = 0; i < 650; i++)
            table.Append(
                System.Globalization.CultureInfo.InvariantCulture,
                $"Person {i},p{i}@many.example,2026-0{1 + i % 9}-1{i % 9},{(i % 3 == 0 ? "lost" : "open")}\n"
            );
        var done = await RunAsync(owner, await BeginAsync(owner, table.ToString()));
        Assert.Equal(("Done", 650), (done.GetProperty("state").GetString(), done.GetProperty("made").GetInt32()));
        var names = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Projects.Where(p => p.Client!.Mail!.EndsWith("@many.example"))
                    .OrderBy(p => p.Id)
                    .Select(p => p.Client!.Name)
                    .ToListAsync()
        );
        Assert.Equal(Enumerable.Range(0, 650).Select(i => $"Person {i}"), names);
    }

    [Fact]
    public async Task What_stopped_in_the_middle_is_taken_over_to_its_end()
    {
        var owner = await studio.OwnerAsync();
        var id = await BeginAsync(
            owner,
            "Client;E-mail;Project\n"
                + string.Concat(Enumerable.Range(1, 80).Select(n => $"Row {n};row{n}@rest.example;Rest {n}\n"))
        );
        await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db.Database.ExecuteSqlRawAsync(
                    "CREATE TRIGGER Full BEFORE INSERT ON Projects WHEN NEW.Title = 'Rest 70' BEGIN SELECT RAISE(ABORT, 'full'); END"
                )
        );
        var stopped = await RunAsync(owner, id);
        Assert.Equal(
            ("Failed", 50),
            (stopped.GetProperty("state").GetString(), stopped.GetProperty("made").GetInt32())
        );
        Assert.Contains("take over the rest", stopped.GetProperty("problem").GetString());
        await studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Database.ExecuteSqlRawAsync("DROP TRIGGER Full"));
        Assert.True((await owner.PostAsync($"/api/imports/{id}/rest", new { })).IsSuccessStatusCode);
        var done = await EndedAsync(owner, id);
        Assert.Equal(("Done", 80), (done.GetProperty("state").GetString(), done.GetProperty("made").GetInt32()));
        Assert.Null(done.GetProperty("problem").GetString());
        Assert.Equal(
            80,
            await studio.LookAsync(
                (Gesamt.Store.GesamtDb db) => db.Projects.CountAsync(p => p.Title.StartsWith("Rest "))
            )
        );
        Assert.False((await owner.PostAsync($"/api/imports/{id}/rest", new { })).IsSuccessStatusCode);
    }

    [Theory]
    [InlineData("only a heading", "A first row with headings")]
    [InlineData("", "A first row with headings")]
    public async Task A_file_that_is_no_table_is_refused(string text, string said)
    {
        var owner = await studio.OwnerAsync();
        var answer = await owner.SendAsync(
            HttpMethod.Post,
            "/api/imports?name=x.csv",
            new ByteArrayContent(Encoding.UTF8.GetBytes(text))
            {
                Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
            }
        );
        Assert.Contains(said, await answer.Content.ReadAsStringAsync());
        Assert.False(answer.IsSuccessStatusCode);
    }

    [Fact]
    public async Task How_they_came_and_the_campaign_come_in_too()
    {
        var owner = await studio.OwnerAsync();
        var table =
            $"Name,Mail,How they found us,Campaign\nAnna Fair,fair@import.example,a fair,Harbour days\nBert Long,long@import.example,,{new string('x', 300)}\n";
        var done = await RunAsync(owner, await BeginAsync(owner, table));
        Assert.Equal(1, done.GetProperty("made").GetInt32());
        var wrong = Assert.Single(done.GetProperty("errors").EnumerateArray());
        Assert.Contains("Campaign: at most", wrong.GetProperty("wrong")[0].GetString());
        var came = await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Projects.Where(p => p.Client!.Mail == "fair@import.example")
                    .Select(p => new { p.Source, p.Campaign })
                    .SingleAsync()
        );
        Assert.Equal(("a fair", "Harbour days"), (came.Source, came.Campaign));
    }

    [Fact]
    public async Task Two_columns_cannot_be_the_same_thing()
    {
        var owner = await studio.OwnerAsync();
        var id = await BeginAsync(owner, "Name,Mail\nA,a@b.example\n");
        var answer = await owner.PostAsync(
            $"/api/imports/{id}/preview",
            new
            {
                columns = new[] { "Name", "Name" },
                dates = "YearMonthDay",
                numbers = "Point",
                kind = (long?)null,
            }
        );
        Assert.Contains("Each thing stands in one column", await answer.Content.ReadAsStringAsync());
    }
}
