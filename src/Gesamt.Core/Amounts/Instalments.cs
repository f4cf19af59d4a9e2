using System.Collections.Immutable;

namespace Gesamt.Core.Amounts;

/// <summary>One part of the agreed price as it will be invoiced: nets and taxes by rate.</summary>
public sealed record Instalment(Totals Totals)
{
    public Money Payable => Totals.Payable;
}

/// <summary>Splits an agreed price into instalments that each are a correct invoice and together are the price, to the cent.</summary>
/// <remarks>
/// Per rate the net is split by largest remainder (ties to the earlier). Where the rounded taxes of the parts do not add
/// up to the agreed tax, whole minor units of net move between instalments, fewest first, until every part satisfies
/// EN 16931 BR-CO-17 and nets, taxes and totals add up exactly.
/// </remarks>
public static class Instalments
{
    /// <param name="weights">Shares in any unit: per cent of the price, or minor units of fixed amounts.</param>
    /// <exception cref="InstalmentException">The price is too small to be split so.</exception>
    public static ImmutableArray<Instalment> Of(Totals price, params ReadOnlySpan<long> weights)
    {
        if (weights.Length == 1)
            return [new(price)];
        var shares = weights.ToArray();
        var byRate = price.Parts.Select(part => OfRate(part, shares)).ToImmutableArray();
        var rounding = price.RoundingAmount;
        ImmutableArray<Instalment> parts =
        [
            .. Enumerable
                .Range(0, weights.Length)
                .Select(i => new Instalment(
                    new Totals(
                        [.. byRate.Select(parts => parts[i])],
                        i == shares.Length - 1 ? rounding : Money.Zero(rounding.Currency)
                    )
                )),
        ];
        // what is free as a whole is free in each part; of a price every part asks for something
        return
            price.Payable.Minor == 0 || parts.Zip(shares).All(pair => pair.Second == 0 || pair.First.Payable.Minor > 0)
            ? parts
            : throw new InstalmentException(price.Net, weights.Length);
    }

    /// <summary>Of a price that was promised gross: each part asks for its share of that amount to the cent, and what its rounded tax leaves over is its own rounding amount (BT-114).</summary>
    /// <remarks>Should a part have to round by more than one minor unit per rate, the whole rounding goes with the last.</remarks>
    /// <exception cref="InstalmentException">The price is too small to be split so.</exception>
    public static ImmutableArray<Instalment> OfGross(Totals price, params ReadOnlySpan<long> weights)
    {
        var parts = Of(price, weights);
        if (parts.Length == 1)
            return parts;
        var promised = price.Payable.Split(weights);
        var rounded = parts
            .Zip(
                promised,
                (part, gross) =>
                    new Instalment(part.Totals with { RoundingAmount = gross - part.Totals.Net - part.Totals.Tax })
            )
            .ToImmutableArray();
        return rounded.All(part => Math.Abs(part.Totals.RoundingAmount.Minor) <= price.Parts.Length) ? rounded : parts;
    }

    private static ImmutableArray<TaxPart> OfRate(TaxPart agreed, long[] weights)
    {
        var nets = agreed.Net.Split(weights).Select(net => net.Minor).ToArray();
        var moved = Fit(nets, weights, agreed) ?? throw new InstalmentException(agreed.Net, weights.Length);
        return [.. moved.Select(net => new Money(net, agreed.Net.Currency)).Select(agreed.Of)];
    }

    /// <summary>Moves as few units of net as possible; null when no move makes the taxes add up.</summary>
    private static long[]? Fit(long[] nets, long[] weights, TaxPart agreed)
    {
        if (agreed.Rate.PartsPerMillion == 0)
            return nets;
        // one minor unit of tax comes with every 1 / rate units of net, so no move needs to be longer
        var reach = 1_000_000 / agreed.Rate.PartsPerMillion + 1;
        long Missing(long[] parts) =>
            Math.Abs(agreed.Tax.Minor - parts.Sum(net => new Money(net, agreed.Net.Currency).Times(agreed.Rate).Minor));
        static bool Whole(long[] parts) => parts.All(net => net >= 0);
        long[]? Nearer(long[] parts) =>
            (
                from units in Enumerable.Range(1, reach)
                from pair in Pairs(parts.Length)
                let moved = Moved(parts, pair.From, pair.To, units)
                where Whole(moved) && Missing(moved) < Missing(parts)
                select moved
            ).FirstOrDefault();

        long[]? fitted = nets;
        while (fitted is not null && Missing(fitted) > 0)
            fitted = Nearer(fitted);
        return fitted is not null && Whole(fitted) ? fitted : null;
    }

    private static IEnumerable<(int From, int To)> Pairs(int count) =>
        from last in Enumerable.Range(0, count).Reverse()
        from first in Enumerable.Range(0, count)
        where first != last
        select (last, first);

    private static long[] Moved(long[] nets, int from, int to, int units)
    {
        var moved = (long[])nets.Clone();
        moved[from] -= units;
        moved[to] += units;
        return moved;
    }
}

/// <summary>A plan of instalments that the price is too small for.</summary>
public sealed class InstalmentException(Money net, int parts)
    : InvalidOperationException(
        $"{net} is too small to be split into {parts} instalments that each carry their own tax."
    );
