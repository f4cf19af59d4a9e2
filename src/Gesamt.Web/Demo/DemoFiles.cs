using System.Globalization;
using Gesamt.Core.Briefs;
using Gesamt.Core.Calendar;
using Gesamt.Core.Forms;
using Gesamt.Core.Meetings;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.SignIn;
using Gesamt.Web.Work;
using Microsoft.AspNetCore.Identity;
using NodaTime;

namespace Gesamt.Web.Demo;

/// <summary>Reads the demo's studio, kinds and letters from their files.</summary>
public static class DemoFiles
{
    private sealed record StudioFile(
        string Name,
        string Owner,
        string Mail,
        string Zone,
        string Currency,
        string Brand,
        string Address,
        string TaxNumber,
        string Iban,
        string Signature,
        LocalTime SendFrom,
        LocalTime SendUntil,
        string Password,
        PersonFile[] People
    );

    private sealed record PersonFile(
        string Name,
        PersonSort Sort,
        string? Organisation,
        string? Mail,
        string? Phone,
        string Notes
    );

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

    private sealed record ServiceFile(string Title, string Detail, string Unit, decimal UnitPrice, decimal Tax);

    private sealed record TaskFile(string Title, int Days, string? Phase = null);

    private sealed record KindFile(
        string Key,
        string Name,
        string MainDate,
        string[] Demands,
        int ReplyWithin,
        string FormTitle,
        string FormIntro,
        FormField[] Fields,
        ServiceFile[] Services,
        TaskFile[] Tasks,
        string[] Routines,
        string[] Phases,
        int Rounds,
        string[] ClosingSteps,
        DetailRule[]? Details = null,
        BriefPart[]? Brief = null,
        string? Source = null,
        int Position = 0,
        QuestionnaireFile[]? Questionnaires = null
    );

    private sealed record QuestionnaireFile(
        string Slug,
        FormPurpose Purpose,
        string Title,
        string Intro,
        FormField[] Fields
    );

    /// <summary>Lays the studio of a folder of readable files: kinds, forms, letters, prices, routines.</summary>
    public static async Task LoadAsync(GesamtDb db, IPasswordHasher<StudioRow> hasher, string folder)
    {
        var file = StoreJson.Read<StudioFile>(await File.ReadAllTextAsync(Path.Combine(folder, "studio.json")));
        var studio = new StudioRow
        {
            Name = file.Name,
            Owner = file.Owner,
            Mail = file.Mail,
            Zone = file.Zone,
            Currency = file.Currency,
            Brand = file.Brand,
            Address = file.Address,
            TaxNumber = file.TaxNumber,
            Iban = file.Iban,
            Signature = file.Signature,
            SendFrom = file.SendFrom,
            SendUntil = file.SendUntil,
            SecurityStamp = SignInEndpoints.NewStamp(),
        };
        studio.PasswordHash = hasher.HashPassword(studio, file.Password);
        studio.OpenHours = StoreJson.Write((await MeetingsAsync(folder)).OpenHours);
        db.Studio.Add(studio);
        db.People.AddRange(
            file.People.Select(p => new PersonRow
            {
                Name = p.Name,
                Sort = p.Sort,
                Organisation = p.Organisation,
                Mail = p.Mail,
                Phone = p.Phone,
                Notes = p.Notes,
            })
        );
        await LoadKindsAsync(db, folder);
    }

    /// <summary>The letters and kinds alone: what a new studio begins with.</summary>
    public static async Task LoadKindsAsync(GesamtDb db, string folder)
    {
        foreach (var path in Directory.GetFiles(Path.Combine(folder, "letters"), "*.txt").Order(StringComparer.Ordinal))
            db.LetterTemplates.Add(await LetterAsync(path));
        foreach (var path in Directory.GetFiles(Path.Combine(folder, "kinds"), "*.json").Order(StringComparer.Ordinal))
            await KindAsync(db, folder, path);
        db.MeetingKinds.AddRange(
            (await MeetingsAsync(folder)).Kinds.Select(k => new MeetingKindRow
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
        await db.SaveChangesAsync();
    }

    /// <summary>The hours a studio begins with.</summary>
    public static async Task<string> OpenHoursAsync(string folder) =>
        StoreJson.Write((await MeetingsAsync(folder)).OpenHours);

    private static async Task<MeetingsFile> MeetingsAsync(string folder) =>
        StoreJson.Read<MeetingsFile>(await File.ReadAllTextAsync(Path.Combine(folder, "meetings.json")));

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
        _ = Core.Letters.LetterText.Parse(row.Subject + row.Body);
        return row;
    }

    private static async Task KindAsync(GesamtDb db, string folder, string path)
    {
        var file = StoreJson.Read<KindFile>(await File.ReadAllTextAsync(path));
        var rules = KindRules.Default with
        {
            MainDate = file.MainDate,
            Demands = [.. file.Demands],
            ReplyWithin = file.ReplyWithin,
            Phases = [.. file.Phases],
            Rounds = file.Rounds,
            ClosingSteps = [.. file.ClosingSteps],
            Details = [.. file.Details ?? []],
            Brief = [.. file.Brief ?? []],
        };
        var kind = new KindRow
        {
            Key = file.Key,
            Name = file.Name,
            Rules = StoreJson.Write(rules),
            Position = file.Position,
        };
        db.Kinds.Add(kind);
        await db.SaveChangesAsync();
        db.Forms.Add(
            new()
            {
                KindId = kind.Id,
                Slug = file.Key,
                Title = file.FormTitle,
                Intro = file.FormIntro,
                Fields = StoreJson.Write(file.Fields),
                Source = file.Source,
            }
        );
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
                        TaxPartsPerMillion = (int)(s.Tax * 10_000),
                    }
            )
        );
        db.Forms.AddRange(
            (file.Questionnaires ?? []).Select(q => new FormRow
            {
                KindId = kind.Id,
                Purpose = q.Purpose,
                Slug = q.Slug,
                Title = q.Title,
                Intro = q.Intro,
                Fields = StoreJson.Write(q.Fields),
            })
        );
        db.TaskLists.Add(
            new()
            {
                Key = file.Key,
                Name = file.Name,
                Items = StoreJson.Write(
                    file.Tasks.Select(t => new ListedTask(t.Title, Span.Days(t.Days), t.Phase)).ToList()
                ),
            }
        );
        for (var i = 0; i < file.Routines.Length; i++)
        {
            var routine = RoutineText.Read(
                await File.ReadAllTextAsync(Path.Combine(folder, "routines", $"{file.Routines[i]}.txt"))
            );
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
        var contract = await File.ReadAllLinesAsync(Path.Combine(folder, "contracts", $"{file.Key}.txt"));
        db.ContractTemplates.Add(
            new()
            {
                KindId = kind.Id,
                Title = contract[0],
                Body = string.Join('\n', contract[2..]).Trim(),
            }
        );
    }

    private static string KeyOf(string path) =>
        Path.GetFileNameWithoutExtension(path).ToLower(CultureInfo.InvariantCulture);
}
