using Gesamt.Core.Briefs;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Briefs;

public sealed class BriefTests
{
    [Fact]
    public void An_approval_counts_for_the_text_that_was_shown_and_for_no_other()
    {
        var put = ("2027-01-25 09:00", (Happening)new Happening.BriefPut("a"));
        Assert.True(BriefRule.Of(Case(put).History).IsOpen);
        Assert.Equal(
            At("2027-01-25 10:00"),
            BriefRule.Of(Case(put, ("2027-01-25 10:00", new Happening.BriefApproved("a"))).History).Approved
        );
        Assert.Null(BriefRule.Of(Case(put, ("2027-01-25 10:00", new Happening.BriefApproved("b"))).History).Approved);
        // put again: what was approved before is not this
        Assert.True(
            BriefRule
                .Of(
                    Case(
                        put,
                        ("2027-01-25 10:00", new Happening.BriefApproved("a")),
                        ("2027-01-26 09:00", new Happening.BriefPut("b"))
                    ).History
                )
                .IsOpen
        );
        Assert.Null(BriefRule.Of(Case(put, ("2027-01-25 10:00", new Happening.BriefTakenBack())).History).Put);
    }

    [Fact]
    public void A_brief_that_is_out_is_the_clients_turn_and_a_remark_is_yours()
    {
        (string, Happening)[] facts =
        [
            ("2027-01-20 09:00", Inquiry),
            ("2027-01-20 10:00", Fit),
            ("2027-01-20 11:00", Sent()),
            ("2027-01-21 09:00", Accepted()),
            ("2027-01-21 10:00", ContractSent),
            ("2027-01-21 11:00", Signed(Signer.Client)),
            ("2027-01-21 12:00", Signed(Signer.Owner)),
            ("2027-01-21 13:00", Paid(3000)),
            ("2027-01-22 09:00", new Happening.BriefPut("a")),
        ];
        var project = Case(facts).With(new OpenTask(new(1), "Paint", Date("2027-06-01")));
        var standing = TurnRule.Of(project, At("2027-01-23 09:00"));
        Assert.Equal((Side.Clients, WaitKind.ApproveBrief), (standing.Turn, standing.Waits));
        var remarked = TurnRule.Of(
            Case([.. facts, ("2027-01-23 08:00", new Happening.BriefRemarked(new NoteId(1)))])
                .With(new OpenTask(new(1), "Paint", Date("2027-06-01"))),
            At("2027-01-23 09:00")
        );
        Assert.Equal((Side.Yours, WaitKind.BriefRemarked), (remarked.Turn, remarked.Waits));
    }

    [Fact]
    public void Obstacles_come_back_in_the_phase_they_concern()
    {
        var phases = new Dictionary<string, PhaseState>
        {
            ["sketch"] = PhaseState.Done,
            ["paint"] = PhaseState.InWork,
            ["varnish"] = PhaseState.Ahead,
        };
        Assert.Equal(
            ["damp in the corner", "the neighbour"],
            BriefRule.ToWatch(
                "sketch: the beams are listed\nPaint: damp in the corner\nthe neighbour\nvarnish: rain",
                phases
            )
        );
        Assert.Empty(
            BriefRule.ToWatch("the neighbour", new Dictionary<string, PhaseState> { ["sketch"] = PhaseState.Ahead })
        );
    }

    [Fact]
    public void Follow_ups_of_an_inquiry_begin_at_once_or_when_it_was_read()
    {
        var waits = KindRules.Default with { FollowUps = FollowUps.WhenRead };
        var came = ("2027-01-20 09:00", Inquiry);
        Assert.True(Causes.Begins(Case(came), Cause.InquiryCame));
        Assert.False(Causes.Begins(Case(waits, [], came), Cause.InquiryCame));
        var read = Case(waits, [], came, ("2027-01-21 10:00", new Happening.InquiryRead(true)));
        Assert.True(Causes.Begins(read, Cause.InquiryCame));
        // and they are counted from then
        Assert.Equal(At("2027-01-21 10:00"), Assert.Single(Causes.Of(read, Cause.InquiryCame)).At);
        Assert.False(
            Causes.Begins(Case(came, ("2027-01-20 10:00", new Happening.InquiryRead(false))), Cause.InquiryCame)
        );
    }

    [Fact]
    public void What_was_before_a_project_was_taken_over_begins_nothing()
    {
        (string, Happening)[] old = [("2027-01-20 09:00", Sent()), ("2027-01-20 09:00", new Happening.Imported())];
        Assert.False(Causes.Begins(Case(old), Cause.ProposalSent));
        Assert.True(Causes.Begins(Case([.. old, ("2027-01-21 09:00", Sent())]), Cause.ProposalSent));
    }
}
