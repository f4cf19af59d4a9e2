using Gesamt.Core.Amounts;
using Gesamt.Core.Letters;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;

namespace Gesamt.Web.Letters;

/// <summary>How an invoice is paid, as its letters and reminders say it.</summary>
internal static class PayingWays
{
    public static PayingWords Of(Desk desk, InvoiceRow invoice)
    {
        var snapshot = StoreJson.Read<InvoiceSnapshot>(invoice.Snapshot);
        var more = snapshot.More;
        var reference = more is { Reference.Length: > 0 } ? CreditorReference.Written(more.Reference) : invoice.Number;
        var iban = snapshot.Iban ?? desk.Studio.Iban;
        var ways = new[]
        {
            iban.Length > 0 ? $"By transfer to {Iban.Written(iban)}, with the reference {reference}" : "",
            desk.PaysOnPage
                ? $"By card or from your account: {Blanks.LinkPlaceholder}"
                : $"All about it: {Blanks.LinkPlaceholder}",
            more?.PayAt ?? "",
        };
        return new(reference, string.Join('\n', ways.Where(way => way.Length > 0)));
    }
}
