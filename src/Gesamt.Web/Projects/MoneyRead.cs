using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Papers;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Projects;

/// <summary>A payment opened whole, with what can be said of it.</summary>
/// <param name="CanVoid">Whether it can be taken back as recorded by mistake.</param>
/// <param name="ChargesBack">Whether a bank can have taken it back.</param>
/// <param name="Left">What of it can be given back, in major units; null for nothing.</param>
/// <param name="Ahead">How much of that is paid ahead, and needs no credit note.</param>
/// <param name="OnInvoice">Whether it is on an invoice that can be credited.</param>
/// <param name="Through">Whether it came through the provider, and can go back so.</param>
public sealed record PaymentReadDto(
    long Id,
    bool CanVoid,
    bool ChargesBack,
    string? Left,
    string? Ahead,
    bool OnInvoice,
    bool Through
);

/// <summary>An invoice opened whole.</summary>
/// <param name="Data">Its address as data; null where it has none, and <paramref name="NoData"/> says why.</param>
/// <param name="Creditable">What is not credited yet, in major units; null for nothing, and for credit notes.</param>
/// <param name="Late">What can be asked for its late payment; null for nothing.</param>
public sealed record InvoiceReadDto(long Id, string? Data, string? NoData, string? Creditable, LateReadDto? Late);

/// <param name="Total">What can be asked.</param>
/// <param name="Working">How it was worked out, a line each.</param>
/// <param name="Asked">Whether an invoice for it was issued.</param>
public sealed record LateReadDto(string Total, IReadOnlyList<string> Working, bool Asked);

/// <summary>Invoices and payments as the record opens them.</summary>
internal static class MoneyRead
{
    public static async Task<ReaderDto> InvoiceAsync(Desk desk, InvoiceRow invoice)
    {
        var snapshot = StoreJson.Read<InvoiceSnapshot>(invoice.Snapshot);
        var sums = Print.Sums(snapshot.Totals);
        var paper = await KeptPapers.OfAsync(desk, invoice);
        var isInvoice = invoice.Sort == InvoiceSort.Invoice;
        var file = await desk.OpenAsync(invoice.ProjectId);
        var issued = file.History.Last<Happening.InvoiceIssued>(one => one.Invoice == invoice.Id);
        List<MoneyLineDto> lines =
        [
            new("Net", MoneyText.Of(sums.Net)),
            .. sums.Taxes.Select(t => new MoneyLineDto($"VAT {t.Rate}", MoneyText.Of(t.Tax))),
            .. sums.Rounding.Minor == 0 ? [] : new[] { new MoneyLineDto("Rounding", MoneyText.Of(sums.Rounding)) },
            new("Total", MoneyText.Of(sums.Total)),
        ];
        if (issued is { What: var what } && Owed.On(file.History, what) is var owed)
            lines.Add(new("Open", MoneyText.Of(owed)));
        var left = isInvoice ? await Crediting.LeftAsync(desk, invoice.Id) : null;
        return new(
            $"{(isInvoice ? "Invoice" : "Credit note")} {invoice.Number}",
            $"issued {DateWords.Short(invoice.IssuedOn, desk.Today)}{(isInvoice ? $", due {DateWords.Short(invoice.Due, desk.Today)}" : "")}{Reader.Later(desk, paper)}",
            snapshot.Share,
            "",
            [],
            lines,
            $"/api/invoices/{invoice.Id.Value}.pdf",
            null,
            null,
            Invoice: new(
                invoice.Id.Value,
                paper.Data is null ? null : $"/api/invoices/{invoice.Id.Value}.xml",
                paper.Data is null ? InvoicePapers.WhyNoData(invoice) : null,
                left is { Payable: { Minor: > 0 } payable } ? MoneyText.Field(payable) : null,
                await LateAsync(desk, invoice)
            )
        );
    }

    private static async Task<LateReadDto?> LateAsync(Desk desk, InvoiceRow invoice) =>
        await Lateness.OfAsync(desk, invoice) is { } charge
            ? new(
                MoneyText.Of(charge.Total),
                [
                    .. charge.Working(day => DateWords.Short(day, desk.Today)),
                    .. charge.Interest.Minor > 0 ? new[] { $"interest {MoneyText.Of(charge.Interest)}" } : [],
                    .. charge.Sum.Minor > 0 ? new[] { $"fixed sum {MoneyText.Of(charge.Sum)}" } : [],
                ],
                await desk.Db.Invoices.AnyAsync(i => i.InterestOf == invoice.Id)
            )
            : null;

    public static async Task<ReaderDto> PaymentAsync(Desk desk, PaymentRow payment)
    {
        var file = await desk.OpenAsync(payment.ProjectId);
        var received = file.History.Last<Happening.PaymentReceived>(one => one.Payment == payment.Id)?.What;
        var back = file.History.Any<Happening.PaymentChargedBack>(one => one.Payment == payment.Id);
        var refunds = await desk
            .Db.Refunds.AsNoTracking()
            .Where(r => r.PaymentId == payment.Id)
            .OrderBy(r => r.Id)
            .ToListAsync();
        var bank = await desk.Db.BankBookings.AnyAsync(b => b.PaymentId == payment.Id);
        var currency = Currency.Of(payment.Currency);
        var left =
            received is null || payment.GoneAt is not null
                ? Money.Zero(currency)
                : Payments.Refundable(file.History, received);
        var ahead = Owed.Ahead(file.History, currency);
        return new(
            $"{MoneyText.Of(new(payment.AmountMinor, currency))} received",
            $"{LineText.MeansOf(payment)}, {desk.Precisely(payment.At)}{(bank ? ", from a bank statement" : "")}",
            payment.GoneAt is { } gone
                ? $"{(back ? "Charged back" : "Taken back")} {desk.Precisely(gone)}: it counts nowhere any more."
                : "",
            "",
            [],
            [.. refunds.Select(refund => Refund(desk, refund))],
            null,
            null,
            null,
            Payment: new(
                payment.Id.Value,
                payment is { GoneAt: null, Reference: null } && refunds.Count == 0 && !bank,
                payment.GoneAt is null,
                left.Minor > 0 && refunds.TrueForAll(r => r.State != RefundState.Asked) ? MoneyText.Field(left) : null,
                ahead.Minor > 0 ? MoneyText.Field(ahead < left ? ahead : left) : null,
                payment.InvoiceId is not null,
                payment.Reference is not null
            )
        );
    }

    private static MoneyLineDto Refund(Desk desk, RefundRow refund) =>
        new(
            refund.State switch
            {
                RefundState.Asked => $"To be given back, the provider was asked {desk.Precisely(refund.At)}",
                RefundState.Refused => $"Not given back: {refund.Words}",
                _ => $"Given back {desk.Precisely(refund.At)}",
            },
            MoneyText.Of(new(refund.AmountMinor, Currency.Of(refund.Currency)))
        );
}
