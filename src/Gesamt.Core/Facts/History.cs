using System.Collections.Immutable;
using NodaTime;

namespace Gesamt.Core.Facts;

/// <summary>All facts of one project in the order they were recorded. A note or call that was taken back reads as if it had never been written down.</summary>
public sealed class History(IEnumerable<Fact> facts)
{
    public ImmutableArray<Fact> Facts { get; } =
        Standing([.. facts.OrderBy(fact => fact.Recorded).ThenBy(fact => fact.Id.Value)]);

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
        var takenBack = facts
            .Select(fact => fact.What)
            .OfType<Happening.NoteTakenBack>()
            .Select(taken => taken.Note)
            .ToHashSet();
        return takenBack.Count == 0
            ? facts
            :
            [
                .. facts.Where(fact =>
                    fact.What switch
                    {
                        Happening.NoteWritten note => !takenBack.Contains(note.Note),
                        Happening.CallHeld call => !takenBack.Contains(call.Note),
                        Happening.NoteTakenBack => false,
                        _ => true,
                    }
                ),
            ];
    }

    /// <summary>The instant the project's first fact happened; none for an empty history.</summary>
    public Instant? Began => Facts.IsEmpty ? null : Facts.Min(fact => fact.Happened);
}
