using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;

namespace Gesamt.Web.Words;

/// <inheritdoc cref="LineText"/>
public static partial class LineText
{
    /// <summary>Steps of routines.</summary>
    private static LineWords? Steps(Fact fact, LineRows rows) =>
        fact.What switch
        {
            Happening.VariantChosen chosen => new(
                EntrySort.Steps,
                EntryFrom.Done,
                $"The variant “{chosen.Variant}” chosen"
            ),
            Happening.RunOffered => new(
                EntrySort.Steps,
                EntryFrom.Note,
                "A routine is offered",
                "there is less time than it asks for"
            ),
            Happening.RunDeclined => new(EntrySort.Steps, EntryFrom.Done, "The offered routine was left"),
            Happening.StepDone { Letter: null } done
                when rows.StepNames.ContainsKey($"{done.Step.Run.Value}:{done.Step.Step}") => new(
                EntrySort.Steps,
                EntryFrom.Done,
                $"Done: {StepOf(done.Step, rows)}"
            ),
            Happening.StepStopped stopped => new(
                EntrySort.Steps,
                EntryFrom.Done,
                $"{ShortText.Capital(StepOf(stopped.Step, rows))} stopped",
                StopWords(stopped.Why, rows)
            ),
            Happening.StepFixed set => new(
                EntrySort.Steps,
                EntryFrom.Done,
                $"{ShortText.Capital(StepOf(set.Step, rows))} set to {DateWords.Long(set.At.Date)}",
                "by hand"
            ),
            Happening.StepSkipped skipped => new(
                EntrySort.Steps,
                EntryFrom.Done,
                $"{ShortText.Capital(StepOf(skipped.Step, rows))} skipped"
            ),
            _ => null,
        };

    /// <summary>Notes, and the project as a whole.</summary>
    private static LineWords? Notes(Fact fact, LineRows rows) =>
        fact.What switch
        {
            Happening.FollowedOn => new(EntrySort.Notes, EntryFrom.Done, "A project followed on from this one"),
            Happening.InquiryRead read => new(
                EntrySort.Notes,
                EntryFrom.Done,
                "Answers read",
                read.FollowUp ? "the follow-ups begin" : ""
            ),
            Happening.Imported => new(EntrySort.Notes, EntryFrom.Done, "Taken over from a table"),
            Happening.FitTakenBack => new(EntrySort.Notes, EntryFrom.Done, "Not decided after all whether it is a fit"),
            Happening.MarkedFit => new(EntrySort.Notes, EntryFrom.Done, "Marked as a fit"),
            Happening.MilestoneReached reached => new(EntrySort.Notes, EntryFrom.Done, ShortText.Capital(reached.Name)),
            Happening.NoAnswerNeeded => new(EntrySort.Notes, EntryFrom.Note, "No answer needed"),
            Happening.CallHeld call => Note(rows.Notes[call.Note], "call, private note"),
            Happening.NoteWritten note => Note(rows.Notes[note.Note], "private note"),
            Happening.GateWaived waived => new(
                EntrySort.Notes,
                EntryFrom.Done,
                $"{waived.Gate} waived",
                Why(waived.Why, rows)
            ),
            Happening.Ended ended => new(
                EntrySort.Notes,
                EntryFrom.Done,
                EndWords(ended.Reason),
                Why(ended.Words, rows)
            ),
            Happening.TakenUp => new(EntrySort.Notes, EntryFrom.Done, "Taken up again"),
            Happening.RestBegan rest => new(
                EntrySort.Notes,
                EntryFrom.Done,
                rest.Until is { } until ? $"Rests until {DateWords.Long(until)}" : "Rests",
                Why(rest.Why, rows)
            ),
            Happening.RestEnded => new(EntrySort.Notes, EntryFrom.Done, "The rest is over"),
            Happening.NotWonAfterAll => new(EntrySort.Notes, EntryFrom.Done, "Not won after all"),
            Happening.PutAway => new(EntrySort.Notes, EntryFrom.Done, "Put away"),
            Happening.TakenOut => new(EntrySort.Notes, EntryFrom.Done, "Back in the daily lists"),
            Happening.Unreadable => Untold,
            _ => null,
        };
}
