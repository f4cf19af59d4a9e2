using Gesamt.Core;
using Gesamt.Core.Forms;
using Gesamt.Core.People;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.People;

/// <summary>People who may be the same: offered with what is known, joined or told apart by the owner alone, and either can be undone.</summary>
public static class Matches
{
    private const int Most = 5;

    /// <summary>What changed hands in a merge or split.</summary>
    /// <param name="After">What the second was made by it, so that an undoing leaves alone what was edited since.</param>
    private sealed record Moved(
        long[] Clients,
        int[] Parts,
        int[] Labels,
        PersonDetailsDto? Before,
        PersonDetailsDto? After = null
    );

    /// <summary>Who may be the same person, with what speaks for it.</summary>
    public static async Task<IReadOnlyList<MatchDto>> OfAsync(Desk desk, PersonRow row)
    {
        if (row.MergedInto is not null)
            return [];
        var (mail, name, tail) = (
            row.Mail,
            row.PlainName,
            Matching.Digits(row.Phone) is { } digits ? $"%{string.Join('%', digits[^4..].ToCharArray())}%" : null
        );
        var apart = await desk
            .Db.Joins.AsNoTracking()
            .Where(j =>
                (j.FromId == row.Id || j.ToId == row.Id)
                && j.UndoneAt == null
                && (j.Sort == JoinSort.Different || j.Sort == JoinSort.Split)
            )
            .Select(j => j.FromId == row.Id ? j.ToId : j.FromId)
            .ToListAsync();
        var others = await desk
            .Db.People.AsNoTracking()
            .Where(p =>
                p.Id != row.Id
                && p.MergedInto == null
                && p.RemovedAt == null
                && !apart.Contains(p.Id)
                && (
                    mail != null && p.Mail == mail
                    || name != "" && p.PlainName == name
                    || tail != null && EF.Functions.Like(p.Phone!, tail)
                )
            )
            .OrderBy(p => p.Id)
            .Take(50)
            .ToListAsync();
        var matches = Matching.Of(KnownOf(row), others.Select(KnownOf)).Take(Most).ToList();
        var ids = matches.Select(match => match.Id).ToList();
        var projects = (
            await desk
                .Db.Projects.AsNoTracking()
                .Where(p => ids.Contains(p.ClientId))
                .OrderByDescending(p => p.Id)
                .Select(p => new { p.ClientId, p.Title })
                .ToListAsync()
        ).ToLookup(p => p.ClientId, p => p.Title);
        var last = ids.Count == 0 ? null : await Contacts.LastAsync(desk, ids);
        return
        [
            .. matches.Select(match =>
            {
                var other = others.Single(p => p.Id == match.Id);
                return new MatchDto(
                    other.Id.Value,
                    other.Name,
                    other.Organisation,
                    string.Join(", ", match.Reasons.Select(Words)),
                    [.. projects[other.Id].Take(4)],
                    last!.TryGetValue(other.Id, out var at) ? desk.Short(desk.Calendar.DateOf(at)) : null,
                    [.. Differences(other, row).Select(c => new ContradictionDto(c.Detail, c.Known, c.Said))]
                );
            }),
        ];
    }

    /// <summary>Two are one: projects and parts of the first go to the second, who stands for both. What is unknown of the second is filled in; what differs stays unless it is taken.</summary>
    /// <param name="take">Details of the first that replace those of the second.</param>
    public static async Task MergeAsync(Desk desk, PersonId fromId, PersonId toId, IReadOnlyCollection<string> take)
    {
        await desk.ActAsync(async act =>
        {
            var (from, to) = (await OneAsync(desk, fromId), await OneAsync(desk, toId));
            if (fromId == toId)
                throw new RefusedException("Nobody can be joined with themselves.");
            var before = PersonPage.Of(to);
            var (added, differs) = DetailsRule.Compare(Values(to), Values(from));
            foreach (
                var (detail, value) in added.Concat(
                    differs.Where(c => take.Contains(c.Detail)).Select(c => KeyValuePair.Create(c.Detail, c.Said))
                )
            )
                Set(to, detail, value);
            if (from.Notes.Length > 0)
                to.Notes = $"{to.Notes}\n{from.Notes}".Trim();
            to.Edition++;
            from.MergedInto = toId;
            var clients = await desk.Db.Projects.Where(p => p.ClientId == fromId).ToListAsync();
            var parts = await desk
                .Db.ProjectPeople.Where(p =>
                    p.PersonId == fromId
                    && !desk.Db.ProjectPeople.Any(o =>
                        o.PersonId == toId && o.ProjectId == p.ProjectId && o.Part == p.Part
                    )
                )
                .ToListAsync();
            var labels = await desk
                .Db.Labels.Where(l =>
                    l.PersonId == fromId && !desk.Db.Labels.Any(o => o.PersonId == toId && o.Label == l.Label)
                )
                .ToListAsync();
            foreach (var project in clients)
                project.ClientId = toId;
            foreach (var part in parts)
                part.PersonId = toId;
            foreach (var label in labels)
                label.PersonId = toId;
            Keep(
                desk,
                JoinSort.Merged,
                fromId,
                toId,
                new(
                    [.. clients.Select(p => p.Id.Value)],
                    [.. parts.Select(p => p.Id)],
                    [.. labels.Select(l => l.Id)],
                    before,
                    PersonPage.Of(to)
                )
            );
            foreach (var project in clients)
                act.Touch(project.Id);
        });
    }

    /// <summary>One is two: some of the projects go to somebody new. The old person's links to those projects open nothing any more.</summary>
    public static async Task<PersonId> SplitAsync(
        Desk desk,
        PersonId fromId,
        IReadOnlyCollection<long> projects,
        PersonDetailsDto person
    )
    {
        return await desk.ActAsync(async act =>
        {
            await OneAsync(desk, fromId);
            var ids = projects.Select(id => new ProjectId(id)).ToList();
            var rows = await desk.Db.Projects.Where(p => p.ClientId == fromId && ids.Contains(p.Id)).ToListAsync();
            if (rows.Count == 0 || rows.Count != ids.Distinct().Count())
                throw new InvalidException(("projects", "Choose the projects that are somebody else's."));
            var to = await PersonPage.AddAsync(desk, person);
            foreach (var row in rows)
                row.ClientId = to;
            await EndLinksAsync(desk, fromId, ids, ended: true);
            Keep(desk, JoinSort.Split, fromId, to, new([.. rows.Select(p => p.Id.Value)], [], [], null));
            foreach (var row in rows)
                act.Touch(row.Id);
            return to;
        });
    }

    /// <summary>Says that two are different, once and for all.</summary>
    public static async Task DifferentAsync(Desk desk, PersonId from, PersonId to)
    {
        await OneAsync(desk, from);
        await OneAsync(desk, to);
        desk.Db.Joins.Add(
            new()
            {
                Sort = JoinSort.Different,
                FromId = from,
                ToId = to,
                At = desk.Now,
            }
        );
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>Undoes a merge or split: what changed hands goes back, unless it was moved on since.</summary>
    public static async Task UndoAsync(Desk desk, int id)
    {
        await desk.ActAsync(async act =>
        {
            var join =
                await desk.Db.Joins.SingleOrDefaultAsync(j => j.Id == id && j.UndoneAt == null)
                ?? throw new RefusedException("This was undone already.");
            var moved = join.Sort == JoinSort.Different ? new([], [], [], null) : StoreJson.Read<Moved>(join.Moved);
            var (from, to) = (
                await desk.Db.People.SingleAsync(p => p.Id == join.FromId),
                await desk.Db.People.SingleAsync(p => p.Id == join.ToId)
            );
            if (to.MergedInto is not null)
                throw new RefusedException($"{to.Name} was joined with somebody else since. Undo that first.");
            var ids = moved.Clients.Select(number => new ProjectId(number)).ToList();
            foreach (
                var project in await desk
                    .Db.Projects.Where(p => ids.Contains(p.Id) && p.ClientId == join.ToId)
                    .ToListAsync()
            )
            {
                project.ClientId = join.FromId;
                act.Touch(project.Id);
            }
            foreach (var part in await desk.Db.ProjectPeople.Where(p => moved.Parts.Contains(p.Id)).ToListAsync())
                part.PersonId = join.FromId;
            foreach (var label in await desk.Db.Labels.Where(l => moved.Labels.Contains(l.Id)).ToListAsync())
                label.PersonId = join.FromId;
            if (join.Sort == JoinSort.Merged)
            {
                from.MergedInto = null;
                if (moved.Before is { } before)
                    TakeBack(to, before, moved.After);
                to.Edition++;
            }
            else if (join.Sort == JoinSort.Split)
            {
                await EndLinksAsync(desk, join.FromId, ids, ended: false);
                await EndLinksAsync(desk, join.ToId, ids, ended: true);
                if (!await desk.Db.Projects.AnyAsync(p => p.ClientId == join.ToId && !ids.Contains(p.Id)))
                    to.RemovedAt = desk.Now;
            }
            join.UndoneAt = desk.Now;
        });
    }

    /// <summary>What the merge filled in goes again; what was edited since stays as it was edited.</summary>
    /// <param name="after">Null for a merge of an older Gesamt, which kept only what was before: there all of it goes back.</param>
    private static void TakeBack(PersonRow to, PersonDetailsDto before, PersonDetailsDto? after)
    {
        T Of<T>(T now, T was, Func<PersonDetailsDto, T> made) => after is null || Equals(now, made(after)) ? was : now;
        to.Organisation = Of(to.Organisation, before.Organisation, a => a.Organisation);
        to.Mail = Of(to.Mail, before.Mail, a => a.Mail);
        to.Phone = Of(to.Phone, before.Phone, a => a.Phone);
        to.Profile = Of(to.Profile, before.Profile, a => a.Profile);
        to.Address = Of(to.Address, before.Address, a => a.Address);
        to.TaxNumber = Of(to.TaxNumber, before.TaxNumber, a => a.TaxNumber);
        to.Country = Of(to.Country, before.Country, a => a.Country);
        to.Notes = Of(to.Notes, before.Notes, a => a.Notes);
    }

    private static Task EndLinksAsync(Desk desk, PersonId person, IReadOnlyCollection<ProjectId> projects, bool ended)
    {
        var at = ended ? desk.Now : (NodaTime.Instant?)null;
        return desk
            .Db.Links.Where(l => l.PersonId == person && projects.Contains(l.ProjectId))
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.EndedAt, at));
    }

    private static async Task<PersonRow> OneAsync(Desk desk, PersonId id) =>
        await desk.Db.People.SingleOrDefaultAsync(p => p.Id == id && p.MergedInto == null && p.RemovedAt == null)
        ?? throw new MissingException("person");

    private static void Keep(Desk desk, JoinSort sort, PersonId from, PersonId to, Moved moved) =>
        desk.Db.Joins.Add(
            new()
            {
                Sort = sort,
                FromId = from,
                ToId = to,
                Moved = StoreJson.Write(moved),
                At = desk.Now,
            }
        );

    private static IEnumerable<Contradiction> Differences(PersonRow known, PersonRow said) =>
        DetailsRule.Compare(Values(known), Values(said)).Contradictions;

    private static Dictionary<string, string> Values(PersonRow row) =>
        new[]
        {
            ("organisation", row.Organisation),
            ("mail", row.Mail),
            ("phone", row.Phone),
            ("profile", row.Profile),
            ("address", row.Address),
            ("taxNumber", row.TaxNumber),
            ("country", row.Country),
        }
            .Where(pair => !string.IsNullOrEmpty(pair.Item2))
            .ToDictionary(pair => pair.Item1, pair => pair.Item2!);

    private static void Set(PersonRow row, string detail, string value)
    {
        switch (detail)
        {
            case "organisation":
                row.Organisation = value;
                break;
            case "mail":
                row.Mail = value;
                break;
            case "phone":
                row.Phone = value;
                break;
            case "profile":
                row.Profile = value;
                break;
            case "address":
                row.Address = value;
                break;
            case "country":
                row.Country = value;
                break;
            default:
                row.TaxNumber = value;
                break;
        }
    }

    private static Known KnownOf(PersonRow row) => new(row.Id, row.Name, row.Organisation, row.Mail, row.Phone);

    private static string Words(MatchReason reason) =>
        reason switch
        {
            MatchReason.Mail => "the same mail address",
            MatchReason.Phone => "the same phone",
            MatchReason.Name => "the same name",
            _ => "the same organisation",
        };
}
