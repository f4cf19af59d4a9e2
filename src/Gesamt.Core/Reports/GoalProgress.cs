namespace Gesamt.Core.Reports;

/// <summary>One measure of a goal: where it began, where it is, where it is to come. It may rise or fall.</summary>
public readonly record struct Measure(decimal Start, decimal Present, decimal Target)
{
    /// <summary>(present − start) / (target − start), 0 to 1. Where the target is the start: 1 if it is reached, else 0.</summary>
    public decimal Share =>
        Target == Start ? (Present >= Target ? 1 : 0)
        : Target > Start == Present > Start ? Math.Min(1, (Present - Start) / (Target - Start))
        : 0;
}

/// <summary>How far a goal has come.</summary>
public static class GoalProgress
{
    /// <summary>The plain mean of its measures, in whole per cent: 100 only where all of it is reached. Null without a measure.</summary>
    public static int? Percent(IReadOnlyCollection<Measure> measures) =>
        measures.Count == 0 ? null : (int)decimal.Floor(100 * measures.Sum(one => one.Share) / measures.Count);
}
