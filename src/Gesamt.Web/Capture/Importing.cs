using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Store.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Gesamt.Web.Papers;
using Gesamt.Web.Words;
using Microsoft.AspNetCore.Mvc;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Capture;

/// <summary>The number of a kept table.</summary>
public sealed record ImportIdDto(int Id);

/// <param name="Kept">Projects that went on since and were left as they are.</param>
public sealed record ImportUndoneDto(int Removed, int Kept);

/// <summary>Does the taking over in the background, some rows a transaction, so that its progress is seen and a stop loses nothing.</summary>
public sealed class Importing(IServiceScopeFactory scopes, FileVault vault, Live live, ILogger<Importing> log)
{
    // few enough that whoever else writes meanwhile waits for a moment only, also on a busy machine
    private const int Batch = 50;

    public static void MapImport(RouteGroupBuilder api)
    {
        api.MapPost(
                "/imports",
                async (string name, Desk desk, FileVault vault, HttpContext http, CancellationToken stop) =>
                    new ImportIdDto(await Import.BeginAsync(desk, vault, name, http.Request.Body, stop))
            )
            .WithMetadata(new RequestSizeLimitAttribute(20 * 1024 * 1024))
            .Accepts<byte[]>("application/octet-stream");
        api.MapGet(
            "/imports",
            async (Desk desk) =>
                (await desk.Db.Imports.AsNoTracking().OrderByDescending(i => i.Id).Take(20).ToListAsync())
                    .Select(i => new ImportDoneDto(i.Id, i.Name, i.State, i.Made, desk.Precisely(i.At)))
                    .ToList()
        );
        api.MapGet("/imports/{id:int}", (int id, Desk desk, FileVault vault) => Import.OfAsync(desk, vault, id));
        api.MapPost(
                "/imports/{id:int}/beside",
                (int id, string path, bool? letters, Desk desk, HttpContext http, CancellationToken stop) =>
                    HandingIn.AddAsync(desk, id, path, letters ?? false, http.Request.Body, stop)
            )
            .WithMetadata(new RequestSizeLimitAttribute(HandingIn.MostBytes))
            .Accepts<byte[]>("application/octet-stream");
        api.MapDelete("/imports/{id:int}/beside", (int id, Desk desk) => HandingIn.TakeAwayAsync(desk, id));
        api.MapPost(
            "/imports/{id:int}/preview",
            (int id, MatchingDto matching, Desk desk, FileVault vault) => Import.OfAsync(desk, vault, id, matching)
        );
        api.MapPost(
            "/imports/{id:int}/run",
            async (int id, MatchingDto matching, Desk desk, FileVault vault, Importing importing) =>
            {
                await Import.OfAsync(desk, vault, id, matching);
                if (
                    await desk
                        .Db.Imports.Where(i => i.Id == id && i.State == ImportState.Matching)
                        .ExecuteUpdateAsync(set =>
                            set.SetProperty(i => i.State, ImportState.Running)
                                .SetProperty(i => i.Matching, StoreJson.Write(matching))
                        ) == 0
                )
                    throw new RefusedException("This table was taken over already.");
                importing.Begin(id);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/imports/{id:int}/rest",
            async (int id, Desk desk, Importing importing) =>
            {
                await Import.OneAsync(desk, id);
                if (
                    await desk
                        .Db.Imports.Where(i => i.Id == id && i.State == ImportState.Failed)
                        .ExecuteUpdateAsync(set =>
                            set.SetProperty(i => i.State, ImportState.Running)
                                .SetProperty(i => i.Problem, (string?)null)
                        ) == 0
                )
                    throw new RefusedException("It did not stop in the middle: there is no rest to take over.");
                importing.Begin(id);
                return TypedResults.NoContent();
            }
        );
        api.MapPost("/imports/{id:int}/undo", (int id, Importing importing) => importing.UndoAsync(id));
    }

    /// <summary>Goes on with what a stop interrupted; called at the start.</summary>
    public async Task ResumeAsync()
    {
        foreach (
            var id in await InScopeAsync(desk =>
                desk.Db.Imports.Where(i => i.State == ImportState.Running).Select(i => i.Id).ToListAsync()
            )
        )
            Begin(id);
    }

    private const string Stopped =
        "It stopped in the middle. What was taken over until then is kept: take over the rest, or take all of it back.";

    private void Begin(int id) =>
        _ = Task.Run(async () =>
        {
            try
            {
                var (all, matching) = await InScopeAsync(desk => ReadAsync(desk, id));
                while (await InScopeAsync(desk => BatchAsync(desk, id, all, matching)))
                    live.ChangedAll();
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "Import {Import} stopped", id);
                var problem = $"{HouseTrouble.NameOf(e)}{Stopped}";
                await InScopeAsync(desk =>
                    desk.Db.Imports.Where(i => i.Id == id)
                        .ExecuteUpdateAsync(set =>
                            set.SetProperty(i => i.State, ImportState.Failed).SetProperty(i => i.Problem, problem)
                        )
                );
            }
            live.ChangedAll();
        });

    private async Task<T> InScopeAsync<T>(Func<Desk, Task<T>> what)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await what(scope.ServiceProvider.GetRequiredService<Desk>());
    }

    private async Task<(IReadOnlyList<ImportRowRead> Rows, MatchingDto Matching)> ReadAsync(Desk desk, int id)
    {
        var import = await desk.Db.Imports.AsNoTracking().SingleAsync(i => i.Id == id);
        var matching = StoreJson.Read<MatchingDto>(import.Matching);
        return (await Import.ReadAllAsync(desk, await Import.TableAsync(vault, import), matching), matching);
    }

    /// <summary>The next rows in one transaction; false once all are done.</summary>
    private static async Task<bool> BatchAsync(
        Desk desk,
        int id,
        IReadOnlyList<ImportRowRead> all,
        MatchingDto matching
    )
    {
        var first = await desk.Db.Imports.AsNoTracking().SingleAsync(i => i.Id == id);
        // what lies beside it may have gone meanwhile
        var beside = (await Beside.LaidAsync(desk, id, all, matching))
            .Where(one => one.Laid.Row is not null)
            .ToLookup(one => one.Laid.Row!.Value, one => one.Part);
        var (rows, parts) = (new List<(ImportRowRead Row, BesideRead Beside)>(), 0);
        foreach (var one in all.Skip(first.Read).TakeWhile(_ => rows.Count < Batch && parts < Batch))
        {
            parts += beside[one.Row].Count();
            // what is read and kept of letters and files takes its time before anybody has to wait for it
            rows.Add((one, await Beside.ReadAsync(desk, [.. beside[one.Row]])));
        }
        return await desk.ActAsync(async act =>
        {
            var row = await Import.OneAsync(desk, id);
            if (row.State != ImportState.Running || row.Read != first.Read)
                return false;
            var right = rows.Where(one => one.Row.Wrong.Length == 0).ToList();
            await AddAsync(act, id, right);
            var errors = StoreJson.Read<List<PreviewRowDto>>(row.Errors);
            errors.AddRange(rows.Where(one => one.Row.Wrong.Length > 0).Select(one => Import.Preview(desk, one.Row)));
            (row.Read, row.Made) = (first.Read + rows.Count, row.Made + right.Count);
            row.Errors = StoreJson.Write(errors);
            if (row.Read >= row.Total)
                row.State = ImportState.Done;
            return row.State == ImportState.Running;
        });
    }

    /// <summary>Makes a project of each row, with the letters and files that belong to it.</summary>
    private static async Task AddAsync(
        Act act,
        int import,
        IReadOnlyCollection<(ImportRowRead Row, BesideRead Beside)> rows
    )
    {
        List<(LedgerEntry Entry, ImportRowRead Row, BesideRead Beside)> made = [];
        foreach (var (row, beside) in rows)
            made.Add((await MadeAsync(act, import, row), row, beside));
        await act.RecordAsync([.. made.Select(one => one.Entry)]);
        foreach (var (entry, row, beside) in made)
            await Beside.AddAsync(act, entry.File, row, beside, entry.Happened);
    }

    /// <summary>The project of a row, with what is to be recorded of it.</summary>
    private static async Task<LedgerEntry> MadeAsync(Act act, int import, ImportRowRead read)
    {
        // the same name with the same address in one table, or known before, is one client
        var name = read.Name ?? read.Organisation!;
        var known = await act.Db.People.FirstOrDefaultAsync(p =>
            p.Name == name
            && p.MergedInto == null
            && p.RemovedAt == null
            && (p.Mail == read.Mail && p.Mail != null || p.Phone == read.Phone && p.Phone != null)
        );
        var person =
            known
            ?? new PersonRow
            {
                Name = name,
                Organisation = read.Name is null ? null : read.Organisation,
                Mail = read.Mail,
                Phone = read.Phone,
                Profile = read.Profile,
            };
        var project = await Inquiry.AddAsync(
            act.Desk,
            read.Kind!.Value,
            person,
            new(read.Title, read.Source, read.Words is { } words ? ShortText.Of(words) : null, read.Campaign)
        );
        act.Db.Imported.Add(
            new()
            {
                ImportId = import,
                ProjectId = project.Id,
                PersonId = person.Id,
                NewPerson = known is null,
            }
        );
        var file = await act.OpenAsync(project.Id);
        var at = read.Inquired is { } day && day < act.Today ? act.Calendar.At(day + new LocalTime(12, 0)) : act.Now;
        List<Happening> facts = [new Happening.Imported()];
        if (read.Date is { } date)
            facts.Add(new Happening.DateSet(file.Case.Kind.MainDate, date, null));
        if (NoteOf(read) is { } note)
            facts.Add(new Happening.NoteWritten(await Notes.AddAsync(act.Desk, project.Id, NoteSort.Note, note)));
        facts.AddRange(await StandingAsync(act.Desk, file, read));
        return new(file, Actor.Owner, at, [.. facts]);
    }

    /// <summary>What the row says in words; the number by which the project was known so far is found again by it.</summary>
    private static string? NoteOf(ImportRowRead read) =>
        read.Number is { } number
            ? string.Join('\n', new[] { $"Number so far: {number}", read.Words }.OfType<string>())
            : read.Words;

    /// <summary>Where it stood, as facts: what was booked and done elsewhere is waived here, and what was agreed there is not invoiced from here.</summary>
    private static async Task<IReadOnlyList<Happening>> StandingAsync(
        Desk desk,
        ProjectFile file,
        ImportRowRead read
    ) =>
        read.Standing switch
        {
            ImportStanding.Booked or ImportStanding.Finished =>
            [
                .. await PriceAsync(desk, file, read.Amount),
                .. file
                    .Case.Kind.Gates.Where(gate => gate != Gate.Delivery || read.Standing == ImportStanding.Finished)
                    .Select(gate => new Happening.GateWaived(gate)),
                .. read.Standing == ImportStanding.Finished ? new Happening[] { new Happening.PutAway() } : [],
            ],
            ImportStanding.Lost => [new Happening.Ended(EndReason.Lost)],
            ImportStanding.Declined => [new Happening.Ended(EndReason.Declined)],
            ImportStanding.Quiet => [new Happening.Ended(EndReason.GoneQuiet)],
            _ => [],
        };

    private static async Task<IReadOnlyList<Happening>> PriceAsync(Desk desk, ProjectFile file, Money? amount) =>
        amount is { Minor: > 0 } price
            ?
            [
                (Happening.PriceAgreed)
                    await Agreements.PriceAsync(desk, file, price.Major, new Rate(0), new Rate(0)) with
                {
                    Parts = [],
                },
            ]
            : [];

    /// <summary>Takes out what an import made and nobody touched since; what went on is left, and counted.</summary>
    private async Task<ImportUndoneDto> UndoAsync(int id)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var undone = await desk.ActAsync(async act =>
        {
            var row = await Import.OneAsync(desk, id);
            if (row.State is not (ImportState.Done or ImportState.Failed))
                throw new RefusedException("Only a table that was taken over can be taken back.");
            var made = await desk.Db.Imported.Where(i => i.ImportId == id).ToListAsync();
            var ids = made.Select(i => i.ProjectId).ToList();
            // facts of its own were all recorded at one instant
            var touched = (
                await desk
                    .Db.Facts.Where(f => ids.Contains(f.ProjectId))
                    .GroupBy(f => f.ProjectId)
                    .Where(g => g.Min(f => f.Recorded) != g.Max(f => f.Recorded))
                    .Select(g => g.Key)
                    .ToListAsync()
            ).ToHashSet();
            touched.UnionWith(await WrittenAtAsync(desk, id));
            var gone = ids.Where(project => !touched.Contains(project)).ToList();
            await RemoveAsync(
                desk,
                gone,
                [.. made.Where(i => i.NewPerson && !touched.Contains(i.ProjectId)).Select(i => i.PersonId)]
            );
            await desk.Db.ImportParts.Where(part => part.ImportId == id).ExecuteDeleteAsync();
            row.State = ImportState.Undone;
            return new ImportUndoneDto(gone.Count, touched.Count);
        });
        live.ChangedAll();
        return undone;
    }

    /// <summary>Rows that an import makes by itself, or that its facts make.</summary>
    private static readonly HashSet<Type> Made =
    [
        typeof(FactRow),
        typeof(NoteRow),
        typeof(TaskRow),
        typeof(RunRow),
        typeof(PlannedStepRow),
        typeof(StayRow),
        typeof(VersionRow),
        typeof(LetterRow),
        typeof(FileRow),
        typeof(ImportedRow),
        typeof(HookCallRow),
    ];

    /// <summary>The projects of an import in which something was written that is no fact yet: a row of any other table, or a letter that is not one of those taken over.</summary>
    private static async Task<IReadOnlyCollection<ProjectId>> WrittenAtAsync(Desk desk, int import)
    {
        HashSet<ProjectId> written =
        [
            // from the few that came in to their letters, not from every letter to what came in
            .. await desk
                .Db.Imported.Where(made => made.ImportId == import)
                .Join(
                    desk.Db.Letters.Where(l => l.State != LetterState.Kept),
                    made => made.ProjectId,
                    letter => letter.ProjectId,
                    (made, _) => made.ProjectId
                )
                .Distinct()
                .ToListAsync(),
        ];
        foreach (
            var table in desk
                .Db.Model.GetEntityTypes()
                .Where(entity =>
                    !entity.IsOwned()
                    && entity.FindProperty(nameof(ImportedRow.ProjectId)) is not null
                    && !Made.Contains(entity.ClrType)
                )
                .Select(entity => entity.GetTableName())
        )
        {
            // names of this program's own tables, which no parameter can stand for
            var sql = $"""
                SELECT DISTINCT "ProjectId" AS Value FROM "{table}"
                WHERE "ProjectId" IN (SELECT "ProjectId" FROM "Imported" WHERE "ImportId" = @import)
                """;
            written.UnionWith(
                (
                    await desk.Db.Database.SqlQueryRaw<long>(sql, new SqliteParameter("@import", import)).ToListAsync()
                ).Select(id => new ProjectId(id))
            );
        }
        return written;
    }

    private static async Task RemoveAsync(Desk desk, List<ProjectId> projects, List<PersonId> people)
    {
        foreach (var some in projects.Chunk(500))
        {
            await desk.Db.Imported.Where(i => some.Contains(i.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.PlannedSteps.Where(s => some.Contains(s.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.Stays.Where(s => some.Contains(s.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.Runs.Where(r => some.Contains(r.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.Tasks.Where(t => some.Contains(t.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.HookCalls.Where(c => some.Contains(c.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.Files.Where(f => some.Contains(f.ProjectId)).ExecuteDeleteAsync();
            await desk
                .Db.LetterFiles.Where(f =>
                    desk.Db.Letters.Any(l =>
                        l.Id == f.LetterId && l.ProjectId != null && some.Contains(l.ProjectId.Value)
                    )
                )
                .ExecuteDeleteAsync();
            await desk
                .Db.Letters.Where(l => l.ProjectId != null && some.Contains(l.ProjectId.Value))
                .ExecuteDeleteAsync();
            await desk.Db.Facts.Where(f => some.Contains(f.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.Notes.Where(n => some.Contains(n.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.Versions.Where(v => some.Contains(v.ProjectId)).ExecuteDeleteAsync();
            await desk.Db.Projects.Where(p => some.Contains(p.Id)).ExecuteDeleteAsync();
        }
        foreach (var some in people.Distinct().Chunk(500))
            await desk
                .Db.People.Where(p => some.Contains(p.Id) && !desk.Db.Projects.Any(x => x.ClientId == p.Id))
                .ExecuteDeleteAsync();
    }
}

/// <summary>A table that was taken over, or is being.</summary>
public sealed record ImportDoneDto(int Id, string Name, ImportState State, int Made, string At);
