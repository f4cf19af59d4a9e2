using System.Net;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Routines as they are typed, rehearsed, copied and changed.</summary>
public sealed partial class FollowUpTests
{
    [Fact]
    public async Task What_is_typed_is_told_with_its_dates_and_its_mistakes()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "typed@lanternhouse.example");
        var draft = (
            await ReadAsync(
                await owner.PostAsync(
                    "/api/routines/read",
                    new
                    {
                        text = "routine: A\nbegins with: booked\nstep: one\nwhen: 4 months before the date\ndo: letter gone\nstep: two\nwhen: 60 days before the date\ndo: letter welcome",
                    }
                )
            )
        );
        var check = await ReadAsync(
            await owner.PostAsync(
                "/api/routines/check",
                new
                {
                    kind = await KindAsync(owner),
                    routine = draft,
                    project,
                }
            )
        );
        Assert.Equal(
            "steps[0].letter",
            Assert.Single(check.GetProperty("mistakes").EnumerateArray()).GetProperty("field").GetString()
        );
        // opening day 14 May 2027: 60 days before is Mon 15 March, common practice
        Assert.Equal("Mon 15 Mar, 09:00", check.GetProperty("steps")[1].GetProperty("date").GetString());
        Assert.Contains(
            "line 2",
            (
                await (
                    await owner.PostAsync("/api/routines/read", new { text = "routine: A\nbegins with: tea" })
                ).Content.ReadAsStringAsync()
            ).ToLowerInvariant()
        );
    }

    [Fact]
    public async Task A_rehearsed_routine_tells_its_letters_and_records_nothing()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "rehearse@lanternhouse.example");
        var routine = (await owner.GetAsync("/api/routines"))
            .EnumerateArray()
            .First(r => r.GetProperty("name").GetString() == "After a proposal")
            .GetProperty("id")
            .GetInt32();
        var before = await studio.LookAsync(async db =>
            (await db.Facts.CountAsync(), await db.Letters.CountAsync(), await db.Outbox.CountAsync())
        );
        var played = await ReadAsync(
            await owner.PostAsync(
                "/api/routines/rehearse",
                new
                {
                    routine,
                    project,
                    ways = new
                    {
                        opens = (int?)null,
                        answers = 20,
                        chooses = (int?)null,
                        signs = (int?)null,
                        pays = (int?)null,
                        returnsForm = (int?)null,
                    },
                }
            )
        );
        var first = played[0];
        Assert.Equal(
            ("AsksFirst", "Did the proposal reach you?"),
            (first.GetProperty("act").GetString(), first.GetProperty("subject").GetString())
        );
        Assert.Contains("rehearse@lanternhouse.example", first.GetProperty("to").GetString());
        Assert.Contains("Good morning Mona", first.GetProperty("body").GetString());
        Assert.Equal(
            before,
            await studio.LookAsync(async db =>
                (await db.Facts.CountAsync(), await db.Letters.CountAsync(), await db.Outbox.CountAsync())
            )
        );
        Assert.Contains(
            "ways.answers",
            await (
                await owner.PostAsync(
                    "/api/routines/rehearse",
                    new
                    {
                        routine,
                        project,
                        ways = new
                        {
                            opens = (int?)null,
                            answers = -1,
                            chooses = (int?)null,
                            signs = (int?)null,
                            pays = (int?)null,
                            returnsForm = (int?)null,
                        },
                    }
                )
            ).Content.ReadAsStringAsync()
        );
    }

    [Fact]
    public async Task A_kind_is_copied_without_what_is_left_out_in_order_and_taken_away_safely()
    {
        var owner = await studio.OwnerAsync();
        var mural = await KindAsync(owner);
        var page = await owner.GetAsync($"/api/kinds/{mural}");
        var left = page.GetProperty("routines")[1].GetProperty("id").GetInt32();
        var copy = (
            await ReadAsync(
                await owner.PostAsync(
                    $"/api/kinds/{mural}/copy",
                    new
                    {
                        name = "Ceiling",
                        without = new[] { "Contract" },
                        withoutRoutines = new[] { left },
                        withoutForms = Array.Empty<int>(),
                    }
                )
            )
        ).GetProperty("id").GetInt64();
        var made = await owner.GetAsync($"/api/kinds/{copy}");
        Assert.Equal(
            page.GetProperty("routines")
                .EnumerateArray()
                .Select(r => r.GetProperty("name").GetString())
                .Where((_, i) => i != 1),
            made.GetProperty("routines").EnumerateArray().Select(r => r.GetProperty("name").GetString())
        );
        Assert.All(made.GetProperty("routines").EnumerateArray(), r => Assert.True(r.GetProperty("off").GetBoolean()));
        Assert.Equal(page.GetProperty("services").GetArrayLength(), made.GetProperty("services").GetArrayLength());
        Assert.Equal("", made.GetProperty("contract").GetProperty("body").GetString());
        Assert.Equal(
            ["Mural", "Ceiling"],
            (await owner.GetAsync("/api/kinds")).EnumerateArray().Select(k => k.GetProperty("name").GetString()).Take(2)
        );
        Assert.Contains(
            "\"name\"",
            await (
                await owner.PostAsync(
                    $"/api/kinds/{mural}/copy",
                    new
                    {
                        name = "Ceiling",
                        without = Array.Empty<string>(),
                        withoutRoutines = Array.Empty<int>(),
                        withoutForms = Array.Empty<int>(),
                    }
                )
            ).Content.ReadAsStringAsync()
        );
        // a kind whose form may stand on a page somewhere is not taken away under it
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/kinds/{mural}/removed", new { removed = true })).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.PostAsync($"/api/kinds/{copy}/removed", new { removed = true })).StatusCode
        );
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/kinds")).EnumerateArray(),
            k => k.GetProperty("name").GetString() == "Ceiling"
        );
    }

    [Fact] // a template's change reaches what has not begun, and nothing that has
    public async Task A_changed_letter_reaches_planned_steps_and_not_held_ones_and_a_changed_routine_no_run()
    {
        await using var own = new EmptyStudio();
        var owner = await own.OwnerAsync();
        var first = await own.InquireAndAnswerAsync("first@lanternhouse.example");
        await own.WaitUntilAsync(Instant.FromUtc(2027, 2, 4, 10, 0));
        owner = await own.OwnerAsync();
        var second = await own.InquireAndAnswerAsync("second@lanternhouse.example");
        Assert.True(
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/letter-texts/{await owner.LetterAsync("still-interested")}",
                    System.Net.Http.Json.JsonContent.Create(
                        new
                        {
                            name = "Still",
                            number = (int?)null,
                            subject = "New words",
                            body = "New.",
                            edition = 0,
                            files = Array.Empty<object>(),
                        }
                    )
                )
            ).IsSuccessStatusCode
        );
        var routine = (await owner.GetAsync("/api/routines"))
            .EnumerateArray()
            .First(r =>
                r.GetProperty("name").GetString() == "After an inquiry"
                && r.GetProperty("kindName").GetString() == "Mural"
            )
            .GetProperty("id")
            .GetInt32();
        var page = await owner.GetAsync($"/api/routines/{routine}");
        var draft = System.Text.Json.Nodes.JsonNode.Parse(page.GetProperty("routine").GetRawText())!;
        draft["steps"]!.AsArray().RemoveAt(1);
        Assert.True(
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    $"/api/routines/{routine}",
                    System.Net.Http.Json.JsonContent.Create(new { routine = draft, edition = 0 })
                )
            ).IsSuccessStatusCode
        );
        await own.WaitUntilAsync(Instant.FromUtc(2027, 2, 16, 10, 0));
        var subjects = await own.LookAsync(db =>
            db.Letters.Where(l => l.State == LetterState.Held)
                .ToDictionaryAsync(l => l.ProjectId!.Value.Value, l => l.Subject)
        );
        Assert.Equal(("Are you still thinking about it?", "New words"), (subjects[first], subjects[second]));
    }
}
