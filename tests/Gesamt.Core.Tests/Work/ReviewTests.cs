using Gesamt.Core.Projects;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

public sealed class ReviewTests
{
    private static Happening Up(long id, string? phase = "sketch") =>
        new Happening.ReviewOpened(new ReviewId(id), phase);

    private static Happening Changes(long id) => new Happening.ChangesAsked(new ReviewId(id), new NoteId(id));

    private static Happening Approved(long id) => new Happening.ReviewApproved(new ReviewId(id), "sketch");

    private static Happening Withdrawn(long id) => new Happening.ReviewWithdrawn(new ReviewId(id));

    private static readonly (string, Happening)[] Booked =
    [
        ("2027-01-04 09:00", Inquiry),
        ("2027-01-05 09:00", Accepted()),
        ("2027-01-05 10:00", Signed(Signer.Client)),
        ("2027-01-05 11:00", Signed(Signer.Owner)),
        ("2027-01-06 09:00", Paid(1200)),
    ];

    private static Case With(params (string, Happening)[] more) => Case([.. Booked, .. more]);

    private static Standing At_(Case project, string when) => TurnRule.Of(project, At(when));

    [Fact]
    public void Rounds_are_counted_and_a_withdrawn_one_is_not()
    {
        var history = With(
            ("2027-02-01 09:00", Up(1)),
            ("2027-02-01 10:00", Withdrawn(1)),
            ("2027-02-02 09:00", Up(2)),
            ("2027-02-03 09:00", Changes(2)),
            ("2027-02-04 09:00", Up(3))
        ).History;
        Assert.Equal([null, 1, 2], ReviewRule.Of(history).Select(review => review.Round));
        Assert.Equal(
            [ReviewState.Withdrawn, ReviewState.Returned, ReviewState.Open],
            ReviewRule.Of(history).Select(review => review.State)
        );
        Assert.Equal(3, ReviewRule.NextRound(history));
        Assert.Equal(new ReviewId(3), ReviewRule.Open(history)!.Id);
    }

    [Fact]
    public void An_open_round_is_the_clients_turn()
    {
        var standing = At_(With(("2027-02-01 09:00", Up(1))), "2027-02-03 09:00");
        Assert.Equal(
            (Side.Clients, WaitKind.Review, "Sketch, round 1: not answered yet"),
            (standing.Turn, standing.Waits, standing.Words)
        );
        Assert.Equal(At("2027-02-01 09:00"), standing.Since);
    }

    [Fact]
    public void Changes_asked_are_yours_since_they_came_until_the_next_round_is_up()
    {
        var back = With(("2027-02-01 09:00", Up(1)), ("2027-02-02 09:00", Changes(1)), ("2027-02-02 10:00", Letter(7)));
        var standing = At_(back, "2027-02-03 09:00");
        Assert.Equal(
            (Side.Yours, WaitKind.ReworkDraft, At("2027-02-02 09:00")),
            (standing.Turn, standing.Waits, standing.Since)
        );
        var again = With(("2027-02-01 09:00", Up(1)), ("2027-02-02 09:00", Changes(1)), ("2027-02-04 09:00", Up(2)));
        Assert.Equal(Side.Clients, At_(again, "2027-02-04 10:00").Turn);
    }

    [Fact]
    public void A_remark_alone_is_yours_until_it_is_answered()
    {
        var remark = new Happening.RemarkLeft(new ReviewId(1), new NoteId(3));
        Assert.Equal(
            WaitKind.AnswerRemark,
            At_(With(("2027-02-01 09:00", Up(1)), ("2027-02-02 09:00", remark)), "2027-02-02 10:00").Waits
        );
        Assert.Equal(
            WaitKind.Review,
            At_(
                With(("2027-02-01 09:00", Up(1)), ("2027-02-02 09:00", remark), ("2027-02-02 09:30", Letter(7))),
                "2027-02-02 10:00"
            ).Waits
        );
    }

    [Fact]
    public void Changes_asked_take_up_the_remarks_before_them() =>
        Assert.Equal(
            WaitKind.ReworkDraft,
            At_(
                With(
                    ("2027-02-01 09:00", Up(1)),
                    ("2027-02-02 09:00", new Happening.RemarkLeft(new ReviewId(1), new NoteId(3))),
                    ("2027-02-02 10:00", Changes(1))
                ),
                "2027-02-02 11:00"
            ).Waits
        );

    [Fact]
    public void An_approved_round_waits_for_nobody_and_can_be_opened_again()
    {
        var approved = With(("2027-02-01 09:00", Up(1)), ("2027-02-02 09:00", Approved(1)));
        Assert.Null(ReviewRule.Open(approved.History));
        var reopened = With(
            ("2027-02-01 09:00", Up(1)),
            ("2027-02-02 09:00", Approved(1)),
            ("2027-02-03 09:00", new Happening.ApprovalWithdrawn(new ReviewId(1), "sketch"))
        );
        Assert.Equal(ReviewState.Open, ReviewRule.Open(reopened.History)!.State);
    }

    [Fact] // R3 (4): a gate of Delivery that needs only you counts when no task or review is open
    public void Handing_over_is_not_asked_for_while_a_round_is_open() =>
        Assert.DoesNotContain(
            WaitKind.HandOver,
            new[] { At_(With(("2027-02-01 09:00", Up(1))), "2027-02-03 09:00").Waits }
        );

    [Theory]
    [
        InlineData("paint", 3, "Paint, round 3 of 3"),
        InlineData("paint", 4, "Paint, round 4"),
        InlineData(null, 1, "Round 1 of 3")
    ]
    public void A_round_beyond_what_was_agreed_is_not_one_of_them(string? phase, int round, string title) =>
        Assert.Equal(title, ReviewRule.Title(phase, round, agreed: 3));
}
