using Gesamt.Core.Amounts;
using NodaTime;

namespace Gesamt.Web.Hosting;

/// <summary>An amount as it is typed.</summary>
public static class TypedMoney
{
    private const decimal Most = 100_000_000;

    /// <summary>An amount above nothing, as fine as its currency.</summary>
    /// <exception cref="InvalidException">It is none.</exception>
    public static Money Of(Currency currency, string? text, string field)
    {
        if (NumberReading.Amount(text ?? "", currency: currency) is not { } major || major is <= 0 or > Most)
            throw new InvalidException(
                (field, $"Give an amount above 0, such as {NumberText.Number(1200.5m)}0.{NumberText.Doubt(text ?? "")}")
            );
        var money = Money.Of(major, currency);
        return money.Major == major
            ? money
            : throw new InvalidException((field, $"{currency.Code} has {currency.Exponent} decimals at most."));
    }

    /// <summary>A balance: nothing, or an amount above or below it; empty is nothing.</summary>
    /// <exception cref="InvalidException">It is none.</exception>
    public static Money Balance(Currency currency, string text, string field)
    {
        var plain = text.Trim();
        var isBelow = plain.StartsWith('-') || plain.StartsWith('\u2212');
        var digits = isBelow ? plain[1..].Trim() : plain;
        if (digits.Length == 0 && !isBelow || NumberReading.Amount(digits) == 0)
            return Money.Zero(currency);
        var amount = Of(currency, digits, field);
        return isBelow ? -amount : amount;
    }
}

/// <summary>The day of something that happened outside.</summary>
public static class Moments
{
    /// <summary>Now for today and where no day is said; noon of an earlier day; or the time of day that is said.</summary>
    /// <exception cref="InvalidException">It lies ahead, or very far back.</exception>
    public static Instant Of(Desk desk, LocalDate? on, LocalTime? time = null)
    {
        if (on is not { } day || day == desk.Today)
            return time is { } at ? UpToNow(desk, desk.Calendar.At(desk.Today + at)) : desk.Now;
        if (day > desk.Today)
            throw new InvalidException(("on", "Nothing can have happened later than today."));
        if (day < desk.Today.PlusYears(-20))
            throw new InvalidException(("on", "Choose a day within the last twenty years."));
        return desk.Calendar.At(day + (time ?? new LocalTime(12, 0)));
    }

    private static Instant UpToNow(Desk desk, Instant at) =>
        at <= desk.Now ? at : throw new InvalidException(("at", "Nothing can have happened later than now."));
}
