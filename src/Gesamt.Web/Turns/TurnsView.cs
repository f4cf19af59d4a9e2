using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Turns;

/// <summary>Whose turn it is, over all open projects.</summary>
public static class TurnsView
{
    /// <summary>Above this many open projects each shrinks to one line.</summary>
    private const int DenseAbove = 30;

    /// <summary>Turns as it is now.</summary>
    public static async Task<TurnsDto> OfAsync(Desk desk)
    {
        var rows = await Cards.RowsAsync(desk);
        var cards = rows.Select(row => (Row: row, Card: Cards.Of(desk, row))).ToList();
        var lanes = Enum.GetValues<Stage>()
            .Where(stage => stage != Stage.Finished)
            .Select(stage => Lane(desk, stage, [.. cards.Where(c => c.Card.Stage == stage)]))
            .ToList();
        var quiet = cards
            .Where(c => c.Card.Side == Side.Nobodys)
            .OrderBy(c => c.Row.Standing.Until)
            .Select(c => new RestingDto(c.Card.Id, c.Card.Title, Quiet(desk, c.Row)))
            .ToList();
        var yours = cards.Count(c => c.Card.Side == Side.Yours);
        return new(
            Summary(cards.Select(c => c.Card).ToList()),
            yours,
            await AgesAsync(desk),
            lanes,
            quiet,
            cards.Count > DenseAbove,
            [.. cards.OrderBy(c => c.Row.Standing.Since).Select(c => c.Card.Id)]
        );
    }

    /// <summary>In days where all kinds of work have the same limits; else in words that hold for each.</summary>
    private static async Task<AgesDto> AgesAsync(Desk desk)
    {
        var rules = await desk.Db.Kinds.AsNoTracking().Where(k => !k.Removed).Select(k => k.Rules).ToListAsync();
        var limits = rules
            .Select(json => desk.Tell(() => StoreJson.ReadOnce<KindRules>(json).AgeLimits, () => AgeLimits.Default))
            .Distinct()
            .ToList();
        var all = limits is [var only] ? only : (AgeLimits?)null;
        return new(
            all?.Words(AgeBand.Fresh) ?? "new",
            all?.Words(AgeBand.Waiting) ?? "waiting",
            all?.Words(AgeBand.Old) ?? "waiting long"
        );
    }

    private static string Summary(List<CardDto> cards)
    {
        int Of(Side side) => cards.Count(card => card.Side == side);
        var booked = cards.Count(card => card.Booked);
        var quiet = Of(Side.Nobodys);
        return $"{cards.Count} open project{(cards.Count == 1 ? "" : "s")}, {booked} of them booked. {Of(Side.Yours)} wait{(Of(Side.Yours) == 1 ? "s" : "")} for you, {Of(Side.Clients)} for the client, {quiet} for a date.";
    }

    private static LaneDto Lane(Desk desk, Stage stage, IReadOnlyList<(Cards.Row Row, CardDto Card)> cards)
    {
        var agreed = cards.Where(c => c.Row.Standing.AgreedMinor > 0).ToList();
        var value =
            agreed.Count == 0
                ? ""
                : desk.Sum(agreed.Select(c => (c.Row.Standing.AgreedMinor!.Value, c.Row.Standing.Currency)));
        var booked = cards.Count(c => c.Card.Booked);
        var under =
            $"{cards.Count} open{(booked > 0 ? $", {booked} booked" : "")}{(value.Length > 0 ? $", {value}" : "")}";
        return new(
            stage,
            under,
            [.. cards.Where(c => c.Card.Side != Side.Nobodys).OrderBy(c => c.Row.Standing.Since).Select(c => c.Card)]
        );
    }

    private static string Quiet(Desk desk, Cards.Row row) =>
        $"{(row.Standing.Waits == WaitKind.Resting ? "rests" : "quiet")} until {(row.Standing.Until is { } until ? DateWords.Short(desk.Calendar.DateOf(until), desk.Today) : "later")}";
}
