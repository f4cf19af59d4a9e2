using Gesamt.Core;
using Gesamt.Core.People;
using Gesamt.Formats.Files;
using Gesamt.Store.Files;
using Gesamt.Web.Access;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.People;

/// <param name="Unreachable">Names without any way to reach them, left out.</param>
public sealed record ReadCardsDto(int Made, int Known, IReadOnlyList<string> Unreachable);

/// <summary>Contacts as vCard text.</summary>
public sealed record CardsDto(string Text);

/// <param name="Take">Details that replace what is known.</param>
public sealed record MergeDto(string[] Take);

/// <summary>The projects that belong to somebody else, and who that is.</summary>
public sealed record SplitDto(long[] Projects, PersonDetailsDto Person);

/// <summary>The part somebody has in a project.</summary>
public sealed record PartOfDto(long Person, PersonPart Part, bool Has);

/// <summary>A label and what carries it: one of the three.</summary>
public sealed record LabelDto(string Label, long? Project, long? Person, long? Task);

/// <summary>The number of a person.</summary>
public sealed record PersonIdDto(long Id);

/// <summary>The addresses of people.</summary>
public static class PeopleEndpoints
{
    public static void MapPeople(this RouteGroupBuilder api)
    {
        api.MapGet("/people", ([AsParameters] PeopleQuery query, Desk desk) => PeopleList.OfAsync(desk, query));
        api.MapGet("/cover", (Desk desk) => CoverWords.OfAsync(desk));
        api.MapGet(
            "/people.csv",
            async ([AsParameters] PeopleQuery query, Desk desk) =>
                TableFile.Of(await PeopleList.CsvAsync(desk, query), "people")
        );
        api.MapGet(
            "/people.vcf",
            async (Desk desk) =>
                TypedResults.File(
                    System.Text.Encoding.UTF8.GetBytes(await PeopleList.VCardsAsync(desk, null)),
                    "text/vcard; charset=utf-8",
                    "people.vcf"
                )
        );
        api.MapPost("/people/vcards", (CardsDto cards, Desk desk) => PeopleList.ReadAsync(desk, cards.Text));
        api.MapPost(
                "/people/table",
                (HttpContext http, Desk desk, CancellationToken stop) =>
                    PeopleTable.ReadAsync(desk, http.Request.Body, stop)
            )
            .WithMetadata(new RequestSizeLimitAttribute(PeopleTable.MostBytes))
            .Accepts<byte[]>("application/octet-stream");
        api.MapPost(
            "/people",
            async (PersonDetailsDto person, Desk desk) =>
                new PersonIdDto((await PersonPage.AddAsync(desk, person)).Value)
        );

        var one = api.MapGroup("/people/{id:long}");
        one.MapGet("", (long id, Desk desk) => PersonPage.OfAsync(desk, new(id)));
        one.MapPut(
            "",
            async (long id, PersonDetailsDto save, Desk desk) =>
            {
                await PersonPage.SaveAsync(desk, new(id), save);
                return TypedResults.NoContent();
            }
        );
        one.MapGet(
            "/card.vcf",
            async (long id, Desk desk) =>
                await PeopleList.VCardsAsync(desk, new PersonId(id)) is { Length: > 0 } card
                    ? TypedResults.File(
                        System.Text.Encoding.UTF8.GetBytes(card),
                        "text/vcard; charset=utf-8",
                        "person.vcf"
                    )
                    : throw new MissingException("person")
        );
        one.MapPost(
            "/same-as/{other:long}",
            async (long id, long other, MergeDto merge, Desk desk) =>
            {
                await Matches.MergeAsync(desk, new(id), new(other), merge.Take);
                return TypedResults.NoContent();
            }
        );
        one.MapPost(
            "/different-from/{other:long}",
            async (long id, long other, Desk desk) =>
            {
                await Matches.DifferentAsync(desk, new(id), new(other));
                return TypedResults.NoContent();
            }
        );
        one.MapPost(
            "/split",
            async (long id, SplitDto split, Desk desk) =>
                new PersonIdDto((await Matches.SplitAsync(desk, new(id), split.Projects, split.Person)).Value)
        );
        one.MapPost(
                "/picture",
                async (long id, string name, Desk desk, FileVault vault, HttpContext http, CancellationToken stop) =>
                {
                    var number = new PersonId(id);
                    var (_, hash, _, type) = await KeptFiles.TakeAsync(vault, name, http.Request.Body, stop);
                    if (!FileTypes.IsShownPicture(type))
                        throw new InvalidException(("file", "A picture: PNG, JPEG, WebP or GIF."));
                    if (
                        await desk
                            .Db.People.Where(p => p.Id == number)
                            .ExecuteUpdateAsync(set => set.SetProperty(p => p.Picture, hash), stop) == 0
                    )
                        throw new MissingException("person");
                    return TypedResults.NoContent();
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        one.MapGet(
                "/picture",
                async (long id, Desk desk, FileVault vault, HttpContext http) =>
                {
                    var number = new PersonId(id);
                    var hash =
                        await desk.Db.People.Where(p => p.Id == number).Select(p => p.Picture).SingleOrDefaultAsync()
                        ?? throw new MissingException("picture");
                    return await FileEndpoints.SmallAsync(http, vault, hash);
                }
            )
            .ExcludeFromDescription();

        api.MapPost(
            "/joins/{id:int}/undo",
            async (int id, Desk desk) =>
            {
                await Matches.UndoAsync(desk, id);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/people",
            async (long id, PartOfDto part, Desk desk) =>
            {
                await SetPartAsync(desk, new(id), part);
                return TypedResults.NoContent();
            }
        );
        api.MapGet(
            "/projects/{id:long}/people/{person:long}/link",
            async (long id, long person, Desk desk, Links links) =>
            {
                var (project, who) = (new ProjectId(id), new PersonId(person));
                if (
                    !await desk.Db.ProjectPeople.AnyAsync(p =>
                        p.ProjectId == project && p.PersonId == who && p.Part != PersonPart.Supplies
                    )
                )
                    throw new MissingException("part with a page");
                return new AddressDto(links.AddressOf(await Links.OfAsync(desk.Db, project, who)));
            }
        );
        api.MapPost(
            "/labels",
            async (LabelDto label, Desk desk) =>
            {
                await Labels.PutAsync(desk, label);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/labels/off",
            async (LabelDto label, Desk desk) =>
            {
                await Labels.TakeOffAsync(desk, label);
                return TypedResults.NoContent();
            }
        );
        api.MapGet(
            "/labels",
            (Desk desk) => desk.Db.Labels.Select(l => l.Label).Distinct().OrderBy(l => l).ToListAsync()
        );
        api.MapGet("/labels/{label}", (string label, Desk desk) => Labels.OfAsync(desk, label));
    }

    /// <summary>Gives somebody a part in a project, or takes it.</summary>
    private static async Task SetPartAsync(Desk desk, ProjectId project, PartOfDto to)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var person = new PersonId(to.Person);
            if (!await desk.Db.People.AnyAsync(p => p.Id == person && p.MergedInto == null && p.RemovedAt == null))
                throw new InvalidException(("person", "There is no such person."));
            var row = file.Row.People.FirstOrDefault(p => p.PersonId == person && p.Part == to.Part);
            if (to.Has && row is null)
                desk.Db.ProjectPeople.Add(
                    new()
                    {
                        ProjectId = project,
                        PersonId = person,
                        Part = to.Part,
                    }
                );
            else if (!to.Has && row is not null)
                desk.Db.ProjectPeople.Remove(row);
            act.Touch(project);
        });
    }
}
