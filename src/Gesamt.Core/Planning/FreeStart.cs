using NodaTime;

namespace Gesamt.Core.Planning;

/// <summary>From when new work could begin.</summary>
public static class FreeStart
{
    /// <summary>Hours that the first week of a kind takes, where it does not say.</summary>
    public const int UsualHours = 10;

    /// <summary>Monday of the first week from a day on in which enough is left of the open hours; null where none of them leaves as much.</summary>
    /// <param name="weeks">The load of the days of each week, which begins on a Monday.</param>
    /// <param name="hours">Hours that the first week of the work takes.</param>
    public static LocalDate? Of(IEnumerable<IReadOnlyList<DayLoad>> weeks, int hours, LocalDate from) =>
        weeks
            .Where(week => week[0].Day >= from && Left(week) >= hours * 60)
            .Select(week => (LocalDate?)week[0].Day)
            .FirstOrDefault();

    /// <summary>Minutes that are open and not planned; a day too full takes from the others.</summary>
    public static int Left(IReadOnlyCollection<DayLoad> week) => week.Sum(day => day.Open - day.Planned);
}
