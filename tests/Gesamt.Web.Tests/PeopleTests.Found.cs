using System.Net;

namespace Gesamt.Web.Tests;

/// <summary>Slips, search, labels, and cards of people.</summary>
public sealed partial class PeopleTests
{
    [Fact]
    public async Task A_list_is_narrowed_by_words_whatever_their_case_and_accents_and_a_sign_is_only_itself()
    {
        var owner = await studio.OwnerAsync();
        var kind = await studio.LookAsync(db => db.Kinds.OrderBy(k => k.Position).Select(k => k.Id.Value).FirstAsync());
        foreach (
            var (name, mail) in new[] { ("Zoë Öberg", "zo@quay.example"), ("Anton 100% Wool", "wool@quay.example") }
        )
            Assert.True(
                (await owner.PostAsync("/api/inquiries", Booking.TypedIn(kind, name, mail))).IsSuccessStatusCode
            );
        async Task<(bool Oberg, bool Wool)> FoundAsync(string list, string words)
        {
            var found = (await owner.GetAsync($"{list}?words={Uri.EscapeDataString(words)}")).ToString();
            return (
                found.Contains("Öberg", StringComparison.Ordinal),
                found.Contains("Wool", StringComparison.Ordinal)
            );
        }
        foreach (var list in new[] { "/api/people", "/api/register" })
        {
            foreach (var words in new[] { "öberg", "ÖBERG", "oberg", "zoe o" })
                Assert.Equal((true, false), await FoundAsync(list, words));
            Assert.Equal((false, true), await FoundAsync(list, "0% w"));
            Assert.Equal((false, false), await FoundAsync(list, "0%ool")); // no wildcard
            Assert.Equal((false, false), await FoundAsync(list, "z_ë"));
        }
    }

    [Fact]
    public async Task A_slip_becomes_what_it_says_is_taken_back_and_lies_in_the_tray_without_a_project()
    {
        var owner = await studio.OwnerAsync();
        var (project, _) = await InquireAsync("Wren Adair", "wren@signalbox.example");
        await studio.LookAsync(
            (Gesamt.Store.GesamtDb db) =>
                db
                    .Projects.Where(p => p.Id == new Gesamt.Core.ProjectId(project))
                    .ExecuteUpdateAsync(set => set.SetProperty(p => p.Title, "Signal box mural"))
        );
        var kept = await JsonAsync(
            await owner.PostAsync(
                "/api/slips",
                new { text = "order primer for signal fri important", project = (long?)null }
            )
        );
        Assert.Equal(
            "Kept: a task for Signal box mural, due Fri 29 Jan, important",
            kept.GetProperty("words").GetString()
        );
        Assert.Contains(
            "order primer",
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("tasks").ToString()
        );
        Assert.True(
            (await owner.PostAsync($"/api/slips/{kept.GetProperty("id").GetInt32()}/undo")).IsSuccessStatusCode
        );
        Assert.DoesNotContain(
            "order primer",
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("sheet").GetProperty("tasks").ToString()
        );

        var call = await JsonAsync(
            await owner.PostAsync(
                "/api/slips",
                new { text = "call: they want levers, for signal", project = (long?)null }
            )
        );
        Assert.NotEqual(
            "AnswerInquiry",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()
        );
        await owner.PostAsync($"/api/slips/{call.GetProperty("id").GetInt32()}/undo");
        Assert.Equal(
            "AnswerInquiry",
            (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("path")
                .GetProperty("turn")
                .GetProperty("waits")
                .GetString()
        );

        var before = (await owner.GetAsync("/api/today")).GetProperty("day").GetProperty("tray").GetInt32();
        var loose = (
            await JsonAsync(
                await owner.PostAsync(
                    "/api/slips",
                    new { text = "gold leaf is cheaper elsewhere", project = (long?)null }
                )
            )
        )
            .GetProperty("id")
            .GetInt32();
        Assert.Equal(
            before + 1,
            (await owner.GetAsync("/api/today")).GetProperty("day").GetProperty("tray").GetInt32()
        );
        Assert.True((await owner.PostAsync($"/api/slips/{loose}/file", new { project })).IsSuccessStatusCode);
        Assert.Contains(
            "gold leaf is cheaper",
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("line").GetProperty("past").ToString()
        );
        Assert.Equal(before, (await owner.GetAsync("/api/today")).GetProperty("day").GetProperty("tray").GetInt32());
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.PostAsync("/api/slips", new { text = " ", project = (long?)null })).StatusCode
        );
    }

    [Fact]
    public async Task A_misspelt_name_is_found_and_a_label_gathers_what_carries_it()
    {
        var owner = await studio.OwnerAsync();
        var (project, person) = await InquireAsync("Theodora Pettigrew", "theo@pettigrew.example");
        Assert.Contains("Theodora Pettigrew", (await owner.GetAsync("/api/search?words=petigrew")).ToString());
        Assert.Equal(0, (await owner.GetAsync("/api/search?words=xylophone")).GetArrayLength());
        Assert.True(
            (
                await owner.PostAsync(
                    "/api/labels",
                    new
                    {
                        label = "Outdoors ",
                        project,
                        person = (long?)null,
                        task = (long?)null,
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.True(
            (
                await owner.PostAsync(
                    "/api/labels",
                    new
                    {
                        label = "outdoors",
                        project = (long?)null,
                        person,
                        task = (long?)null,
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            ["project", "person"],
            (await owner.GetAsync("/api/labels/outdoors"))
                .EnumerateArray()
                .Select(one => one.GetProperty("sort").GetString())
        );
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (
                await owner.PostAsync(
                    "/api/labels",
                    new
                    {
                        label = "",
                        project,
                        person = (long?)null,
                        task = (long?)null,
                    }
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task People_go_out_as_cards_and_come_in_again_once()
    {
        var owner = await studio.OwnerAsync();
        var cards = await (await owner.AskAsync("/api/people.vcf")).Content.ReadAsStringAsync();
        Assert.Contains("FN:Piet Sorrel", cards);
        var again = await JsonAsync(await owner.PostAsync("/api/people/vcards", new { text = cards }));
        Assert.Equal(0, again.GetProperty("made").GetInt32());
        var fresh = await JsonAsync(
            await owner.PostAsync(
                "/api/people/vcards",
                new
                {
                    text = "BEGIN:VCARD\nVERSION:3.0\nN:Roe;Declan;;;\nTEL:01 555 0100\nEND:VCARD\nBEGIN:VCARD\nFN:Nobody\nEND:VCARD",
                }
            )
        );
        Assert.Equal(
            (1, "Nobody"),
            (fresh.GetProperty("made").GetInt32(), fresh.GetProperty("unreachable")[0].GetString())
        );
        Assert.Contains("Declan Roe", (await owner.GetAsync("/api/people?words=roe")).ToString());
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.PostAsync("/api/people/vcards", new { text = "hello" })).StatusCode
        );
    }
}
