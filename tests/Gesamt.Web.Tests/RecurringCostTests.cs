using System.Net.Http.Json;
using System.Text.Json;
using Gesamt.Store;

namespace Gesamt.Web.Tests;

/// <summary>Costs that book themselves, while time goes by.</summary>
public sealed class RecurringCostTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    /// <summary>Begun on 31 December, it books itself on the last day of each month; a changed amount reaches only what lies ahead.</summary>
    [Fact]
    public async Task A_recurring_cost_books_itself_once_over_the_end_of_a_month()
    {
        var owner = await studio.OwnerAsync();
        object Rent(string amount) =>
            new
            {
                payee = "Sail Loft Trust",
                what = "Store room",
                category = "rent",
                amount,
                tax = "0",
                account = (long?)null,
                project = (long?)null,
                when = new
                {
                    every = "Month",
                    first = "2026-12-31",
                    until = (string?)null,
                },
            };
        var begun = await owner.PostAsync("/api/recurring-costs", Rent("100"));
        Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync(Stop));
        var id = JsonDocument
            .Parse(await begun.Content.ReadAsStringAsync(Stop))
            .RootElement.GetProperty("id")
            .GetInt64();
        async Task<List<string>> BookedAsync() =>
            await studio.LookAsync(
                async (GesamtDb db) =>
                    (
                        await db
                            .Costs.Where(c => c.Recurring == new RecurringCostId(id))
                            .OrderBy(c => c.Occurrence)
                            .ToListAsync()
                    )
                        .Select(c => $"{c.On:uuuu-MM-dd} {c.GrossMinor}")
                        .ToList()
            );
        Assert.Equal(["2026-12-31 10000"], await BookedAsync());
        // the clock stands at 25 January 2027; two ticks and two copies book nothing twice
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 1, 31, 9, 0));
        await studio.TickAsync();
        await studio.TickAsync();
        Assert.Equal(["2026-12-31 10000", "2027-01-31 10000"], await BookedAsync());
        var changed = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/recurring-costs/{id}",
            JsonContent.Create(Rent("120"))
        );
        Assert.True(changed.IsSuccessStatusCode, await changed.Content.ReadAsStringAsync(Stop));
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 2, 28, 9, 0));
        await studio.TickAsync();
        // a session ends where nobody comes for weeks
        owner = await studio.OwnerAsync();
        Assert.Equal(["2026-12-31 10000", "2027-01-31 10000", "2027-02-28 12000"], await BookedAsync());
        Assert.True(
            (await owner.PostAsync($"/api/recurring-costs/{id}/stopped", new { stopped = true })).IsSuccessStatusCode
        );
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 4, 15, 9, 0));
        await studio.TickAsync();
        owner = await studio.OwnerAsync();
        // what would have been while it was stopped was not; from 30 April on it goes on
        await owner.PostAsync($"/api/recurring-costs/{id}/stopped", new { stopped = false });
        await studio.WaitUntilAsync(Instant.FromUtc(2027, 4, 30, 9, 0));
        await studio.TickAsync();
        Assert.Equal(
            ["2026-12-31 10000", "2027-01-31 10000", "2027-02-28 12000", "2027-04-30 12000"],
            await BookedAsync()
        );
    }
}
