namespace Gesamt.Core.Tests.Calendar;

public class AgeLimitTests
{
    [Theory] // common practice
    [InlineData(2, 8, "under 2 days", "2 to 7 days", "8 days and more")]
    [InlineData(1, 2, "under a day", "1 day", "2 days and more")]
    [InlineData(5, 30, "under 5 days", "5 to 29 days", "30 days and more")]
    public void The_columns_say_their_days(int waiting, int old, string fresh, string middle, string oldest)
    {
        var limits = new AgeLimits(waiting, old);
        Assert.Equal(
            (fresh, middle, oldest),
            (limits.Words(AgeBand.Fresh), limits.Words(AgeBand.Waiting), limits.Words(AgeBand.Old))
        );
    }

    [Fact]
    public void Each_column_holds_what_its_words_say() =>
        Gen.Select(Gen.Int[1, 20], Gen.Int[1, 40], Gen.Int[0, 90])
            .Sample(
                (waiting, more, days) =>
                {
                    var (limits, band) = (
                        new AgeLimits(waiting, waiting + more),
                        new AgeLimits(waiting, waiting + more).BandOf(new(days, 0))
                    );
                    Assert.Equal(
                        days < waiting ? AgeBand.Fresh
                            : days < waiting + more ? AgeBand.Waiting
                            : AgeBand.Old,
                        band
                    );
                    Assert.Contains(
                        band == AgeBand.Old ? $"{waiting + more} days and more"
                            : band == AgeBand.Waiting ? $"{waiting}"
                            : "under",
                        limits.Words(band)
                    );
                }
            );
}
