using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;

namespace Gesamt.Core.Work;

/// <summary>Where a file belongs among a project's files.</summary>
/// <param name="Phase">Of a draft: the phase it is for; null where the kind has none.</param>
public sealed record FilePlace(FileGroup Group, string? Phase)
{
    private const string Final = "final";

    /// <summary>Where a file that was only dropped belongs, from where the project stands: before it is booked it was supplied; after it it is a draft of the phase its name says, else of the phase whose round came back, else of the one in work; and what calls itself final is.</summary>
    public static FilePlace Of(Case project, string fileName)
    {
        if (Booking.WonAt(project) is null)
            return new(FileGroup.Supplied, null);
        if (fileName.Contains(Final, StringComparison.OrdinalIgnoreCase))
            return new(FileGroup.Final, null);
        var phases = PhaseRule.Of(project);
        if (phases.Length > 0 && phases.All(phase => phase.State == PhaseState.Done))
            return new(FileGroup.Final, null);
        return new(
            FileGroup.Drafts,
            Named(phases, fileName)
                ?? ReviewRule.ToRework(project.History)?.Phase
                ?? phases.FirstOrDefault(phase => phase.State == PhaseState.InWork)?.Name
                ?? phases.FirstOrDefault(phase => phase.State != PhaseState.Done)?.Name
        );
    }

    private static string? Named(ImmutableArray<Phase> phases, string fileName) =>
        phases.FirstOrDefault(phase => fileName.Contains(phase.Name, StringComparison.OrdinalIgnoreCase))?.Name;
}
