using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Accounts;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Spent;

/// <summary>Keeps what a project takes: hours and costs. What is charged to the client stays as it was charged.</summary>
public static class Keeping
{
    internal const int LongestWords = 200,
        LongestName = 120;
    internal const int LongestCategory = 60;

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<HoursId> AddAsync(Desk desk, ProjectId project, KeepHoursDto hours) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = new HoursRow { ProjectId = project };
            await WriteAsync(desk, row, hours);
            act.Db.Hours.Add(row);
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.HoursKept(row.Id));
            return row.Id;
        });

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    /// <exception cref="RefusedException">They are charged.</exception>
    public static Task ChangeAsync(Desk desk, ProjectId project, HoursId id, KeepHoursDto hours) =>
        WhileFreeAsync(desk, project, id, row => WriteAsync(desk, row, hours));

    /// <summary>Takes hours out, or puts them back.</summary>
    /// <exception cref="RefusedException">They are charged.</exception>
    public static Task RemoveAsync(Desk desk, ProjectId project, HoursId id, bool removed) =>
        WhileFreeAsync(
            desk,
            project,
            id,
            row =>
            {
                row.Removed = removed;
                return Task.CompletedTask;
            }
        );

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<CostId> AddAsync(Desk desk, ProjectId project, KeepCostDto cost) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = new CostRow
            {
                ProjectId = project,
                Payee = "",
                What = "",
                Currency = desk.CurrencyOf(file).Code,
            };
            await WriteAsync(desk, row, cost);
            act.Db.Costs.Add(row);
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.CostKept(row.Id));
            return row.Id;
        });

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    /// <exception cref="RefusedException">It is charged on.</exception>
    public static Task ChangeAsync(Desk desk, ProjectId project, CostId id, KeepCostDto cost) =>
        WhileFreeAsync(
            desk,
            project,
            id,
            async row =>
            {
                await ClosedYears.DemandOpenAsync(desk, row.On);
                await WriteAsync(desk, row, cost);
            }
        );

    /// <summary>Takes a cost out, or puts it back.</summary>
    /// <exception cref="RefusedException">It is charged on.</exception>
    public static Task RemoveAsync(Desk desk, ProjectId project, CostId id, bool removed) =>
        WhileFreeAsync(
            desk,
            project,
            id,
            async row =>
            {
                await ClosedYears.DemandOpenAsync(desk, row.On);
                await DemandUnmatchedAsync(desk, row.Id);
                row.Removed = removed;
            }
        );

    /// <summary>Keeps the receipt of a cost, in the place of one that was there.</summary>
    /// <exception cref="InvalidException">It has no name, is empty, or is of no kind that is kept.</exception>
    /// <exception cref="Store.Files.FileTooLargeException">It has more than <see cref="KeptFiles.Most"/> bytes.</exception>
    public static async Task ReceiptAsync(
        Desk desk,
        ProjectId project,
        CostId id,
        string name,
        Stream content,
        CancellationToken stop
    )
    {
        var (plain, hash, _, type) = await KeptFiles.TakeAsync(desk.Vault, name, content, stop);
        await desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = await OneAsync(act, project, id);
            (row.ReceiptName, row.ReceiptHash, row.ReceiptType) = (plain, hash, type);
            await KeptAsync(act, file);
        });
    }

    /// <summary>The cost whose receipt is asked for.</summary>
    /// <exception cref="MissingException">There is none.</exception>
    public static async Task<CostRow> WithReceiptAsync(Desk desk, ProjectId project, CostId id) =>
        await desk
            .Db.Costs.AsNoTracking()
            .SingleOrDefaultAsync(c => c.Id == id && c.ProjectId == project && c.ReceiptHash != null)
        ?? throw new MissingException("receipt");

    /// <summary>The minutes that a field says.</summary>
    /// <exception cref="InvalidException">It says none.</exception>
    public static int TimeOf(string time) =>
        WorkTime.Read(time)
        ?? throw new InvalidException(
            (
                "time",
                $"How long? Write {NumberText.Number(2.25m)}, 1:30 or 90 min: from 1 minute to 24 hours.{NumberText.Doubt(time)}"
            )
        );

    private static async Task WriteAsync(Desk desk, HoursRow row, KeepHoursDto hours)
    {
        if (hours.Task is { } task && task != row.TaskId?.Value)
            row.TaskId = await desk.Db.Tasks.AnyAsync(t =>
                t.Id == new TaskId(task) && t.ProjectId == row.ProjectId && !t.Removed
            )
                ? new(task)
                : throw new InvalidException(("task", "This project has no such task."));
        else if (hours.Task is null)
            row.TaskId = null;
        row.On = DayOf(desk, hours.On);
        row.Minutes = TimeOf(hours.Time);
        row.Words = TypedText.Of("words", hours.Words, 0, LongestWords, "What was done");
    }

    /// <summary>Puts what was typed into a cost of a project or of the studio.</summary>
    internal static async Task WriteAsync(Desk desk, CostRow row, KeepCostDto cost)
    {
        row.On = DayOf(desk, cost.On);
        await ClosedYears.DemandOpenAsync(desk, row.On);
        row.What = TypedText.Of("what", cost.What, 1, LongestWords, "What it was for");
        row.Payee = TypedText.Of("payee", cost.Payee, 0, LongestName, "Whom it was paid to");
        row.Category = TypedText.Of("category", cost.Category, 0, LongestCategory, "A category");
        var gross = TypedMoney.Of(Currency.Of(row.Currency), cost.Amount, "amount").Minor;
        if (gross != row.GrossMinor)
            await DemandUnmatchedAsync(desk, row.Id);
        row.GrossMinor = gross;
        row.TaxPartsPerMillion = TaxOf(cost.Tax);
        row.ChargeOn = cost.ChargeOn;
        row.AccountId = await AccountChoice.OfAsync(desk, cost.Account, Currency.Of(row.Currency), row.On);
    }

    /// <summary>What a line of the bank paid stays, with its amount.</summary>
    /// <exception cref="RefusedException">A line is booked on it.</exception>
    internal static async Task DemandUnmatchedAsync(Desk desk, CostId id)
    {
        if (await desk.Db.BankLines.AnyAsync(l => l.CostId == id))
            throw new RefusedException(
                "A line of the bank is booked on this cost. Undo that first, under Money, Bank."
            );
    }

    /// <exception cref="InvalidException">It is no rate.</exception>
    internal static int TaxOf(string tax) =>
        NumberText.Percent(tax)?.PartsPerMillion
        ?? throw new InvalidException(
            ("tax", $"The tax in it is per cent, between 0 and 100 with at most four decimals.{NumberText.Doubt(tax)}")
        );

    private static LocalDate DayOf(Desk desk, LocalDate? on) => desk.Calendar.DateOf(Moments.Of(desk, on));

    private static Task WhileFreeAsync(Desk desk, ProjectId project, HoursId id, Func<HoursRow, Task> change) =>
        WhileFreeAsync(desk, project, act => OneAsync(act, project, id), (taken, row) => taken.Of(row), change);

    private static Task WhileFreeAsync(Desk desk, ProjectId project, CostId id, Func<CostRow, Task> change) =>
        WhileFreeAsync(desk, project, act => OneAsync(act, project, id), (taken, row) => taken.Of(row), change);

    private static Task WhileFreeAsync<TRow>(
        Desk desk,
        ProjectId project,
        Func<Act, Task<TRow>> find,
        Func<Taken, TRow, string?> charged,
        Func<TRow, Task> change
    ) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = await find(act);
            if (charged(await Taken.OfAsync(act.Desk, file), row) is { } where)
                throw new RefusedException($"It is charged {where} and stays as it is.");
            await change(row);
            await KeptAsync(act, file);
        });

    private static async Task KeptAsync(Act act, ProjectFile file)
    {
        await act.Db.SaveChangesAsync();
        await act.RecordAsync(file, Actor.Owner);
    }

    private static async Task<HoursRow> OneAsync(Act act, ProjectId project, HoursId id) =>
        await act.Db.Hours.SingleOrDefaultAsync(h => h.Id == id && h.ProjectId == project)
        ?? throw new MissingException("hours");

    private static async Task<CostRow> OneAsync(Act act, ProjectId project, CostId id) =>
        await act.Db.Costs.SingleOrDefaultAsync(c => c.Id == id && c.ProjectId == project)
        ?? throw new MissingException("cost");
}
