using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Core.Planning;

/// <summary>A phase of a project with the days it stands from and until.</summary>
/// <param name="From">Null where nothing says when it begins.</param>
/// <param name="Until">Null where nothing says when it ends.</param>
public sealed record PhaseSpan(string Name, PhaseState State, LocalDate? From, LocalDate? Until);

/// <summary>When the phases of a project begin and end: as it happened for what is done and in work, else counted from the kind's lengths back from the date that matters, else not known.</summary>
public static class Schedule
{
    /// <summary>The phases in their order.</summary>
    public static ImmutableArray<PhaseSpan> Of(Case project)
    {
        var phases = PhaseRule.Of(project);
        var counted = CountedBack(project, phases);
        var over = project.History.Last<Happening.HandedOver>()?.Happened;
        return
        [
            .. phases.Select(
                (phase, at) => over is { } end ? OfOver(project, phase, end) : Span(project, phase, counted[at])
            ),
        ];
    }

    /// <summary>With the handover all work ends: what was in work is done then, what was ahead never began.</summary>
    private static PhaseSpan OfOver(Case project, Phase phase, Instant end) =>
        phase.State == PhaseState.Ahead
            ? new(phase.Name, phase.State, null, null)
            : Span(
                project,
                phase.State == PhaseState.Done ? phase : phase with { State = PhaseState.Done, Since = end },
                (null, null)
            );

    private static PhaseSpan Span(Case project, Phase phase, (LocalDate? From, LocalDate? Until) counted)
    {
        LocalDate? On(Instant? at) => at is { } known ? project.Calendar.DateOf(known) : null;
        var began = On(phase.Began);
        switch (phase.State)
        {
            case PhaseState.Ahead:
                return new(phase.Name, phase.State, counted.From, counted.Until);
            case PhaseState.Done:
                return new(phase.Name, phase.State, began ?? On(phase.Since), On(phase.Since));
            default:
                // booked is not begun: the work begins when its lengths say so
                if (phase.ByBooking && counted.From > began)
                    began = counted.From;
                var until =
                    counted.Until > began ? counted.Until
                    : DaysOf(project, phase) is { } days ? began?.PlusDays(days)
                    : null;
                return new(phase.Name, phase.State, began, until);
        }
    }

    /// <summary>From the last phase back, as far as lengths are known.</summary>
    private static (LocalDate? From, LocalDate? Until)[] CountedBack(Case project, ImmutableArray<Phase> phases)
    {
        var counted = new (LocalDate? From, LocalDate? Until)[phases.Length];
        var until = project.MainDate?.Date;
        for (var at = phases.Length - 1; at >= 0; at--)
        {
            var from =
                until is { } end && DaysOf(project, phases[at]) is { } days ? end.PlusDays(-days) : (LocalDate?)null;
            counted[at] = (from, until);
            until = from;
        }
        return counted;
    }

    private static int? DaysOf(Case project, Phase phase) =>
        project.Kind.Phases.FirstOrDefault(one => one.Name == phase.Name)?.Days;
}
