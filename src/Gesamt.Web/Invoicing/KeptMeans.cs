using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Waiting;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Invoicing;

/// <summary>Means of payment that clients keep with the provider, and the charging of recurring invoices to them.</summary>
public static class KeptMeans
{
    /// <summary>What a client agrees to, as it is kept with their consent.</summary>
    public static string Consent(Desk desk) =>
        $"Keep my card. {desk.Studio.Name} may charge the recurring invoices of this project to it, each on the day it is due, until I take this back here.";

    /// <summary>The means that may be charged for a project; null where there is none.</summary>
    public static async Task<KeptMeansRow?> OfAsync(Desk desk, ProjectFile file) =>
        Charging.Kept(file.History) is { } kept
            ? await desk.Db.KeptMeans.AsNoTracking().SingleAsync(k => k.Id == kept)
            : null;

    /// <summary>Keeps what was paid with, once.</summary>
    internal static async Task KeepAsync(
        Act act,
        ProjectFile file,
        CheckoutRow checkout,
        PersonId person,
        ProviderMeans kept
    )
    {
        if (await act.Db.KeptMeans.AnyAsync(k => k.ProjectId == file.Id && k.Token == kept.Token))
            return;
        var row = new KeptMeansRow
        {
            ProjectId = file.Id,
            PersonId = person,
            Token = kept.Token,
            Words = kept.Words,
            Consent = checkout.Consent!,
            Means = checkout.Means,
            At = checkout.At,
        };
        act.Db.KeptMeans.Add(row);
        await act.Db.SaveChangesAsync();
        await act.RecordAsync(file, Actor.Client, new Happening.MeansKept(row.Id));
    }

    /// <summary>The consent is taken back: from now on nothing is charged.</summary>
    /// <exception cref="RefusedException">None is in force.</exception>
    public static Task TakeBackAsync(Desk desk, ProjectId project, Actor by) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            if (Charging.Kept(file.History) is not { } kept)
                throw new RefusedException("Nothing is kept to be charged.");
            var row = await act.Db.KeptMeans.SingleAsync(k => k.Id == kept);
            row.TakenBackAt = act.Now;
            await act.RecordAsync(file, by, new Happening.ConsentTakenBack(kept));
        });

    /// <summary>Projects with a recurring invoice that is due, unpaid, and may be charged.</summary>
    public static async Task<IReadOnlyList<ProjectId>> DueAsync(Desk desk)
    {
        // few clients keep any: theirs are looked at alone
        var keep = await Keep(desk.Db);
        if (keep.Count == 0)
            return [];
        var today = desk.Today;
        return await desk
            .Db.Invoices.Where(i =>
                keep.Contains(i.ProjectId) && i.Recurring != null && i.OwedMinor > 0 && i.Due <= today
            )
            .Select(i => i.ProjectId)
            .Distinct()
            .ToListAsync();
    }

    private static readonly Func<GesamtDb, Task<List<ProjectId>>> Keep = Prepared.Rows(
        (GesamtDb db) => db.KeptMeans.Where(k => k.TakenBackAt == null).Select(k => k.ProjectId)
    );

    /// <summary>Charges what is due of a project: on the day, and after 3, 5 and 7 days where it failed.</summary>
    /// <remarks>Killed between the provider and our own row, the next tick asks again under the same key.</remarks>
    public static async Task ChargeDueAsync(Desk desk, IPaymentProvider provider, ProjectId project)
    {
        var file = await desk.OpenAsync(project);
        if (await OfAsync(desk, file) is not { } kept)
            return;
        foreach (var (issued, owed) in Owed.Open(file.History).ToList())
        {
            var invoice = await desk.Db.Invoices.AsNoTracking().SingleAsync(i => i.Id == issued.What.Invoice);
            if (
                invoice.Recurring is null
                || invoice.Due > desk.Today
                || Unanswered.Objects(file.Case, invoice.Id)
                || await NextAttemptAsync(desk, invoice.Id) is not { } attempt
            )
                continue;
            var session = await provider.ChargeAsync(
                kept.Token,
                new(
                    FormattableString.Invariant($"{invoice.Number}:charge:{attempt}"),
                    owed,
                    $"{desk.Studio.Name}, invoice {invoice.Number}",
                    kept.Means,
                    ""
                )
            );
            desk.Db.ChangeTracker.Clear();
            desk.Db.Checkouts.Add(
                new()
                {
                    Session = session,
                    InvoiceId = invoice.Id,
                    ProjectId = project,
                    AmountMinor = owed.Minor,
                    Means = kept.Means,
                    At = desk.Now,
                    Attempt = attempt,
                }
            );
            await desk.Db.SaveChangesAsync();
            await Checkout.SettleAsync(desk, provider, session);
        }
    }

    /// <summary>Which attempt is due now; null where one is under way, the next is still to come, or the last has failed.</summary>
    private static async Task<int?> NextAttemptAsync(Desk desk, InvoiceId invoice)
    {
        var made = await desk
            .Db.Checkouts.AsNoTracking()
            .Where(c => c.InvoiceId == invoice && c.Attempt != null)
            .OrderBy(c => c.Attempt)
            .ToListAsync();
        if (made.Exists(c => c.State is CheckoutState.Open or CheckoutState.Pending))
            return null;
        var first = made is [var one, ..] ? desk.Calendar.DateOf(one.At) : desk.Today;
        return Charging.Next(first, made.Count) <= desk.Today ? made.Count : null;
    }

    /// <summary>Writes down that an attempt failed, and when the next is.</summary>
    internal static async Task RefusedAsync(Act act, ProjectFile file, CheckoutRow checkout, int attempt)
    {
        var first = await act
            .Db.Checkouts.Where(c => c.InvoiceId == checkout.InvoiceId && c.Attempt == 0)
            .Select(c => c.At)
            .SingleAsync();
        var next = Charging.Next(act.Calendar.DateOf(first), attempt + 1);
        await act.RecordAsync(
            file,
            Actor.Gesamt,
            new Happening.ChargeRefused(checkout.InvoiceId, new(checkout.AmountMinor, act.Desk.CurrencyOf(file)), next)
        );
    }
}
