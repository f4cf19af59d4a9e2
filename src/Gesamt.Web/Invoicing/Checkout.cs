using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Accounts;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <summary>Pays an invoice through the provider.</summary>
public static class Checkout
{
    /// <summary>The provider's page for what is still owed of an invoice; of the earliest open one where none is named.</summary>
    /// <exception cref="RefusedException">Nothing is owed.</exception>
    public static async Task<string> BeginAsync(
        Desk desk,
        IPaymentProvider provider,
        ProjectId project,
        PaymentMeans means,
        string? invoice,
        string returnTo,
        PersonId? keeps = null
    )
    {
        if (!provider.Ways.Contains(means))
            throw new RefusedException(
                "This way of paying is not set up here. Please pay by transfer, with the details on the invoice."
            );
        var file = await desk.OpenAsync(project);
        var open = Owed.Open(file.History).ToList();
        var rows = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => i.ProjectId == project)
            .Select(i => new
            {
                i.Id,
                i.Number,
                i.PublicId,
            })
            .ToDictionaryAsync(i => i.Id);
        var (issued, owed) = open.FirstOrDefault(one =>
            invoice is null || rows[one.Invoice.What.Invoice].PublicId == invoice
        );
        if (issued.Fact is null)
            throw new RefusedException(
                invoice is null ? "Nothing is to be paid at the moment." : "This invoice is paid."
            );
        var number = rows[issued.What.Invoice].Number;
        var (session, page) = await provider.BeginAsync(
            new(
                await KeyAsync(desk, issued.What.Invoice, number, owed, means)
                    // with consent it is another payment than the one begun without
                    + (keeps is null ? "" : ":kept"),
                owed,
                $"{desk.Studio.Name}, invoice {number}",
                means,
                returnTo,
                keeps is not null
            )
        );
        if (!await desk.Db.Checkouts.AnyAsync(c => c.Session == session))
        {
            desk.Db.Checkouts.Add(
                new CheckoutRow
                {
                    Session = session,
                    InvoiceId = issued.What.Invoice,
                    ProjectId = project,
                    AmountMinor = owed.Minor,
                    Means = means,
                    At = desk.Now,
                    ConsentBy = keeps,
                    Consent = keeps is null ? null : KeptMeans.Consent(desk),
                }
            );
            await desk.Db.SaveChangesAsync();
        }
        return page;
    }

    /// <summary>Pressed twice, it is the same payment; one that was refused, or taken back, is followed by another.</summary>
    private static async Task<string> KeyAsync(
        Desk desk,
        InvoiceId invoice,
        string number,
        Money owed,
        PaymentMeans means
    )
    {
        var over = await desk.Db.Checkouts.CountAsync(c =>
            c.InvoiceId == invoice && (c.State == CheckoutState.Refused || c.State == CheckoutState.Paid)
        );
        return FormattableString.Invariant($"{number}:{owed.Minor}:{means}:{over}");
    }

    /// <summary>Asks how a payment stands, and books what it says: each thing once, however often it is asked.</summary>
    public static async Task SettleAsync(Desk desk, IPaymentProvider provider, string session)
    {
        var said = await provider.AskAsync(session);
        // a notice, the tick and the payer's own way back may ask at once: what was read before this act may be booked by now
        desk.Db.ChangeTracker.Clear();
        await desk.ActAsync(async act =>
        {
            if (await act.Db.Checkouts.SingleOrDefaultAsync(c => c.Session == session) is not { } checkout)
                return;
            var file = await desk.OpenAsync(checkout.ProjectId);
            if (checkout.State != said.State)
            {
                (checkout.State, checkout.Words) = (said.State, said.Words);
                await act.Db.SaveChangesAsync();
                act.Touch(checkout.ProjectId);
                if (said.State == CheckoutState.Refused && checkout.Attempt is { } attempt)
                    await KeptMeans.RefusedAsync(act, file, checkout, attempt);
            }
            if (said.State != CheckoutState.Paid)
                return;
            var amount = new Money(checkout.AmountMinor, desk.CurrencyOf(file));
            var payment =
                await act.Db.Payments.SingleOrDefaultAsync(p => p.Reference == session)
                ?? await BookAsync(
                    act,
                    file,
                    checkout.InvoiceId,
                    amount,
                    checkout.Means,
                    session,
                    Actor.Client,
                    desk.Now
                );
            if (said.Kept is { } kept && checkout.ConsentBy is { } person)
                await KeptMeans.KeepAsync(act, file, checkout, person, kept);
            foreach (var refund in said.Refunds)
                await Refunding.SettleAsync(act, file, payment, refund);
            if (said.ChargedBack && payment.GoneAt is null)
                await Refunding.ChargeBackAsync(act, file, payment, Actor.Client, desk.Now);
        });
    }

    /// <summary>Writes a payment down.</summary>
    /// <param name="iban">The account it arrived on, where a statement of the bank says so.</param>
    public static async Task<PaymentRow> BookAsync(
        Act act,
        ProjectFile file,
        InvoiceId? invoice,
        Money amount,
        PaymentMeans means,
        string? reference,
        Actor by,
        Instant happened,
        string? iban = null
    )
    {
        var on = act.Calendar.DateOf(happened);
        var payment = new PaymentRow
        {
            ProjectId = file.Id,
            InvoiceId = invoice,
            AmountMinor = amount.Minor,
            Currency = amount.Currency.Code,
            Means = means,
            Reference = reference,
            At = happened,
            AccountId = await AccountChoice.ForAsync(act.Desk, means, amount.Currency, on, iban),
        };
        act.Db.Payments.Add(payment);
        await act.Db.SaveChangesAsync();
        await act.RecordAtAsync(file, by, happened, new Happening.PaymentReceived(payment.Id, invoice, amount));
        return payment;
    }
}
