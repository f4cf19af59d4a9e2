using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Work;

/// <summary>For whom an item of a run sheet is.</summary>
public enum RunFor
{
    Everybody,
    Suppliers,
    Guests,
    Me,
}

/// <summary>Whose copy of a run sheet it is. The client's holds all but what is the owner's alone.</summary>
public enum RunReader
{
    Me,
    Client,
    Suppliers,
    Guests,
}

/// <summary>One thing that happens, at its hour.</summary>
/// <param name="Key">What it is known by while it is changed.</param>
/// <param name="Day">Days after the sheet's main day; before it where negative.</param>
/// <param name="Start">When it truly begins.</param>
/// <param name="Minutes">How long it takes; 0 where that is not said.</param>
/// <param name="Earlier">How many minutes earlier guests are told; the sheet's own where null.</param>
public sealed record RunItem(
    string Key,
    int Day,
    LocalTime Start,
    int Minutes,
    string What,
    string Where,
    string Who,
    RunFor For,
    int? Earlier = null
);

/// <summary>What happens by the hour over one or several days.</summary>
/// <param name="MainDay">Null while the date is not known.</param>
/// <param name="Earlier">How many minutes earlier than the true start guests are told to come.</param>
public sealed record RunSheet(LocalDate? MainDay, int Earlier, ImmutableArray<RunItem> Items);

/// <summary>A line of a copy.</summary>
/// <param name="Told">The time this reader is told.</param>
/// <param name="Until">When it ends; null where that is not said, and for guests.</param>
/// <param name="GuestsTold">The earlier time guests are told, for who reads the true one.</param>
public sealed record RunLine(RunItem Item, LocalTime Told, LocalTime? Until, LocalTime? GuestsTold);

/// <summary>A day of a copy.</summary>
/// <param name="Day">Days after the main day.</param>
/// <param name="Date">Null while the date is not known.</param>
public sealed record RunDay(int Day, LocalDate? Date, ImmutableArray<RunLine> Lines);

/// <summary>Run sheets: their days, the copy of each reader, and what changed.</summary>
public static class RunSheetRule
{
    /// <summary>Every day from the first to the last of the items, those without any too.</summary>
    public static ImmutableArray<int> Days(IEnumerable<RunItem> items)
    {
        var days = items.Select(item => item.Day).ToList();
        return days.Count == 0 ? [] : [.. Enumerable.Range(days.Min(), days.Max() - days.Min() + 1)];
    }

    /// <summary>What one reader sees: their own items and those for everybody, at the time they are told.</summary>
    public static ImmutableArray<RunDay> Copy(RunSheet sheet, RunReader reader)
    {
        var told = sheet
            .Items.Where(item => IsFor(item.For, reader))
            .Select(
                (item, at) =>
                    (
                        At: at,
                        Item: item,
                        Start: StartOf(item)
                            .PlusMinutes(reader == RunReader.Guests ? -(item.Earlier ?? sheet.Earlier) : 0)
                    )
            )
            .ToList();
        return
        [
            .. Days(told.Select(one => one.Item with { Day = DayOf(one.Start) }))
                .Select(day => new RunDay(
                    day,
                    sheet.MainDay?.PlusDays(day),
                    [
                        .. told.Where(one => DayOf(one.Start) == day)
                            .OrderBy(one => one.Start)
                            .ThenBy(one => one.At)
                            .Select(one => Line(one.Item, one.Start, sheet, reader)),
                    ]
                )),
        ];
    }

    private static RunLine Line(RunItem item, LocalDateTime told, RunSheet sheet, RunReader reader)
    {
        var earlier = item.Earlier ?? sheet.Earlier;
        var guestsToo = item.For is RunFor.Everybody or RunFor.Guests;
        return new(
            item,
            told.TimeOfDay,
            reader == RunReader.Guests || item.Minutes == 0 ? null : told.PlusMinutes(item.Minutes).TimeOfDay,
            reader is RunReader.Me or RunReader.Client && guestsToo && earlier > 0
                ? item.Start.PlusMinutes(-earlier)
                : null
        );
    }

    public static bool IsFor(RunFor item, RunReader reader) =>
        reader switch
        {
            RunReader.Me => true,
            RunReader.Client => item != RunFor.Me,
            RunReader.Suppliers => item is RunFor.Everybody or RunFor.Suppliers,
            _ => item is RunFor.Everybody or RunFor.Guests,
        };

    /// <summary>What can be agreed: the sheet without the owner's own items.</summary>
    public static RunSheet Shared(RunSheet sheet) =>
        sheet with
        {
            Items = [.. sheet.Items.Where(item => item.For != RunFor.Me)],
        };

    /// <summary>What is different since it was agreed, a sentence each.</summary>
    public static IEnumerable<string> Changes(RunSheet before, RunSheet now)
    {
        if (before.MainDay != now.MainDay)
            yield return $"The day is {Day(now.MainDay)} instead of {Day(before.MainDay)}";
        if (before.Earlier != now.Earlier)
            yield return $"Guests are told {Minutes(now.Earlier)} instead of {Minutes(before.Earlier)}";
        var (was, stands) = (before.Items.ToDictionary(item => item.Key), now.Items.ToDictionary(item => item.Key));
        foreach (var item in now.Items)
            if (!was.TryGetValue(item.Key, out var old))
                yield return $"New: {item.What}, {DateWords.Time(item.Start)}";
            else if (old != item)
                yield return Changed(old, item);
        foreach (var item in before.Items.Where(item => !stands.ContainsKey(item.Key)))
            yield return $"Taken out: {item.What}, {DateWords.Time(item.Start)}";
    }

    private static string Changed(RunItem old, RunItem item)
    {
        string[] parts =
        [
            old.What == item.What ? "" : $"it was “{old.What}”",
            old.Day == item.Day ? "" : $"{DayWords(item.Day)} instead of {DayWords(old.Day)}",
            old.Start == item.Start ? "" : $"{DateWords.Time(item.Start)} instead of {DateWords.Time(old.Start)}",
            old.Minutes == item.Minutes ? "" : $"takes {Length(item.Minutes)} instead of {Length(old.Minutes)}",
            old.Where == item.Where ? "" : $"place: {(item.Where.Length > 0 ? item.Where : "none")}",
            old.Who == item.Who ? "" : $"who: {(item.Who.Length > 0 ? item.Who : "nobody")}",
            old.For == item.For ? "" : "for others",
            old.Earlier == item.Earlier ? "" : "guests are told another time",
        ];
        return $"{item.What}: {string.Join(", ", parts.Where(part => part.Length > 0))}";
    }

    /// <summary>“2 days before”, “the day itself”, “1 day after”.</summary>
    public static string DayWords(int day) => day == 0 ? "the day itself" : Span.Days(day).Words;

    private static string Day(LocalDate? day) => day is { } known ? DateWords.Full(known) : "not known";

    private static string Minutes(int earlier) =>
        earlier == 0 ? "the true start" : $"{WorkTime.Words(earlier)} earlier";

    private static string Length(int minutes) => minutes == 0 ? "no time" : WorkTime.Words(minutes);

    private static LocalDateTime StartOf(RunItem item) => Epoch.PlusDays(item.Day) + item.Start;

    private static int DayOf(LocalDateTime at) => Period.DaysBetween(Epoch, at.Date);

    // any day: only distances to it are taken
    private static readonly LocalDate Epoch = new(2000, 1, 1);

    /// <summary>The version that was agreed last, and when; null while none was.</summary>
    public static Seen<Happening.RunSheetAgreed>? Agreed(History history) => history.Last<Happening.RunSheetAgreed>();
}
