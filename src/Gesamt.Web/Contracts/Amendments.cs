using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Contracts;

/// <summary>What an amendment rests on, and what it does once it is signed: what is issued stays, the rest is split anew.</summary>
public static class Amendments
{
    /// <summary>What was invoiced of the agreement, with what is left of each invoice, in the order of issue.</summary>
    public static async Task<ImmutableArray<BilledPart>> BilledAsync(Desk desk, ProjectFile file)
    {
        var rows = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => i.ProjectId == file.Id)
            .OrderBy(i => i.Id)
            .Select(i => new
            {
                i.Id,
                i.Sort,
                i.Credits,
                i.Snapshot,
            })
            .ToListAsync();
        var places = file
            .History.Of<Happening.InvoiceIssued>()
            .Where(issued => issued.What.Part is not null)
            .ToDictionary(issued => issued.What.Invoice, issued => issued.What.Part!.Value);
        Totals Of(string snapshot) => StoreJson.Read<InvoiceSnapshot>(snapshot).Totals;
        return
        [
            .. rows.Where(row => row.Sort == InvoiceSort.Invoice && places.ContainsKey(row.Id))
                .Select(row => new BilledPart(
                    row.Id,
                    places[row.Id],
                    rows.Where(credit => credit.Credits == row.Id)
                        .Aggregate(Of(row.Snapshot), (left, credit) => left.Minus(Of(credit.Snapshot)))
                )),
        ];
    }

    /// <summary>A signed amendment is in force: what was invoiced beyond the new price is credited, and the rest is planned anew.</summary>
    /// <exception cref="RefusedException">Something was invoiced or changed since it was put, so that what it says of the rest is not true any more.</exception>
    internal static async Task TakeEffectAsync(Act act, ProjectFile file, VersionRow contract, AmendmentTerms terms)
    {
        var price = AgreedPrice.Of(file.History);
        var billed = await BilledAsync(act.Desk, file);
        if (price?.Version != terms.Version || !Same(billed, terms.Billed))
            throw new RefusedException(
                $"What was invoiced has changed since this amendment was written. {act.Studio.Owner} has to put it to you anew."
            );
        var proposal = await act.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == contract.FromProposal);
        var offer = Versions.OfferOf(proposal);
        var amendment = Amendment.Of(offer, billed, PlanDates.Of(file.Case, act.Calendar.DateOf(contract.At)));
        foreach (var credit in amendment.Credits)
            await Crediting.OfAsync(
                act,
                file,
                credit.Invoice,
                credit.Totals,
                $"changed by the amendment of {DateWords.Long(act.Calendar.DateOf(contract.At))}",
                atEnd: false
            );
        var (parts, _) = amendment.Parts(price.Parts, Invoiced(file));
        await act.RecordAsync(
            file,
            Actor.Client,
            new Happening.PriceAmended(proposal.Id, amendment.Agreed.Payable, amendment.Agreed.Net, parts)
        );
    }

    private static bool Same(ImmutableArray<BilledPart> now, ImmutableArray<BilledPart> then) =>
        now.Select(part => (part.Invoice, part.Left.Payable))
            .SequenceEqual(then.Select(part => (part.Invoice, part.Left.Payable)));

    /// <summary>Places of agreed parts for which an invoice was issued.</summary>
    public static HashSet<int> Invoiced(ProjectFile file) =>
        [.. file.History.Of<Happening.InvoiceIssued>().Select(issued => issued.What.Part).OfType<int>()];
}
