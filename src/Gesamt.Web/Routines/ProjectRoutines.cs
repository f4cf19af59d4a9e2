using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Routines;

/// <summary>A step to begin with.</summary>
public sealed record StepChoiceDto(string Key, string Sentence);

/// <param name="Fits">Whether there is time enough for it now.</param>
public sealed record VariantChoiceDto(string Name, string Since, bool Fits, bool Chosen);

/// <summary>A routine of the kind that has not begun on the project.</summary>
public sealed record WaitingRoutineDto(
    int Id,
    string Name,
    string Begins,
    IReadOnlyList<VariantChoiceDto> Variants,
    IReadOnlyList<StepChoiceDto> Steps,
    bool Again
);

/// <param name="Pending">Steps still to come.</param>
public sealed record RunningRoutineDto(string Name, string State, int Pending);

/// <param name="Pending">Steps still to come over all routines, and letters that go out later.</param>
/// <param name="ToGoOn">Steps that were stopped by hand and still lie ahead.</param>
public sealed record ProjectRoutinesDto(
    IReadOnlyList<RunningRoutineDto> Runs,
    IReadOnlyList<WaitingRoutineDto> Waiting,
    int Pending,
    int ToGoOn
);

/// <param name="LeaveOut">Keys of steps that do not apply.</param>
public sealed record BeginRoutineDto(int Routine, string? Variant, string[] LeaveOut);

/// <summary>The variant of a routine the owner chose.</summary>
public sealed record ChooseVariantDto(int Routine, string Variant);

/// <param name="Missed">What was missed meanwhile and stays where it is.</param>
public sealed record GoOnDto(int Ahead, IReadOnlyList<string> Missed);

/// <summary>The routines of one project: what runs, what will, and the one act that stops all of it.</summary>
public static class ProjectRoutines
{
    public static void MapProjectRoutines(this RouteGroupBuilder api)
    {
        var project = api.MapGroup("/projects/{id:long}");
        project.MapGet("/routines", (long id, Desk desk) => OfAsync(desk, new(id)));
        project.MapPost(
            "/routines/begin",
            async (long id, BeginRoutineDto begin, Desk desk) =>
            {
                await BeginAsync(desk, new(id), begin);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/routines/variant",
            async (long id, ChooseVariantDto choose, Desk desk) =>
            {
                await ChooseAsync(desk, new(id), choose);
                return TypedResults.NoContent();
            }
        );
        project.MapPost("/stop-pending", (long id, Desk desk) => StopAllAsync(desk, new(id)));
        project.MapPost("/go-on", (long id, Desk desk) => GoOnAsync(desk, new(id)));
        project.MapPost(
            "/asked",
            (long id, AskedAnswerDto answer, Desk desk) => Asked.AnswerAsync(desk, new(id), answer)
        );
        project.MapPost(
            "/asked/again",
            async (long id, AskAgainDto again, Desk desk) =>
            {
                await Asked.AskAgainAsync(desk, new(id), again);
                return TypedResults.NoContent();
            }
        );
    }

    private static async Task<ProjectRoutinesDto> OfAsync(Desk desk, ProjectId id)
    {
        var file = await desk.OpenAsync(id);
        var names = (await RoutineNames.OfAsync(desk)).For(file.Case.Kind.MainDate);
        var plan = Plan.Of(file.Case);
        var runs = file
            .Case.Runs.OrderBy(run => run.Id.Value)
            .Select(run => (run, Steps: plan.Where(step => step.Ref.Run == run.Id).ToList()))
            .Where(r => r.Steps.Count > 0)
            .Select(r => new RunningRoutineDto(
                r.run.Routine.Name,
                StateOf(desk, r.Steps),
                r.Steps.Count(step => step.IsPending)
            ))
            .ToList();
        var begun = file.Case.Runs.Select(run => run.Routine.Key).ToHashSet();
        var rows = await desk
            .Db.Routines.AsNoTracking()
            .Where(r => r.KindId == file.Row.KindId && !r.Removed && r.Trouble == "")
            .OrderBy(r => r.Position)
            .ThenBy(r => r.Id)
            .ToListAsync();
        return new(
            runs,
            [.. rows.Select(row => Waiting(desk, file, names, row, begun.Contains(row.Key)))],
            plan.Count(step => step.IsPending) + await LaterAsync(desk, id).CountAsync(),
            ByHand(file, desk).Ahead
        );
    }

    private static string StateOf(Desk desk, List<PlannedStep> steps) =>
        steps.Any(s => s.State == StepState.Held) ? "waits for your OK"
        : steps.Where(s => s.State == StepState.Planned).Min(s => s.Due) is { } due
            ? $"next {desk.Short(desk.Calendar.DateOf(due))}"
        : steps.FirstOrDefault(s => s is { State: StepState.Parked, WaitsFor: not null }) is { } favour
            ? $"waits until {favour.WaitsFor}"
        : steps.Any(s => s.State == StepState.Parked) ? "waits for a date or a cause"
        : steps.LastOrDefault(s => s.State == StepState.Stopped) is { Why: { } why }
            ? $"stopped: {RoutineWords.Word(why)}"
        : "finished";

    private static WaitingRoutineDto Waiting(
        Desk desk,
        ProjectFile file,
        RoutineNames names,
        RoutineRow row,
        bool again
    )
    {
        var routine = StoreJson.Read<Routine>(row.Routine);
        var chosen = file.History.Last<Happening.VariantChosen>(choice => choice.Routine == row.Key)?.What.Variant;
        var fitting = file.Case.MainDate is { } date
            ? Beginning.Fitting(desk.Calendar, routine.Variants, desk.Today, date.Date)
            : null;
        return new(
            row.Id,
            routine.Name,
            row.Off ? "off; begins by hand"
                : again ? "has run; begins again by hand"
                : $"begins with {RoutineNames.BeginsWords(routine.Begins)}",
            [
                .. routine
                    .Variants.OrderByDescending(v => v.MonthsAhead)
                    .Select(v => new VariantChoiceDto(
                        v.Name,
                        file.Case.MainDate is { } main
                            ? $"for a beginning up to {DateWords.Short(desk.Calendar.Add(main.Date, Span.Months(-v.MonthsAhead)), desk.Today)}"
                            : $"at least {v.MonthsAhead} months ahead",
                        fitting is not null && v.MonthsAhead <= fitting.MonthsAhead,
                        v.Name == (chosen ?? fitting?.Name)
                    )),
            ],
            [.. routine.Steps.Select(step => new StepChoiceDto(step.Key, RoutineWords.Sentence(step, names)))],
            again
        );
    }

    /// <summary>Begins a routine because the owner says so, without the parts that do not apply.</summary>
    /// <exception cref="RefusedException">The project has ended.</exception>
    private static async Task BeginAsync(Desk desk, ProjectId id, BeginRoutineDto begin)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            if (file.Case.End is not null)
                throw new RefusedException("The project has ended. Take it up again first.");
            var row =
                await desk
                    .Db.Routines.AsNoTracking()
                    .SingleOrDefaultAsync(r => r.Id == begin.Routine && r.KindId == file.Row.KindId && !r.Removed)
                ?? throw new InvalidException(("routine", "This project's kind has no such routine."));
            if (row.Trouble.Length > 0)
                throw new RefusedException($"It cannot run yet. {row.Trouble.Replace('\n', ' ')}");
            var routine = StoreJson.Read<Routine>(row.Routine);
            if (!routine.Variants.IsEmpty)
                routine = routine.Of(
                    routine.Variants.FirstOrDefault(v => v.Name == begin.Variant)
                        ?? throw new InvalidException(
                            ("variant", $"Choose one of: {string.Join(", ", routine.Variants.Select(v => v.Name))}.")
                        )
                );
            routine = routine with { Steps = [.. routine.Steps.Where(step => !begin.LeaveOut.Contains(step.Key))] };
            if (routine.Steps.IsEmpty)
                throw new InvalidException(("leaveOut", "Leave at least one step in."));
            var before = await desk.Db.Runs.CountAsync(r =>
                r.ProjectId == id && (r.Key == row.Key || r.Key.StartsWith(row.Key + "#"))
            );
            await act.Ledger.BeginAsync(
                file,
                before == 0 ? routine : routine with { Key = $"{row.Key}#{before + 1}" },
                desk.Now
            );
            await act.RecordAsync(file, Actor.Owner);
        });
    }

    private static async Task ChooseAsync(Desk desk, ProjectId id, ChooseVariantDto choose)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var routine = StoreJson.Read<Routine>((await RoutineNames.RowAsync(desk, choose.Routine)).Routine);
            if (routine.Variants.All(v => v.Name != choose.Variant))
                throw new InvalidException(
                    ("variant", $"Choose one of: {string.Join(", ", routine.Variants.Select(v => v.Name))}.")
                );
            await act.RecordAsync(file, Actor.Owner, new Happening.VariantChosen(routine.Key, choose.Variant));
        });
    }

    /// <summary>Stops every step that is still to come, takes back what has not left the house, and leaves out what was to go later.</summary>
    private static async Task<CountDto> StopAllAsync(Desk desk, ProjectId id)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var pending = Plan.Of(file.Case).Where(step => step.IsPending).ToList();
            var later = await LaterAsync(desk, id).Include(l => l.Files).ToListAsync();
            foreach (var letter in later)
                if (
                    await desk.Db.Outbox.SingleOrDefaultAsync(o =>
                        o.LetterId == letter.Id && o.State == OutboxState.Claimed && o.HandOverBegan == null
                    ) is
                    { } outgoing
                )
                    LettersOut.TakeBack(act, letter, outgoing);
            foreach (
                var letter in await desk
                    .Db.Letters.Where(l =>
                        l.ProjectId == id
                        && l.Step != null
                        && (l.State == LetterState.Held || l.State == LetterState.PutOff)
                    )
                    .ToListAsync()
            )
                letter.State = LetterState.Stopped;
            await act.RecordAsync(
                file,
                Actor.Owner,
                [.. pending.Select(step => new Happening.StepStopped(step.Ref, StopRule.ByHand))]
            );
            return new CountDto(pending.Count + later.Count);
        });
    }

    /// <summary>What was stopped by hand goes on where it still lies ahead; the rest is named.</summary>
    private static async Task<GoOnDto> GoOnAsync(Desk desk, ProjectId id)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var resuming = Resuming.OfStoppedByHand(file.Case, desk.Now);
            var names = await RoutineNames.OfAsync(desk);
            await act.RecordAsync(
                file,
                Actor.Owner,
                [
                    .. resuming.Skipped.Select(step => new Happening.StepSkipped(step.Ref)),
                    .. resuming.Ahead.Select(step => new Happening.StepReplanned(step.Ref)),
                ]
            );
            return new GoOnDto(
                resuming.Ahead.Length,
                [.. resuming.Missed.Select(step => RoutineWords.What(step.Step.Action, names))]
            );
        });
    }

    private static (int Ahead, int Missed) ByHand(ProjectFile file, Desk desk) =>
        Resuming.OfStoppedByHand(file.Case, desk.Now) is var resuming
            ? (resuming.Ahead.Length, resuming.Missed.Length)
            : default;

    private static IQueryable<LetterRow> LaterAsync(Desk desk, ProjectId id) =>
        desk.Db.Letters.Where(l => l.ProjectId == id && l.State == LetterState.Ready && l.GoesAt != null);
}
