namespace Gesamt.Web.Spent;

/// <summary>The one clock.</summary>
/// <param name="Off">No hours are kept in this studio.</param>
/// <param name="Asked">What ran for so long that it is asked about.</param>
public sealed record WorkClockDto(bool Off, ClockRunDto? Runs, IReadOnlyList<ClockAskedDto> Asked);

/// <summary>What the clock runs for.</summary>
/// <param name="What">The task, or the words that go with it; empty for neither.</param>
/// <param name="Minutes">How long it has been running.</param>
public sealed record ClockRunDto(long Project, string ProjectTitle, long? Task, string What, string Since, int Minutes);

/// <summary>A clock that ran for too long to be believed.</summary>
/// <param name="Ran">“23 h 10 min, from Mon 25 January, 9:00, to Tue 26 January, 8:10”.</param>
public sealed record ClockAskedDto(int Id, long Project, string ProjectTitle, string What, string Ran);

/// <summary>What the clock is started for; whatever it ran for before is stopped.</summary>
/// <param name="Task">Null for the project as a whole.</param>
public sealed record StartClockDto(long Project, long? Task, string Words);

/// <summary>The clock was stopped, or changed over.</summary>
/// <param name="Kept">“Kept: 1 h 15 min for Harbour Lane Bakery”; empty when nothing was kept.</param>
/// <param name="Hours">The hours that were kept.</param>
public sealed record ClockStoppedDto(WorkClockDto Clock, string Kept, long Project, long[] Hours);

/// <summary>How long was really worked.</summary>
/// <param name="Time">As people write it; empty keeps all the time it ran.</param>
/// <param name="Drop">Nothing was worked.</param>
public sealed record ClockAnswerDto(string Time, bool Drop);
