using System.Collections.Immutable;

namespace Gesamt.Core.Amounts;

/// <summary>One priced line of a paper: an exact quantity times an exact unit price, less a discount already rounded. Net throughout, or gross throughout where a paper's prices are.</summary>
/// <param name="Quantity">Exact, in the unit of the service.</param>
/// <param name="UnitPrice">Exact, in major units of the currency; may be finer than the minor unit.</param>
public sealed record PricedLine(decimal Quantity, decimal UnitPrice, Money Discount, Rate Tax)
{
    /// <summary>Why it carries its tax (BT-151).</summary>
    public TaxCategory Category { get; init; } = TaxCategories.Of(Tax);

    /// <summary>round(quantity × unit price) − discount. EN 16931, line net amount (BT-131).</summary>
    public Money Net => Money.Of(Quantity * UnitPrice, Discount.Currency) - Discount;
}

/// <summary>Net and tax of one rate and category. EN 16931, VAT breakdown (BG-23).</summary>
public sealed record TaxPart(Rate Rate, Money Net, Money Tax)
{
    /// <summary>BT-118; of a paper of an older Gesamt, which knew no other, taxed at its rate.</summary>
    public TaxCategory Category { get; init; } = TaxCategories.Of(Rate);

    /// <summary>By what it is kept apart from other parts.</summary>
    public Tax Kind => new(Rate, Category);

    /// <summary>The same tax on another net amount: round(net × rate), BR-CO-17.</summary>
    public TaxPart Of(Money net) => this with { Net = net, Tax = net.Times(Rate) };
}

/// <summary>A document's sums by EN 16931: taxes by rate, totals by addition, and the rounding amount that a promised gross may need.</summary>
/// <param name="Parts">By rate, highest first (BG-23).</param>
/// <param name="RoundingAmount">BT-114, zero unless the gross was entered or promised.</param>
public sealed record Totals(ImmutableArray<TaxPart> Parts, Money RoundingAmount)
{
    private Currency Currency => RoundingAmount.Currency;

    /// <summary>BT-109.</summary>
    public Money Net => Parts.Select(part => part.Net).Sum(Currency);

    /// <summary>BT-110, the sum of the taxes of all rates (BR-CO-14).</summary>
    public Money Tax => Parts.Select(part => part.Tax).Sum(Currency);

    /// <summary>Amount due, BT-115: net and tax (BR-CO-15) with the rounding amount (BR-CO-16).</summary>
    public Money Payable => Net + Tax + RoundingAmount;

    /// <summary>Sums of lines entered net. A document discount becomes one allowance per rate in proportion to the rates' nets (largest remainder, ties to the higher rate).</summary>
    /// <exception cref="ArgumentException">There are no lines, or the discount is more than the lines come to.</exception>
    public static Totals OfLines(IReadOnlyCollection<PricedLine> lines, Money discount)
    {
        var byRate = ByRate(lines, discount.Currency);
        return new(
            [.. byRate.Zip(Allowances(byRate, discount), (part, allowance) => part.Of(part.Net - allowance))],
            Money.Zero(discount.Currency)
        );
    }

    /// <summary>Sums of lines entered gross: per rate net = round(gross / (1 + rate)); what a rounded tax leaves over is the rounding amount, at most one minor unit per rate, so that payable is the sum of the lines less the discount.</summary>
    /// <exception cref="ArgumentException">The discount is more than the lines come to.</exception>
    public static Totals OfGrossLines(IReadOnlyCollection<PricedLine> lines, Money discount)
    {
        var byRate = ByRate(lines, discount.Currency);
        var parts = byRate
            .Zip(Allowances(byRate, discount), (part, allowance) => OfGross(part.Net - allowance, part.Kind))
            .ToImmutableArray();
        return new(
            [.. parts.SelectMany(part => part.Parts)],
            parts.Select(part => part.RoundingAmount).Sum(discount.Currency)
        );
    }

    /// <summary>Sums of one amount entered or promised gross: payable is that amount, net = round(gross / (1 + rate)).</summary>
    public static Totals OfGross(Money gross, Rate rate) => OfGross(gross, Amounts.Tax.At(rate));

    /// <inheritdoc cref="OfGross(Money, Rate)"/>
    public static Totals OfGross(Money gross, Tax tax)
    {
        var part = Nothing(tax, gross.Currency).Of(Money.Of(gross.Major / (1 + tax.Rate.Fraction), gross.Currency));
        return new([part], gross - part.Net - part.Tax);
    }

    /// <summary>A part of these sums taken back or billed again, its payable given: the gross is split over the rates in proportion to theirs (largest remainder, ties to the higher rate).</summary>
    /// <remarks>Per rate net = round(gross / (1 + rate)); a difference of at most one minor unit per rate is the rounding amount (BT-114).</remarks>
    /// <exception cref="ArgumentOutOfRangeException">The gross is negative, or more than these sums come to.</exception>
    public Totals OfPart(Money gross)
    {
        if (gross.Minor < 0 || gross > Payable)
            throw new ArgumentOutOfRangeException(nameof(gross), gross, "A part is at most the whole.");
        if (gross == Payable)
            return this;
        var parts = gross
            .Split([.. Parts.Select(part => part.Net.Minor + part.Tax.Minor)])
            .Zip(Parts, (share, part) => OfGross(share, part.Kind))
            .ToImmutableArray();
        return new([.. parts.SelectMany(part => part.Parts)], parts.Select(part => part.RoundingAmount).Sum(Currency));
    }

    /// <summary>Nothing yet.</summary>
    public static Totals Zero(Currency currency) => new([], Money.Zero(currency));

    /// <summary>Both together, rate by rate.</summary>
    public Totals Plus(Totals other) =>
        new(
            [
                .. Parts
                    .Concat(other.Parts)
                    .GroupBy(part => part.Kind)
                    .OrderByDescending(group => group.Key.Rate.PartsPerMillion)
                    .ThenBy(group => group.Key.Category)
                    .Select(group =>
                        group.First() with
                        {
                            Net = group.Select(part => part.Net).Sum(Currency),
                            Tax = group.Select(part => part.Tax).Sum(Currency),
                        }
                    ),
            ],
            RoundingAmount + other.RoundingAmount
        );

    /// <summary>What is left without the other, rate by rate; a rate with nothing left stands with nothing.</summary>
    public Totals Minus(Totals other) =>
        Plus(
            new([.. other.Parts.Select(part => part with { Net = -part.Net, Tax = -part.Tax })], -other.RoundingAmount)
        );

    /// <summary>Sums of a net amount of one rate.</summary>
    public static Totals OfNet(Money net, Rate rate) => OfNet(net, Amounts.Tax.At(rate));

    /// <inheritdoc cref="OfNet(Money, Rate)"/>
    public static Totals OfNet(Money net, Tax tax) =>
        new([Nothing(tax, net.Currency).Of(net)], Money.Zero(net.Currency));

    /// <summary>What the lines come to by rate and category, before a discount on the whole: their sums stand as nets, without tax.</summary>
    public static ImmutableArray<TaxPart> ByRate(IEnumerable<PricedLine> lines, Currency currency) =>
        [
            .. lines
                .GroupBy(line => new Tax(line.Tax, line.Category))
                .OrderByDescending(group => group.Key.Rate.PartsPerMillion)
                .ThenBy(group => group.Key.Category)
                .Select(group =>
                    Nothing(group.Key, currency) with
                    {
                        Net = group.Select(line => line.Net).Sum(currency),
                    }
                ),
        ];

    private static TaxPart Nothing(Tax tax, Currency currency) =>
        new(tax.Rate, Money.Zero(currency), Money.Zero(currency)) { Category = tax.Category };

    private static ImmutableArray<Money> Allowances(ImmutableArray<TaxPart> byRate, Money discount)
    {
        if (discount.Minor == 0)
            return [.. byRate.Select(_ => discount)];
        if (byRate.Any(part => part.Net.Minor < 0) || byRate.Select(part => part.Net).Sum(discount.Currency) < discount)
            throw new ArgumentException("The discount is more than the lines come to.", nameof(discount));
        // rates stand highest first, so "the earlier" of a tie is the higher rate
        return discount.Split([.. byRate.Select(part => part.Net.Minor)]);
    }
}
