using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>What stands beside the days: tasks without a day, by when they are due; all of them by project; or those that were done.</summary>
public enum BesideShow
{
    Due,
    Project,
    Done,
}

/// <summary>Why something is named in a day without being work of it.</summary>
public enum DayNoteSort
{
    /// <summary>Goes out by itself.</summary>
    ByItself,

    /// <summary>Will ask for an OK.</summary>
    Asks,

    /// <summary>Falls due.</summary>
    Due,

    /// <summary>A date that matters.</summary>
    Date,
}

/// <summary>How full a day is, as its head shows it.</summary>
/// <param name="Words">“6 h 30 min of 7 h”; empty where nothing is open nor planned.</param>
/// <param name="Share">Planned of open, per cent, 100 at most.</param>
/// <param name="Over">“2 h too much”; empty where it is not.</param>
/// <param name="Unsaid">“1 task says no hours”; empty where each says them.</param>
public sealed record DayLoadDto(string Words, int Share, string Over, string Unsaid);

/// <summary>A day at the head of its column.</summary>
/// <param name="Name">“Mon 25”.</param>
/// <param name="Full">“Monday 25 January”.</param>
public sealed record WeekDayDto(LocalDate Day, string Name, string Full, bool IsToday, bool IsClosed, DayLoadDto Load);

/// <summary>A meeting, an appointment of one's own, or a time taken in another calendar.</summary>
/// <param name="Words">“Call, Oona Pettigrew”.</param>
/// <param name="Of">The project's title; empty for one's own.</param>
/// <param name="Appointment">One's own, by its number.</param>
public sealed record WeekMeetingDto(
    LocalDate Day,
    string Time,
    string Words,
    string Of,
    long? Project,
    int? Appointment
);

/// <summary>A task in a day, or beside the days.</summary>
/// <param name="Day">The day it stands on; null beside.</param>
/// <param name="Estimate">“5 h”; empty where nobody said.</param>
/// <param name="Due">“due Fri 29 Jan”, “2 days late”; empty without a day.</param>
public sealed record PlannedTaskDto(
    long Id,
    long Project,
    string Title,
    LocalDate? Day,
    string Estimate,
    string Due,
    TaskMarksDto Marks
);

/// <param name="Late">Its due day is over.</param>
/// <param name="Left">Its working day is over.</param>
/// <param name="Where">Its project, where that is not said beside it already.</param>
public sealed record TaskMarksDto(bool Done, bool Late, bool Left, string Where);

/// <summary>Something named in a day.</summary>
public sealed record DayNoteDto(LocalDate Day, DayNoteSort Sort, string Words);

/// <summary>A project that has something in the week.</summary>
/// <param name="Under">“5 h, opening day in 46 days”.</param>
public sealed record WeekRowDto(
    long Project,
    string Title,
    string Under,
    IReadOnlyList<PlannedTaskDto> Tasks,
    IReadOnlyList<DayNoteDto> Notes
);

/// <summary>Tasks that belong together.</summary>
/// <param name="Name">“Due in this week”, or a project.</param>
public sealed record TaskGroupDto(string Name, int Count, IReadOnlyList<PlannedTaskDto> Tasks);

/// <summary>A slip in the tray.</summary>
public sealed record TrayLineDto(int Id, string Text);

/// <summary>What stands beside the days.</summary>
/// <param name="Count">How many tasks in all.</param>
/// <param name="More">How many of them are left out.</param>
/// <param name="InTray">How much lies in the tray; the newest are shown.</param>
public sealed record BesideDto(
    BesideShow Show,
    int Count,
    IReadOnlyList<TaskGroupDto> Groups,
    int More,
    IReadOnlyList<TrayLineDto> Tray,
    int InTray
);

/// <summary>Where one can go from here.</summary>
public sealed record AroundDto(LocalDate Last, LocalDate Present, LocalDate Next);

/// <summary>One week as a timetable.</summary>
/// <param name="Title">“25 to 31 January”.</param>
/// <param name="Load">“27 h planned of 33 h open. Tuesday holds 2 h too much.”</param>
public sealed record WeekDto(
    string Title,
    string Load,
    AroundDto Around,
    IReadOnlyList<WeekDayDto> Days,
    IReadOnlyList<WeekMeetingDto> Meetings,
    IReadOnlyList<WeekRowDto> Rows,
    BesideDto Beside
);

/// <summary>Something in a day of a month.</summary>
/// <param name="Sort">Null for a task.</param>
public sealed record MonthEntryDto(string Words, DayNoteSort? Sort, long? Project, bool Done);

/// <summary>A day of a month.</summary>
/// <param name="IsOfMonth">Whether it is a day of this month, or of one beside it.</param>
/// <param name="More">How many entries are left out.</param>
public sealed record MonthDayDto(
    WeekDayDto Head,
    bool IsOfMonth,
    IReadOnlyList<WeekMeetingDto> Meetings,
    IReadOnlyList<MonthEntryDto> Entries,
    int More
);

/// <summary>A month by its weeks, seven days each.</summary>
public sealed record MonthDto(string Title, string Load, AroundDto Around, IReadOnlyList<MonthDayDto> Days);
