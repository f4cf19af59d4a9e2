using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using NodaTime;

namespace Gesamt.Core.Work;

/// <summary>A phase and since when it stands so; null for one that is ahead from the beginning.</summary>
public sealed record Phase(string Name, PhaseState State, Instant? Since)
{
    /// <summary>When work on it began; null before.</summary>
    public Instant? Began { get; init; }

    /// <summary>Whether the booking alone put it in work.</summary>
    public bool ByBooking { get; init; }
}

/// <summary>The phases of a project, read from what happened: booking begins the first, an approval closes its phase and begins the next, the owner changes any by hand, and arranges them otherwise than the kind does.</summary>
public static class PhaseRule
{
    /// <summary>What a phase is called now that had this name when something was recorded.</summary>
    public static string NameNow(History history, string phase, Fact then) =>
        history
            .Of<Happening.PhasesArranged>()
            .Where(arranged => History.IsAfter(arranged.Fact, then))
            .Aggregate(
                phase,
                (name, arranged) => arranged.What.Phases.FirstOrDefault(one => one.Was == name)?.Name ?? name
            );

    private static readonly Once<ImmutableArray<Phase>> Known = new(Read);

    public static ImmutableArray<Phase> Of(Case project) => Known.Of(project);

    private static ImmutableArray<Phase> Read(Case project)
    {
        var phases = AtFirst(project).Select(name => new Phase(name, PhaseState.Ahead, null)).ToList();
        // those that were dropped, too: one that comes back stands as it stood
        List<Phase> all = [];
        foreach (var fact in project.History.Facts)
        {
            switch (fact.What)
            {
                case Happening.PhaseSet set:
                    Set(phases, At(phases, set.Phase), set.State, fact.Happened);
                    break;
                case Happening.ReviewApproved { Phase: { } approved } when At(phases, approved) is >= 0 and var at:
                    Set(phases, at, PhaseState.Done, fact.Happened);
                    Begin(phases, at + 1, fact.Happened);
                    break;
                case Happening.ApprovalWithdrawn { Phase: { } reopened }:
                    Set(phases, At(phases, reopened), PhaseState.InWork, fact.Happened);
                    break;
                case Happening.PhasesArranged arranged:
                    all = [.. phases, .. all.Where(old => phases.All(phase => phase.Name != old.Name))];
                    phases = [.. arranged.Phases.Select(one => Arranged(one, all))];
                    break;
                default:
                    break;
            }
        }
        if (
            Booking.WonAt(project) is { } won
            && phases.Count > 0
            && phases.All(phase => phase.State == PhaseState.Ahead)
        )
        {
            Begin(phases, 0, won);
            phases[0] = phases[0] with { ByBooking = true };
        }
        return [.. phases];
    }

    /// <summary>The phases that the project began with; those of its kind where nobody arranged them since.</summary>
    private static IEnumerable<string> AtFirst(Case project) =>
        project.History.Of<Happening.PhasesArranged>().FirstOrDefault() is { Fact: not null } arranged
            ? arranged.What.Before
            : project.Kind.Phases.Select(phase => phase.Name);

    private static Phase Arranged(ArrangedPhase one, List<Phase> all) =>
        (all.Find(phase => phase.Name == (one.Was ?? one.Name)) ?? new Phase("", PhaseState.Ahead, null)) with
        {
            Name = one.Name,
        };

    private static int At(List<Phase> phases, string name) => phases.FindIndex(phase => phase.Name == name);

    private static void Set(List<Phase> phases, int at, PhaseState state, Instant since)
    {
        if (at < 0 || at >= phases.Count || phases[at].State == state)
            return;
        phases[at] = phases[at] with
        {
            State = state,
            Since = since,
            Began = state == PhaseState.Ahead ? null : phases[at].Began ?? since,
        };
    }

    private static void Begin(List<Phase> phases, int at, Instant since)
    {
        if (at >= 0 && at < phases.Count && phases[at].State == PhaseState.Ahead)
            Set(phases, at, PhaseState.InWork, since);
    }
}
