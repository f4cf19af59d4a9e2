using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Gesamt.Formats.Mail;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Upkeep;

namespace Gesamt.Web.Tests;

/// <summary>A studio put together from elsewhere: a table with the letters and files of its projects.</summary>
public sealed class BesideTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static readonly byte[] Pdf = Encoding.ASCII.GetBytes("%PDF-1.4\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF\n");

    private static async Task<HttpResponseMessage> SendAsync(
        Visitor owner,
        int id,
        string path,
        byte[] content,
        bool letters = false
    ) =>
        await owner.SendAsync(
            HttpMethod.Post,
            $"/api/imports/{id}/beside?path={Uri.EscapeDataString(path)}&letters={letters}",
            new ByteArrayContent(content)
            {
                Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
            }
        );

    private static async Task<(int Letters, int Files, int Known, int Unread)> HandInAsync(
        Visitor owner,
        int id,
        string path,
        byte[] content
    )
    {
        var answer = await SendAsync(owner, id, path, content);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        var one = JsonDocument.Parse(text).RootElement;
        int Of(string name) => one.GetProperty(name).GetInt32();
        return (Of("letters"), Of("files"), Of("known"), Of("unread"));
    }

    private static StoredMessage Letter(string from, string to, string subject, string day, string words = "Words.") =>
        new(
            from,
            NodaTime.Text.InstantPattern.General.Parse($"{day}T09:00:00Z").Value,
            Encoding.UTF8.GetBytes(
                $"From: {from}\r\nTo: {to}\r\nSubject: {subject}\r\nDate: {DateTime.Parse(day, System.Globalization.CultureInfo.InvariantCulture):ddd, d MMM yyyy} 09:00:00 +0000\r\nMessage-ID: <{subject.GetHashCode(StringComparison.Ordinal)}.{day}@beside.example>\r\n\r\n{words}\r\n"
            )
        );

    private async Task<JsonElement> PlacesAsync(Visitor owner, int id) =>
        (await owner.GetAsync($"/api/imports/{id}")).GetProperty("beside");

    private static string Said(JsonElement place) =>
        $"{place.GetProperty("place").GetString()} {place.GetProperty("count")} {place.GetProperty("row")} {place.GetProperty("by")} {place.GetProperty("inDoubt")}";

    [Fact] // everywhere else in the tests the clock stands
    public async Task What_was_taken_over_while_time_went_on_is_taken_back_whole()
    {
        await using var running = new EmptyStudio();
        var owner = await running.OwnerAsync();
        running.LetTimeGoOn();
        var id = await ImportTests.BeginAsync(
            owner,
            """
            Number,Name,Mail,Project,Inquired,Status
            0017,Mona Delarue,mona@beside.example,Harbour mural,2026-02-03,done
            0018,Til Crane,til@beside.example,Lantern House,2026-03-25,done
            """
        );
        await HandInAsync(owner, id, "a.mbox", Mbox.Write([Letter("til@beside.example", "", "A wall", "2026-04-04")]));
        await HandInAsync(owner, id, "Jobs/0017/plan.pdf", Pdf);
        Assert.Equal("Done", (await ImportTests.RunAsync(owner, id)).GetProperty("state").GetString());
        Assert.Equal(
            (1, 1),
            await running.LookAsync(async (GesamtDb db) => (await db.Files.CountAsync(), await db.Letters.CountAsync()))
        );
        var undone = JsonDocument
            .Parse(await (await owner.PostAsync($"/api/imports/{id}/undo")).Content.ReadAsStringAsync())
            .RootElement;
        Assert.Equal((2, 0), (undone.GetProperty("removed").GetInt32(), undone.GetProperty("kept").GetInt32()));
    }

    [Fact]
    public async Task Letters_and_files_go_to_their_rows_and_are_taken_back_with_them()
    {
        var owner = await studio.OwnerAsync();
        var own = await studio.LookAsync((GesamtDb db) => db.Studio.Select(s => s.Mail).SingleAsync());
        var id = await ImportTests.BeginAsync(
            owner,
            """
            Number,Name,Mail,Project,Inquired,Status,Notes
            0017,Mona Delarue,mona@beside.example,Harbour mural,2026-02-03,done,bricks
            0018,Mona Delarue,mona@beside.example,Courtyard wall,2026-09-01,open,
            2026-041,Til Crane,til@beside.example,Lantern House,2026-03-25,open,
            """
        );
        var box = Mbox.Write([
            Letter("mona@beside.example", own, "A wall", "2026-02-04"),
            Letter("old-self@elsewhere.example", "mona@beside.example", "Re: A wall", "2026-02-05"),
            Letter("mona@beside.example", own, "The courtyard", "2026-10-05"),
            Letter("joiner@else.example", own, "Boards for 2026-041", "2026-04-01"),
            Letter("offers@else.example", own, "Cheap ink", "2026-04-02"),
        ]);
        Assert.Equal((5, 0, 0, 0), await HandInAsync(owner, id, "Mail/archive.mbox", box));
        // handed in twice it is there once, also under a name that does not tell what it is
        var again = await SendAsync(owner, id, "Sent", box, letters: true);
        Assert.Contains("\"known\":5", await again.Content.ReadAsStringAsync());
        Assert.Equal((0, 0, 5, 0), await HandInAsync(owner, id, "archive.mbox", box));
        Assert.Equal((0, 1, 0, 0), await HandInAsync(owner, id, "Jobs/0017 Harbour/plan.pdf", Pdf));
        Assert.Equal((0, 1, 0, 0), await HandInAsync(owner, id, "Jobs/Crane, Til/offer.pdf", Pdf));
        Assert.Equal((0, 1, 0, 0), await HandInAsync(owner, id, "Jobs/Delarue Mona/which.pdf", Pdf));
        Assert.Equal((0, 0, 1, 0), await HandInAsync(owner, id, "Jobs/Delarue Mona/which.pdf", Pdf));

        var beside = await PlacesAsync(owner, id);
        Assert.Equal(
            [
                "offers@else.example 1   False",
                "Jobs/Delarue Mona 1  Name True",
                "joiner@else.example 1 4 Number False",
                "mona@beside.example 2 2 Mail False",
                "mona@beside.example 1 3 Mail False",
                "Jobs/0017 Harbour 1 2 Number False",
                "Jobs/Crane, Til 1 4 Name False",
            ],
            beside.GetProperty("places").EnumerateArray().Select(Said)
        );
        Assert.Equal((5, 3, 2), (Count(beside, "letters"), Count(beside, "files"), Count(beside, "out")));

        // what says too little is laid by hand, and nothing is made before that
        var matching = System.Text.Json.Nodes.JsonNode.Parse(
            (await owner.GetAsync($"/api/imports/{id}")).GetProperty("matching").GetRawText()
        )!;
        matching["places"] = System.Text.Json.Nodes.JsonNode.Parse("""{"Jobs/Delarue Mona": 3}""");
        Assert.Equal(HttpStatusCode.NoContent, (await owner.PostAsync($"/api/imports/{id}/run", matching)).StatusCode);
        var done = await DoneAsync(owner, id);
        Assert.Equal(("Done", 3), (done.GetProperty("state").GetString(), done.GetProperty("made").GetInt32()));
        Assert.Equal(1, Count(done.GetProperty("beside"), "out"));

        var made = await studio.LookAsync(
            (GesamtDb db) =>
                db
                    .Projects.Where(p => p.Client!.Mail!.EndsWith("@beside.example"))
                    .OrderBy(p => p.Id)
                    .Select(p => p.Id)
                    .ToListAsync()
        );
        var letters = await studio.LookAsync(
            (GesamtDb db) =>
                db
                    .Letters.Where(l => l.ProjectId != null && made.Contains(l.ProjectId.Value))
                    .OrderBy(l => l.At)
                    .Select(l => new
                    {
                        l.ProjectId,
                        l.Subject,
                        l.State,
                    })
                    .ToListAsync()
        );
        Assert.Equal(
            [
                (made[0], "A wall"),
                (made[0], "Re: A wall"),
                (made[2], "Boards for 2026-041"),
                (made[1], "The courtyard"),
            ],
            letters.Select(l => (l.ProjectId!.Value, l.Subject))
        );
        Assert.Equal(
            [(made[0], "plan.pdf"), (made[1], "which.pdf"), (made[2], "offer.pdf")],
            await studio.LookAsync(
                async (GesamtDb db) =>
                    (
                        await db.Files.Where(f => made.Contains(f.ProjectId)).OrderBy(f => f.ProjectId).ToListAsync()
                    ).Select(f => (f.ProjectId, f.Name))
            )
        );
        // what the studio's own old address wrote is no letter of the client
        Assert.Contains("Re: A wall", (await owner.GetAsync($"/api/projects/{made[0].Value}")).GetRawText());
        Assert.Equal(
            [true, false],
            await studio.LookAsync(
                async (GesamtDb db) =>
                    (
                        await db
                            .Facts.Where(f => f.ProjectId == made[0] && f.Kind == "LetterTakenOver")
                            .OrderBy(f => f.Happened)
                            .ToListAsync()
                    ).Select(f => JsonDocument.Parse(f.Payload).RootElement.GetProperty("fromClient").GetBoolean())
            )
        );
        // found by its number so far
        Assert.Contains("Harbour mural", (await owner.GetAsync("/api/search?words=0017")).GetRawText());
        await studio.TickAsync();
        Assert.Equal(0, (await owner.GetAsync("/api/post-office?address=beside.example")).GetArrayLength());
        Assert.Equal(HttpStatusCode.Conflict, (await SendAsync(owner, id, "late.pdf", Pdf)).StatusCode);

        // a letter begun since keeps its project, and its letters and files
        var begun = await owner.PostAsync(
            $"/api/projects/{made[1].Value}/letter",
            new
            {
                subject = "Soon",
                body = "I write on Friday.",
                sendAt = "2027-06-11T10:00:00",
            }
        );
        Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync());
        var undone = JsonDocument
            .Parse(await (await owner.PostAsync($"/api/imports/{id}/undo")).Content.ReadAsStringAsync())
            .RootElement;
        Assert.Equal((2, 1), (undone.GetProperty("removed").GetInt32(), undone.GetProperty("kept").GetInt32()));
        Assert.Equal(
            (1, 1, 0),
            await studio.LookAsync(
                async (GesamtDb db) =>
                    (
                        await db.Letters.CountAsync(l => l.State == LetterState.Kept),
                        await db.Files.CountAsync(),
                        await db.ImportParts.CountAsync()
                    )
            )
        );
    }

    private static int Count(JsonElement of, string name) => of.GetProperty(name).GetInt32();

    private static async Task<JsonElement> DoneAsync(Visitor owner, int id)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromMinutes(4));
        while (true)
        {
            var now = await owner.GetAsync($"/api/imports/{id}");
            if (now.GetProperty("state").GetString() != "Running")
                return now;
            await Task.Delay(TimeSpan.FromMilliseconds(50), patience.Token);
        }
    }

    [Theory]
    [InlineData("", "A file needs a name")]
    [InlineData("../..", "A file needs a name")]
    [InlineData("run.exe", "of a kind that is not kept")]
    [InlineData("letters.mbox", "This is no mail")]
    public async Task What_cannot_come_along_is_refused_in_words(string path, string said)
    {
        var owner = await studio.OwnerAsync();
        var id = await ImportTests.BeginAsync(owner, "Name,Mail\nA B,a@b.example\n");
        var answer = await SendAsync(owner, id, path, "MZ\0\u0001"u8.ToArray());
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(said, await answer.Content.ReadAsStringAsync());
        Assert.Equal(0, Count(await PlacesAsync(owner, id), "files"));
    }

    [Fact]
    public async Task A_mailbox_that_could_not_be_noted_leaves_no_letters_on_the_disk()
    {
        var owner = await studio.OwnerAsync();
        var id = await ImportTests.BeginAsync(owner, "Name,Mail\nA B,a@full.example\n");
        var box = Mbox.Write([Letter("a@full.example", "studio@elsewhere.example", "Full", "2026-03-02")]);
        var before = Kept();
        await TripAsync("CREATE TRIGGER Full BEFORE INSERT ON ImportParts BEGIN SELECT RAISE(ABORT, 'full'); END");
        Assert.False((await SendAsync(owner, id, "archive.mbox", box)).IsSuccessStatusCode);
        await TripAsync("DROP TRIGGER Full");
        Assert.Equal(before, Kept());
        Assert.Equal((1, 0, 0, 0), await HandInAsync(owner, id, "archive.mbox", box));
        Assert.Equal(before + 1, Kept());
    }

    private int Kept() => Directory.GetFiles(studio.Data, "*", SearchOption.AllDirectories).Count(IsKept);

    private static bool IsKept(string path) => Path.GetFileName(path).Length == 64;

    private Task TripAsync(string sql) =>
        studio.LookAsync((Gesamt.Store.GesamtDb db) => db.Database.ExecuteSqlRawAsync(sql));

    [Fact]
    public async Task A_mailbox_handed_in_by_two_windows_at_once_is_kept_once()
    {
        var (one, other) = (await studio.OwnerAsync(), await studio.OwnerAsync());
        var id = await ImportTests.BeginAsync(one, "Name,Mail\nA B,a@twice.example\n");
        var box = Encoding.UTF8.GetBytes(
            string.Concat(
                Enumerable
                    .Range(0, 30)
                    .Select(i =>
                        $"From a@twice.example Mon Jan 25 09:00:00 2027\nFrom: a@twice.example\nTo: studio@elsewhere.example\nDate: Mon, 25 Jan 2027 09:00:{i:00} +0000\nMessage-ID: <twice{i}@twice.example>\nSubject: {i}\n\nHello.\n\n"
                    )
            )
        );
        var both = await Task.WhenAll(
            HandInAsync(one, id, "archive.mbox", box),
            HandInAsync(other, id, "archive.mbox", box)
        );
        Assert.Equal((30, 30), (both.Sum(said => said.Letters), both.Sum(said => said.Known)));
        Assert.Equal(30, Count(await PlacesAsync(one, id), "letters"));
    }

    [Fact]
    public async Task What_was_handed_in_can_be_taken_away_and_is_forgotten_with_its_table()
    {
        var owner = await studio.OwnerAsync();
        var id = await ImportTests.BeginAsync(owner, "Name,Mail\nA B,a@b.example\n");
        await HandInAsync(owner, id, "a b/one.pdf", Pdf);
        Assert.Equal(
            HttpStatusCode.OK,
            (await owner.SendAsync(HttpMethod.Delete, $"/api/imports/{id}/beside", null)).StatusCode
        );
        Assert.Equal(0, Count(await PlacesAsync(owner, id), "files"));
        await HandInAsync(owner, id, "a b/one.pdf", Pdf);
        var now = await studio.LookAsync(desk => Task.FromResult(desk.Now));
        await studio.WaitUntilAsync(now + NodaTime.Duration.FromDays(31));
        await studio.Services.GetRequiredService<Upkeeping>().DoDueAsync(TestContext.Current.CancellationToken);
        owner = await studio.OwnerAsync();
        Assert.Equal(HttpStatusCode.NotFound, (await owner.AskAsync($"/api/imports/{id}")).StatusCode);
        Assert.Equal(0, await studio.LookAsync((GesamtDb db) => db.ImportParts.CountAsync(p => p.ImportId == id)));
    }

    [Fact]
    public async Task People_come_out_of_a_table_by_its_headings()
    {
        var owner = await studio.OwnerAsync();
        async Task<HttpResponseMessage> TakeAsync(string table) =>
            await owner.SendAsync(
                HttpMethod.Post,
                "/api/people/table",
                new ByteArrayContent(Encoding.UTF8.GetBytes(table))
                {
                    Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") },
                }
            );
        const string Table =
            "Company;Contact name;E-mail;Phone;Notes\nOak & Sons;Ruth Oak;ruth@oak.example;+353 1 555 0199;joiner\nBare Ltd;;info@bare.example;;\n;Nobody At All;;;\n;;x@y.example;;\n";
        var taken = JsonDocument.Parse(await (await TakeAsync(Table)).Content.ReadAsStringAsync()).RootElement;
        Assert.Equal((2, 0), (Count(taken, "made"), Count(taken, "known")));
        Assert.Equal("Nobody At All", Assert.Single(taken.GetProperty("unreachable").EnumerateArray()).GetString());
        Assert.Equal(
            [("Bare Ltd", null), ("Ruth Oak", "Oak & Sons")],
            await studio.LookAsync(
                async (GesamtDb db) =>
                    (
                        await db
                            .People.Where(p => p.Mail == "ruth@oak.example" || p.Mail == "info@bare.example")
                            .OrderBy(p => p.Name)
                            .ToListAsync()
                    ).Select(p => (p.Name, p.Organisation))
            )
        );
        var again = JsonDocument.Parse(await (await TakeAsync(Table)).Content.ReadAsStringAsync()).RootElement;
        Assert.Equal((0, 2), (Count(again, "made"), Count(again, "known")));
        Assert.Contains(
            "No column is called “name” or “organisation”",
            await (await TakeAsync("Colour;Size\nred;3\n")).Content.ReadAsStringAsync()
        );
    }
}
