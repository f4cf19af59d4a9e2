using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>A studio is set up on its first page, in the browser: whole or not at all, by one person, and by nobody who merely found the address.</summary>
[System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
public sealed class FirstHourTests
{
    private static readonly Dictionary<string, string> Mara = new()
    {
        ["studio"] = "Inkwell & Daughter",
        ["name"] = "Mara Quince",
        ["mail"] = "mara@inkwell.example",
        ["password"] = "paper boats at noon",
        ["zone"] = "Europe/Berlin",
        ["code"] = "",
    };

    private static HttpClient ClientOf(Server server) =>
        new(new HttpClientHandler { CookieContainer = new() }) { BaseAddress = server.Address };

    private static Task<HttpResponseMessage> SetUpAsync(
        HttpClient client,
        params (string Field, string Value)[] instead
    )
    {
        var said = new Dictionary<string, string>(Mara);
        foreach (var (field, value) in instead)
            said[field] = value;
        return client.PostAsJsonAsync("/api/set-up", said);
    }

    private static async Task<JsonElement> SessionAsync(HttpClient client) =>
        await client.GetFromJsonAsync<JsonElement>("/api/session");

    private static bool IsEmpty(JsonElement session) => session.GetProperty("empty").ValueKind == JsonValueKind.Object;

    /// <summary>Waits until the studio stands behind its first page.</summary>
    private static async Task<JsonElement> StandsAsync(HttpClient client)
    {
        using var patience = new CancellationTokenSource(Server.Longest);
        while (true)
        {
            try
            {
                var session = await SessionAsync(client);
                if (!IsEmpty(session))
                    return session;
            }
            catch (HttpRequestException)
            {
                // the first page has gone, and the studio is not there yet
            }
            await Task.Delay(TimeSpan.FromMilliseconds(20), patience.Token);
        }
    }

    private static async Task SignInAsync(HttpClient client, JsonElement session, string password)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/session")
        {
            Content = JsonContent.Create(new { password }),
        };
        request.Headers.Add(Writes.TokenHeader, session.GetProperty("token").GetString());
        request.Headers.Add(Writes.KeyHeader, Guid.NewGuid().ToString("n"));
        Assert.Equal(HttpStatusCode.NoContent, (await client.SendAsync(request)).StatusCode);
    }

    [Theory]
    [InlineData("studio", ""), InlineData("name", " "), InlineData("mail", "mara at inkwell")]
    [InlineData("password", "short"), InlineData("password", "password12"), InlineData("password", "mara quince")]
    public async Task What_is_not_allowed_is_named_by_its_field_and_nothing_is_made(string field, string value)
    {
        using var data = new Folder();
        using var server = Server.StartUnowned(data.Path);
        Assert.True(await server.AnswersAsync());
        using var client = ClientOf(server);
        var refused = await SetUpAsync(client, (field, value));
        Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        var errors = (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors");
        Assert.Equal([field], errors.EnumerateObject().Select(error => error.Name));
        Assert.True(IsEmpty(await SessionAsync(client)));
        Assert.Empty(Directory.EnumerateFileSystemEntries(data.Path));
    }

    [Fact]
    public async Task The_first_page_sets_the_studio_up_and_gives_way_to_it()
    {
        using var data = new Folder();
        using var server = Server.StartUnowned(data.Path);
        Assert.True(await server.AnswersAsync());
        using var client = ClientOf(server);
        // everything else says so kindly, and nothing opens
        Assert.Equal(HttpStatusCode.NotFound, (await client.GetAsync("/api/today")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await SetUpAsync(client)).StatusCode);
        var session = await StandsAsync(client);
        Assert.Equal("Inkwell & Daughter", session.GetProperty("studio").GetString());
        await SignInAsync(client, session, "paper boats at noon");
        var today = await client.GetFromJsonAsync<JsonElement>("/api/today");
        Assert.Equal(
            ["Choose"],
            today.GetProperty("firstSteps").EnumerateArray().Select(s => s.GetProperty("step").GetString())
        );
        Assert.Equal(["Europe/Berlin"], Server.Read(data.Path, "gesamt.db", "SELECT Zone FROM Studio"));
        Assert.Equal(HttpStatusCode.NotFound, (await SetUpAsync(client)).StatusCode);
    }

    [Fact]
    public async Task Of_several_who_set_it_up_at_once_one_owns_it()
    {
        using var data = new Folder();
        using var server = Server.StartUnowned(data.Path, ("Gesamt__SignInsPerMinute", "1000"));
        Assert.True(await server.AnswersAsync());
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(async number =>
                {
                    using var client = ClientOf(server);
                    try
                    {
                        return (number, (await SetUpAsync(client, ("name", $"Mara {number}"))).StatusCode);
                    }
                    catch (HttpRequestException)
                    {
                        return (number, HttpStatusCode.ServiceUnavailable); // the first page had gone
                    }
                })
        );
        var (first, _) = Assert.Single(answers, answer => answer.Item2 == HttpStatusCode.NoContent);
        using var owner = ClientOf(server);
        await StandsAsync(owner);
        Assert.Equal([$"Mara {first}"], Server.Read(data.Path, "gesamt.db", "SELECT Owner FROM Studio"));
    }

    [Fact] // the address may be open to the world before it has an owner
    public async Task Whoever_does_not_sit_at_the_machine_says_the_code_it_said()
    {
        using var data = new Folder();
        string[] asked = [];
        using (var server = Server.StartUnowned(data.Path))
        {
            Assert.True(await server.AnswersAsync());
            using var stranger = ClientOf(server);
            stranger.DefaultRequestHeaders.Add("X-Forwarded-For", "203.0.113.9"); // RFC 5737
            Assert.True((await SessionAsync(stranger)).GetProperty("empty").GetProperty("needsCode").GetBoolean());
            foreach (var code in new[] { "", "abcdefghjk" })
            {
                var refused = await SetUpAsync(stranger, ("code", code));
                Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
                Assert.Contains("\"code\"", await refused.Content.ReadAsStringAsync());
            }
            using var content = new ByteArrayContent([1, 2, 3]);
            content.Headers.ContentType = new("application/octet-stream");
            Assert.Contains(
                "\"code\"",
                await (await stranger.PostAsync("/api/set-up/restore?code=x", content)).Content.ReadAsStringAsync()
            );
            Assert.Empty(Directory.EnumerateFileSystemEntries(data.Path));
            server.Process.Kill();
            asked = (await server.Said).Split("this code: ");
        }
        Assert.Matches("^[a-z0-9]{10}\\s", asked[1]);
    }

    [Fact] // at whatever moment it is killed, the next start has a whole studio or asks again
    public async Task A_kill_while_it_is_set_up_leaves_nothing_half_made()
    {
        using var data = new Folder();
        var random = new Random(4711);
        var owned = false;
        for (var kill = 0; kill < 4 && !owned; kill++)
        {
            using var dying = Server.StartUnowned(data.Path);
            Assert.True(await dying.AnswersAsync());
            using var client = ClientOf(dying);
            var under = SetUpAsync(client);
            await Task.Delay(random.Next(20, 900), TestContext.Current.CancellationToken);
            dying.Process.Kill();
            await dying.Process.WaitForExitAsync(TestContext.Current.CancellationToken);
            try
            {
                await under;
            }
            catch (HttpRequestException)
            {
                // it was killed before it answered
            }
            owned =
                File.Exists(data.Of("gesamt.db"))
                && Server.Read(data.Path, "gesamt.db", "SELECT Owner FROM Studio") is ["Mara Quince"];
        }
        using var whole = Server.StartUnowned(data.Path);
        Assert.True(await whole.AnswersAsync());
        using var last = ClientOf(whole);
        Assert.Equal(owned, !IsEmpty(await SessionAsync(last)));
        if (!owned)
            Assert.Equal(HttpStatusCode.NoContent, (await SetUpAsync(last)).StatusCode);
        await SignInAsync(last, await StandsAsync(last), "paper boats at noon");
        Assert.False(Directory.Exists(data.Of("setting-up")));
    }

    [Fact]
    public async Task A_backup_made_in_the_pages_brings_the_studio_back_in_an_empty_house()
    {
        using var data = new Folder();
        byte[] backup;
        using (var server = Server.StartReal(data.Path))
        {
            Assert.True(await server.AnswersAsync());
            using var owner = ClientOf(server);
            await SignInAsync(owner, await SessionAsync(owner), "harbour light");
            using var make = new HttpRequestMessage(HttpMethod.Post, "/api/backups");
            make.Headers.Add(Writes.TokenHeader, (await SessionAsync(owner)).GetProperty("token").GetString());
            make.Headers.Add(Writes.KeyHeader, Guid.NewGuid().ToString("n"));
            var answer = await owner.SendAsync(make);
            Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
            var made = await answer.Content.ReadFromJsonAsync<JsonElement>();
            var name = made.GetProperty("kept")[0].GetProperty("name").GetString();
            backup = await owner.GetByteArrayAsync($"/api/backups/{name}");
            Assert.Equal(HttpStatusCode.NotFound, (await owner.GetAsync("/api/backups/..%2Fgesamt.db")).StatusCode);
            using var stranger = ClientOf(server);
            Assert.Equal(HttpStatusCode.Unauthorized, (await stranger.GetAsync($"/api/backups/{name}")).StatusCode);
        }
        using var empty = new Folder();
        using var next = Server.StartUnowned(empty.Path);
        Assert.True(await next.AnswersAsync());
        using var client = ClientOf(next);
        async Task<HttpResponseMessage> RestoreAsync(byte[] bytes)
        {
            using var content = new ByteArrayContent(bytes);
            content.Headers.ContentType = new("application/octet-stream");
            return await client.PostAsync("/api/set-up/restore", content);
        }
        foreach (var broken in new[] { [], [1, 2, 3], backup[..(backup.Length / 2)] })
        {
            var refused = await RestoreAsync(broken);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.Contains("\"file\"", await refused.Content.ReadAsStringAsync());
            Assert.Empty(Directory.EnumerateFileSystemEntries(empty.Path));
        }
        Assert.Equal(HttpStatusCode.OK, (await RestoreAsync(backup)).StatusCode);
        var session = await StandsAsync(client);
        Assert.Equal("Ida paints", session.GetProperty("studio").GetString());
        await SignInAsync(client, session, "harbour light");
    }

    [Fact]
    public async Task An_archive_made_in_the_pages_is_taken_in_by_an_empty_house_under_a_new_password()
    {
        using var data = new Folder();
        byte[] archive;
        using (var server = Server.StartReal(data.Path))
        {
            Assert.True(await server.AnswersAsync());
            using var owner = ClientOf(server);
            await SignInAsync(owner, await SessionAsync(owner), "harbour light");
            var token = (await SessionAsync(owner)).GetProperty("token").GetString();
            async Task<JsonElement> MakeAsync()
            {
                using var make = new HttpRequestMessage(HttpMethod.Post, "/api/archive")
                {
                    Content = JsonContent.Create(new { withLinks = false }),
                };
                make.Headers.Add(Writes.TokenHeader, token);
                make.Headers.Add(Writes.KeyHeader, Guid.NewGuid().ToString("n"));
                var answer = await owner.SendAsync(make);
                Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
                return await answer.Content.ReadFromJsonAsync<JsonElement>();
            }
            // a second press while it is made begins no second one
            await MakeAsync();
            var state = await MakeAsync();
            while (state.GetProperty("running").ValueKind != JsonValueKind.Null)
            {
                await Task.Delay(50, TestContext.Current.CancellationToken);
                state = await owner.GetFromJsonAsync<JsonElement>("/api/archive");
            }
            Assert.Equal("", state.GetProperty("problem").GetString());
            archive = await owner.GetByteArrayAsync(
                $"/api/archive/{state.GetProperty("kept").GetProperty("name").GetString()}"
            );
            Assert.Equal(HttpStatusCode.NotFound, (await owner.GetAsync("/api/archive/..%2Fgesamt.db")).StatusCode);
            Assert.Single(Directory.GetFiles(data.Of("archives")));
        }
        using var empty = new Folder();
        using var next = Server.StartUnowned(empty.Path);
        Assert.True(await next.AnswersAsync());
        using var client = ClientOf(next);
        async Task<HttpResponseMessage> TakeInAsync(string password) =>
            await client.PostAsJsonAsync("/api/set-up/archive", new { password, code = "" });
        Assert.Contains(
            "none has been read yet",
            await (await TakeInAsync("paper boats at noon")).Content.ReadAsStringAsync()
        );
        using var content = new ByteArrayContent(archive);
        content.Headers.ContentType = new("application/octet-stream");
        var found = await (
            await client.PostAsync("/api/set-up/restore", content)
        ).Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal("Ida paints", found.GetProperty("archive").GetProperty("studio").GetString());
        Assert.False(found.GetProperty("archive").GetProperty("opensLinks").GetBoolean());
        Assert.Empty(Directory.EnumerateFileSystemEntries(empty.Path));
        var weak = await TakeInAsync("ida paints");
        Assert.Equal(HttpStatusCode.BadRequest, weak.StatusCode);
        Assert.Contains("\"password\"", await weak.Content.ReadAsStringAsync());
        Assert.Equal(HttpStatusCode.NoContent, (await TakeInAsync("paper boats at noon")).StatusCode);
        var session = await StandsAsync(client);
        Assert.Equal("Ida paints", session.GetProperty("studio").GetString());
        await SignInAsync(client, session, "paper boats at noon");
    }
}
