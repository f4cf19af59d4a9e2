using Gesamt.Web.Hosting;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Planning;

/// <summary>The addresses of the week, the month, the season and own appointments.</summary>
public static class PlanningEndpoints
{
    private const int UsualMonths = 6,
        MostMonths = 24;

    public static void MapPlanning(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/week",
            (string? day, BesideShow? beside, Desk desk) => Week.OfAsync(desk, Day(desk, day), beside ?? BesideShow.Due)
        );
        api.MapGet("/month", (string? day, Desk desk) => MonthView.OfAsync(desk, Day(desk, day)));
        api.MapGet(
            "/season",
            (string? day, int? months, long? kind, Desk desk) =>
                Season.OfAsync(
                    desk,
                    Day(desk, day),
                    months is null or (>= 1 and <= MostMonths)
                        ? months ?? UsualMonths
                        : throw new InvalidException(("months", $"From 1 to {MostMonths} months.")),
                    kind
                )
        );
        api.MapGet("/appointments/{id:int}", (int id, Desk desk) => Appointments.OneAsync(desk, id));
        api.MapPost(
            "/appointments",
            async (AppointmentDto save, Desk desk) =>
                new AppointmentIdDto(await Appointments.SaveAsync(desk, null, save))
        );
        api.MapPut(
            "/appointments/{id:int}",
            async (int id, AppointmentDto save, Desk desk) =>
                new AppointmentIdDto(await Appointments.SaveAsync(desk, id, save))
        );
        api.MapPost(
            "/appointments/{id:int}/removed",
            async (int id, RemovedDto to, Desk desk) =>
            {
                await Appointments.RemoveAsync(desk, id, to.Removed);
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>A day of an address (ISO 8601); today where it is left out. The years are those a studio can mean.</summary>
    private static LocalDate Day(Desk desk, string? text) =>
        string.IsNullOrEmpty(text) ? desk.Today
        : LocalDatePattern.Iso.Parse(text) is { Success: true, Value: { Year: >= 2000 and < 2200 } day } ? day
        : throw new InvalidException(("day", "A day as 2027-01-25, from the years 2000 to 2199."));
}
