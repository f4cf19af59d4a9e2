namespace Gesamt.Core.Amounts;

/// <summary>Why a price carries the tax it does: the categories of EN 16931 that a studio can need (BT-151, codes of UNTDID 5305).</summary>
/// <remarks>A reduced rate is <see cref="Standard"/> with another rate, as in EN 16931.</remarks>
public enum TaxCategory
{
    /// <summary>S: taxed at a rate above nothing.</summary>
    Standard,

    /// <summary>Z: taxed, at a rate of nothing.</summary>
    Zero,

    /// <summary>E: exempt, for a reason that the paper gives.</summary>
    Exempt,

    /// <summary>AE: the buyer owes the tax (Directive 2006/112/EC, articles 194 to 199).</summary>
    ReverseCharge,
}

/// <summary>A rate with why it is charged: what the sums of a paper are kept apart by (EN 16931, BG-23).</summary>
public readonly record struct Tax(Rate Rate, TaxCategory Category)
{
    /// <summary>At its rate, of the category that goes with it.</summary>
    public static Tax At(Rate rate) => new(rate, TaxCategories.Of(rate));
}

/// <summary>The tax of a line as it is typed and shown.</summary>
public static class TaxText
{
    public const string Allowed =
        "per cent, such as 23, between 0 and 100 with at most four decimals; or “exempt”, or “reverse charge”.";

    private static readonly string[] Exempts = ["exempt", "e"],
        Reverses = ["reverse charge", "reverse", "ae"];

    /// <summary>“23”, “23 %”, “exempt”, “reverse charge”; null for anything else.</summary>
    public static (Rate Rate, TaxCategory Category)? Read(string text)
    {
        var plain = text.Trim().TrimEnd('%').Trim();
        if (Exempts.Contains(plain, StringComparer.OrdinalIgnoreCase))
            return (default, TaxCategory.Exempt);
        if (Reverses.Contains(plain, StringComparer.OrdinalIgnoreCase))
            return (default, TaxCategory.ReverseCharge);
        return NumberText.Percent(plain) is { } rate ? (rate, TaxCategories.Of(rate)) : null;
    }

    /// <summary>As it is typed: “23”, “exempt”, “reverse charge”.</summary>
    public static string Of(Rate rate, TaxCategory category) =>
        category switch
        {
            TaxCategory.Exempt => Exempts[0],
            TaxCategory.ReverseCharge => Reverses[0],
            _ => NumberText.Number(rate.InPercent),
        };
}

/// <summary>What is said of a category of tax.</summary>
public static class TaxCategories
{
    /// <summary>The words that a paper on which the buyer owes the tax must carry (Directive 2006/112/EC, article 226, 11a).</summary>
    public const string ReverseChargeNote = "Reverse charge";

    /// <summary>The category of a rate for which none was said.</summary>
    public static TaxCategory Of(Rate rate) => rate.PartsPerMillion == 0 ? TaxCategory.Zero : TaxCategory.Standard;

    /// <summary>The code of UNTDID 5305.</summary>
    public static string Code(this TaxCategory category) =>
        category switch
        {
            TaxCategory.Standard => "S",
            TaxCategory.Zero => "Z",
            TaxCategory.Exempt => "E",
            TaxCategory.ReverseCharge => "AE",
            _ => throw new ArgumentOutOfRangeException(nameof(category), category, "No such category."),
        };

    /// <summary>As a paper says it in its column of tax: “23 %”, “exempt”.</summary>
    public static string Words(this TaxCategory category, Rate rate) =>
        category switch
        {
            TaxCategory.Exempt => "exempt",
            TaxCategory.ReverseCharge => "reverse charge",
            _ => rate.ToString(),
        };
}
