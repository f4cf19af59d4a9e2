using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Web.RunSheets;

/// <summary>An item of a run sheet as it is written.</summary>
/// <param name="Key">What it is known by; empty for a new one.</param>
/// <param name="Day">Days after the main day; before it where negative.</param>
/// <param name="Length">As people write it: “1 h 30 min”; empty where it is not said.</param>
/// <param name="Earlier">Minutes that guests are told earlier; the sheet’s own where null.</param>
public sealed record RunItemDto(
    string Key,
    int Day,
    LocalTime Start,
    string Length,
    string What,
    string Where,
    string Who,
    RunFor For,
    int? Earlier = null
);

/// <summary>A day that a sheet has or could have.</summary>
/// <param name="Words">“Friday 10 September 2027”, or “2 days before” while the date is not known.</param>
/// <param name="Short">“Fri 10 Sep”.</param>
public sealed record RunDayDto(int Day, string Words, string Short);

/// <summary>A run sheet as the owner writes it.</summary>
/// <param name="DateName">The named date its main day is.</param>
/// <param name="Dates">The named dates it can be.</param>
/// <param name="MainDay">In words; null while it is not known.</param>
/// <param name="Days">From the first to the last with anything on it.</param>
/// <param name="State">“provisional”, “agreed Mon 25 Jan”.</param>
/// <param name="Changes">What is different since it was agreed.</param>
/// <param name="Items">By day and hour.</param>
public sealed record RunSheetDto(
    int Edition,
    string Project,
    string DateName,
    IReadOnlyList<string> Dates,
    string? MainDay,
    int Earlier,
    IReadOnlyList<RunDayDto> Days,
    IReadOnlyList<RunItemDto> Items,
    string State,
    bool Agreed,
    IReadOnlyList<string> Changes
);

/// <summary>A run sheet as it is saved, upon what was read as this edition.</summary>
public sealed record SaveRunSheetDto(int Edition, string DateName, int Earlier, RunItemDto[] Items);

/// <summary>A day of a copy.</summary>
public sealed record CopiedDayDto(string Words, IReadOnlyList<CopiedLineDto> Lines);

/// <param name="Until">When it ends; empty where that is not said.</param>
/// <param name="Guests">The earlier time guests are told; empty for the same.</param>
/// <param name="For">Whom it is for, in words.</param>
public sealed record CopiedLineDto(
    string Time,
    string Until,
    string What,
    string Where,
    string Who,
    string For,
    string Guests
);

/// <summary>A run sheet to be laid, with the days it would have here.</summary>
public sealed record LaidSheetDto(string Key, string Name, IReadOnlyList<CopiedDayDto> Days);

/// <summary>Which one is laid.</summary>
public sealed record LayRunSheetDto(string Key, int Edition);

/// <summary>A run sheet kept to be laid again.</summary>
public sealed record RunSheetTemplateDto(string Key, string Name, int Edition, IReadOnlyList<RunItemDto> Items);

/// <summary>What one is known by.</summary>
public sealed record RunSheetKeyDto(string Key);

/// <summary>One as it is saved.</summary>
public sealed record SaveRunSheetTemplateDto(string Name, int Edition, RunItemDto[] Items);

/// <summary>A run sheet as its client reads it.</summary>
/// <param name="Hash">Of what they read, so that nobody agrees to what has changed meanwhile.</param>
/// <param name="Agreed">Since when it is agreed; null while it is provisional.</param>
/// <param name="Changes">What is different since it was agreed.</param>
public sealed record ShownRunSheetDto(
    IReadOnlyList<CopiedDayDto> Days,
    string Hash,
    string? Agreed,
    IReadOnlyList<string> Changes
);

/// <summary>The client’s word that it is right.</summary>
public sealed record AgreeRunSheetDto(string Hash);
