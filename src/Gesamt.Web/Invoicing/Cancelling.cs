using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <summary>What cancelling would come to, before anything is done.</summary>
/// <param name="Lines">A sentence each; none where the kind has no terms, or no price is agreed.</param>
public sealed record CancelDto(IReadOnlyList<string> Lines);

/// <summary>Settles the money of a cancelled project by the terms of its kind.</summary>
public static class Cancelling
{
    private sealed record Back(PaymentId Payment, Money Amount, bool Through);

    /// <summary>What it comes to.</summary>
    /// <param name="on">The day of cancelling.</param>
    public static async Task<CancelDto> PreviewAsync(Desk desk, ProjectId project, LocalDate on)
    {
        var file = await desk.OpenAsync(project);
        if (Cancellation.Of(file.Case, on) is not { } terms)
            return new([]);
        var backs = await BacksAsync(desk, file, terms.Refunded);
        return new([
            Kept(terms),
            .. terms.Credited.Minor > 0
                ? new[] { $"{MoneyText.Of(terms.Credited)} of what was billed is taken back by credit note." }
                : [],
            .. terms.Billed.Minor > 0
                ? new[] { $"{MoneyText.Of(terms.Billed)} was not billed yet: an invoice for it goes out by letter." }
                : [],
            .. backs.Select(back =>
                back.Through
                    ? $"{MoneyText.Of(back.Amount)} goes back the way it came, through the provider."
                    : $"{MoneyText.Of(back.Amount)} is to be given back by you: a task says so."
            ),
            .. terms.Open.Minor > 0 ? new[] { $"{MoneyText.Of(terms.Open)} stays to be paid." } : [],
        ]);
    }

    private static string Kept(Cancellation terms) =>
        terms.DaysLeft switch
        {
            null => "No date is set, so the terms keep nothing.",
            var left when terms.Kept.Minor == 0 =>
                $"{When(left.Value)} the terms keep nothing of {MoneyText.Of(terms.Agreed)}.",
            var left =>
                $"{When(left.Value)} the terms keep {terms.Share} of {MoneyText.Of(terms.Agreed)}: {MoneyText.Of(terms.Kept)}.",
        };

    private static string When(int left) =>
        left switch
        {
            1 => "1 day before the date",
            > 1 => $"{left} days before the date",
            0 => "On the day itself",
            _ => "After the date",
        };

    /// <summary>Credits, bills and gives back what the terms say. What has to go back by hand becomes a task.</summary>
    internal static async Task SettleAsync(Act act, ProjectFile file, LocalDate on)
    {
        if (Cancellation.Of(file.Case, on) is not { } terms)
            throw new InvalidException(("terms", "This kind has no terms for cancelling."));
        await CreditAsync(act, file, terms.Credited);
        if (terms.Billed.Minor > 0)
            await BillAsync(act, file, terms);
        foreach (var back in await BacksAsync(act.Desk, file, terms.Refunded))
            if (back.Through)
                await Refunding.WriteAsync(
                    act,
                    file.Id,
                    back.Payment,
                    new(MoneyText.Field(back.Amount), Credit: false)
                );
            else
                await Errands.AddAsync(
                    act,
                    file,
                    Actor.Owner,
                    $"Give {MoneyText.Of(back.Amount)} back to {file.Row.Client!.Name}"
                );
    }

    /// <summary>What was billed last is taken back first.</summary>
    private static async Task CreditAsync(Act act, ProjectFile file, Money amount)
    {
        foreach (
            var issued in file
                .History.Of<Happening.InvoiceIssued>()
                .Where(issued => !issued.What.Extra)
                .Select(issued => issued.What)
                .Reverse()
                .ToList()
        )
        {
            if (amount.Minor <= 0)
                return;
            var left = await Crediting.LeftAsync(act.Desk, issued.Invoice);
            var part = amount < left.Payable ? amount : left.Payable;
            if (part.Minor <= 0)
                continue;
            await Crediting.OfAsync(act, file, issued.Invoice, left.OfPart(part), "cancelled", atEnd: true);
            amount -= part;
        }
    }

    /// <summary>What the terms keep and no invoice asked for yet, with the taxes of what was agreed.</summary>
    private static async Task BillAsync(Act act, ProjectFile file, Cancellation terms)
    {
        var agreed = (await Agreements.OfAsync(act.Desk, file))!;
        var totals = agreed.Priced.Totals.OfPart(terms.Billed);
        var due = act.Today.PlusDays(act.Studio.DueDays);
        var snapshot = new InvoiceSnapshot(
            Print.Addressee(file.Row.Client!),
            file.Row.Title,
            "cancelled",
            [
                .. totals.Parts.Select(part =>
                    InstalmentInvoices.OfPart(
                        $"{file.Row.Title}, cancelled",
                        $"{terms.Share} of the price, as agreed",
                        part
                    )
                ),
            ],
            totals,
            Print.Letterhead(act.Desk),
            act.Studio.Iban
        )
        {
            More = Issuing.MoreOf(act.Desk, file),
        };
        var row = await Issuing.NewAsync(act, file, snapshot, InvoiceSort.Invoice, due);
        var issued = new Happening.InvoiceIssued(row.Id, totals.Payable, due, Extra: true);
        await act.RecordAsync(file, Actor.Owner, issued);
        await Issuing.LetterAsync(act, file, issued);
    }

    /// <summary>What came last goes back first.</summary>
    private static async Task<IReadOnlyList<Back>> BacksAsync(Desk desk, ProjectFile file, Money amount)
    {
        var through = await desk
            .Db.Payments.Where(p => p.ProjectId == file.Id && p.Reference != null)
            .Select(p => p.Id)
            .ToListAsync();
        List<Back> backs = [];
        foreach (var payment in Payments.InForce(file.History).OrderByDescending(payment => payment.Happened))
        {
            var left = Payments.Refundable(file.History, payment.What);
            var part = amount < left ? amount : left;
            if (part.Minor <= 0)
                continue;
            backs.Add(new(payment.What.Payment, part, through.Contains(payment.What.Payment)));
            amount -= part;
        }
        return backs;
    }
}
