using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;

namespace Gesamt.Core.Tests.Invoicing;

public class CancellationTests
{
    // common practice: half from two months before, all in the last two weeks
    private static readonly KindRules Terms = KindRules.Default with
    {
        CancelTerms = [new(60, Rate.Percent(50)), new(14, Rate.Percent(100))],
    };

    private static readonly (string, Happening)[] Agreed =
    [
        ("2027-01-11 10:00", World.Accepted(3000, 1200)),
        ("2027-01-11 11:00", new Happening.DateSet("date", new LocalDate(2027, 6, 1), null)),
    ];

    private static (string, Happening) Issued(int id, decimal amount, bool extra = false) =>
        (
            "2027-01-12 10:00",
            new Happening.InvoiceIssued(new InvoiceId(id), World.Eur(amount), new(2027, 1, 26), Extra: extra)
        );

    private static (string, Happening) Paid(int id, decimal amount, int? invoice = 1) =>
        (
            "2027-01-13 10:00",
            new Happening.PaymentReceived(
                new PaymentId(id),
                invoice is { } on ? new InvoiceId(on) : null,
                World.Eur(amount)
            )
        );

    private static Cancellation On(string day, params (string, Happening)[] facts) =>
        Cancellation.Of(World.Case(Terms, [], [.. Agreed, .. facts]), World.Date(day))!;

    [Fact] // or the sums would say another thing than the contract
    public void What_holds_from_the_beginning_holds_however_far_the_date_lies() =>
        Assert.Equal(
            [true, true, false, true],
            new (int Before, int Left)[] { (1_000, 1_200), (59, 59), (365, 400), (0, -3) }.Select(one =>
                new CancelStep(one.Before, Rate.Percent(25)).HoldsAt(one.Left)
            )
        );

    [Theory]
    [InlineData("2027-04-01", 0)] // 61 days before
    [InlineData("2027-04-02", 1500)]
    [InlineData("2027-05-17", 1500)] // 15 days before
    [InlineData("2027-05-18", 3000)]
    [InlineData("2027-06-01", 3000)]
    [InlineData("2027-07-01", 3000)]
    public void The_share_is_that_of_the_latest_step_that_has_come(string day, decimal kept) =>
        Assert.Equal(World.Eur(kept), On(day).Kept);

    [Theory]
    [InlineData("", "opening day", null)]
    [InlineData(
        "1000 25, 59 50, 13 100",
        "opening day",
        "until 60 days before the opening day 25 % of the price is kept, until 14 days before it 50 %, and later all of it"
    )]
    [InlineData(
        "30 50, 0 100",
        "wedding day",
        "until 31 days before the wedding day nothing of the price is kept, until the day before it 50 %, and later all of it"
    )]
    [InlineData("1000 12.5", "", "12.5 % of the price is kept")]
    [InlineData("20 40", "", "until 21 days before the date nothing of the price is kept, and later 40 %")]
    public void A_contract_says_the_terms_that_settle_the_sums(string steps, string date, string? words) =>
        Assert.Equal(
            words,
            CancelStep.Words(
                [
                    .. steps
                        .Split(", ", StringSplitOptions.RemoveEmptyEntries)
                        .Select(step => step.Split(' '))
                        .Select(step => new CancelStep(
                            int.Parse(step[0], System.Globalization.CultureInfo.InvariantCulture),
                            Rate.Percent(decimal.Parse(step[1], System.Globalization.CultureInfo.InvariantCulture))
                        )),
                ],
                date
            )
        );

    [Fact]
    public void What_is_over_goes_back_and_what_is_missing_is_billed()
    {
        var early = On("2027-02-01", Issued(1, 1200), Paid(1, 1200));
        Assert.Equal(
            (World.Eur(1200), World.Eur(1200), World.Eur(0), World.Eur(0)),
            (early.Refunded, early.Credited, early.Billed, early.Open)
        );
        var half = On("2027-05-01", Issued(1, 1200), Paid(1, 1200));
        Assert.Equal(
            (World.Eur(0), World.Eur(0), World.Eur(300), World.Eur(300)),
            (half.Refunded, half.Credited, half.Billed, half.Open)
        );
        var whole = On("2027-05-01", Issued(1, 1200), Issued(2, 1800), Paid(1, 1200));
        Assert.Equal(
            (World.Eur(0), World.Eur(1500), World.Eur(0), World.Eur(300)),
            (whole.Refunded, whole.Credited, whole.Billed, whole.Open)
        );
    }

    [Fact] // what was asked for besides was done, or not: its own matter
    public void What_was_billed_besides_stays_as_it_is()
    {
        var besides = On("2027-02-01", Issued(1, 1200), Paid(1, 1200), Issued(2, 400, extra: true), Paid(2, 400, 2));
        Assert.Equal((World.Eur(1200), World.Eur(1200)), (besides.Refunded, besides.Credited));
    }

    [Fact]
    public void Without_a_date_nothing_is_kept_and_without_terms_nothing_is_said()
    {
        var undated = Cancellation.Of(World.Case(Terms, [], Agreed[0]), World.Date("2027-06-01"))!;
        Assert.Equal((null, World.Eur(0)), (undated.DaysLeft, undated.Kept));
        Assert.Null(Cancellation.Of(World.Case(Agreed), World.Date("2027-06-01")));
        Assert.Null(Cancellation.Of(World.Case(Terms, []), World.Date("2027-06-01")));
    }

    [Fact] // whatever was billed and paid: in the end exactly what the terms keep is billed, and paid or open
    public void It_always_comes_out_even() =>
        Gen.Select(Gen.Long[1, 1_000_000], Gen.Int[0, 1_000_000], Gen.Long[0, 1_000_000], Gen.Long[0, 1_000_000])
            .Sample(
                (agreed, share, billed, paid) =>
                {
                    var price = new Money(agreed, Currency.Eur);
                    (string, Happening)[] facts =
                    [
                        ("2027-01-11 10:00", World.Accepted(price.Major, 0)),
                        ("2027-01-11 11:00", new Happening.DateSet("date", new LocalDate(2027, 6, 1), null)),
                        Issued(1, new Money(Math.Max(1, Math.Min(billed, agreed)), Currency.Eur).Major),
                        .. paid > 0 ? new[] { Paid(1, new Money(paid, Currency.Eur).Major) } : [],
                    ];
                    var kind = KindRules.Default with { CancelTerms = [new(1_000, new Rate(share))] };
                    var came = Cancellation.Of(World.Case(kind, [], facts), World.Date("2027-05-01"))!;
                    var issued = new Money(Math.Max(1, Math.Min(billed, agreed)), Currency.Eur);
                    return issued - came.Credited + came.Billed == came.Kept
                        && new Money(paid, Currency.Eur) - came.Refunded + came.Open == came.Kept
                        && came.Kept <= price;
                }
            );
}
