using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Turns;

/// <summary>Whose turn it is, over all open projects.</summary>
public static class TurnsView
{
    /// <summary>Above this many open projects each shrinks to one line.</summary>
    private const int DenseAbove = 30;

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
        return new(Summary(cards.Select(c => c.Card).ToList()), yours, lanes, quiet, cards.Count > DenseAbove);
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
        var value = cards.Select(c => new Money(c.Row.Standing.AgreedMinor ?? 0, desk.Currency)).Sum(desk.Currency);
        var booked = cards.Count(c => c.Card.Booked);
        var under =
            $"{cards.Count} open{(booked > 0 ? $", {booked} booked" : "")}{(value.Minor > 0 ? $", {MoneyText.Of(value)}" : "")}";
        return new(
            stage,
            under,
            [.. cards.Where(c => c.Card.Side != Side.Nobodys).OrderBy(c => c.Row.Standing.Since).Select(c => c.Card)]
        );
    }

    private static string Quiet(Desk desk, Cards.Row row) =>
        $"{(row.Standing.Waits == WaitKind.Resting ? "rests" : "quiet")} until {(row.Standing.Until is { } until ? DateWords.Short(desk.Calendar.DateOf(until), desk.Today) : "later")}";
}
