using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Stages;

/// <summary>A kind's own steps inside gates: seen on the way, and no gate waits for them.</summary>
public sealed class MilestoneTests
{
    private static readonly KindRules Kind = KindRules.Default with
    {
        GateWords = [new(Gate.Delivery, "Printing")],
        Milestones =
        [
            new("call held", Gate.Lead, MilestoneSign.CallHeld),
            new("brief approved", Gate.Proposal, MilestoneSign.BriefApproved),
            new("proof printed", Gate.Delivery, MilestoneSign.Said),
        ],
    };

    private static Case Of(params (string When, Happening What)[] facts) => Case(Kind, [], facts);

    [Fact]
    public void Each_is_reached_by_the_first_fact_of_its_sort()
    {
        var reached = MilestoneRule
            .Of(
                Of(
                    ("2027-01-04 09:00", new Happening.InquiryCame(null)),
                    ("2027-01-05 10:00", new Happening.CallHeld(new(1))),
                    ("2027-01-09 10:00", new Happening.CallHeld(new(2)))
                )
            )
            .Select(one => one.ReachedAt);
        Assert.Equal([At("2027-01-05 10:00"), null, null], reached);
    }

    [Fact]
    public void One_that_is_said_is_reached_by_its_own_name_alone()
    {
        Assert.Null(
            MilestoneRule.LastReached(Of(("2027-01-05 10:00", new Happening.MilestoneReached("something else"))))
        );
        Assert.Equal(
            "proof printed",
            MilestoneRule.LastReached(
                Of(
                    ("2027-01-05 10:00", new Happening.CallHeld(new(1))),
                    ("2027-02-05 10:00", new Happening.MilestoneReached("proof printed"))
                )
            )
        );
    }

    [Fact]
    public void What_is_reached_is_not_offered_to_be_said_again()
    {
        Assert.Equal(["proof printed"], PossibleNow.MilestonesToSay(Of()));
        Assert.Empty(
            PossibleNow.MilestonesToSay(Of(("2027-02-05 10:00", new Happening.MilestoneReached("proof printed"))))
        );
    }

    [Fact]
    public void No_gate_waits_for_one() =>
        Assert.True(GateRule.Read(Of(("2027-01-05 10:00", new Happening.MarkedFit())))[0].IsClosed);

    [Fact]
    public void A_kind_may_word_a_gate_its_own_way() =>
        Assert.Equal(("Printing", "Lead"), (Kind.NameOf(Gate.Delivery), Kind.NameOf(Gate.Lead)));
}
