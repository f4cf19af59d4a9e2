using Gesamt.Core.Amounts;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <summary>Asks the provider after payments that were begun, also when nobody came back from its page and no notice came, and after refunds it was asked for.</summary>
public sealed class Settlement(IServiceScopeFactory scopes, IPaymentProvider provider, ILogger<Settlement> log)
{
    // notices can be lost for as long as a house is shut down over a holiday
    private static readonly Duration AskFor = Duration.FromDays(30),
        Overlap = Duration.FromMinutes(5);
    private Instant? askedUntil;

    /// <summary>Books all that happened with the provider since it was asked last.</summary>
    public async Task SettleAsync(CancellationToken stop)
    {
        if (provider.Ways.Count == 0)
            return;
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var now = desk.Now;
        await RefundsAsync(desk, stop);
        var since = askedUntil ?? now - AskFor;
        var changed = await provider.ChangedAsync(since);
        await Independent.EachAsync(log, "payment", changed, session => OneAsync(desk, session), stop);
        // the provider's clock may be a little behind ours
        askedUntil = now - Overlap;
    }

    private async Task OneAsync(Desk desk, string session)
    {
        desk.Db.ChangeTracker.Clear();
        await Checkout.SettleAsync(desk, provider, session);
    }

    /// <summary>A kill between our word and the provider's leaves a refund asked for; asked again under its key it is done once.</summary>
    private async Task RefundsAsync(Desk desk, CancellationToken stop)
    {
        await Independent.EachAsync(
            log,
            "refund",
            await Asked(desk.Db),
            async one =>
            {
                await provider.RefundAsync(
                    one.Reference,
                    one.Row.Key!,
                    new(one.Row.AmountMinor, Currency.Of(one.Row.Currency))
                );
                await OneAsync(desk, one.Reference);
            },
            stop
        );
    }

    private sealed record AskedRefund(RefundRow Row, string Reference);

    private static readonly Func<GesamtDb, Task<List<AskedRefund>>> Asked = Prepared.Rows(
        (GesamtDb db) =>
            db
                .Refunds.AsNoTracking()
                .Where(r => r.State == RefundState.Asked)
                .Join(db.Payments, r => r.PaymentId, p => p.Id, (r, p) => new AskedRefund(r, p.Reference!))
    );
}
