using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.RunSheets;

/// <summary>The addresses of run sheets.</summary>
public static class RunSheetEndpoints
{
    public static void MapRunSheets(this RouteGroupBuilder api)
    {
        var sheet = api.MapGroup("/projects/{id:long}/run-sheet");
        sheet.MapGet(
            "",
            async (long id, Desk desk) => await ProjectRunSheet.OfAsync(desk, await desk.OpenAsync(new(id)))
        );
        sheet.MapPut(
            "",
            async (long id, SaveRunSheetDto save, Desk desk) =>
            {
                await ProjectRunSheet.SaveAsync(desk, new(id), save);
                return await ProjectRunSheet.OfAsync(desk, await desk.OpenAsync(new(id)));
            }
        );
        sheet.MapGet(
            "/templates",
            async (long id, Desk desk) => await RunSheetTemplates.LaidAsync(desk, await desk.OpenAsync(new(id)))
        );
        sheet.MapPost(
            "/lay",
            async (long id, LayRunSheetDto lay, Desk desk) =>
            {
                await ProjectRunSheet.LayAsync(desk, new(id), lay);
                return await ProjectRunSheet.OfAsync(desk, await desk.OpenAsync(new(id)));
            }
        );
        sheet.MapPost(
            "/agreed",
            async (long id, Desk desk) =>
            {
                await ProjectRunSheet.AgreeAsync(desk, new(id), null);
                return await ProjectRunSheet.OfAsync(desk, await desk.OpenAsync(new(id)));
            }
        );
        api.MapGet(
                "/projects/{id:long}/run-sheet.pdf",
                async (long id, RunReader? reader, Desk desk) =>
                    await PdfAsync(desk, await desk.OpenAsync(new(id)), reader ?? RunReader.Me)
            )
            .ExcludeFromDescription();

        api.MapGet(
                "/projects/{id:long}/run-sheet.csv",
                async (long id, Desk desk) => await ProjectRunSheet.TableAsync(desk, await desk.OpenAsync(new(id)))
            )
            .ExcludeFromDescription();

        api.MapGet("/run-sheets", (Desk desk) => RunSheetTemplates.AllAsync(desk));
        api.MapPost(
            "/run-sheets",
            async (SaveRunSheetTemplateDto save, Desk desk) =>
                new RunSheetKeyDto(await RunSheetTemplates.SaveAsync(desk, null, save))
        );
        api.MapPut(
            "/run-sheets/{key}",
            async (string key, SaveRunSheetTemplateDto save, Desk desk) =>
                new RunSheetKeyDto(await RunSheetTemplates.SaveAsync(desk, key, save))
        );
        api.MapPost(
            "/run-sheets/{key}/removed",
            async (string key, RemovedDto to, Desk desk) =>
            {
                await RunSheetTemplates.RemoveAsync(desk, key, to.Removed);
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>What a client does with it, while its part of their page is open.</summary>
    public static RouteGroupBuilder MapClientRunSheet(this RouteGroupBuilder page)
    {
        page.MapPost(
            "/run-sheet/agree",
            async (AgreeRunSheetDto agree, HttpContext http, Desk desk) =>
            {
                var project = (await OpenAsync(desk, http)).Id;
                desk.Db.ChangeTracker.Clear();
                await ProjectRunSheet.AgreeAsync(desk, project, agree.Hash);
                return TypedResults.NoContent();
            }
        );
        page.MapGet(
                "/run-sheet.pdf",
                async (RunReader? reader, HttpContext http, Desk desk) =>
                    reader is RunReader.Me
                        ? throw new MissingException("run sheet")
                        : await PdfAsync(desk, await OpenAsync(desk, http), reader ?? RunReader.Client)
            )
            .ExcludeFromDescription();
        return page;
    }

    private static async Task<ProjectFile> OpenAsync(Desk desk, HttpContext http)
    {
        var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
        return Sight.IsOpen(file.History, PagePart.RunSheet) ? file : throw new MissingException("part");
    }

    private static async Task<IResult> PdfAsync(Desk desk, ProjectFile file, RunReader reader) =>
        TypedResults.File(
            await ProjectRunSheet.PdfAsync(desk, file, reader),
            "application/pdf",
            $"run-sheet-{reader.ToString().ToLowerInvariant()}.pdf"
        );
}
