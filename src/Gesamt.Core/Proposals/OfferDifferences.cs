using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;

namespace Gesamt.Core.Proposals;

/// <summary>What became of a part of a proposal in its next version.</summary>
public enum DifferenceSort
{
    Added,
    Gone,
    Dearer,
    Cheaper,
    Changed,
}

/// <param name="What">The service, or the part of the page.</param>
/// <param name="Before">Null for what is new.</param>
/// <param name="After">Null for what is gone.</param>
public sealed record Difference(DifferenceSort Sort, string What, string? Before, string? After);

/// <summary>What changed from one version of a proposal to the next, as its reader needs to know it.</summary>
public static class OfferDifferences
{
    /// <summary>The services first, in the order of the newer page, then the sums, then the words.</summary>
    public static IReadOnlyList<Difference> Between(Offer before, Offer after) =>
        [
            .. Lines(before, after),
            .. Changed("Discount on the whole", Less(before), Less(after)),
            .. Changed("Payments", Plan(before), Plan(after)),
            .. Changed("Currency", before.Currency.Code, after.Currency.Code),
            .. Changed("Prices", Tax(before), Tax(after)),
            .. Changed("Valid until", DateWords.Long(before.ValidUntil), DateWords.Long(after.ValidUntil)),
            .. Changed("Title", before.Title, after.Title),
            .. Changed("File", before.File?.Name, after.File?.Name, before.File?.Hash == after.File?.Hash),
            .. Parts(before, after),
        ];

    private static IEnumerable<Difference> Lines(Offer before, Offer after)
    {
        var earlier = before.Lines.ToLookup(line => line.Key);
        foreach (var line in after.Lines)
            if (earlier[line.Key].FirstOrDefault() is not { } old)
                yield return new(DifferenceSort.Added, line.Words, null, PriceAndTax(line, after));
            else if (OfLine(old, before, line, after) is { } difference)
                yield return difference;
        foreach (var line in before.Lines.Where(line => after.Lines.All(one => one.Key != line.Key)))
            yield return new(DifferenceSort.Gone, line.Words, PriceAndTax(line, before), null);
    }

    /// <summary>A price tells more than a quantity, and that more than words: the first that changed is said.</summary>
    private static Difference? OfLine(OfferLine old, Offer before, OfferLine line, Offer after)
    {
        var (was, now) = (old.Priced(before.Currency).Net, line.Priced(after.Currency).Net);
        if (before.Currency == after.Currency && was != now)
            return new(
                was < now ? DifferenceSort.Dearer : DifferenceSort.Cheaper,
                line.Words,
                before.Gross == after.Gross ? Price(old, before) : PriceAndTax(old, before),
                PriceAndTax(line, after)
            );
        if (old.Role != line.Role || old.Group != line.Group)
            return new(DifferenceSort.Changed, line.Words, Role(old), Role(line));
        if (old.Words != line.Words)
            return new(DifferenceSort.Changed, line.Words, old.Words, line.Words);
        if (old.Limits != line.Limits)
            return new(DifferenceSort.Changed, line.Words, Limits(old), Limits(line));
        return (old.Detail, old.Text, old.Picture, old.Link) == (line.Detail, line.Text, line.Picture, line.Link)
            ? null
            : new(DifferenceSort.Changed, line.Words, "described otherwise", "as it reads now");
    }

    private static IEnumerable<Difference> Parts(Offer before, Offer after)
    {
        var (gone, added) = (
            before.Parts.ExceptBy(after.Parts.Select(Shown), Shown).ToList(),
            after.Parts.ExceptBy(before.Parts.Select(Shown), Shown).ToList()
        );
        foreach (var part in added.Select(Named).Where(part => part.Name.Length > 0))
            yield return gone.FirstOrDefault(old => Named(old).Name == part.Name) is { } old && gone.Remove(old)
                ? new(DifferenceSort.Changed, part.Name, Named(old).Text, part.Text)
                : new(DifferenceSort.Added, part.Name, null, part.Text);
        foreach (var part in gone.Select(Named).Where(part => part.Name.Length > 0))
            yield return new(DifferenceSort.Gone, part.Name, part.Text, null);
    }

    /// <summary>All that is read of a part: two that read the same are the same.</summary>
    private static (Type, string, string, string?) Shown(OfferPart part) =>
        (part.GetType(), Named(part).Name, Named(part).Text, (part as OfferPart.Picture)?.Hash);

    private static (string Name, string Text) Named(OfferPart part) =>
        part switch
        {
            OfferPart.Words words => (
                words.Heading.Length > 0 ? words.Heading
                : words.Sort == TextSort.Terms ? "Terms"
                : "Words",
                words.Body
            ),
            OfferPart.Timeline timeline => (
                timeline.Heading.Length > 0 ? timeline.Heading : "Dates",
                string.Join(
                    '\n',
                    timeline.Days.Select(day =>
                        $"{DateWords.Long(day.On)}{(day.Until is { } until ? $" to {DateWords.Long(until)}" : "")}: {day.Words}"
                    )
                )
            ),
            OfferPart.Picture picture => ("Picture", picture.Caption),
            _ => ("", ""),
        };

    private static IEnumerable<Difference> Changed(string what, string? before, string? after, bool same = true) =>
        before == after && same
            ? []
            :
            [
                new(
                    before is null ? DifferenceSort.Added
                        : after is null ? DifferenceSort.Gone
                        : DifferenceSort.Changed,
                    what,
                    before,
                    after
                ),
            ];

    private static string Price(OfferLine line, Offer offer) => MoneyText.Of(line.Priced(offer.Currency).Net);

    /// <summary>It stands alone, beside sums with tax: it says which it is.</summary>
    private static string PriceAndTax(OfferLine line, Offer offer) =>
        $"{Price(line, offer)} {(offer.Gross ? "with tax" : "before tax")}";

    private static string Role(OfferLine line) =>
        line.Role switch
        {
            LineRole.Included => "included",
            LineRole.OneOf => "a choice of one",
            _ => "to add",
        };

    private static string Limits(OfferLine line) =>
        line.Limits is { } limits
            ? $"{NumberText.Number(limits.Least)} to {NumberText.Number(limits.Most)}"
            : "fixed quantity";

    private static string? Less(Offer offer) =>
        offer.Less is { } less
            ? $"{less.Of.Words(offer.Currency)}{(less.Why.Length > 0 ? $", {less.Why}" : "")}"
            : null;

    private static string Tax(Offer offer) => offer.Gross ? "tax included" : "before tax";

    private static string Plan(Offer offer) => string.Join("; ", PaymentPlan.Words(offer));
}
