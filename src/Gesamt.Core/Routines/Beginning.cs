using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>How a routine begins on a project whose cause has come true.</summary>
public abstract record Beginning
{
    private Beginning() { }

    /// <summary>It begins with these steps.</summary>
    public sealed record Now(Routine Routine) : Beginning;

    /// <summary>There is less time than its shortest variant asks for: it is offered, never begun unasked.</summary>
    public sealed record Offered(Routine Routine) : Beginning;

    /// <summary>It waits for the date that matters, from which its variant follows.</summary>
    public sealed record Waits : Beginning;

    public static Beginning Of(Case project, Routine routine, Instant now)
    {
        if (routine.Variants.IsEmpty)
            return new Now(routine);
        var chosen = project
            .History.Last<Happening.VariantChosen>(choice => choice.Routine == routine.Key)
            ?.What.Variant;
        if (routine.Variants.FirstOrDefault(variant => variant.Name == chosen) is { } byHand)
            return new Now(routine.Of(byHand));
        if (project.MainDate is not { } date)
            return new Waits();
        return Fitting(project.Calendar, routine.Variants, project.Calendar.DateOf(now), date.Date) is { } fits
            ? new Now(routine.Of(fits))
            : new Offered(routine.Of(routine.Variants.MinBy(variant => variant.MonthsAhead)!));
    }

    /// <summary>The variant that asks for most time and still has it; null below the shortest.</summary>
    public static Variant? Fitting(
        StudioCalendar calendar,
        ImmutableArray<Variant> variants,
        LocalDate begins,
        LocalDate date
    ) =>
        variants
            .Where(variant => calendar.Add(date, Span.Months(-variant.MonthsAhead)) >= begins)
            .MaxBy(variant => variant.MonthsAhead);
}
