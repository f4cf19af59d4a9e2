using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Formats.Pdf;

namespace Gesamt.Web.Papers;

/// <summary>An invoice's own copy of all it says; it never changes.</summary>
/// <param name="Head">The studio as it was; null in those of an older Gesamt.</param>
/// <param name="Iban">Where it is paid to; null as with <paramref name="Head"/>.</param>
public sealed record InvoiceSnapshot(
    ImmutableArray<string> Addressee,
    string Project,
    string Share,
    ImmutableArray<InvoiceLine> Lines,
    Totals Totals,
    Letterhead? Head = null,
    string? Iban = null
);

/// <summary>A line of an invoice as it was issued.</summary>
public sealed record InvoiceLine(
    string Title,
    string Detail,
    Money Net,
    string? Quantity = null,
    string? UnitPrice = null
);
