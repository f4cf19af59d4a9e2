using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Lists;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Turns;

/// <summary>What clients did: the newest of it on Today, all of it day by day.</summary>
public static class CameIn
{
    private const int Shown = 8,
        MostNewest = 60,
        MostOfPage = 100;

    private static readonly Dictionary<CameInSort, string[]> Kinds = new()
    {
        [CameInSort.Inquiries] = [nameof(Happening.InquiryCame), nameof(Happening.FormReturned)],
        [CameInSort.Letters] = [nameof(Happening.LetterReceived)],
        [CameInSort.Papers] =
        [
            nameof(Happening.ProposalOpened),
            nameof(Happening.ProposalAccepted),
            nameof(Happening.ProposalDeclined),
            nameof(Happening.ChangeAsked),
            nameof(Happening.RateSheetTicked),
            nameof(Happening.ContractAsked),
            nameof(Happening.ContractDeclined),
            nameof(Happening.ContractSignedInPart),
            nameof(Happening.ContractSigned),
            nameof(Happening.BriefApproved),
            nameof(Happening.BriefRemarked),
        ],
        [CameInSort.Money] = [nameof(Happening.PaymentReceived)],
        [CameInSort.Work] =
        [
            nameof(Happening.Approved),
            nameof(Happening.RemarkLeft),
            nameof(Happening.ChangesAsked),
            nameof(Happening.ReviewApproved),
            nameof(Happening.FileKept),
            nameof(Happening.PartAsked),
            nameof(Happening.RunSheetAgreed),
            nameof(Happening.ListChanged),
            nameof(Happening.BoardApproved),
            nameof(Happening.TestimonialApproved),
            nameof(Happening.TestimonialDeclined),
            nameof(Happening.LeaveGiven),
            nameof(Happening.LeaveRefused),
            nameof(Happening.LeaveRevoked),
        ],
        [CameInSort.Meetings] =
        [
            nameof(Happening.MeetingBooked),
            nameof(Happening.MeetingMoved),
            nameof(Happening.MeetingCancelled),
        ],
    };

    /// <summary>Of the last seven days; what came since the last look is marked.</summary>
    public static async Task<CameInListDto> NewestAsync(Desk desk)
    {
        var from = desk.Now - Duration.FromDays(7);
        var all = await ToldAsync(desk, await Newest(desk.Db, from));
        return new(
            [.. all.Take(Shown).Select(one => one.Said)],
            Math.Max(0, all.Count - Shown),
            desk.Short(desk.Calendar.DateOf(from))!
        );
    }

    /// <summary>All of it, the last first.</summary>
    /// <param name="past">How many of the last ones are left out.</param>
    /// <param name="sort">Of one sort alone; null for all.</param>
    public static async Task<CameInPageDto> PageAsync(Desk desk, int past, CameInSort? sort)
    {
        var facts = Facts(desk);
        if (sort is { } one)
        {
            var kinds = Kinds[one];
            facts = facts.Where(f => kinds.Contains(f.Kind));
        }
        var read = await facts.Skip(Math.Max(0, past)).Take(MostOfPage).ToListAsync();
        var told = await ToldAsync(desk, read);
        return new(
            [
                .. told.GroupBy(entry => desk.Calendar.DateOf(entry.Fact.Happened))
                    .OrderByDescending(same => same.Key)
                    .Select(same => new CameInDayDto(
                        same.Key.Year == desk.Today.Year ? DateWords.OfToday(same.Key) : DateWords.Full(same.Key),
                        [
                            .. same.Select(entry =>
                                entry.Said with
                                {
                                    When = DateWords.Time(desk.Calendar.LocalOf(entry.Fact.Happened).TimeOfDay),
                                }
                            ),
                        ]
                    )),
            ],
            read.Count == MostOfPage ? past + MostOfPage : null
        );
    }

    private static readonly Func<GesamtDb, Instant, Task<List<FactRow>>> Newest = Prepared.Rows(
        (GesamtDb db, Instant from) =>
            db
                .Facts.AsNoTracking()
                .Where(f => f.By == Actor.Client && f.Recorded >= from)
                .Where(f => !db.RehearsalIds.Contains(f.ProjectId))
                .OrderByDescending(f => f.Recorded)
                .ThenByDescending(f => f.Id)
                .Take(MostNewest)
    );

    private sealed record Named(ProjectId Id, string Title, string Client);

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<Named>>> Names = Prepared.Rows(
        (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
            db
                .Projects.AsNoTracking()
                .Where(p => ids.Contains(p.Id))
                .Select(p => new Named(p.Id, p.Title, p.Client!.Name))
    );

    private static IQueryable<FactRow> Facts(Desk desk) =>
        desk
            .Db.Facts.AsNoTracking()
            .Where(f => f.By == Actor.Client)
            .Where(f => !desk.Db.RehearsalIds.Contains(f.ProjectId))
            .OrderByDescending(f => f.Recorded)
            .ThenByDescending(f => f.Id);

    private static async Task<List<(FactRow Fact, CameInDto Said)>> ToldAsync(Desk desk, List<FactRow> facts)
    {
        var looked = desk.Studio.LookedAt ?? desk.Now - Duration.FromDays(3);
        var ids = facts.Select(f => f.ProjectId).Distinct().ToList();
        var titles = (await Names(desk.Db, ids)).ToDictionary(p => p.Id);
        return
        [
            .. facts
                .Select(f =>
                    (
                        Fact: f,
                        Words: desk.Tell(
                            () =>
                                CameWords(
                                    FactJson.Read(f.Kind, f.Version, f.Payload),
                                    titles[f.ProjectId].Client,
                                    titles[f.ProjectId].Title
                                ),
                            () => Untold.Words
                        )
                    )
                )
                .Where(one => one.Words is not null)
                .Select(one =>
                    (
                        one.Fact,
                        new CameInDto(
                            one.Fact.ProjectId.Value,
                            one.Words!,
                            TodayView.Since(desk, one.Fact.Happened),
                            one.Fact.Recorded > looked
                        )
                    )
                ),
        ];
    }

    private static string? CameWords(Happening what, string client, string project) =>
        what switch
        {
            Happening.Unreadable => $"{Untold.Words}, {project}",
            Happening.InquiryCame => $"{client} inquired: {project}",
            Happening.FormReturned => $"{client} returned a form, {project}",
            Happening.LetterReceived { Automatic: false } => $"{client} wrote, {project}",
            Happening.ProposalOpened => $"{client} opened the proposal, {project}",
            Happening.ProposalAccepted => $"{client} chose, {project}",
            Happening.ProposalDeclined => $"{client} declined, {project}",
            Happening.ChangeAsked { Sort: AskSort.Question } => $"{client} asks about the proposal, {project}",
            Happening.ChangeAsked { Sort: AskSort.Objection } => $"{client} objects to the proposal, {project}",
            Happening.ChangeAsked => $"{client} asks for a change, {project}",
            Happening.RateSheetTicked => $"{client} ticked on the rate sheet, {project}",
            Happening.ContractAsked { Sort: AskSort.Question } => $"{client} asks about the contract, {project}",
            Happening.ContractAsked { Sort: AskSort.Objection } => $"{client} objects to the contract, {project}",
            Happening.ContractAsked => $"{client} asks for a change of the contract, {project}",
            Happening.ContractDeclined => $"{client} declined to sign, {project}",
            Happening.ContractSignedInPart => $"One of the signatures of {project} is there",
            Happening.ContractSigned => $"{client} signed, {project}",
            Happening.PaymentReceived paid => $"{MoneyText.Of(paid.Amount)} from {client}, {project}",
            Happening.Approved => $"{client} approved the work, {project}",
            Happening.RemarkLeft => $"{client} left a remark, {project}",
            Happening.ChangesAsked => $"{client} asks for changes, {project}",
            Happening.ReviewApproved => $"{client} approved a draft, {project}",
            Happening.FileKept => $"{client} sent a file, {project}",
            Happening.MeetingBooked => $"{client} chose a time, {project}",
            Happening.MeetingMoved => $"{client} moved the meeting, {project}",
            Happening.MeetingCancelled => $"{client} cancelled the meeting, {project}",
            Happening.BriefApproved => $"{client} approved the brief, {project}",
            Happening.PartAsked asked => $"{client} asks {Core.ClientPages.Sight.AskWords(asked.Part)}, {project}",
            Happening.RunSheetAgreed => $"{client} agreed to the run sheet, {project}",
            Happening.ListChanged changed => $"{client} changed {NameOf(changed)}, {project}",
            Happening.BoardApproved board => $"{client} approved the mood board “{board.Name}”, {project}",
            Happening.TestimonialApproved => $"{client} approved words to quote, {project}",
            Happening.TestimonialDeclined => $"{client} would rather not be quoted, {project}",
            Happening.LeaveGiven { To: LeaveTo.Quote } => $"{client} lets you quote them, {project}",
            Happening.LeaveGiven => $"{client} lets you show the work, {project}",
            Happening.LeaveRefused { To: LeaveTo.Quote } => $"{client} would rather not be quoted, {project}",
            Happening.LeaveRefused => $"{client} would rather not have the work shown, {project}",
            Happening.LeaveRevoked { To: LeaveTo.Quote } => $"{client} took back the leave to quote, {project}",
            Happening.LeaveRevoked => $"{client} took back the leave to show, {project}",
            Happening.BriefRemarked => $"{client} remarks on the brief, {project}",
            _ => null,
        };

    private static string NameOf(Happening.ListChanged changed) =>
        $"the {ProjectLists.SortWords(changed.Sort)} “{changed.Name}”";
}
