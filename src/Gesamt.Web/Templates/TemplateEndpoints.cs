using System.Text;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Web.Hosting;
using Gesamt.Web.Prices;
using Gesamt.Web.Routines;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <summary>The key of a letter’s text.</summary>
public sealed record LetterKeyDto(string Key);

/// <summary>The number of a form.</summary>
public sealed record FormMadeDto(int Id);

/// <summary>The addresses of what projects begin from: kinds, forms, texts, routines, lists.</summary>
public static class TemplateEndpoints
{
    public static void MapTemplates(this RouteGroupBuilder api)
    {
        MapKinds(api);
        MapForms(api);
        MapRoutines(api.MapGroup("/routines"));
        api.MapGet("/blanks", () => Gesamt.Core.Letters.Blanks.Names);
        api.MapGet("/letter-texts", (Desk desk) => LetterTexts.AllAsync(desk));
        api.MapPut(
            "/letter-texts/{id:int}",
            (int id, SaveLetterDto save, Desk desk) => LetterTexts.SaveAsync(desk, id, save)
        );
        api.MapPost("/letter-texts", (SaveLetterDto save, Desk desk) => LetterTexts.SaveAsync(desk, null, save));
        api.MapPost(
            "/letter-texts/{id:int}/removed",
            async (int id, RemovedDto to, Desk desk) =>
            {
                await LetterTexts.RemoveAsync(desk, id, to.Removed);
                return TypedResults.NoContent();
            }
        );
        api.MapGet("/task-lists", (Desk desk) => TaskLists.AllAsync(desk));
        api.MapPut(
            "/task-lists/{key}",
            async (string key, SaveTaskListDto save, Desk desk) =>
                new LetterKeyDto(await TaskLists.SaveAsync(desk, key, save))
        );
        api.MapPost(
            "/task-lists",
            async (SaveTaskListDto save, Desk desk) => new LetterKeyDto(await TaskLists.SaveAsync(desk, null, save))
        );
        api.MapPost(
            "/task-lists/{key}/removed",
            async (string key, RemovedDto to, Desk desk) =>
            {
                await TaskLists.RemoveAsync(desk, key, to.Removed);
                return TypedResults.NoContent();
            }
        );
    }

    private static void MapKinds(RouteGroupBuilder api)
    {
        api.MapGet(
            "/kinds",
            async (Desk desk) =>
                await desk
                    .Db.Kinds.AsNoTracking()
                    .Where(k => !k.Removed)
                    .OrderBy(k => k.Position)
                    .ThenBy(k => k.Name)
                    .Select(k => new KindDto(k.Id.Value, k.Key, k.Name, desk.Db.Projects.Count(p => p.KindId == k.Id)))
                    .ToListAsync()
        );
        api.MapPut(
            "/kinds/order",
            async (KindOrderDto order, Desk desk) =>
            {
                await KindCopy.OrderAsync(desk, order.Kinds);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/kinds",
            async (NewKindDto make, Desk desk, Settings settings) =>
                new KindIdDto((await Kinds.AddAsync(desk, settings, make)).Value)
        );
        api.MapGet("/starting-sets", (Desk desk, Settings settings) => StartingSets.OfAsync(desk, settings));
        api.MapPost(
            "/starting-sets/begin",
            async (ChosenSetDto chosen, Desk desk, Settings settings) =>
            {
                await StartingSets.BeginAsync(desk, settings, chosen);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/starting-sets/{key}",
            async (string key, Desk desk, Settings settings) =>
                new KindIdDto((await StartingSets.AddAsync(desk, settings, key)).Id.Value)
        );
        var kind = api.MapGroup("/kinds/{id:long}");
        kind.MapGet("", (long id, Desk desk) => Kinds.OfAsync(desk, new(id)));
        kind.MapPost(
            "/copy",
            async (long id, CopyKindDto copy, Desk desk) =>
                new KindIdDto((await KindCopy.CopyAsync(desk, new(id), copy)).Value)
        );
        kind.MapPost(
            "/removed",
            async (long id, RemovedDto to, Desk desk) =>
            {
                await KindCopy.RemoveAsync(desk, new(id), to.Removed);
                return TypedResults.NoContent();
            }
        );
        kind.MapPut(
            "/services",
            async (long id, SaveServicesDto save, Desk desk) =>
            {
                await PriceList.SaveAsync(desk, new(id), save, async () => await Kinds.OfAsync(desk, new(id)));
                return TypedResults.NoContent();
            }
        );
        kind.MapPut(
            "/contract",
            async (long id, ContractTemplateDto save, Desk desk) =>
            {
                await Kinds.SaveContractAsync(desk, new(id), save);
                return TypedResults.NoContent();
            }
        );
        kind.MapPut(
            "/settings",
            async (long id, KindSettingsDto save, Desk desk) =>
            {
                await KindSettings.SaveAsync(desk, new(id), save);
                return TypedResults.NoContent();
            }
        );
    }

    private static void MapForms(RouteGroupBuilder api)
    {
        api.MapGet(
            "/kinds/{id:long}/forms",
            (long id, Desk desk, Doorplate plate, HttpContext http) => Forms.OfAsync(desk, plate, http, new(id))
        );
        api.MapPost(
            "/kinds/{id:long}/forms",
            async (long id, NewFormDto form, Desk desk) =>
                new FormMadeDto(await Forms.AddAsync(desk, new(id), form.Title, form.Purpose))
        );
        api.MapPut(
            "/forms/{id:int}",
            async (int id, SaveFormDto save, Desk desk) =>
            {
                await Forms.SaveAsync(desk, id, save);
                return TypedResults.NoContent();
            }
        );
        api.MapDelete(
            "/forms/{id:int}",
            async (int id, Desk desk) =>
            {
                await Forms.RemoveAsync(desk, id);
                return TypedResults.NoContent();
            }
        );
    }

    private static void MapRoutines(RouteGroupBuilder routines)
    {
        routines.MapGet("", (Desk desk) => RoutineList.AllAsync(desk));
        routines.MapPost(
            "",
            async (NewRoutineDto make, Desk desk) => new RoutineIdDto(await RoutineTexts.AddAsync(desk, make))
        );
        routines.MapPost("/check", (CheckRoutineDto check, Desk desk) => RoutineTexts.CheckAsync(desk, check));
        routines.MapPost("/read", (RoutineTextDto text) => RoutineShapes.Of(RoutineTexts.Read(text.Text)));
        routines.MapPost("/rehearse", (RehearseDto rehearse, Desk desk) => RehearsalView.PlayAsync(desk, rehearse));
        routines.MapGet("/{id:int}", (int id, Desk desk) => RoutineTexts.OfAsync(desk, id));
        routines
            .MapGet(
                "/{id:int}.txt",
                async (int id, Desk desk) =>
                {
                    var row = await RoutineNames.RowAsync(desk, id);
                    return TypedResults.File(
                        Encoding.UTF8.GetBytes(RoutineText.Write(StoreJson.Read<Routine>(row.Routine))),
                        "text/plain; charset=utf-8",
                        $"{row.Key}.txt"
                    );
                }
            )
            .ExcludeFromDescription();
        routines.MapPut(
            "/{id:int}",
            async (int id, SaveRoutineDto save, Desk desk) =>
            {
                await RoutineTexts.SaveAsync(desk, id, save);
                return TypedResults.NoContent();
            }
        );
        routines.MapPost(
            "/{id:int}/off",
            async (int id, OnOffDto to, Desk desk) =>
            {
                await RoutineTexts.TurnAsync(desk, id, to.Off);
                return TypedResults.NoContent();
            }
        );
        routines.MapPost(
            "/{id:int}/removed",
            async (int id, RemovedDto to, Desk desk) =>
            {
                await RoutineTexts.RemoveAsync(desk, id, to.Removed);
                return TypedResults.NoContent();
            }
        );
    }
}
