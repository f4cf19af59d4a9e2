using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using NodaTime;

namespace Gesamt.Core.Work;

/// <summary>A phase and since when it stands so; null for one that is ahead from the beginning.</summary>
public sealed record Phase(string Name, PhaseState State, Instant? Since);

/// <summary>The phases of a project, read from what happened: booking begins the first, an approval closes its phase and begins the next, the owner changes any by hand.</summary>
public static class PhaseRule
{
    public static ImmutableArray<Phase> Of(Case project)
    {
        var names = project.Kind.Phases.Select(phase => phase.Name).ToImmutableArray();
        var phases = names.Select(name => new Phase(name, PhaseState.Ahead, null)).ToArray();
        void Set(int at, PhaseState state, Instant since)
        {
            if (at >= 0 && at < phases.Length && phases[at].State != state)
                phases[at] = phases[at] with { State = state, Since = since };
        }
        void Begin(int at, Instant since)
        {
            if (at >= 0 && at < phases.Length && phases[at].State == PhaseState.Ahead)
                Set(at, PhaseState.InWork, since);
        }
        var won = Booking.WonAt(project);
        foreach (var fact in project.History.Facts)
        {
            switch (fact.What)
            {
                case Happening.PhaseSet set:
                    Set(names.IndexOf(set.Phase), set.State, fact.Happened);
                    break;
                case Happening.ReviewApproved { Phase: { } approved }:
                    Set(names.IndexOf(approved), PhaseState.Done, fact.Happened);
                    Begin(names.IndexOf(approved) + 1, fact.Happened);
                    break;
                case Happening.ApprovalWithdrawn { Phase: { } reopened }:
                    Set(names.IndexOf(reopened), PhaseState.InWork, fact.Happened);
                    break;
                default:
                    break;
            }
        }
        if (won is { } at && phases.All(phase => phase.State == PhaseState.Ahead))
            Begin(0, at);
        return [.. phases];
    }
}
