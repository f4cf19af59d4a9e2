namespace Gesamt.Web.Invoicing;

/// <summary>Which invoices are shown.</summary>
public enum InvoiceShow
{
    Open,
    Late,
    Paid,
    All,
    CreditNotes,
}

/// <summary>What they are put together by.</summary>
public enum InvoiceBy
{
    Number,
    Age,
    Client,
    Month,
}

/// <summary>An invoice in the list of all.</summary>
/// <param name="Owed">Empty where nothing is open.</param>
public sealed record ListedInvoiceDto(
    long Id,
    string Number,
    InvoicePlaceDto Of,
    string Issued,
    string Due,
    string Total,
    string Owed,
    InvoiceStandingDto Standing
);

/// <summary>Where an invoice belongs.</summary>
public sealed record InvoicePlaceDto(long Project, string Title, long Person, string Client);

/// <summary>How an invoice stands: settlement and lateness are two readings.</summary>
/// <param name="Words">“open”, “part paid”, “paid”, “credited”.</param>
/// <param name="Late">“8 days late”; empty while it is not.</param>
/// <param name="Said">Whether the client says that it is paid, and the money has not been seen.</param>
public sealed record InvoiceStandingDto(string Words, string Late, bool Said);

/// <summary>Those that belong together, with their sums; amounts of different currencies stand beside each other.</summary>
/// <param name="Name">Empty where they are not put together by anything.</param>
public sealed record InvoiceGroupDto(
    string Name,
    int Count,
    string Total,
    string Owed,
    IReadOnlyList<ListedInvoiceDto> Rows
);

/// <summary>All invoices of all clients.</summary>
/// <param name="Sums">Of all that are shown, also of those the page leaves out.</param>
/// <param name="More">How many it leaves out.</param>
/// <param name="Months">In which some were issued, such as 2027-01, the newest first.</param>
/// <param name="Client">Whose alone they are; null for everybody's.</param>
public sealed record InvoicesDto(
    InvoiceSumsDto Sums,
    IReadOnlyList<InvoiceGroupDto> Groups,
    int More,
    IReadOnlyList<string> Months,
    string? Client
);

/// <param name="Late">What of it is late.</param>
public sealed record InvoiceSumsDto(int Count, string Total, string Owed, string Late);
