using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Invoicing;

/// <summary>Which hours and costs of a project are charged already: on an invoice of which not all is credited, or in the one being written.</summary>
internal sealed class Taken
{
    private readonly IReadOnlyDictionary<InvoiceId, string> numbers;
    private readonly HashSet<HoursId> hours;
    private readonly HashSet<CostId> costs;

    private Taken(IReadOnlyDictionary<InvoiceId, string> numbers, IReadOnlyList<BillLine> written) =>
        (this.numbers, hours, costs) = (
            numbers,
            [.. written.SelectMany(line => line.Hours)],
            [.. written.SelectMany(line => line.Costs)]
        );

    public static async Task<Taken> OfAsync(Desk desk, ProjectFile file)
    {
        var draft = await Bills.DraftAsync(desk, file.Id);
        return new(await NumbersAsync(desk, file), draft is null ? [] : StoreJson.Read<Bill>(draft.Bill).Lines);
    }

    /// <summary>Where hours are charged, “on invoice 2027-004”; null where they are not.</summary>
    public string? Of(HoursRow row) => Where(row.InvoiceId, hours.Contains(row.Id));

    /// <inheritdoc cref="Of(HoursRow)"/>
    public string? Of(CostRow row) => Where(row.InvoiceId, costs.Contains(row.Id));

    private string? Where(InvoiceId? invoice, bool written) =>
        invoice is { } id && numbers.TryGetValue(id, out var number) ? $"on invoice {number}"
        : written ? "on the invoice being written"
        : null;

    /// <summary>The invoices that ask for anything still.</summary>
    private static async Task<IReadOnlyDictionary<InvoiceId, string>> NumbersAsync(Desk desk, ProjectFile file)
    {
        var asking = file
            .History.Of<Happening.InvoiceIssued>()
            .Where(one => Owed.CreditedOn(file.History, one.What) < one.What.Amount)
            .Select(one => one.What.Invoice)
            .ToList();
        return asking.Count == 0
            ? new Dictionary<InvoiceId, string>()
            : await desk.Db.Invoices.Where(i => asking.Contains(i.Id)).ToDictionaryAsync(i => i.Id, i => i.Number);
    }

    /// <summary>An invoice takes the hours and costs of its lines, each once.</summary>
    /// <exception cref="InvalidException">Something of a line is charged already, or was taken out; the line is named.</exception>
    public static async Task TakeAsync(Act act, ProjectFile file, Bill bill, InvoiceId invoice)
    {
        if (!bill.Lines.Any(line => line.ChargesKept))
            return;
        var numbers = await NumbersAsync(act.Desk, file);
        bool IsFree(InvoiceId? by) => by is not { } id || (id != invoice && !numbers.ContainsKey(id));
        foreach (var (line, i) in bill.Lines.Select((line, i) => (line, i)))
        {
            var hours = await act
                .Db.Hours.Where(h => h.ProjectId == file.Id && !h.Removed && line.Hours.Contains(h.Id))
                .ToListAsync();
            var costs = await act
                .Db.Costs.Where(c => c.ProjectId == file.Id && !c.Removed && line.Costs.Contains(c.Id))
                .ToListAsync();
            if (
                hours.Count != line.Hours.Length
                || costs.Count != line.Costs.Length
                || !hours.All(row => IsFree(row.InvoiceId))
                || !costs.All(row => IsFree(row.InvoiceId))
            )
                throw new InvalidException(
                    (
                        $"lines[{i}].title",
                        $"“{line.Title}” charges hours or costs that are charged already, or were taken out. Leave the line out."
                    )
                );
            foreach (var row in hours)
                row.InvoiceId = invoice;
            foreach (var row in costs)
                row.InvoiceId = invoice;
        }
    }

    /// <summary>What was kept is charged once: it cannot come again and again.</summary>
    /// <exception cref="InvalidException">A line charges kept hours or costs.</exception>
    public static void DemandNone(Bill bill)
    {
        if (bill.Lines.FirstOrDefault(line => line.ChargesKept) is { } line)
            throw new InvalidException(
                (
                    "lines",
                    $"“{line.Title}” charges hours or costs that were kept, which is done once. Leave it out of an invoice that comes again, or write it anew by hand."
                )
            );
    }
}
