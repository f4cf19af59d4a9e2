using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Banking;

/// <summary>A part of a line that goes to one invoice.</summary>
internal sealed record BankPart(InvoiceRow Invoice, Money Amount);

/// <summary>Books a line of the bank on the invoices it pays, and takes that back.</summary>
internal static class BankBooking
{
    private const int MostInvoices = 50;

    /// <summary>Open invoices as a line can name them.</summary>
    public static async Task<IReadOnlyList<OpenInvoice>> OpenAsync(Desk desk) =>
        [
            .. (
                await desk
                    .Db.Invoices.AsNoTracking()
                    .Where(i => i.OwedMinor > 0 && i.Year > 0)
                    .Join(
                        desk.Db.Projects,
                        i => i.ProjectId,
                        p => p.Id,
                        (i, p) =>
                            new
                            {
                                i.Id,
                                i.Number,
                                i.OwedMinor,
                                i.Currency,
                                i.Due,
                                p.Client!.Name,
                                p.Client.Organisation,
                            }
                    )
                    .ToListAsync()
            ).Select(i => new OpenInvoice(
                i.Id,
                i.Number,
                CreditorReference.Of(i.Number),
                new(i.OwedMinor, Currency.Of(i.Currency)),
                i.Due,
                [.. new[] { i.Name, i.Organisation }.OfType<string>()]
            )),
        ];

    public static BankLine Of(BankLineRow row) =>
        new(row.On, new(row.AmountMinor, Currency.Of(row.Currency)), row.Party, row.Text, row.Reference);

    /// <summary>Books those of the lines that pay an invoice beyond doubt, each in an act of its own.</summary>
    /// <returns>How many were booked.</returns>
    public static async Task<int> BookCertainAsync(Desk desk, IReadOnlyList<BankLineId> ids)
    {
        var open = await OpenAsync(desk);
        var booked = 0;
        // what the act before this one tracked is not what the next one writes upon
        desk.Db.ChangeTracker.Clear();
        foreach (var some in ids.Chunk(500))
        foreach (var row in await desk.Db.BankLines.AsNoTracking().Where(l => some.Contains(l.Id)).ToListAsync())
            if (BankMatch.Certain(Of(row), open) is not null && await BookIfCertainAsync(desk, row.Id))
                booked++;
        return booked;
    }

    private static Task<bool> BookIfCertainAsync(Desk desk, BankLineId id)
    {
        desk.Db.ChangeTracker.Clear();
        return desk.ActAsync(async act =>
        {
            var row = await act.Db.BankLines.SingleAsync(l => l.Id == id);
            if (row.State != BankLineState.Open || BankMatch.Certain(Of(row), await OpenAsync(desk)) is not { } sure)
                return false;
            await BookAsync(act, row, await PartsAsync(desk, row, [sure.Invoice]), byItself: true);
            return true;
        });
    }

    /// <summary>The owner says which invoices a line pays.</summary>
    public static Task BookAsync(Desk desk, BankLineId id, IReadOnlyList<InvoiceId> invoices) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, id);
            if (row.State == BankLineState.Booked)
                throw new RefusedException("This line is booked already. Undo that first.");
            await BookAsync(act, row, await PartsAsync(desk, row, invoices), byItself: false);
        });

    /// <summary>How a line is shared out: each invoice in its order as far as it owes, the last one all that is left; what is more than that is paid ahead.</summary>
    /// <exception cref="InvalidException">It cannot pay these.</exception>
    public static async Task<IReadOnlyList<BankPart>> PartsAsync(
        Desk desk,
        BankLineRow row,
        IReadOnlyList<InvoiceId> invoices
    )
    {
        if (row.AmountMinor < 0)
            throw new InvalidException(("invoices", "This money went out: it pays no invoice."));
        if (invoices.Count is 0 or > MostInvoices)
            throw new InvalidException(("invoices", $"Choose 1 to {MostInvoices} invoices."));
        var left = new Money(row.AmountMinor, Currency.Of(row.Currency));
        List<BankPart> parts = [];
        List<InvoiceId> each = [.. invoices.Distinct()];
        foreach (var (i, id) in each.Index())
        {
            var invoice =
                await desk.Db.Invoices.AsNoTracking().SingleOrDefaultAsync(one => one.Id == id)
                ?? throw new MissingException("invoice");
            if (invoice.OwedMinor <= 0 || invoice.Year == 0)
                throw new InvalidException(("invoices", $"Nothing is open of invoice {invoice.Number}."));
            if (invoice.Currency != row.Currency)
                throw new InvalidException(
                    ("invoices", $"Invoice {invoice.Number} is in {invoice.Currency}, the line in {row.Currency}.")
                );
            if (left.Minor <= 0)
                throw new InvalidException(
                    ("invoices", $"Nothing is left of the line for invoice {invoice.Number}. Leave it out.")
                );
            var owed = left with { Minor = invoice.OwedMinor };
            var part = i == each.Count - 1 || left < owed ? left : owed;
            parts.Add(new(invoice, part));
            left -= part;
        }
        return parts;
    }

    private static async Task BookAsync(Act act, BankLineRow row, IReadOnlyList<BankPart> parts, bool byItself)
    {
        foreach (var part in parts)
        {
            var payment = await Checkout.BookAsync(
                act,
                await act.OpenAsync(part.Invoice.ProjectId),
                part.Invoice.Id,
                part.Amount,
                PaymentMeans.Transfer,
                null,
                Actor.Client,
                HappenedAt(act, row.On),
                row.Account
            );
            act.Db.BankBookings.Add(new() { LineId = row.Id, PaymentId = payment.Id });
        }
        (row.State, row.ByItself, row.DoneAt) = (BankLineState.Booked, byItself, act.Now);
        await act.Db.SaveChangesAsync();
    }

    /// <summary>A bank's day has no hour: noon, or now where that is still ahead.</summary>
    private static Instant HappenedAt(Act act, LocalDate on) =>
        Instant.Min(act.Now, act.Calendar.At(on + new LocalTime(12, 0)));

    /// <summary>The line pays no invoice.</summary>
    public static Task SetAsideAsync(Desk desk, BankLineId id) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, id);
            if (row.State == BankLineState.Booked)
                throw new RefusedException("This line is booked. Undo that first.");
            (row.State, row.DoneAt) = (BankLineState.SetAside, act.Now);
        });

    /// <summary>Takes back what was said of a line: its payments are voided, and it is open again.</summary>
    /// <exception cref="RefusedException">Money of it went back since.</exception>
    public static Task UndoAsync(Desk desk, BankLineId id) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, id);
            foreach (var booking in await act.Db.BankBookings.Where(b => b.LineId == id).ToListAsync())
            {
                var payment = await act.Db.Payments.SingleAsync(p => p.Id == booking.PaymentId);
                await Refunding.VoidAsync(act, await act.OpenAsync(payment.ProjectId), payment);
                act.Db.BankBookings.Remove(booking);
            }
            (row.State, row.ByItself, row.DoneAt, row.CostId) = (BankLineState.Open, false, null, null);
        });

    private static async Task<BankLineRow> OneAsync(Desk desk, BankLineId id) =>
        await desk.Db.BankLines.SingleOrDefaultAsync(l => l.Id == id) ?? throw new MissingException("line");
}
