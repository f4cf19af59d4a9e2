using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Routines;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Templates;

/// <summary>Names of what a step can use: a key and what it is called.</summary>
public sealed record ChoiceDto(string Key, string Name);

/// <summary>What steps can use, by what it is.</summary>
public sealed record StepListsDto(
    IReadOnlyList<ChoiceDto> Letters,
    IReadOnlyList<ChoiceDto> Forms,
    IReadOnlyList<ChoiceDto> Meetings,
    IReadOnlyList<ChoiceDto> TaskLists,
    IReadOnlyList<ChoiceDto> Kinds,
    IReadOnlyList<ChoiceDto> Hooks,
    IReadOnlyList<ChoiceDto> Parts
);

/// <summary>What there is to choose from in a routine.</summary>
/// <param name="Stops">What can end a step.</param>
/// <param name="DateName">What the date that matters is called.</param>
public sealed record RoutineChoicesDto(
    StepListsDto Lists,
    IReadOnlyList<StepActDto> Acts,
    IReadOnlyList<ChosenStopDto> Stops,
    IReadOnlyList<string> Sources,
    IReadOnlyList<string> Details,
    string DateName
);

/// <summary>A stop rule that can be chosen, in words.</summary>
public sealed record ChosenStopDto(StopRule Stop, string Words);

/// <summary>A routine’s page.</summary>
public sealed record RoutinePageDto(
    int Id,
    long Kind,
    string KindName,
    string Key,
    RoutineDraftDto Routine,
    bool Off,
    IReadOnlyList<string> Trouble,
    int Edition,
    RoutineChoicesDto Choices,
    IReadOnlyList<RunDto> Runs,
    string Text
);

/// <summary>A routine as it is saved.</summary>
public sealed record SaveRoutineDto(RoutineDraftDto Routine, int Edition);

/// <param name="Text">A routine as text; or <paramref name="Copy"/>, one to begin as a copy of; or neither, an empty one.</param>
public sealed record NewRoutineDto(long Kind, string? Name, string? Text, int? Copy);

/// <summary>The number of a routine.</summary>
public sealed record RoutineIdDto(int Id);

/// <param name="Project">One to show the dates of.</param>
public sealed record CheckRoutineDto(long Kind, RoutineDraftDto Routine, long? Project);

/// <param name="Date">When it would act for the chosen project, if it began now.</param>
public sealed record CheckedStepDto(string Sentence, string? Date);

/// <summary>What is wrong, and where.</summary>
public sealed record MistakeDto(string Field, string Words);

/// <summary>A routine that was read, or what is wrong with it.</summary>
public sealed record CheckedRoutineDto(
    IReadOnlyList<CheckedStepDto> Steps,
    IReadOnlyList<MistakeDto> Mistakes,
    string Text
);

/// <summary>A routine as text.</summary>
public sealed record RoutineTextDto(string Text);

/// <summary>Whether it is off.</summary>
public sealed record OnOffDto(bool Off);

/// <summary>Routines as they are made: kept, checked while they are typed, read from and written as text. Runs that have begun keep the steps they began with.</summary>
public static class RoutineTexts
{
    /// <summary>One routine’s page.</summary>
    public static async Task<RoutinePageDto> OfAsync(Desk desk, int id)
    {
        var row = await RoutineNames.RowAsync(desk, id);
        var kind = await desk.Db.Kinds.AsNoTracking().SingleAsync(k => k.Id == row.KindId);
        var routine = StoreJson.Read<Routine>(row.Routine);
        return new(
            id,
            kind.Id.Value,
            kind.Name,
            row.Key,
            RoutineShapes.Of(routine),
            row.Off,
            RoutineList.TroubleOf(row),
            row.Edition,
            await ChoicesAsync(desk, kind),
            await RoutineList.RunsAsync(desk, kind.Id, row.Key),
            RoutineText.Write(routine)
        );
    }

    /// <exception cref="InvalidException">It has mistakes; each is named by its step and field.</exception>
    public static async Task SaveAsync(Desk desk, int id, SaveRoutineDto save)
    {
        await desk.ActAsync(async act =>
        {
            var row = await RoutineNames.RowAsync(desk, id);
            if (row.Edition != save.Edition)
                throw new StaleException(RoutineShapes.Of(StoreJson.Read<Routine>(row.Routine)));
            var routine = RoutineShapes.ToCore(row.Key, save.Routine);
            var names = await RoutineNames.OfAsync(desk);
            var mistakes = RoutineRule.MistakesIn(routine, names);
            if (mistakes.Length > 0)
                throw new InvalidException([.. mistakes.Select(m => (m.Path, m.Words))]);
            (row.Routine, row.Trouble) = (StoreJson.Write(routine), "");
            row.Edition++;
        });
    }

    /// <summary>A new routine of a kind: from text, as a copy, or empty. It is off until it is turned on.</summary>
    /// <exception cref="InvalidException">The text cannot be read; its line is named.</exception>
    public static async Task<int> AddAsync(Desk desk, NewRoutineDto make)
    {
        return await desk.ActAsync(async act =>
        {
            var kind =
                await desk.Db.Kinds.AsNoTracking().SingleOrDefaultAsync(k => k.Id == new KindId(make.Kind))
                ?? throw new InvalidException(("kind", "Choose a kind of work."));
            var routine =
                make.Text is { } text ? Read(text)
                : make.Copy is { } copied
                    ? StoreJson.Read<Routine>((await RoutineNames.RowAsync(desk, copied)).Routine) is var other
                            ? other with
                            {
                                Name = make.Name ?? $"{other.Name}, copy",
                                Key = "",
                            }
                        : throw new InvalidOperationException()
                : new Routine("", make.Name ?? "", Cause.InquiryCame, []);
            if (routine.Name.Trim().Length is 0 or > RoutineRule.LongestName)
                throw new InvalidException(("name", $"A name of 1 to {RoutineRule.LongestName} characters is needed."));
            var key = await FreeKeyAsync(
                desk,
                kind.Id,
                routine.Key.Length > 0 ? routine.Key : RoutineText.KeyOf(routine.Name)
            );
            routine = routine with { Key = key, Name = routine.Name.Trim() };
            var row = new RoutineRow
            {
                KindId = kind.Id,
                Key = key,
                Routine = StoreJson.Write(routine),
                Off = true,
                Trouble = RoutineTrouble.Words(routine, await RoutineNames.OfAsync(desk)),
                Position = await desk.Db.Routines.CountAsync(r => r.KindId == kind.Id),
            };
            desk.Db.Routines.Add(row);
            await desk.Db.SaveChangesAsync();
            return row.Id;
        });
    }

    /// <exception cref="InvalidException">A line cannot be read; its number and what is allowed are said.</exception>
    public static Routine Read(string text)
    {
        try
        {
            return RoutineText.Read(text);
        }
        catch (RoutineTextException e)
        {
            throw new InvalidException(("text", e.Message));
        }
    }

    /// <summary>What it reads like, what is wrong with it, and the dates it would give; for what is still being typed.</summary>
    public static async Task<CheckedRoutineDto> CheckAsync(Desk desk, CheckRoutineDto check)
    {
        var kind =
            await desk.Db.Kinds.AsNoTracking().SingleOrDefaultAsync(k => k.Id == new KindId(check.Kind))
            ?? throw new MissingException("kind");
        var names = await RoutineNames.OfAsync(desk);
        var routine = RoutineShapes.ToCore("routine", check.Routine);
        var words = names.For(StoreJson.Read<KindRules>(kind.Rules).MainDate);
        var mistakes = RoutineRule.MistakesIn(routine, names);
        var dates =
            check.Project is { } project && mistakes.All(m => m.Field is not ("begins" or "steps" or "variants"))
                ? await DatesAsync(desk, new(project), routine)
                : null;
        return new(
            [
                .. routine.Steps.Select(step => new CheckedStepDto(
                    RoutineWords.Sentence(step, words),
                    dates is null ? null : dates.GetValueOrDefault(step.Key, "not for this project")
                )),
            ],
            [.. mistakes.Select(m => new MistakeDto(m.Path, m.Words))],
            RoutineText.Write(routine)
        );
    }

    private static async Task<Dictionary<string, string>> DatesAsync(Desk desk, ProjectId id, Routine routine)
    {
        var file = await desk.OpenAsync(id);
        var project = file.Case with { Traits = await ProjectFiles.TraitsAsync(desk.Db, file.Row) };
        return Rehearsal
            .Play(project, routine, new(), desk.Now)
            .Where(one => one.Step is not null)
            .GroupBy(one => one.Step!.Key)
            .ToDictionary(
                g => g.Key,
                g =>
                    g.First() is { At: { } at } first
                        ? $"{(first.Act == RehearsedAct.Skipped ? "would have been " : "")}{When(desk, at)}"
                        : "no date yet"
            );
    }

    public static string When(Desk desk, Instant at)
    {
        var local = desk.Calendar.LocalOf(at);
        return $"{DateWords.Short(local.Date, desk.Today)}, {DateWords.Time(local.TimeOfDay)}";
    }

    /// <summary>Turns a routine off or on; runs that began go on.</summary>
    public static async Task TurnAsync(Desk desk, int id, bool off)
    {
        var row = await RoutineNames.RowAsync(desk, id);
        if (!off && row.Trouble.Length > 0)
            throw new RefusedException($"It cannot run yet. {row.Trouble.Replace('\n', ' ')}");
        row.Off = off;
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>Takes a routine away, or puts it back. Runs that have begun go on.</summary>
    public static async Task RemoveAsync(Desk desk, int id, bool removed)
    {
        var row = await desk.Db.Routines.SingleOrDefaultAsync(r => r.Id == id) ?? throw new MissingException("routine");
        row.Removed = removed;
        await desk.Db.SaveChangesAsync();
    }

    private static async Task<RoutineChoicesDto> ChoicesAsync(Desk desk, KindRow kind)
    {
        var rules = StoreJson.Read<KindRules>(kind.Rules);
        return new(
            await ListsAsync(desk, kind.Id),
            RoutineShapes.Acts,
            [.. StopRules.ToChoose.Select(rule => new ChosenStopDto(rule, RoutineWords.Word(rule)))],
            await desk
                .Db.Projects.Where(p => p.Source != null)
                .Select(p => p.Source!)
                .Distinct()
                .OrderBy(s => s)
                .Take(100)
                .ToListAsync(),
            [.. rules.AllDetails.Select(d => d.Name)],
            rules.MainDate
        );
    }

    private static async Task<StepListsDto> ListsAsync(Desk desk, KindId kind) =>
        new(
            await desk
                .Db.LetterTemplates.Where(t => !t.Removed && (t.KindId == null || t.KindId == kind))
                .GroupBy(t => t.Key)
                .Select(same => new { same.Key, Name = same.Min(t => t.Name)! })
                .OrderBy(t => t.Name)
                .Select(t => new ChoiceDto(t.Key, t.Name))
                .ToListAsync(),
            await desk
                .Db.Forms.Where(f => (f.Purpose == FormPurpose.Questionnaire || f.Purpose == FormPurpose.Feedback))
                .OrderBy(f => f.Title)
                .Select(f => new ChoiceDto(f.Slug, f.Title))
                .ToListAsync(),
            await desk
                .Db.MeetingKinds.Where(k => !k.Removed)
                .OrderBy(k => k.Name)
                .Select(k => new ChoiceDto(k.Name, k.Name))
                .ToListAsync(),
            await desk
                .Db.TaskLists.Where(l => !l.Removed)
                .OrderBy(l => l.Name)
                .Select(l => new ChoiceDto(l.Key, l.Name))
                .ToListAsync(),
            await desk
                .Db.Kinds.Where(k => !k.Removed)
                .OrderBy(k => k.Name)
                .Select(k => new ChoiceDto(k.Key, k.Name))
                .ToListAsync(),
            await desk.Db.Hooks.OrderBy(h => h.Name).Select(h => new ChoiceDto(h.Name, h.Name)).ToListAsync(),
            [.. Enum.GetValues<PagePart>().Select(part => new ChoiceDto(part.ToString(), Sight.Words(part)))]
        );

    private static async Task<string> FreeKeyAsync(Desk desk, KindId kind, string key)
    {
        var taken = await desk.Db.Routines.Where(r => r.KindId == kind).Select(r => r.Key).ToListAsync();
        return Enumerable
            .Range(1, taken.Count + 1)
            .Select(n => n == 1 ? key : $"{key}-{n}")
            .First(free => !taken.Contains(free));
    }
}
