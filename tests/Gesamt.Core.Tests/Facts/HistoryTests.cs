using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Facts;

public class HistoryTests
{
    private static Fact Fact(long id, string happened, string recorded, Happening what) =>
        new(new FactId(id), new ProjectId(1), At(happened), At(recorded), Actor.Owner, what);

    [Fact]
    public void Facts_stand_in_the_order_they_were_recorded_whatever_order_they_come_in() =>
        Assert.Equal(
            [1L, 2L, 3L],
            new History([
                Fact(3, "2027-01-01 09:00", "2027-01-06 09:00", Fit),
                Fact(2, "2027-01-05 09:00", "2027-01-05 09:00", Letter()),
                Fact(1, "2027-01-04 09:00", "2027-01-05 09:00", Inquiry),
            ]).Facts.Select(fact => fact.Id.Value)
        );

    [Fact]
    public void A_call_taken_back_and_put_back_stands_where_it_stood()
    {
        var note = new NoteId(1);
        Fact[] facts =
        [
            Fact(1, "2027-01-04 09:00", "2027-01-04 09:00", Inquiry),
            Fact(2, "2027-01-04 12:00", "2027-01-06 09:00", new Happening.CallHeld(note)),
            Fact(3, "2027-01-07 09:00", "2027-01-07 09:00", Fit),
            Fact(4, "2027-01-08 09:00", "2027-01-08 09:00", new Happening.NoteTakenBack(note)),
            Fact(5, "2027-01-08 10:00", "2027-01-08 10:00", new Happening.NotePutBack(note)),
        ];
        Assert.Equal([1L, 3L], new History(facts[..4]).Facts.Select(fact => fact.Id.Value));
        Assert.Equal([1L, 2L, 3L], new History(facts).Facts.Select(fact => fact.Id.Value));
        Assert.Equal(At("2027-01-04 12:00"), new History(facts).LastTouch);
    }

    [Fact]
    public void What_was_answered_to_a_step_and_taken_back_was_never_answered()
    {
        var (step, other) = (new StepRef(new RunId(1), "nudge-7", 0), new StepRef(new RunId(1), "nudge-7", 1));
        Fact[] facts =
        [
            Fact(1, "2027-01-04 09:00", "2027-01-04 09:00", new Happening.StepHeld(step, new LetterId(1))),
            Fact(2, "2027-01-05 09:00", "2027-01-05 09:00", new Happening.StepSkipped(step)),
            Fact(3, "2027-01-05 10:00", "2027-01-05 10:00", new Happening.StepSkipped(other)),
            Fact(4, "2027-01-05 11:00", "2027-01-05 11:00", new Happening.StepAsksAgain(step)),
            Fact(5, "2027-01-05 12:00", "2027-01-05 12:00", new Happening.StepAsksAgain(step)), // nothing left to take back
        ];
        Assert.True(new History(facts[..3]).WasSkippedByOwner(step));
        var history = new History(facts);
        Assert.Equal([1L, 3L], history.Facts.Select(fact => fact.Id.Value));
        Assert.False(history.WasSkippedByOwner(step));
        Assert.Equal(new FactId(5), history.LastFact);
    }

    [Fact]
    public void What_happened_first_began_it_also_when_recorded_later() =>
        Assert.Equal(
            At("2027-01-01 09:00"),
            new History([
                Fact(1, "2027-01-04 09:00", "2027-01-04 09:00", Inquiry),
                Fact(2, "2027-01-01 09:00", "2027-01-06 09:00", Fit),
            ]).Began
        );

    [Fact] // common practice: a letter either way, a call, a meeting or the inquiry; what a machine answers is nobody's word
    public void The_last_touch_is_the_last_word_between_two_people()
    {
        var history = new History([
            Fact(1, "2027-01-04 09:00", "2027-01-04 09:00", Inquiry),
            Fact(2, "2027-01-05 09:00", "2027-01-05 09:00", Letter()),
            Fact(3, "2027-01-06 09:00", "2027-01-08 09:00", new Happening.CallHeld(new NoteId(1))),
            Fact(4, "2027-01-09 09:00", "2027-01-09 09:00", new Happening.LetterReceived(new LetterId(3), true)),
            Fact(5, "2027-01-10 09:00", "2027-01-10 09:00", Fit),
        ]);
        Assert.Equal(At("2027-01-06 09:00"), history.LastTouch);
        Assert.Equal(
            At("2027-01-05 09:00"),
            new History([
                .. history.Facts,
                Fact(6, "2027-01-11 09:00", "2027-01-11 09:00", new Happening.NoteTakenBack(new NoteId(1))),
            ]).LastTouch
        );
        Assert.Null(new History([Fact(1, "2027-01-04 09:00", "2027-01-04 09:00", Fit)]).LastTouch);
    }

    [Fact] // else whoever decided on the history would believe forever that something has happened since
    public void A_fact_that_takes_another_back_is_still_the_last()
    {
        var note = new Happening.NoteWritten(new NoteId(1));
        var back = new Happening.NoteTakenBack(new NoteId(1));
        var history = new History([
            Fact(7, "2027-01-04 09:00", "2027-01-04 09:00", note),
            Fact(8, "2027-01-05 09:00", "2027-01-05 09:00", back),
        ]);
        Assert.Empty(history.Facts);
        Assert.Equal(new FactId(8), history.LastFact);
        Assert.Equal(new FactId(0), new History([]).LastFact);
    }

    [Fact] // gates follow what happened, stop rules what was recorded
    public void A_backdated_fact_counts_from_when_it_happened()
    {
        var project = Case(("2027-01-04 09:00", Inquiry)) with
        {
            History = new([
                Fact(1, "2027-01-04 09:00", "2027-01-04 09:00", Inquiry),
                Fact(2, "2027-01-05 12:00", "2027-01-09 09:00", Fit),
            ]),
        };
        Assert.Equal(At("2027-01-05 12:00"), Core.Stages.GateRule.Read(project)[0].ClosedAt);
    }

    [Fact]
    public void The_last_of_a_kind_is_found_and_none_is_none()
    {
        var history = Case(
            ("2027-01-04 09:00", OpeningDay("2027-03-01")),
            ("2027-01-05 09:00", OpeningDay("2027-03-12"))
        ).History;
        Assert.Equal(Date("2027-03-12"), history.Last<Happening.DateSet>()!.Value.What.Date);
        Assert.Null(history.Last<Happening.Ended>());
        Assert.Null(new History([]).Began);
    }
}
