using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;

namespace Gesamt.Core.Work;

/// <summary>The first talk after the booking, until which the clients of some kinds only read their page.</summary>
public static class StartCall
{
    /// <summary>Whether it is booked, the kind waits for the talk, and nobody has spoken since. What binds and what is paid is not held up by it.</summary>
    public static bool IsAwaited(Case project) =>
        project.Kind.Introduction.ReadFirst
        && Booking.Win(project) is { } won
        && !project.History.Facts.Any(fact =>
            fact.What is Happening.CallHeld or Happening.MeetingHeld && History.IsAfter(fact, won.By)
        );
}
