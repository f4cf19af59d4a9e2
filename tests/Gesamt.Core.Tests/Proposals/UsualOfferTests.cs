using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Proposals;

/// <summary>What is proposed by default, until when it holds, and when its invoices are due.</summary>
public sealed class UsualOfferTests
{
    private static readonly Offer Offer = new(
        "A wall",
        "",
        "",
        Currency.Eur,
        Date("2027-03-01"),
        [],
        UsualOffer.Plan(OfferHabits.Default, KindRules.Default, hasDate: true)
    );

    private static OfferHabits OnBooking(decimal percent) =>
        OfferHabits.Default with
        {
            OnBooking = Rate.Percent(percent),
        };

    [Theory] // the last day counts whole
    [InlineData("2027-02-28", true), InlineData("2027-03-01", true), InlineData("2027-03-02", false)]
    public void An_offer_holds_through_its_last_day(string day, bool holds) =>
        Assert.Equal(holds, Offer.IsValidOn(Date(day)));

    [Fact] // common practice
    public void It_holds_for_two_weeks() =>
        Assert.Equal(Date("2027-02-08"), UsualOffer.ValidUntil(Date("2027-01-25"), OfferHabits.Default));

    [Fact]
    public void The_shares_of_a_plan_are_the_whole_price()
    {
        foreach (var share in new[] { 0m, 25m, 40m, 100m })
        foreach (var hasDate in new[] { true, false })
            Assert.Equal(
                1_000_000,
                UsualOffer.Plan(OnBooking(share), KindRules.Default, hasDate).Sum(part => part.Share.PartsPerMillion)
            );
    }

    [Fact]
    public void Without_a_date_the_rest_comes_with_the_handover()
    {
        Assert.Equal(
            [new DueRule.OnBooking(7), new DueRule.AroundMainDate(Span.None, 14)],
            UsualOffer.Plan(OnBooking(40), KindRules.Default, hasDate: true).Select(part => part.Due)
        );
        Assert.Equal(
            [new DueRule.OnBooking(7), new DueRule.OnHandover(14)],
            UsualOffer.Plan(OnBooking(40), KindRules.Default, hasDate: false).Select(part => part.Due)
        );
    }

    [Fact]
    public void All_on_booking_or_nothing_is_one_payment()
    {
        Assert.IsType<DueRule.OnBooking>(
            Assert.Single(UsualOffer.Plan(OnBooking(100), KindRules.Default, hasDate: true)).Due
        );
        Assert.IsType<DueRule.AroundMainDate>(
            Assert.Single(UsualOffer.Plan(OnBooking(0), KindRules.Default, hasDate: true)).Due
        );
    }

    [Theory] // one that goes out late is not due before it was issued
    [InlineData("2027-03-10", "2027-03-01", "2027-03-10")]
    [InlineData("2027-03-10", "2027-03-10", "2027-03-10")]
    [InlineData("2027-03-10", "2027-03-20", "2027-03-20")]
    [InlineData(null, "2027-03-20", "2027-03-20")]
    public void An_invoice_is_due_as_planned_but_never_before_it_was_issued(
        string? planned,
        string issued,
        string due
    ) =>
        Assert.Equal(
            Date(due),
            new PlannedInvoice(
                0,
                1,
                Eur(100),
                null,
                planned is null ? null : Date(planned),
                new DueRule.OnHandover(0)
            ).DueIfIssued(Date(issued))
        );

    [Theory] // two business days: a Friday's inquiry is answered by Tuesday
    [InlineData("2027-01-22", "2027-01-26"), InlineData("2027-01-25", "2027-01-27")]
    public void An_answer_is_promised_by_business_days(string asked, string by) =>
        Assert.Equal(Date(by), Promise.ReplyBy(World.Calendar, Date(asked), KindRules.Default));

    [Fact]
    public void The_tax_of_most_services_is_the_usual_one()
    {
        Assert.Equal(Rate.Percent(23), UsualOffer.Tax([230_000, 135_000, 230_000]));
        Assert.Equal(Rate.Percent(13.5m), UsualOffer.Tax([135_000, 230_000])); // the first of several
        Assert.Equal(Rate.Percent(0), UsualOffer.Tax([]));
    }
}
