using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Core.Letters;

/// <summary>What a record can tell a letter or a contract. Everything may be unknown.</summary>
public sealed record RecordWords(
    string? Greeted,
    string? Name,
    string? Organisation,
    string Project,
    string Kind,
    LocalDate? MainDate,
    string Studio,
    string Owner,
    Money? Price = null,
    Money? Deposit = null,
    LocalDate? ValidUntil = null,
    LocalDate? ReplyBy = null,
    string? Choice = null,
    string? Payments = null,
    string? InvoiceNumber = null,
    LocalDate? InvoiceDue = null,
    Money? InvoiceOwed = null,
    bool HasProposal = false,
    string? Meeting = null,
    string? MeetingWhen = null,
    string? MeetingPlace = null,
    string? Rates = null,
    string? Colleague = null,
    AmendmentWords? Amendment = null,
    PayingWords? Paying = null,
    string? Cancelling = null,
    string? Progress = null
);

/// <summary>How an invoice is paid.</summary>
/// <param name="Reference">As it is printed (ISO 11649).</param>
/// <param name="Ways">A line each, with the client's own link where they pay on their page.</param>
public sealed record PayingWords(string Reference, string Ways);

/// <summary>What an amendment tells.</summary>
/// <param name="AgreedOn">When what it changes was agreed.</param>
/// <param name="Changes">A line each.</param>
/// <param name="Credited">What a credit note takes back; null for nothing.</param>
public sealed record AmendmentWords(
    LocalDate AgreedOn,
    string Changes,
    Money PriceBefore,
    Money Invoiced,
    Money? Credited
);

/// <summary>The fixed set of blanks that a letter or a contract may name.</summary>
public static class Blanks
{
    /// <summary>Stands in a stored letter for the client's own link; the address is put in when the letter is handed over, and nowhere kept.</summary>
    public const string LinkPlaceholder = "⟦link⟧";

    /// <summary>The letter that tells how the work goes, by its key. It is drafted from what is private, and so always asks first.</summary>
    public const string ProgressLetter = "progress";

    public static readonly ImmutableArray<string> Names =
    [
        "first name",
        "full name",
        "organisation",
        "project",
        "kind",
        "date",
        "studio",
        "owner",
        "price",
        "deposit",
        "valid until",
        "reply by",
        "proposal link",
        "choice",
        "payments",
        "cancelling",
        "progress",
        "invoice number",
        "invoice due",
        "invoice owed",
        "payment reference",
        "ways to pay",
        "invoice link",
        "page link",
        "meeting",
        "meeting when",
        "meeting place",
        "rates",
        "colleague",
        "agreed on",
        "changes",
        "price before",
        "invoiced",
        "credited",
    ];

    /// <summary>The value of every blank; null where the record does not know it.</summary>
    public static ImmutableDictionary<string, string?> Of(RecordWords record) =>
        new Dictionary<string, string?>
        {
            ["first name"] = record.Greeted ?? FirstWord(record.Name),
            ["full name"] = record.Name,
            ["organisation"] = record.Organisation,
            ["project"] = record.Project,
            ["kind"] = record.Kind,
            ["date"] = Long(record.MainDate),
            ["studio"] = record.Studio,
            ["owner"] = record.Owner,
            ["price"] = record.Price?.ToString(),
            ["deposit"] = record.Deposit?.ToString(),
            ["valid until"] = Long(record.ValidUntil),
            ["reply by"] = Long(record.ReplyBy),
            ["proposal link"] = record.HasProposal ? LinkPlaceholder : null,
            ["choice"] = record.Choice,
            ["payments"] = record.Payments,
            ["cancelling"] = record.Cancelling,
            ["progress"] = record.Progress,
            ["invoice number"] = record.InvoiceNumber,
            ["invoice due"] = Long(record.InvoiceDue),
            ["invoice owed"] = record.InvoiceOwed?.ToString(),
            ["payment reference"] = record.Paying?.Reference,
            ["ways to pay"] = record.Paying?.Ways,
            ["meeting"] = record.Meeting,
            ["meeting when"] = record.MeetingWhen,
            ["meeting place"] = record.MeetingPlace,
            ["rates"] = record.Rates,
            ["colleague"] = record.Colleague,
            ["agreed on"] = Long(record.Amendment?.AgreedOn),
            ["changes"] = record.Amendment?.Changes,
            ["price before"] = record.Amendment?.PriceBefore.ToString(),
            ["invoiced"] = record.Amendment?.Invoiced.ToString(),
            ["credited"] = record.Amendment?.Credited?.ToString(),
            ["page link"] = LinkPlaceholder,
            ["invoice link"] = record.InvoiceNumber is null ? null : LinkPlaceholder,
        }.ToImmutableDictionary();

    private static string? Long(LocalDate? date) => date is { } known ? DateWords.Long(known) : null;

    private static string? FirstWord(string? name) =>
        name?.Split(' ', StringSplitOptions.RemoveEmptyEntries).FirstOrDefault();
}
