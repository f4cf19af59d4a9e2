using Gesamt.Core.Turns;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Turns;

/// <summary>The buttons of the present gate: what it waits for first.</summary>
public sealed class NextActTests
{
    private static readonly (string, Happening)[] Inquiry = [("2027-01-04 09:00", new Happening.InquiryCame(null))];

    private static NextAct[] Of(string now, params (string, Happening)[] facts)
    {
        var project = Case(facts);
        return [.. NextActs.Of(project, TurnRule.Of(project, At(now)), At(now))];
    }

    [Fact]
    public void An_inquiry_is_answered_first_and_may_be_called_a_fit() =>
        Assert.Equal([NextAct.AnswerInquiry, NextAct.SayFit], Of("2027-01-04 10:00", Inquiry));

    [Fact]
    public void After_a_fit_the_proposal_is_written() =>
        Assert.Equal(
            [NextAct.WriteProposal],
            Of(
                "2027-01-05 10:00",
                [
                    .. Inquiry,
                    ("2027-01-04 10:00", new Happening.LetterSent(new(1), false)),
                    ("2027-01-04 10:00", new Happening.MarkedFit()),
                ]
            )
        );

    [Fact]
    public void A_letter_is_answered_or_needs_no_answer() =>
        Assert.Equal(
            [NextAct.AnswerLetter, NextAct.NoAnswerNeeded, NextAct.SayFit],
            Of(
                "2027-01-06 10:00",
                [
                    .. Inquiry,
                    ("2027-01-04 10:00", new Happening.LetterSent(new(1), false)),
                    ("2027-01-05 10:00", new Happening.LetterReceived(new(2), false)),
                ]
            )
        );

    [Fact]
    public void What_ended_is_put_away_once()
    {
        (string, Happening)[] ended = [.. Inquiry, ("2027-01-05 10:00", new Happening.Ended(EndReason.Lost))];
        Assert.Equal([NextAct.PutAway], Of("2027-01-06 10:00", ended));
        Assert.Empty(Of("2027-01-06 10:00", [.. ended, ("2027-01-05 11:00", new Happening.PutAway())]));
    }
}
