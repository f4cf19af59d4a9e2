using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Accounts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>Costs that book themselves on their days, each occurrence once; what is changed reaches only those ahead.</summary>
public static class RecurringCosts
{
    private const int Most = 200,
        YearsBack = 5,
        YearsAhead = 20;

    /// <param name="id">The one that is changed; null begins a new one.</param>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<RecurringCostId> SaveAsync(Desk desk, RecurringCostId? id, SaveRecurringCostDto save) =>
        desk.ActAsync(async act =>
        {
            var row = id is { } known ? await OneAsync(desk, known) : await BeginAsync(act, save);
            row.What = TypedText.Of("what", save.What, 1, Keeping.LongestWords, "What it is for");
            row.Payee = TypedText.Of("payee", save.Payee, 0, Keeping.LongestName, "Whom it is paid to");
            row.Category = TypedText.Of("category", save.Category, 0, Keeping.LongestCategory, "A category");
            row.GrossMinor = TypedMoney.Of(Currency.Of(row.Currency), save.Amount, "amount").Minor;
            row.TaxPartsPerMillion = Keeping.TaxOf(save.Tax);
            row.AccountId = await AccountChoice.OfAsync(desk, save.Account, Currency.Of(row.Currency), act.Today);
            if (id is not null && save.When is { } when)
            {
                row.Until = UntilOf(row.First, when.Until);
                if (row.Next is not null)
                    row.Next = row.Recurrence.DayOf(row.Booked);
            }
            await act.Db.SaveChangesAsync();
            await BookDueAsync(act, row);
            return row.Id;
        });

    /// <summary>Stops it, or lets it go on with the first day that is not over.</summary>
    public static Task StopAsync(Desk desk, RecurringCostId id, bool stopped) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, id);
            if (stopped)
            {
                row.Next = null;
                return;
            }
            // what would have been while it was stopped was not
            while (row.Recurrence.DayOf(row.Booked) is { } missed && missed < act.Today)
                row.Booked++;
            row.Next = row.Recurrence.DayOf(row.Booked);
            await BookDueAsync(act, row);
        });

    /// <summary>Those whose day has come.</summary>
    public static Task<List<RecurringCostId>> DueAsync(Desk desk) => Due(desk.Db, desk.Today);

    private static readonly Func<GesamtDb, LocalDate, Task<List<RecurringCostId>>> Due = Prepared.Rows(
        (GesamtDb db, LocalDate today) => db.RecurringCosts.Where(r => r.Next <= today).Select(r => r.Id)
    );

    /// <summary>Books every occurrence whose day has come.</summary>
    public static Task BookDueAsync(Desk desk, RecurringCostId id) =>
        desk.ActAsync(async act => await BookDueAsync(act, await OneAsync(desk, id)));

    private static async Task BookDueAsync(Act act, RecurringCostRow row)
    {
        while (row.Next is { } day && day <= act.Today)
        {
            var cost = new CostRow
            {
                ProjectId = row.ProjectId,
                On = day,
                Payee = row.Payee,
                What = row.What,
                Category = row.Category,
                GrossMinor = row.GrossMinor,
                Currency = row.Currency,
                TaxPartsPerMillion = row.TaxPartsPerMillion,
                AccountId = await HoldsAsync(act, row.AccountId, day) ? row.AccountId : null,
                Recurring = row.Id,
                Occurrence = row.Booked,
            };
            act.Db.Costs.Add(cost);
            row.Booked++;
            row.Next = row.Recurrence.DayOf(row.Booked);
            await act.Db.SaveChangesAsync();
            if (row.ProjectId is { } project)
                await act.RecordAsync(await act.OpenAsync(project), Actor.Gesamt, new Happening.CostKept(cost.Id));
        }
    }

    private static Task<bool> HoldsAsync(Act act, AccountId? account, LocalDate day) =>
        account is { } id ? act.Db.Accounts.AnyAsync(a => a.Id == id && a.OpenedOn <= day) : Task.FromResult(false);

    private static async Task<RecurringCostRow> BeginAsync(Act act, SaveRecurringCostDto save)
    {
        var when = save.When ?? throw new InvalidException(("when.first", "Say when it is paid for the first time."));
        var today = act.Today;
        var first = when.First ?? today;
        if (first < today.PlusYears(-YearsBack) || first > today.PlusYears(YearsAhead))
            throw new InvalidException(
                ("when.first", $"The first day lies within the last {YearsBack} or the next {YearsAhead} years.")
            );
        if (first <= today)
            await ClosedYears.DemandOpenAsync(act.Desk, first, "when.first");
        if (await act.Db.RecurringCosts.CountAsync() >= Most)
            throw new RefusedException($"There are {Most} costs that book themselves already.");
        ProjectId? project = save.Project is { } number ? await ProjectAsync(act, new(number)) : null;
        var row = new RecurringCostRow
        {
            ProjectId = project,
            Payee = "",
            What = "",
            Currency = (await Costs.CurrencyAsync(act.Desk, project, save.Account)).Code,
            Every = when.Every,
            First = first,
            Until = UntilOf(first, when.Until),
        };
        row.Next = row.Recurrence.DayOf(0);
        act.Db.RecurringCosts.Add(row);
        return row;
    }

    private static async Task<ProjectId> ProjectAsync(Act act, ProjectId id) =>
        (await act.OpenAsync(id)).Row.Rehearsal
            ? throw new InvalidException(("project", "A rehearsal costs nothing. Choose a real project."))
            : id;

    private static LocalDate? UntilOf(LocalDate first, LocalDate? until) =>
        until is not { } day ? null
        : day >= first && day <= first.PlusYears(YearsBack + YearsAhead) ? day
        : throw new InvalidException(
            ("when.until", "The last day is not before the first, and within 25 years of it.")
        );

    private static readonly Func<GesamtDb, Task<List<RecurringCostRow>>> GoingOn = Prepared.Rows(
        (GesamtDb db) => db.RecurringCosts.AsNoTracking().Where(r => r.Next != null)
    );

    private static readonly Func<GesamtDb, Task<List<RecurringCostRow>>> Listed = Prepared.Rows(
        (GesamtDb db) =>
            db
                .RecurringCosts.AsNoTracking()
                .OrderBy(r => r.Next == null)
                .ThenBy(r => r.Next)
                .ThenBy(r => r.Id)
                .Take(Most)
    );

    /// <summary>All that go on, and those that ended last.</summary>
    internal static async Task<IReadOnlyList<RecurringCostDto>> ListAsync(Desk desk) =>
        [.. (await Listed(desk.Db)).Select(row => Of(desk, row))];

    /// <summary>What all that go on come to in a month.</summary>
    internal static async Task<string> MonthlyAsync(Desk desk) =>
        desk.Sum(
            (await GoingOn(desk.Db)).Select(row =>
                (Equivalent.Monthly(AmountOf(row), row.Every).Minor, (string?)row.Currency)
            )
        );

    /// <summary>Those that will book themselves until a day.</summary>
    internal static async Task<List<(LocalDate On, Money Amount, RecurringCostRow Row)>> AheadAsync(
        Desk desk,
        Currency currency,
        LocalDate last
    )
    {
        List<(LocalDate, Money, RecurringCostRow)> ahead = [];
        foreach (var row in (await GoingOn(desk.Db)).Where(row => row.Currency == currency.Code))
            for (var k = row.Booked; row.Recurrence.DayOf(k) is { } day && day <= last; k++)
                ahead.Add((day, AmountOf(row), row));
        return ahead;
    }

    private static RecurringCostDto Of(Desk desk, RecurringCostRow row)
    {
        var amount = AmountOf(row);
        return new(
            row.Id.Value,
            row.What,
            row.Next is { } next ? $"next {desk.Short(next)}"
                : row.Recurrence.DayOf(row.Booked) is null ? "over"
                : "stopped",
            row.Next is null,
            $"{MoneyText.Of(amount)} {EveryWords.Of(row.Every)}",
            MoneyText.Figures(Equivalent.Monthly(amount, row.Every)),
            MoneyText.Figures(Equivalent.Yearly(amount, row.Every)),
            new(
                row.Payee,
                row.What,
                row.Category,
                MoneyText.Field(amount),
                NumberText.Number(new Rate(row.TaxPartsPerMillion).InPercent),
                row.AccountId?.Value,
                row.ProjectId?.Value,
                new(row.Every, row.First, row.Until)
            )
        );
    }

    private static Money AmountOf(RecurringCostRow row) => new(row.GrossMinor, Currency.Of(row.Currency));

    private static async Task<RecurringCostRow> OneAsync(Desk desk, RecurringCostId id) =>
        await desk.Db.RecurringCosts.SingleOrDefaultAsync(r => r.Id == id) ?? throw new MissingException("cost");
}
