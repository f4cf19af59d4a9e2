using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.RunSheets;

/// <summary>Items of run sheets as they are written and kept.</summary>
internal static class RunItems
{
    private const int Most = 400,
        LongestWhat = 200,
        LongestName = 120,
        MostDays = 60,
        MostEarlier = 240;

    public static ImmutableArray<RunItem> Read(string json) => StoreJson.Read<ImmutableArray<RunItem>>(json);

    public static string Write(ImmutableArray<RunItem> items) => StoreJson.Write(items);

    public static IReadOnlyList<RunItemDto> Of(IEnumerable<RunItem> items) =>
        [
            .. items.Select(item => new RunItemDto(
                item.Key,
                item.Day,
                item.Start,
                item.Minutes == 0 ? "" : WorkTime.Words(item.Minutes),
                item.What,
                item.Where,
                item.Who,
                item.For,
                item.Earlier
            )),
        ];

    /// <summary>Reads what was written, by day and hour, as written within one hour.</summary>
    /// <exception cref="InvalidException">A field is wrong; it is named by its place in the list.</exception>
    public static ImmutableArray<RunItem> Read(RunItemDto[] items)
    {
        List<(string, string)> errors = [];
        if (items.Length > Most)
            errors.Add(("items", $"A run sheet has at most {Most} items."));
        var known = new HashSet<string>();
        var read = items
            .Select(
                (item, i) =>
                {
                    var at = $"items[{i}]";
                    if (item.What.Trim().Length is 0 or > LongestWhat)
                        errors.Add(($"{at}.what", $"What happens is said in 1 to {LongestWhat} characters."));
                    if (item.Where.Trim().Length > LongestName)
                        errors.Add(($"{at}.where", $"A place is said in at most {LongestName} characters."));
                    if (item.Who.Trim().Length > LongestName)
                        errors.Add(($"{at}.who", $"Who does it is said in at most {LongestName} characters."));
                    if (Math.Abs(item.Day) > MostDays)
                        errors.Add(($"{at}.day", $"At most {MostDays} days before or after the main day."));
                    CheckEarlier(item.Earlier ?? 0, $"{at}.earlier", errors);
                    return new RunItem(
                        item.Key.Length is > 0 and <= 40 && known.Add(item.Key) ? item.Key : Codes.New(),
                        item.Day,
                        new LocalTime(item.Start.Hour, item.Start.Minute),
                        Minutes(item.Length, $"{at}.length", errors),
                        item.What.Trim(),
                        item.Where.Trim(),
                        item.Who.Trim(),
                        item.For,
                        item.Earlier
                    );
                }
            )
            .ToList();
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
        return [.. read.OrderBy(item => item.Day).ThenBy(item => item.Start)];
    }

    public static void CheckEarlier(int minutes, string field, List<(string, string)> errors)
    {
        if (minutes is < 0 or > MostEarlier)
            errors.Add((field, $"Guests are told 0 to {MostEarlier} minutes earlier."));
    }

    private static int Minutes(string length, string field, List<(string, string)> errors)
    {
        if (string.IsNullOrWhiteSpace(length))
            return 0;
        if (WorkTime.Read(length) is { } minutes)
            return minutes;
        errors.Add((field, "How long does it take? Write 2 h, 1:30 or 45 min."));
        return 0;
    }

    /// <summary>The days of a copy in words.</summary>
    public static IReadOnlyList<CopiedDayDto> Copied(IEnumerable<RunDay> days) =>
        [
            .. days.Select(day => new CopiedDayDto(
                DayWords(day.Day, day.Date),
                [
                    .. day.Lines.Select(line => new CopiedLineDto(
                        DateWords.Time(line.Told),
                        line.Until is { } until ? DateWords.Time(until) : "",
                        line.Item.What,
                        line.Item.Where,
                        line.Item.Who,
                        ForWords(line.Item.For),
                        line.GuestsTold is { } told ? DateWords.Time(told) : ""
                    )),
                ]
            )),
        ];

    /// <summary>“Friday 10 September 2027”; “2 days before” while the date is not known.</summary>
    public static string DayWords(int day, LocalDate? date) =>
        date is { } known ? DateWords.Full(known) : Core.Texts.ShortText.Capital(RunSheetRule.DayWords(day));

    public static string ForWords(RunFor whom) =>
        whom switch
        {
            RunFor.Everybody => "everybody",
            RunFor.Suppliers => "suppliers",
            RunFor.Guests => "guests",
            _ => "only me",
        };
}
