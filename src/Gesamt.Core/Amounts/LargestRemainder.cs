using System.Collections.Immutable;

namespace Gesamt.Core.Amounts;

/// <summary>Splits a whole number in proportion to weights so that the parts add up to it (method of the largest remainder).</summary>
public static class LargestRemainder
{
    /// <summary>The parts in the order of their weights; ties go to the earlier weight, or first to the one with the higher <paramref name="rank"/>.</summary>
    /// <exception cref="ArgumentException">A weight is negative, or all are zero.</exception>
    public static ImmutableArray<long> Of(long whole, ReadOnlySpan<long> weights, ReadOnlySpan<int> rank = default)
    {
        Int128 total = 0;
        foreach (var weight in weights)
            total += weight >= 0 ? weight : throw new ArgumentException("A weight is negative.", nameof(weights));
        if (total == 0)
            throw new ArgumentException("All weights are zero.", nameof(weights));

        var parts = new long[weights.Length];
        var remainders = new (Int128 Remainder, int Rank, int Index)[weights.Length];
        var sign = Math.Sign(whole);
        Int128 size = Int128.Abs(whole),
            given = 0;
        for (var i = 0; i < weights.Length; i++)
        {
            var (quotient, remainder) = Int128.DivRem(size * weights[i], total);
            parts[i] = (long)quotient;
            given += quotient;
            remainders[i] = (remainder, rank.IsEmpty ? 0 : rank[i], i);
        }
        var largestFirst = remainders
            .OrderByDescending(r => r.Remainder)
            .ThenByDescending(r => r.Rank)
            .ThenBy(r => r.Index);
        foreach (var (_, _, index) in largestFirst.Take((int)(size - given)))
            parts[index]++;
        return [.. parts.Select(part => sign * part)];
    }
}
