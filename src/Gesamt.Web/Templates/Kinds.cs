using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Letters;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Proposals;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Templates;

public sealed record KindDto(long Id, string Name, int Projects);

/// <summary>A kind of work and what it brings along, to be edited.</summary>
/// <param name="Letters">All letters; those its routines send are named in the steps.</param>
public sealed record KindPageDto(
    long Id, string Name, int Edition, IReadOnlyList<ServiceDto> Services, TextDto Contract, IReadOnlyList<LetterTextRowDto> Letters, IReadOnlyList<RoutineDto> Routines,
    IReadOnlyList<string> Blanks, IReadOnlyList<string> Phases, int Rounds, IReadOnlyList<string> ClosingSteps, KindSettingsDto Settings, IReadOnlyList<string> Fills);

public sealed record TextDto(string Title, string Body, int Edition);

/// <param name="UsedBy">Steps that send it, over all kinds.</param>
public sealed record LetterTextRowDto(string Key, string Name, string Subject, string Body, int Edition, IReadOnlyList<string> UsedBy);

public sealed record RoutineDto(string Key, string Name, Cause Begins, int Edition, IReadOnlyList<StepDto> Steps);

/// <param name="Count">How long before (negative) or after its cause.</param>
/// <param name="Letter">The letter it sends; null for a step that makes the kind's tasks, or proposes an end.</param>
public sealed record StepDto(string Key, Cause Cause, int Count, SpanUnit Unit, LocalTime? At, bool AnyHour, string? Letter, StepMode Mode, StopRule[] Stops, bool EndsQuiet = false);

public sealed record SaveServicesDto(int Edition, ServiceDto[] Services);

public sealed record SaveRoutineDto(int Edition, StepDto[] Steps);

public sealed record SaveLetterDto(string Name, string Subject, string Body, int Edition);

/// <summary>Reads and changes what kinds bundle. Projects already begun keep what was pinned on them; sent papers never change.</summary>
public static class Kinds
{
    private const int MostSteps = 40, MostServices = 200;

    public static async Task<KindPageDto> OfAsync(Desk desk, KindId id)
    {
        var kind = await KindAsync(desk, id);
        var rules = StoreJson.Read<KindRules>(kind.Rules);
        var services = await desk.Db.Services.AsNoTracking().Where(s => s.KindId == id).OrderBy(s => s.Position).ToListAsync();
        var contract = await desk.Db.ContractTemplates.AsNoTracking().FirstOrDefaultAsync(c => c.KindId == id);
        var routines = await desk.Db.Routines.AsNoTracking().ToListAsync();
        var used = routines.SelectMany(r => StoreJson.Read<Routine>(r.Routine) is var routine ? routine.Steps.Select(step => (step, routine.Name)) : [])
            .Where(pair => pair.step.Action is StepAction.Letter).ToLookup(pair => ((StepAction.Letter)pair.step.Action).Key, pair => pair.Name);
        var letters = await desk.Db.LetterTemplates.AsNoTracking().OrderBy(l => l.Name).ToListAsync();
        return new(id.Value, kind.Name, kind.Edition,
            [.. services.Select(s => new ServiceDto(s.Id, s.Title, s.Detail, s.Unit, Wire.Number(s.UnitPrice), Wire.Number(s.TaxPartsPerMillion / 10_000m)))],
            new(contract?.Title ?? "Contract", contract?.Body ?? "", contract?.Edition ?? 0),
            [.. letters.Select(l => new LetterTextRowDto(l.Key, l.Name, l.Subject, l.Body, l.Edition, [.. used[l.Key].Distinct()]))],
            [.. routines.Where(r => r.KindId == id).OrderBy(r => r.Id).Select(Of)], Blanks.Names, rules.Phases, rules.Rounds, rules.ClosingSteps,
            KindSettings.Of(kind.Edition, rules), [.. Forms.Fills, .. rules.AllDetails.Select(detail => detail.Name)]);
    }

    /// <exception cref="InvalidException">A service has no title, or a number is not one; the field is named by its place in the list.</exception>
    public static async Task SaveServicesAsync(Desk desk, KindId id, SaveServicesDto save)
    {
        await using var transaction = await desk.BeginAsync();
        var kind = await desk.Db.Kinds.SingleOrDefaultAsync(k => k.Id == id) ?? throw new MissingException("kind");
        if (kind.Edition != save.Edition) throw new StaleException(await OfAsync(desk, id));
        if (save.Services.Length > MostServices) throw new InvalidException(("services", $"A kind has at most {MostServices} services."));
        List<(string, string)> errors = [];
        var rows = save.Services.Select((service, i) => RowOf(id, service, i, errors)).ToList();
        if (errors.Count > 0) throw new InvalidException([.. errors]);
        await desk.Db.Services.Where(s => s.KindId == id).ExecuteDeleteAsync();
        desk.Db.Services.AddRange(rows);
        kind.Edition++;
        await desk.CommitAsync(transaction);
    }

    /// <exception cref="LetterTextException">A blank is misspelt or left open.</exception>
    public static async Task SaveContractAsync(Desk desk, KindId id, TextDto save)
    {
        await using var transaction = await desk.BeginAsync();
        var kind = await KindAsync(desk, id);
        var row = await desk.Db.ContractTemplates.FirstOrDefaultAsync(c => c.KindId == id);
        if ((row?.Edition ?? 0) != save.Edition) throw new StaleException(new TextDto(row!.Title, row.Body, row.Edition));
        Check(("title", save.Title, 120), ("body", save.Body, 50_000));
        LetterText.Parse(save.Body);
        if (row is null) desk.Db.ContractTemplates.Add(new() { KindId = kind.Id, Title = save.Title.Trim(), Body = save.Body.Trim(), Edition = 1 });
        else (row.Title, row.Body, row.Edition) = (save.Title.Trim(), save.Body.Trim(), row.Edition + 1);
        await desk.CommitAsync(transaction);
    }

    /// <summary>Changes a letter, or keeps a new one under a key made from its name.</summary>
    /// <exception cref="LetterTextException">A blank is misspelt or left open.</exception>
    public static async Task<string> SaveLetterAsync(Desk desk, string? key, SaveLetterDto save)
    {
        await using var transaction = await desk.BeginAsync();
        Check(("name", save.Name, 80), ("subject", save.Subject, 200), ("body", save.Body, 50_000));
        LetterText.Parse(save.Subject);
        LetterText.Parse(save.Body);
        var row = key is null ? null : await desk.Db.LetterTemplates.SingleOrDefaultAsync(l => l.Key == key) ?? throw new MissingException("letter");
        if (row is null) desk.Db.LetterTemplates.Add(row = new() { Key = await NewKeyAsync(desk, save.Name), Name = "", Subject = "", Body = "" });
        else if (row.Edition != save.Edition) throw new StaleException(new SaveLetterDto(row.Name, row.Subject, row.Body, row.Edition));
        (row.Name, row.Subject, row.Body, row.Edition) = (save.Name.Trim(), save.Subject.Trim(), save.Body.Trim(), row.Edition + 1);
        await desk.CommitAsync(transaction);
        return row.Key;
    }

    /// <summary>Changes the steps of a routine; runs that have begun keep the steps they began with.</summary>
    /// <exception cref="InvalidException">A step names no letter, or counts back from something that cannot be known beforehand.</exception>
    public static async Task SaveRoutineAsync(Desk desk, KindId id, string key, SaveRoutineDto save)
    {
        await using var transaction = await desk.BeginAsync();
        var row = await desk.Db.Routines.SingleOrDefaultAsync(r => r.KindId == id && r.Key == key) ?? throw new MissingException("routine");
        if (row.Edition != save.Edition) throw new StaleException(Of(row));
        if (save.Steps.Length is 0 or > MostSteps) throw new InvalidException(("steps", $"A routine has 1 to {MostSteps} steps."));
        var routine = StoreJson.Read<Routine>(row.Routine);
        var letters = await desk.Db.LetterTemplates.Select(l => l.Key).ToListAsync();
        List<(string, string)> errors = [];
        var steps = save.Steps.Select((step, i) => StepOf(step, i, routine, letters, errors)).ToImmutableArray();
        if (errors.Count > 0) throw new InvalidException([.. errors]);
        row.Routine = StoreJson.Write(routine with { Steps = steps });
        row.Edition++;
        await desk.CommitAsync(transaction);
    }

    private static Step StepOf(StepDto step, int i, Routine routine, List<string> letters, List<(string, string)> errors)
    {
        var before = routine.Steps.FirstOrDefault(s => s.Key == step.Key);
        if (Math.Abs(step.Count) > 3_650) errors.Add(($"steps[{i}].count", "At most 3 650."));
        if (step.Count < 0 && step.Cause is not (Cause.NamedDate or Cause.InvoiceDue)) errors.Add(($"steps[{i}].count", "Only a date or the day an invoice is due can be counted back from."));
        if (step.Letter is { } letter && !letters.Contains(letter)) errors.Add(($"steps[{i}].letter", $"There is no letter “{letter}”."));
        if (step is { Letter: null, EndsQuiet: false } && before?.Action is not StepAction.Tasks) errors.Add(($"steps[{i}].letter", "Choose the letter this step sends."));
        var action = step.EndsQuiet ? new StepAction.EndAsQuiet() : step.Letter is { } named ? new StepAction.Letter(named) : before?.Action ?? new StepAction.Letter("");
        return new(before?.Key ?? $"step-{Guid.NewGuid():n}"[..13], new Timing(step.Cause, new Span(step.Count, step.Unit), step.At, before?.When.DateName, step.AnyHour), action, step.Mode, [.. step.Stops], before?.LateStart ?? LateStart.Skip);
    }

    private static ServiceRow RowOf(KindId id, ServiceDto service, int i, List<(string, string)> errors)
    {
        decimal Number(string field, string text, decimal most)
        {
            if (decimal.TryParse(text, System.Globalization.NumberStyles.AllowDecimalPoint, System.Globalization.CultureInfo.InvariantCulture, out var number) && number <= most && decimal.Round(number, 4) == number) return number;
            errors.Add(($"services[{i}].{field}", $"Give a number from 0 to {most:0}, with at most four decimals."));
            return 0;
        }
        if (service.Title.Trim().Length is 0 or > 160) errors.Add(($"services[{i}].title", "A service needs a title of 1 to 160 characters."));
        return new()
        {
            KindId = id,
            Position = i,
            Title = service.Title.Trim(),
            Detail = service.Detail.Trim(),
            Unit = service.Unit.Trim(),
            UnitPrice = Number("unitPrice", service.UnitPrice, 100_000_000),
            TaxPartsPerMillion = (int)(Number("tax", service.Tax, 100) * 10_000),
        };
    }

    private static void Check(params (string Field, string Text, int Most)[] fields)
    {
        var errors = fields.Where(f => f.Text.Trim().Length == 0 || f.Text.Trim().Length > f.Most).Select(f => (f.Field, $"Write 1 to {f.Most} characters.")).ToArray();
        if (errors.Length > 0) throw new InvalidException(errors);
    }

    private static async Task<string> NewKeyAsync(Desk desk, string name)
    {
        var plain = new string([.. name.Trim().ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')]).Trim('-');
        var key = plain.Length == 0 ? "letter" : plain[..Math.Min(40, plain.Length)];
        return await desk.Db.LetterTemplates.AnyAsync(l => l.Key == key) ? $"{key}-{Guid.NewGuid():n}"[..(key.Length + 7)] : key;
    }

    private static RoutineDto Of(RoutineRow row)
    {
        var routine = StoreJson.Read<Routine>(row.Routine);
        return new(row.Key, routine.Name, routine.Begins, row.Edition, [.. routine.Steps.Select(step => new StepDto(step.Key, step.When.Cause, step.When.Offset.Count, step.When.Offset.Unit, step.When.At, step.When.AnyHour,
            (step.Action as StepAction.Letter)?.Key, step.Mode, [.. step.Stops], step.Action is StepAction.EndAsQuiet))]);
    }

    private static async Task<KindRow> KindAsync(Desk desk, KindId id) => await desk.Db.Kinds.AsNoTracking().SingleOrDefaultAsync(k => k.Id == id) ?? throw new MissingException("kind");
}
