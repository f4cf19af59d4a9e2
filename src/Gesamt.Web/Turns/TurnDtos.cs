using Gesamt.Core.Calendar;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Web.Routines;

namespace Gesamt.Web.Turns;

/// <summary>A project on Turns or Today.</summary>
/// <param name="Words">The reason and next act.</param>
/// <param name="Late">Said in bold: how late its money is.</param>
/// <param name="Held">“Waits for your OK, 2 d”.</param>
public sealed record CardDto(
    long Id,
    string Title,
    string Words,
    string? Late,
    string Age,
    AgeBand Band,
    Stage Stage,
    Side Side,
    string? Held,
    bool Booked,
    string Client
);

/// <summary>One stage across the six ages.</summary>
public sealed record LaneDto(Stage Stage, string Under, IReadOnlyList<CardDto> Cards);

public sealed record RestingDto(long Id, string Title, string Words);

public sealed record TurnsDto(
    string Summary,
    int Yours,
    IReadOnlyList<LaneDto> Lanes,
    IReadOnlyList<RestingDto> Quiet,
    bool Dense
);

public sealed record TodayCardDto(CardDto Card, string LastWords, bool IsInquiry);

/// <param name="Why">Why it is due.</param>
/// <param name="LastSaid">What the client last said.</param>
/// <param name="Sort">The text it began with, by which several are sent at once, and what that is called.</param>
/// <param name="Problem">Why the mail server refused it.</param>
/// <param name="CanWait">Whether it can be put off.</param>
public sealed record ReadyDto(
    long Letter,
    long Project,
    string To,
    string ProjectTitle,
    string Since,
    string Subject,
    string Preview,
    string Why,
    string? LastSaid,
    string? Gaps,
    string? Sort,
    string? SortName,
    string? Problem,
    bool CanWait
);

/// <param name="When">“11:00 to 11:30”.</param>
public sealed record DayMeetingDto(long Project, long Meeting, string When, string Title, string Detail);

public sealed record ByItselfDto(long Project, string Time, string Title, string Detail);

public sealed record CameInDto(long Project, string Words, string When, bool New);

public sealed record DayTaskDto(long Id, long Project, string Title, string ProjectTitle, string Due, bool Late);

public sealed record UncertainDto(long Project, string Title, string ProjectTitle);

/// <summary>The month's money in one sentence.</summary>
/// <param name="Won">Booked this month, without tax.</param>
/// <param name="Received">Payments of this month, tax included, as all that is owed and paid.</param>
public sealed record MoneyDto(string Month, int Booked, string Won, string Received, string Sent, string Late);

/// <summary>The first look of the day.</summary>
/// <param name="MailProblem">Why the inbox could not be read last.</param>
/// <param name="Troubles">What is wrong with the house: its backup, its files, its keys.</param>
public sealed record TodayDto(
    string Date,
    MoneyDto Money,
    int Yours,
    IReadOnlyList<TodayCardDto> YourTurn,
    IReadOnlyList<ReadyDto> Ready,
    IReadOnlyList<ByItselfDto> ByItself,
    IReadOnlyList<DayTaskDto> Tasks,
    IReadOnlyList<CameInDto> CameIn,
    int CameInMore,
    string CameInSince,
    IReadOnlyList<UncertainDto> Uncertain,
    int Tray,
    IReadOnlyList<AskedDto> Asked,
    IReadOnlyList<DayMeetingDto> Meetings,
    string? MailProblem,
    IReadOnlyList<string> Troubles
);
