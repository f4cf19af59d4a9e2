using System.Globalization;
using Gesamt.Core.Amounts;
using Gesamt.Core.Briefs;
using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Forms;
using Gesamt.Core.Letters;
using Gesamt.Core.Meetings;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Work;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <summary>Kinds of work with all they bundle, read from a folder of readable files: kinds, contracts, letters, routines, meetings. What the folder has no words of its own for comes from another one, of what is usual.</summary>
public static class KindFiles
{
    /// <summary>Stands in a routine for the key of the kind that takes it up.</summary>
    private const string ThisKind = "this-kind";

    private sealed record MeetingKindFile(
        string Name,
        MeetingTime When,
        MeetingPlace Place,
        string Where,
        int Minutes,
        int Step,
        int Buffer,
        int NoticeHours,
        int DaysAhead,
        int? MostPerDay,
        int ChangeHours,
        int ReminderHours,
        string Agenda,
        string Questions
    );

    private sealed record MeetingsFile(OpenSpan[] OpenHours, MeetingKindFile[] Kinds);

    private sealed record ServiceFile(
        string Title,
        string Detail,
        string Unit,
        decimal UnitPrice,
        decimal? Tax = null,
        decimal? Hours = null,
        decimal? Cost = null,
        bool OnRateSheet = false
    );

    private sealed record TaskFile(
        string Title,
        int Days,
        string? Phase = null,
        Fulfilment? DoneBy = null,
        ListedMore? More = null
    );

    private sealed record QuestionnaireFile(
        string Slug,
        FormPurpose Purpose,
        string Title,
        string Intro,
        FormField[] Fields,
        bool BeforeDraft = false
    );

    /// <param name="Fields">All fields of its form; or its own questions alone, put between what every form asks.</param>
    /// <param name="PhaseDays">How many days each of its phases usually takes.</param>
    private sealed record KindFile(
        string Key,
        string Name,
        string MainDate,
        string[] Demands,
        int ReplyWithin,
        string FormTitle,
        string FormIntro,
        ServiceFile[] Services,
        TaskFile[] Tasks,
        string[] Routines,
        string[] Phases,
        int Rounds,
        string[] ClosingSteps,
        FormField[]? Fields = null,
        FormField[]? Asks = null,
        DetailRule[]? Details = null,
        BriefPart[]? Brief = null,
        string? Source = null,
        int Position = 0,
        QuestionnaireFile[]? Questionnaires = null,
        WinRule Win = WinRule.Both,
        bool FinalsWait = false,
        CancelFile[]? CancelTerms = null,
        RunSheetFile? RunSheet = null,
        Introduction? Introduction = null,
        int[]? PhaseDays = null,
        int? FirstWeekHours = null
    );

    /// <summary>A run sheet of a kind, by the hour.</summary>
    /// <param name="GuestsEarlier">How many minutes before the true start guests are told to come.</param>
    private sealed record RunSheetFile(string Name, int GuestsEarlier, RunItem[] Items);

    /// <summary>What is kept, per cent, when it is cancelled so many days before its date, or later.</summary>
    private sealed record CancelFile(int DaysBefore, decimal Keeps);

    /// <summary>Loads every kind of a folder. Keys and addresses that the studio has already are left to it: the new ones get others.</summary>
    /// <param name="tax">Of services that name no rate.</param>
    /// <returns>The kinds, in their order.</returns>
    public static async Task<IReadOnlyList<KindRow>> LoadAsync(
        GesamtDb db,
        string folder,
        string usual,
        Rate tax = default
    )
    {
        List<KindRow> kinds = [];
        foreach (var path in Directory.GetFiles(Path.Combine(folder, "kinds"), "*.json").Order(StringComparer.Ordinal))
            kinds.Add(await KindAsync(db, folder, usual, path, tax));
        await LettersAsync(db, folder, usual, kinds);
        await MeetingsAsync(db, folder, usual);
        await db.SaveChangesAsync();
        return [.. kinds.OrderBy(kind => kind.Position)];
    }

    /// <summary>The usual letters, forms’ follow-ups and meetings for a kind that was begun from nothing.</summary>
    public static async Task AddUsualAsync(GesamtDb db, KindRow kind, string usual)
    {
        await RoutinesAsync(
            db,
            usual,
            usual,
            kind,
            ["inquiry", "proposal", "contract", "payment", "delivery"],
            new Dictionary<string, string>()
        );
        await LettersAsync(db, usual, usual, []);
        await MeetingsAsync(db, usual, usual);
        await db.SaveChangesAsync();
    }

    /// <summary>The hours a studio begins with.</summary>
    public static async Task<IReadOnlyList<OpenSpan>> OpenHoursAsync(string folder, string usual) =>
        (await ReadMeetingsAsync(folder, usual)).OpenHours;

    private static async Task<MeetingsFile> ReadMeetingsAsync(string folder, string usual) =>
        StoreJson.Read<MeetingsFile>(await File.ReadAllTextAsync(Own(folder, usual, "meetings.json")));

    private static async Task MeetingsAsync(GesamtDb db, string folder, string usual)
    {
        if (await db.MeetingKinds.AnyAsync())
            return;
        db.MeetingKinds.AddRange(
            (await ReadMeetingsAsync(folder, usual)).Kinds.Select(k => new MeetingKindRow
            {
                Name = k.Name,
                When = k.When,
                Place = k.Place,
                Where = k.Where,
                Minutes = k.Minutes,
                Step = k.Step,
                Buffer = k.Buffer,
                NoticeHours = k.NoticeHours,
                DaysAhead = k.DaysAhead,
                MostPerDay = k.MostPerDay,
                ChangeHours = k.ChangeHours,
                ReminderHours = k.ReminderHours,
                Agenda = k.Agenda,
                Questions = k.Questions,
            })
        );
    }

    /// <summary>Each letter of the folder and each usual one. Where the studio has one of that key in other words, the folder's own is kept for its kinds alone.</summary>
    private static async Task LettersAsync(GesamtDb db, string folder, string usual, List<KindRow> kinds)
    {
        var shared = await db
            .LetterTemplates.Where(letter => letter.KindId == null)
            .ToDictionaryAsync(letter => letter.Key);
        foreach (var path in Paths(folder, usual, "letters"))
        {
            var letter = await LetterAsync(path);
            if (!shared.TryGetValue(letter.Key, out var known))
                db.LetterTemplates.Add(letter);
            else if (path.StartsWith(folder, StringComparison.Ordinal) && known.Body != letter.Body)
                foreach (var kind in kinds)
                {
                    var own = await LetterAsync(path);
                    own.KindId = kind.Id;
                    db.LetterTemplates.Add(own);
                }
        }
    }

    /// <summary>First line the name, second the subject, then the text; the file's name is the key.</summary>
    private static async Task<LetterTemplateRow> LetterAsync(string path)
    {
        var lines = await File.ReadAllLinesAsync(path);
        var row = new LetterTemplateRow
        {
            Key = KeyOf(path),
            Name = lines[0],
            Subject = lines[1],
            Body = string.Join('\n', lines[3..]).Trim(),
        };
        _ = LetterText.Parse(row.Subject + row.Body);
        return row;
    }

    private static async Task<KindRow> KindAsync(GesamtDb db, string folder, string usual, string path, Rate tax)
    {
        var file = StoreJson.Read<KindFile>(await File.ReadAllTextAsync(path));
        var kind = new KindRow
        {
            Key = await KindCopy.FreeKeyAsync(db, file.Key),
            Name = file.Name,
            Rules = StoreJson.Write(RulesOf(file)),
            Position = file.Position,
        };
        db.Kinds.Add(kind);
        await db.SaveChangesAsync();
        var slugs = await FormsAsync(db, file, kind);
        db.Services.AddRange(
            file.Services.Select(
                (s, i) =>
                    new ServiceRow
                    {
                        KindId = kind.Id,
                        Position = i,
                        Title = s.Title,
                        Detail = s.Detail,
                        Unit = s.Unit,
                        UnitPrice = s.UnitPrice,
                        Hours = s.Hours,
                        Cost = s.Cost,
                        OnRateSheet = s.OnRateSheet,
                        TaxPartsPerMillion = s.Tax is { } own ? Rate.Percent(own).PartsPerMillion : tax.PartsPerMillion,
                    }
            )
        );
        db.TaskLists.Add(
            new()
            {
                Key = kind.Key,
                Name = file.Name,
                Items = StoreJson.Write(
                    file.Tasks.Select(t => new ListedTask(t.Title, Span.Days(t.Days), t.Phase, t.DoneBy, t.More))
                        .ToList()
                ),
            }
        );
        if (file.RunSheet is { } run)
            db.RunSheetTemplates.Add(
                new()
                {
                    Key = kind.Key,
                    Name = run.Name,
                    Items = StoreJson.Write(run.Items),
                }
            );
        await RoutinesAsync(db, folder, usual, kind, file.Routines, slugs);
        var contract = await File.ReadAllLinesAsync(Path.Combine(folder, "contracts", $"{file.Key}.txt"));
        db.ContractTemplates.Add(
            new()
            {
                KindId = kind.Id,
                Title = contract[0],
                Body = string.Join('\n', contract[2..]).Trim(),
            }
        );
        return kind;
    }

    private static KindRules RulesOf(KindFile file) =>
        KindRules.Default with
        {
            Win = file.Win,
            MainDate = file.MainDate,
            Demands = [.. file.Demands],
            ReplyWithin = file.ReplyWithin,
            Phases =
            [
                .. file.Phases.Select(
                    (name, at) => new KindPhase(name, file.PhaseDays is { } days && at < days.Length ? days[at] : null)
                ),
            ],
            FirstWeekHours = file.FirstWeekHours,
            Rounds = file.Rounds,
            FinalsWait = file.FinalsWait,
            GuestsEarlier = file.RunSheet?.GuestsEarlier ?? 0,
            Introduction = file.Introduction ?? Introduction.None,
            CancelTerms =
            [
                .. (file.CancelTerms ?? []).Select(step => new CancelStep(step.DaysBefore, Rate.Percent(step.Keeps))),
            ],
            ClosingSteps = [.. file.ClosingSteps],
            Details = [.. file.Details ?? []],
            Brief = [.. file.Brief ?? []],
        };

    /// <returns>The address each form got, by the one its file names.</returns>
    private static async Task<Dictionary<string, string>> FormsAsync(GesamtDb db, KindFile file, KindRow kind)
    {
        db.Forms.Add(
            new()
            {
                KindId = kind.Id,
                Slug = await Forms.FreeSlugAsync(db, file.Key),
                Title = file.FormTitle,
                Intro = file.FormIntro,
                Fields = StoreJson.Write(file.Fields?.ToList() ?? Forms.Around(file.Asks ?? [])),
                Source = file.Source,
            }
        );
        Dictionary<string, string> slugs = [];
        foreach (var q in file.Questionnaires ?? [])
        {
            var slug = await Forms.FreeSlugAsync(db, q.Slug.Replace(ThisKind, kind.Key, StringComparison.Ordinal));
            slugs[q.Slug] = slug;
            db.Forms.Add(
                new()
                {
                    KindId = kind.Id,
                    Purpose = q.Purpose,
                    Slug = slug,
                    Title = q.Title,
                    Intro = q.Intro,
                    Fields = StoreJson.Write(q.Fields),
                    BeforeDraft = q.BeforeDraft,
                }
            );
        }
        return slugs;
    }

    private static async Task RoutinesAsync(
        GesamtDb db,
        string folder,
        string usual,
        KindRow kind,
        IReadOnlyList<string> names,
        IReadOnlyDictionary<string, string> slugs
    )
    {
        for (var i = 0; i < names.Count; i++)
        {
            var text = await File.ReadAllTextAsync(Own(folder, usual, "routines", $"{names[i]}.txt"));
            foreach (var (slug, own) in slugs)
                text = text.Replace($"form {slug} ", $"form {own} ", StringComparison.Ordinal);
            var routine = RoutineText.Read(text.Replace(ThisKind, kind.Key, StringComparison.Ordinal));
            db.Routines.Add(
                new()
                {
                    KindId = kind.Id,
                    Key = routine.Key,
                    Routine = StoreJson.Write(routine),
                    Position = i,
                }
            );
        }
    }

    /// <summary>The folder's own file of that name, else the usual one.</summary>
    private static string Own(string folder, string usual, params string[] name) =>
        Path.Combine([folder, .. name]) is var own && File.Exists(own) ? own : Path.Combine([usual, .. name]);

    private static IEnumerable<string> Paths(string folder, string usual, string of) =>
        new[] { folder, usual }
            .Distinct()
            .Select(one => Path.Combine(one, of))
            .Where(Directory.Exists)
            .SelectMany(one => Directory.GetFiles(one, "*.txt"))
            .DistinctBy(Path.GetFileName)
            .OrderBy(Path.GetFileName, StringComparer.Ordinal);

    private static string KeyOf(string path) =>
        Path.GetFileNameWithoutExtension(path).ToLower(CultureInfo.InvariantCulture);
}
