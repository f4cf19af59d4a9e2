using System.Text.Json.Serialization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Forms;
using Gesamt.Core.People;
using Gesamt.Core.Texts;
using Gesamt.Formats.People;
using Gesamt.Formats.Tables;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.People;

/// <summary>A person in the list.</summary>
public sealed record PersonRowDto(
    long Id,
    string Name,
    string? Organisation,
    PersonSort Sort,
    string Reach,
    int Projects,
    int Open,
    string Agreed,
    string? LastContact,
    int? DaysSince,
    IReadOnlyList<string> Labels
)
{
    // for tables, which take data and no words
    [JsonIgnore]
    public long AgreedMinor { get; init; }

    /// <summary>The day of the last touch, to sort by.</summary>
    [JsonIgnore]
    public LocalDate? LastDay { get; init; }
}

/// <param name="More">People who are not shown.</param>
public sealed record PeopleDto(int Total, IReadOnlyList<PersonRowDto> Rows, int More, IReadOnlyList<string> Labels);

/// <summary>Who is asked for.</summary>
public sealed record PeopleQuery
{
    /// <summary>Part of a name, an organisation or a way to reach them.</summary>
    public string? Words { get; init; }

    /// <summary>Which sort of person.</summary>
    public PersonSort? Sort { get; init; }
    public string? Label { get; init; }
    public bool? LongestFirst { get; init; }
}

/// <summary>Everybody the studio knows.</summary>
public static class PeopleList
{
    private const int Most = 200,
        MostWays = 20;

    /// <summary>The list as it is asked for.</summary>
    public static async Task<PeopleDto> OfAsync(Desk desk, PeopleQuery query)
    {
        var people = Asked(desk, query);
        var total = await people.CountAsync();
        var rows = await RowsAsync(desk, query.LongestFirst == true ? people : people.OrderBy(p => p.Name).Take(Most));
        if (query.LongestFirst == true)
            rows = [.. rows.OrderByDescending(r => r.DaysSince ?? -1).Take(Most)];
        return new(total, rows, total - rows.Count, await Labels(desk.Db));
    }

    private static readonly Func<GesamtDb, Task<List<string>>> Labels = Prepared.Rows(
        (GesamtDb db) => db.Labels.Where(l => l.PersonId != null).Select(l => l.Label).Distinct().OrderBy(l => l)
    );

    /// <summary>The same as CSV (RFC 4180).</summary>
    public static async Task<byte[]> CsvAsync(Desk desk, PeopleQuery query)
    {
        var rows = await RowsAsync(desk, Asked(desk, query).OrderBy(p => p.Name));
        return Csv.Write(
            [
                "Name",
                "Organisation",
                "Sort",
                "Reach",
                "Projects",
                "Open",
                $"Agreed net {desk.Currency}",
                "Last contact",
                "Labels",
            ],
            rows.Select(r =>
                (IReadOnlyList<string>)
                    [
                        r.Name,
                        r.Organisation ?? "",
                        r.Sort.ToString(),
                        r.Reach,
                        $"{r.Projects}",
                        $"{r.Open}",
                        r.AgreedMinor is > 0 and var agreed ? MoneyText.Exact(new(agreed, desk.Currency)) : "",
                        TableFile.Day(r.LastDay),
                        string.Join(", ", r.Labels),
                    ]
            )
        );
    }

    /// <summary>The same as vCards (RFC 6350), of one or of all.</summary>
    public static async Task<string> VCardsAsync(Desk desk, PersonId? only) =>
        VCards.Write(
            (
                await desk
                    .Db.People.AsNoTracking()
                    .Where(p => p.MergedInto == null && p.RemovedAt == null && (only == null || p.Id == only))
                    .OrderBy(p => p.Name)
                    .ThenBy(p => p.Id)
                    .ToListAsync()
            ).Select(p => new Card(p.Name, p.Organisation, p.Mail, p.Phone, p.Address, p.Profile, null)
            {
                MoreMails = [.. FormRule.Lines(p.Also).Where(way => way.Contains('@', StringComparison.Ordinal))],
                MorePhones = [.. FormRule.Lines(p.Also).Where(way => !way.Contains('@', StringComparison.Ordinal))],
                Uid = p.CardUid ?? $"urn:gesamt:person:{p.Id.Value}",
            })
        );

    /// <summary>Takes people over from vCards.</summary>
    public static async Task<ReadCardsDto> ReadAsync(Desk desk, string text)
    {
        IReadOnlyList<Card> cards;
        try
        {
            cards = VCards.Read(text);
        }
        catch (FormatException e)
        {
            throw new InvalidException(("text", e.Message));
        }
        return await TakeAsync(desk, cards);
    }

    /// <summary>Takes people over; those whose name and a way to reach them are known already are left as they are.</summary>
    internal static Task<ReadCardsDto> TakeAsync(Desk desk, IReadOnlyList<Card> cards) =>
        desk.ActAsync(async act =>
        {
            var (made, known, unreachable) = (0, 0, new List<string>());
            foreach (var card in cards)
            {
                // an address nobody can write to is kept as a note, not as a way to reach them
                var (given, name) = (MailAddress.Plain(card.Mail), ShortText.Of(card.Name, Typed.Most));
                var mail = MailAddress.IsValid(given) ? given : null;
                var notes =
                    mail == given
                        ? card.Note ?? ""
                        : $"{card.Note}\nMail as it was given: {ShortText.Of(given!)}".Trim();
                var also = string.Join(
                    '\n',
                    card.MoreMails.Where(MailAddress.IsValid)
                        .Concat(card.MorePhones)
                        .Select(way => ShortText.Of(way))
                        .Take(MostWays)
                );
                if (
                    await desk.Db.People.AnyAsync(p =>
                        p.MergedInto == null
                        && p.RemovedAt == null
                        && (
                            card.Uid != null && p.CardUid == card.Uid
                            || p.Name == name
                                && (
                                    mail != null && p.Mail == mail
                                    || card.Phone != null && p.Phone == card.Phone
                                    || card.Url != null && p.Profile == card.Url
                                )
                        )
                    )
                )
                    known++;
                else if (mail is null && card.Phone is null && card.Url is null)
                    unreachable.Add(name);
                else
                {
                    desk.Db.People.Add(
                        new()
                        {
                            Name = name,
                            Organisation = card.Organisation,
                            Mail = mail,
                            Phone = card.Phone,
                            Address = card.Address,
                            Profile = card.Url,
                            Notes = notes,
                            Also = also,
                            CardUid = card.Uid is { Length: <= 200 } ? card.Uid : null,
                        }
                    );
                    made++;
                    await desk.Db.SaveChangesAsync();
                }
            }
            return new ReadCardsDto(made, known, unreachable);
        });

    private static IQueryable<PersonRow> Asked(Desk desk, PeopleQuery query)
    {
        var people = desk.Db.People.AsNoTracking().Where(p => p.MergedInto == null && p.RemovedAt == null);
        if (query.Sort is { } sort)
            people = people.Where(p => p.Sort == sort);
        if (query.Label is { } label)
            people = people.Where(p => desk.Db.Labels.Any(l => l.PersonId == p.Id && l.Label == label));
        if (query.Words?.Trim() is { Length: > 0 } words)
            people = people.Where(p =>
                GesamtDb.Holds(p.Name, words)
                || GesamtDb.Holds(p.Organisation, words)
                || GesamtDb.Holds(p.Mail, words)
                || GesamtDb.Holds(p.Phone, words)
            );
        return people;
    }

    private sealed record Theirs(PersonId ClientId, bool IsOpen, long? NetMinor, string? Currency);

    private static readonly Func<GesamtDb, IReadOnlyCollection<PersonId>, Task<List<Theirs>>> ProjectsOf =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<PersonId> ids) =>
                db
                    .Projects.AsNoTracking()
                    .Where(p => ids.Contains(p.ClientId))
                    .Select(p => new Theirs(
                        p.ClientId,
                        p.Standing.Ended == null && p.Standing.Stage != Core.Stages.Stage.Finished,
                        p.Standing.NetMinor,
                        p.Standing.Currency
                    ))
        );

    private static readonly Func<GesamtDb, IReadOnlyCollection<PersonId>, Task<List<LabelRow>>> LabelsOf =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<PersonId> ids) =>
                db.Labels.AsNoTracking().Where(l => l.PersonId != null && ids.Contains(l.PersonId.Value))
        );

    private static async Task<IReadOnlyList<PersonRowDto>> RowsAsync(Desk desk, IQueryable<PersonRow> people)
    {
        var rows = await people.ToListAsync();
        var ids = rows.Select(p => p.Id).ToList();
        var projects = (await ProjectsOf(desk.Db, ids)).ToLookup(p => p.ClientId);
        var labels = (await LabelsOf(desk.Db, ids)).ToLookup(l => l.PersonId!.Value, l => l.Label);
        var last = await Contacts.LastAsync(desk, ids);
        return
        [
            .. rows.Select(p => new PersonRowDto(
                p.Id.Value,
                p.Name,
                p.Organisation,
                p.Sort,
                Reach(p),
                projects[p.Id].Count(),
                projects[p.Id].Count(x => x.IsOpen),
                projects[p.Id].Any(x => x.NetMinor > 0)
                    ? desk.Sum(projects[p.Id].Select(x => (x.NetMinor ?? 0, x.Currency)))
                    : "",
                last.TryGetValue(p.Id, out var at) ? desk.Short(desk.Calendar.DateOf(at)) : null,
                last.TryGetValue(p.Id, out var since)
                    ? DateWords.DaysBetween(desk.Calendar.DateOf(since), desk.Today)
                    : null,
                [.. labels[p.Id].Order()]
            )
            {
                AgreedMinor = projects[p.Id]
                    .Where(x => x.Currency is null || x.Currency == desk.Currency.Code)
                    .Sum(x => x.NetMinor ?? 0),
                LastDay = last.TryGetValue(p.Id, out var on) ? desk.Calendar.DateOf(on) : null,
            }),
        ];
    }

    /// <summary>The way they prefer, else the first that is known.</summary>
    private static string Reach(PersonRow p) =>
        p.Prefers switch
        {
            ReachBy.Phone when p.Phone is { } phone => phone,
            ReachBy.Profile when p.Profile is { } profile => profile,
            _ => p.Mail ?? p.Phone ?? p.Profile ?? "",
        };
}
