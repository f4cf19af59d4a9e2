using System.Net;
using System.Net.Http.Json;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>The owner's own words on the line: written otherwise, taken out, put back.</summary>
public sealed class NoteTests(NoteTests.Own studio) : IClassFixture<NoteTests.Own>
{
    public sealed class Own() : Studio(withProjects: false, Laid.Copy(withProjects: false));

    [Fact]
    public async Task What_was_said_elsewhere_stands_at_its_day_and_time_and_never_ahead()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "chat@lanternhouse.example");
        Task<HttpResponseMessage> SayAsync(string? on, string? at) =>
            owner.PostAsync(
                $"/api/projects/{project}/happened",
                new
                {
                    sort = "Call",
                    words = "By chat: the wall is dry",
                    on,
                    at,
                }
            );
        Assert.Equal(HttpStatusCode.NoContent, (await SayAsync("2027-01-24", "19:05:00")).StatusCode);
        var entry = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("line")
            .GetProperty("past")
            .EnumerateArray()
            .Single(one => one.GetRawText().Contains("the wall is dry", StringComparison.Ordinal))
            .GetRawText();
        Assert.Contains("Sun 24 Jan", entry);
        Assert.Contains("19:05", entry);
        var ahead = await SayAsync(null, "23:30:00");
        Assert.Equal(HttpStatusCode.BadRequest, ahead.StatusCode);
        Assert.Contains("Nothing can have happened later than now.", await ahead.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_note_is_written_otherwise_taken_out_and_put_back_where_it_stood()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "note@lanternhouse.example");
        await owner.PostAsync($"/api/projects/{project}/notes", new { text = "Ring on Munday" });
        await owner.PostAsync($"/api/projects/{project}/notes", new { text = "They have a ladder" });
        var note = await studio.LookAsync(db =>
            db.Notes.Where(n => n.Text == "Ring on Munday").Select(n => n.Id.Value).SingleAsync()
        );
        async Task<HttpStatusCode> ChangeAsync(long id, string text) =>
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/projects/{project}/notes/{id}",
                    JsonContent.Create(new { text })
                )
            ).StatusCode;
        async Task<HttpStatusCode> RemoveAsync(long id, bool removed) =>
            (await owner.PostAsync($"/api/projects/{project}/notes/{id}/removed", new { removed })).StatusCode;
        async Task<string> LineAsync() =>
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("line").GetProperty("past").GetRawText();

        Assert.Equal(HttpStatusCode.BadRequest, await ChangeAsync(note, " "));
        Assert.Equal(HttpStatusCode.NoContent, await ChangeAsync(note, "Ring on Monday"));
        var before = await LineAsync();
        Assert.Contains("Ring on Monday", before);
        Assert.DoesNotContain("Munday", before);
        Assert.Contains(
            "Note",
            (await owner.GetAsync("/api/search?words=monday"))
                .EnumerateArray()
                .Select(hit => hit.GetProperty("sort").GetString())
        );

        Assert.Equal(HttpStatusCode.NoContent, await RemoveAsync(note, true));
        Assert.DoesNotContain("Ring on Monday", await LineAsync());
        Assert.DoesNotContain("Ring on", (await owner.GetAsync("/api/search?words=monday")).GetRawText());
        Assert.Equal(HttpStatusCode.NoContent, await RemoveAsync(note, true));
        Assert.Equal(HttpStatusCode.NoContent, await RemoveAsync(note, false));
        Assert.Equal(before, await LineAsync());
        Assert.Equal(HttpStatusCode.NotFound, await ChangeAsync(note + 1000, "Nobody"));
    }

    [Fact]
    public async Task A_clients_own_words_stay_as_they_were_said()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "words@lanternhouse.example");
        var words = await studio.LookAsync(async db =>
        {
            var row = new NoteRow
            {
                ProjectId = new(project),
                Sort = NoteSort.Words,
                Text = "Bluer.",
            };
            db.Notes.Add(row);
            await db.SaveChangesAsync();
            return row.Id.Value;
        });
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/projects/{project}/notes/{words}",
                    JsonContent.Create(new { text = "Greener." })
                )
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/projects/{project}/notes/{words}/removed", new { removed = true })).StatusCode
        );
    }
}
