using System.Globalization;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Web.Hosting;
using Gesamt.Web.Words;
using NodaTime;

namespace Gesamt.Web.Registers;

/// <summary>What the columns of the register show, hold and are sorted by.</summary>
internal static class RegisterCells
{
    /// <summary>An hourly figure.</summary>
    public static bool IsHourly(RegisterColumn column) => column is RegisterColumn.Worked or RegisterColumn.AnHour;

    /// <summary>An amount of money.</summary>
    public static bool IsAmount(RegisterColumn column) =>
        column is RegisterColumn.Value or RegisterColumn.Agreed or RegisterColumn.Paid or RegisterColumn.Owed;

    /// <summary>The amount of a column that shows one, in minor units.</summary>
    public static long? Minor(RegisterRow row, RegisterColumn column) =>
        column switch
        {
            RegisterColumn.Value => row.Standing.NetMinor,
            RegisterColumn.Agreed => row.Standing.AgreedMinor,
            RegisterColumn.Paid => row.Standing.PaidMinor,
            _ => row.Standing.OwedMinor,
        };

    /// <summary>What a column is sorted by; null stands last either way.</summary>
    public static IComparable? Key(Desk desk, RegisterRow row, RegisterColumn column) =>
        column switch
        {
            RegisterColumn.Date => row.Standing.MainDate,
            RegisterColumn.Turn => row.Standing.Since,
            RegisterColumn.Stage => row.Standing.Stage,
            RegisterColumn.Inquiry => row.Standing.BeganAt,
            RegisterColumn.Booked => row.Standing.BookedAt,
            RegisterColumn.Over => row.Standing.FinishedAt,
            RegisterColumn.Worked => row.Minutes > 0 ? row.Minutes : null,
            RegisterColumn.AnHour => row.AnHour?.Minor,
            RegisterColumn.Routine => row.Run?.BeganAt,
            _ when IsAmount(column) => Minor(row, column),
            _ => Cell(desk, row, column) is { Length: > 0 } text ? text : null,
        };

    /// <summary>What a column shows on the page.</summary>
    public static string Cell(Desk desk, RegisterRow row, RegisterColumn column) =>
        column switch
        {
            RegisterColumn.Client => row.Client,
            RegisterColumn.Kind => row.Kind,
            RegisterColumn.Stage => row.Standing.Ended is { } end
                ? LineText.EndWords(end)
                : row.Standing.Stage.ToString(),
            RegisterColumn.Milestone => row.Standing.Milestone ?? "",
            RegisterColumn.Turn => TurnWords(desk, row.Standing),
            RegisterColumn.Reason => row.Standing.Ended is null ? row.Standing.Words : "",
            RegisterColumn.Date => desk.Short(row.Standing.MainDate) ?? "",
            RegisterColumn.Source => row.Source ?? "",
            RegisterColumn.Campaign => row.Campaign ?? "",
            RegisterColumn.Inquiry => Day(desk, row.Standing.BeganAt),
            RegisterColumn.Booked => Day(desk, row.Standing.BookedAt),
            RegisterColumn.Over => Day(desk, row.Standing.FinishedAt),
            RegisterColumn.Worked => row.Minutes > 0 ? WorkTime.Words(row.Minutes) : "",
            RegisterColumn.AnHour => row.AnHour is { } earned ? MoneyText.Of(earned) : "",
            RegisterColumn.Routine => row.Run is { } run ? RoutineRuns.Words(desk, run) : "",
            _ => Minor(row, column) is { } minor and not 0
                ? MoneyText.Of(desk.Amount(minor, row.Standing.Currency))
                : "",
        };

    /// <summary>What it holds as CSV: dates in ISO 8601, amounts and hours as plain numbers.</summary>
    public static string Plain(Desk desk, RegisterRow row, RegisterColumn column) =>
        column switch
        {
            RegisterColumn.Date => row.Standing.MainDate?.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture) ?? "",
            RegisterColumn.Inquiry => Iso(desk, row.Standing.BeganAt),
            RegisterColumn.Booked => Iso(desk, row.Standing.BookedAt),
            RegisterColumn.Over => Iso(desk, row.Standing.FinishedAt),
            RegisterColumn.Worked => row.Minutes > 0
                ? WorkTime.Hours(row.Minutes).ToString(CultureInfo.InvariantCulture)
                : "",
            RegisterColumn.AnHour => row.AnHour is { } earned
                ? earned.Major.ToString(CultureInfo.InvariantCulture)
                : "",
            _ when IsAmount(column) => Minor(row, column) is { } minor
                ? desk.Amount(minor, row.Standing.Currency) is var amount && amount.Currency == desk.Currency
                    ? amount.Major.ToString(CultureInfo.InvariantCulture)
                    : $"{amount.Major.ToString(CultureInfo.InvariantCulture)} {amount.Currency}"
                : "",
            _ => Cell(desk, row, column),
        };

    private static string TurnWords(Desk desk, RegisterStood standing)
    {
        if (standing.Ended is not null || standing.Stage == Stage.Finished)
            return "";
        var age = standing.Since is { } since ? $", {Age.Of(since, desk.Now, desk.Calendar.Zone).Short}" : "";
        return standing.Turn switch
        {
            Side.Yours => $"yours{age}",
            Side.Clients => $"the client's{age}",
            _ => standing.Until is { } until ? $"nobody's until {Day(desk, until)}" : "nobody's",
        };
    }

    private static string Day(Desk desk, Instant? at) =>
        at is { } known ? DateWords.Short(desk.Calendar.DateOf(known), desk.Today) : "";

    private static string Iso(Desk desk, Instant? at) =>
        at is { } known ? desk.Calendar.DateOf(known).ToString("uuuu-MM-dd", CultureInfo.InvariantCulture) : "";

    /// <summary>What it is called.</summary>
    public static string Words(RegisterColumn column) =>
        column switch
        {
            RegisterColumn.Value => "Value, net",
            RegisterColumn.Agreed => "Agreed, with tax",
            RegisterColumn.Inquiry => "Inquiry",
            RegisterColumn.Booked => "Booked on",
            RegisterColumn.Over => "Finished on",
            RegisterColumn.AnHour => "An hour earns",
            RegisterColumn.Routine => "In the routine",
            _ => column.ToString(),
        };
}
