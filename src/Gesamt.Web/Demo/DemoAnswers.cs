using Gesamt.Core.Projects;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Routines;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Demo;

/// <summary>What the owner of the demo said at the time to what routines asked.</summary>
public static class DemoAnswers
{
    // letters of the inquiry and the proposal are answered by the demo's own events
    private static readonly string[] Usual =
    [
        "contract-waiting",
        "look-it-over",
        "feedback",
        "neighbours",
        "start-questions",
    ];

    /// <summary>Sends such letters, has seen what was told, and begins no follow-on.</summary>
    public static async Task GiveAsync(IServiceProvider services)
    {
        await using var scope = services.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        foreach (
            var template in await desk
                .Db.Letters.Where(l => l.State == LetterState.Held && Usual.Contains(l.Template))
                .Select(l => l.Template!)
                .Distinct()
                .ToListAsync()
        )
            await LettersOut.ReleaseAllAsync(desk, template);
        desk.Db.ChangeTracker.Clear();
        foreach (var asked in await Asked.AllAsync(desk, await RoutineNames.OfAsync(desk)))
        {
            desk.Db.ChangeTracker.Clear();
            if (asked.Step is null || Answer(await desk.OpenAsync(new(asked.Project)), asked) is not { } yes)
                continue;
            desk.Db.ChangeTracker.Clear();
            await Asked.AnswerAsync(desk, new(asked.Project), new(asked.Run, asked.Step, asked.Occurrence, yes));
        }
    }

    private static bool? Answer(Store.Projects.ProjectFile file, AskedDto asked) =>
        file
            .Case.Runs.First(run => run.Id.Value == asked.Run)
            .Routine.Steps.First(step => step.Key == asked.Step)
            .Action switch
        {
            StepAction.TellMe => true,
            StepAction.FollowOn => false,
            _ => null,
        };
}
