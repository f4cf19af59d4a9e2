using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.People;
using NodaTime;

namespace Gesamt.Core.Banking;

/// <summary>An invoice of which something is open, as a bank line can name it.</summary>
/// <param name="Reference">ISO 11649.</param>
/// <param name="Payers">Names by which its client pays: theirs, and the organisation's.</param>
public sealed record OpenInvoice(
    InvoiceId Invoice,
    string Number,
    string Reference,
    Money Owed,
    LocalDate Due,
    ImmutableArray<string> Payers
);

/// <summary>Why an invoice is offered for a line, the strongest first.</summary>
public enum BankReason
{
    /// <summary>The structured reference is this invoice's alone, and the amount is what it owes: booked by itself.</summary>
    ReferenceAndAmount,

    /// <summary>The structured reference is its, and the amount is another.</summary>
    Reference,
    NumberAndAmount,
    PayerAndAmount,
    Amount,

    /// <summary>Its number stands in the text, and the amount is a part of what it owes, or more.</summary>
    Number,
}

/// <summary>An invoice offered for a line.</summary>
public sealed record BankOffer(OpenInvoice Invoice, BankReason Reason);

/// <summary>Finds what a bank line pays. It only offers, but for what is beyond doubt.</summary>
public static class BankMatch
{
    /// <summary>Invoices that a line may pay, the likeliest first, of equals the one due first; none for money that went out.</summary>
    public static ImmutableArray<BankOffer> Of(BankLine line, IReadOnlyCollection<OpenInvoice> open)
    {
        if (line.Amount.Minor <= 0)
            return [];
        var same = open.Where(invoice => invoice.Owed.Currency == line.Amount.Currency).ToList();
        return
        [
            .. same.Select(invoice => (invoice, Reason: ReasonOf(line, invoice, same)))
                .Where(pair => pair.Reason is not null)
                .Select(pair => new BankOffer(pair.invoice, pair.Reason!.Value))
                .OrderBy(offer => offer.Reason)
                .ThenBy(offer => offer.Invoice.Due)
                .ThenBy(offer => offer.Invoice.Invoice.Value),
        ];
    }

    /// <summary>The invoice that a line pays beyond doubt: its reference is one open invoice's and the amount is what that owes.</summary>
    public static OpenInvoice? Certain(BankLine line, IReadOnlyCollection<OpenInvoice> open) =>
        Of(line, open) is [{ Reason: BankReason.ReferenceAndAmount } only, ..] ? only.Invoice : null;

    private static BankReason? ReasonOf(BankLine line, OpenInvoice invoice, List<OpenInvoice> open)
    {
        var exact = line.Amount == invoice.Owed;
        if (
            CreditorReference.IsValid(line.Reference)
            && CreditorReference.Plain(line.Reference) == CreditorReference.Plain(invoice.Reference)
        )
            return exact && open.Count(one => one.Reference == invoice.Reference) == 1
                ? BankReason.ReferenceAndAmount
                : BankReason.Reference;
        var named = Names(line, invoice);
        return (named, exact) switch
        {
            (true, true) => BankReason.NumberAndAmount,
            (true, false) => BankReason.Number,
            (false, true) => Likely(line, invoice) ? BankReason.PayerAndAmount : BankReason.Amount,
            _ => null,
        };
    }

    /// <summary>Whether its number or its reference stands in the text, as people write it: with other blanks and dashes, and no longer number around it.</summary>
    private static bool Names(BankLine line, OpenInvoice invoice)
    {
        var text = CreditorReference.Plain($"{line.Text} {line.Reference}");
        return Holds(text, CreditorReference.Plain(invoice.Number))
            || Holds(text, CreditorReference.Plain(invoice.Reference));
    }

    private static bool Holds(string text, string number)
    {
        for (var at = text.IndexOf(number, StringComparison.Ordinal); at >= 0; )
        {
            var after = at + number.Length;
            if (
                (at == 0 || !char.IsAsciiDigit(text[at - 1]) || !char.IsAsciiDigit(number[0]))
                && (after == text.Length || !char.IsAsciiDigit(text[after]))
            )
                return true;
            at = text.IndexOf(number, at + 1, StringComparison.Ordinal);
        }
        return false;
    }

    /// <summary>Whether the payer's name is one of the client's, in whatever order and with whatever accents; banks cut names short, and add others.</summary>
    private static bool Likely(BankLine line, OpenInvoice invoice)
    {
        var payer = Words(line.Party);
        return payer.Count > 0
            && invoice
                .Payers.Select(Words)
                .Any(known => known.Count > 0 && (known.IsSubsetOf(payer) || payer.IsSubsetOf(known)));
    }

    private static HashSet<string> Words(string name) =>
        [.. (Matching.Plain(name) ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries)];
}
