using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;

namespace Gesamt.Core.Proposals;

/// <summary>An invoice of an agreement, with what is left of it after its credit notes.</summary>
/// <param name="Place">Of the instalment among the agreed parts, from 0.</param>
public sealed record BilledPart(InvoiceId Invoice, int Place, Totals Left);

/// <summary>What of an invoice an amendment takes back.</summary>
public sealed record CreditedPart(InvoiceId Invoice, Totals Totals);

/// <summary>An agreed price as it is changed: what is issued stays, the rest is split anew, and what was issued beyond the new price is credited.</summary>
/// <param name="Priced">All that is agreed from then on; its instalments are of the rest alone.</param>
/// <param name="Billed">What was invoiced and not credited.</param>
/// <param name="Rest">What is still to be invoiced.</param>
/// <param name="Credits">The latest invoice first.</param>
public sealed record Amendment(PricedChoice Priced, Totals Billed, Totals Rest, ImmutableArray<CreditedPart> Credits)
{
    /// <summary>What is taken back, all together.</summary>
    public Totals Credited =>
        Credits.Aggregate(Totals.Zero(Billed.RoundingAmount.Currency), (sum, credit) => sum.Plus(credit.Totals));

    /// <summary>The price from then on: what was invoiced, less what is taken back, and the rest, each a correct document of its own. It is that of the lines but for a minor unit of rounded tax per rate.</summary>
    public Totals Agreed => Billed.Minus(Credited).Plus(Rest);

    /// <summary>Prices an amendment: the offer with everything that is agreed from then on, its plan for what is left.</summary>
    /// <param name="billed">In the order of issue.</param>
    /// <exception cref="OfferException">A line is to be chosen, or the plan's fixed amounts do not fit what is left.</exception>
    /// <exception cref="InstalmentException">What is left is too small for its plan.</exception>
    public static Amendment Of(Offer offer, IReadOnlyCollection<BilledPart> billed, PlanDates dates)
    {
        if (offer.Lines.FirstOrDefault(line => line.Role != LineRole.Included) is { } chosen)
            throw new OfferException(
                $"lines.{chosen.Key}",
                $"An amendment is signed as it stands: include “{chosen.Title}”, or take it out."
            );
        var priced = Pricing.Sums(offer, Choice.Nothing);
        var zero = Totals.Zero(offer.Currency);
        var before = billed.Aggregate(zero, (sum, part) => sum.Plus(part.Left));
        var left = ByRate(offer, priced.Totals, before);
        ImmutableArray<CreditedPart> credits =
        [
            .. Taken(offer, billed, left.ToDictionary(rate => rate.Tax, rate => -rate.Amount)),
        ];
        var open = left.Where(rate => rate.Amount.Minor > 0).ToList();
        if (offer.Gross)
            (open, credits) = ToTheCent(priced.Totals.Payable - before.Payable, open, credits);
        var rest = open.Aggregate(zero, (sum, rate) => sum.Plus(OfRate(offer, rate.Amount, rate.Tax)));
        return new(
            priced with
            {
                Instalments = rest.Payable.Minor == 0 ? [] : PaymentPlan.Of(offer, rest, dates, ofRest: true),
            },
            before,
            rest,
            credits
        );
    }

    /// <summary>The agreed parts from then on: what was invoiced keeps its place and its amount, what was not makes room for the rest.</summary>
    /// <param name="invoiced">Places for which an invoice was issued.</param>
    /// <returns>The parts, and the place of each part of the rest among them.</returns>
    public (ImmutableArray<AgreedPart> Parts, ImmutableArray<int> Places) Parts(
        ImmutableArray<AgreedPart> before,
        IReadOnlySet<int> invoiced
    )
    {
        List<AgreedPart> parts =
        [
            .. before.Select(
                (part, place) =>
                    invoiced.Contains(place) ? part : part with { Amount = Money.Zero(part.Amount.Currency) }
            ),
        ];
        List<int> places = [];
        foreach (var rest in Priced.Parts)
        {
            var free = Enumerable.Range(0, parts.Count).Except(invoiced).Except(places).Append(parts.Count).First();
            if (free == parts.Count)
                parts.Add(rest);
            else
                parts[free] = rest;
            places.Add(free);
        }
        return ([.. parts], [.. places]);
    }

    /// <summary>What is left of each rate, net, or gross where the prices are; what was invoiced beyond is negative.</summary>
    private static List<(Tax Tax, Money Amount)> ByRate(Offer offer, Totals whole, Totals billed) =>
        [.. whole.Minus(billed).Parts.Select(part => (part.Kind, offer.Gross ? part.Net + part.Tax : part.Net))];

    /// <summary>A price promised gross is asked for to the cent: what the roundings of whole documents leave over goes with the largest part of the rest, else with the last credit note.</summary>
    /// <param name="difference">Between the new price and what was invoiced.</param>
    private static (List<(Tax Tax, Money Amount)>, ImmutableArray<CreditedPart>) ToTheCent(
        Money difference,
        List<(Tax Tax, Money Amount)> open,
        ImmutableArray<CreditedPart> credits
    )
    {
        var over = credits.Aggregate(difference, (sum, credit) => sum + credit.Totals.Payable);
        over -= open.Select(rate => rate.Amount).Sum(difference.Currency);
        if (over.Minor == 0)
            return (open, credits);
        if (open.Count > 0)
        {
            var largest = open.MaxBy(rate => rate.Amount.Minor);
            if ((largest.Amount + over).Minor > 0)
                return ([.. open.Where(rate => rate != largest), (largest.Tax, largest.Amount + over)], credits);
        }
        return credits is [.., var last]
            ? (
                open,
                credits.SetItem(
                    credits.Length - 1,
                    last with
                    {
                        Totals = last.Totals with { RoundingAmount = last.Totals.RoundingAmount - over },
                    }
                )
            )
            : (open, credits);
    }

    private static Totals OfRate(Offer offer, Money amount, Tax tax) =>
        offer.Gross ? Totals.OfGross(amount, tax) : Totals.OfNet(amount, tax);

    /// <summary>Takes amounts of rates back from invoices, the latest first; one that is taken back wholly is, with its rounding.</summary>
    private static IEnumerable<CreditedPart> Taken(
        Offer offer,
        IReadOnlyCollection<BilledPart> billed,
        Dictionary<Tax, Money> still
    )
    {
        foreach (var invoice in billed.Reverse())
        {
            var taken = Totals.Zero(offer.Currency);
            foreach (var part in invoice.Left.Parts)
            {
                var whole = offer.Gross ? part.Net + part.Tax : part.Net;
                var due = still.GetValueOrDefault(part.Kind, Money.Zero(offer.Currency));
                if (due.Minor <= 0 || whole.Minor <= 0)
                    continue;
                var amount = due < whole ? due : whole;
                still[part.Kind] = due - amount;
                taken = taken.Plus(
                    amount == whole ? new([part], Money.Zero(offer.Currency)) : OfRate(offer, amount, part.Kind)
                );
            }
            if (taken.Payable.Minor > 0)
                yield return new(invoice.Invoice, taken.Parts.SequenceEqual(invoice.Left.Parts) ? invoice.Left : taken);
        }
    }
}
