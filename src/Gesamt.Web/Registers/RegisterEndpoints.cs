using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Registers;

/// <summary>A view that was given a name.</summary>
public sealed record SavedViewDto(long Id, string Name, string Query);

/// <param name="Query">The part of the address behind the question mark.</param>
public sealed record SaveViewDto(string Name, string Query);

/// <summary>The addresses of the Register and its saved views.</summary>
public static class RegisterEndpoints
{
    private const int MostViews = 50;

    public static void MapRegister(this RouteGroupBuilder api)
    {
        api.MapGet("/register", ([AsParameters] RegisterQuery query, Desk desk) => Register.OfAsync(desk, query));
        api.MapGet(
                "/register.csv",
                async ([AsParameters] RegisterQuery query, Desk desk) =>
                    TableFile.Of(await Register.CsvAsync(desk, query), $"register-{desk.Today:uuuu-MM-dd}")
            )
            .ExcludeFromDescription();

        api.MapGet("/register/routines", (Desk desk) => RoutineRuns.NamesAsync(desk));
        api.MapGet(
            "/register/views",
            async (Desk desk) =>
                await desk
                    .Db.SavedViews.AsNoTracking()
                    .OrderBy(v => v.Name)
                    .Select(v => new SavedViewDto(v.Id, v.Name, v.Query))
                    .ToListAsync()
        );

        api.MapPost(
            "/register/views",
            async (SaveViewDto save, Desk desk) =>
            {
                var name = save.Name.Trim();
                if (name.Length is 0 or > 60)
                    throw new InvalidException(("name", "Give the view a name of 1 to 60 characters."));
                if (save.Query.Length > 2_000)
                    throw new InvalidException(("query", "This view says more than can be kept."));
                if (await desk.Db.SavedViews.CountAsync() >= MostViews)
                    throw new RefusedException($"{MostViews} views are kept. Forget one first.");
                var row = await desk.Db.SavedViews.SingleOrDefaultAsync(v => v.Name == name);
                if (row is null)
                    desk.Db.SavedViews.Add(row = new() { Name = name, Query = save.Query });
                else
                    row.Query = save.Query;
                await desk.Db.SaveChangesAsync();
                return new SavedViewDto(row.Id, row.Name, row.Query);
            }
        );

        api.MapPost(
            "/register/views/{id:int}/forget",
            async (int id, Desk desk) =>
            {
                await desk.Db.SavedViews.Where(v => v.Id == id).ExecuteDeleteAsync();
                return TypedResults.NoContent();
            }
        );
    }
}
