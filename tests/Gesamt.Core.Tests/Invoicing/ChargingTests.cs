using Gesamt.Core.Invoicing;

namespace Gesamt.Core.Tests.Invoicing;

public class ChargingTests
{
    [Fact] // R5: again 3, 5 and 7 days after the first attempt, then it is the owner's
    public void Attempts_are_counted_from_the_first()
    {
        LocalDate first = new(2027, 2, 26);
        Assert.Equal(
            [first, new(2027, 3, 1), new(2027, 3, 3), new(2027, 3, 5), (LocalDate?)null],
            Enumerable.Range(0, 5).Select(made => Charging.Next(first, made))
        );
    }

    [Fact]
    public void Consent_holds_until_it_is_taken_back_and_a_new_one_is_a_new_one()
    {
        var (one, other) = (new KeptMeansId(1), new KeptMeansId(2));
        Assert.Null(Charging.Kept(World.Case().History));
        Assert.Equal(one, Charging.Kept(World.Case(("2027-01-25 10:00", new Happening.MeansKept(one))).History));
        (string, Happening)[] back =
        [
            ("2027-01-25 10:00", new Happening.MeansKept(one)),
            ("2027-01-26 10:00", new Happening.ConsentTakenBack(one)),
        ];
        Assert.Null(Charging.Kept(World.Case(back).History));
        Assert.Equal(
            other,
            Charging.Kept(World.Case([.. back, ("2027-01-27 10:00", new Happening.MeansKept(other))]).History)
        );
    }

    [Fact]
    public void What_was_stopped_runs_no_more()
    {
        var (one, other) = (new RecurringId(1), new RecurringId(2));
        Happening Begun(RecurringId id) => new Happening.RecurringBegun(id, World.Eur(120), Every.Month);
        Assert.Equal(
            [other],
            RecurringInvoices.Running(
                World
                    .Case(
                        ("2027-01-25 10:00", Begun(one)),
                        ("2027-01-25 11:00", Begun(other)),
                        ("2027-02-25 10:00", new Happening.RecurringStopped(one))
                    )
                    .History
            )
        );
    }
}
