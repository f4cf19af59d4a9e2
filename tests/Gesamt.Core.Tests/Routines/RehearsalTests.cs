using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Routines;

public class RehearsalTests
{
    private static readonly Routine Proposal = RoutineText.Read(
        """
        routine: After a proposal
        begins with: proposal sent

        step: reach
        when: 2 days after proposal sent at 09:00
        do: letter reach
        unless: opened, answered

        step: open
        when: 7 days after proposal sent at 09:00
        do: letter open
        unless: chosen, answered

        step: quiet
        when: 10 days after the step before at 09:00
        do: end as gone quiet
        unless: answered
        """
    );

    private static (string?, RehearsedAct, string)[] Play(
        Routine routine,
        ClientWays ways,
        params (string, Happening)[] facts
    ) =>
        [
            .. Rehearsal
                .Play(Case(facts), routine, ways, At("2027-01-25 10:30"))
                .Select(one =>
                    (
                        one.At is { } at ? World.Calendar.LocalOf(at).ToString("uuuu-MM-dd HH:mm", null) : null,
                        one.Act,
                        one.Step?.Key ?? one.Client.ToString()!
                    )
                ),
        ];

    [Fact]
    public void A_client_who_opens_after_a_day_and_never_answers_is_asked_about_at_the_end() =>
        Assert.Equal(
            [
                ("2027-01-26 10:30", RehearsedAct.Client, "Opens"),
                ("2027-01-26 10:30", RehearsedAct.Stopped, "reach"),
                ("2027-02-01 09:00", RehearsedAct.AsksFirst, "open"),
                ("2027-02-11 09:00", RehearsedAct.AsksFirst, "quiet"),
            ],
            Play(Proposal, new(Opens: 1))
        );

    [Fact]
    public void An_answer_ends_all_of_it() =>
        Assert.Equal(
            [
                ("2027-01-27 09:00", RehearsedAct.AsksFirst, "reach"),
                ("2027-01-28 10:30", RehearsedAct.Client, "Answers"),
                ("2027-01-28 10:30", RehearsedAct.Stopped, "open"),
                ("2027-01-28 10:30", RehearsedAct.Stopped, "quiet"),
            ],
            Play(Proposal, new(Answers: 3))
        );

    [Fact]
    public void Payment_reminders_end_with_the_payment() =>
        Assert.Equal(
            [
                ("2027-02-05 09:00", RehearsedAct.Acts, "before"),
                ("2027-02-09 09:00", RehearsedAct.Acts, "late"),
                ("2027-02-10 10:30", RehearsedAct.Client, "Pays"),
                ("2027-02-10 10:30", RehearsedAct.Stopped, "later"),
            ],
            Play(
                RoutineText.Read(
                    "routine: Payments\nbegins with: invoice due\nstep: before\nwhen: 3 days before invoice due\ndo: letter a\nmode: by itself\nunless: paid\nstep: late\nwhen: 1 day after invoice due\ndo: letter b\nmode: by itself\nunless: paid\nstep: later\nwhen: 3 days after invoice due\ndo: letter b\nmode: by itself\nunless: paid"
                ),
                new(Pays: 16)
            )
        );

    [Fact]
    public void A_form_is_returned_so_long_after_it_was_asked() =>
        Assert.Equal(
            [
                ("2027-01-26 10:30", RehearsedAct.Acts, "ask"),
                ("2027-01-30 10:30", RehearsedAct.Client, "ReturnsForm"),
                ("2027-01-30 10:30", RehearsedAct.Stopped, "again"),
            ],
            Play(
                RoutineText.Read(
                    "routine: Questions\nbegins with: booked\nstep: ask\nwhen: 1 day after booked\ndo: form f with letter a\nmode: by itself\nstep: again\nwhen: 9 days after booked\ndo: letter b\nunless: form returned"
                ),
                new(ReturnsForm: 4)
            )
        );

    [Fact]
    public void A_late_booking_is_played_in_the_variant_it_would_get()
    {
        var orders = RoutineText.Read(
            "routine: Orders\nbegins with: booked\nvariant: in full, 3 months ahead\nvariant: short, 1 month ahead\nstep: early\nwhen: 70 days before the date\ndo: tell me \"a\"\nonly in: in full\nstep: soon\nwhen: 20 days before the date\ndo: tell me \"b\""
        );
        Assert.Equal(
            [("2027-02-24 09:00", RehearsedAct.AsksFirst, "soon")],
            Play(orders, new(), ("2027-01-04 09:00", OpeningDay("2027-03-16")))
        );
        Assert.Equal(
            ["early", "soon"],
            Play(orders, new(), ("2027-01-04 09:00", OpeningDay("2027-06-16"))).Select(one => one.Item3)
        );
    }

    [Fact]
    public void What_waits_for_a_date_nobody_knows_stands_at_the_end() =>
        Assert.Equal(
            [(null, RehearsedAct.Waits, "one")],
            Play(
                RoutineText.Read(
                    "routine: A\nbegins with: booked\nstep: one\nwhen: 3 days before the date \"varnish day\"\ndo: letter a"
                ),
                new()
            )
        );

    [Fact]
    public void Whatever_the_client_does_every_step_comes_up_once() =>
        Gen.Int[0, 40]
            .Array[5]
            .Sample(days =>
            {
                int? Day(int i) => days[i] > 30 ? null : days[i];
                var played = Rehearsal.Play(
                    Case(),
                    Proposal,
                    new(Day(0), Day(1), Day(2), Day(3), Day(4)),
                    At("2027-01-25 10:30")
                );
                Assert.Equal(
                    ["open", "quiet", "reach"],
                    played.Where(one => one.Step is not null).Select(one => one.Step!.Key).Order()
                );
                Assert.Equal(
                    played.Where(one => one.At is not null).Select(one => one.At),
                    played.Where(one => one.At is not null).Select(one => one.At).Order()
                );
            });
}
