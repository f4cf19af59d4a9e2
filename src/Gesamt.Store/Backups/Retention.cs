using System.Globalization;

namespace Gesamt.Store.Backups;

/// <summary>Which backups are kept: the newest of each of the last seven days, four weeks and twelve months that have one.</summary>
public static class Retention
{
    public const int Days = 7,
        Weeks = 4,
        Months = 12;

    /// <param name="made">When each was made, in any order.</param>
    public static IReadOnlySet<DateTime> Kept(IEnumerable<DateTime> made)
    {
        var newestFirst = made.OrderDescending().ToList();
        HashSet<DateTime> kept = [];
        Keep(at => at.Date, Days);
        Keep(at => (ISOWeek.GetYear(at), ISOWeek.GetWeekOfYear(at)), Weeks);
        Keep(at => (at.Year, at.Month), Months);
        return kept;

        void Keep<T>(Func<DateTime, T> span, int most) =>
            kept.UnionWith(newestFirst.GroupBy(span).Take(most).Select(same => same.First()));
    }
}
