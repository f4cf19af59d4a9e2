using Gesamt.Core.Facts;
using Gesamt.Core.People;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Web.Briefs;
using Gesamt.Web.Meetings;
using Gesamt.Web.People;
using Gesamt.Web.Words;
using NodaTime;

namespace Gesamt.Web.Projects;

/// <summary>Something that happened.</summary>
/// <param name="Exact">Date, time and zone in full.</param>
public sealed record EntryDto(
    long Id,
    string Day,
    string Time,
    string Exact,
    EntrySort Sort,
    EntryFrom From,
    string Title,
    string Detail,
    OpensDto? Opens
);

/// <summary>Something planned.</summary>
/// <param name="Mark">“asks first”, “by itself”, “task”, “waits for your OK”.</param>
/// <param name="Step">The step it is, so that its day can be fixed by hand.</param>
/// <param name="Goes">A letter on its way that can still be taken back.</param>
public sealed record AheadDto(
    string Key,
    string Day,
    string Time,
    EntrySort Sort,
    string Title,
    string Detail,
    string Mark,
    bool Held,
    long? TaskId,
    OpensDto? Opens,
    AheadStepDto? Step = null,
    long? Goes = null
);

/// <param name="At">When it acts, in the studio's time.</param>
public sealed record AheadStepDto(long Run, string Step, int Occurrence, LocalDateTime? At, bool Fixed);

/// <summary>A gate with its evidence, or what it still lacks.</summary>
public sealed record GateDto(
    Gate Gate,
    bool Closed,
    bool Now,
    string Evidence,
    string Detail,
    IReadOnlyList<string> Lacks
);

public sealed record TurnDto(Side Side, WaitKind Waits, string Words, string Age, string AgeLong, string? Until);

public sealed record MoneyLineDto(string Label, string Amount);

/// <param name="PaidShare">Paid part of the agreed price, per cent, for the bar alone.</param>
public sealed record SheetMoneyDto(int PaidShare, IReadOnlyList<MoneyLineDto> Lines);

/// <param name="Due">Its day in words; empty for one without.</param>
/// <param name="Counted">What its day is counted from.</param>
public sealed record SheetTaskDto(
    long Id,
    string Title,
    string Due,
    LocalDate? Day,
    bool Late,
    string? Phase,
    string? Counted,
    bool Fixed
);

/// <param name="Since">Since when it stands so, or when its last task is due.</param>
public sealed record PhaseRowDto(string Name, PhaseState State, string Since);

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
    bool HasPreview
);

/// <param name="Next">The number the next round would have.</param>
/// <param name="Open">The round that is with the client.</param>
public sealed record RoundsDto(int Next, int Agreed, long? Open, string? OpenWords);

/// <param name="Since">Since when it is open; null while it is not.</param>
public sealed record PagePartDto(PagePart Part, string? Since);

/// <param name="Invoices">Those with something open, for a payment that came by hand.</param>
/// <param name="Ahead">What is not invoiced of the agreed price, where nothing is open.</param>
public sealed record ToPayDto(IReadOnlyList<OpenInvoiceDto> Invoices, string? Ahead);

public sealed record OpenInvoiceDto(long Id, string Words, string Owed);

public sealed record PersonDto(
    long Id,
    string Name,
    string? Organisation,
    string? Mail,
    string? Phone,
    string? Profile
);

/// <summary>Somebody with a part in the project.</summary>
public sealed record PartOfPersonDto(long Person, string Name, string? Reach, PersonPart Part, string Words);

public sealed record FileDto(string Name, string Address);

/// <summary>One project as the owner sees it.</summary>
/// <param name="RehearsalClock">A rehearsal's own time; null for a real project.</param>
public sealed record RecordDto(
    long Id,
    string Title,
    string Kind,
    PersonDto Client,
    string? Source,
    string MainDateName,
    string? MainDate,
    string? MainDateDistance,
    Stage Stage,
    string? Ended,
    bool Booked,
    TurnDto Turn,
    IReadOnlyList<GateDto> Gates,
    IReadOnlyList<EntryDto> Line,
    IReadOnlyList<AheadDto> Ahead,
    SheetMoneyDto? Money,
    ToPayDto ToPay,
    IReadOnlyList<SheetTaskDto> Tasks,
    IReadOnlyList<PhaseRowDto> Phases,
    IReadOnlyList<KeptFileDto> Files,
    RoundsDto Rounds,
    IReadOnlyList<PagePartDto> Parts,
    bool LinkEnded,
    LocalDate? MainDay,
    bool PutAway,
    bool CanHandOver,
    IReadOnlyList<FileDto> Papers,
    IReadOnlyList<AnswerDto> Brief,
    IReadOnlyList<HappenedSort> CanHappen,
    string ReplyAddress,
    bool WaitsForAddress,
    string? BadAddress,
    IReadOnlyList<PartOfPersonDto> People,
    IReadOnlyList<MatchDto> Matches,
    IReadOnlyList<string> Labels,
    IReadOnlyList<DetailDto> Details,
    BriefDto BriefParts,
    IReadOnlyList<MeetingDto> Meetings,
    string? Offered,
    string? RehearsalClock
);
