using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Web.Work;

/// <summary>A task as it is kept.</summary>
/// <param name="Due">Its day; null for one without.</param>
/// <param name="DoneBy">What fulfils it when it happens; null where only a tick does.</param>
/// <param name="Plan">How it is planned; null leaves that as it is.</param>
/// <param name="Words">What there is to say of it; null leaves that as it is.</param>
/// <param name="IsClients">Whether the client does it; null leaves that as it is.</param>
/// <param name="Edition">The one that was changed; null takes whatever is there.</param>
public sealed record TaskDto(
    string Title,
    LocalDate? Due,
    string? Phase,
    Fulfilment? DoneBy = null,
    TaskPlanDto? Plan = null,
    TaskWordsDto? Words = null,
    bool? IsClients = null,
    int? Edition = null
);

/// <summary>How a task is planned.</summary>
/// <param name="WorkOn">The day it is worked on; no due date changes with it.</param>
/// <param name="Estimate">As people write it: “3 h”, “45 min”; empty for none.</param>
/// <param name="Importance">1 to 3, 3 is high.</param>
/// <param name="Effort">1 to 3, 3 is much; null goes by the estimate.</param>
/// <param name="List">The list it stands in; empty for none.</param>
public sealed record TaskPlanDto(LocalDate? WorkOn, string Estimate, int? Importance, int? Effort, string List);

/// <summary>What there is to say of a task.</summary>
/// <param name="Finished">What counts as finished.</param>
public sealed record TaskWordsDto(string Description, string Finished, TaskStep[] Steps);

/// <summary>Which part of a task is done, by its place.</summary>
public sealed record TaskStepDoneDto(int Step, bool Done);

/// <summary>The day a task is worked on; null for none.</summary>
public sealed record TaskDayDto(LocalDate? Day);

/// <summary>How long a task will take, as people write it; empty for nothing said.</summary>
public sealed record TaskEstimateDto(string Estimate);

/// <summary>The number of a task just made.</summary>
public sealed record TaskMadeDto(long Id);

/// <summary>Whether it is done.</summary>
public sealed record TaskDoneDto(bool Done);

/// <summary>A task of a list, with its distance to the date that matters.</summary>
/// <param name="DoneBy">What fulfils it when it happens.</param>
public sealed record ListedTask(
    string Title,
    Span Offset,
    string? Phase = null,
    Fulfilment? DoneBy = null,
    ListedMore? More = null
);

/// <summary>What else a task of a list brings along.</summary>
/// <param name="Finished">What counts as finished.</param>
/// <param name="IsClients">The client does it.</param>
public sealed record ListedMore(
    int? Minutes = null,
    int? Importance = null,
    int? Effort = null,
    string Description = "",
    string Finished = "",
    string[]? Steps = null,
    bool IsClients = false
);

/// <summary>A list to be laid on a project.</summary>
/// <param name="Leave">Places in it that do not apply.</param>
public sealed record LayListDto(string List, int[] Leave);

/// <summary>Lists that are laid together, in this order.</summary>
public sealed record LayListsDto(LayListDto[] Lists);

/// <summary>A task as it would stand on the project.</summary>
/// <param name="Day">“Fri 12 March”; null while the date that matters is not known.</param>
/// <param name="Counted">“60 days before the opening day”.</param>
/// <param name="Late">Its day is over already.</param>
public sealed record LaidTaskDto(string Title, string? Day, string Counted, bool Late, bool IsClients);

/// <summary>A list as it would stand on the project.</summary>
public sealed record LaidListDto(string Key, string Name, IReadOnlyList<LaidTaskDto> Tasks);
