using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Routing;

namespace Gesamt.Web.Tests;

/// <summary>A private word planted in every private place of a project, and then every address that its client can reach: none of them says it.</summary>
public sealed partial class PrivacyTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private const string Word = "Zwetschgenmus";

    private readonly List<string> planted = [];

    private async Task PlantAsync(Visitor owner, HttpMethod method, string address, object body)
    {
        var answer = await owner.SendAsync(method, address, JsonContent.Create(body));
        Assert.True(answer.IsSuccessStatusCode, $"{address}: {await answer.Content.ReadAsStringAsync()}");
        planted.Add(address);
    }

    /// <summary>Its own name for each place, so that a word that is found says where it came from.</summary>
    private static string In(string place) => $"{Word}-{place}";

    private async Task PlantAllAsync(Visitor owner, long project)
    {
        var at = $"/api/projects/{project}";
        Task PostAsync(string what, object body) => PlantAsync(owner, HttpMethod.Post, $"{at}/{what}", body);
        await PostAsync("notes", new { text = In("note") });
        await PostAsync("happened", new { sort = "Call", words = In("call") });
        await PostAsync(
            "tasks",
            new
            {
                title = In("task"),
                due = "2027-02-01",
                phase = (string?)null,
                doneBy = (string?)null,
                plan = new
                {
                    workOn = (string?)null,
                    estimate = "3 h",
                    importance = 3,
                    effort = (int?)null,
                    list = In("list"),
                },
                words = new
                {
                    description = In("description"),
                    finished = In("finished"),
                    steps = new[] { new { title = In("part"), done = false } },
                },
            }
        );
        await PostAsync(
            "hours",
            new
            {
                on = (string?)null,
                time = "2 h",
                words = In("hours"),
            }
        );
        await PostAsync(
            "costs",
            new
            {
                on = (string?)null,
                payee = In("payee"),
                what = In("cost"),
                category = In("category"),
                amount = "12",
                tax = "23",
                chargeOn = false,
            }
        );
        await PostAsync(
            "quotes",
            new
            {
                supplier = In("supplier"),
                what = In("quote"),
                amount = "12",
                tax = "23",
                validUntil = (string?)null,
            }
        );
        await PostAsync(
            "access",
            new
            {
                what = In("access"),
                place = In("place"),
                givenBy = In("giver"),
            }
        );
        await PostAsync("praise", new { words = In("praise"), who = In("who") });
        foreach (var sort in new[] { "Rows", "Board", "Notes" })
            await ListAsync(owner, project, sort);
        await PlantAsync(
            owner,
            HttpMethod.Put,
            $"{at}/run-sheet",
            new
            {
                edition = 0,
                dateName = "opening day",
                earlier = 0,
                items = new[] { Item("Doors", "Everybody", ""), Item(In("run"), "Me", In("place")) },
            }
        );
        await PlantAsync(
            owner,
            HttpMethod.Post,
            "/api/labels",
            new
            {
                label = Word,
                project,
                person = (long?)null,
                task = (long?)null,
            }
        );
        foreach (var part in await BriefAsync(owner, project))
            await PlantAsync(
                owner,
                HttpMethod.Put,
                $"{at}/brief/{part}",
                new { text = In($"brief-{part}"), edition = 0 }
            );
    }

    /// <summary>A list that is the owner's alone, with an entry on it.</summary>
    private async Task ListAsync(Visitor owner, long project, string sort)
    {
        planted.Add(sort);
        var begun = await owner.PostAsync($"/api/projects/{project}/lists", new { name = In(sort), sort });
        var id = (await begun.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetString();
        if (sort == "Board")
        {
            // known by the name that the crawl asks for
            await owner.SendAsync(
                HttpMethod.Post,
                $"/api/lists/{id}/pictures?name={In("picture")}.png",
                new ByteArrayContent(Demo.DemoPictures.Draw("private"))
                {
                    Headers = { ContentType = new("application/octet-stream") },
                }
            );
            await studio.LookAsync(db => db.Database.ExecuteSqlAsync($"UPDATE ListEntries SET Key = '1'"));
        }
        var column = (await owner.GetAsync($"/api/lists/{id}"))
            .GetProperty("list")
            .GetProperty("columns")[0]
            .GetProperty("key")
            .GetString()!;
        await PlantAsync(
            owner,
            HttpMethod.Put,
            $"/api/lists/{id}/entries/1",
            new
            {
                edition = sort == "Board" ? 1 : 0,
                cells = new Dictionary<string, string> { [column] = In($"{sort}-entry") },
            }
        );
    }

    private static object Item(string what, string whom, string where) =>
        new
        {
            key = what,
            day = 0,
            start = "18:00:00",
            length = "",
            what,
            where,
            who = where,
            @for = whom,
            earlier = (int?)null,
        };

    /// <summary>The parts of the brief that no client reads.</summary>
    private static async Task<string[]> BriefAsync(Visitor owner, long project) =>
        [
            .. (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("about")
                .GetProperty("brief")
                .GetProperty("parts")
                .EnumerateArray()
                .Where(part =>
                    part.GetProperty("private").GetBoolean() || part.GetProperty("use").GetString() == "Obstacle"
                )
                .Select(part => part.GetProperty("key").GetString()!),
        ];

    private static async Task<long> KeepAsync(Visitor owner, long project, string name, string group)
    {
        var kept = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/projects/{project}/files?name={name}&group={group}",
            new ByteArrayContent(System.Text.Encoding.UTF8.GetBytes(In("file")))
            {
                Headers = { ContentType = new("application/octet-stream") },
            }
        );
        Assert.True(kept.IsSuccessStatusCode, await kept.Content.ReadAsStringAsync());
        return (await kept.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("id")
            .GetInt64();
    }

    /// <summary>Every address to read below a client’s page, as the program itself lists them.</summary>
    private IEnumerable<string> Doors() =>
        from endpoint in studio
            .Services.GetServices<EndpointDataSource>()
            .SelectMany(source => source.Endpoints)
            .OfType<RouteEndpoint>()
        let pattern = "/" + endpoint.RoutePattern.RawText!.TrimStart('/')
        where pattern.StartsWith("/p/{link}/api", StringComparison.Ordinal)
        where
            endpoint
                .Metadata.GetMetadata<Microsoft.AspNetCore.Routing.HttpMethodMetadata>()
                ?.HttpMethods.Contains("GET") == true
        select pattern;

    [GeneratedRegex(@"\{([a-z]+)(:[a-z]+)?\}")]
    private static partial Regex Place();

    /// <summary>Whatever a page could be asked with: names and hashes of everything there is, shown or not.</summary>
    private Task<string[]> NamesAsync() =>
        studio.LookAsync(async db =>
        {
            string[] names =
            [
                .. await db.Files.Select(f => f.PublicId).ToListAsync(),
                .. await db.Files.Select(f => f.Hash).ToListAsync(),
                .. await db.Versions.Select(v => v.Hash).ToListAsync(),
                .. await db.Invoices.Select(i => i.PublicId).ToListAsync(),
                .. await db.Meetings.Select(m => m.PublicId).ToListAsync(),
                .. await db.Reviews.Select(r => r.PublicId).ToListAsync(),
                .. await db.Lists.Select(l => l.PublicId).ToListAsync(),
                .. Enumerable.Range(0, 4).Select(i => $"{i}"),
            ];
            return names.Distinct().ToArray();
        });

    private static async Task<string> TextAsync(HttpResponseMessage answer) =>
        answer.Content.Headers.ContentType?.MediaType == "application/pdf"
            ? PdfTools.Run("pdftotext", await answer.Content.ReadAsByteArrayAsync(), "-layout", "FILE", "-").Said
            : await answer.Content.ReadAsStringAsync();

    [Fact]
    public async Task No_address_a_client_can_reach_says_a_private_word()
    {
        var (owner, client, project, page) = await studio.SignedByAllAsync("crawl@privacy.example");
        await PlantAllAsync(owner, project);
        Assert.True(planted.Count > 10, $"{planted.Count} places");
        await KeepAsync(owner, project, $"{Word}.txt", "Drafts");
        await KeepAsync(owner, project, $"{Word}.txt", "Supplied");
        await KeepAsync(owner, project, $"{Word}.txt", "Final");
        foreach (var part in Enum.GetNames<Core.Facts.PagePart>())
            Assert.True(
                (await owner.PostAsync($"/api/projects/{project}/parts", new { part, open = true })).IsSuccessStatusCode
            );
        // the owner finds the words: they are there to be found
        Assert.Contains(Word, (await owner.GetAsync($"/api/projects/{project}")).GetRawText());

        var names = await NamesAsync();
        var reached = 0;
        foreach (var door in Doors())
        {
            var pattern = door.Replace("/p/{link}", page, StringComparison.Ordinal);
            foreach (var name in Place().IsMatch(pattern) ? names : [""])
            foreach (var query in pattern.EndsWith(".pdf", StringComparison.Ordinal) ? Readers : [""])
            foreach (var path in Filled(pattern, name))
            {
                var address = path + query;
                var answer = await client.AskAsync(address);
                Assert.NotEqual(HttpStatusCode.TooManyRequests, answer.StatusCode);
                if (answer.StatusCode == HttpStatusCode.OK)
                    reached++;
                Assert.False((await TextAsync(answer)).Contains(Word, StringComparison.Ordinal), $"{address} says it");
            }
        }
        Assert.True(reached > 6, $"{reached} addresses opened");
        Assert.DoesNotContain(Word, await (await client.AskAsync(page)).Content.ReadAsStringAsync());
        foreach (var letter in (await owner.GetAsync("/api/post-office")).EnumerateArray())
            Assert.DoesNotContain(
                Word,
                (await owner.GetAsync($"/api/post-office/{letter.GetProperty("id").GetInt64()}")).GetRawText()
            );
        await NorDoesTheirCopyAsync(owner, project);
        // while the owner's own copy of the project has all of it
        var everything = await CopyTests.EntriesAsync(owner, $"/api/projects/{project}/everything.zip");
        Assert.Contains(In("note"), CopyTests.TextOf("history.pdf", everything["history.pdf"]));
        Assert.Contains(In("task"), CopyTests.TextOf("tables/tasks.csv", everything["tables/tasks.csv"]));
    }

    private async Task NorDoesTheirCopyAsync(Visitor owner, long project)
    {
        // a reason of the owner's own lies among the words that clients said
        var contract = await studio.LookAsync(
            (Store.GesamtDb db) =>
                db
                    .Versions.Where(v =>
                        v.ProjectId == new ProjectId(project) && v.Sort == Store.Model.PaperSort.Contract
                    )
                    .Select(v => v.Id)
                    .SingleAsync()
        );
        await PlantAsync(
            owner,
            HttpMethod.Post,
            $"/api/projects/{project}/contract/{contract.Value}/void",
            new { words = In("void") }
        );
        var client = await studio.LookAsync(
            async (Store.GesamtDb db) =>
            {
                var row = await db.Projects.Include(p => p.Client).SingleAsync(p => p.Id == new ProjectId(project));
                row.Client!.Notes = In("notes of a person");
                await db.SaveChangesAsync();
                return row.ClientId.Value;
            }
        );
        var copy = await CopyTests.EntriesAsync(owner, $"/api/people/{client}/copy.zip");
        foreach (var (name, bytes) in copy)
        {
            Assert.DoesNotContain(Word, name);
            Assert.False(CopyTests.TextOf(name, bytes).Contains(Word, StringComparison.Ordinal), $"{name} says it");
        }
        foreach (var ending in new[] { ".eml", ".pdf", ".xml", "answers.json", "signatures.json", "person.vcf" })
            Assert.Contains(copy.Keys, name => name.EndsWith(ending, StringComparison.Ordinal));
        string Text(string ending) =>
            CopyTests.TextOf("", copy.Single(one => one.Key.EndsWith(ending, StringComparison.Ordinal)).Value);
        // and what is theirs is in it
        Assert.Contains("Mona Delarue", Text("person.json"));
        Assert.Contains("crawl@privacy.example", Text("person.json"));
        Assert.Contains("A lantern.", Text("answers.json"));
        Assert.Contains("Mona Delarue", Text("signatures.json"));
    }

    /// <summary>The name in every place; and in the first with a planted entry’s key in the next.</summary>
    private static IEnumerable<string> Filled(string pattern, string name) =>
        new[] { Place().Replace(pattern, name), Place().Replace(Place().Replace(pattern, name, 1), "1") }.Distinct();

    private static readonly string[] Readers =
    [
        "",
        "?reader=Client",
        "?reader=Guests",
        "?reader=Suppliers",
        "?reader=Me",
    ];
}
