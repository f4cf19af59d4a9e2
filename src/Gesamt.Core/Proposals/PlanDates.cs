using Gesamt.Core.Calendar;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>The dates that payments hang on, as far as they are known.</summary>
/// <param name="Main">The date that matters.</param>
/// <param name="Named">Another date of the project, by its name.</param>
/// <param name="SignedOn">The day of the signature, from which the booking payment is counted; the day the page is read until then.</param>
public sealed record PlanDates(
    LocalDate? Main,
    Func<string, LocalDate?> Named,
    LocalDate SignedOn,
    StudioCalendar Calendar
)
{
    public static PlanDates Of(Case project, LocalDate signedOn) =>
        new(project.MainDate?.Date, name => project.DateNamed(name)?.Date, signedOn, project.Calendar);
}
