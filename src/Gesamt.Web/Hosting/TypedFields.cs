using Gesamt.Core.Amounts;

namespace Gesamt.Web.Hosting;

/// <summary>Whether a discount, or a payment, is a share or an amount.</summary>
public enum SizeSort
{
    Share,
    Amount,
}

/// <param name="Figure">Per cent, or an amount in major units.</param>
/// <param name="Why">Said with a discount on the whole; empty on a line.</param>
public sealed record DiscountDto(SizeSort Sort, string Figure, string Why);

/// <summary>Discounts as a page edits them.</summary>
public static class TypedDiscount
{
    /// <summary>A discount in the numbers of the studio’s place.</summary>
    public static DiscountDto Of(Discount discount, string why = "") =>
        discount switch
        {
            Discount.Share share => new(SizeSort.Share, NumberText.Number(share.Of.InPercent), why),
            Discount.Amount amount => new(SizeSort.Amount, NumberText.Number(amount.Major), why),
            _ => throw new ArgumentOutOfRangeException(nameof(discount), discount, "No such discount."),
        };
}

/// <summary>A text of a bounded length.</summary>
internal static class TypedText
{
    /// <param name="what">What it says, as the beginning of a sentence.</param>
    /// <exception cref="InvalidException">It is too short or too long.</exception>
    public static string Of(string field, string text, int least, int most, string what)
    {
        var plain = text.Trim();
        return plain.Length >= least && plain.Length <= most
            ? plain
            : throw new InvalidException(
                (field, $"{what} is said in {(least > 0 ? $"{least} to" : "at most")} {most} characters.")
            );
    }
}

/// <summary>Reads the fields of a paper as they were typed; what is wrong is gathered, each by its field with what is allowed.</summary>
internal abstract class TypedFields
{
    private readonly List<(string, string)> errors = [];

    protected void Wrong(string field, string words) => errors.Add((field, words));

    /// <exception cref="InvalidException">Something was wrong.</exception>
    protected void Demand()
    {
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
    }

    protected decimal Number(string field, string text, string what)
    {
        if (
            NumberText.Exact(text) is { } number
            && decimal.Round(number, 6) == number
            && Math.Abs(number) <= 1_000_000_000
        )
            return number;
        errors.Add(
            (
                field,
                $"{what} must be a number such as {NumberText.Number(12.5m)}, with at most six decimals; “{text}” is not.{NumberText.Doubt(text)}"
            )
        );
        return 0;
    }

    protected Rate Percent(string field, string text, string what)
    {
        var number = Number(field, text, what);
        if (number is >= 0 and <= 100 && decimal.Round(number, 4) == number)
            return Rate.Percent(number);
        errors.Add((field, $"{what} must lie between 0 and 100 with at most four decimals."));
        return new(0);
    }

    protected string Text(string field, string text, int most)
    {
        var trimmed = text.Trim();
        if (trimmed.Length > most)
            errors.Add((field, $"Write at most {most} characters; these are {trimmed.Length}."));
        return trimmed;
    }

    protected Currency CurrencyOf(string? code, Currency otherwise)
    {
        if (code is null)
            return otherwise;
        if (Currency.All.ContainsKey(code))
            return Currency.Of(code);
        errors.Add(("currency", $"“{code}” is no currency code of ISO 4217, such as EUR, GBP or JPY."));
        return otherwise;
    }

    protected string Hash(string field, string hash)
    {
        if (hash.Length != 64 || !hash.All(char.IsAsciiHexDigitLower))
            errors.Add((field, "Choose the file once more: it was not kept."));
        return hash;
    }

    /// <param name="of">The name of what is taxed.</param>
    protected (Rate Rate, TaxCategory Category) Tax(string field, string text, string of)
    {
        if (TaxText.Read(text) is { } tax)
            return tax;
        Wrong(field, $"The tax of “{of}”: {TaxText.Allowed}{NumberText.Doubt(text)}");
        return (default, TaxCategory.Zero);
    }

    protected Discount DiscountOf(string field, DiscountDto less) =>
        less.Sort == SizeSort.Share
            ? new Discount.Share(Percent(field, less.Figure, "A discount"))
            : new Discount.Amount(Number(field, less.Figure, "A discount"));
}
