using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Stages;

/// <summary>A milestone and when it was reached; null while it lies ahead.</summary>
public sealed record MilestoneReading(Milestone Milestone, Instant? ReachedAt);

/// <summary>A kind's own steps inside gates, each reached by the first fact of its sort.</summary>
public static class MilestoneRule
{
    public static ImmutableArray<MilestoneReading> Of(Case project) =>
        [
            .. project.Kind.Milestones.Select(milestone => new MilestoneReading(
                milestone,
                ReachedAt(project.History, milestone)
            )),
        ];

    /// <summary>The name of the one reached last; null while none is.</summary>
    public static string? LastReached(Case project) =>
        Of(project).Where(one => one.ReachedAt is not null).MaxBy(one => one.ReachedAt)?.Milestone.Name;

    private static Instant? ReachedAt(History history, Milestone milestone) =>
        history.Facts.Where(fact => Reaches(fact.What, milestone)).Select(fact => (Instant?)fact.Happened).Min();

    private static bool Reaches(Happening what, Milestone milestone) =>
        milestone.By switch
        {
            MilestoneSign.CallHeld => what is Happening.CallHeld or Happening.MeetingHeld,
            MilestoneSign.BriefApproved => what is Happening.BriefApproved,
            MilestoneSign.FormReturned => what is Happening.FormReturned,
            MilestoneSign.DraftApproved => what is Happening.ReviewApproved,
            _ => what is Happening.MilestoneReached reached && reached.Name == milestone.Name,
        };
}
