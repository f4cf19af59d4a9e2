using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Invoicing;
using Gesamt.Core.People;
using Gesamt.Core.Texts;
using Gesamt.Formats.Invoices;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.People;

/// <summary>What is kept of a person.</summary>
public sealed record PersonDetailsDto(
    PersonSort Sort,
    string Name,
    string? Greeted,
    string? Organisation,
    string? Mail,
    string? Phone,
    string? Profile,
    ReachBy? Prefers,
    string? Address,
    string? TaxNumber,
    string Notes,
    int Edition,
    string? Country = null,
    BuyerSort Buyer = BuyerSort.Private
);

/// <param name="Part">What they are in it, where they are not its client.</param>
public sealed record PersonProjectDto(
    long Id,
    string Title,
    string Kind,
    string Standing,
    string? Date,
    string? Agreed,
    string? Part
);

/// <summary>Something that happened with a person.</summary>
public sealed record PersonEventDto(long Project, string When, string Words, string? Opens);

/// <param name="Undo">A merge or split that can be undone.</param>
public sealed record JoinDto(int Undo, string Words);

/// <summary>Somebody who may be the same.</summary>
public sealed record MatchDto(
    long Person,
    string Name,
    string? Organisation,
    string Why,
    IReadOnlyList<string> Projects,
    string? LastContact,
    IReadOnlyList<ContradictionDto> Differs
);

/// <summary>A detail of which two things are known.</summary>
public sealed record ContradictionDto(string Detail, string Known, string Said);

/// <summary>All that is known of a person.</summary>
public sealed record PersonPageDto(
    long Id,
    PersonDetailsDto Details,
    bool HasPicture,
    string? Came,
    string? LastContact,
    int? DaysSince,
    string Agreed,
    string Paid,
    IReadOnlyList<PersonProjectDto> Projects,
    IReadOnlyList<PersonEventDto> Letters,
    IReadOnlyList<PersonEventDto> Meetings,
    IReadOnlyList<string> Labels,
    IReadOnlyList<JoinDto> Joins,
    IReadOnlyList<MatchDto> Matches
);

/// <summary>One person with all that is known of them over their projects.</summary>
public static class PersonPage
{
    private const int MostLetters = 12;

    /// <summary>A person’s page.</summary>
    public static async Task<PersonPageDto> OfAsync(Desk desk, PersonId id)
    {
        var row =
            await desk.Db.People.AsNoTracking().SingleOrDefaultAsync(p => p.Id == id && p.RemovedAt == null)
            ?? throw new MissingException("person");
        var own = await desk.Db.Projects.AsNoTracking().Where(p => p.ClientId == id).Include(p => p.Kind).ToListAsync();
        var parts = await desk
            .Db.ProjectPeople.AsNoTracking()
            .Where(p => p.PersonId == id)
            .Join(
                desk.Db.Projects.Include(p => p.Kind),
                p => p.ProjectId,
                p => p.Id,
                (part, project) => new { part.Part, Project = project }
            )
            .ToListAsync();
        var ids = own.Select(p => p.Id).Concat(parts.Select(p => p.Project.Id)).Distinct().ToList();
        Instant? last = (await Contacts.LastAsync(desk, [id])).TryGetValue(id, out var known) ? known : null;
        var letters = await desk
            .Db.Letters.AsNoTracking()
            .Where(l =>
                l.ProjectId != null
                && ids.Contains(l.ProjectId.Value)
                && (l.State == LetterState.Sent || l.State == LetterState.Received)
                && (l.FromMail == row.Mail || l.ToMail == row.Mail || row.Mail == null)
            )
            .OrderByDescending(l => l.At)
            .Take(MostLetters)
            .ToListAsync();
        var meetings = await desk
            .Db.Meetings.AsNoTracking()
            .Where(m => ids.Contains(m.ProjectId))
            .OrderByDescending(m => m.Start)
            .Take(MostLetters)
            .ToListAsync();
        var joins = await desk
            .Db.Joins.AsNoTracking()
            .Where(j => (j.FromId == id || j.ToId == id) && j.UndoneAt == null && j.Sort != JoinSort.Different)
            .ToListAsync();
        var others = joins.SelectMany(j => new[] { j.FromId, j.ToId }).Distinct().ToList();
        var names = await desk
            .Db.People.AsNoTracking()
            .Where(p => others.Contains(p.Id))
            .ToDictionaryAsync(p => p.Id, p => p.Name);
        return new(
            id.Value,
            Of(row),
            row.Picture is not null,
            own.OrderBy(p => p.Id.Value).FirstOrDefault()?.Source,
            last is { } at ? desk.Short(desk.Calendar.DateOf(at)) : null,
            last is { } since ? DateWords.DaysBetween(desk.Calendar.DateOf(since), desk.Today) : null,
            desk.Sum(own.Select(p => (p.Standing.NetMinor ?? 0, p.Standing.Currency))),
            desk.Sum(own.Select(p => (p.Standing.PaidMinor, p.Standing.Currency))),
            [
                .. own.Select(p => Project(desk, p, null))
                    .Concat(parts.Select(p => Project(desk, p.Project, PartWords(p.Part))))
                    .OrderByDescending(p => p.Id),
            ],
            [
                .. letters.Select(l => new PersonEventDto(
                    l.ProjectId!.Value.Value,
                    desk.Short(desk.Calendar.DateOf(l.At))!,
                    $"{(l.State == LetterState.Received ? "wrote" : "got")} “{l.Subject}”",
                    $"Letter.{l.Id.Value}"
                )),
            ],
            [
                .. meetings.Select(m => new PersonEventDto(
                    m.ProjectId.Value,
                    desk.Short(desk.Calendar.DateOf(m.Start))!,
                    m.Cancelled ? $"{m.Name}, cancelled" : m.Name,
                    $"Meeting.{m.Id.Value}"
                )),
            ],
            await desk.Db.Labels.Where(l => l.PersonId == id).OrderBy(l => l.Label).Select(l => l.Label).ToListAsync(),
            [.. joins.Select(j => new JoinDto(j.Id, JoinWords(j, id, names)))],
            await Matches.OfAsync(desk, row)
        );
    }

    /// <summary>What is edited of a person.</summary>
    public static PersonDetailsDto Of(PersonRow row) =>
        new(
            row.Sort,
            row.Name,
            row.Greeted,
            row.Organisation,
            row.Mail,
            row.Phone,
            row.Profile,
            row.Prefers,
            row.Address,
            row.TaxNumber,
            row.Notes,
            row.Edition,
            row.Country,
            row.Buyer
        );

    /// <exception cref="InvalidException">Something is not as it must be; every field is named.</exception>
    /// <exception cref="StaleException">It was saved in another window meanwhile.</exception>
    public static async Task SaveAsync(Desk desk, PersonId id, PersonDetailsDto save)
    {
        await desk.ActAsync(async act =>
        {
            var row =
                await desk.Db.People.SingleOrDefaultAsync(p => p.Id == id && p.RemovedAt == null)
                ?? throw new MissingException("person");
            if (row.Edition != save.Edition)
                throw new StaleException(Of(row));
            Put(row, save);
            row.Edition++;
            foreach (var project in await desk.Db.Projects.Where(p => p.ClientId == id).Select(p => p.Id).ToListAsync())
                act.Touch(project);
        });
    }

    /// <summary>Adds somebody.</summary>
    public static async Task<PersonId> AddAsync(Desk desk, PersonDetailsDto save)
    {
        var row = new PersonRow { Name = "" };
        Put(row, save);
        desk.Db.People.Add(row);
        await desk.Db.SaveChangesAsync();
        return row.Id;
    }

    public static string PartWords(PersonPart part) =>
        part switch
        {
            PersonPart.Decides => "decides",
            PersonPart.Pays => "pays",
            PersonPart.GetsMail => "gets the letters",
            PersonPart.ReadsAlong => "reads along",
            _ => "supplies",
        };

    private static void Put(PersonRow row, PersonDetailsDto save)
    {
        List<(string, string)> errors = [];
        string? Text(string field, string? value, int most)
        {
            if (value?.Trim().Length > most)
                errors.Add((field, $"At most {most} characters."));
            return string.IsNullOrWhiteSpace(value) ? null
                : field is "address" or "notes" ? Typed.Lines(value)
                : Typed.OneLine(value);
        }
        if (save.Name.Trim().Length is 0 or > 120)
            errors.Add(("name", "A name of 1 to 120 characters is needed."));
        (row.Sort, row.Name, row.Prefers) = (save.Sort, Typed.OneLine(save.Name), save.Prefers);
        (row.Greeted, row.Organisation, row.Phone) = (
            Text("greeted", save.Greeted, 80),
            Text("organisation", save.Organisation, 160),
            Text("phone", save.Phone, 60)
        );
        (row.Mail, row.Profile) = (
            Text("mail", save.Mail, 254)?.ToLowerInvariant(),
            Text("profile", save.Profile, 300)
        );
        (row.Address, row.TaxNumber, row.Notes) = (
            Text("address", save.Address, 500),
            Text("taxNumber", save.TaxNumber, 60),
            Text("notes", save.Notes, 10_000) ?? ""
        );
        (row.Country, row.Buyer) = (Text("country", save.Country, 2)?.ToUpperInvariant(), save.Buyer);
        if (row.Country is { } country && !Countries.IsCode(country))
            errors.Add(("country", "A country by its two letters, such as IE or AT; or nothing for your own."));
        if (row.Mail is { } mail && !MailAddress.IsValid(mail))
            errors.Add(("mail", MailAddress.Allowed));
        if (row is { Mail: null, Phone: null, Profile: null })
            errors.Add(
                ("mail", "One way to reach them is needed: a mail address, a phone number or a link to a profile.")
            );
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
    }

    private static PersonProjectDto Project(Desk desk, ProjectRow row, string? part) =>
        new(
            row.Id.Value,
            row.Title,
            row.Kind!.Name,
            row.Standing.Ended is { } end ? LineText.EndWords(end)
                : row.Standing.PutAway ? "Put away"
                : row.Standing.Words,
            desk.Short(row.Standing.MainDate),
            row.Standing.NetMinor is { } net ? MoneyText.Of(desk.Amount(net, row.Standing.Currency)) : null,
            part
        );

    private static string JoinWords(JoinRow join, PersonId id, Dictionary<PersonId, string> names) =>
        (join.Sort, join.ToId == id) switch
        {
            (JoinSort.Merged, true) => $"{names[join.FromId]} was found to be the same",
            (JoinSort.Merged, false) => $"found to be the same as {names[join.ToId]}, who stands for both",
            (_, true) => $"taken apart from {names[join.FromId]}",
            _ => $"{names[join.ToId]} was taken apart from here",
        };
}
