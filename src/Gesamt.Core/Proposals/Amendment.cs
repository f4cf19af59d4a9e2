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
        if (offer.Lines.FirstOrDefault(line => line.Role != LineRole.Included) is { } open)
            throw new OfferException(
                $"lines.{open.Key}",
                $"An amendment is signed as it stands: include “{open.Title}”, or take it out."
            );
        var priced = Pricing.Sums(offer, Choice.Nothing);
        var zero = Totals.Zero(offer.Currency);
        var before = billed.Aggregate(zero, (sum, part) => sum.Plus(part.Left));
        var left = ByRate(offer, priced.Totals, before);
        var rest = left.Where(rate => rate.Amount.Minor > 0)
            .Aggregate(zero, (sum, rate) => sum.Plus(OfRate(offer, rate.Amount, rate.Rate)));
        ImmutableArray<CreditedPart> credits =
        [
            .. Taken(offer, billed, left.ToDictionary(rate => rate.Rate, rate => -rate.Amount)),
        ];
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
        Offer offer,
        ImmutableArray<AgreedPart> before,
        IReadOnlySet<int> invoiced
    )
    {
        List<AgreedPart> parts =
        [
            .. before.Select(
                (part, place) => invoiced.Contains(place) ? part : part with { Amount = Money.Zero(offer.Currency) }
            ),
        ];
        List<int> places = [];
        foreach (var rest in Priced.Parts(offer))
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
    private static List<(Rate Rate, Money Amount)> ByRate(Offer offer, Totals whole, Totals billed)
    {
        var left = whole.Minus(billed);
        var rates = left
            .Parts.Select(part => (part.Rate, Amount: offer.Gross ? part.Net + part.Tax : part.Net))
            .ToList();
        if (!offer.Gross || rates.Count == 0)
            return rates;
        // what was promised gross is asked for to the cent: the roundings go with the largest
        var at = rates.IndexOf(rates.MaxBy(rate => rate.Amount.Minor));
        rates[at] = (rates[at].Rate, rates[at].Amount + left.RoundingAmount);
        return rates;
    }

    private static Totals OfRate(Offer offer, Money amount, Rate rate) =>
        offer.Gross ? Totals.OfGross(amount, rate) : Totals.OfNet(amount, rate);

    /// <summary>Takes amounts of rates back from invoices, the latest first; one that is taken back wholly is, with its rounding.</summary>
    private static IEnumerable<CreditedPart> Taken(
        Offer offer,
        IReadOnlyCollection<BilledPart> billed,
        Dictionary<Rate, Money> still
    )
    {
        foreach (var invoice in billed.Reverse())
        {
            var taken = Totals.Zero(offer.Currency);
            foreach (var part in invoice.Left.Parts)
            {
                var whole = offer.Gross ? part.Net + part.Tax : part.Net;
                var due = still.GetValueOrDefault(part.Rate, Money.Zero(offer.Currency));
                if (due.Minor <= 0 || whole.Minor <= 0)
                    continue;
                var amount = due < whole ? due : whole;
                still[part.Rate] = due - amount;
                taken = taken.Plus(
                    amount == whole ? new([part], Money.Zero(offer.Currency)) : OfRate(offer, amount, part.Rate)
                );
            }
            if (taken.Payable.Minor > 0)
                yield return new(invoice.Invoice, taken.Parts.SequenceEqual(invoice.Left.Parts) ? invoice.Left : taken);
        }
    }
}
