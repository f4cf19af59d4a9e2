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

/// <summary>What a card provider says of a payment.</summary>
public enum CheckoutState
{
    Open,
    Paid,
}

/// <summary>A provider of card payments. The card is typed on the provider's own page and never seen here.</summary>
public interface ICardPayments
{
    /// <summary>Whether a client can pay by card at all.</summary>
    bool Available { get; }

    /// <summary>Begins a payment; the same key gives the same one again.</summary>
    /// <param name="returnTo">Where the provider sends the payer back.</param>
    /// <returns>The provider's session and the address of its page.</returns>
    Task<(string Session, string Page)> BeginAsync(string key, Money amount, string what, string returnTo);

    Task<CheckoutState> AskAsync(string session);
}

/// <summary>For a studio without a card provider: clients pay by transfer.</summary>
public sealed class NoCardPayments : ICardPayments
{
    public bool Available => false;

    /// <inheritdoc/>
    public Task<(string Session, string Page)> BeginAsync(string key, Money amount, string what, string returnTo) =>
        throw new RefusedException(
            "Card payment is not set up here. Please pay by transfer, with the details on the invoice."
        );

    /// <inheritdoc/>
    public Task<CheckoutState> AskAsync(string session) => Task.FromResult(CheckoutState.Open);
}

/// <summary>Pays an invoice by card.</summary>
public static class Checkout
{
    /// <summary>The provider's page for what is still owed of the earliest open invoice.</summary>
    /// <exception cref="RefusedException">Nothing is owed.</exception>
    public static async Task<string> BeginAsync(Desk desk, ICardPayments cards, ProjectId project, string returnTo)
    {
        var file = await desk.OpenAsync(project);
        var open = Owed.Open(file.History).ToList();
        if (open.Count == 0)
            throw new RefusedException("Nothing is to be paid at the moment.");
        var (issued, owed) = open[0];
        var number = await desk.Db.Invoices.Where(i => i.Id == issued.What.Invoice).Select(i => i.Number).SingleAsync();
        var (session, page) = await cards.BeginAsync(
            $"{number}:{owed.Minor}",
            owed,
            $"{desk.Studio.Name}, invoice {number}",
            returnTo
        );
        if (!await desk.Db.Checkouts.AnyAsync(c => c.Session == session))
        {
            desk.Db.Checkouts.Add(
                new()
                {
                    Session = session,
                    InvoiceId = issued.What.Invoice,
                    ProjectId = project,
                    AmountMinor = owed.Minor,
                    At = desk.Now,
                }
            );
            await desk.Db.SaveChangesAsync();
        }
        return page;
    }

    /// <summary>Books a payment that the provider confirms; once, however often it is asked.</summary>
    public static async Task SettleAsync(Desk desk, ICardPayments cards, CheckoutRow checkout)
    {
        if (await cards.AskAsync(checkout.Session) != CheckoutState.Paid)
            return;
        await desk.ActAsync(async act =>
        {
            if (await desk.Db.Payments.AnyAsync(p => p.Reference == checkout.Session))
                return;
            var file = await desk.OpenAsync(checkout.ProjectId);
            await BookAsync(
                act,
                file,
                checkout.InvoiceId,
                new(checkout.AmountMinor, desk.CurrencyOf(file)),
                PaymentMeans.Card,
                checkout.Session,
                Actor.Client,
                desk.Now
            );
        });
    }

    /// <summary>Writes a payment down.</summary>
    public static async Task BookAsync(
        Act act,
        ProjectFile file,
        InvoiceId? invoice,
        Money amount,
        PaymentMeans means,
        string? reference,
        Actor by,
        Instant happened
    )
    {
        var payment = new PaymentRow
        {
            ProjectId = file.Id,
            InvoiceId = invoice,
            AmountMinor = amount.Minor,
            Currency = amount.Currency.Code,
            Means = means,
            Reference = reference,
            At = happened,
        };
        act.Db.Payments.Add(payment);
        await act.Db.SaveChangesAsync();
        await act.RecordAtAsync(file, by, happened, new Happening.PaymentReceived(payment.Id, invoice, amount));
    }
}

/// <summary>Asks the provider after payments that were begun, also when nobody came back from its page.</summary>
public sealed class Settlement(IServiceScopeFactory scopes, ICardPayments cards, ILogger<Settlement> log)
{
    private static readonly Duration AskFor = Duration.FromDays(2);

    /// <summary>Asks after every payment that was begun, and books those that were made.</summary>
    public async Task SettleAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var since = desk.Now - AskFor;
        var open = await desk
            .Db.Checkouts.Where(c => c.At >= since && !desk.Db.Payments.Any(p => p.Reference == c.Session))
            .ToListAsync(stop);
        await Independent.EachAsync(
            log,
            "card payment",
            open,
            checkout =>
            {
                desk.Db.ChangeTracker.Clear();
                return Checkout.SettleAsync(desk, cards, checkout);
            },
            stop
        );
    }
}
