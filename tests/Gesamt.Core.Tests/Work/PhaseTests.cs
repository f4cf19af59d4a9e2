using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

public sealed class PhaseTests
{
    private static readonly KindRules Kind = KindRules.Default with { Phases = ["survey", "sketch", "paint"] };

    private static string States(params (string, Happening)[] facts) =>
        string.Join(", ", PhaseRule.Of(Case(Kind, [], facts)).Select(phase => phase.State));

    private static (string, Happening)[] Booked(params (string, Happening)[] more) =>
        [
            ("2027-01-04 09:00", Inquiry),
            ("2027-01-05 09:00", Accepted()),
            ("2027-01-05 10:00", Signed(Signer.Client)),
            ("2027-01-05 11:00", Signed(Signer.Owner)),
            ("2027-01-06 09:00", Paid(1200)),
            .. more,
        ];

    private static Happening Approved(string? phase) => new Happening.ReviewApproved(new ReviewId(1), phase);

    [Fact]
    public void All_are_ahead_until_the_project_is_booked_then_the_first_is_in_work()
    {
        Assert.Equal("Ahead, Ahead, Ahead", States(("2027-01-04 09:00", Inquiry)));
        Assert.Equal("InWork, Ahead, Ahead", States(Booked()));
    }

    [Fact]
    public void An_approval_closes_its_phase_and_begins_the_next() =>
        Assert.Equal("Ahead, Done, InWork", States(Booked(("2027-02-01 09:00", Approved("sketch")))));

    [Fact]
    public void A_withdrawn_approval_reopens_the_phase() =>
        Assert.Equal(
            "Ahead, InWork, InWork",
            States(
                Booked(
                    ("2027-02-01 09:00", Approved("sketch")),
                    ("2027-02-02 09:00", new Happening.ApprovalWithdrawn(new ReviewId(1), "sketch"))
                )
            )
        );

    [Fact]
    public void The_owner_changes_any_phase_freely()
    {
        var facts = Booked(
            ("2027-02-01 09:00", new Happening.PhaseSet("survey", PhaseState.Resting)),
            ("2027-02-02 09:00", new Happening.PhaseSet("paint", PhaseState.Done))
        );
        Assert.Equal("Resting, Ahead, Done", States(facts));
        Assert.Equal(At("2027-02-01 09:00"), PhaseRule.Of(Case(Kind, [], facts))[0].Since);
    }

    [Fact]
    public void An_approval_without_a_phase_moves_none() =>
        Assert.Equal("InWork, Ahead, Ahead", States(Booked(("2027-02-01 09:00", Approved(null)))));

    [Fact]
    public void What_the_owner_did_to_the_next_phase_stays() =>
        Assert.Equal(
            "Ahead, Done, Resting",
            States(
                Booked(
                    ("2027-01-20 09:00", new Happening.PhaseSet("paint", PhaseState.Resting)),
                    ("2027-02-01 09:00", Approved("sketch"))
                )
            )
        );
}
