using Gesamt.Core.Facts;
using Gesamt.Core.Work;

namespace Gesamt.Web.Lists;

/// <param name="Key">What its cells are kept under; empty for a new column.</param>
/// <param name="Choices">Of a column that holds one of them.</param>
/// <param name="Sum">Whether its numbers or amounts are added up below.</param>
/// <param name="Step">Whether its dates show in the week until they are done.</param>
public sealed record ListColumnDto(
    string Key,
    string Name,
    ColumnSort Sort,
    IReadOnlyList<string> Choices,
    bool Sum,
    bool Step
);

/// <param name="Text">As a field holds it.</param>
/// <param name="Words">As it is read.</param>
public sealed record ListCellDto(string Text, string Words);

/// <summary>A row, a picture with its words, or a paragraph.</summary>
/// <param name="Cells">In the order of the columns; one, its words, for a picture and a paragraph.</param>
/// <param name="Picture">The file's name; null for what is no picture.</param>
/// <param name="Mark">What a client did to it that the owner has not seen: “added by Nora Byrne, today 10:30”; null for nothing, and for clients.</param>
public sealed record ListEntryDto(
    string Key,
    int Edition,
    IReadOnlyList<ListCellDto> Cells,
    bool Struck,
    string? Picture,
    string? Mark
);

/// <param name="Column">Its key.</param>
/// <param name="Words">“€ 1,240.00 and GBP 20.00”.</param>
public sealed record ListSumDto(string Column, string Words);

/// <summary>A list as its owner and its client read it.</summary>
/// <param name="Edits">Whether who reads it may change it now.</param>
/// <param name="State">Of a board: “put to the client”, “approved Mon 25 Jan”; empty while it is collected.</param>
/// <param name="Hash">Of the board to be approved; null where there is nothing to approve.</param>
public sealed record ListDto(
    string Id,
    string Name,
    ListSort Sort,
    bool Edits,
    IReadOnlyList<ListColumnDto> Columns,
    IReadOnlyList<ListEntryDto> Entries,
    IReadOnlyList<ListSumDto> Sums,
    string State,
    string? Hash
);

/// <summary>What a client changed, newest first.</summary>
/// <param name="Words">“Nora Byrne struck out “Green wall”, today 10:30”.</param>
public sealed record ListChangeDto(long Id, string Words);

/// <summary>A list as its owner works on it.</summary>
/// <param name="ProjectId">Null where it is kept to be laid.</param>
/// <param name="IsOpen">Whether its part of the client page is open.</param>
/// <param name="Changes">What clients changed and the owner has not seen.</param>
/// <param name="Names">Who takes part in the project, offered where a person is written.</param>
public sealed record OwnListDto(
    ListDto List,
    long? ProjectId,
    string? Project,
    ListReader Reader,
    bool Final,
    int Edition,
    bool IsOpen,
    IReadOnlyList<ListChangeDto> Changes,
    IReadOnlyList<string> Names
);

/// <summary>A list in one line.</summary>
/// <param name="About">“12 rows, € 840.00, the client reads it”.</param>
/// <param name="Unseen">How many changes of the client wait to be seen.</param>
public sealed record ListLineDto(string Id, string Name, ListSort Sort, string About, int Unseen);

/// <summary>A new list.</summary>
public sealed record BeginListDto(string Name, ListSort Sort);

/// <summary>What it is known by.</summary>
public sealed record ListKeyDto(string Id);

/// <summary>Kept lists, to be laid in this order.</summary>
public sealed record LayKeptListsDto(string[] Lists);

/// <summary>Its name, its reader and its columns, upon what was read as this edition.</summary>
public sealed record SaveListDto(int Edition, string Name, ListReader Reader, ListColumnDto[] Columns);

/// <summary>The name it is kept under.</summary>
public sealed record KeepListDto(string Name);

/// <summary>An entry as it is written.</summary>
/// <param name="Edition">What it was read as; 0 for a new one.</param>
/// <param name="Cells">By the keys of the columns; what is not named stays.</param>
public sealed record SaveEntryDto(int Edition, Dictionary<string, string> Cells);

/// <summary>An entry as it was kept.</summary>
public sealed record EntryKeyDto(string Key);

/// <summary>Whether it is struck out.</summary>
public sealed record StruckDto(bool Struck);

/// <summary>The entries in their order.</summary>
public sealed record EntryOrderDto(string[] Keys);

/// <summary>Whether the owner has seen what clients changed.</summary>
public sealed record SeenDto(bool Seen);

/// <summary>Whether a client's change is undone.</summary>
public sealed record UndoneDto(bool Undone);

/// <summary>A step of a plan that is due.</summary>
/// <param name="Column">The key of its column.</param>
/// <param name="Title">“Post: Summer walls”.</param>
/// <param name="Of">The list and its project.</param>
/// <param name="Due">“today”, “since Friday”.</param>
public sealed record DueStepDto(string List, string Key, string Column, string Title, string Of, string Due, bool Late);

/// <summary>Whether it is the final board.</summary>
public sealed record FinalBoardDto(bool Final);

/// <summary>The client's yes to a board as they read it.</summary>
public sealed record ApproveBoardDto(string Hash);

/// <summary>A column of a table that is taken over.</summary>
/// <param name="Key">The column it fills; null where it becomes a new one.</param>
public sealed record TakenColumnDto(string Heading, string? Key, ColumnSort Sort);

/// <summary>A table as it was read, before anything is taken over.</summary>
/// <param name="Told">The first rows as they would be read.</param>
/// <param name="Mistakes">Cells that do not read; at most 50 of them.</param>
public sealed record ListTableDto(
    IReadOnlyList<TakenColumnDto> Columns,
    IReadOnlyList<IReadOnlyList<string>> Rows,
    IReadOnlyList<IReadOnlyList<string>> Told,
    IReadOnlyList<TableMistakeDto> Mistakes
);

/// <param name="Row">From 0.</param>
/// <param name="Column">From 0.</param>
/// <param name="Words">What is allowed.</param>
public sealed record TableMistakeDto(int Row, int Column, string Text, string Words);

/// <summary>Rows that are taken over, their cells as they are written.</summary>
public sealed record TakeRowsDto(TakenColumnDto[] Columns, string[][] Rows);
