using Gesamt.Core.Calendar;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Lists;
using Gesamt.Web.Planning;
using Gesamt.Web.Routines;

namespace Gesamt.Web.Turns;

/// <summary>A project on Turns or Today.</summary>
/// <param name="Words">The reason and next act.</param>
/// <param name="Late">Said in bold: how late its money is.</param>
/// <param name="Nudged">“nudged twice”, beside the age.</param>
/// <param name="Held">“Waits for your OK, 2 d”.</param>
public sealed record CardDto(
    long Id,
    string Title,
    string Words,
    string? Late,
    string Age,
    string? Nudged,
    AgeBand Band,
    Stage Stage,
    Side Side,
    string? Held,
    bool Booked,
    string Client
);

/// <summary>One stage across the six ages.</summary>
public sealed record LaneDto(Stage Stage, string Under, IReadOnlyList<CardDto> Cards);

/// <summary>A project that rests.</summary>
public sealed record RestingDto(long Id, string Title, string Words);

/// <summary>What the columns of ages are called.</summary>
public sealed record AgesDto(string Fresh, string Waiting, string Old);

/// <summary>All open projects by stage and age.</summary>
/// <param name="Longest">The projects in the order of their waiting, the longest first.</param>
public sealed record TurnsDto(
    string Summary,
    int Yours,
    AgesDto Ages,
    IReadOnlyList<LaneDto> Lanes,
    IReadOnlyList<RestingDto> Quiet,
    bool Dense,
    IReadOnlyList<long> Longest
);

/// <summary>A card of Today with what the client last said.</summary>
public sealed record TodayCardDto(CardDto Card, string LastWords, bool IsInquiry);

/// <summary>Whom a held letter is for.</summary>
public sealed record HeldForDto(long Project, string Title, string To);

/// <param name="Preview">The beginning of its text.</param>
/// <param name="Problem">Why the mail server refused it.</param>
public sealed record HeldTextDto(string Subject, string Preview, string? Gaps, string? Problem);

/// <summary>The text a letter began with, by which several are sent at once, and what that is called.</summary>
public sealed record SameSortDto(string Key, string Name);

/// <summary>A letter that waits for an OK.</summary>
/// <param name="Why">Why it is due.</param>
/// <param name="LastSaid">What the client last said.</param>
/// <param name="CanWait">Whether it can be put off.</param>
public sealed record ReadyDto(
    long Letter,
    HeldForDto For,
    string Since,
    HeldTextDto Text,
    string Why,
    string? LastSaid,
    SameSortDto? Sort,
    bool CanWait
);

/// <summary>A meeting of the day; without a project it is an appointment of one's own.</summary>
/// <param name="When">“11:00 to 11:30”; before today with its day.</param>
/// <param name="IsOver">Its time is over, and nobody has said whether it was held.</param>
public sealed record DayMeetingDto(long? Project, long Meeting, string When, string Title, string Detail, bool IsOver);

/// <summary>What will leave the house today without asking.</summary>
public sealed record ByItselfDto(long Project, string Time, string Title, string Detail);

/// <summary>What a client did.</summary>
public sealed record CameInDto(long Project, string Words, string When, bool New);

/// <summary>A task of the day.</summary>
public sealed record DayTaskDto(long Id, long Project, string Title, string ProjectTitle, string Due, bool Late);

/// <summary>A letter of which nobody knows whether it went out, or that could not be handed over yet.</summary>
public sealed record UncertainDto(long Project, string Title, string ProjectTitle);

/// <summary>The month's money in one sentence.</summary>
/// <param name="Won">Booked this month, without tax.</param>
/// <param name="Received">Payments of this month, tax included, as all that is owed and paid.</param>
public sealed record MoneyDto(string Month, int Booked, string Won, string Received, string Sent, string Late);

/// <summary>What waits for the owner; its count is that of the bar and of Turns.</summary>
public sealed record YourTurnDto(int Count, IReadOnlyList<TodayCardDto> Cards);

/// <summary>What waits for an OK, and what leaves by itself.</summary>
/// <param name="MailProblem">Why the inbox could not be read last.</param>
/// <param name="Troubles">What is wrong with the house: its backup, its files, its keys.</param>
public sealed record ReadyToGoDto(
    IReadOnlyList<ReadyDto> Letters,
    IReadOnlyList<AskedDto> Asked,
    IReadOnlyList<ByItselfDto> ByItself,
    IReadOnlyList<UncertainDto> Uncertain,
    string? MailProblem,
    IReadOnlyList<string> Troubles
);

/// <summary>What came in since the last look; what is new is marked.</summary>
public sealed record CameInListDto(IReadOnlyList<CameInDto> Newest, int More, string Since);

/// <summary>What of it is looked for.</summary>
public enum CameInSort
{
    Inquiries,
    Letters,
    Papers,
    Money,
    Work,
    Meetings,
}

/// <summary>What clients did on one day.</summary>
public sealed record CameInDayDto(string Day, IReadOnlyList<CameInDto> Entries);

/// <summary>What clients did, day by day, the last first.</summary>
/// <param name="Next">How many to leave out for those before them; null where there are none.</param>
public sealed record CameInPageDto(IReadOnlyList<CameInDayDto> Days, int? Next);

/// <summary>A note that the owner wants in sight.</summary>
public sealed record PinnedNoteDto(long Note, long Project, string Title, string Text);

/// <summary>How full the week is, and each of its days; the same as in Week.</summary>
public sealed record WeekLoadDto(string Words, IReadOnlyList<WeekDayDto> Days);

/// <summary>Meetings and tasks of the day, what came in, and how much lies in the tray.</summary>
public sealed record DayDto(
    WeekLoadDto Load,
    IReadOnlyList<DayMeetingDto> Meetings,
    IReadOnlyList<DayTaskDto> Tasks,
    IReadOnlyList<DueStepDto> Steps,
    CameInListDto CameIn,
    int Tray,
    IReadOnlyList<PinnedNoteDto> Pinned
);

/// <summary>The first look of the day, by its columns.</summary>
/// <param name="FirstSteps">Of a new studio: what is still to be looked at.</param>
public sealed record TodayDto(
    string Date,
    IReadOnlyList<FirstStepDto> FirstSteps,
    MoneyDto Money,
    YourTurnDto YourTurn,
    ReadyToGoDto Ready,
    DayDto Day
);
