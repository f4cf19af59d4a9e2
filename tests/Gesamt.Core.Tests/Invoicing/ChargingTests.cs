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
    public void While_it_is_tried_again_nobody_needs_a_reminder()
    {
        var (means, invoice) = (new KeptMeansId(1), new InvoiceId(7));
        bool Tried(params (string, Happening)[] facts) => Charging.IsTriedAgain(World.Case(facts).History, invoice);
        Happening Refused(LocalDate? again, long of = 7) => new Happening.ChargeRefused(new(of), World.Eur(120), again);
        (string, Happening) kept = ("2027-01-20 10:00", new Happening.MeansKept(means));
        LocalDate again = new(2027, 1, 28);
        Assert.False(Tried(kept));
        Assert.True(Tried(kept, ("2027-01-25 10:00", Refused(again))));
        Assert.False(Tried(kept, ("2027-01-25 10:00", Refused(again, of: 8))));
        // the last has failed, or there is no consent any more
        Assert.False(Tried(kept, ("2027-01-25 10:00", Refused(again)), ("2027-02-01 10:00", Refused(null))));
        Assert.False(
            Tried(
                kept,
                ("2027-01-25 10:00", Refused(again)),
                ("2027-01-26 10:00", new Happening.ConsentTakenBack(means))
            )
        );
        Assert.False(Tried(("2027-01-25 10:00", Refused(again))));
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
