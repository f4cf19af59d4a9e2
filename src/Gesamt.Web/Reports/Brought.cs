using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Reports;

/// <summary>What one project brought under one heading.</summary>
/// <param name="NetMinor">Agreed for booked work, without tax; 0 where nothing is booked.</param>
/// <param name="Whole">Whether all of the project stands under this heading: an hour's worth cannot be split.</param>
internal sealed record Share(Came Project, string Key, long NetMinor, bool Whole);

/// <summary>Which sources, campaigns, kinds, services, clients and projects brought how much.</summary>
internal static class Brought
{
    /// <summary>The heading of what cannot be split.</summary>
    private const string Several = "*";

    /// <summary>The rows that bring most, first.</summary>
    public static async Task<BroughtDto> OfAsync(
        Desk desk,
        IReadOnlyList<Came> all,
        IReadOnlyDictionary<ProjectId, Took> took,
        ReportBy by,
        int most
    )
    {
        var groups = (await SharesAsync(desk, all, by))
            .GroupBy(share => share.Key)
            .Select(same => (same.Key, Shares: same.ToList()))
            .OrderByDescending(group => group.Shares.Where(IsOwn).Sum(share => share.NetMinor))
            .ThenByDescending(group => group.Shares.Count)
            .ThenBy(group => group.Key, StringComparer.Ordinal)
            .ToList();
        var shown = groups.Take(most).ToList();
        var names = await NamesAsync(desk, by, [.. shown.Select(group => group.Key)]);
        return new(
            by,
            [
                .. shown.Select(group =>
                    Row(desk, group.Key, names.GetValueOrDefault(group.Key, group.Key), group.Shares, took, by)
                ),
            ],
            groups.Count - shown.Count,
            !desk.Studio.HoursOff
        );

        bool IsOwn(Share share) => (share.Project.Currency ?? desk.Currency.Code) == desk.Currency.Code;
    }

    /// <summary>The same of all headings as a table, a row for each currency; figures alone, for a table program.</summary>
    public static async Task<FileContentHttpResult> TableAsync(Desk desk, IReadOnlyList<Came> all, ReportBy by)
    {
        var groups = (await SharesAsync(desk, all, by))
            .GroupBy(share => (share.Key, Currency: share.Project.Currency ?? desk.Currency.Code))
            .OrderBy(group => group.Key.Currency, StringComparer.Ordinal)
            .ThenByDescending(group => group.Sum(share => share.NetMinor))
            .ThenBy(group => group.Key.Key, StringComparer.Ordinal)
            .ToList();
        var names = await NamesAsync(desk, by, [.. groups.Select(group => group.Key.Key).Distinct()]);
        return TableFile.Of(
            $"brought-by-{by.ToString().ToLowerInvariant()}",
            [by.ToString(), "Came", "Won", "Currency", "Brought net"],
            groups.Select(group =>
                (IReadOnlyList<string>)
                    [
                        NameOf(group.Key.Key, names.GetValueOrDefault(group.Key.Key, group.Key.Key)),
                        by == ReportBy.Service ? "" : $"{group.Count()}",
                        $"{group.Count(share => share.Project.IsWon)}",
                        group.Key.Currency,
                        MoneyText.Exact(desk.Amount(group.Sum(share => share.NetMinor), group.Key.Currency)),
                    ]
            )
        );
    }

    private static string NameOf(string key, string name) =>
        key switch
        {
            "" => "not known",
            Several => "several",
            _ => name,
        };

    /// <summary>What every project brought under which heading.</summary>
    public static async Task<List<Share>> SharesAsync(Desk desk, IReadOnlyList<Came> all, ReportBy by)
    {
        if (by == ReportBy.Service)
            return await ServicesAsync(desk, all);
        if (by == ReportBy.Kind)
            return await KindsAsync(desk, all);
        return
        [
            .. all.Select(one => new Share(
                one,
                by switch
                {
                    ReportBy.Source => one.Source ?? "",
                    ReportBy.Campaign => one.Campaign ?? "",
                    ReportBy.Client => Number(one.Client.Value),
                    _ => Number(one.Id.Value),
                },
                NetOf(one),
                true
            )),
        ];
    }

    /// <summary>What an hour of the finished work earned, each currency by itself; empty for no figure.</summary>
    public static (string AnHour, int Minutes) Hour(
        Desk desk,
        IEnumerable<Came> work,
        IReadOnlyDictionary<ProjectId, Took> took
    )
    {
        var hourly = work.Where(one => IsHourly(one, took)).ToList();
        return (
            string.Join(
                ", ",
                hourly
                    .GroupBy(one => one.Currency ?? desk.Currency.Code)
                    .OrderBy(same => same.Key, StringComparer.Ordinal)
                    .Select(same => PerHour(desk, same.Key, [.. same], took))
                    .OfType<Money>()
                    .Select(MoneyText.Of)
            ),
            hourly.Sum(one => took[one.Id].Minutes)
        );
    }

    /// <summary>Finished work with hours.</summary>
    public static bool IsHourly(Came one, IReadOnlyDictionary<ProjectId, Took> took) =>
        one is { Finished: not null, NetMinor: not null } && took.ContainsKey(one.Id);

    /// <summary>(agreed net − direct costs) / hours over all of them.</summary>
    public static Money? PerHour(
        Desk desk,
        string currency,
        IReadOnlyCollection<Came> work,
        IReadOnlyDictionary<ProjectId, Took> took
    ) =>
        new Took(work.Sum(one => took[one.Id].Minutes), [.. work.SelectMany(one => took[one.Id].Costs)]).PerHour(
            desk.Amount(work.Sum(one => one.NetMinor!.Value), currency)
        );

    private static BroughtRowDto Row(
        Desk desk,
        string key,
        string name,
        List<Share> shares,
        IReadOnlyDictionary<ProjectId, Took> took,
        ReportBy by
    )
    {
        var (anHour, minutes) = Hour(desk, shares.Where(share => share.Whole).Select(share => share.Project), took);
        return new(
            key,
            NameOf(key, name),
            by == ReportBy.Service ? null : shares.Count,
            shares.Count(share => share.Project.IsWon),
            desk.Sum(shares.Select(share => (share.NetMinor, share.Project.Currency))),
            anHour,
            minutes > 0 ? WorkTime.Words(minutes) : ""
        );
    }

    private static long NetOf(Came one) => one.IsWon ? one.NetMinor ?? 0 : 0;

    private static string Number(long id) => id.ToString(CultureInfo.InvariantCulture);

    /// <summary>By the lines of what was agreed; one whose price has none stands under what cannot be split.</summary>
    private static async Task<List<Share>> ServicesAsync(Desk desk, IReadOnlyList<Came> all)
    {
        var booked = all.Where(one => one.IsWon).ToList();
        var lines = await AgreedLines.OfAsync(desk, booked);
        return
        [
            .. booked.SelectMany(one =>
                lines.TryGetValue(one.Id, out var own)
                    ? Shares(one, own, line => line.Service is { } service ? $"#{service}" : line.Title)
                    : [new(one, Several, NetOf(one), true)]
            ),
        ];
    }

    /// <summary>Work of several kinds is split by its lines, as far as their services belong to one of them.</summary>
    private static async Task<List<Share>> KindsAsync(Desk desk, IReadOnlyList<Came> all)
    {
        var mixed = all.Where(one => one.FurtherKinds.Count > 0).ToList();
        var lines = await AgreedLines.OfAsync(desk, [.. mixed.Where(one => one.IsWon)]);
        var kinds =
            lines.Count == 0
                ? []
                : await desk
                    .Db.Services.AsNoTracking()
                    .Where(service => service.KindId != null)
                    .Select(service => new { service.Id, service.KindId })
                    .ToDictionaryAsync(service => service.Id, service => service.KindId!.Value.Value);
        return
        [
            .. all.SelectMany(one =>
                one.FurtherKinds.Count == 0 ? [new(one, Number(one.Kind.Value), NetOf(one), true)]
                : !one.IsWon
                    ? one.FurtherKinds.Prepend(one.Kind.Value).Select(kind => new Share(one, Number(kind), 0, false))
                : lines.TryGetValue(one.Id, out var own)
                    ? Shares(
                        one,
                        own,
                        line =>
                            line.Service is { } service
                            && kinds.TryGetValue(service, out var kind)
                            && (kind == one.Kind.Value || one.FurtherKinds.Contains(kind))
                                ? Number(kind)
                                : Several
                    )
                : [new(one, Several, NetOf(one), false)]
            ),
        ];
    }

    private static IEnumerable<Share> Shares(Came one, List<AgreedLine> lines, Func<AgreedLine, string> key)
    {
        var groups = lines.GroupBy(key).ToList();
        return groups.Select(same => new Share(one, same.Key, same.Sum(line => line.NetMinor), groups.Count == 1));
    }

    private static async Task<IReadOnlyDictionary<string, string>> NamesAsync(Desk desk, ReportBy by, List<string> keys)
    {
        var numbers = keys.Select(key => long.TryParse(key, CultureInfo.InvariantCulture, out var id) ? id : 0)
            .Where(id => id > 0)
            .ToList();
        switch (by)
        {
            case ReportBy.Client:
                var people = numbers.Select(id => new PersonId(id)).ToList();
                return await desk
                    .Db.People.AsNoTracking()
                    .Where(p => people.Contains(p.Id))
                    .Select(p => new { p.Id, Name = p.Organisation ?? p.Name })
                    .ToDictionaryAsync(p => Number(p.Id.Value), p => p.Name);
            case ReportBy.Project:
                var projects = numbers.Select(id => new ProjectId(id)).ToList();
                return await desk
                    .Db.Projects.AsNoTracking()
                    .Where(p => projects.Contains(p.Id))
                    .Select(p => new { p.Id, p.Title })
                    .ToDictionaryAsync(p => Number(p.Id.Value), p => p.Title);
            case ReportBy.Kind:
                return await desk
                    .Db.Kinds.AsNoTracking()
                    .Select(k => new { k.Id, k.Name })
                    .ToDictionaryAsync(k => Number(k.Id.Value), k => k.Name);
            case ReportBy.Service:
                return await desk
                    .Db.Services.AsNoTracking()
                    .Select(s => new { s.Id, s.Title })
                    .ToDictionaryAsync(s => $"#{s.Id}", s => s.Title);
            default:
                return new Dictionary<string, string>();
        }
    }
}
