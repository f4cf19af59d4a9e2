using System.Globalization;
using Gesamt.Core.Texts;
using NodaTime;
using NodaTime.Text;
using NodaTime.TimeZones;

namespace Gesamt.Core.Calendar;

/// <summary>Dates and distances in words, the same everywhere, days and times in the style of the house.</summary>
public static class DateWords
{
    private sealed record Patterns(
        LocalDatePattern Short,
        LocalDatePattern WithYear,
        LocalDatePattern Long,
        LocalDatePattern Whole
    );

    private static readonly Patterns DayFirst =
            new(Date("ddd d MMM"), Date("ddd d MMM uuuu"), Date("d MMMM uuuu"), Date("dddd d MMMM")),
        MonthFirst = new(Date("ddd MMM d"), Date("ddd MMM d, uuuu"), Date("MMMM d, uuuu"), Date("dddd, MMMM d"));
    private static readonly LocalDatePattern MonthOfYear = Date("MMMM uuuu");
    private static readonly LocalTimePattern TwentyFour = Clock("HH:mm"),
        Twelve = Clock("h:mm tt");

    /// <summary>“Fri 12 Mar”, with the year when it is not this one.</summary>
    public static string Short(LocalDate date, LocalDate today) =>
        (date.Year == today.Year ? Order.Short : Order.WithYear).Format(date);

    /// <summary>“Monday 25 January”, as the head of a day.</summary>
    public static string OfToday(LocalDate today) => Order.Whole.Format(today);

    /// <summary>“12 March 2027”, for papers.</summary>
    public static string Long(LocalDate date) => Order.Long.Format(date);

    /// <summary>With its day of the week: “Friday 10 September 2027”.</summary>
    public static string Full(LocalDate date) => $"{date.DayOfWeek} {Long(date)}";

    /// <summary>“March 2027”.</summary>
    public static string Month(LocalDate day) => MonthOfYear.Format(day);

    /// <summary>“1 February 2027 to 12 March 2027”; the day alone where they are one.</summary>
    public static string Between(LocalDate from, LocalDate until) =>
        from == until ? Long(from) : $"{Long(from)} to {Long(until)}";

    public static string Time(LocalTime time) =>
        HouseStyle.Current.Clock == ClockHours.Twelve
            ? Twelve.Format(time).ToLowerInvariant()
            : TwentyFour.Format(time);

    /// <summary>“today”, “tomorrow”, “in 46 days”, “3 days ago”.</summary>
    public static string Distance(LocalDate date, LocalDate today) =>
        DaysBetween(today, date) switch
        {
            0 => "today",
            1 => "tomorrow",
            -1 => "yesterday",
            > 1 and var days => $"in {days} days",
            var days => $"{-days} days ago",
        };

    /// <summary>“due tomorrow”, “due today”, “1 day late”, else “due Thu 28 Jan”; nothing once it is done. Common practice.</summary>
    public static string Due(LocalDate due, LocalDate today, bool done) =>
        (done, DaysBetween(today, due)) switch
        {
            (true, _) => "",
            (_, 0) => "due today",
            (_, 1) => "due tomorrow",
            (_, -1) => "1 day late",
            (_, < 0 and var days) => $"{-days} days late",
            _ => $"due {Short(due, today)}",
        };

    public static int DaysBetween(LocalDate from, LocalDate to) => Period.DaysBetween(from, to);

    private static Patterns Order => HouseStyle.Current.Days == DayOrder.MonthFirst ? MonthFirst : DayFirst;

    private static LocalDatePattern Date(string pattern) =>
        LocalDatePattern.Create(pattern, CultureInfo.InvariantCulture);

    private static LocalTimePattern Clock(string pattern) =>
        LocalTimePattern.Create(pattern, CultureInfo.InvariantCulture);
}

/// <summary>How long something has waited: hours under a day, then days, each from a local time to the same local time of the next day.</summary>
/// <param name="Days">Whole days of the studio's clock; 0 while under a day.</param>
/// <param name="Hours">Elapsed hours, told only while under a day.</param>
public readonly record struct Age(int Days, int Hours)
{
    public static Age Of(Instant since, Instant now, DateTimeZone zone)
    {
        if (now <= since)
            return new(0, 0);
        var from = since.InZone(zone).LocalDateTime;
        var days = DateWords.DaysBetween(from.Date, now.InZone(zone).Date);
        // by instants: in an hour that the clock says twice an age must not run backwards
        if (days > 0 && from.PlusDays(days).InZone(zone, Resolvers.LenientResolver).ToInstant() > now)
            days--;
        return days > 0 ? new(days, 0) : new(0, (int)Math.Min(23, (now - since).TotalHours));
    }

    /// <summary>“4 h”, “3 d”, with a no-break space.</summary>
    public string Short =>
        Days > 0 ? $"{Days}\u00a0d"
        : Hours > 0 ? $"{Hours}\u00a0h"
        : "now";

    /// <summary>“4 hours”, “1 day”.</summary>
    public string Long =>
        Days > 0 ? Plural(Days, "day")
        : Hours > 0 ? Plural(Hours, "hour")
        : "a moment";

    private static string Plural(int count, string unit) => $"{count} {unit}{(count == 1 ? "" : "s")}";
}

/// <summary>Where in the columns of Turns an age stands.</summary>
public enum AgeBand
{
    Fresh,
    Waiting,
    Old,
}

/// <summary>From how many days on something counts as waiting, and as old. The owner's, per kind.</summary>
public readonly record struct AgeLimits(int Waiting, int Old)
{
    public static readonly AgeLimits Default = new(2, 8);

    /// <summary>“under 2 days”, “2 to 7 days”, “8 days and more”.</summary>
    public string Words(AgeBand band) =>
        band switch
        {
            AgeBand.Fresh => Waiting == 1 ? "under a day" : $"under {Waiting} days",
            AgeBand.Waiting => Old - Waiting == 1
                ? $"{Waiting} day{(Waiting == 1 ? "" : "s")}"
                : $"{Waiting} to {Old - 1} days",
            _ => $"{Old} days and more",
        };

    public AgeBand BandOf(Age age) =>
        age.Days >= Old ? AgeBand.Old
        : age.Days >= Waiting ? AgeBand.Waiting
        : AgeBand.Fresh;
}
