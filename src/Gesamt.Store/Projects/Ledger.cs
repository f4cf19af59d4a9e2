using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Planning;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Core.Reports;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Store.Projects;

/// <summary>What is to be written of one project: what happened, at which instant, by whom.</summary>
public sealed record LedgerEntry(ProjectFile File, Actor By, Instant Happened, Happening[] What);

/// <summary>The one way facts are written: with what follows from them, the plan and the standing, in the caller's transaction.</summary>
/// <remarks>The caller opens the transaction, adds its own rows, records and commits.</remarks>
public sealed class Ledger(GesamtDb db)
{
    /// <summary>Records what happened just now.</summary>
    public Task RecordAsync(ProjectFile file, Actor by, Instant now, params Happening[] what) =>
        RecordAsync(file, by, now, now, what);

    /// <summary>Records what happened at an instant up to now.</summary>
    public Task RecordAsync(ProjectFile file, Actor by, Instant happened, Instant now, params Happening[] what) =>
        RecordAsync([new(file, by, happened, what)], now);

    /// <summary>Records what happened in some projects up to now, the routines it begins and the steps it stops. Their rows are read and written together.</summary>
    /// <param name="entries">One for each project.</param>
    /// <exception cref="ArgumentOutOfRangeException">It is said to have happened later than now.</exception>
    public async Task RecordAsync(IReadOnlyCollection<LedgerEntry> entries, Instant now)
    {
        if (entries.Any(entry => entry.Happened > now))
            throw new ArgumentOutOfRangeException(nameof(entries), "Nothing can have happened later than now.");
        var takenBack = entries
            .Select(entry => (entry.File, FulfilmentRule.TakenBack(entry.File.Case.History, entry.What).ToList()))
            .ToList();
        await AppendAsync(entries, now);
        foreach (var entry in entries)
            await FulfilAsync(entry, now);
        foreach (var (file, tasks) in takenBack)
            await ReopenAsync(file, now, tasks);
        var files = entries.Select(entry => entry.File).ToList();
        await BeginRunsAsync(files, now);
        foreach (var file in files)
            await StopStepsAsync(file, now);
        foreach (var entry in entries.Where(entry => entry.What.Any(Resumes)))
            await ResumeStepsAsync(entry.File, now);
        await RefreshInvoicesAsync([
            .. entries
                .Where(entry => entry.What.Any(one => IsMoney(one) || one is Happening.StepDone))
                .Select(entry => entry.File),
        ]);
        await RefreshAsync(files, now);
    }

    /// <summary>Whether steps that it stopped before may go on.</summary>
    private static bool Resumes(Happening what) =>
        what
            is Happening.PaymentVoided
                or Happening.PaymentChargedBack
                or Happening.TakenUp
                or Happening.TakenOut
                or Happening.DateSet;

    /// <summary>Records what was said and kept elsewhere, each at its own instant up to now: it tells and moves nothing.</summary>
    public async Task RecordKeptAsync(
        ProjectFile file,
        Actor by,
        Instant now,
        IReadOnlyCollection<(Instant Happened, Happening What)> kept
    )
    {
        await AppendAsync(file, [.. kept.Select(one => RowOf(file, by, one.Happened, now, one.What))]);
        await RefreshAsync([file], now);
    }

    /// <summary>Computes all that is derived of some projects anew from their facts.</summary>
    public async Task RebuildAsync(IReadOnlyCollection<ProjectFile> files, Instant now)
    {
        await RefreshInvoicesAsync(files);
        foreach (var file in files)
            await StopStepsAsync(file, now);
        await RefreshAsync(files, now);
    }

    /// <summary>Computes standing and plan anew, because time has passed or something happened.</summary>
    private async Task RefreshAsync(IReadOnlyCollection<ProjectFile> files, Instant now)
    {
        var derived = await DerivedAsync([.. files.Select(file => file.Id)]);
        foreach (var file in files)
            Refresh(file, now, derived);
        await db.SaveChangesAsync();
    }

    /// <summary>The rows of some projects that are derived, or have columns that are.</summary>
    private sealed record Derived(
        ILookup<ProjectId, StayRow> Stays,
        ILookup<ProjectId, PlannedStepRow> Steps,
        ILookup<ProjectId, RunRow> Runs
    );

    private async Task<Derived> DerivedAsync(IReadOnlyCollection<ProjectId> ids) =>
        new(
            (await db.Stays.Where(stay => ids.Contains(stay.ProjectId)).ToListAsync()).ToLookup(s => s.ProjectId),
            (await db.PlannedSteps.Where(step => ids.Contains(step.ProjectId)).ToListAsync()).ToLookup(s =>
                s.ProjectId
            ),
            (await db.Runs.Where(run => ids.Contains(run.ProjectId)).ToListAsync()).ToLookup(r => r.ProjectId)
        );

    private void Refresh(ProjectFile file, Instant now, Derived derived)
    {
        Store(file.Row.Standing, TurnRule.Of(file.Case, now), file.Case);
        StoreStays(file, [.. derived.Stays[file.Id]]);
        var plan = Plan.Of(file.Case);
        StorePlan(file, plan, [.. derived.Steps[file.Id]]);
        foreach (var run in derived.Runs[file.Id])
        {
            run.State = Plan.StateOf(file.Case, run.Id, plan);
            var span = Plan.SpanOf(file.Case, run.Id, plan);
            (run.BeganAt, run.OverAt) = (span?.Began, span?.Over);
        }
    }

    private void StorePlan(ProjectFile file, IReadOnlyCollection<PlannedStep> plan, List<PlannedStepRow> rows)
    {
        foreach (var row in rows.Where(row => plan.All(step => !Is(row, step))))
            db.PlannedSteps.Remove(row);
        foreach (var step in plan)
        {
            var row = rows.SingleOrDefault(row => Is(row, step));
            if (row is null)
            {
                row = new()
                {
                    ProjectId = file.Id,
                    RunId = step.Ref.Run,
                    Step = step.Ref.Step,
                    Occurrence = step.Ref.Occurrence,
                };
                db.PlannedSteps.Add(row);
            }
            (row.State, row.Due, row.Since) = (step.State, step.Due, Plan.WaitsSince(file.Case, step));
        }
    }

    /// <summary>How far it came, and how long it stood where.</summary>
    private void StoreStays(ProjectFile file, List<StayRow> rows)
    {
        var passage = Passage.Of(file.Case);
        file.Row.Standing.Furthest = passage.Furthest;
        db.Stays.RemoveRange(rows.Where(row => passage.Stays.All(stay => stay.Gate != row.Gate)));
        var counted = !file.Row.Rehearsal && file.Row.Standing.Ended != EndReason.NotAnInquiry;
        foreach (var stay in passage.Stays)
        {
            var row = rows.SingleOrDefault(row => row.Gate == stay.Gate);
            if (row is null)
                db.Stays.Add(row = new() { ProjectId = file.Id, Gate = stay.Gate });
            var since = file.Case.Calendar.DateOf(stay.From);
            row.Since = stay.Until is null ? since : null;
            row.Days = stay.Until is { } until ? Period.DaysBetween(since, file.Case.Calendar.DateOf(until)) : null;
            row.Left = stay.Left;
            row.BeganAt = counted ? file.Case.History.Began : null;
        }
    }

    private Task AppendAsync(ProjectFile file, Instant now, IEnumerable<Happening> what) =>
        AppendAsync([new(file, Actor.Gesamt, now, [.. what])], now);

    private async Task AppendAsync(IReadOnlyCollection<LedgerEntry> entries, Instant now)
    {
        var rows = entries
            .Select(entry =>
                (
                    entry.File,
                    Rows: entry.What.Select(one => RowOf(entry.File, entry.By, entry.Happened, now, one)).ToList()
                )
            )
            .Where(one => one.Rows.Count > 0)
            .ToList();
        if (rows.Count == 0)
            return;
        db.Facts.AddRange(rows.SelectMany(one => one.Rows));
        await db.SaveChangesAsync();
        foreach (var (file, added) in rows)
            await LearnAsync(file, added);
    }

    private async Task AppendAsync(ProjectFile file, IReadOnlyCollection<FactRow> rows)
    {
        db.Facts.AddRange(rows);
        await db.SaveChangesAsync();
        await LearnAsync(file, rows);
    }

    private static FactRow RowOf(ProjectFile file, Actor by, Instant happened, Instant now, Happening what) =>
        new()
        {
            ProjectId = file.Id,
            Happened = happened,
            Recorded = now,
            By = by,
            Kind = FactJson.KindOf(what),
            Version = FactJson.Version,
            Payload = FactJson.Write(what),
        };

    /// <summary>Tasks, runs and details lie in rows of their own; all else is in the facts just written.</summary>
    private async Task LearnAsync(ProjectFile file, IEnumerable<FactRow> rows)
    {
        List<Fact> added = [.. rows.Select(ProjectFiles.ToCore)];
        file.Case = added.Any(fact => ChangesRows(fact.What))
            ? await ProjectFiles.ReadAsync(db, file.Row, file.Case.Calendar)
            : file.Case with
            {
                History = new History(file.History.Facts.Concat(added)),
            };
    }

    /// <summary>Ticks off what was fulfilled by it.</summary>
    private async Task FulfilAsync(LedgerEntry entry, Instant now)
    {
        var fulfilled = FulfilmentRule.Of(entry.File.Case, entry.What).ToList();
        if (fulfilled.Count == 0)
            return;
        foreach (var row in await db.Tasks.Where(task => fulfilled.Contains(task.Id)).ToListAsync())
            row.DoneAt = now;
        await db.SaveChangesAsync();
        await AppendAsync(
            [
                new(
                    entry.File,
                    Actor.Gesamt,
                    entry.Happened,
                    [.. fulfilled.Select(task => new Happening.TaskDone(task))]
                ),
            ],
            now
        );
    }

    /// <summary>Opens what was ticked off by something that is taken back, unless it is open again already.</summary>
    private async Task ReopenAsync(ProjectFile file, Instant now, IReadOnlyList<(TaskId Task, Happening By)> takenBack)
    {
        var ids = takenBack.Select(one => one.Task).ToHashSet();
        if (ids.Count == 0)
            return;
        var rows = await db.Tasks.Where(task => ids.Contains(task.Id) && task.DoneAt != null).ToListAsync();
        rows.RemoveAll(row =>
            !takenBack.Any(one =>
                one.Task == row.Id && row.DoneBy is { } by && FulfilmentRule.Is(by, one.By, row.Phase)
            )
        );
        foreach (var row in rows)
            row.DoneAt = null;
        await db.SaveChangesAsync();
        await AppendAsync(file, now, rows.Select(row => new Happening.TaskReopened(row.Id)));
    }

    private static bool ChangesRows(Happening what) =>
        what
            is Happening.TaskMade
                or Happening.TaskMoved
                or Happening.TaskRemoved
                or Happening.TaskDone
                or Happening.TaskReopened
                or Happening.RunBegan
                or Happening.RunOffered
                or Happening.RunDeclined
                or Happening.DetailKnown
                or Happening.NoteTakenBack
                or Happening.NotePutBack;

    /// <summary>A routine of the kind begins once per project, when its cause has come true.</summary>
    private async Task BeginRunsAsync(IReadOnlyCollection<ProjectFile> files, Instant now)
    {
        var kinds = files.Select(file => file.Row.KindId).ToHashSet();
        var routines = (
            await db
                .Routines.AsNoTracking()
                .Where(r => kinds.Contains(r.KindId) && !r.Off && !r.Removed && r.Trouble == "")
                .OrderBy(r => r.Position)
                .ThenBy(r => r.Id)
                .ToListAsync()
        ).ToLookup(r => r.KindId);
        foreach (var file in files)
        {
            var begun = file.Case.Runs.Select(run => run.Routine.Key).ToHashSet();
            foreach (var row in routines[file.Row.KindId].Where(row => !begun.Contains(row.Key)))
                await BeginRunAsync(file, StoreJson.ReadOnce<Routine>(row.Routine), now);
        }
    }

    private async Task BeginRunAsync(ProjectFile file, Routine routine, Instant now)
    {
        // after an end nothing begins but what an end begins
        if (file.Case.End is not null != (routine.Begins == Cause.Ended) || !Causes.Begins(file.Case, routine.Begins))
            return;
        if (Beginning.Of(file.Case, routine, now) is Beginning.Now begins)
            await BeginAsync(file, begins.Routine, now);
        else if (Beginning.Of(file.Case, routine, now) is Beginning.Offered offered)
            await OfferAsync(file, offered.Routine, now);
    }

    /// <summary>Pins a routine's steps on a project and begins it. Inside the caller's transaction, which records something after it.</summary>
    public async Task BeginAsync(ProjectFile file, Routine routine, Instant now)
    {
        var run = new RunRow
        {
            ProjectId = file.Id,
            KindId = file.Row.KindId,
            Key = routine.Key,
            Routine = StoreJson.Write(routine),
        };
        db.Runs.Add(run);
        await db.SaveChangesAsync();
        await AppendAsync(file, now, [new Happening.RunBegan(run.Id)]);
    }

    private async Task OfferAsync(ProjectFile file, Routine routine, Instant now)
    {
        var run = new RunRow
        {
            ProjectId = file.Id,
            KindId = file.Row.KindId,
            Key = routine.Key,
            Routine = StoreJson.Write(routine),
            Offered = true,
        };
        db.Runs.Add(run);
        await db.SaveChangesAsync();
        await AppendAsync(file, now, [new Happening.RunOffered(run.Id)]);
    }

    private async Task StopStepsAsync(ProjectFile file, Instant now)
    {
        var stopped = DueSteps.Stopped(file.Case, now).ToList();
        if (stopped.Count == 0)
            return;
        foreach (var letter in stopped.Select(step => step.Letter).OfType<Core.LetterId>())
            if (await db.Letters.FindAsync(letter) is { State: LetterState.Held or LetterState.PutOff } held)
                held.State = LetterState.Stopped;
        await AppendAsync(file, now, stopped.Select(step => new Happening.StepStopped(step.Ref, step.Why!.Value)));
    }

    /// <summary>What stopped steps is undone: only those still ahead go on.</summary>
    private Task ResumeStepsAsync(ProjectFile file, Instant now) =>
        AppendAsync(file, now, Resuming.Of(file.Case, now).Ahead.Select(step => new Happening.StepReplanned(step.Ref)));

    /// <summary>Whether it changes what is owed.</summary>
    public static bool IsMoney(Happening what) =>
        what
            is Happening.InvoiceIssued
                or Happening.InvoiceCredited
                or Happening.PaymentReceived
                or Happening.PaymentRefunded
                or Happening.PaymentVoided
                or Happening.PaymentChargedBack;

    private async Task RefreshInvoicesAsync(IReadOnlyCollection<ProjectFile> files)
    {
        if (files.Count == 0)
            return;
        var ids = files.Select(file => file.Id).ToList();
        var invoices = (
            await db.Invoices.Where(i => ids.Contains(i.ProjectId) && i.Sort == InvoiceSort.Invoice).ToListAsync()
        ).ToLookup(invoice => invoice.ProjectId);
        foreach (var file in files)
            RefreshInvoices(file, invoices[file.Id]);
    }

    private static void RefreshInvoices(ProjectFile file, IEnumerable<InvoiceRow> invoices)
    {
        var owed = Owed.OnEach(file.History);
        var reminded = Reminders.OfInvoices(file.Case);
        foreach (var row in invoices)
        {
            if (owed.TryGetValue(row.Id, out var open))
                row.OwedMinor = open.Minor;
            row.Reminded = reminded[row.Id].Count();
            row.RemindedAt = row.Reminded > 0 ? reminded[row.Id].Last() : null;
        }
    }

    private static bool Is(PlannedStepRow row, PlannedStep step) =>
        row.RunId == step.Ref.Run && row.Step == step.Ref.Step && row.Occurrence == step.Ref.Occurrence;

    private static void Store(StandingColumns columns, Standing standing, Case project)
    {
        (columns.Stage, columns.Turn, columns.Waits, columns.Words) = (
            standing.Stage,
            standing.Turn,
            standing.Waits,
            standing.Words
        );
        (columns.Since, columns.Nudged, columns.Until, columns.BookedAt, columns.Ended) = (
            standing.Since,
            standing.Nudged,
            standing.Until,
            standing.BookedAt,
            standing.Ended
        );
        (columns.LateSince, columns.Held, columns.HeldSince, columns.ValidUntil) = (
            standing.LateSince,
            standing.Held,
            standing.HeldSince,
            standing.ValidUntil
        );
        var price = AgreedPrice.Of(project.History);
        (columns.MainDate, columns.AgreedMinor, columns.NetMinor) = (
            project.MainDate?.Date,
            price?.Agreed.Minor,
            price?.Net.Minor
        );
        columns.Currency =
            price?.Agreed.Currency.Code ?? project.History.Last<Happening.InvoiceIssued>()?.What.Amount.Currency.Code;
        columns.PaidMinor =
            Payments.InForce(project.History).Sum(payment => payment.What.Amount.Minor)
            - Payments.Refunds(project.History).Sum(refund => refund.What.Amount.Minor);
        columns.OwedMinor = Owed.Open(project.History).Sum(open => open.Owed.Minor);
        columns.FinishedAt =
            standing.Stage == Stage.Finished ? GateRule.Read(project).Max(gate => gate.ClosedAt) : null;
        (columns.BeganAt, columns.PutAway, columns.InvoiceAt) = (
            project.History.Began,
            project.IsPutAway,
            Billing.NextAt(project)
        );
        (columns.OnTable, columns.TouchAt) = (standing.IsOnTable, project.History.LastTouch);
        columns.Milestone = MilestoneRule.LastReached(project);
        columns.ProposalOut = ProposalState.Open(project.History)?.What.Version;
        columns.Dates = StoreJson.Write(
            project
                .History.Of<Happening.DateSet>()
                .Where(set => set.What.Name != project.Kind.MainDate)
                .GroupBy(set => set.What.Name, (name, all) => new NamedDay(name, all.Last().What.Date))
                .ToList()
        );
        columns.Gates = project.Kind.Gates.Aggregate(0, (set, gate) => set | (1 << (int)gate));
        columns.AgreedBy = price?.Version;
        columns.Chases = Passage.ChasesBeforeYes(project);
        columns.Phases = StoreJson.Write(Schedule.Of(project));
        columns.ToCome = StoreJson.Write(
            Billing.Planned(project).Select(planned => new ComingPayment(planned.Due, planned.Amount.Minor)).ToList()
        );
    }
}
