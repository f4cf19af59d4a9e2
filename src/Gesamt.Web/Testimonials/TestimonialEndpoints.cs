using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Testimonials;

/// <summary>The addresses of praise and of what may be made of it.</summary>
public static class TestimonialEndpoints
{
    public static void MapTestimonials(this RouteGroupBuilder api)
    {
        api.MapGet("/praise", ([AsParameters] PraiseQuery query, Desk desk) => AllPraise.OfAsync(desk, query));
        api.MapGet(
                "/praise.csv",
                async ([AsParameters] PraiseQuery query, Desk desk) =>
                    TableFile.Of(await AllPraise.CsvAsync(desk, query), $"praise-{desk.Today:uuuu-MM-dd}")
            )
            .ExcludeFromDescription();

        var project = api.MapGroup("/projects/{id:long}");
        project.MapGet(
            "/praise",
            async (long id, Desk desk) => await PraiseOfProject.OfAsync(desk, await desk.OpenAsync(new(id)))
        );
        project.MapPost(
            "/praise",
            async (long id, KeepPraiseDto praise, Desk desk) =>
                new PraiseIdDto((await Praising.AddAsync(desk, new(id), praise)).Value)
        );
        project.MapPut(
            "/praise/{praise:long}",
            async (long id, long praise, KeepPraiseDto to, Desk desk) =>
            {
                await Praising.ChangeAsync(desk, new(id), new(praise), to);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/praise/{praise:long}/removed",
            async (long id, long praise, RemovedDto to, Desk desk) =>
            {
                await Praising.RemoveAsync(desk, new(id), new(praise), to.Removed);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/testimonial/put",
            async (long id, PutTestimonialDto put, Desk desk, Settings settings) =>
                new SentDto((await PraiseOfProject.PutAsync(desk, new(id), put)).Id.Value, settings.HoldSeconds)
        );
        project.MapPost(
            "/testimonial/back",
            async (long id, Desk desk) =>
            {
                await PraiseOfProject.TakeBackAsync(desk, new(id));
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/leave",
            async (long id, NoteLeaveDto said, Desk desk) =>
            {
                await PraiseOfProject.NoteAsync(desk, new(id), said);
                return TypedResults.NoContent();
            }
        );
    }
}
