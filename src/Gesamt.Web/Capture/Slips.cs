using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Capture;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.People;
using Gesamt.Web.Words;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Capture;

/// <param name="Project">The project whose record is open.</param>
/// <param name="As">What it becomes, where the writer said so; null goes by its words.</param>
/// <param name="OnRecord">It is written on the record itself, and so of that project whatever it names.</param>
public sealed record WrittenDto(string Text, long? Project, SlipSort? As = null, bool? OnRecord = null);

/// <param name="Becomes">“a task for Harbour Lane Bakery front, due Fri 29 Jan”, or that it goes to the tray.</param>
public sealed record SlipReadDto(
    SlipSort Sort,
    string Text,
    string Becomes,
    IReadOnlyList<Understood> Read,
    long? Project
);

/// <summary>A slip that was kept. Project: what it was filed to.</summary>
public sealed record SlipKeptDto(int Id, string Words, long? Project);

/// <summary>The project a slip is filed to.</summary>
public sealed record SlipFileDto(long Project);

/// <summary>Whether it is put away.</summary>
public sealed record SlipGoneDto(bool Gone);

/// <summary>Short texts written down in the bar: read as they are typed, filed by what they say, never lost.</summary>
public static class Slips
{
    private const int Longest = 2_000;

    private sealed record Open(ProjectId Id, string Title, string Client, string? Organisation, LocalDate? MainDate);

    // asked with each letter that is typed
    private static readonly Func<GesamtDb, ProjectId, Task<List<Open>>> MayBeAbout = Prepared.Rows(
        (GesamtDb db, ProjectId here) =>
            db
                .Projects.Where(p => p.Standing.Ended == null && p.Standing.Stage != Stage.Finished || p.Id == here)
                .Select(p => new Open(p.Id, p.Title, p.Client!.Name, p.Client.Organisation, p.Standing.MainDate))
    );

    public static void MapSlips(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/slips/reading",
            async (string text, long? project, [FromQuery(Name = "as")] SlipSort? chosen, bool? onRecord, Desk desk) =>
                await OfAsync(desk, await ReadAsync(desk, new(text, project, chosen, onRecord)))
        );
        api.MapPost("/slips", (WrittenDto written, Desk desk) => KeepAsync(desk, written));
        api.MapPost(
            "/slips/{id:int}/undo",
            async (int id, Desk desk) =>
            {
                await UndoAsync(desk, id);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/slips/{id:int}/file",
            async (int id, SlipFileDto to, Desk desk) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var slip = await TrayedAsync(desk, id);
                    await FileAsync(
                        act,
                        slip,
                        await ReadAsync(desk, new(slip.Text, to.Project)) with
                        {
                            Project = new(to.Project),
                        }
                    );
                    return TypedResults.NoContent();
                });
            }
        );
        api.MapPost(
            "/slips/{id:int}/gone",
            async (int id, SlipGoneDto to, Desk desk) =>
            {
                var slip =
                    await desk.Db.Slips.SingleOrDefaultAsync(s => s.Id == id && s.ProjectId == null)
                    ?? throw new MissingException("slip");
                slip.GoneAt = to.Gone ? desk.Now : null;
                await desk.Db.SaveChangesAsync();
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>Keeps what was written, filed where it names a project.</summary>
    public static async Task<SlipKeptDto> KeepAsync(Desk desk, WrittenDto written)
    {
        if (written.Text.Trim().Length is 0 or > Longest)
            throw new InvalidException(("text", $"Write 1 to {Longest} characters."));
        return await desk.ActAsync(async act =>
        {
            var reading = await ReadAsync(desk, written);
            var slip = new SlipRow { Text = written.Text.Trim(), At = desk.Now };
            desk.Db.Slips.Add(slip);
            await desk.Db.SaveChangesAsync();
            // nothing but what it is about was said: it stays a slip with all its words
            if (reading is { Project: not null, Text.Length: > 0 })
                await FileAsync(act, slip, reading);
            return new SlipKeptDto(
                slip.Id,
                slip.ProjectId is null ? "Kept in the tray" : $"Kept: {await BecomesAsync(desk, reading)}",
                slip.ProjectId?.Value
            );
        });
    }

    /// <summary>Makes of a slip what it says.</summary>
    private static async Task FileAsync(Act act, SlipRow slip, SlipReading reading)
    {
        var file = await act.OpenAsync(reading.Project!.Value);
        slip.ProjectId = file.Id;
        if (reading.Sort == SlipSort.Task)
        {
            var task = new TaskRow
            {
                ProjectId = file.Id,
                Title = reading.Text.Length <= 200 ? reading.Text : reading.Text[..200],
                Due = reading.Due,
                EstimateMinutes = reading.Minutes,
                Importance = reading.Important ? 3 : null,
                Fixed = reading.Due is not null,
            };
            act.Db.Tasks.Add(task);
            await act.Db.SaveChangesAsync();
            slip.TaskId = task.Id;
            act.Db.Labels.AddRange(
                reading.Labels.Distinct().Select(label => new LabelRow { Label = label, TaskId = task.Id })
            );
            await act.RecordAsync(file, Actor.Owner, new Happening.TaskMade(task.Id, reading.Due));
            return;
        }
        var note = await Notes.AddAsync(
            act.Desk,
            file.Id,
            reading.Sort == SlipSort.Call ? NoteSort.Call : NoteSort.Note,
            reading.Text
        );
        slip.NoteId = note;
        foreach (var label in reading.Labels.Distinct())
            await Labels.PutAsync(act.Desk, new(label, file.Id.Value, null, null));
        await act.RecordAsync(
            file,
            Actor.Owner,
            reading.Sort == SlipSort.Call ? new Happening.CallHeld(note) : new Happening.NoteWritten(note)
        );
    }

    /// <summary>Takes a slip back with what was made of it.</summary>
    private static async Task UndoAsync(Desk desk, int id)
    {
        await desk.ActAsync(async act =>
        {
            var slip =
                await desk.Db.Slips.SingleOrDefaultAsync(s => s.Id == id && s.GoneAt == null)
                ?? throw new RefusedException("This was taken back already.");
            slip.GoneAt = desk.Now;
            if (
                slip.TaskId is { } taskId
                && await desk.Db.Tasks.SingleAsync(t => t.Id == taskId) is { Removed: false } task
            )
            {
                task.Removed = true;
                await desk.Db.SaveChangesAsync();
                await act.RecordAsync(
                    await desk.OpenAsync(slip.ProjectId!.Value),
                    Actor.Owner,
                    new Happening.TaskRemoved(taskId)
                );
            }
            if (slip.NoteId is { } note)
            {
                (await desk.Db.Notes.SingleAsync(n => n.Id == note)).Removed = true;
                await desk.Db.SaveChangesAsync();
                await act.RecordAsync(
                    await desk.OpenAsync(slip.ProjectId!.Value),
                    Actor.Owner,
                    new Happening.NoteTakenBack(note)
                );
            }
        });
    }

    private static async Task<SlipRow> TrayedAsync(Desk desk, int id) =>
        await desk.Db.Slips.SingleOrDefaultAsync(s => s.Id == id && s.ProjectId == null && s.GoneAt == null)
        ?? throw new RefusedException("This slip is not in the tray any more.");

    private static async Task<SlipReading> ReadAsync(Desk desk, WrittenDto written)
    {
        var (text, here) = (written.Text, written.Project);
        if (text.Length > Longest)
            throw new InvalidException(("text", $"Write 1 to {Longest} characters."));
        var open = await MayBeAbout(desk.Db, new(here ?? 0));
        return SlipReader.Read(
            text,
            desk.Today,
            desk.Calendar,
            [
                .. open.Select(p => new SlipProject(
                    p.Id,
                    [.. new[] { p.Title, p.Client, p.Organisation }.OfType<string>()],
                    p.MainDate
                )),
            ],
            here is { } id ? new(id) : null,
            written.As,
            written.OnRecord == true
        );
    }

    private static async Task<SlipReadDto> OfAsync(Desk desk, SlipReading reading) =>
        new(reading.Sort, reading.Text, await BecomesAsync(desk, reading), reading.Read, reading.Project?.Value);

    private static async Task<string> BecomesAsync(Desk desk, SlipReading reading)
    {
        var title = reading.Project is { } of
            ? await desk.Db.Projects.Where(p => p.Id == of).Select(p => p.Title).SingleAsync()
            : null;
        var sort = reading.Sort switch
        {
            SlipSort.Task => "a task",
            SlipSort.Call => "a call",
            _ => "a note",
        };
        var parts = new[]
        {
            reading.Due is { } due ? DateWords.Due(due, desk.Today, false) : null,
            reading.Minutes is { } minutes
                ? minutes % 60 == 0
                    ? $"{minutes / 60} h"
                    : $"{minutes} min"
                : null,
            reading.Important ? "important" : null,
            reading.Labels.Length > 0 ? $"label {string.Join(", ", reading.Labels)}" : null,
        }.OfType<string>();
        return string.Join(
            ", ",
            new[] { title is not null ? $"{sort} for {title}" : $"{sort}, into the tray" }.Concat(parts)
        );
    }
}
