using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Invoicing;

/// <summary>Charging a means of payment that a client has agreed to be charged on.</summary>
public static class Charging
{
    // days after the first attempt
    private static readonly int[] After = [0, 3, 5, 7];

    /// <summary>The day of the next attempt; null when the last has failed, and it is the owner's.</summary>
    /// <param name="first">The day of the first attempt.</param>
    /// <param name="made">How many were made.</param>
    public static LocalDate? Next(LocalDate first, int made) =>
        made < After.Length ? first.PlusDays(After[made]) : null;

    /// <summary>The consent in force; null where none was given, or it was taken back.</summary>
    public static KeptMeansId? Kept(History history) =>
        history.Last<Happening.MeansKept>() is { What.Means: var means }
        && !history.Any<Happening.ConsentTakenBack>(back => back.Means == means)
            ? means
            : null;

    /// <summary>Whether an invoice that could not be charged is tried again by itself: nobody needs to be reminded of it meanwhile.</summary>
    public static bool IsTriedAgain(History history, InvoiceId invoice) =>
        Kept(history) is not null
        && history.Last<Happening.ChargeRefused>(one => one.Invoice == invoice) is { What.Again: not null };
}
