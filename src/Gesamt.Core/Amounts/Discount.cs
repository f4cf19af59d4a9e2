namespace Gesamt.Core.Amounts;

/// <summary>What is taken off a price: a share of it, or an amount.</summary>
public abstract record Discount
{
    private Discount() { }

    /// <summary>A share, rounded to the minor unit before it is taken off.</summary>
    public sealed record Share(Rate Of) : Discount;

    /// <summary>An amount in major units of the currency.</summary>
    public sealed record Amount(decimal Major) : Discount;

    /// <summary>What is taken off a sum.</summary>
    public Money From(Money sum) =>
        this switch
        {
            Share share => sum.Times(share.Of),
            Amount amount => Money.Of(amount.Major, sum.Currency),
            _ => throw new ArgumentOutOfRangeException(nameof(sum), this, "No such discount."),
        };

    /// <summary>“5 %”, “40.00”.</summary>
    public string Words(Currency currency) =>
        this switch
        {
            Share share => share.Of.ToString(),
            Amount amount => MoneyText.Figures(Money.Of(amount.Major, currency)),
            _ => throw new ArgumentOutOfRangeException(nameof(currency), this, "No such discount."),
        };
}

/// <summary>A discount on the whole of a paper, and why.</summary>
public sealed record Reduction(Discount Of, string Why);
