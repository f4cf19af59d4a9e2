using System.Collections.Immutable;
using Gesamt.Core.Amounts;

namespace Gesamt.Core.Proposals;

/// <summary>Prices a choice out of an offer.</summary>
public static class Pricing
{
    /// <summary>The lines, totals and instalments of a choice.</summary>
    /// <exception cref="OfferException">A key is unknown, a group has none or several chosen, a quantity lies outside its limits, or a discount or fixed payment is more than the choice comes to.</exception>
    /// <exception cref="InstalmentException">The price is too small for its plan.</exception>
    public static PricedChoice Of(Offer offer, Choice choice, PlanDates dates)
    {
        var sums = Sums(offer, choice);
        return sums with { Instalments = PaymentPlan.Of(offer, sums.Totals, dates) };
    }

    /// <summary>The lines and totals of a choice, not split yet.</summary>
    public static PricedChoice Sums(Offer offer, Choice choice)
    {
        CheckKeys(offer, choice);
        var lines = offer
            .Lines.Where(line => line.Role == LineRole.Included || choice.Keys.Contains(line.Key))
            .Select(line => InQuantity(line, choice))
            .ToImmutableArray();
        foreach (var line in lines)
            CheckDiscount(line, offer.Currency);
        var priced = lines.Select(line => line.Priced(offer.Currency)).ToList();
        var sum = priced.Select(line => line.Net).Sum(offer.Currency);
        var less = offer.Less?.Of.From(sum) ?? Money.Zero(offer.Currency);
        if (less > sum)
            throw new OfferException(
                "less",
                $"The discount of {MoneyText.Of(less)} is more than the {MoneyText.Of(sum)} it is taken from."
            );
        var totals = offer.Gross ? Totals.OfGrossLines(priced, less) : Totals.OfLines(priced, less);
        return new(lines, sum, less, totals, []);
    }

    /// <summary>The choice a client sees first: what is suggested, else the first of each group, in the quantities proposed.</summary>
    public static Choice Suggested(Offer offer) =>
        Choice.Of([
            .. offer.Lines.Where(line => line.Role == LineRole.Extra && line.Suggested).Select(line => line.Key),
            .. OneOfEach(offer, group => group.FirstOrDefault(line => line.Suggested) ?? group.First()),
        ]);

    /// <summary>What is suggested, with everything that can be added.</summary>
    public static Choice WithEveryExtra(Offer offer) =>
        Choice.Of([
            .. Suggested(offer).Keys,
            .. offer.Lines.Where(line => line.Role == LineRole.Extra).Select(line => line.Key),
        ]);

    /// <summary>The least that can be chosen: no extra, the cheapest of each group, and of everything as little as may be.</summary>
    public static Choice Least(Offer offer) =>
        new(
            [
                .. OneOfEach(
                    offer,
                    group => group.MinBy(line => InQuantity(line, Smallest(line)).Priced(offer.Currency).Net)!
                ),
            ],
            offer
                .Lines.Where(line => line.Limits is not null)
                .ToImmutableSortedDictionary(line => line.Key, line => line.Limits!.Least)
        );

    /// <summary>The most that can be chosen: every extra, the dearest of each group, and of everything as much as may be.</summary>
    public static Choice Most(Offer offer) =>
        new(
            [
                .. OneOfEach(
                    offer,
                    group => group.MaxBy(line => line.PriceEach * (line.Limits?.Most ?? line.Quantity))!
                ),
                .. offer.Lines.Where(line => line.Role == LineRole.Extra).Select(line => line.Key),
            ],
            offer
                .Lines.Where(line => line.Limits is not null)
                .ToImmutableSortedDictionary(line => line.Key, line => line.Limits!.Most)
        );

    private static Choice Smallest(OfferLine line) =>
        line.Limits is { Least: var least }
            ? new([line.Key], ImmutableSortedDictionary<string, decimal>.Empty.Add(line.Key, least))
            : Choice.Of([line.Key]);

    private static IEnumerable<string> OneOfEach(Offer offer, Func<IGrouping<string?, OfferLine>, OfferLine> which) =>
        offer
            .Lines.Where(line => line.Role == LineRole.OneOf)
            .GroupBy(line => line.Group)
            .Select(group => which(group).Key);

    private static void CheckKeys(Offer offer, Choice choice)
    {
        if (
            choice
                .Keys.Concat(choice.Quantities.Keys)
                .FirstOrDefault(key => offer.Lines.All(line => line.Key != key)) is
            { } unknown
        )
            throw new OfferException("choice", $"This proposal has no line “{unknown}”.");
        foreach (var group in offer.Lines.Where(line => line.Role == LineRole.OneOf).GroupBy(line => line.Group))
            if (group.Count(line => choice.Keys.Contains(line.Key)) != 1)
                throw new OfferException(
                    "choice",
                    $"Choose one of: {string.Join(", ", group.Select(line => line.Title))}."
                );
    }

    private static OfferLine InQuantity(OfferLine line, Choice choice)
    {
        if (!choice.Quantities.TryGetValue(line.Key, out var quantity) || quantity == line.Quantity)
            return line;
        return line.Limits is { } limits && limits.Holds(quantity)
            ? line with
            {
                Quantity = quantity,
            }
            : throw new OfferException(
                $"quantity.{line.Key}",
                line.Limits is { } given
                    ? $"“{line.Title}” can be had from {NumberText.Number(given.Least)} to {NumberText.Number(given.Most)}{(given.Whole ? ", in whole numbers" : "")}."
                    : $"The quantity of “{line.Title}” is fixed."
            );
    }

    private static void CheckDiscount(OfferLine line, Currency currency)
    {
        if (line.Priced(currency).Net.Minor < 0)
            throw new OfferException("lines", $"The discount on “{line.Title}” is more than it costs.");
    }
}
