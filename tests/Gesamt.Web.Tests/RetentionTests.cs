using CsCheck;
using Gesamt.Store.Backups;

namespace Gesamt.Web.Tests;

/// <summary>Seven days, four weeks, twelve months.</summary>
public sealed class RetentionTests
{
    private static readonly DateTime Last = new(2027, 12, 31, 3, 0, 0);

    [Fact]
    public void A_backup_every_night_for_two_years_leaves_a_few()
    {
        var kept = Retention
            .Kept(Enumerable.Range(0, 730).Select(day => Last.AddDays(-day)))
            .OrderDescending()
            .ToList();
        // ISO 8601 weeks: 31 December 2027 is a Friday of week 52
        Assert.Equal(Enumerable.Range(0, 7).Select(day => Last.AddDays(-day)), kept.Take(7));
        Assert.Equal(
            [new(2027, 12, 19, 3, 0, 0), new(2027, 12, 12, 3, 0, 0), new(2027, 11, 30, 3, 0, 0)],
            kept.Skip(7).Take(3)
        );
        Assert.Equal(new DateTime(2027, 1, 31, 3, 0, 0), kept[^1]);
        Assert.Equal(7 + 2 + 11, kept.Count);
    }

    [Fact]
    public void The_newest_is_always_kept_and_never_more_than_all_spans_together() =>
        Gen.Int[0, 1_000_000]
            .Array[1, 300]
            .Sample(minutes =>
            {
                var made = minutes.Select(minute => Last.AddMinutes(-minute)).ToList();
                var kept = Retention.Kept(made);
                Assert.Contains(made.Max(), kept);
                Assert.Subset(made.ToHashSet(), kept.ToHashSet());
                Assert.True(kept.Count <= Retention.Days + Retention.Weeks + Retention.Months);
            });
}
