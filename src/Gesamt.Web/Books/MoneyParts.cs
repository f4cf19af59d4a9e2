using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Calendar;
using Gesamt.Formats.Tables;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Books;

/// <summary>What a figure of the books is made of, entry by entry.</summary>
internal static class MoneyParts
{
    private const int Usual = 60,
        MostRows = 2_000;

    /// <param name="show">Which figure; null for all that moved.</param>
    /// <param name="undated">Those whose day is not known.</param>
    public static async Task<MoneyPartsDto> OfAsync(
        Desk desk,
        MoneyQuery query,
        MoneyShow? show,
        bool undated,
        int? most
    )
    {
        if (most is < 1 or > MostRows)
            throw new InvalidException(("most", $"From 1 to {MostRows}."));
        var range = MoneyRange.Of(desk, query, desk.Today);
        var take = most ?? Usual;
        return show switch
        {
            MoneyShow.Sent or MoneyShow.Late or MoneyShow.ToCome or MoneyShow.Likely => Ahead(
                desk,
                range,
                show.Value,
                undated,
                await Books.Ahead.OfAsync(desk, range.Currency, range.Last),
                take
            ),
            MoneyShow.Recurs => Recurring(
                desk,
                range,
                await RecurringCosts.AheadAsync(desk, range.Currency, range.Last),
                take
            ),
            _ => await MovedAsync(desk, range, show, take),
        };
    }

    private static MoneyPartsDto Ahead(
        Desk desk,
        MoneyRange range,
        MoneyShow show,
        bool undated,
        List<AheadLine> all,
        int take
    )
    {
        var lines = all.Where(line =>
                MoneyOverview.ShowOf(line.Placed.Place) == show
                && (
                    undated
                        ? line.On is null
                        : line.On is not null
                            && MoneyOverview.DayOf(desk, line) >= range.First
                            && MoneyOverview.DayOf(desk, line) <= range.Last
                )
            )
            .ToList();
        return new(
            Title(show),
            lines.Count,
            MoneyText.Of(lines.Select(line => line.Placed.Amount).Sum(range.Currency)),
            [
                .. lines
                    .Take(take)
                    .Select(
                        (line, i) =>
                            new MoneyRowDto(
                                $"{show}-{i}",
                                line.On is { } on ? DayWords(desk, on) : "",
                                line.Title,
                                line.Words,
                                MoneyText.Signed(line.Placed.Amount),
                                new(line.Project.Value, null, null, false)
                            )
                    ),
            ],
            Math.Max(0, lines.Count - take)
        );
    }

    private static MoneyPartsDto Recurring(
        Desk desk,
        MoneyRange range,
        List<(LocalDate On, Money Amount, RecurringCostRow Row)> all,
        int take
    )
    {
        var lines = all.Where(one => one.On >= range.First && one.On <= range.Last).OrderBy(one => one.On).ToList();
        return new(
            Title(MoneyShow.Recurs),
            lines.Count,
            MoneyText.Of(lines.Select(line => line.Amount).Sum(range.Currency)),
            [
                .. lines
                    .Take(take)
                    .Select(
                        (line, i) =>
                            new MoneyRowDto(
                                $"recurs-{i}",
                                DayWords(desk, line.On),
                                line.Row.What,
                                EveryWords.Of(line.Row.Every),
                                MoneyText.Signed(-line.Amount),
                                new(line.Row.ProjectId?.Value, null, null, false)
                            )
                    ),
            ],
            Math.Max(0, lines.Count - take)
        );
    }

    private static async Task<MoneyPartsDto> MovedAsync(Desk desk, MoneyRange range, MoneyShow? show, int take)
    {
        var all = (await Journal.OfAsync(desk, range.First, range.Last, range.As))
            .Where(one => one.Entry.Amount.Currency == range.Currency && Is(one, show))
            .ToList();
        var told = await Told.OfAsync(desk, [.. all.Take(take)], range.As);
        var sum = all.Select(one => one.Entry.Amount).Sum(range.Currency);
        return new(
            show is { } figure ? Title(figure, range.As) : "entries",
            all.Count,
            MoneyText.Of(show == MoneyShow.Spent ? -sum : sum),
            [.. all.Take(take).Select(one => Row(desk, one, told.Of(one)))],
            Math.Max(0, all.Count - take)
        );
    }

    private static bool Is(Movement one, MoneyShow? show) =>
        show switch
        {
            MoneyShow.Other => one.Entry.Sort == EntrySort.OtherIncome,
            MoneyShow.Spent => one.Entry.Sort == EntrySort.Cost,
            MoneyShow.Received => one.Entry.Sort is EntrySort.Payment or EntrySort.Refund or EntrySort.Chargeback,
            _ => true,
        };

    private static MoneyRowDto Row(Desk desk, Movement one, Told.Words words) =>
        new(
            $"{one.Entry.Sort}-{one.Number}",
            DayWords(desk, one.Entry.On),
            words.Title,
            words.What,
            MoneyText.Signed(one.Entry.Amount),
            new(
                one.Project?.Value,
                one.Entry.Sort == EntrySort.Cost ? one.Number : null,
                one.Entry.Sort == EntrySort.OtherIncome ? one.Number : null,
                words.Receipt
            )
        );

    private static string Title(MoneyShow show, MoneyAs how = MoneyAs.Received) =>
        show switch
        {
            MoneyShow.Received => how == MoneyAs.Billed ? "billed" : "received",
            MoneyShow.Other => "other income",
            MoneyShow.Sent => "sent, not due",
            MoneyShow.Late => "late",
            MoneyShow.ToCome => "agreed, to come",
            MoneyShow.Likely => "likely",
            MoneyShow.Spent => "spent",
            _ => "will book itself",
        };

    private static string DayWords(Desk desk, LocalDate on) => desk.Short(on);

    /// <summary>All entries as a table (RFC 4180), in every currency: what an accountant's program reads.</summary>
    public static async Task<byte[]> CsvAsync(Desk desk, MoneyQuery query)
    {
        var range = MoneyRange.Of(desk, query, await Journal.EarliestAsync(desk));
        var all = await Journal.OfAsync(desk, range.First, range.Last, range.As);
        all.Reverse();
        return await CsvAsync(desk, all, range.As);
    }

    /// <inheritdoc cref="CsvAsync(Desk, MoneyQuery)"/>
    public static async Task<byte[]> CsvAsync(Desk desk, List<Movement> all, MoneyAs how)
    {
        var told = await Told.OfAsync(desk, all, how);
        var names = await AccountNames.OfAsync(desk);
        return Csv.Write(
            ["Day", "Sort", "Who", "What", "Category", "Account", "Amount", "Currency", "Tax rate", "Receipt"],
            all.Select(one =>
            {
                var words = told.Of(one);
                return (IReadOnlyList<string>)
                    [
                        LocalDatePattern.Iso.Format(one.Entry.On),
                        SortWords(one.Entry.Sort, how),
                        words.Who,
                        words.What,
                        words.Category,
                        how == MoneyAs.Billed ? "" : names.Of(one.Entry),
                        MoneyText.Exact(one.Entry.Amount),
                        one.Entry.Amount.Currency.Code,
                        words.Tax,
                        words.File,
                    ];
            })
        );
    }

    private static string SortWords(EntrySort sort, MoneyAs how) =>
        (sort, how) switch
        {
            (EntrySort.Payment, MoneyAs.Billed) => "invoice",
            (EntrySort.Refund, MoneyAs.Billed) => "credit note",
            (EntrySort.Payment, _) => "payment",
            (EntrySort.Refund, _) => "refund",
            (EntrySort.Chargeback, _) => "chargeback",
            (EntrySort.OtherIncome, _) => "other income",
            _ => "cost",
        };
}
