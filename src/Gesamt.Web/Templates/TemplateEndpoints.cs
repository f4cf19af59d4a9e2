using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

public sealed record LetterKeyDto(string Key);

public sealed record FormMadeDto(int Id);

public static class TemplateEndpoints
{
    public static void MapTemplates(this RouteGroupBuilder api)
    {
        api.MapGet("/kinds", async (Desk desk) => await desk.Db.Kinds.AsNoTracking().OrderBy(k => k.Name)
            .Select(k => new KindDto(k.Id.Value, k.Name, desk.Db.Projects.Count(p => p.KindId == k.Id))).ToListAsync());
        api.MapGet("/kinds/{id:long}", (long id, Desk desk) => Kinds.OfAsync(desk, new(id)));
        api.MapPut("/kinds/{id:long}/services", async (long id, SaveServicesDto save, Desk desk) =>
        {
            await Kinds.SaveServicesAsync(desk, new(id), save);
            return TypedResults.NoContent();
        });
        api.MapPut("/kinds/{id:long}/contract", async (long id, TextDto save, Desk desk) =>
        {
            await Kinds.SaveContractAsync(desk, new(id), save);
            return TypedResults.NoContent();
        });
        api.MapPut("/kinds/{id:long}/routines/{key}", async (long id, string key, SaveRoutineDto save, Desk desk) =>
        {
            await Kinds.SaveRoutineAsync(desk, new(id), key, save);
            return TypedResults.NoContent();
        });
        api.MapGet("/kinds/{id:long}/forms", (long id, Desk desk, Settings settings, HttpContext http) => Forms.OfAsync(desk, settings, http, new(id)));
        api.MapPost("/kinds/{id:long}/forms", async (long id, NewFormDto form, Desk desk) => new FormMadeDto(await Forms.AddAsync(desk, new(id), form.Title)));
        api.MapPut("/forms/{id:int}", async (int id, SaveFormDto save, Desk desk) =>
        {
            await Forms.SaveAsync(desk, id, save);
            return TypedResults.NoContent();
        });
        api.MapDelete("/forms/{id:int}", async (int id, Desk desk) =>
        {
            await Forms.RemoveAsync(desk, id);
            return TypedResults.NoContent();
        });
        api.MapPut("/kinds/{id:long}/settings", async (long id, KindSettingsDto save, Desk desk) =>
        {
            await KindSettings.SaveAsync(desk, new(id), save);
            return TypedResults.NoContent();
        });
        api.MapPut("/letter-texts/{key}", async (string key, SaveLetterDto save, Desk desk) => new LetterKeyDto(await Kinds.SaveLetterAsync(desk, key, save)));
        api.MapPost("/letter-texts", async (SaveLetterDto save, Desk desk) => new LetterKeyDto(await Kinds.SaveLetterAsync(desk, null, save)));
    }
}
