using System.Collections.Immutable;
using Gesamt.Core.Projects;
using NodaTime.Text;

namespace Gesamt.Core.Tests;

/// <summary>Short ways to say dates, calendars and histories in tests.</summary>
public static class World
{
    public static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];

    public static readonly StudioCalendar Calendar = new(Dublin, [], new LocalTime(8, 0), new LocalTime(18, 0));

    public static LocalDate Date(string iso) => LocalDatePattern.Iso.Parse(iso).Value;

    /// <summary>An instant told in Dublin's local time.</summary>
    public static Instant At(string local) =>
        Calendar.At(LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd HH:mm").Parse(local).Value);

    public static Money Eur(decimal major) => Money.Of(major, Currency.Eur);

    public static Case Case(params (string When, Happening What)[] facts) => Case(KindRules.Default, [], facts);

    public static Case Case(KindRules kind, Run[] runs, params (string When, Happening What)[] facts) =>
        new(
            new ProjectId(1),
            kind,
            new History(
                facts.Select(
                    (fact, i) =>
                        new Fact(
                            new FactId(i + 1),
                            new ProjectId(1),
                            At(fact.When),
                            At(fact.When),
                            ActorOf(fact.What),
                            fact.What
                        )
                )
            ),
            [],
            [.. runs],
            Calendar
        );

    public static Case With(this Case project, params OpenTask[] tasks) => project with { OpenTasks = [.. tasks] };

    public static readonly VersionId V1 = new(1);
    public static readonly VersionId Contract = new(9);

    public static Happening Inquiry => new Happening.InquiryCame(null);
    public static Happening Fit => new Happening.MarkedFit();

    public static Happening Letter(long id = 1) => new Happening.LetterSent(new LetterId(id), false);

    public static Happening Answer(long id = 2) => new Happening.LetterReceived(new LetterId(id), false);

    public static Happening Sent(string validUntil = "2027-03-01") => new Happening.ProposalSent(V1, Date(validUntil));

    public static Happening Opened => new Happening.ProposalOpened(V1);

    /// <summary>A price with a deposit on booking and the rest around the date that matters, its invoice 14 days before.</summary>
    public static Happening Accepted(decimal price = 3000, decimal deposit = 1200) =>
        new Happening.ProposalAccepted(
            V1,
            Eur(price),
            Eur(deposit),
            Eur(price),
            [
                new(Eur(deposit), new DueRule.OnBooking(7)),
                new(Eur(price - deposit), new DueRule.AroundMainDate(Span.None, 14)),
            ]
        );

    public static Happening ContractSent => new Happening.ContractSent(Contract);

    public static Happening Signed(Signer signer) => new Happening.ContractSigned(Contract, signer);

    public static Happening Paid(decimal amount, long id = 1, long? invoice = null) =>
        new Happening.PaymentReceived(new PaymentId(id), invoice is { } of ? new InvoiceId(of) : null, Eur(amount));

    public static Happening OpeningDay(string date) => new Happening.DateSet("date", Date(date), null);

    public static ImmutableArray<StopRule> Stops(params StopRule[] rules) => [.. rules];

    private static Actor ActorOf(Happening what) =>
        what is Happening.InquiryCame or Happening.LetterReceived or Happening.ProposalAccepted
            ? Actor.Client
            : Actor.Owner;
}

/// <summary>Picks one of some values.</summary>
public static class Any
{
    public static Gen<T> Of<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);
}
