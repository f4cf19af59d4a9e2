using Gesamt.Core.Amounts;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>What keeps an offer from being put to a client, named by field with what is allowed.</summary>
/// <param name="Field">Such as “title” or “lines”; “lines.gable” where one line is meant.</param>
public sealed record OfferFault(string Field, string Words);

/// <summary>Looks an offer over before it goes.</summary>
public static class OfferCheck
{
    /// <summary>Everything that is missing or wrong, in the order of the page; nothing when it can go.</summary>
    /// <remarks>Every choice that a client can make must have a price and a plan: the least and the most that can be chosen are priced as well as what is suggested.</remarks>
    public static IEnumerable<OfferFault> Faults(Offer offer, PlanDates dates) =>
        Faults(
            offer,
            dates,
            () =>
            {
                Pricing.Of(offer, Pricing.Suggested(offer), dates);
                Pricing.Of(offer, Pricing.Least(offer), dates);
                Pricing.Of(offer, Pricing.Most(offer), dates);
            }
        );

    /// <summary>The same for an amendment, which is signed as it stands.</summary>
    /// <param name="billed">What was invoiced of what it changes.</param>
    public static IEnumerable<OfferFault> Faults(
        Offer offer,
        IReadOnlyCollection<BilledPart> billed,
        PlanDates dates
    ) => Faults(offer, dates, () => Amendment.Of(offer, billed, dates));

    private static IReadOnlyList<OfferFault> Faults(Offer offer, PlanDates dates, Action price)
    {
        var plain = Plain(offer, dates.SignedOn).ToList();
        if (plain.Count > 0)
            return plain;
        try
        {
            price();
            return [];
        }
        catch (OfferException refused)
        {
            return [new(refused.Field, refused.Message)];
        }
        catch (InstalmentException refused)
        {
            return [new("plan", refused.Message)];
        }
        catch (OverflowException)
        {
            return [new("lines", "The price is more than can be counted. Look at the quantities.")];
        }
    }

    /// <exception cref="OfferException">There is a fault; the first is said.</exception>
    public static void Demand(Offer offer, PlanDates dates)
    {
        if (Faults(offer, dates).FirstOrDefault() is { } fault)
            throw new OfferException(fault.Field, fault.Words);
    }

    private static IEnumerable<OfferFault> Plain(Offer offer, LocalDate today) =>
        [.. Head(offer, today), .. offer.Lines.SelectMany(line => OfLine(line)), .. Groups(offer), .. Plan(offer)];

    private static IEnumerable<OfferFault> Head(Offer offer, LocalDate today)
    {
        if (string.IsNullOrWhiteSpace(offer.Title))
            yield return new("title", "A proposal needs a title.");
        if (!offer.IsValidOn(today))
            yield return new("validUntil", "Valid until lies in the past; choose today or later.");
        if (offer.Lines.IsEmpty)
            yield return new("lines", "A proposal needs at least one service.");
        else if (offer.Lines.All(line => line.Role == LineRole.Extra))
            yield return new("lines", "Everything is to add: nothing would be agreed when nothing is added.");
        if (offer.Lines.GroupBy(line => line.Key).Any(same => same.Count() > 1))
            yield return new("lines", "Two lines have the same key.");
        if (offer.Less is { Of: Discount.Amount { Major: <= 0 } or Discount.Share { Of.PartsPerMillion: <= 0 } })
            yield return new("less", "A discount is more than nothing. Leave it out if there is none.");
    }

    private static IEnumerable<OfferFault> OfLine(OfferLine line)
    {
        var field = $"lines.{line.Key}";
        if (string.IsNullOrWhiteSpace(line.Title))
            yield return new(field, "Every service needs a title.");
        if (line.Quantity is <= 0 or > 1_000_000)
            yield return new(field, $"The quantity of “{line.Title}” must be more than 0 and at most 1 000 000.");
        if (line.UnitPrice is < 0 or > 100_000_000 || line.Steps.Any(step => step.UnitPrice is < 0 or > 100_000_000))
            yield return new(field, $"The price of “{line.Title}” must lie between 0 and 100 000 000.");
        if (line.Role == LineRole.OneOf && string.IsNullOrWhiteSpace(line.Group))
            yield return new(field, $"“{line.Title}” needs the name of what is chosen between.");
        if (line.Limits is { } limits && (limits.Least <= 0 || limits.Most > 1_000_000 || !limits.Holds(line.Quantity)))
            yield return new(
                field,
                $"The quantity of “{line.Title}” is {NumberText.Number(line.Quantity)}: the limits the client may choose within must hold it, and begin above 0."
            );
        if (line.Steps.Zip(line.Steps.Skip(1)).Any(pair => pair.First.From >= pair.Second.From))
            yield return new(field, $"The price steps of “{line.Title}” must each begin at more than the one before.");
        if (line.Less is Discount.Amount { Major: <= 0 } or Discount.Share { Of.PartsPerMillion: <= 0 })
            yield return new(field, $"The discount on “{line.Title}” is nothing. Leave it out if there is none.");
    }

    private static IEnumerable<OfferFault> Groups(Offer offer) =>
        offer
            .Lines.Where(line => line.Role == LineRole.OneOf)
            .GroupBy(line => line.Group)
            .Where(group => group.Count() < 2)
            .Select(group => new OfferFault(
                $"lines.{group.First().Key}",
                $"“{group.First().Title}” is a choice of one with nothing to choose from. Add another, or make it included."
            ));

    private static IEnumerable<OfferFault> Plan(Offer offer)
    {
        var shares = offer.Plan.Where(part => part.Amount is null).ToList();
        if (offer.Plan.IsEmpty)
            yield return new("plan", "Say when the price is due.");
        else if (offer.Plan.Any(part => part.Amount <= 0))
            yield return new("plan", "A fixed payment must be more than nothing.");
        else if (
            shares.Count > 0
            && (
                shares.Any(part => part.Share.PartsPerMillion <= 0)
                || shares.Sum(part => part.Share.PartsPerMillion) != 1_000_000
            )
        )
            yield return new("plan", "The shares must each be more than nothing and add up to 100 %.");
    }
}
