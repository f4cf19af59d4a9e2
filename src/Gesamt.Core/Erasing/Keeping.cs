using NodaTime;

namespace Gesamt.Core.Erasing;

/// <summary>For how many years the law keeps papers, as the studio says it.</summary>
/// <param name="BookYears">Invoices, payments and receipts.</param>
/// <param name="AgreementYears">Accepted proposals and signed contracts.</param>
/// <remarks>Laws count from the end of the year a paper is of, such as § 147 (4) of the German Abgabenordnung (from memory); how many years is the studio's to know.</remarks>
public sealed record Keeping(int BookYears, int AgreementYears)
{
    /// <summary>The most years that can be said.</summary>
    public const int MostYears = 30;

    /// <summary>The last day on which a paper of the books is kept.</summary>
    public LocalDate BooksUntil(LocalDate of) => EndOf(of.Year + BookYears);

    /// <summary>The last day on which an agreement is kept.</summary>
    public LocalDate AgreementsUntil(LocalDate of) => EndOf(of.Year + AgreementYears);

    private static LocalDate EndOf(int year) => new(year, 12, 31);
}
