using Gesamt.Store;
using Gesamt.Web.Books;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>What is likely of proposals that are out.</summary>
public sealed class ForecastTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task Two_proposals_of_the_same_bytes_are_each_likely()
    {
        var owner = await studio.OwnerAsync();
        List<ProjectId> projects = [];
        foreach (var _ in Enumerable.Range(0, 2))
            projects.Add(
                new((await studio.ProposeAsync(owner, new Visitor(studio), "twice@proposed.example")).Project)
            );
        Assert.Single(
            await studio.LookAsync((GesamtDb db) => db.Versions.Select(v => v.Hash).Distinct().ToListAsync())
        );
        var likely = await studio.LookAsync((Desk desk) => Ahead.LikelyAsync(desk, desk.Currency));
        Assert.Equal(projects, likely.Select(line => line.Project).OrderBy(id => id.Value));
        Assert.All(likely, line => Assert.True(line.Placed.Whole.Minor > line.Placed.Amount.Minor));
        Assert.Single(likely.Select(line => line.Placed.Whole).Distinct());
        // asked once more, it is the same: what is remembered is what was read
        Assert.Equal(likely, await studio.LookAsync((Desk desk) => Ahead.LikelyAsync(desk, desk.Currency)));
    }
}
