using Gesamt.Core.Facts;

namespace Gesamt.Web.Tests;

/// <summary>The Register narrowed to what matters at the moment.</summary>
public sealed class RegisterTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static async Task<long[]> OnlyAsync(Visitor owner, string only) =>
        [
            .. (await owner.GetAsync($"/api/register?only={only}"))
                .GetProperty("groups")
                .EnumerateArray()
                .SelectMany(group => group.GetProperty("rows").EnumerateArray())
                .Select(row => row.GetProperty("id").GetInt64()),
        ];

    private async Task<long> WithTaskAsync(Visitor owner, string who, string? due)
    {
        var project = await studio.InquireAsync(new Visitor(studio), $"{who}@register.example");
        var made = await owner.PostAsync(
            $"/api/projects/{project}/tasks",
            new
            {
                title = $"Task of {who}",
                due,
                phase = (string?)null,
            }
        );
        Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        return project;
    }

    [Fact]
    public async Task It_is_narrowed_to_what_is_late_due_this_week_or_came_in()
    {
        var owner = await studio.OwnerAsync();
        var late = await WithTaskAsync(owner, "late", "2027-01-22");
        var due = await WithTaskAsync(owner, "due", "2027-01-31");
        var later = await WithTaskAsync(owner, "later", "2027-02-01");
        Assert.Equal([late], await OnlyAsync(owner, "Late"));
        Assert.Equal([due], await OnlyAsync(owner, "DueThisWeek"));
        Assert.Equal([late, due, later], (await OnlyAsync(owner, "CameIn")).Order());
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 1, 26, 10, 30));
        var fresh = await WithTaskAsync(owner, "fresh", null);
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 1, 26, 10, 31));
        Assert.Equal([fresh], await OnlyAsync(owner, "CameIn"));
        // done, nothing of it is late
        var task = (await owner.GetAsync($"/api/projects/{late}"))
            .GetProperty("sheet")
            .GetProperty("tasks")
            .GetProperty("open")[0]
            .GetProperty("id")
            .GetInt64();
        await owner.PostAsync($"/api/projects/{late}/tasks/{task}/done", new { done = true });
        Assert.DoesNotContain(late, await OnlyAsync(owner, "Late"));
    }

    [Fact]
    public async Task Words_that_cover_a_screen_are_those_of_names_and_nothing_the_pages_go_by()
    {
        var owner = await studio.OwnerAsync();
        foreach (
            var (name, organisation) in new[] { ("Bran O’Hara-Quill", "The Delivery Works"), ("mona van Dyk", "") }
        )
        {
            var made = await owner.PostAsync(
                "/api/people",
                new
                {
                    sort = "Client",
                    name,
                    organisation,
                    greeted = (string?)null,
                    mail = $"{name.Length}{organisation.Length}@cover.example",
                    phone = (string?)null,
                    profile = (string?)null,
                    prefers = (string?)null,
                    address = (string?)null,
                    taxNumber = (string?)null,
                    notes = "",
                    edition = 0,
                }
            );
            Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        }
        var cost = await owner.PostAsync(
            "/api/costs",
            new
            {
                on = (string?)null,
                payee = "Sprayworks Dunmarrin",
                what = "Paint",
                category = "",
                amount = "12.00",
                tax = "0",
                chargeOn = false,
            }
        );
        Assert.True(cost.IsSuccessStatusCode, await cost.Content.ReadAsStringAsync());
        var words = (await owner.GetAsync("/api/cover")).EnumerateArray().Select(word => word.GetString()!).ToList();
        Assert.Empty(new[] { "Bran", "O’Hara", "Quill", "Works", "Dyk", "Sprayworks" }.Except(words));
        // “Delivery” is a gate, whoever is called so; “The” and “van” say nothing
        Assert.DoesNotContain(words, word => word is "Delivery" or "The" or "van" or "mona");
    }
}
