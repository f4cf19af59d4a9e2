using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Invoicing;
using Gesamt.Formats.Invoices;
using Gesamt.Formats.Pdf;

namespace Gesamt.Web.Papers;

/// <summary>An invoice's own copy of all it says; it never changes.</summary>
/// <param name="Share">Below its title, behind the project's: which part it is, or what the owner wrote.</param>
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
)
{
    /// <summary>What those of an older Gesamt do not say: they have no data beside them.</summary>
    public InvoiceMore? More { get; init; }
}

/// <summary>A line of an invoice as it was issued.</summary>
/// <param name="Quantity">As it is printed, with its unit in those of an older Gesamt.</param>
public sealed record InvoiceLine(
    string Title,
    string Detail,
    Money Net,
    string? Quantity = null,
    string? UnitPrice = null
)
{
    /// <summary>As it is counted; null in those of an older Gesamt.</summary>
    public BillLine? Counted { get; init; }
}

/// <summary>What an invoice says besides its lines and sums.</summary>
/// <param name="Reference">ISO 11649; empty for a credit note.</param>
public sealed record InvoiceMore(EParty Seller, EParty Buyer, string Reference)
{
    /// <summary>The client's own order number.</summary>
    public string PurchaseReference { get; init; } = "";
    public Performed? Performed { get; init; }

    /// <summary>“signed 15 January 2027”; empty for none.</summary>
    public string Contract { get; init; } = "";

    /// <summary>Whether the prices of its lines include the tax.</summary>
    public bool Gross { get; init; }

    /// <summary>A discount on the whole; null for none.</summary>
    public PaperLess? Less { get; init; }
    public string ExemptReason { get; init; } = "";

    /// <summary>Below the sums, a paragraph each.</summary>
    public ImmutableArray<string> Notes { get; init; } = [];

    /// <summary>The agreed price it is a part of, with the services it was agreed for.</summary>
    public InvoiceWhole? Whole { get; init; }

    /// <summary>What is asked for late payment, in words; empty for nothing.</summary>
    public string Late { get; init; } = "";

    /// <summary>A way to pay of the studio's own choosing.</summary>
    public string PayAt { get; init; } = "";

    /// <summary>Whether it can be paid by card on the client's page.</summary>
    public bool ByCard { get; init; }

    /// <summary>What a credit note takes back.</summary>
    public EPreceding? Credits { get; init; }
}

/// <summary>The agreed price behind an instalment, as it is printed.</summary>
public sealed record InvoiceWhole(ImmutableArray<PaperLine> Lines, PaperWhole Sums);
