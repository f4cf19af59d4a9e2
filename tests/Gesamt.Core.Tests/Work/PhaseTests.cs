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

    private static Happening Arranged(string before, params (string Name, string? Was)[] phases) =>
        new Happening.PhasesArranged(
            [.. before.Split(' ')],
            [.. phases.Select(phase => new ArrangedPhase(phase.Name, phase.Was))]
        );

    private static string[] Standing(string now, params (string, Happening)[] facts) =>
        [
            .. PhaseRule
                .Of(Case(Kind with { Phases = [.. now.Split(' ').Select(name => new KindPhase(name))] }, [], facts))
                .Select(phase => $"{phase.Name} {phase.State}"),
        ];

    [Fact]
    public void Phases_of_one_project_are_arranged_and_keep_how_they_stand()
    {
        var facts = Booked(
            ("2027-02-01 09:00", Approved("sketch")),
            (
                "2027-02-02 09:00",
                Arranged("survey sketch paint", ("drawing", "sketch"), ("stencils", null), ("paint", "paint"))
            )
        );
        // what an approval began stays begun, though another phase stands between by now
        Assert.Equal(["drawing Done", "stencils Ahead", "paint InWork"], Standing("drawing stencils paint", facts));
        (string, Happening)[] later =
        [
            .. facts,
            ("2027-02-03 09:00", Approved("stencils")),
            ("2027-02-04 09:00", new Happening.ApprovalWithdrawn(new ReviewId(1), "drawing")),
        ];
        Assert.Equal(["drawing InWork", "stencils Done", "paint InWork"], Standing("drawing stencils paint", later));
    }

    [Fact]
    public void A_phase_that_was_dropped_and_comes_back_stands_as_it_stood()
    {
        var facts = Booked(
            ("2027-02-01 09:00", Approved("sketch")),
            ("2027-02-02 09:00", Arranged("survey sketch paint", ("paint", "paint"))),
            ("2027-02-03 09:00", Arranged("paint", ("sketch", null), ("paint", "paint")))
        );
        Assert.Equal(["sketch Done", "paint InWork"], Standing("sketch paint", facts));
    }

    [Fact]
    public void A_round_goes_by_what_its_phase_is_called_now()
    {
        var project = Case(
            Kind,
            [],
            Booked(
                ("2027-02-01 09:00", new Happening.ReviewOpened(new ReviewId(1), "sketch")),
                ("2027-02-02 09:00", Arranged("survey sketch paint", ("drawing", "sketch"))),
                ("2027-02-03 09:00", Arranged("drawing", ("big drawing", "drawing"))),
                ("2027-02-04 09:00", new Happening.ReviewOpened(new ReviewId(2), "big drawing"))
            )
        );
        Assert.Equal(["big drawing", "big drawing"], ReviewRule.Of(project.History).Select(review => review.Phase));
    }
}
