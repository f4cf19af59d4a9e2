using Gesamt.Core.Planning;
using Gesamt.Core.Projects;

namespace Gesamt.Core.Tests.Planning;

/// <summary>When phases begin and end: as it happened, else counted back from the date that matters.</summary>
public sealed class ScheduleTests
{
    private static readonly KindRules Kind = KindRules.Default with
    {
        Phases = [new("survey", 7), new("sketch", 14), new("paint", 20)],
    };

    private static Case Case(KindRules kind, params (string When, Happening What)[] facts) =>
        World.Case(kind, [], facts);

    private static (string When, Happening What)[] Booked(string at) =>
        [
            (at, World.Accepted()),
            (at, World.ContractSent),
            (at, World.Signed(Signer.Client)),
            (at, World.Signed(Signer.Owner)),
            (at, World.Paid(1200)),
        ];

    private static string[] Told(Case project) =>
        [
            .. Schedule
                .Of(project)
                .Select(one =>
                    FormattableString.Invariant(
                        $"{one.Name} {one.State} {one.From?.ToString("uuuu-MM-dd", null) ?? "?"} to {one.Until?.ToString("uuuu-MM-dd", null) ?? "?"}"
                    )
                ),
        ];

    [Fact]
    public void Phases_ahead_are_counted_back_from_the_date_that_matters() =>
        Assert.Equal(
            [
                "survey Ahead 2027-01-30 to 2027-02-06",
                "sketch Ahead 2027-02-06 to 2027-02-20",
                "paint Ahead 2027-02-20 to 2027-03-12",
            ],
            Told(Case(Kind, ("2027-01-04 09:00", World.Inquiry), ("2027-01-04 09:01", World.OpeningDay("2027-03-12"))))
        );

    [Fact]
    public void Without_the_date_or_a_length_nothing_is_guessed()
    {
        Assert.Equal(
            ["survey Ahead ? to ?", "sketch Ahead ? to ?", "paint Ahead ? to ?"],
            Told(Case(Kind, ("2027-01-04 09:00", World.Inquiry)))
        );
        var unsaid = Kind with { Phases = [new("survey", 7), new("sketch"), new("paint", 20)] };
        Assert.Equal(
            ["survey Ahead ? to ?", "sketch Ahead ? to 2027-02-20", "paint Ahead 2027-02-20 to 2027-03-12"],
            Told(
                Case(unsaid, ("2027-01-04 09:00", World.Inquiry), ("2027-01-04 09:01", World.OpeningDay("2027-03-12")))
            )
        );
    }

    [Fact]
    public void What_is_booked_begins_when_its_lengths_say_so()
    {
        var project = Case(
            Kind,
            [
                ("2027-01-04 09:00", World.Inquiry),
                ("2027-01-04 09:01", World.OpeningDay("2027-03-12")),
                .. Booked("2027-01-11 10:00"),
            ]
        );
        Assert.Equal("survey InWork 2027-01-30 to 2027-02-06", Told(project)[0]);
        // booked later than that, it begins with the booking
        var late = Case(
            Kind,
            [
                ("2027-01-04 09:00", World.Inquiry),
                ("2027-01-04 09:01", World.OpeningDay("2027-03-12")),
                .. Booked("2027-02-03 10:00"),
            ]
        );
        Assert.Equal("survey InWork 2027-02-03 to 2027-02-06", Told(late)[0]);
    }

    [Fact]
    public void What_the_owner_begins_has_begun_and_what_was_done_ended_then()
    {
        var project = Case(
            Kind,
            [
                ("2027-01-04 09:00", World.Inquiry),
                ("2027-01-04 09:01", World.OpeningDay("2027-03-12")),
                .. Booked("2027-01-05 10:00"),
                ("2027-01-12 10:00", new Happening.PhaseSet("survey", PhaseState.InWork)),
                ("2027-01-20 17:00", new Happening.PhaseSet("survey", PhaseState.Done)),
                ("2027-01-21 09:00", new Happening.PhaseSet("sketch", PhaseState.InWork)),
                ("2027-01-25 09:00", new Happening.PhaseSet("sketch", PhaseState.Resting)),
            ]
        );
        Assert.Equal(
            [
                "survey Done 2027-01-12 to 2027-01-20",
                "sketch Resting 2027-01-21 to 2027-02-20",
                "paint Ahead 2027-02-20 to 2027-03-12",
            ],
            Told(project)
        );
    }

    [Fact]
    public void In_work_beyond_what_was_counted_it_takes_its_own_length()
    {
        var project = Case(
            Kind,
            ("2027-01-04 09:00", World.Inquiry),
            ("2027-01-04 09:01", World.OpeningDay("2027-03-12")),
            ("2027-02-15 10:00", new Happening.PhaseSet("survey", PhaseState.InWork))
        );
        Assert.Equal("survey InWork 2027-02-15 to 2027-02-22", Told(project)[0]);
    }

    [Fact]
    public void The_handover_ends_what_was_in_work()
    {
        var project = Case(
            Kind,
            [
                ("2027-01-04 09:00", World.Inquiry),
                ("2027-01-04 09:01", World.OpeningDay("2027-03-12")),
                .. Booked("2027-01-05 10:00"),
                ("2027-01-12 10:00", new Happening.PhaseSet("survey", PhaseState.InWork)),
                ("2027-02-01 12:00", new Happening.HandedOver()),
            ]
        );
        Assert.Equal(
            ["survey Done 2027-01-12 to 2027-02-01", "sketch Ahead ? to ?", "paint Ahead ? to ?"],
            Told(project)
        );
    }

    [Fact]
    public void A_phase_never_ends_before_it_begins() =>
        Gen.Select(
                Any.Of("survey", "sketch", "paint"),
                Any.Of(PhaseState.Ahead, PhaseState.InWork, PhaseState.Resting, PhaseState.Done)
            )
            .Array[0, 12]
            .Sample(steps =>
            {
                var facts = steps.Select(
                    (step, i) =>
                        (
                            $"2027-{1 + i % 3:00}-{1 + i:00} 10:00",
                            (Happening)new Happening.PhaseSet(step.Item1, step.Item2)
                        )
                );
                var project = Case(
                    Kind,
                    [
                        ("2027-01-01 09:00", World.Inquiry),
                        ("2027-01-01 09:01", World.OpeningDay("2027-03-12")),
                        .. facts.OrderBy(fact => fact.Item1, StringComparer.Ordinal),
                    ]
                );
                Assert.All(Schedule.Of(project), one => Assert.False(one.Until < one.From, one.ToString()));
            });
}
