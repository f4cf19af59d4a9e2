using Gesamt.Core.Projects;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Routines;

/// <summary>A planned step of any real project with what screens say beside it. The stored plan is enough for that: no facts are read.</summary>
public sealed class ToldStep
{
    /// <summary>The step as it is stored.</summary>
    public required PlannedStepRow Row { get; init; }
    public required string Title { get; init; }
    public required string Client { get; init; }

    /// <summary>The kind's rules and the run's routine, as they were pinned.</summary>
    public required string Rules { get; init; }
    public required string Routine { get; init; }

    /// <summary>The step as its routine says it.</summary>
    public Step Step => Of(Routine, Row.Step);

    public string MainDate => StoreJson.ReadOnce<KindRules>(Rules).MainDate;

    /// <summary>A step of a pinned routine.</summary>
    public static Step Of(string routine, string key) =>
        StoreJson.ReadOnce<Routine>(routine).Steps.First(step => step.Key == key);

    /// <summary>Steps of real projects, in one statement.</summary>
    public static IQueryable<ToldStep> Of(GesamtDb db) =>
        from row in db.PlannedSteps.AsNoTracking()
        join run in db.Runs on row.RunId equals run.Id
        join project in db.Projects on row.ProjectId equals project.Id
        select new ToldStep
        {
            Row = row,
            Title = project.Title,
            Client = project.Client!.Name,
            Rules = project.Pinned.Rules,
            Routine = run.Routine,
        };
}
