using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using NodaTime;

namespace Gesamt.Core.Books;

/// <summary>Where an amount of a project stands: in exactly one place.</summary>
public enum Place
{
    Received,

    /// <summary>Invoiced, and not due yet.</summary>
    Sent,
    Late,

    /// <summary>Agreed with a booked project, and not invoiced yet.</summary>
    ToCome,

    /// <summary>The open value of one that is not booked, times its chance.</summary>
    Likely,
}

/// <summary>How likely a project of a stage is to be booked: Laplace's rule of succession over the studio's own projects that reached it, (won + 1) / (won + ended without a win + 2); or the owner's own figure.</summary>
/// <param name="Won">Of those that reached the stage.</param>
/// <param name="Lost">Ended without a win.</param>
/// <param name="Own">Per cent, 0 to 100; null for what the counts say.</param>
/// <remarks>Laplace, Essai philosophique sur les probabilités (1814).</remarks>
public readonly record struct Chance(int Won, int Lost, int? Own = null)
{
    /// <summary>As an exact fraction.</summary>
    public (int Of, int All) Fraction => Own is { } percent ? (percent, 100) : (Won + 1, Won + Lost + 2);

    /// <summary>Whole per cent, half upwards.</summary>
    public int Percent => (200 * Fraction.Of + Fraction.All) / (2 * Fraction.All);

    /// <summary>That much of an amount, rounded half away from zero.</summary>
    public Money Of(Money value) => value.Times((decimal)Fraction.Of / Fraction.All);
}

/// <summary>A part of an amount that is still to come.</summary>
/// <param name="On">When it is due; null while what that hangs on is not known.</param>
public sealed record Coming(LocalDate? On, Money Amount);

/// <summary>What a project has paid, owes and will owe.</summary>
/// <param name="Received">Payments less what went back, each on its day.</param>
/// <param name="Owed">What is open on its invoices, by due day.</param>
/// <param name="Ahead">What is agreed, or asked for, and not invoiced.</param>
/// <param name="Chance">Of one that is not booked; null for one that is.</param>
public sealed record ProjectMoney(
    ImmutableArray<Coming> Received,
    ImmutableArray<Coming> Owed,
    ImmutableArray<Coming> Ahead,
    Chance? Chance
);

/// <summary>An amount in its place.</summary>
/// <param name="Month">Null while its day is not known.</param>
/// <param name="Whole">What it is a part of by its chance; the same where it is certain.</param>
public sealed record Placed(Place Place, YearMonth? Month, Money Amount, Money Whole);

/// <summary>Which month every amount of a project falls into.</summary>
public static class Forecast
{
    /// <summary>Each amount once. What should have come already is expected in the present month.</summary>
    public static IEnumerable<Placed> Of(ProjectMoney project, LocalDate today)
    {
        var present = today.ToYearMonth();
        YearMonth? Ahead(LocalDate? on) =>
            on is not { } day ? null
            : day < today ? present
            : day.ToYearMonth();
        foreach (var part in project.Received)
            yield return new(Place.Received, part.On?.ToYearMonth(), part.Amount, part.Amount);
        foreach (var part in project.Owed)
            yield return new(part.On < today ? Place.Late : Place.Sent, Ahead(part.On), part.Amount, part.Amount);
        foreach (var part in project.Ahead)
            yield return project.Chance is { } chance
                ? new(Place.Likely, Ahead(part.On), chance.Of(part.Amount), part.Amount)
                : new(Place.ToCome, Ahead(part.On), part.Amount, part.Amount);
    }
}
