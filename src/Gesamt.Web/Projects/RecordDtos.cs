using Gesamt.Core.Stages;
using Gesamt.Core.Turns;

namespace Gesamt.Web.Projects;

/// <summary>Sorts of entries on the line, that can be hidden and shown.</summary>
public enum EntrySort { Letters, Papers, Money, Tasks, Notes, Steps }

/// <summary>Where an entry comes from, which is how it is drawn.</summary>
public enum EntryFrom { Done, Client, Note }

/// <summary>What opens in the reader: its sort and number.</summary>
public enum OpensWhat { Answers, Letter, Note, Proposal, Contract, Invoice }

public sealed record OpensDto(OpensWhat What, long Id);

/// <summary>Something that happened.</summary>
/// <param name="Exact">Date, time and zone in full.</param>
public sealed record EntryDto(long Id, string Day, string Time, string Exact, EntrySort Sort, EntryFrom From, string Title, string Detail, OpensDto? Opens);

/// <summary>Something planned.</summary>
/// <param name="Mark">“asks first”, “by itself”, “task”, “waits for your OK”.</param>
public sealed record AheadDto(string Key, string Day, string Time, EntrySort Sort, string Title, string Detail, string Mark, bool Held, long? TaskId, OpensDto? Opens);

/// <summary>A gate with its evidence, or what it still lacks.</summary>
public sealed record GateDto(Gate Gate, bool Closed, bool Now, string Evidence, string Detail, IReadOnlyList<string> Lacks);

public sealed record TurnDto(Side Side, WaitKind Waits, string Words, string Age, string AgeLong, string? Until);

public sealed record MoneyLineDto(string Label, string Amount);

/// <param name="PaidShare">Paid part of the agreed price, per cent, for the bar alone.</param>
public sealed record SheetMoneyDto(int PaidShare, IReadOnlyList<MoneyLineDto> Lines);

public sealed record SheetTaskDto(long Id, string Title, string Due, bool Late);

public sealed record PersonDto(string Name, string? Organisation, string? Mail, string? Phone);

public sealed record FileDto(string Name, string Address);

/// <summary>One project as the owner sees it.</summary>
public sealed record RecordDto(
    long Id, string Title, string Kind, PersonDto Client, string? Source, string MainDateName, string? MainDate, string? MainDateDistance,
    Stage Stage, string? Ended, bool Booked, TurnDto Turn, IReadOnlyList<GateDto> Gates, IReadOnlyList<EntryDto> Line, IReadOnlyList<AheadDto> Ahead,
    SheetMoneyDto? Money, IReadOnlyList<SheetTaskDto> Tasks, IReadOnlyList<FileDto> Papers, IReadOnlyList<AnswerDto> Brief, IReadOnlyList<HappenedSort> CanHappen, string ReplyAddress, bool WaitsForAddress);

public sealed record AnswerDto(string Question, string Text);

/// <summary>What the owner can say happened.</summary>
public enum HappenedSort { Fit, NotAFit, Countersign, Call, NoAnswerNeeded, HandedOver, Approved, Rest, GoOn, GoneQuiet, Lost, NotAnInquiry, TakenUp }
