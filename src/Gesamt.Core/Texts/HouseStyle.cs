namespace Gesamt.Core.Texts;

/// <summary>How numbers are grouped, and what parts their decimals.</summary>
public enum NumberLook
{
    /// <summary>“1 234.50”</summary>
    SpacePoint,

    /// <summary>“1,234.50”</summary>
    CommaPoint,

    /// <summary>“1.234,50”</summary>
    PointComma,

    /// <summary>“1 234,50”</summary>
    SpaceComma,

    /// <summary>“1’234.50”</summary>
    ApostrophePoint,
}

/// <summary>The order of a date’s parts.</summary>
public enum DayOrder
{
    /// <summary>“Fri 12 Mar”, “12 March 2027”; 3/4 is the third of April.</summary>
    DayFirst,

    /// <summary>“Fri Mar 12”, “March 12, 2027”; 3/4 is the fourth of March.</summary>
    MonthFirst,
}

/// <summary>How the hours of a day are counted.</summary>
public enum ClockHours
{
    /// <summary>“14:30”</summary>
    TwentyFour,

    /// <summary>“2:30 pm”</summary>
    Twelve,
}

/// <summary>How the studio writes numbers, days and times, for its owner and its clients alike.</summary>
/// <remarks>It is the surroundings of a piece of work, as a culture is in .NET, and flows with it: whoever begins work (a request, a tick) sets it once, and only what turns values into words, or typed words into values, looks at it. No rule decides by it.</remarks>
public sealed record HouseStyle(NumberLook Numbers, DayOrder Days, ClockHours Clock)
{
    /// <summary>Of work that was told no other.</summary>
    public static readonly HouseStyle Plain = new(NumberLook.SpacePoint, DayOrder.DayFirst, ClockHours.TwentyFour);

    private static readonly AsyncLocal<HouseStyle?> Here = new();

    /// <summary>The style of the work at hand.</summary>
    public static HouseStyle Current
    {
        get => Here.Value ?? Plain;
        set => Here.Value = value;
    }

    /// <summary>What parts decimals.</summary>
    public char DecimalMark => Numbers is NumberLook.PointComma or NumberLook.SpaceComma ? ',' : '.';

    /// <summary>What groups thousands; the space is a narrow one that breaks no line.</summary>
    public char GroupMark =>
        Numbers switch
        {
            NumberLook.CommaPoint => ',',
            NumberLook.PointComma => '.',
            NumberLook.ApostrophePoint => '’',
            _ => '\u202f',
        };
}
