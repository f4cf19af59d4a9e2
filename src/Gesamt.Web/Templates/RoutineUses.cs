using Gesamt.Core.Projects;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <summary>Which routines use a letter, a form or a task list.</summary>
public static class RoutineUses
{
    /// <summary>“Proposal of Mural” by the key that its steps name. A routine that cannot be read uses nothing; its list says that it cannot be told.</summary>
    public static async Task<ILookup<string, string>> OfAsync(Desk desk, Func<StepAction, string?> key) =>
        (
            await desk
                .Db.Routines.AsNoTracking()
                .Where(r => !r.Removed)
                .Join(
                    desk.Db.Kinds.Where(k => !k.Removed),
                    r => r.KindId,
                    k => k.Id,
                    (r, k) => new { r.Routine, k.Name }
                )
                .ToListAsync()
        )
            .Select(r => (r.Name, Routine: desk.Tell(() => StoreJson.Read<Routine>(r.Routine), () => null!)))
            .Where(r => r.Routine is not null)
            .SelectMany(r =>
                r.Routine.Steps.Select(step => (Key: key(step.Action), Name: $"{r.Routine.Name} of {r.Name}"))
                    .Where(pair => pair.Key is not null)
                    .Distinct()
            )
            .ToLookup(pair => pair.Key!, pair => pair.Name);
}
