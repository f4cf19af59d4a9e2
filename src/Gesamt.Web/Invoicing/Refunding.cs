using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <summary>Money that goes back.</summary>
/// <param name="Credit">Whether a credit note goes with it, so that nothing is owed for it.</param>
/// <param name="Means">How it was given back by hand; left out for a payment that came through the provider.</param>
/// <param name="On">The day, today or earlier; now when left out.</param>
public sealed record RefundDto(string Amount, bool Credit, PaymentMeans? Means = null, LocalDate? On = null);

/// <summary>The day on which a bank took a payment back.</summary>
public sealed record ChargedBackDto(LocalDate? On = null);

/// <summary>Gives payments back, in whole or in part, and writes down what a bank took back.</summary>
public static class Refunding
{
    /// <summary>Gives a part of a payment back: by the same way it came, through the provider, or by hand.</summary>
    /// <exception cref="InvalidException">The amount is none, or more than is left of the payment.</exception>
    /// <exception cref="RefusedException">The payment was taken back, or a refund of it is under way.</exception>
    public static async Task RefundAsync(
        Desk desk,
        IPaymentProvider provider,
        ProjectId project,
        PaymentId id,
        RefundDto what
    )
    {
        var (payment, refund) = await desk.ActAsync(act => WriteAsync(act, project, id, what));
        if (refund.State != RefundState.Asked)
            return;
        await provider.RefundAsync(
            payment.Reference!,
            refund.Key!,
            new(refund.AmountMinor, Currency.Of(refund.Currency))
        );
        await Checkout.SettleAsync(desk, provider, payment.Reference!);
    }

    /// <summary>Writes it down; what goes through the provider is asked of it afterwards, by whoever wrote it or by the next tick.</summary>
    internal static async Task<(PaymentRow, RefundRow)> WriteAsync(
        Act act,
        ProjectId project,
        PaymentId id,
        RefundDto what
    )
    {
        var file = await act.OpenAsync(project);
        var payment = await PaymentAsync(act, project, id);
        if (await act.Db.Refunds.AnyAsync(r => r.PaymentId == id && r.State == RefundState.Asked))
            throw new RefusedException("A refund of this payment is under way. Wait until the provider has answered.");
        var received = file.History.Last<Happening.PaymentReceived>(one => one.Payment == id)!.Value.What;
        var amount = TypedMoney.Of(received.Amount.Currency, what.Amount, "amount");
        var most = Payments.Refundable(file.History, received);
        if (amount > most)
            throw new InvalidException(("amount", $"At most {MoneyText.Of(most)} is left of this payment."));
        var through = payment.Reference is not null && what.Means is null;
        if (payment.Reference is null && what.Means is null)
            throw new InvalidException(("means", "Say how it was given back: by transfer, by cheque or in cash."));
        var note = what.Credit ? await CreditAsync(act, file, received, amount) : null;
        var refund = new RefundRow
        {
            ProjectId = project,
            PaymentId = id,
            AmountMinor = amount.Minor,
            Currency = amount.Currency.Code,
            State = through ? RefundState.Asked : RefundState.Done,
            Means = what.Means ?? payment.Means,
            NoteId = note?.Id,
            Key = through ? Codes.New() : null,
            At = through ? act.Now : Moments.Of(act.Desk, what.On),
        };
        act.Db.Refunds.Add(refund);
        await act.Db.SaveChangesAsync();
        if (!through)
            await act.RecordAtAsync(
                file,
                Actor.Owner,
                refund.At,
                new Happening.PaymentRefunded(id, refund.Id, amount, refund.NoteId)
            );
        return (payment, refund);
    }

    /// <summary>The credit note of a refund; none is written for what was paid ahead, since no invoice asks for it.</summary>
    private static async Task<InvoiceRow?> CreditAsync(
        Act act,
        ProjectFile file,
        Happening.PaymentReceived payment,
        Money amount
    )
    {
        var ahead = Owed.Ahead(file.History, amount.Currency);
        if (amount <= ahead)
            return null;
        if (payment.Invoice is not { } invoice)
            throw new InvalidException(
                (
                    "credit",
                    "This payment is on no invoice, so there is none to credit. Give it back without a credit note."
                )
            );
        var credit = amount - (ahead.Minor > 0 ? ahead : Money.Zero(amount.Currency));
        var left = await Crediting.LeftAsync(act.Desk, invoice);
        if (credit > left.Payable)
            throw new InvalidException(
                ("amount", $"At most {MoneyText.Of(left.Payable)} of the invoice is not credited yet.")
            );
        return await Crediting.OfAsync(act, file, invoice, left.OfPart(credit), "given back", atEnd: false);
    }

    /// <summary>Books what became of a refund with the provider; one that was made on the provider's own pages is written down as it is.</summary>
    internal static async Task SettleAsync(Act act, ProjectFile file, PaymentRow payment, ProviderRefund said)
    {
        var row = await act.Db.Refunds.SingleOrDefaultAsync(r => r.Key == said.Key);
        if (row is null && said.State == RefundState.Done)
        {
            row = new()
            {
                ProjectId = file.Id,
                PaymentId = payment.Id,
                AmountMinor = said.Amount.Minor,
                Currency = said.Amount.Currency.Code,
                State = RefundState.Asked,
                Means = payment.Means,
                Key = said.Key,
                At = act.Now,
            };
            act.Db.Refunds.Add(row);
        }
        if (row is null || row.State != RefundState.Asked || said.State == RefundState.Asked)
            return;
        (row.State, row.Words) = (said.State, said.Words);
        await act.Db.SaveChangesAsync();
        if (said.State == RefundState.Done)
            await act.RecordAsync(
                file,
                Actor.Gesamt,
                new Happening.PaymentRefunded(payment.Id, row.Id, said.Amount, row.NoteId)
            );
        else
            await act.RecordAsync(file, Actor.Gesamt, new Happening.RefundRefused(payment.Id, row.Id, said.Amount));
    }

    /// <summary>The owner says that a bank took a payment back: a cheque that bounced, a debit that was returned.</summary>
    /// <exception cref="RefusedException">It was taken back already.</exception>
    public static Task ChargedBackAsync(Desk desk, ProjectId project, PaymentId id, ChargedBackDto what) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var payment = await PaymentAsync(act, project, id);
            var on = Moments.Of(desk, what.On);
            if (on < payment.At)
                throw new InvalidException(("on", "It was paid later than that."));
            await ChargeBackAsync(act, file, payment, Actor.Owner, on);
        });

    internal static async Task ChargeBackAsync(Act act, ProjectFile file, PaymentRow payment, Actor by, Instant on)
    {
        (payment.GoneAt, payment.ChargedBack) = (on, true);
        await act.Db.SaveChangesAsync();
        await act.RecordAtAsync(file, by, on, new Happening.PaymentChargedBack(payment.Id));
    }

    /// <summary>A payment that was written down by mistake is taken back; reminders that are still ahead go on, missed ones stay where they are.</summary>
    /// <exception cref="RefusedException">It was taken back already, came through a provider, or something of it went back.</exception>
    internal static async Task VoidAsync(Act act, ProjectFile file, PaymentRow payment)
    {
        if (payment.GoneAt is not null)
            throw new RefusedException("This payment was taken back already.");
        if (payment.Reference is not null)
            throw new RefusedException(
                "This payment came through the card provider; it is given back there, not taken back here."
            );
        if (await act.Db.Refunds.AnyAsync(r => r.PaymentId == payment.Id && r.State != RefundState.Refused))
            throw new RefusedException("Something of this payment was given back, so it was real: it stays.");
        payment.GoneAt = act.Now;
        await act.RecordAsync(file, Actor.Owner, new Happening.PaymentVoided(payment.Id));
    }

    private static async Task<PaymentRow> PaymentAsync(Act act, ProjectId project, PaymentId id)
    {
        var payment =
            await act.Db.Payments.SingleOrDefaultAsync(p => p.Id == id && p.ProjectId == project)
            ?? throw new MissingException("payment");
        return payment.GoneAt is null ? payment : throw new RefusedException("This payment was taken back already.");
    }
}
