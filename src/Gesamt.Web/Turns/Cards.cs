using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using Gesamt.Core.Waiting;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Turns;

/// <summary>Open projects from their stored standings: one statement, no facts read.</summary>
public static class Cards
{
    /// <summary>What a card is made of.</summary>
    public sealed record Row(
        long Id,
        string Title,
        string Client,
        string Rules,
        string? Summary,
        StandingColumns Standing
    );

    /// <summary>All projects on the table.</summary>
    public static Task<List<Row>> RowsAsync(Desk desk) => OnTable(desk.Db);

    private static readonly Func<GesamtDb, Task<List<Row>>> OnTable = Prepared.Rows(
        (GesamtDb db) =>
            db
                .Projects.AsNoTracking()
                .Where(p => p.Standing.OnTable)
                .Select(p => new Row(p.Id.Value, p.Title, p.Client!.Name, p.Pinned.Rules, p.Summary, p.Standing))
    );

    /// <summary>A card of every project, also of one that cannot be told.</summary>
    public static CardDto Of(Desk desk, Row row) =>
        desk.Tell(
            () => Told(desk, row),
            () =>
                new CardDto(
                    row.Id,
                    row.Title,
                    Untold.Words,
                    null,
                    "",
                    null,
                    AgeBand.Fresh,
                    row.Standing.Stage,
                    row.Standing.Turn,
                    null,
                    row.Standing.BookedAt is not null,
                    row.Client
                )
        );

    private static CardDto Told(Desk desk, Row row)
    {
        var standing = row.Standing;
        var age = standing.Since is { } since ? Age.Of(since, desk.Now, desk.Calendar.Zone) : new Age(0, 0);
        var limits = StoreJson.ReadOnce<KindRules>(row.Rules).AgeLimits;
        // what is late is the invoice, whatever else waits
        var late = standing.LateSince is { } due
            ? $"{(standing.Waits == WaitKind.PayInvoice ? "" : "invoice ")}{DateWords.Due(due, desk.Today, false)}"
            : null;
        var held = standing is { Held: > 0, HeldSince: { } heldSince }
            ? $"Waits for your OK, {Age.Of(heldSince, desk.Now, desk.Calendar.Zone).Short}"
            : null;
        var words = standing.Waits == WaitKind.PayInvoice && late is not null ? "Invoice" : standing.Words;
        return new(
            row.Id,
            row.Title,
            words,
            late,
            age.Short,
            Core.Turns.Standing.NudgedWords(standing.Nudged),
            limits.BandOf(age),
            standing.Stage,
            standing.Turn,
            held,
            standing.BookedAt is not null,
            row.Client
        );
    }
}
