using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Reports;

/// <summary>An inquiry with what became of it.</summary>
internal sealed class Came
{
    public required ProjectId Id { get; init; }
    public required PersonId Client { get; init; }
    public required KindId Kind { get; init; }
    public required List<long> FurtherKinds { get; init; }
    public string? Source { get; init; }
    public string? Campaign { get; init; }
    public Instant? Began { get; init; }
    public Instant? Booked { get; init; }
    public Instant? Finished { get; init; }
    public EndReason? Ended { get; init; }
    public Stage Furthest { get; init; }
    public int Gates { get; init; }
    public int? Chases { get; init; }
    public VersionId? AgreedBy { get; init; }
    public long? NetMinor { get; init; }
    public string? Currency { get; init; }

    public bool IsWon => Booked is not null;

    public bool IsOpen => !IsWon && Ended is null;

    public bool IsLost => !IsWon && Ended is (EndReason.Lost or EndReason.GoneQuiet or EndReason.Cancelled);

    /// <summary>The studio did not want it, or had no time: neither won nor lost.</summary>
    public bool IsApart => !IsWon && Ended is (EndReason.Declined or EndReason.Referred);

    /// <summary>It came as far as a gate, which its kind has.</summary>
    public bool CameTo(Gate gate) => (Gates & (1 << (int)gate)) != 0 && Furthest >= (Stage)gate;

    public bool Passed(Gate gate) => CameTo(gate) && Furthest > (Stage)gate;

    /// <summary>It is where it came furthest, and no more.</summary>
    public bool EndedAt(Gate gate) => CameTo(gate) && Furthest == (Stage)gate && Ended is not null;

    public bool OpenAt(Gate gate) => CameTo(gate) && Furthest == (Stage)gate && Ended is null;
}

/// <summary>The inquiries that came in some days. One that was no inquiry is nowhere among them.</summary>
internal static class Cohort
{
    public static IQueryable<ProjectRow> Asked(Desk desk, ReportQuery query)
    {
        var projects = desk.Db.Projects.AsNoTracking().Where(p => p.Standing.Ended != EndReason.NotAnInquiry);
        if (query.Kind is { } kind)
        {
            var leading = new KindId(kind);
            projects = projects.Where(p => p.KindId == leading || p.FurtherKinds.Contains(kind));
        }
        if (query.Source is { Length: > 0 } source)
            projects = projects.Where(p => p.Source == source);
        if (query.Campaign is { Length: > 0 } campaign)
            projects = projects.Where(p => p.Campaign == campaign);
        return projects;
    }

    public static IQueryable<ProjectRow> Asked(Desk desk, ReportQuery query, ReportRange range)
    {
        var (from, until) = Bounds(desk, range);
        return Asked(desk, query).Where(p => p.Standing.BeganAt >= from && p.Standing.BeganAt < until);
    }

    /// <summary>How long they stood where.</summary>
    public static IQueryable<StayRow> Stays(Desk desk, ReportQuery query, ReportRange range)
    {
        var (from, until) = Bounds(desk, range);
        var stays = desk.Db.Stays.AsNoTracking().Where(stay => stay.BeganAt >= from && stay.BeganAt < until);
        return query.IsNarrowed
            ? stays.Join(Asked(desk, query), stay => stay.ProjectId, project => project.Id, (stay, _) => stay)
            : stays;
    }

    /// <summary>Those that a client booked first of all in these days, one a client.</summary>
    public static async Task<List<Came>> FirstBookingsAsync(Desk desk, ReportQuery query, ReportRange range) =>
        [.. (await FirstBooked(desk, query, range).ReadAsync()).DistinctBy(one => one.Client)];

    /// <summary>The days on which they were booked.</summary>
    public static async Task<List<LocalDate>> FirstBookingDaysAsync(Desk desk, ReportQuery query, ReportRange range)
    {
        var booked = await FirstBooked(desk, query, range)
            .Select(p => new { p.ClientId, p.Standing.BookedAt })
            .Distinct()
            .ToListAsync();
        return [.. booked.Select(one => desk.Calendar.DateOf(one.BookedAt!.Value))];
    }

    private static IQueryable<ProjectRow> FirstBooked(Desk desk, ReportQuery query, ReportRange range)
    {
        var (from, until) = Bounds(desk, range);
        return Asked(desk, query)
            .Where(p => p.Standing.BookedAt >= from && p.Standing.BookedAt < until)
            .Where(p =>
                !desk.Db.Projects.Any(other =>
                    other.ClientId == p.ClientId && other.Standing.BookedAt < p.Standing.BookedAt
                )
            );
    }

    /// <summary>In the order of their coming.</summary>
    public static Task<List<Came>> ReadAsync(this IQueryable<ProjectRow> projects) =>
        projects
            .OrderBy(p => p.Standing.BeganAt)
            .ThenBy(p => p.Id)
            .Select(p => new Came
            {
                Id = p.Id,
                Client = p.ClientId,
                Kind = p.KindId,
                FurtherKinds = p.FurtherKinds,
                Source = p.Source,
                Campaign = p.Campaign,
                Began = p.Standing.BeganAt,
                Booked = p.Standing.BookedAt,
                Finished = p.Standing.FinishedAt,
                Ended = p.Standing.Ended,
                Furthest = p.Standing.Furthest,
                Gates = p.Standing.Gates,
                Chases = p.Standing.Chases,
                AgreedBy = p.Standing.AgreedBy,
                NetMinor = p.Standing.NetMinor,
                Currency = p.Standing.Currency,
            })
            .ToListAsync();

    private static (Instant From, Instant Until) Bounds(Desk desk, ReportRange range) =>
        (desk.Calendar.StartOf(range.First), desk.Calendar.StartOf(range.Last.PlusDays(1)));
}
