using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using Gesamt.Core;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Formats.Calendars;
using Gesamt.Formats.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.People;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Archives;

/// <summary>What a person may ask for: all that they told the studio and that it sent them, in one ZIP to be handed to them (common practice under the law on personal data: a copy, and what they gave in a form that a machine reads).</summary>
/// <remarks>What is the owner's alone is not in it: notes, tasks, details, labels, routines, hours, costs, and what was never shown to them.</remarks>
internal static class PersonCopy
{
    private static readonly JsonSerializerOptions Json = new(StoreJson.Options)
    {
        WriteIndented = true,
        // what is put together here for the file alone cannot be set
        IgnoreReadOnlyProperties = false,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    public static async Task<IResult> OfAsync(Desk desk, PersonId id)
    {
        var person = await StandingForAsync(desk, id);
        id = person.Id;
        return await PassingZip.OfAsync(
            $"{EntryNames.Part(person.Name)}.zip",
            async zip =>
            {
                var copy = new CopyWriter(desk, zip);
                await copy.AddAsync(Written(Known(person)), "person.json");
                await copy.AddAsync(Encoding.UTF8.GetBytes(await PeopleList.VCardsAsync(desk, id)), "person.vcf");
                foreach (var project in await ProjectsAsync(desk, id))
                    await ProjectAsync(desk, copy, person, project);
                await copy.SayLeftAsync();
            }
        );
    }

    /// <summary>They themselves, or who stands for them since both were found to be the same.</summary>
    private static async Task<PersonRow> StandingForAsync(Desk desk, PersonId id)
    {
        var row =
            await desk.Db.People.AsNoTracking().SingleOrDefaultAsync(p => p.Id == id && p.RemovedAt == null)
            ?? throw new MissingException("person");
        return row.MergedInto is { } other ? await StandingForAsync(desk, other) : row;
    }

    private static byte[] Written<T>(T value) => JsonSerializer.SerializeToUtf8Bytes(value, Json);

    /// <summary>Everything that stands about them on their own page, but for the owner's notes.</summary>
    private static object Known(PersonRow person) =>
        new
        {
            person.Name,
            person.Greeted,
            person.Organisation,
            person.Mail,
            person.Phone,
            Also = person.Also.Split('\n', StringSplitOptions.RemoveEmptyEntries),
            person.Profile,
            person.Prefers,
            person.Address,
            person.TaxNumber,
            person.Country,
        };

    /// <summary>Those they are the client of or have a part in, the first one first.</summary>
    private static Task<List<ProjectId>> ProjectsAsync(Desk desk, PersonId id) =>
        desk
            .Db.Projects.Where(p =>
                p.ClientId == id || desk.Db.ProjectPeople.Any(part => part.ProjectId == p.Id && part.PersonId == id)
            )
            .OrderBy(p => p.Id)
            .Select(p => p.Id)
            .ToListAsync();

    private static async Task ProjectAsync(Desk desk, CopyWriter copy, PersonRow person, ProjectId id)
    {
        var file = await desk.OpenAsync(id);
        var folder = $"{id.Value:00000} {file.Row.Title}";
        var isClient = file.Row.ClientId == person.Id;
        await copy.LettersAsync(
            (await LetterFiles.RowsAsync(desk, id)).Where(letter => IsTheirs(letter, person, isClient)),
            folder,
            "letters"
        );
        await MeetingsAsync(desk, copy, file, folder);
        await SignaturesAsync(desk, copy, person, id, isClient, folder);
        if (!isClient)
            return;
        await AnswersAsync(desk, copy, id, folder);
        await WordsAsync(desk, copy, file, folder);
        await copy.PapersAsync(id, folder, "papers");
        await PaymentsAsync(desk, copy, id, folder);
        var shown = Sight.Shown(file.History);
        await copy.FilesAsync(
            (
                await desk
                    .Db.Files.AsNoTracking()
                    .Where(f => f.ProjectId == id && !f.Removed)
                    .OrderBy(f => f.Id)
                    .ToListAsync()
            ).Where(row => row.By == Actor.Client || shown.Contains(row.Id)),
            folder,
            "files"
        );
    }

    /// <summary>A letter from or to one of their addresses; without anybody named, an outgoing one is the client's.</summary>
    private static bool IsTheirs(LetterRow letter, PersonRow person, bool isClient)
    {
        bool Is(string mail) =>
            mail.Length > 0
            && (
                mail.Equals(person.Mail, StringComparison.OrdinalIgnoreCase)
                || person.Also.Split('\n').Contains(mail, StringComparer.OrdinalIgnoreCase)
            );
        return letter.ToPerson == person.Id
            || Is(letter.FromMail)
            || Is(letter.ToMail)
            || isClient && letter.ToPerson is null && letter.Original is null;
    }

    private static async Task AnswersAsync(Desk desk, CopyWriter copy, ProjectId id, string folder)
    {
        var forms = await desk.Db.Answers.AsNoTracking().Where(a => a.ProjectId == id).OrderBy(a => a.Id).ToListAsync();
        if (forms.Count > 0)
            await copy.AddAsync(
                Written(
                    forms.Select(form => new
                    {
                        form.Form,
                        form.At,
                        Answers = (StoreJson.TryRead<List<Answer>>(form.Items) ?? []).Select(one => AnswerDto.Of(one)),
                    })
                ),
                folder,
                "answers.json"
            );
    }

    /// <summary>What they remarked and asked themselves: the owner, too, gives reasons in words, which are the owner's alone.</summary>
    private static async Task WordsAsync(Desk desk, CopyWriter copy, ProjectFile file, string folder)
    {
        var theirs = file
            .History.Facts.Where(fact => fact.By == Actor.Client)
            .SelectMany(fact => fact.What.GetType().GetProperties().Select(part => part.GetValue(fact.What)))
            .OfType<NoteId>()
            .ToList();
        var words = await desk
            .Db.Notes.AsNoTracking()
            .Where(n => theirs.Contains(n.Id) && !n.Removed)
            .OrderBy(n => n.Id)
            .Select(n => new { n.At, n.Text })
            .ToListAsync();
        if (words.Count > 0)
            await copy.AddAsync(Written(words), folder, "your words.json");
    }

    private static async Task SignaturesAsync(
        Desk desk,
        CopyWriter copy,
        PersonRow person,
        ProjectId id,
        bool isClient,
        string folder
    )
    {
        var signatures = await desk
            .Db.Signatures.AsNoTracking()
            .Where(s =>
                s.Signer == Signer.Client
                && (s.PersonId == person.Id || isClient && s.PersonId == null)
                && desk.Db.Versions.Any(v => v.Id == s.VersionId && v.ProjectId == id)
            )
            .OrderBy(s => s.Id)
            .Select(s => new
            {
                s.Name,
                s.Consent,
                s.At,
                s.Address,
                s.Agent,
                s.Proof,
                Sha256OfPaper = s.Hash,
            })
            .ToListAsync();
        if (signatures.Count > 0)
            await copy.AddAsync(Written(signatures), folder, "signatures.json");
    }

    private static async Task PaymentsAsync(Desk desk, CopyWriter copy, ProjectId id, string folder)
    {
        var payments = await desk
            .Db.Payments.AsNoTracking()
            .Where(p => p.ProjectId == id && p.GoneAt == null)
            .OrderBy(p => p.Id)
            .ToListAsync();
        if (payments.Count > 0)
            await copy.AddAsync(
                Written(
                    payments.Select(p => new
                    {
                        p.At,
                        p.AmountMinor,
                        p.Currency,
                        p.Means,
                        p.Reference,
                    })
                ),
                folder,
                "payments.json"
            );
    }

    private static async Task MeetingsAsync(Desk desk, CopyWriter copy, ProjectFile file, string folder)
    {
        var meetings = await desk
            .Db.Meetings.AsNoTracking()
            .Where(m => m.ProjectId == file.Id)
            .OrderBy(m => m.Id)
            .ToListAsync();
        if (meetings.Count > 0)
            await copy.AddAsync(
                Encoding.UTF8.GetBytes(
                    Invitations.Feed(
                        desk.Studio.Name,
                        meetings.Select(m => new CalendarMeeting(
                            m.Uid,
                            m.Sequence,
                            m.Start,
                            m.End,
                            m.Name,
                            m.Agenda,
                            m.Where,
                            m.Start,
                            Cancelled: m.Cancelled
                        )),
                        []
                    )
                ),
                folder,
                "meetings.ics"
            );
    }
}
