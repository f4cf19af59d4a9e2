using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Web.Reports;

/// <summary>What became of the inquiries of some days.</summary>
public sealed record ReportsDto(
    ReportHeadDto Head,
    IReadOnlyList<GateReportDto> Gates,
    LengthsDto Lengths,
    IReadOnlyList<ReportColumnDto> Columns,
    BroughtDto Brought,
    IReadOnlyList<ChasedDto> Chased,
    ReportChoicesDto Choices
);

/// <param name="Title">What the days are called.</param>
/// <param name="Until">Included.</param>
/// <param name="Apart">Declined by the studio, or referred to somebody else.</param>
public sealed record ReportHeadDto(
    string Title,
    LocalDate From,
    LocalDate Until,
    int Came,
    int Won,
    int Lost,
    int Apart,
    int Open
);

/// <summary>What became of those that came to a gate: passed, ended and open are all of them.</summary>
/// <param name="GoOn">Of a hundred that passed, were lost or went quiet, so many passed; null where there are none.</param>
public sealed record GateReportDto(
    Gate Gate,
    int Came,
    int Passed,
    int Ended,
    int Open,
    IReadOnlyList<ReasonDto> Reasons,
    int? GoOn
);

/// <param name="Words">“19 gone quiet”.</param>
public sealed record ReasonDto(EndReason Reason, string Words);

/// <summary>How long the first stay at each gate takes.</summary>
/// <param name="Longest">The longest that any was seen, in days: as far as the picture goes.</param>
public sealed record LengthsDto(int Longest, IReadOnlyList<LengthDto> Gates);

/// <param name="Median">“6 days”: by then half had left; “not yet half”.</param>
/// <param name="Days">The same as a number; null for not yet half.</param>
/// <param name="Count">How many stood there.</param>
/// <param name="Open">How many of them were not seen to leave.</param>
public sealed record LengthDto(
    Gate Gate,
    string Median,
    int? Days,
    int Count,
    int Open,
    IReadOnlyList<SurvivalStepDto> Steps
);

/// <summary>After so many days this share is still there.</summary>
/// <param name="Share">0 to 1.</param>
public sealed record SurvivalStepDto(int Days, double Share);

/// <summary>A month or a year.</summary>
/// <param name="Until">Included.</param>
/// <param name="Won">Of those that came in it, so many became work.</param>
/// <param name="NewClients">Clients who booked for the first time in it.</param>
public sealed record ReportColumnDto(
    string Name,
    string Long,
    LocalDate From,
    LocalDate Until,
    int Came,
    int Won,
    int NewClients
);

/// <summary>Who or what brought how much.</summary>
/// <param name="More">How many rows there are besides.</param>
/// <param name="Hours">Whether hours are kept.</param>
public sealed record BroughtDto(ReportBy By, IReadOnlyList<BroughtRowDto> Rows, int More, bool Hours);

/// <param name="Key">By which the row is opened; empty for what is not known.</param>
/// <param name="Came">Null where it is not known before something is agreed.</param>
/// <param name="Brought">Agreed for booked work, without tax.</param>
/// <param name="AnHour">Of the finished work with hours; empty for no figure.</param>
/// <param name="Worked">The hours it is worked out from, “14 h 30 min”; empty for none.</param>
public sealed record BroughtRowDto(
    string Key,
    string Name,
    int? Came,
    int Won,
    string Brought,
    string AnHour,
    string Worked
);

/// <summary>How many said yes after so many reminders.</summary>
/// <param name="Chases">The last is so many or more.</param>
/// <param name="Words">“none”, “1”, “4 or more”.</param>
public sealed record ChasedDto(int Chases, string Words, int Count);

/// <summary>What can be looked at.</summary>
public sealed record ReportChoicesDto(
    IReadOnlyList<ReportKindDto> Kinds,
    IReadOnlyList<string> Sources,
    IReadOnlyList<string> Campaigns,
    IReadOnlyList<int> Years
);

public sealed record ReportKindDto(long Id, string Name);

/// <summary>The projects behind a figure.</summary>
/// <param name="Title">“Went on from Lead”.</param>
/// <param name="More">How many there are besides those listed.</param>
public sealed record ReportProjectsDto(string Title, int Count, int More, IReadOnlyList<ReportProjectDto> Rows);

/// <param name="Words">What became of it, or how long it stood.</param>
/// <param name="On">When the inquiry came.</param>
/// <param name="Amount">Agreed without tax, where the figure is of amounts; else empty.</param>
public sealed record ReportProjectDto(long Id, string Title, string Client, string Words, string On, string Amount);
