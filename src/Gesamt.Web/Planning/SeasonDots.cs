using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Invoicing;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Books;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Planning;

/// <summary>The payments of projects in the season: what came, what is asked for, what is agreed, what comes again.</summary>
public static class SeasonDots
{
    /// <summary>Those of one project.</summary>
    /// <param name="AgreedMinor">What is agreed and not invoiced yet, in the currency of the price.</param>
    /// <param name="Every">“every month”, where an invoice comes again.</param>
    /// <param name="EachTime">What it asks for each time.</param>
    /// <param name="Open">The open value of one that is not booked, and how much of it is likely; null for one that is, or has none.</param>
    public sealed record Of(
        IReadOnlyList<SeasonDotDto> Shown,
        long AgreedMinor,
        string? Every,
        Money? EachTime,
        (Money Value, Money Likely)? Open
    )
    {
        /// <summary>What is still to come, and what that is of.</summary>
        public SeasonMoneyDto Money(Desk desk, StandingColumns standing)
        {
            var open = standing.OwedMinor + AgreedMinor;
            if (Open is var (value, likely) && standing.LateSince is null)
                return new(MoneyText.Figures(value), $"{Percent(likely, value)} % likely", false);
            string Figures(long minor) => MoneyText.Figures(desk.Amount(minor, standing.Currency));
            if (EachTime is { } each && open == 0)
                return new(MoneyText.Figures(each), Every!, false);
            var under =
                standing.LateSince is not null ? "late"
                : standing.AgreedMinor is not { } agreed ? ""
                : standing.BookedAt is null ? "not booked yet"
                : $"of {Figures(agreed)}";
            return new(
                standing.AgreedMinor is null && open == 0 ? "" : Figures(open),
                under,
                standing.LateSince is not null
            );
        }
    }

    private static int Percent(Money part, Money whole) => (int)Rounding.ToLong(100m * part.Minor / whole.Minor);

    private sealed record Paid(ProjectId ProjectId, Instant At, long AmountMinor, string Currency);

    private static readonly Func<
        GesamtDb,
        IReadOnlyCollection<ProjectId>,
        Instant,
        Instant,
        IAsyncEnumerable<Paid>
    > Payments = EF.CompileAsyncQuery(
        (GesamtDb db, IReadOnlyCollection<ProjectId> ids, Instant from, Instant until) =>
            db
                .Payments.AsNoTracking()
                .Where(p => ids.Contains(p.ProjectId) && p.GoneAt == null && p.At >= from && p.At < until)
                .Select(p => new Paid(p.ProjectId, p.At, p.AmountMinor, p.Currency))
    );

    private sealed record Open(ProjectId ProjectId, LocalDate Due, long OwedMinor, string Currency);

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<Open>>> OpenInvoices =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
                db
                    .Invoices.AsNoTracking()
                    .Where(i => ids.Contains(i.ProjectId) && i.OwedMinor > 0 && i.Sort == InvoiceSort.Invoice)
                    .Select(i => new Open(i.ProjectId, i.Due, i.OwedMinor, i.Currency))
        );

    private static readonly Func<GesamtDb, IReadOnlyCollection<ProjectId>, Task<List<RecurringRow>>> GoingOn =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<ProjectId> ids) =>
                db.Recurring.AsNoTracking().Where(r => ids.Contains(r.ProjectId) && r.Next != null)
        );

    /// <summary>Of each of these projects, in as many statements however many they are.</summary>
    public static async Task<IReadOnlyDictionary<ProjectId, Of>> OfAsync(
        Desk desk,
        Season.Scale scale,
        IReadOnlyList<(ProjectId Id, StandingColumns Standing)> projects
    )
    {
        var ids = projects.Select(one => one.Id).ToList();
        var (from, until) = (desk.Calendar.StartOf(scale.First), desk.Calendar.StartOf(scale.End));
        var paid = (await Payments(desk.Db, ids, from, until).ToListAsync()).ToLookup(
            p => p.ProjectId,
            p => new Dot(desk.Calendar.DateOf(p.At), desk.Amount(p.AmountMinor, p.Currency), DotSort.Received)
        );
        var sent = (await OpenInvoices(desk.Db, ids)).ToLookup(
            i => i.ProjectId,
            i => new Dot(i.Due, desk.Amount(i.OwedMinor, i.Currency), i.Due < desk.Today ? DotSort.Late : DotSort.Sent)
        );
        var again = (await GoingOn(desk.Db, ids)).ToLookup(r => r.ProjectId, r => new Again(r, EachTime(desk, r)));
        var unbooked = (await Ahead.LikelyAsync(desk, desk.Currency)).ToLookup(
            line => line.Project,
            line => line.Placed
        );
        return projects.ToDictionary(
            one => one.Id,
            one =>
            {
                var agreed = Agreed(one.Standing);
                var dots = paid[one.Id]
                    .Concat(sent[one.Id])
                    .Concat(
                        agreed
                            .Where(part => part.Due is not null)
                            .Select(part => new Dot(
                                part.Due!.Value,
                                desk.Amount(part.Minor, one.Standing.Currency),
                                DotSort.ToCome
                            ))
                    )
                    .Concat(again[one.Id].SelectMany(next => next.Until(scale.End)))
                    .Where(dot => scale.Holds(dot.On))
                    .OrderBy(dot => dot.On)
                    .Select(dot => new SeasonDotDto(
                        scale.At(dot.On),
                        dot.Sort,
                        $"{desk.Short(dot.On)}: {MoneyText.Of(dot.Amount)} {Words(dot.Sort)}"
                    ))
                    .ToList();
                var first = again[one.Id].FirstOrDefault();
                return new Of(
                    dots,
                    agreed.Sum(part => part.Minor),
                    first is null ? null : EveryWords.Of(first.Row.Every),
                    first?.Each,
                    unbooked.Contains(one.Id)
                        ? (
                            unbooked[one.Id].Select(placed => placed.Whole).Sum(desk.Currency),
                            unbooked[one.Id].Select(placed => placed.Amount).Sum(desk.Currency)
                        )
                        : null
                );
            }
        );
    }

    /// <summary>What is agreed and not invoiced yet.</summary>
    public static IReadOnlyList<ComingPayment> Agreed(StandingColumns standing) =>
        standing.ToCome == "[]" ? [] : StoreJson.TryRead<List<ComingPayment>>(standing.ToCome) ?? [];

    private sealed record Dot(LocalDate On, Money Amount, DotSort Sort);

    /// <summary>An invoice that comes again.</summary>
    private sealed record Again(RecurringRow Row, Money Each)
    {
        /// <summary>Its days from the next one on.</summary>
        public IEnumerable<Dot> Until(LocalDate end)
        {
            for (var k = Row.Issued; Row.Recurrence.DayOf(k) is { } day && day < end; k++)
                yield return new(day, Each, DotSort.ToCome);
        }
    }

    private static Money EachTime(Desk desk, RecurringRow row) =>
        desk.Tell(() => StoreJson.ReadOnce<Bill>(row.Bill).Sums().Totals.Payable, () => desk.Amount(0, null));

    private static string Words(DotSort sort) =>
        sort switch
        {
            DotSort.Received => "received",
            DotSort.Sent => "due",
            DotSort.Late => "late",
            _ => "to come",
        };
}
