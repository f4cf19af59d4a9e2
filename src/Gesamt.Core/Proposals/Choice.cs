using System.Collections.Immutable;

namespace Gesamt.Core.Proposals;

/// <summary>What is taken out of a proposal: keys of the lines besides the included ones, and how much of those whose quantity was changed.</summary>
public sealed record Choice(ImmutableHashSet<string> Keys, ImmutableSortedDictionary<string, decimal> Quantities)
{
    /// <summary>Lines alone, each in the quantity it was proposed in.</summary>
    public static Choice Of(IEnumerable<string> keys) =>
        new([.. keys], ImmutableSortedDictionary<string, decimal>.Empty);

    /// <summary>Nothing besides what is included.</summary>
    public static readonly Choice Nothing = Of([]);

    public bool Equals(Choice? other) =>
        other is not null && Keys.SetEquals(other.Keys) && Quantities.SequenceEqual(other.Quantities);

    public override int GetHashCode() => HashCode.Combine(Keys.Count, Quantities.Count);
}
