using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Gesamt.Core.Texts;
using Gesamt.Core.Turns;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Gesamt.Web.WhatHappened;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Routines;

/// <summary>Something a routine asks that is not a letter.</summary>
/// <param name="Words">The question.</param>
/// <param name="Yes">What the button says that does it.</param>
/// <param name="No">What the button says that leaves it; null where there is nothing to leave.</param>
/// <param name="LastSaid">What the client said last, where the screen knows it.</param>
/// <param name="Step">Null for a routine that is offered as a whole.</param>
public sealed record AskedDto(
    long Project,
    string Title,
    string Client,
    string Words,
    string Why,
    string? LastSaid,
    string Yes,
    string? No,
    long Run,
    string? Step,
    int Occurrence
);

/// <summary>The owner’s yes or no to what a routine asks.</summary>
public sealed record AskedAnswerDto(long Run, string? Step, int Occurrence, bool Yes);

/// <param name="Project">A project that was begun by it.</param>
/// <param name="CanAskAgain">Nothing was done by it that anybody else sees, so that it can be taken back.</param>
public sealed record AskedResultDto(long? Project, bool CanAskAgain);

/// <summary>What was answered and shall be asked again.</summary>
public sealed record AskAgainDto(long Run, string? Step, int Occurrence);

/// <summary>What routines ask besides letters, and the owner's answers.</summary>
public static class Asked
{
    private const int MostSteps = 100,
        MostOffers = 50;

    /// <exception cref="RefusedException">It waits for no answer any more.</exception>
    public static async Task<AskedResultDto> AnswerAsync(Desk desk, ProjectId project, AskedAnswerDto answer)
    {
        if (answer.Step is null)
            return await AnswerOfferAsync(desk, project, new(answer.Run), answer.Yes);
        var reference = new StepRef(new(answer.Run), answer.Step, answer.Occurrence);
        if (answer.Yes && Held(await desk.OpenAsync(project), reference).Step.Action is StepAction.EndAsQuiet)
        {
            desk.Db.ChangeTracker.Clear();
            // the end stops what is still planned, this step too
            await Happened.RecordAsync(desk, project, new(HappenedSort.GoneQuiet), "", "");
            return new(null, CanAskAgain: false);
        }
        desk.Db.ChangeTracker.Clear();
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var step = Held(file, reference);
            ProjectId? made = null;
            if (!answer.Yes)
                await act.RecordAsync(file, Actor.Owner, new Happening.StepSkipped(reference));
            else
            {
                if (step.Step.Action is StepAction.FollowOn follow)
                    made = await FollowOnAsync(act, file, follow.Kind);
                await StepActions.DoAsync(act, file, step, Actor.Owner);
            }
            return new AskedResultDto(made?.Value, !answer.Yes || CanBeTakenBack(step.Step.Action));
        });
    }

    // what was only told, and tasks that nobody but the owner sees; all else has an effect outside
    private static bool CanBeTakenBack(StepAction action) => action is StepAction.TellMe or StepAction.Tasks;

    /// <summary>Takes the owner's answer back: it is asked again, and tasks it made are gone.</summary>
    /// <exception cref="RefusedException">It was not answered, or more was done by the answer than can be taken back.</exception>
    public static async Task AskAgainAsync(Desk desk, ProjectId project, AskAgainDto again)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (again.Step is { } key)
            {
                var reference = new StepRef(new(again.Run), key, again.Occurrence);
                var step = Plan.Of(file.Case).FirstOrDefault(step => step.Ref == reference);
                var isDone = step is { State: StepState.Done } && CanBeTakenBack(step.Step.Action);
                var isLetters = await desk.Db.Letters.AnyAsync(l =>
                    l.RunId == reference.Run && l.Step == reference.Step && l.Occurrence == reference.Occurrence
                );
                if (isLetters || !isDone && !file.History.WasSkippedByOwner(reference))
                    throw new RefusedException("This cannot be taken back.");
                var gone = isDone ? await TakeOutAsync(desk, MadeWith(file.History, reference)) : [];
                await act.RecordAsync(file, Actor.Owner, [.. gone, new Happening.StepAsksAgain(reference)]);
                return;
            }
            var run = new RunId(again.Run);
            if (file.History.Facts.LastOrDefault(fact => RunOf(fact.What) == run)?.What is not Happening.RunDeclined)
                throw new RefusedException("This cannot be taken back.");
            var row = await desk.Db.Runs.SingleAsync(r => r.Id == run && r.ProjectId == project);
            row.Offered = true;
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.RunOffered(run));
        });
    }

    /// <summary>The tasks that were made in one act with a step.</summary>
    private static IReadOnlyList<TaskId> MadeWith(History history, StepRef step)
    {
        var done = history.Last<Happening.StepDone>(done => done.Step == step)!.Value.Fact;
        return
        [
            .. history
                .Facts.TakeWhile(fact => fact.Id != done.Id)
                .Reverse()
                .TakeWhile(fact => fact.What is Happening.TaskMade && fact.Recorded == done.Recorded)
                .Select(fact => ((Happening.TaskMade)fact.What).Task),
        ];
    }

    private static async Task<IReadOnlyList<Happening>> TakeOutAsync(Desk desk, IReadOnlyList<TaskId> made)
    {
        var tasks = await desk.Db.Tasks.Where(t => made.Contains(t.Id) && !t.Removed).ToListAsync();
        if (tasks.Any(task => task.DoneAt is not null))
            throw new RefusedException("One of these tasks is done already: take out the others one by one.");
        foreach (var task in tasks)
            task.Removed = true;
        await desk.Db.SaveChangesAsync();
        return [.. tasks.Select(task => new Happening.TaskRemoved(task.Id))];
    }

    private static RunId? RunOf(Happening what) =>
        what switch
        {
            Happening.RunOffered offered => offered.Run,
            Happening.RunDeclined declined => declined.Run,
            Happening.RunBegan began => began.Run,
            _ => null,
        };

    /// <summary>A project of another kind with the same client, at its beginning.</summary>
    private static async Task<ProjectId> FollowOnAsync(Act act, ProjectFile file, string kindKey)
    {
        var kind =
            await act.Db.Kinds.AsNoTracking().SingleOrDefaultAsync(k => k.Key == kindKey && !k.Removed)
            ?? throw new RefusedException("This kind of work is not there any more.");
        var row = await Inquiry.AddAsync(
            act.Desk,
            kind.Id,
            file.Row.Client!,
            new($"{kind.Name} for {file.Row.Title}", file.Row.Source, null),
            file.Row.Rehearsal
        );
        await act.RecordAsync(
            await act.OpenAsync(row.Id),
            Actor.Owner,
            new Happening.InquiryCame(null),
            new Happening.MarkedFit()
        );
        await act.RecordAsync(file, Actor.Owner, new Happening.FollowedOn(row.Id));
        return row.Id;
    }

    private static async Task<AskedResultDto> AnswerOfferAsync(Desk desk, ProjectId project, RunId run, bool yes)
    {
        return await desk.ActAsync(async act =>
        {
            var row =
                await desk.Db.Runs.SingleOrDefaultAsync(r => r.Id == run && r.ProjectId == project && r.Offered)
                ?? throw new RefusedException("This is not offered any more.");
            row.Offered = false;
            await desk.Db.SaveChangesAsync();
            await act.RecordAsync(
                await desk.OpenAsync(project),
                Actor.Owner,
                yes ? new Happening.RunBegan(run) : new Happening.RunDeclined(run)
            );
            return new AskedResultDto(null, CanAskAgain: !yes);
        });
    }

    private static PlannedStep Held(ProjectFile file, StepRef reference) =>
        Plan.Of(file.Case)
            .FirstOrDefault(step => step is { State: StepState.Held, Letter: null } && step.Ref == reference)
        ?? throw new RefusedException("Something happened meanwhile: this is not asked any more.");

    private static readonly Func<GesamtDb, Task<List<ToldStep>>> HeldSteps = Prepared.Rows(
        (GesamtDb db) =>
            ToldStep
                .Of(db)
                .Where(told =>
                    told.Row.State == StepState.Held
                    && !db.Letters.Any(l =>
                        l.RunId == told.Row.RunId
                        && l.Step == told.Row.Step
                        && l.Occurrence == told.Row.Occurrence
                        && (l.State == LetterState.Held || l.State == LetterState.Ready)
                    )
                )
                .OrderBy(told => told.Row.Due)
                .Take(MostSteps)
    );

    /// <summary>All that is asked over all projects: held steps that carry no letter, and routines that are offered.</summary>
    public static async Task<IReadOnlyList<AskedDto>> AllAsync(Desk desk, RoutineNames names)
    {
        var held = await HeldSteps(desk.Db);
        var offered = await Offers(desk.Db);
        return
        [
            .. held.Select(told =>
                desk.Tell(
                    () => Of(desk, told, names.For(told.MainDate)),
                    () => Broken(told.Row.ProjectId, told.Row.RunId, told.Row.Step, told.Row.Occurrence)
                )
            ),
            .. offered.Select(run => desk.Tell(() => Of(run), () => Broken(run.Project, run.Id, null, 0))),
        ];

        static AskedDto Broken(ProjectId project, RunId run, string? step, int occurrence) =>
            new(project.Value, "", "", Untold.Words, Untold.Detail, null, "Do it", "Skip", run.Value, step, occurrence);
    }

    /// <summary>A routine that is offered as a whole.</summary>
    private sealed record Offered(
        RunId Id,
        string Routine,
        ProjectId Project,
        string Title,
        string Client,
        string Rules
    );

    private static readonly Func<GesamtDb, Task<List<Offered>>> Offers = Prepared.Rows(
        (GesamtDb db) =>
            (
                from run in db.Runs.AsNoTracking()
                where run.Offered
                join project in db.Projects on run.ProjectId equals project.Id
                where
                    project.Standing.Ended == null
                    && !project.Standing.PutAway
                    && project.Standing.Stage != Stage.Finished
                orderby run.Id
                select new Offered(
                    run.Id,
                    run.Routine,
                    project.Id,
                    project.Title,
                    project.Client!.Name,
                    project.Pinned.Rules
                )
            ).Take(MostOffers)
    );

    private static AskedDto Of(Offered run) =>
        new(
            run.Project.Value,
            run.Title,
            run.Client,
            $"Begin “{StoreJson.ReadOnce<Routine>(run.Routine).Name}”?",
            $"the {StoreJson.ReadOnce<KindRules>(run.Rules).MainDate} is nearer than it asks for",
            null,
            "Begin it",
            "Leave it",
            run.Id.Value,
            null,
            0
        );

    private static AskedDto Of(Desk desk, ToldStep told, IRoutineNames names)
    {
        var step = told.Step;
        var (words, yes, no) = step.Action switch
        {
            StepAction.EndAsQuiet => ("End it as gone quiet?", "End it", "Keep it open"),
            StepAction.TellMe tell => (tell.Words, "Seen", null),
            StepAction.FollowOn => ($"Begin {RoutineWords.What(step.Action, names)}?", "Begin it", "Not now"),
            StepAction.Tasks => ($"Make {RoutineWords.What(step.Action, names)}?", "Make them", "Skip"),
            StepAction.Invoice => ("Send the next agreed invoice?", "Send it", "Skip"),
            _ => ($"{ShortText.Capital(RoutineWords.What(step.Action, names))}?", "Do it", (string?)"Skip"),
        };
        return new(
            told.Row.ProjectId.Value,
            told.Title,
            told.Client,
            words,
            Why(desk, told, names),
            null,
            yes,
            no,
            told.Row.RunId.Value,
            told.Row.Step,
            told.Row.Occurrence
        );
    }

    private static string Why(Desk desk, ToldStep told, IRoutineNames names)
    {
        if (told.Step.Action is not StepAction.EndAsQuiet)
            return RoutineWords.Why(told.Step.When, names);
        return told.Row.Since is { } at
            ? $"no word since the last letter {Core.Calendar.Age.Of(at, desk.Now, desk.Calendar.Zone).Long} ago"
            : "";
    }
}
