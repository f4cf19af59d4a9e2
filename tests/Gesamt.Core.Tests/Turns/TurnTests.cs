using Gesamt.Core.Projects;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Turns;

public class TurnTests
{
    private static Standing At(string now, params (string, Happening)[] facts) =>
        TurnRule.Of(Case(facts), World.At(now));

    [Fact]
    public void A_new_inquiry_is_yours_since_it_came()
    {
        var standing = At("2027-01-25 10:30", ("2027-01-22 09:00", Inquiry));
        Assert.Equal(
            (Side.Yours, WaitKind.AnswerInquiry, World.At("2027-01-22 09:00")),
            (standing.Turn, standing.Waits, standing.Since!.Value)
        );
    }

    [Fact]
    public void A_letter_sent_by_itself_answers_nothing() =>
        Assert.Equal(
            WaitKind.AnswerInquiry,
            At(
                "2027-01-25 10:30",
                ("2027-01-22 09:00", Inquiry),
                ("2027-01-22 09:01", new Happening.LetterSent(new LetterId(1), true))
            ).Waits
        );

    [Fact]
    public void An_automatic_reply_is_no_answer_from_the_client() =>
        Assert.Equal(
            WaitKind.DecideFit,
            At(
                "2027-01-25 10:30",
                ("2027-01-22 09:00", Inquiry),
                ("2027-01-22 10:00", Letter()),
                ("2027-01-22 10:01", new Happening.LetterReceived(new LetterId(2), true))
            ).Waits
        );

    [Fact] // common practice: an answer at any age ends the client's turn at once
    public void An_answer_makes_it_yours_at_once()
    {
        var standing = At(
            "2027-02-25 10:30",
            ("2027-01-05 09:00", Inquiry),
            ("2027-01-05 10:00", Fit),
            ("2027-01-06 09:00", Sent()),
            ("2027-02-25 10:29", Answer())
        );
        Assert.Equal(
            (Side.Yours, WaitKind.AnswerLetter, World.At("2027-02-25 10:29")),
            (standing.Turn, standing.Waits, standing.Since!.Value)
        );
    }

    [Theory]
    [
        InlineData(0, "Not opened yet"),
        InlineData(1, "Opened, not chosen"),
        InlineData(2, "Opened twice, not chosen"),
        InlineData(3, "Opened 3 times, not chosen")
    ]
    public void A_proposal_is_the_clients_turn_and_says_whether_it_was_opened(int times, string words)
    {
        var opened = Enumerable.Range(0, times).Select(i => ($"2027-01-2{i} 10:00", Opened));
        var standing = At("2027-01-25 10:30", [("2027-01-18 09:00", Inquiry), ("2027-01-19 09:00", Sent()), .. opened]);
        Assert.Equal((Side.Clients, words), (standing.Turn, standing.Words));
    }

    [Fact]
    public void A_proposal_that_ran_out_is_yours_and_the_standing_says_when_that_happens()
    {
        var before = At("2027-02-01 10:30", ("2027-01-19 09:00", Sent("2027-02-01")));
        Assert.Equal((Side.Clients, World.At("2027-02-02 00:00")), (before.Turn, before.ValidUntil!.Value));
        var after = At("2027-02-02 00:00", ("2027-01-19 09:00", Sent("2027-02-01")));
        Assert.Equal((Side.Yours, WaitKind.RanOut), (after.Turn, after.Waits));
    }

    [Fact]
    public void A_signed_contract_waits_for_your_signature() =>
        Assert.Equal(
            WaitKind.Countersign,
            At(
                "2027-01-25 10:30",
                ("2027-01-18 09:00", Sent()),
                ("2027-01-20 09:00", Accepted()),
                ("2027-01-20 09:00", ContractSent),
                ("2027-01-25 07:12", Signed(Signer.Client))
            ).Waits
        );

    [Fact]
    public void A_task_is_yours_from_the_start_of_its_due_day()
    {
        var project = Case(
                ("2027-01-08 09:00", Accepted(3000, 0)),
                ("2027-01-08 09:00", Signed(Signer.Client)),
                ("2027-01-08 09:00", Signed(Signer.Owner))
            )
            .With(new OpenTask(new TaskId(1), "Order scaffold", Date("2027-02-12")));
        var before = TurnRule.Of(project, World.At("2027-02-11 23:59"));
        Assert.Equal((Side.Nobodys, World.At("2027-02-12 00:00")), (before.Turn, before.ValidUntil!.Value));
        var due = TurnRule.Of(project, World.At("2027-02-12 00:00"));
        Assert.Equal(
            (Side.Yours, "Order scaffold", World.At("2027-02-12 00:00")),
            (due.Turn, due.Words, due.Since!.Value)
        );
    }

    [Fact]
    public void A_rest_is_nobodys_until_its_date_and_a_letter_ends_it()
    {
        (string, Happening)[] resting =
        [
            ("2027-01-05 09:00", Inquiry),
            ("2027-01-06 09:00", new Happening.RestBegan(Date("2027-02-11"))),
        ];
        Assert.Equal(
            (Side.Nobodys, World.At("2027-02-11 00:00")),
            (At("2027-01-25 10:30", resting).Turn, At("2027-01-25 10:30", resting).Until!.Value)
        );
        Assert.Equal(Side.Yours, At("2027-02-11 00:00", resting).Turn);
        Assert.Equal(Side.Yours, At("2027-01-25 10:30", [.. resting, ("2027-01-20 09:00", Answer())]).Turn);
    }

    [Fact]
    public void A_rest_without_a_date_asks_again_after_14_days()
    {
        (string, Happening)[] resting =
        [
            ("2027-01-05 09:00", Inquiry),
            ("2027-01-06 09:00", new Happening.RestBegan(null)),
        ];
        Assert.Equal(Side.Nobodys, At("2027-01-20 08:59", resting).Turn);
        Assert.Equal(WaitKind.AskAgain, At("2027-01-20 09:00", resting).Waits);
    }

    [Fact]
    public void An_ended_project_is_nobodys_until_the_client_writes()
    {
        (string, Happening)[] ended =
        [
            ("2027-01-05 09:00", Inquiry),
            ("2027-01-08 09:00", new Happening.Ended(EndReason.GoneQuiet)),
        ];
        Assert.Equal(
            (Side.Nobodys, EndReason.GoneQuiet),
            (At("2027-01-25 10:30", ended).Turn, At("2027-01-25 10:30", ended).Ended!.Value)
        );
        Assert.Equal(Side.Yours, At("2027-01-25 10:30", [.. ended, ("2027-01-20 09:00", Answer())]).Turn);
        Assert.Null(At("2027-01-25 10:30", [.. ended, ("2027-01-20 09:00", new Happening.TakenUp())]).Ended);
    }

    [Fact]
    public void Late_money_has_a_clock_of_its_own()
    {
        (string, Happening)[] invoiced =
        [
            ("2027-01-05 09:00", Accepted()),
            ("2027-01-05 09:00", Signed(Signer.Client)),
            ("2027-01-05 10:00", Signed(Signer.Owner)),
            ("2027-01-06 09:00", new Happening.InvoiceIssued(new InvoiceId(1), Eur(1200), Date("2027-01-20"))),
        ];
        Assert.Null(At("2027-01-20 23:00", invoiced).LateSince);
        Assert.Equal(Date("2027-01-20"), At("2027-01-21 00:00", invoiced).LateSince);
        Assert.Equal(World.At("2027-01-21 00:00"), At("2027-01-20 23:00", invoiced).ValidUntil);
        Assert.Null(At("2027-01-25 10:30", [.. invoiced, ("2027-01-22 09:00", Paid(1200, 1, invoice: 1))]).LateSince);
    }

    [Fact]
    public void Nothing_changes_before_valid_until()
    {
        Happening[] kinds =
        [
            Inquiry,
            Fit,
            Letter(),
            Answer(),
            Sent("2027-02-10"),
            Opened,
            Accepted(),
            ContractSent,
            Signed(Signer.Client),
            Signed(Signer.Owner),
            Paid(1200),
            new Happening.RestBegan(Date("2027-02-03")),
            new Happening.RestBegan(null),
            new Happening.Ended(EndReason.Lost),
            new Happening.TakenUp(),
            new Happening.InvoiceIssued(new InvoiceId(1), Eur(1200), Date("2027-02-05")),
            OpeningDay("2027-03-12"),
            new Happening.HandedOver(),
            new Happening.Approved(),
        ];
        Gen.Select(
                Gen.Select(Gen.Int[0, 500], Gen.Int[0, kinds.Length - 1].Select(i => kinds[i])).Array[1, 14],
                Gen.Int[0, 1500],
                Gen.Double[0, 1]
            )
            .Sample(
                (facts, hours, part) =>
                {
                    var start = World.At("2027-01-04 00:00");
                    var project = Case([
                            .. facts
                                .OrderBy(f => f.Item1)
                                .Select(f =>
                                    (
                                        (start + Duration.FromHours(f.Item1))
                                            .InZone(Dublin)
                                            .ToString("uuuu-MM-dd HH:mm", null),
                                        f.Item2
                                    )
                                ),
                        ])
                        .With(new OpenTask(new TaskId(1), "Prime the wall", Date("2027-02-01")));
                    var now = start + Duration.FromHours(500 + hours);
                    var standing = TurnRule.Of(project, now);
                    Assert.True(standing.ValidUntil is null || standing.ValidUntil > now);
                    var end = standing.ValidUntil ?? now + Duration.FromDays(400);
                    var later = now + (end - now) * part;
                    if (later >= end)
                        return;
                    Assert.Equal(standing, TurnRule.Of(project, later));
                },
                iter: 3_000
            );
    }

    private static readonly (string, Happening)[] Finished =
    [
        ("2027-01-05 09:00", Inquiry),
        ("2027-01-06 09:00", Accepted(3000, 0)),
        ("2027-01-06 09:00", Signed(Signer.Client)),
        ("2027-01-06 10:00", Signed(Signer.Owner)),
        ("2027-02-01 09:00", new Happening.HandedOver()),
        ("2027-02-02 09:00", new Happening.Approved()),
        ("2027-02-03 09:00", Paid(3000)),
    ];

    [Fact] // “it is peeling off”
    public void A_letter_after_the_finish_is_yours_at_once()
    {
        Assert.Equal(Side.Nobodys, At("2027-03-01 09:00", Finished).Turn);
        var standing = At("2027-03-01 09:00", [.. Finished, ("2027-02-20 14:00", Answer())]);
        Assert.Equal(
            (Side.Yours, WaitKind.AnswerLetter, World.At("2027-02-20 14:00")),
            (standing.Turn, standing.Waits, standing.Since!.Value)
        );
    }

    [Fact]
    public void A_task_after_the_finish_counts_when_it_is_due()
    {
        var project = Case(Finished).With(new OpenTask(new TaskId(1), "Look at the wall again", Date("2027-03-10")));
        Assert.Equal(
            (Side.Nobodys, World.At("2027-03-10 00:00")),
            (
                TurnRule.Of(project, World.At("2027-03-09 23:00")).Turn,
                TurnRule.Of(project, World.At("2027-03-09 23:00")).ValidUntil!.Value
            )
        );
        Assert.Equal(
            (Side.Yours, "Look at the wall again"),
            (
                TurnRule.Of(project, World.At("2027-03-10 00:00")).Turn,
                TurnRule.Of(project, World.At("2027-03-10 00:00")).Words
            )
        );
    }

    private static Happening Agreed =>
        new Happening.PriceAgreed(
            V1,
            Eur(3000),
            Eur(1200),
            Eur(3000),
            [new(Eur(1200), new DueRule.OnBooking(7)), new(Eur(1800), new DueRule.OnHandover(14))]
        );

    [Fact]
    public void A_price_agreed_by_phone_answers_the_inquiry_and_waits_for_its_contract()
    {
        (string, Happening)[] facts = [("2027-01-05 09:00", Inquiry), ("2027-01-06 09:00", Agreed)];
        Assert.Equal(
            (Side.Yours, WaitKind.SendContract, "Agreed, send the contract"),
            At("2027-01-07 09:00", facts) is var s ? (s.Turn, s.Waits, s.Words) : default
        );
        Assert.Equal(
            WaitKind.SignContract,
            At("2027-01-08 09:00", [.. facts, ("2027-01-07 09:00", ContractSent)]).Waits
        );
        Assert.Equal(WaitKind.SendContract, At("2027-01-08 09:00", [.. facts, ("2027-01-07 09:00", Paid(1200))]).Waits);
    }

    [Fact]
    public void Nobody_countersigns_what_was_voided() =>
        Assert.Equal(
            WaitKind.SendContract,
            At(
                "2027-01-25 10:30",
                ("2027-01-20 09:00", Accepted()),
                ("2027-01-20 09:00", ContractSent),
                ("2027-01-21 09:00", Signed(Signer.Client)),
                ("2027-01-22 09:00", new Happening.ContractVoided(Contract))
            ).Waits
        );

    [Fact]
    public void A_late_task_keeps_its_age_after_a_rest_and_a_letter()
    {
        (string, Happening)[] facts =
        [
            ("2027-01-08 09:00", Accepted(3000, 0)),
            ("2027-01-08 09:00", Signed(Signer.Client)),
            ("2027-01-08 09:00", Signed(Signer.Owner)),
            ("2027-01-12 09:00", new Happening.RestBegan(Date("2027-01-20"))),
            ("2027-01-22 09:00", Answer()),
        ];
        var standing = TurnRule.Of(
            Case(facts).With(new OpenTask(new TaskId(1), "Order scaffold", Date("2027-01-11"))),
            World.At("2027-01-23 09:00")
        );
        Assert.Equal((WaitKind.AnswerLetter, World.At("2027-01-11 00:00")), (standing.Waits, standing.Since!.Value));
    }

    [Fact]
    public void A_second_proposal_after_the_price_is_agreed_is_with_nobody()
    {
        var standing = At(
            "2027-01-25 10:30",
            ("2027-01-20 09:00", Accepted()),
            ("2027-01-20 09:00", ContractSent),
            ("2027-01-21 09:00", new Happening.ProposalSent(new VersionId(2), Date("2027-03-01")))
        );
        Assert.Equal(WaitKind.SignContract, standing.Waits);
    }

    [Fact]
    public void A_task_of_the_clients_is_with_them_once_they_see_it_and_yours_to_show_when_it_is_due()
    {
        (string, Happening)[] answered =
        [
            ("2027-01-20 09:00", Inquiry),
            ("2027-01-20 10:00", Letter()),
            ("2027-01-20 10:00", Fit),
            ("2027-01-20 11:00", new Happening.MeetingOffered(1)),
            ("2027-01-20 11:30", new Happening.MeetingNotOffered()),
            ("2027-01-21 09:00", new Happening.TaskMade(new(7), Date("2027-01-22"))),
        ];
        var task = new OpenTask(new(7), "Measure the wall", Date("2027-01-22")) { IsClients = true };
        Standing Of(string now, params (string, Happening)[] more) =>
            TurnRule.Of(
                Case(KindRules.Default with { Gates = [Gate.Delivery] }, [], [.. answered, .. more]).With(task),
                World.At(now)
            );

        var hidden = Of("2027-01-25 10:30");
        Assert.Equal((Side.Yours, WaitKind.TaskDue), (hidden.Turn, hidden.Waits));
        var shown = Of("2027-01-25 10:30", ("2027-01-23 09:00", new Happening.PartOpened(PagePart.Tasks)));
        Assert.Equal(
            (Side.Clients, WaitKind.DoTask, "“Measure the wall” not done yet", World.At("2027-01-23 09:00")),
            (shown.Turn, shown.Waits, shown.Words, shown.Since!.Value)
        );
    }
}
