using Gesamt.Core.Facts;
using Gesamt.Core.Reports;

namespace Gesamt.Web.Reports;

/// <summary>How far inquiries came: at each gate those that came to it, passed, ended or are open.</summary>
internal static class Funnel
{
    /// <summary>Gates that nobody came to are left out.</summary>
    public static IReadOnlyList<GateReportDto> Of(IReadOnlyList<Came> all) =>
        [.. Enum.GetValues<Gate>().Select(gate => At(gate, all)).Where(gate => gate.Came > 0)];

    public static string Words(EndReason reason) =>
        reason switch
        {
            EndReason.Declined => "declined by you",
            EndReason.Referred => "referred",
            EndReason.Lost => "lost",
            EndReason.GoneQuiet => "gone quiet",
            EndReason.Cancelled => "cancelled",
            _ => "not an inquiry",
        };

    private static GateReportDto At(Gate gate, IReadOnlyList<Came> all)
    {
        var ended = all.Where(one => one.EndedAt(gate)).Select(one => one.Ended!.Value).ToList();
        var passed = all.Count(one => one.Passed(gate));
        return new(
            gate,
            all.Count(one => one.CameTo(gate)),
            passed,
            ended.Count,
            all.Count(one => one.OpenAt(gate)),
            [
                .. ended
                    .GroupBy(reason => reason)
                    .OrderByDescending(same => same.Count())
                    .ThenBy(same => same.Key)
                    .Select(same => new ReasonDto(same.Key, $"{same.Count()} {Words(same.Key)}")),
            ],
            Conversion.Percent(passed, ended)
        );
    }
}
