using Gesamt.Core.Banking;

namespace Gesamt.Web.Banking;

/// <summary>What became of a file of statements.</summary>
/// <param name="Lines">In it; <paramref name="New"/> of them were not known before, and <paramref name="Booked"/> of those were booked by themselves.</param>
/// <param name="Columns">What is still to be said of a table before it can be read; null once it was.</param>
public sealed record StatementTakenDto(int Lines, int New, int Booked, StatementColumnsDto? Columns);

/// <summary>A bank's table whose columns are to be matched.</summary>
/// <param name="Hash">Of the file, which is kept.</param>
/// <param name="Rows">The first few.</param>
public sealed record StatementColumnsDto(
    string Hash,
    string Name,
    IReadOnlyList<string> Headings,
    IReadOnlyList<StatementColumn> Columns,
    IReadOnlyList<IReadOnlyList<string>> Rows
);

/// <param name="Account">Whose they are: IBAN, or any name.</param>
public sealed record MatchStatementDto(string Name, string Account, StatementColumn[] Columns);

/// <summary>An invoice that a line may pay.</summary>
/// <param name="Why">What of the line speaks for it.</param>
public sealed record BankOfferDto(long Invoice, string Number, string Client, string Owed, string Why);

/// <summary>Money that came in, of which nobody has said yet what it pays.</summary>
public sealed record BankLineDto(
    long Id,
    string On,
    string Amount,
    string Party,
    string Text,
    IReadOnlyList<BankOfferDto> Offers
);

/// <summary>An invoice that a line paid.</summary>
public sealed record BankPaidDto(long Project, string Number);

/// <summary>A line that was booked or set aside.</summary>
/// <param name="Paid">None where it was set aside.</param>
/// <param name="ByItself">Booked without being asked: reference and amount left no doubt.</param>
/// <param name="Cost">What it paid, where money went out; empty for none.</param>
public sealed record BankDoneDto(
    long Id,
    string On,
    string Amount,
    string Party,
    IReadOnlyList<BankPaidDto> Paid,
    bool ByItself,
    string Cost
);

/// <summary>A file that was taken in.</summary>
public sealed record BankFileDto(int Id, string Name, string At, int Lines, int New);

/// <summary>The desk of the bank.</summary>
/// <param name="Open">The oldest first.</param>
/// <param name="More">How many open ones the page leaves out.</param>
/// <param name="Out">How many lines are of money that went out.</param>
/// <param name="Done">The newest.</param>
public sealed record BankDto(
    IReadOnlyList<BankLineDto> Open,
    int More,
    int Out,
    IReadOnlyList<BankDoneDto> Done,
    IReadOnlyList<BankFileDto> Files
);

public sealed record BookLineDto(long[] Invoices);

/// <summary>How a line would be shared out.</summary>
/// <param name="Left">What stays open, or is paid ahead; empty where it comes out even.</param>
public sealed record BankSharesDto(IReadOnlyList<string> Parts, string Left);
