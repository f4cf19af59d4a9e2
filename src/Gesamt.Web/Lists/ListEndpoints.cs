using Gesamt.Store.Files;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Work;
using Microsoft.AspNetCore.Mvc;

namespace Gesamt.Web.Lists;

/// <summary>The addresses of lists, mood boards and shared notes.</summary>
public static class ListEndpoints
{
    private const int MostTable = 5 * 1024 * 1024;

    public static void MapLists(this RouteGroupBuilder api)
    {
        var project = api.MapGroup("/projects/{id:long}/lists");
        project.MapPost(
            "",
            async (long id, BeginListDto begin, Desk desk) =>
                new ListKeyDto(await ProjectLists.BeginAsync(desk, new(id), begin))
        );
        project.MapPost(
            "/lay",
            (long id, LayKeptListsDto lay, Desk desk) => Done(ProjectLists.LayAsync(desk, new(id), lay))
        );

        api.MapGet("/lists", (Desk desk) => ProjectLists.KeptAsync(desk));
        api.MapPost(
            "/lists",
            async (BeginListDto begin, Desk desk) => new ListKeyDto(await ProjectLists.BeginAsync(desk, null, begin))
        );
        var one = api.MapGroup("/lists/{list}");
        one.MapGet("", (string list, Desk desk) => ListView.OwnAsync(desk, list));
        one.MapPut(
            "",
            async (string list, SaveListDto save, Desk desk) =>
            {
                await ProjectLists.SaveAsync(desk, list, save);
                return await ListView.OwnAsync(desk, list);
            }
        );
        one.MapPost(
            "/removed",
            (string list, RemovedDto to, Desk desk) => Done(ProjectLists.RemoveAsync(desk, list, to.Removed))
        );
        one.MapPost(
            "/kept",
            async (string list, KeepListDto keep, Desk desk) =>
                new ListKeyDto(await ProjectLists.KeepAsync(desk, list, keep))
        );
        MapEntries(one);
        MapChanges(one);
        MapPictures(one);
        MapTable(one);
    }

    private static void MapEntries(RouteGroupBuilder one)
    {
        one.MapPut(
            "/entries/{key}",
            (string list, string key, SaveEntryDto save, Desk desk) =>
                Done(ListEntries.SaveAsync(desk, list, key, save, ListWriter.Owner))
        );
        one.MapPost(
            "/entries/{key}/struck",
            (string list, string key, StruckDto to, Desk desk) =>
                Done(ListEntries.StrikeAsync(desk, list, key, to.Struck, ListWriter.Owner))
        );
        one.MapPost(
            "/entries/{key}/removed",
            (string list, string key, RemovedDto to, Desk desk) =>
                Done(ListEntries.RemoveAsync(desk, list, key, to.Removed))
        );
        one.MapPost(
            "/entries/{key}/steps/{column}/done",
            (string list, string key, string column, TaskDoneDto to, Desk desk) =>
                Done(ListEntries.StepDoneAsync(desk, list, key, column, to.Done))
        );
        one.MapPut(
            "/order",
            (string list, EntryOrderDto order, Desk desk) => Done(ListEntries.OrderAsync(desk, list, order))
        );
    }

    private static void MapChanges(RouteGroupBuilder one)
    {
        one.MapPost("/seen", (string list, SeenDto to, Desk desk) => Done(ListChanges.SeeAsync(desk, list, to.Seen)));
        one.MapPost(
            "/changes/{change:long}/undone",
            (string list, long change, UndoneDto to, Desk desk) =>
                Done(ListChanges.UndoAsync(desk, list, change, to.Undone))
        );
        one.MapPost(
            "/final",
            (string list, FinalBoardDto to, Desk desk) => Done(Boards.PutAsync(desk, list, to.Final))
        );
    }

    private static void MapPictures(RouteGroupBuilder one)
    {
        one.MapPost(
                "/pictures",
                async (string list, string name, Desk desk, HttpContext http, CancellationToken stop) =>
                    new EntryKeyDto(
                        await Boards.AddPictureAsync(desk, list, name, http.Request.Body, ListWriter.Owner, stop)
                    )
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        one.MapGet(
                "/pictures/{key}",
                (string list, string key, Desk desk, FileVault vault, HttpContext http) =>
                    Boards.PictureAsync(desk, vault, http, list, key, small: false)
            )
            .ExcludeFromDescription();
        one.MapGet(
                "/pictures/{key}/preview",
                (string list, string key, Desk desk, FileVault vault, HttpContext http) =>
                    Boards.PictureAsync(desk, vault, http, list, key, small: true)
            )
            .ExcludeFromDescription();
    }

    private static void MapTable(RouteGroupBuilder one)
    {
        one.MapGet(
                "/table.csv",
                async (string list, Desk desk) =>
                {
                    var (name, bytes) = await ListTables.WriteAsync(desk, list);
                    return TableFile.Of(bytes, name);
                }
            )
            .ExcludeFromDescription();
        one.MapPost(
                "/table",
                async (string list, Desk desk, HttpContext http, CancellationToken stop) =>
                {
                    using var bytes = new MemoryStream();
                    await http.Request.Body.CopyToAsync(bytes, stop);
                    return await ListTables.ReadAsync(desk, list, bytes.ToArray());
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(MostTable))
            .Accepts<byte[]>("application/octet-stream");
        one.MapPost(
            "/rows",
            (string list, TakeRowsDto take, Desk desk) => Done(ListTables.TakeAsync(desk, list, take))
        );
    }

    private static async Task<IResult> Done(Task act)
    {
        await act;
        return TypedResults.NoContent();
    }
}
