using Gesamt.Core.Proposals;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Proposals;

/// <summary>What changed from one version to the next.</summary>
public class DifferencesTests
{
    private static OfferLine Line(string key, decimal quantity, decimal price) =>
        new(key, LineRole.Included, null, key, "", quantity, "", price, Rate.Percent(23), false);

    private static Offer First() =>
        new(
            "Hall",
            "",
            "",
            Currency.Eur,
            Date("2027-02-22"),
            [Line("Wall", 27, 140), Line("Ceiling", 1, 800), Line("Varnish", 1, 100)],
            [new(Rate.Percent(100), new DueRule.OnBooking(7))]
        )
        {
            Parts =
            [
                new OfferPart.Words(TextSort.Why, "Why", "Wet boots."),
                new OfferPart.Timeline("When", [new(Date("2027-03-01"), null, "survey")]),
                new OfferPart.Services(),
            ],
        };

    private static IEnumerable<(DifferenceSort, string)> Between(Offer before, Offer after) =>
        OfferDifferences.Between(before, after).Select(one => (one.Sort, one.What));

    [Fact]
    public void The_same_read_twice_has_no_difference() => Assert.Empty(Between(First(), First()));

    [Fact]
    public void Services_are_added_gone_dearer_and_cheaper()
    {
        var after = First() with { Lines = [Line("Wall", 20, 140), Line("Varnish", 1, 120), Line("Names", 14, 20)] };
        Assert.Equal(
            [
                (DifferenceSort.Cheaper, "Wall, 20"),
                (DifferenceSort.Dearer, "Varnish"),
                (DifferenceSort.Added, "Names, 14"),
                (DifferenceSort.Gone, "Ceiling"),
            ],
            Between(First(), after)
        );
    }

    [Theory] // they stand beside sums with tax
    [InlineData(false, "before tax"), InlineData(true, "with tax")]
    public void A_price_says_whether_the_tax_is_in_it(bool gross, string tax)
    {
        var (before, after) = (First() with { Gross = gross }, First() with { Gross = gross });
        after = after with { Lines = [Line("Wall", 20, 140), .. after.Lines.Skip(1), Line("Names", 14, 20)] };
        var differences = OfferDifferences.Between(before, after);
        Assert.Equal($"€ 2 800.00 {tax}", Plain(differences[0].After));
        Assert.DoesNotContain("tax", differences[0].Before);
        Assert.Equal($"€ 280.00 {tax}", Plain(differences[1].After));
    }

    private static string? Plain(string? amount) => amount?.Replace('\u00a0', ' ').Replace('\u202f', ' ');

    [Fact]
    public void Payments_the_date_the_discount_and_the_words_are_named()
    {
        var before = First();
        var after = before with
        {
            ValidUntil = Date("2027-03-01"),
            Less = new(new Discount.Share(Rate.Percent(5)), "second project"),
            Plan = [new(Rate.Percent(40), new DueRule.OnBooking(7)), new(Rate.Percent(60), new DueRule.OnHandover(14))],
            Parts =
            [
                new OfferPart.Words(TextSort.Why, "Why", "Wet boots, and no idea where they are."),
                new OfferPart.Timeline("When", [new(Date("2027-03-08"), null, "survey")]),
                new OfferPart.Services(),
                new OfferPart.Words(TextSort.Terms, "", "Two weeks."),
            ],
        };
        Assert.Equal(
            [
                (DifferenceSort.Added, "Discount on the whole"),
                (DifferenceSort.Changed, "Payments"),
                (DifferenceSort.Changed, "Valid until"),
                (DifferenceSort.Changed, "Why"),
                (DifferenceSort.Changed, "When"),
                (DifferenceSort.Added, "Terms"),
            ],
            Between(before, after)
        );
        var plan = OfferDifferences.Between(before, after).Single(one => one.What == "Payments");
        Assert.Equal(("100 % to book", "40 % to book; 60 %, due 14 days after handover"), (plan.Before, plan.After));
    }

    [Fact]
    public void What_was_written_before_there_were_parts_reads_as_it_did()
    {
        var old = new Offer("Hall", "Wet boots.", "Two weeks.", Currency.Eur, Date("2027-02-22"), [], []);
        Assert.Equal(
            ["Wet boots.", "", "Two weeks."],
            old.Parts.Select(part => part is OfferPart.Words words ? words.Body : "")
        );
    }
}
