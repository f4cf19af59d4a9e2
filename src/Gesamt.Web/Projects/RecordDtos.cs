using Gesamt.Core.Facts;
using Gesamt.Core.People;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Formats.Files;
using Gesamt.Web.Briefs;
using Gesamt.Web.Lists;
using Gesamt.Web.Meetings;
using Gesamt.Web.People;
using Gesamt.Web.Recurring;
using Gesamt.Web.Words;
using Gesamt.Web.Work;
using NodaTime;

namespace Gesamt.Web.Projects;

/// <summary>When something happened, in the studio's time.</summary>
/// <param name="Exact">Date, time and zone in full.</param>
public sealed record EntryAtDto(string Day, string Time, string Exact);

/// <summary>Something that happened.</summary>
public sealed record EntryDto(
    long Id,
    EntryAtDto At,
    EntrySort Sort,
    EntryFrom From,
    string Title,
    string Detail,
    OpensDto? Opens
);

/// <summary>Something planned.</summary>
/// <param name="Day">Its day in words, or why it has none; with the time, where it has one.</param>
public sealed record AheadDto(
    string Key,
    string Day,
    string Time,
    EntrySort Sort,
    string Title,
    string Detail,
    AheadActsDto Acts
);

/// <summary>What something planned does, and what can be done with it.</summary>
/// <param name="Mark">“asks first”, “by itself”, “task”, “waits for your OK”.</param>
/// <param name="Step">The step it is, so that its day can be fixed by hand.</param>
/// <param name="Goes">A letter on its way that can still be taken back.</param>
public sealed record AheadActsDto(
    string Mark,
    bool Held = false,
    long? TaskId = null,
    OpensDto? Opens = null,
    AheadStepDto? Step = null,
    long? Goes = null
);

/// <param name="At">When it acts, in the studio's time.</param>
public sealed record AheadStepDto(long Run, string Step, int Occurrence, LocalDateTime? At, bool Fixed);

/// <summary>A kind's own step inside a gate.</summary>
/// <param name="Reached">The day it was reached; null while it lies ahead.</param>
public sealed record MilestoneDto(string Name, string? Reached);

/// <summary>A gate with its evidence, or what it still lacks.</summary>
/// <param name="Name">What the kind calls it.</param>
public sealed record GateDto(
    Gate Gate,
    string Name,
    bool Closed,
    bool Now,
    string Evidence,
    string Detail,
    IReadOnlyList<string> Lacks,
    IReadOnlyList<MilestoneDto> Milestones
);

/// <summary>Whose turn it is. Age: short and long; until: when nobody need act before.</summary>
/// <param name="Nudged">“nudged twice”.</param>
public sealed record TurnDto(
    Side Side,
    WaitKind Waits,
    string Words,
    string Age,
    string AgeLong,
    string? Nudged,
    string? Until
);

/// <summary>A figure with its name.</summary>
public sealed record MoneyLineDto(string Label, string Amount);

/// <param name="PaidShare">Paid part of the agreed price, per cent, for the bar alone; null where none is agreed.</param>
/// <param name="Recurring">Invoices that come again.</param>
/// <param name="Kept">What the client keeps to be charged for them; null for nothing.</param>
public sealed record SheetMoneyDto(
    int? PaidShare,
    IReadOnlyList<MoneyLineDto> Lines,
    IReadOnlyList<RecurringDto> Recurring,
    ChargedMeansDto? Kept
);

/// <summary>A paper of the project.</summary>
/// <param name="About">Where it stands: “valid until 12 March, opened twice”.</param>
/// <param name="File">Its file; null for one that is read on a page.</param>
/// <param name="Version">The proposal to read; null for what is a file.</param>
/// <param name="Contract">What can be done with it, for a contract that is not void.</param>
public sealed record SheetPaperDto(
    string Name,
    string About,
    string? File,
    long? Version,
    SheetContractDto? Contract = null
);

/// <summary>A contract that can be voided.</summary>
/// <param name="CanReplace">Whether another can be put in its place.</param>
public sealed record SheetContractDto(long Version, bool CanReplace);

/// <summary>An open task, in the order of its day.</summary>
/// <param name="Due">Its day in words; empty for one without.</param>
/// <param name="Counted">What its day is counted from.</param>
/// <param name="About">What else is known of it in few words: “2 of 5 parts, 3 h, worked on Fri 12 March”.</param>
/// <param name="Offered">Its place among the open tasks as they are offered, from 0.</param>
/// <param name="Kept">The task as it is kept.</param>
public sealed record SheetTaskDto(
    long Id,
    string Due,
    bool Late,
    string? Counted,
    string About,
    int Offered,
    TaskDto Kept
);

/// <summary>A task that is done, and since when.</summary>
public sealed record DoneTaskDto(long Id, string Title, string Done, bool IsClients);

/// <summary>The tasks of a project.</summary>
/// <param name="Done">The last one done first.</param>
/// <param name="Progress">“3 of 8 done, 38 %”; null without a task.</param>
/// <param name="Lists">The lists they stand in, each as it was begun.</param>
public sealed record TasksDto(
    IReadOnlyList<SheetTaskDto> Open,
    IReadOnlyList<DoneTaskDto> Done,
    string? Progress,
    IReadOnlyList<string> Lists
);

/// <param name="Since">Since when it stands so, or when its last task is due.</param>
/// <param name="Days">How many days it usually takes; null where that is not said.</param>
public sealed record PhaseRowDto(string Name, PhaseState State, string Since, int? Days);

/// <param name="About">Whose it is, how large, since when.</param>
/// <param name="Shown">Whether the client may see it.</param>
public sealed record KeptFileDto(
    long Id,
    string Name,
    FileGroup Group,
    string? Phase,
    string About,
    string Use,
    bool Shown,
    FileLook Look
);

/// <param name="Next">The number the next round would have.</param>
/// <param name="Open">The round that is with the client.</param>
public sealed record RoundsDto(int Next, int Agreed, long? Open, string? OpenWords);

/// <param name="Since">Since when it is open; null while it is not.</param>
public sealed record PagePartDto(PagePart Part, string? Since);

/// <param name="Invoices">Those with something open, for a payment that came by hand.</param>
/// <param name="Ahead">What is not invoiced of the agreed price, where nothing is open.</param>
public sealed record ToPayDto(IReadOnlyList<OpenInvoiceDto> Invoices, string? Ahead);

/// <summary>An invoice with something owed on it.</summary>
public sealed record OpenInvoiceDto(long Id, string Words, string Owed);

/// <summary>Somebody who has a part in the project.</summary>
public sealed record PersonDto(
    long Id,
    string Name,
    string? Organisation,
    string? Mail,
    string? Phone,
    string? Profile,
    bool HasPicture
);

/// <summary>Somebody with a part in the project.</summary>
public sealed record PartOfPersonDto(long Person, string Name, string? Reach, PersonPart Part, string Words);

/// <summary>A file of an entry, with where it is opened.</summary>
public sealed record FileDto(string Name, string Address, FileLook Look);

/// <summary>The date that matters, or another of its dates.</summary>
/// <param name="Name">What it is called: “Opening day”.</param>
/// <param name="Words">“Fri 19 Feb”; null while it is not known.</param>
/// <param name="Distance">“in 25 days”.</param>
public sealed record MainDateDto(string Name, LocalDate? Day, string? Words, string? Distance);

/// <summary>Another project of the same client, and where it stands.</summary>
/// <param name="Together">Whether the client finds it from this one's page.</param>
public sealed record OtherProjectDto(long Id, string Title, string Stands, bool Together);

/// <summary>A kind a project is of besides its leading one.</summary>
public sealed record FurtherKindDto(long Id, string Name);

/// <summary>The head: what it is, for whom, when.</summary>
/// <param name="RehearsalClock">A rehearsal's own time; null for a real project.</param>
/// <param name="Dates">Its other dates, by day; what something waits for without being known stands last.</param>
/// <param name="Others">The client's other projects, the newest first.</param>
/// <param name="Erased">The day on which its client was erased; null where they were not.</param>
public sealed record RecordHeadDto(
    string Title,
    string Kind,
    IReadOnlyList<FurtherKindDto> FurtherKinds,
    PersonDto Client,
    string? Source,
    string? Campaign,
    MainDateDto Date,
    string? RehearsalClock,
    IReadOnlyList<OtherProjectDto> Others,
    IReadOnlyList<MainDateDto> Dates,
    string? Erased
);

/// <param name="Ends">Whether the project is over with it.</param>
public sealed record CanHappenDto(HappenedSort Sort, bool Ends);

/// <summary>What the owner can say happened, and what is proposed where a price goes with it.</summary>
/// <param name="Tax">Per cent, as the kind's services have it.</param>
/// <param name="OnBooking">The share of the price that is due on booking, per cent.</param>
/// <param name="Milestones">The kind's own steps that the owner can say are reached.</param>
/// <param name="Owner">By whose name the owner signs.</param>
public sealed record HappenDto(
    IReadOnlyList<CanHappenDto> Can,
    string Tax,
    string OnBooking,
    IReadOnlyList<string> Milestones,
    string Owner
);

/// <summary>The gates, where it stands on their path, whose turn it is, and what can have happened now.</summary>
/// <param name="Ended">How it ended without being finished.</param>
public sealed record RecordPathDto(
    Stage Stage,
    string? Ended,
    bool Booked,
    bool PutAway,
    TurnDto Turn,
    IReadOnlyList<GateDto> Gates,
    HappenDto Happen,
    IReadOnlyList<NextAct> Next
);

/// <summary>The line: what happened, and what is planned.</summary>
public sealed record RecordLineDto(IReadOnlyList<EntryDto> Past, IReadOnlyList<AheadDto> Ahead);

/// <summary>The work: phases, files and rounds of review.</summary>
/// <param name="Checklists">How far the checklists are that were begun: “5 of 6 answered”; empty for none.</param>
public sealed record WorkDto(
    IReadOnlyList<PhaseRowDto> Phases,
    IReadOnlyList<KeptFileDto> Files,
    RoundsDto Rounds,
    bool CanHandOver,
    string Checklists
);

/// <summary>The client's page: which parts are open, and whether its link was ended.</summary>
public sealed record PageDto(IReadOnlyList<PagePartDto> Parts, bool LinkEnded);

/// <param name="Offered">What the client is offered to choose a time for.</param>
public sealed record RecordMeetingsDto(IReadOnlyList<MeetingDto> All, string? Offered);

/// <summary>The sheet beside the line.</summary>
/// <param name="CanAmend">Whether what is agreed can be changed by an amendment now.</param>
/// <param name="Spent">Hours and costs in one line; null without any.</param>
public sealed record SheetDto(
    SheetMoneyDto? Money,
    ToPayDto ToPay,
    TasksDto Tasks,
    IReadOnlyList<SheetPaperDto> Papers,
    bool CanAmend,
    WorkDto Work,
    PageDto Page,
    RecordMeetingsDto Meetings,
    string? Spent,
    string? Praise,
    string? RunSheet,
    IReadOnlyList<ListLineDto> Lists,
    AccessListDto Access
);

/// <summary>What is known of the project: answers, details, the brief.</summary>
/// <param name="Matches">Who the client of an inquiry could be already.</param>
public sealed record AboutDto(
    IReadOnlyList<AnswerDto> Answers,
    IReadOnlyList<DetailDto> Details,
    BriefDto Brief,
    IReadOnlyList<string> Labels,
    IReadOnlyList<MatchDto> Matches
);

/// <summary>Who has a part in it, and how letters reach them.</summary>
/// <param name="BadAddress">The address that no letter can be written to.</param>
public sealed record InvolvedDto(
    IReadOnlyList<PartOfPersonDto> People,
    string ReplyAddress,
    bool WaitsForAddress,
    string? BadAddress
);

/// <summary>One project as the owner sees it, by the places of its page.</summary>
public sealed record RecordDto(
    long Id,
    RecordHeadDto Head,
    RecordPathDto Path,
    RecordLineDto Line,
    SheetDto Sheet,
    AboutDto About,
    InvolvedDto Involved
);
