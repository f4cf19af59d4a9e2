using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>How a line stands in a proposal: always part of it, one of several, or to add.</summary>
public enum LineRole
{
    Included,
    OneOf,
    Extra,
}

/// <summary>A service offered, with its quantity and exact unit price in major units.</summary>
/// <param name="Group">What is chosen between, for <see cref="LineRole.OneOf"/>.</param>
/// <param name="Suggested">Ticked when the client opens the page.</param>
public sealed record OfferLine(
    string Key,
    LineRole Role,
    string? Group,
    string Title,
    string Detail,
    decimal Quantity,
    string Unit,
    decimal UnitPrice,
    Rate Tax,
    bool Suggested
)
{
    /// <summary>“Hand-lettered name, 14 letters”; the title alone for one of it.</summary>
    public string Words =>
        Quantity == 1 ? Title : $"{Title}, {NumberText.Number(Quantity)}{(Unit.Length > 0 ? " " + Unit : "")}";

    public PricedLine Priced(Currency currency) => new(Quantity, UnitPrice, Money.Zero(currency), Tax);
}

/// <summary>A share of the price and when it is due.</summary>
public sealed record PlanPart(Rate Share, DueRule Due);

/// <summary>A proposal as it is put to the client.</summary>
public sealed record Offer(
    string Title,
    string Intro,
    string Terms,
    Currency Currency,
    LocalDate ValidUntil,
    ImmutableArray<OfferLine> Lines,
    ImmutableArray<PlanPart> Plan
)
{
    /// <summary>Whether it can be chosen on a day: the last one counts whole.</summary>
    public bool IsValidOn(LocalDate day) => day <= ValidUntil;
}

/// <summary>An instalment of a choice, with its dates as far as they are known.</summary>
public sealed record PlannedInstalment(string Words, Instalment Part, LocalDate? Due, LocalDate? InvoiceOn);

/// <summary>What a choice comes to.</summary>
public sealed record PricedChoice(
    ImmutableArray<OfferLine> Lines,
    Totals Totals,
    ImmutableArray<PlannedInstalment> Instalments
)
{
    /// <summary>What is due on booking; zero when nothing is.</summary>
    public Money DueOnBooking(Offer offer) =>
        Instalments
            .Zip(offer.Plan)
            .Where(pair => pair.Second.Due is DueRule.OnBooking)
            .Select(pair => pair.First.Part.Payable)
            .Sum(offer.Currency);

    /// <summary>The instalments as the fact of the agreement keeps them.</summary>
    public ImmutableArray<AgreedPart> Parts(Offer offer) =>
        [.. offer.Plan.Zip(Instalments, (plan, part) => new AgreedPart(part.Part.Payable, plan.Due))];
}

/// <summary>A choice, or an offer, that does not hold together; says which field and what is allowed.</summary>
public sealed class OfferException(string field, string message) : Exception(message)
{
    public string Field { get; } = field;
}
