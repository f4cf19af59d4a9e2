namespace Gesamt.Formats.Pdf;

/// <summary>Who a paper is from, on its head and foot, as it was when the paper was made.</summary>
/// <param name="Address">Lines of the postal address.</param>
/// <param name="Logo">SHA-256 of the picture at its head; null for none.</param>
public sealed record Letterhead(
    string Studio,
    string Address,
    string Mail,
    string TaxNumber,
    string Brand,
    string? Logo = null,
    string Phone = "",
    string Site = "",
    string Bank = "",
    string Bic = ""
);
