using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Invoicing;

/// <summary>A credit note as the owner writes it.</summary>
/// <param name="Amount">With tax, in major units.</param>
/// <param name="Why">Stands on it.</param>
public sealed record CreditDto(string Amount, string Why);

/// <summary>Credit notes: the only way in which an issued invoice is taken back.</summary>
public static class Crediting
{
    /// <summary>A credit note over what is still owed of an invoice, of work that is not carried out.</summary>
    public static async Task OpenAsync(Act act, ProjectFile file, Happening.InvoiceIssued issued)
    {
        var owed = Owed.On(file.History, issued);
        if (owed.Minor <= 0)
            return;
        var old = StoreJson.Read<InvoiceSnapshot>(
            await act.Db.Invoices.Where(i => i.Id == issued.Invoice).Select(i => i.Snapshot).SingleAsync()
        );
        // what was paid of it stays billed: only what is open is taken back, to the cent
        await OfAsync(act, file, issued.Invoice, old.Totals.OfPart(owed), "not carried out", atEnd: true);
    }

    /// <summary>The owner takes a part of an invoice back, or all of it: what was agreed is less by that.</summary>
    /// <exception cref="InvalidException">The amount is none, or more than is left, or no reason is given.</exception>
    public static Task ByHandAsync(Desk desk, InvoiceId id, CreditDto what) =>
        desk.ActAsync(async act =>
        {
            var invoice =
                await act
                    .Db.Invoices.AsNoTracking()
                    .SingleOrDefaultAsync(i => i.Id == id && i.Sort == InvoiceSort.Invoice)
                ?? throw new MissingException("invoice");
            var file = await act.OpenAsync(invoice.ProjectId);
            var amount = TypedMoney.Of(Currency.Of(invoice.Currency), what.Amount, "amount");
            var why = what.Why.Trim();
            if (why.Length is 0 or > 200)
                throw new InvalidException(("why", "Say why in 1 to 200 characters: it stands on the credit note."));
            var left = await LeftAsync(desk, id);
            if (amount > left.Payable)
                throw new InvalidException(
                    ("amount", $"At most {MoneyText.Of(left.Payable)} of the invoice is not credited yet.")
                );
            await OfAsync(act, file, id, left.OfPart(amount), why, atEnd: false);
        });

    /// <summary>What was not credited yet of an invoice.</summary>
    public static async Task<Totals> LeftAsync(Desk desk, InvoiceId invoice)
    {
        var rows = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => i.Id == invoice || i.Credits == invoice)
            .ToListAsync();
        Totals Of(InvoiceRow row) => StoreJson.Read<InvoiceSnapshot>(row.Snapshot).Totals;
        return rows.Where(row => row.Id != invoice)
            .Aggregate(Of(rows.Single(row => row.Id == invoice)), (left, credit) => left.Minus(Of(credit)));
    }

    /// <summary>A credit note over a part of an invoice.</summary>
    /// <param name="why">Behind the project's name on its lines.</param>
    /// <param name="atEnd">Whether it is billed again should an ended project be taken up.</param>
    public static async Task<InvoiceRow> OfAsync(
        Act act,
        ProjectFile file,
        InvoiceId credited,
        Totals totals,
        string why,
        bool atEnd
    )
    {
        var invoice = await act.Db.Invoices.AsNoTracking().SingleAsync(i => i.Id == credited);
        var old = StoreJson.Read<InvoiceSnapshot>(invoice.Snapshot);
        var snapshot = old with
        {
            Share = $"takes back invoice {invoice.Number}{(totals.Payable == old.Totals.Payable ? "" : " in part")}",
            Totals = totals,
            Lines =
            [
                .. totals.Parts.Select(part =>
                    InstalmentInvoices.OfPart($"{old.Project}, {why}", $"takes back invoice {invoice.Number}", part)
                ),
            ],
            Head = Print.Letterhead(act.Desk),
            Iban = act.Studio.Iban,
            More = Issuing.MoreOf(act.Desk, file) with
            {
                PurchaseReference = old.More?.PurchaseReference ?? "",
                ExemptReason = old.More?.ExemptReason ?? act.Studio.ExemptReason,
                Notes = [],
                Late = "",
                PayAt = "",
                ByCard = false,
                Credits = Issuing.Preceding(invoice),
            },
        };
        var row = await Issuing.NewAsync(act, file, snapshot, InvoiceSort.CreditNote, act.Today);
        row.Credits = invoice.Id;
        await act.Db.SaveChangesAsync();
        await act.RecordAsync(
            file,
            Actor.Owner,
            new Happening.InvoiceCredited(invoice.Id, row.Id, totals.Payable, atEnd)
        );
        return row;
    }
}
