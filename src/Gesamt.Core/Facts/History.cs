using System.Collections.Immutable;
using NodaTime;

namespace Gesamt.Core.Facts;

/// <summary>All facts of one project in the order they were recorded. A note or call that was taken back reads as if it had never been written down, an answer to a step, or what was said of a meeting, as if it had not been given.</summary>
public sealed class History
{
    public History(IEnumerable<Fact> facts)
    {
        ImmutableArray<Fact> all = [.. facts.OrderBy(fact => fact.Recorded).ThenBy(fact => fact.Id.Value)];
        Facts = Standing(all);
        LastFact = new(all.IsEmpty ? 0 : all.Max(fact => fact.Id.Value));
    }

    public ImmutableArray<Fact> Facts { get; }

    /// <summary>The number of the last fact, also of one that takes another back; 0 for none. Nothing has happened since while it is still the project's last.</summary>
    public FactId LastFact { get; }

    /// <summary>The facts of one kind, oldest first.</summary>
    public IEnumerable<Seen<T>> Of<T>()
        where T : Happening => from fact in Facts where fact.What is T select new Seen<T>(fact, (T)fact.What);

    public Seen<T>? Last<T>(Func<T, bool>? where = null)
        where T : Happening
    {
        for (var i = Facts.Length - 1; i >= 0; i--)
            if (Facts[i].What is T what && (where is null || where(what)))
                return new(Facts[i], what);
        return null;
    }

    public bool Any<T>(Func<T, bool>? where = null)
        where T : Happening => Last(where) is not null;

    /// <summary>Whether one fact stands after another in the order of recording.</summary>
    public static bool IsAfter(Fact later, Fact earlier) =>
        later.Recorded > earlier.Recorded || (later.Recorded == earlier.Recorded && later.Id.Value > earlier.Id.Value);

    private static ImmutableArray<Fact> Standing(ImmutableArray<Fact> facts)
    {
        if (
            !facts.Any(fact =>
                fact.What is Happening.NoteTakenBack or Happening.StepAsksAgain or Happening.MeetingAsksAgain
            )
        )
            return facts;
        HashSet<NoteId> takenBack = [];
        foreach (var fact in facts)
            if (fact.What is Happening.NoteTakenBack taken)
                takenBack.Add(taken.Note);
            else if (fact.What is Happening.NotePutBack put)
                takenBack.Remove(put.Note);
        List<Fact> standing = [];
        foreach (var fact in facts)
            if (
                fact.What is Happening.NoteTakenBack or Happening.NotePutBack
                || fact.What is Happening.NoteWritten note && takenBack.Contains(note.Note)
                || fact.What is Happening.CallHeld call && takenBack.Contains(call.Note)
            )
                continue;
            else if (fact.What is Happening.StepAsksAgain step)
                RemoveLast(one => IsAnswerTo(step.Step, one));
            else if (fact.What is Happening.MeetingAsksAgain meeting)
                RemoveLast(one =>
                    one is Happening.MeetingHeld held && held.Meeting == meeting.Meeting
                    || one is Happening.MeetingMissed missed && missed.Meeting == meeting.Meeting
                );
            else
                standing.Add(fact);
        return [.. standing];

        void RemoveLast(Predicate<Happening> which)
        {
            if (standing.FindLastIndex(one => which(one.What)) is >= 0 and var at)
                standing.RemoveAt(at);
        }
    }

    /// <summary>Whether the owner's own skip is the last that was said of a step.</summary>
    public bool WasSkippedByOwner(StepRef step) =>
        Facts.LastOrDefault(fact => IsAnswerTo(step, fact.What)) is { By: Actor.Owner, What: Happening.StepSkipped };

    private static bool IsAnswerTo(StepRef step, Happening what) =>
        what is Happening.StepSkipped skipped && skipped.Step == step
        || what is Happening.StepDone { Letter: null } done && done.Step == step;

    /// <summary>Since when it is held to be a fit; null while that is not decided, or not any more.</summary>
    public Instant? FitAt =>
        Facts.LastOrDefault(fact => fact.What is Happening.MarkedFit or Happening.FitTakenBack)
            is { What: Happening.MarkedFit } fit
            ? fit.Happened
            : null;

    /// <summary>When client and studio were last in touch: a letter either way, a call, a meeting or the inquiry. An answer that a machine gave is none.</summary>
    public Instant? LastTouch => Facts.Where(IsTouch).Select(fact => (Instant?)fact.Happened).Max();

    private static bool IsTouch(Fact fact) =>
        fact.What
            is Happening.LetterSent
                or Happening.LetterReceived { Automatic: false }
                or Happening.LetterTakenOver
                or Happening.CallHeld
                or Happening.MeetingHeld
                or Happening.InquiryCame;

    /// <summary>The instant the project's first fact happened; none for an empty history.</summary>
    public Instant? Began => Facts.IsEmpty ? null : Facts.Min(fact => fact.Happened);
}
