using Gesamt.Core.Projects;
using Gesamt.Core.Turns;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Turns;

/// <summary>What the owner is offered under “What happened?”, along the life of a project.</summary>
public sealed class PossibleNowTests
{
    private static readonly Instant Now = At("2027-03-01 09:00");

    private static HappenedSort[] Of(params (string, Happening)[] facts) => Of(Case(facts));

    private static HappenedSort[] Of(Case project) => [.. PossibleNow.Of(project, TurnRule.Of(project, Now), Now)];

    [Fact]
    public void An_inquiry_is_judged_answered_agreed_or_let_go()
    {
        var possible = Of(("2027-02-01 10:00", Inquiry));
        Assert.Equal(
            [
                HappenedSort.Fit,
                HappenedSort.NotAFit,
                HappenedSort.NoAnswerNeeded,
                HappenedSort.Read,
                HappenedSort.Call,
                HappenedSort.BookedStraightAway,
                HappenedSort.PriceAgreed,
                HappenedSort.SignedOnPaper,
                HappenedSort.Waived,
                HappenedSort.Rest,
                HappenedSort.Referred,
                HappenedSort.Lost,
                HappenedSort.GoneQuiet,
                HappenedSort.NotAnInquiry,
            ],
            possible
        );
    }

    [Fact]
    public void What_is_settled_is_not_offered_again()
    {
        var possible = Of(
            ("2027-02-01 10:00", Inquiry),
            ("2027-02-01 11:00", Fit),
            ("2027-02-01 12:00", Letter()),
            ("2027-02-02 10:00", Sent()),
            ("2027-02-03 10:00", Accepted())
        );
        Assert.DoesNotContain(HappenedSort.Fit, possible);
        Assert.DoesNotContain(HappenedSort.NoAnswerNeeded, possible);
        Assert.DoesNotContain(HappenedSort.PriceAgreed, possible);
        Assert.DoesNotContain(HappenedSort.BookedStraightAway, possible);
        Assert.Contains(HappenedSort.Paid, possible);
        Assert.Contains(HappenedSort.SignedOnPaper, possible);
    }

    public static TheoryData<HappenedSort, (string, Happening)[]> Likeliest =>
        new()
        {
            { HappenedSort.Fit, [] },
            { HappenedSort.Call, [("2027-02-01 12:00", Letter()), ("2027-02-02 09:00", Answer())] },
            { HappenedSort.PriceAgreed, [("2027-02-01 11:00", Fit), ("2027-02-02 10:00", Sent())] },
            {
                HappenedSort.SignedOnPaper,
                [("2027-02-01 12:00", Letter()), ("2027-02-03 10:00", Accepted()), ("2027-02-03 10:00", ContractSent)]
            },
            {
                HappenedSort.Countersign,
                [
                    ("2027-02-01 12:00", Letter()),
                    ("2027-02-03 10:00", Accepted()),
                    ("2027-02-03 10:00", ContractSent),
                    ("2027-02-04 10:00", Signed(Signer.Client)),
                ]
            },
        };

    [Theory, MemberData(nameof(Likeliest))]
    public void The_likeliest_stands_first(HappenedSort first, (string, Happening)[] facts) =>
        Assert.Equal(first, Of([("2027-02-01 10:00", Inquiry), .. facts])[0]);

    [Fact]
    public void A_signature_waits_for_the_other()
    {
        Assert.Contains(
            HappenedSort.Countersign,
            Of(
                ("2027-02-01 10:00", Inquiry),
                ("2027-02-01 12:00", Letter()),
                ("2027-02-03 10:00", Accepted()),
                ("2027-02-03 10:00", ContractSent),
                ("2027-02-04 10:00", Signed(Signer.Client))
            )
        );
    }

    [Fact]
    public void Work_is_handed_over_once_and_approved_once_after_it()
    {
        (string, Happening)[] won =
        [
            ("2027-02-01 10:00", Inquiry),
            ("2027-02-03 10:00", Accepted()),
            ("2027-02-03 10:00", ContractSent),
            ("2027-02-04 10:00", Signed(Signer.Client)),
            ("2027-02-04 11:00", Signed(Signer.Owner)),
            ("2027-02-05 10:00", Paid(1200)),
        ];
        Assert.Contains(HappenedSort.HandedOver, Of(won));
        Assert.DoesNotContain(HappenedSort.Approved, Of(won));
        Assert.Contains(HappenedSort.Cancelled, Of(won));
        Assert.Contains(HappenedSort.NotWonAfterAll, Of(won));
        Assert.DoesNotContain(HappenedSort.Lost, Of(won));
        var handed = Of([.. won, ("2027-02-20 10:00", new Happening.HandedOver())]);
        Assert.DoesNotContain(HappenedSort.HandedOver, handed);
        Assert.Contains(HappenedSort.Approved, handed);
        Assert.DoesNotContain(
            HappenedSort.Approved,
            Of([
                .. won,
                ("2027-02-20 10:00", new Happening.HandedOver()),
                ("2027-02-21 10:00", new Happening.Approved()),
            ])
        );
    }

    [Fact] // paid in full, nothing more is owed
    public void Nothing_is_paid_twice() =>
        Assert.DoesNotContain(
            HappenedSort.Paid,
            Of(("2027-02-01 10:00", Inquiry), ("2027-02-03 10:00", Accepted()), ("2027-02-05 10:00", Paid(3000)))
        );

    [Fact]
    public void What_rests_goes_on_and_what_ended_is_taken_up()
    {
        var rest = new Happening.RestBegan(Date("2027-04-01"));
        Assert.Contains(HappenedSort.GoOn, Of(("2027-02-01 10:00", Inquiry), ("2027-02-02 10:00", rest)));
        Assert.DoesNotContain(HappenedSort.Rest, Of(("2027-02-01 10:00", Inquiry), ("2027-02-02 10:00", rest)));
        Assert.Equal(
            [HappenedSort.TakenUp, HappenedSort.Call],
            Of(("2027-02-01 10:00", Inquiry), ("2027-02-02 10:00", new Happening.Ended(EndReason.Lost)))
        );
    }
}
