using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Formats.Tables;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Testimonials;

/// <summary>The praise of all projects, and which of it may be quoted or shown.</summary>
internal static class AllPraise
{
    private const int Page = 100,
        MostRows = 2_000;

    private static readonly string[] Kinds =
    [
        nameof(Happening.PraiseKept),
        nameof(Happening.TestimonialPut),
        nameof(Happening.TestimonialTakenBack),
        nameof(Happening.TestimonialApproved),
        nameof(Happening.TestimonialDeclined),
        nameof(Happening.LeaveGiven),
        nameof(Happening.LeaveRefused),
        nameof(Happening.LeaveRevoked),
    ];

    public static async Task<AllPraiseDto> OfAsync(Desk desk, PraiseQuery query)
    {
        var rows = await RowsAsync(desk, query);
        var most = Math.Clamp(query.Most ?? Page, 1, MostRows);
        return new([.. rows.Take(most)], Math.Max(0, rows.Count - most));
    }

    /// <summary>The same as CSV (RFC 4180), whole.</summary>
    public static async Task<byte[]> CsvAsync(Desk desk, PraiseQuery query) =>
        Csv.Write(
            ["Client", "Project", "Words", "Name", "Words are", "Leave to quote", "Leave to show"],
            (await RowsAsync(desk, query)).Select(row =>
                (IReadOnlyList<string>)
                    [row.Client, row.Title, row.Words, row.Name, row.State, row.Quote.Said, row.Show.Said]
            )
        );

    /// <summary>Those that fit, the last said first.</summary>
    private static async Task<List<PraisedProjectDto>> RowsAsync(Desk desk, PraiseQuery query)
    {
        var states = await StatesAsync(desk);
        var kept = (
            await desk
                .Db.Praise.AsNoTracking()
                .Where(p => !p.Removed)
                .OrderBy(p => p.On)
                .ThenBy(p => p.Id)
                .ToListAsync()
        ).ToLookup(p => p.ProjectId);
        var fit = states
            .Where(one => Fits(one.Value.State, query.Standing ?? PraiseStanding.All))
            .Where(one => one.Value.State != Testimonial.None || kept[one.Key].Any())
            .Select(one => one.Key)
            .ToHashSet();
        var versions = await desk
            .Db.Versions.AsNoTracking()
            .Where(v => v.Sort == PaperSort.Testimonial || v.Sort == PaperSort.Leave)
            .ToDictionaryAsync(v => v.Id);
        var projects = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => !p.Rehearsal && desk.Db.Facts.Any(f => f.ProjectId == p.Id && Kinds.Contains(f.Kind)))
            .Select(p => new
            {
                p.Id,
                p.Title,
                p.ClientId,
                Client = p.Client!.Name,
            })
            .ToListAsync();
        return
        [
            .. from project in projects
            where fit.Contains(project.Id)
            let known = states[project.Id]
            let last = kept[project.Id].LastOrDefault()
            let words = Words(known.State, versions, last)
            let row = new PraisedProjectDto(
                project.Id.Value,
                project.Title,
                project.ClientId.Value,
                project.Client,
                words.Words,
                words.Name,
                PraiseOfProject.StateWords(desk, known.State) is { Length: > 0 } said ? said
                    : last is not null ? $"kept {desk.Short(last.On)}"
                    : "",
                PraiseOfProject.LeaveOf(desk, known.State.Quote, LeaveTo.Quote, versions),
                PraiseOfProject.LeaveOf(desk, known.State.Show, LeaveTo.Show, versions)
            )
            where Holds(row, query.Words)
            orderby known.Last.Value descending
            select row,
        ];
    }

    /// <summary>Only the facts that matter here are read, of all projects at once.</summary>
    private static async Task<Dictionary<ProjectId, (Testimonial State, FactId Last)>> StatesAsync(Desk desk) =>
        (await desk.Db.Facts.AsNoTracking().Where(f => Kinds.Contains(f.Kind)).ToListAsync())
            .Select(ProjectFiles.ToCore)
            .GroupBy(fact => fact.Project)
            .Select(of => (of.Key, History: new History(of)))
            .ToDictionary(of => of.Key, of => (TestimonialRule.Of(of.History), of.History.LastFact));

    private static bool Fits(Testimonial state, PraiseStanding standing)
    {
        bool Either(LeaveState leave) => state.Quote.State == leave || state.Show.State == leave;
        return standing switch
        {
            PraiseStanding.All => true,
            PraiseStanding.MayBeQuoted => state.MayQuote,
            PraiseStanding.MayBeShown => state.MayShow,
            PraiseStanding.Asked => state.IsOpen || Either(LeaveState.Asked),
            PraiseStanding.Refused => state.Declined is not null || Either(LeaveState.Refused),
            PraiseStanding.Revoked => Either(LeaveState.Revoked),
            _ => state == Testimonial.None,
        };
    }

    private static QuotableDto Words(
        Testimonial state,
        IReadOnlyDictionary<VersionId, VersionRow> versions,
        PraiseRow? last
    ) =>
        PraiseOfProject.Quotable(versions, state.Approved)
        ?? (state.IsOpen && PraiseOfProject.Quotable(versions, state.Put) is { Words.Length: > 0 } put ? put : null)
        ?? new(last?.Words ?? "", last?.Who ?? "");

    private static bool Holds(PraisedProjectDto row, string? words) =>
        words?.Trim() is not { Length: > 0 } sought
        || new[] { row.Client, row.Title, row.Words, row.Name }.Any(text =>
            BareText.Of(text).Contains(BareText.Of(sought), StringComparison.Ordinal)
        );
}
