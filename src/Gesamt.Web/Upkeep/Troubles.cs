using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Upkeep;

/// <summary>What is wrong with the house, for the owner to see on Today.</summary>
public static class Troubles
{
    private static readonly Func<GesamtDb, Task<UpkeepRow?>> Upkept = EF.CompileAsyncQuery(
        (GesamtDb db) => db.Upkeep.AsNoTracking().SingleOrDefault()
    );

    /// <summary>Sentences that say what is wrong and what to do; none when all is well.</summary>
    public static async Task<IReadOnlyList<string>> OfAsync(Desk desk, KeyRing ring, Disk disk)
    {
        List<string> troubles = [.. ring.Troubles, .. disk.Troubles];
        if (await Upkept(desk.Db) is not { } row)
            return troubles;
        if (row.BackupProblem is { } problem)
            troubles.Add(
                $"The nightly backup failed: {problem.TrimEnd('.')}. {(row.BackupAt is { } last ? $"The newest one is of {desk.Short(desk.Calendar.DateOf(last))}." : "There is none yet.")} It is tried again every hour."
            );
        var changed = row.Changed.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        if (changed.Length == 0)
            return troubles;
        var names = await desk
            .Db.Files.AsNoTracking()
            .Where(f => changed.Contains(f.Hash))
            .Select(f => f.Name)
            .Concat(desk.Db.LetterFiles.Where(f => changed.Contains(f.Hash)).Select(f => f.Name))
            .Distinct()
            .OrderBy(name => name)
            .Take(4)
            .ToListAsync();
        troubles.Add(
            $"{(changed.Length == 1 ? "A kept file is not what was kept any more" : $"{changed.Length} kept files are not what was kept any more")}{(names.Count > 0 ? $": {string.Join(", ", names)}{(changed.Length > names.Count ? " and others" : "")}" : "")}. Look at the disk, and fetch {(changed.Length == 1 ? "it" : "them")} from a backup."
        );
        return troubles;
    }
}
