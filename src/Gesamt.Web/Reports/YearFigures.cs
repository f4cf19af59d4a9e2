using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Facts;
using Gesamt.Core.Reports;
using Gesamt.Store.Model;
using Gesamt.Web.Books;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Reports;

/// <summary>The figures of one year that goals are measured by: each is read once, when a goal asks for it.</summary>
internal sealed class YearFigures(Desk desk, int year)
{
    private readonly ReportRange range = new(new(year, 1, 1), new(year, 12, 31), $"{year}");
    private List<Came>? came;
    private List<Came>? booked;
    private List<Came>? first;
    private List<Stood>? leads;
    private EntrySums? sums;

    /// <summary>What a measure stands at; null where there is no figure yet.</summary>
    public async Task<decimal?> OfAsync(GoalMeasure measure) =>
        measure.Figure switch
        {
            null => measure.Present,
            GoalFigure.Inquiries => Meant(await CameAsync(), measure).Count(),
            GoalFigure.Booked => Meant(await BookedAsync(), measure).Count(),
            GoalFigure.Agreed => Meant(await BookedAsync(), measure).Where(IsOwn).Sum(Net),
            GoalFigure.NewClients => Meant(await FirstAsync(), measure).Count(),
            GoalFigure.Share => ShareOf([.. Meant(await CameAsync(), measure)]),
            GoalFigure.LeadDays => await LeadDaysAsync(measure),
            GoalFigure.AnHour => await AnHourAsync(measure),
            GoalFigure.Hours => await HoursAsync() / 60m,
            GoalFigure.Received => (await SumsAsync()).Received.Major,
            _ => (await SumsAsync()).Result.Major,
        };

    /// <summary>Those a measure can be taken from, the likeliest first.</summary>
    public static IReadOnlyList<GoalFigureDto> All { get; } =
    [
        .. new[]
        {
            GoalFigure.Booked,
            GoalFigure.Agreed,
            GoalFigure.Inquiries,
            GoalFigure.NewClients,
            GoalFigure.Share,
            GoalFigure.LeadDays,
            GoalFigure.AnHour,
            GoalFigure.Hours,
            GoalFigure.Received,
            GoalFigure.Left,
        }.Select(figure => new GoalFigureDto(figure, Words(figure), CountsProjects(figure))),
    ];

    /// <summary>It counts projects, and can be narrowed to some of them.</summary>
    public static bool CountsProjects(GoalFigure? figure) =>
        figure is not (null or GoalFigure.Hours or GoalFigure.Received or GoalFigure.Left);

    /// <summary>What a figure is called.</summary>
    public static string Words(GoalFigure? figure) =>
        figure switch
        {
            GoalFigure.Inquiries => "inquiries",
            GoalFigure.Booked => "booked projects",
            GoalFigure.Agreed => "agreed, net",
            GoalFigure.NewClients => "new clients",
            GoalFigure.Share => "of a hundred inquiries that become work",
            GoalFigure.LeadDays => "days at Lead for half of them",
            GoalFigure.AnHour => "earned an hour",
            GoalFigure.Hours => "hours worked",
            GoalFigure.Received => "received",
            GoalFigure.Left => "left of what came",
            _ => "",
        };

    /// <summary>A number as its figure says it.</summary>
    public string Told(GoalFigure? figure, decimal number) =>
        figure switch
        {
            GoalFigure.Agreed or GoalFigure.Received or GoalFigure.Left => MoneyText.Whole(
                Money.Of(number, desk.Currency)
            ),
            GoalFigure.AnHour => MoneyText.Of(Money.Of(number, desk.Currency)),
            _ => NumberText.Number(decimal.Round(number, 2)),
        };

    private IEnumerable<Came> Meant(IEnumerable<Came> all, GoalMeasure measure) =>
        all.Where(one =>
            (measure.Kind is not { } kind || one.Kind.Value == kind || one.FurtherKinds.Contains(kind))
            && (measure.Source is not { } source || one.Source == source)
            && (measure.AtLeast is not { } least || IsOwn(one) && one.NetMinor is not null && Net(one) >= least)
        );

    private bool IsOwn(Came one) => (one.Currency ?? desk.Currency.Code) == desk.Currency.Code;

    private decimal Net(Came one) => desk.Amount(one.NetMinor ?? 0, one.Currency).Major;

    private static decimal? ShareOf(List<Came> all) =>
        Conversion.Percent(
            all.Count(one => one.IsWon),
            all.Where(one => !one.IsWon).Select(one => one.Ended).OfType<EndReason>()
        );

    private async Task<decimal?> LeadDaysAsync(GoalMeasure measure)
    {
        var meant = Meant(await CameAsync(), measure).Select(one => one.Id).ToHashSet();
        leads ??= await Lengths.AtAsync(desk, new(), range, Gate.Lead);
        return KaplanMeier.Of(leads.Where(stay => meant.Contains(stay.Project)).Select(stay => stay.Lasted)).Median;
    }

    private async Task<decimal?> AnHourAsync(GoalMeasure measure)
    {
        var (from, until) = (desk.Calendar.StartOf(range.First), desk.Calendar.StartOf(range.Last.PlusDays(1)));
        var finished = Cohort
            .Asked(desk, new())
            .Where(p => p.Standing.FinishedAt >= from && p.Standing.FinishedAt < until);
        var took = await HourlyFigures.OfAsync(desk, finished);
        var work = Meant(await finished.ReadAsync(), measure)
            .Where(one => IsOwn(one) && Brought.IsHourly(one, took))
            .ToList();
        return work.Count == 0 ? null : Brought.PerHour(desk, desk.Currency.Code, work, took)?.Major;
    }

    private Task<int> HoursAsync() =>
        desk
            .Db.Hours.Where(h => !h.Removed && h.On >= range.First && h.On <= range.Last)
            .Where(h => !desk.Db.RehearsalIds.Contains(h.ProjectId))
            .SumAsync(h => h.Minutes);

    private async Task<List<Came>> CameAsync() => came ??= await Cohort.Asked(desk, new(), range).ReadAsync();

    private async Task<List<Came>> BookedAsync()
    {
        var (from, until) = (desk.Calendar.StartOf(range.First), desk.Calendar.StartOf(range.Last.PlusDays(1)));
        return booked ??= await Cohort
            .Asked(desk, new())
            .Where(p => p.Standing.BookedAt >= from && p.Standing.BookedAt < until)
            .ReadAsync();
    }

    private async Task<List<Came>> FirstAsync() => first ??= await Cohort.FirstBookingsAsync(desk, new(), range);

    private async Task<EntrySums> SumsAsync() =>
        sums ??= EntryBook.Sum(
            (await Journal.OfAsync(desk, range.First, range.Last, MoneyAs.Received)).Select(one => one.Entry),
            desk.Currency
        );
}
