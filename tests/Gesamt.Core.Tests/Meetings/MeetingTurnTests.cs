using Gesamt.Core.Meetings;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Meetings;

public sealed class MeetingTurnTests
{
    private static readonly MeetingId M = new(1);

    private static Happening Booked(string from, string until) => new Happening.MeetingBooked(M, At(from), At(until));

    private static Standing Standing(string now, params (string, Happening)[] facts) =>
        TurnRule.Of(Case(facts), At(now));

    [Fact]
    public void An_offered_choice_is_with_the_client_and_fit_waits_for_the_talk()
    {
        var standing = Standing(
            "2027-01-26 12:00",
            ("2027-01-25 09:00", Inquiry),
            ("2027-01-25 10:00", Letter()),
            ("2027-01-25 10:00", new Happening.MeetingOffered(1))
        );
        Assert.Equal((Side.Clients, WaitKind.ChooseTime), (standing.Turn, standing.Waits));
    }

    [Fact]
    public void A_booked_meeting_is_nobodys_until_it_begins_and_yours_from_its_end()
    {
        (string, Happening)[] facts =
        [
            ("2027-01-25 09:00", Inquiry),
            ("2027-01-25 10:00", Letter()),
            ("2027-01-25 10:00", new Happening.MeetingOffered(1)),
            ("2027-01-25 11:00", Booked("2027-01-28 15:00", "2027-01-28 15:30")),
        ];
        var before = Standing("2027-01-27 12:00", facts);
        Assert.Equal((Side.Nobodys, At("2027-01-28 15:00")), (before.Turn, before.Until!.Value));
        var during = Standing("2027-01-28 15:10", facts);
        Assert.Equal(At("2027-01-28 15:30"), during.ValidUntil);
        var after = Standing("2027-01-28 16:30", facts);
        Assert.Equal(
            (Side.Yours, WaitKind.NoteMeeting, At("2027-01-28 15:30")),
            (after.Turn, after.Waits, after.Since!.Value)
        );
        var held = Standing("2027-01-28 17:00", [.. facts, ("2027-01-28 16:40", new Happening.MeetingHeld(M))]);
        Assert.Equal(
            (Side.Yours, WaitKind.DecideFit, At("2027-01-28 16:40")),
            (held.Turn, held.Waits, held.Since!.Value)
        );
    }

    [Fact]
    public void A_meeting_cancelled_by_the_client_is_yours_until_you_answer()
    {
        (string, Happening)[] facts =
        [
            ("2027-01-25 09:00", Inquiry),
            ("2027-01-25 10:00", Letter()),
            ("2027-01-25 11:00", Booked("2027-01-28 15:00", "2027-01-28 15:30")),
            ("2027-01-26 08:00", new Happening.MeetingCancelled(M, true)),
        ];
        var standing = Standing("2027-01-26 12:00", facts);
        Assert.Equal((Side.Yours, WaitKind.MeetingCancelled), (standing.Turn, standing.Waits));
        Assert.NotEqual(
            WaitKind.MeetingCancelled,
            Standing("2027-01-26 13:00", [.. facts, ("2027-01-26 12:30", Letter(5))]).Waits
        );
    }

    [Fact]
    public void Moving_keeps_one_meeting_with_its_new_time()
    {
        var project = Case(
            ("2027-01-25 11:00", Booked("2027-01-28 15:00", "2027-01-28 15:30")),
            ("2027-01-26 11:00", new Happening.MeetingMoved(M, At("2027-01-29 10:00"), At("2027-01-29 10:30")))
        );
        var meeting = Assert.Single(MeetingState.Of(project.History));
        Assert.Equal(
            (At("2027-01-29 10:00"), At("2027-01-25 11:00"), true),
            (meeting.Start, meeting.Booked, meeting.IsStanding)
        );
    }

    [Fact]
    public void A_call_that_was_taken_back_answers_nothing()
    {
        (string, Happening)[] facts =
        [
            ("2027-01-25 09:00", Inquiry),
            ("2027-01-25 10:00", new Happening.CallHeld(new NoteId(1))),
        ];
        Assert.Equal(WaitKind.DecideFit, Standing("2027-01-25 12:00", facts).Waits);
        Assert.Equal(
            WaitKind.AnswerInquiry,
            Standing(
                "2027-01-25 12:00",
                [.. facts, ("2027-01-25 10:01", new Happening.NoteTakenBack(new NoteId(1)))]
            ).Waits
        );
    }
}
