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

/// <summary>Between which quantities the client may choose.</summary>
public sealed record QuantityLimits(decimal Least, decimal Most)
{
    /// <summary>Whether parts of one are no quantity: where both limits are whole numbers.</summary>
    public bool Whole => decimal.IsInteger(Least) && decimal.IsInteger(Most);

    public bool Holds(decimal quantity) =>
        quantity >= Least && quantity <= Most && (!Whole || decimal.IsInteger(quantity));
}

/// <summary>The unit price from a quantity on.</summary>
public sealed record PriceStep(decimal From, decimal UnitPrice);

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
    /// <summary>Why it carries its tax.</summary>
    public TaxCategory Category { get; init; } = TaxCategories.Of(Tax);

    /// <summary>Null where the quantity is fixed.</summary>
    public QuantityLimits? Limits { get; init; }

    /// <summary>Cheaper, or dearer, from a quantity on; by rising quantity.</summary>
    public ImmutableArray<PriceStep> Steps { get; init; } = [];

    public Discount? Less { get; init; }

    /// <summary>More about it, in Markdown.</summary>
    public string Text { get; init; } = "";

    /// <summary>A page about it, https or http; empty for none.</summary>
    public string Link { get; init; } = "";

    /// <summary>SHA-256 of its picture.</summary>
    public string? Picture { get; init; }

    /// <summary>Which service of the price list it was taken from.</summary>
    public int? Service { get; init; }

    /// <summary>“Hand-lettered name, 14 letters”; the title alone for one of it.</summary>
    public string Words => Quantity == 1 ? Title : $"{Title}, {UnitWords.Counted(Quantity, Unit)}";

    /// <summary>The price of one at its quantity.</summary>
    public decimal PriceEach => Steps.LastOrDefault(step => step.From <= Quantity)?.UnitPrice ?? UnitPrice;

    /// <summary>With its discount; net, or gross where the offer's prices are.</summary>
    public PricedLine Priced(Currency currency)
    {
        var whole = new PricedLine(Quantity, PriceEach, Money.Zero(currency), Tax) { Category = Category };
        return Less is null ? whole : whole with { Discount = Less.From(whole.Net) };
    }
}

/// <summary>A part of the price and when it is due.</summary>
/// <param name="Share">Of the price, or of what is left of it beside fixed amounts; nothing for a fixed amount.</param>
/// <param name="Amount">A fixed amount in major units, before tax where the prices are; null for a share.</param>
public sealed record PlanPart(Rate Share, DueRule Due, decimal? Amount = null);

/// <summary>The owner's own file as the proposal, with the prices beside it.</summary>
/// <param name="Hash">SHA-256 of its bytes.</param>
public sealed record OfferFile(string Hash, string Name);

/// <summary>A proposal as it is put to the client.</summary>
/// <param name="Intro">Of an older Gesamt, which knew two texts; read them by <see cref="Parts"/>.</param>
/// <param name="Terms"><inheritdoc cref="Intro" path="/param"/></param>
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
    private readonly ImmutableArray<OfferPart> parts = BeforeParts(Intro, Terms);

    /// <summary>The page in its order.</summary>
    public ImmutableArray<OfferPart> Parts
    {
        get => parts;
        init => parts = value.IsDefault ? BeforeParts(Intro, Terms) : value;
    }

    /// <summary>Whether the prices include the tax.</summary>
    public bool Gross { get; init; }

    public Reduction? Less { get; init; }

    public OfferFile? File { get; init; }

    /// <summary>Whether it can be chosen on a day: the last one counts whole.</summary>
    public bool IsValidOn(LocalDate day) => day <= ValidUntil;

    /// <summary>SHA-256 of everything it shows that lies in a file.</summary>
    public IEnumerable<string> Files =>
        Parts
            .OfType<OfferPart.Picture>()
            .Select(part => part.Hash)
            .Concat(Lines.Select(line => line.Picture).OfType<string>())
            .Concat(File is { Hash: var hash } ? [hash] : []);

    private static ImmutableArray<OfferPart> BeforeParts(string intro, string terms) =>
        [
            .. intro.Length > 0 ? new[] { new OfferPart.Words(TextSort.Free, "", intro) } : [],
            new OfferPart.Services(),
            .. terms.Length > 0 ? new[] { new OfferPart.Words(TextSort.Terms, "", terms) } : [],
        ];
}

/// <summary>An instalment of a choice, with its dates as far as they are known.</summary>
public sealed record PlannedInstalment(
    string Words,
    Instalment Part,
    DueRule Rule,
    LocalDate? Due,
    LocalDate? InvoiceOn
);

/// <summary>What a choice comes to.</summary>
/// <param name="Lines">In the quantities chosen.</param>
/// <param name="Sum">Of the lines with their own discounts.</param>
/// <param name="Less">The discount on the whole; nothing for none.</param>
public sealed record PricedChoice(
    ImmutableArray<OfferLine> Lines,
    Money Sum,
    Money Less,
    Totals Totals,
    ImmutableArray<PlannedInstalment> Instalments
)
{
    /// <summary>What is due on booking; zero when nothing is.</summary>
    public Money DueOnBooking =>
        Instalments
            .Where(instalment => instalment.Rule is DueRule.OnBooking)
            .Select(instalment => instalment.Part.Payable)
            .Sum(Totals.Payable.Currency);

    /// <summary>The instalments as the fact of the agreement keeps them.</summary>
    public ImmutableArray<AgreedPart> Parts =>
        [.. Instalments.Select(instalment => new AgreedPart(instalment.Part.Payable, instalment.Rule))];
}

/// <summary>A choice, or an offer, that does not hold together; says which field and what is allowed.</summary>
public sealed class OfferException(string field, string message) : Exception(message)
{
    public string Field { get; } = field;
}
