using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Facts;

public class HistoryTests
{
    private static Fact Fact(long id, string happened, string recorded, Happening what) =>
        new(new FactId(id), new ProjectId(1), At(happened), At(recorded), Actor.Owner, what);

    [Fact]
    public void Facts_stand_in_the_order_they_were_recorded_whatever_order_they_come_in() =>
        Assert.Equal(
            [1L, 2L, 3L],
            new History([
                Fact(3, "2027-01-01 09:00", "2027-01-06 09:00", Fit),
                Fact(2, "2027-01-05 09:00", "2027-01-05 09:00", Letter()),
                Fact(1, "2027-01-04 09:00", "2027-01-05 09:00", Inquiry),
            ]).Facts.Select(fact => fact.Id.Value)
        );

    [Fact]
    public void What_happened_first_began_it_also_when_recorded_later() =>
        Assert.Equal(
            At("2027-01-01 09:00"),
            new History([
                Fact(1, "2027-01-04 09:00", "2027-01-04 09:00", Inquiry),
                Fact(2, "2027-01-01 09:00", "2027-01-06 09:00", Fit),
            ]).Began
        );

    [Fact] // gates follow what happened, stop rules what was recorded
    public void A_backdated_fact_counts_from_when_it_happened()
    {
        var project = Case(("2027-01-04 09:00", Inquiry)) with
        {
            History = new([
                Fact(1, "2027-01-04 09:00", "2027-01-04 09:00", Inquiry),
                Fact(2, "2027-01-05 12:00", "2027-01-09 09:00", Fit),
            ]),
        };
        Assert.Equal(At("2027-01-05 12:00"), Core.Stages.GateRule.Read(project)[0].ClosedAt);
    }

    [Fact]
    public void The_last_of_a_kind_is_found_and_none_is_none()
    {
        var history = Case(
            ("2027-01-04 09:00", OpeningDay("2027-03-01")),
            ("2027-01-05 09:00", OpeningDay("2027-03-12"))
        ).History;
        Assert.Equal(Date("2027-03-12"), history.Last<Happening.DateSet>()!.Value.What.Date);
        Assert.Null(history.Last<Happening.Ended>());
        Assert.Null(new History([]).Began);
    }
}
