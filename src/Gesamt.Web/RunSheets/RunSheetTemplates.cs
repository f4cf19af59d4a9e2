using Gesamt.Core.Routines;
using Gesamt.Core.Work;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.RunSheets;

/// <summary>Run sheets kept to be laid on a date. What was laid is the project’s own from then on.</summary>
public static class RunSheetTemplates
{
    public static async Task<IReadOnlyList<RunSheetTemplateDto>> AllAsync(Desk desk) =>
        [
            .. (await StandingAsync(desk.Db)).Select(row => new RunSheetTemplateDto(
                row.Key,
                row.Name,
                row.Edition,
                desk.Tell(() => RunItems.Of(RunItems.Read(row.Items)), () => [])
            )),
        ];

    /// <summary>Each with the days it would have on this project’s date.</summary>
    public static async Task<IReadOnlyList<LaidSheetDto>> LaidAsync(Desk desk, ProjectFile file)
    {
        var mine = await ProjectRunSheet.RowAsync(desk, file);
        var day = file.Case.DateNamed(mine?.DateName ?? file.Case.Kind.MainDate)?.Date;
        return
        [
            .. (await StandingAsync(desk.Db)).Select(row => new LaidSheetDto(
                row.Key,
                row.Name,
                desk.Tell(
                    () =>
                        RunItems.Copied(
                            RunSheetRule.Copy(
                                new(day, file.Case.Kind.GuestsEarlier, RunItems.Read(row.Items)),
                                RunReader.Me
                            )
                        ),
                    () => []
                )
            )),
        ];
    }

    private static Task<List<RunSheetTemplateRow>> StandingAsync(GesamtDb db) =>
        db.RunSheetTemplates.AsNoTracking().Where(t => !t.Removed).OrderBy(t => t.Name).ToListAsync();

    internal static async Task<RunSheetTemplateRow> OneAsync(GesamtDb db, string key) =>
        await db.RunSheetTemplates.SingleOrDefaultAsync(t => t.Key == key && !t.Removed)
        ?? throw new MissingException("run sheet");

    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    /// <exception cref="StaleException">It was saved in another window meanwhile.</exception>
    public static Task<string> SaveAsync(Desk desk, string? key, SaveRunSheetTemplateDto save) =>
        desk.ActAsync(async act =>
        {
            var name = TypedText.Of("name", save.Name, 1, 80, "A name");
            var items = RunItems.Read(save.Items);
            if (items.IsEmpty)
                throw new InvalidException(("items", "Write at least one item."));
            var row = key is null ? null : await OneAsync(act.Db, key);
            if (row is null)
                act.Db.RunSheetTemplates.Add(
                    row = new()
                    {
                        Key = await NewKeyAsync(act.Db, name),
                        Name = name,
                        Items = "[]",
                    }
                );
            else if (row.Edition != save.Edition)
                throw new StaleException(
                    new SaveRunSheetTemplateDto(row.Name, row.Edition, [.. RunItems.Of(RunItems.Read(row.Items))])
                );
            (row.Name, row.Items) = (name, RunItems.Write(items));
            row.Edition++;
            return row.Key;
        });

    public static Task RemoveAsync(Desk desk, string key, bool removed) =>
        desk.ActAsync(async act =>
            (
                await act.Db.RunSheetTemplates.SingleOrDefaultAsync(t => t.Key == key)
                ?? throw new MissingException("run sheet")
            ).Removed = removed
        );

    private static async Task<string> NewKeyAsync(GesamtDb db, string name)
    {
        var key = RoutineText.KeyOf(name);
        return await db.RunSheetTemplates.AnyAsync(t => t.Key == key) ? $"{key}-{Codes.New()[..6]}" : key;
    }
}
