using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Gesamt.Web.Routines;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <summary>Keeps beside each routine what keeps it off. Looked over whenever something a routine can name was changed or taken away.</summary>
public static class RoutineTrouble
{
    /// <summary>Looks again which routines name what is not there any more, and keeps those off.</summary>
    public static async Task RefreshAsync(Desk desk)
    {
        await desk.Db.SaveChangesAsync();
        var names = await RoutineNames.OfAsync(desk);
        foreach (var row in await desk.Db.Routines.Where(r => !r.Removed).ToListAsync())
            row.Trouble = Words(StoreJson.Read<Routine>(row.Routine), names);
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>What is wrong, a line each; empty when nothing is.</summary>
    public static string Words(Routine routine, RoutineNames names) =>
        string.Join(
            '\n',
            RoutineRule
                .MistakesIn(routine, names)
                .Select(mistake => mistake.Step is { } at ? $"Step {at + 1}: {mistake.Words}" : mistake.Words)
                .Distinct()
        );
}
