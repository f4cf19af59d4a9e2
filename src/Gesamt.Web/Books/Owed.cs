using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Calendar;
using Gesamt.Store;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>What clients owe, the oldest first.</summary>
internal static class Owed
{
    private const int Most = 100;

    public static async Task<OwedToYouDto> OfAsync(Desk desk, List<AheadLine> ahead)
    {
        var open = ahead.Where(line => line.Placed.Place is Place.Sent or Place.Late).ToList();
        string Sum(IEnumerable<AheadLine> lines) =>
            desk.Sum(lines.Select(line => (line.Placed.Amount.Minor, (string?)line.Placed.Amount.Currency.Code)));
        var shown = open.Take(Most).ToList();
        var asked = await AskedAsync(desk, [.. shown.Select(line => line.Invoice!.Value)]);
        return new(
            Sum(open),
            Sum(open.Where(line => line.Placed.Place == Place.Late)),
            open.Count,
            [
                .. shown.Select(line => new OwedRowDto(
                    line.Project.Value,
                    line.Title,
                    line.Words,
                    DateWords.Due(line.On!.Value, desk.Today, false),
                    line.Placed.Place == Place.Late,
                    Next(desk, asked[line.Invoice!.Value]),
                    MoneyText.Figures(line.Placed.Amount)
                )),
            ]
        );
    }

    private static string Next(Desk desk, Asked asked) =>
        asked switch
        {
            { Held: > 0 } => "a letter asks for your OK",
            { Reminded: 0 } or { At: null } => "",
            { Reminded: 1, At: { } once } => $"reminded {On(desk, once)}",
            { Reminded: var times, At: { } last } => $"reminded {times} times, last {On(desk, last)}",
        };

    private static string On(Desk desk, Instant at) => desk.Short(desk.Calendar.DateOf(at));

    private sealed record Asked(InvoiceId Id, int Held, int Reminded, Instant? At);

    /// <summary>What was done and waits to be done about these.</summary>
    private static async Task<IReadOnlyDictionary<InvoiceId, Asked>> AskedAsync(Desk desk, List<InvoiceId> invoices) =>
        (await AskedOf(desk.Db, invoices)).ToDictionary(one => one.Id);

    private static readonly Func<GesamtDb, IReadOnlyCollection<InvoiceId>, Task<List<Asked>>> AskedOf = Prepared.Rows(
        (GesamtDb db, IReadOnlyCollection<InvoiceId> invoices) =>
            db
                .Invoices.Where(i => invoices.Contains(i.Id))
                .Join(
                    db.Projects,
                    i => i.ProjectId,
                    p => p.Id,
                    (i, p) => new Asked(i.Id, p.Standing.Held, i.Reminded, i.RemindedAt)
                )
    );
}
