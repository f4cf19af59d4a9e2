using System.Collections.Immutable;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Meetings;

/// <summary>A meeting of a project as its facts tell it.</summary>
public sealed record Meeting(
    MeetingId Id,
    Instant Start,
    Instant End,
    Instant Booked,
    Instant? Cancelled,
    bool CancelledByClient,
    Instant? Held
)
{
    public bool IsStanding => Cancelled is null && Held is null;
}

public static class MeetingState
{
    public static ImmutableArray<Meeting> Of(History history)
    {
        Dictionary<MeetingId, Meeting> meetings = [];
        foreach (var fact in history.Facts)
            switch (fact.What)
            {
                case Happening.MeetingBooked booked:
                    meetings[booked.Meeting] = new(
                        booked.Meeting,
                        booked.Start,
                        booked.End,
                        fact.Happened,
                        null,
                        false,
                        null
                    );
                    break;
                case Happening.MeetingMoved moved when meetings.TryGetValue(moved.Meeting, out var meeting):
                    meetings[moved.Meeting] = meeting with { Start = moved.Start, End = moved.End };
                    break;
                case Happening.MeetingCancelled cancelled when meetings.TryGetValue(cancelled.Meeting, out var meeting):
                    meetings[cancelled.Meeting] = meeting with
                    {
                        Cancelled = fact.Happened,
                        CancelledByClient = cancelled.ByClient,
                    };
                    break;
                case Happening.MeetingMissed missed when meetings.TryGetValue(missed.Meeting, out var meeting):
                    meetings[missed.Meeting] = meeting with { Cancelled = fact.Happened };
                    break;
                case Happening.MeetingHeld held when meetings.TryGetValue(held.Meeting, out var meeting):
                    meetings[held.Meeting] = meeting with { Held = fact.Happened };
                    break;
                default:
                    break;
            }
        return [.. meetings.Values.OrderBy(meeting => meeting.Start)];
    }

    /// <summary>Whether the owner said that it did not take place, without anybody having cancelled it.</summary>
    public static bool WasMissed(History history, MeetingId meeting) =>
        history.Any<Happening.MeetingMissed>(missed => missed.Meeting == meeting);

    /// <summary>The choice of a time that is with the client: offered, and neither booked nor taken back since.</summary>
    public static Seen<Happening.MeetingOffered>? Offered(History history) =>
        history.Last<Happening.MeetingOffered>() is { } offered
        && !history.Facts.Any(fact =>
            History.IsAfter(fact, offered.Fact)
            && fact.What is Happening.MeetingBooked or Happening.MeetingNotOffered or Happening.MeetingHeld
        )
            ? offered
            : null;
}
