using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Work;

/// <summary>How a leave stands. Asked: it was, and nobody has answered.</summary>
public enum LeaveState
{
    Unasked,
    Asked,
    Given,
    Refused,
    Revoked,
}

/// <summary>A consent, with the day of its last word and the sentence it was given or refused for.</summary>
/// <param name="Wording">Null until it was answered.</param>
public sealed record Leave(LeaveState State, Instant? Since, VersionId? Wording)
{
    public static Leave Unasked { get; } = new(LeaveState.Unasked, null, null);
}

/// <summary>What a client lets the studio say and show of a project.</summary>
/// <param name="Put">The words that were put to them last; null while none were, or they were taken back.</param>
/// <param name="Approved">The words they approved last.</param>
/// <param name="Declined">When they said that they would rather not be quoted, to what was put last.</param>
public sealed record Testimonial(
    VersionId? Put,
    Instant? PutAt,
    VersionId? Approved,
    Instant? ApprovedAt,
    Instant? Declined,
    Leave Quote,
    Leave Show
)
{
    public static Testimonial None { get; } = new(null, null, null, null, null, Leave.Unasked, Leave.Unasked);

    /// <summary>Words are with the client, and not answered.</summary>
    public bool IsOpen => PutAt is not null && Declined is null && !(ApprovedAt >= PutAt);

    /// <summary>Only words they approved, while the leave to quote stands.</summary>
    public bool MayQuote => Approved is not null && Quote.State == LeaveState.Given;

    public bool MayShow => Show.State == LeaveState.Given;

    public Leave Of(LeaveTo to) => to == LeaveTo.Quote ? Quote : Show;
}

/// <summary>Testimonials and the two leaves, read from what happened.</summary>
public static class TestimonialRule
{
    public static Testimonial Of(History history)
    {
        var now = Testimonial.None;
        foreach (var fact in history.Facts)
            now = After(now, fact);
        return now;
    }

    private static Testimonial After(Testimonial now, Fact fact) =>
        fact.What switch
        {
            Happening.TestimonialPut put => now with
            {
                Put = put.Words,
                PutAt = fact.Recorded,
                Declined = null,
                Quote = Ask(now.Quote, fact),
                Show = Ask(now.Show, fact),
            },
            Happening.TestimonialTakenBack => now with
            {
                Put = null,
                PutAt = null,
                Quote = Unask(now.Quote),
                Show = Unask(now.Show),
            },
            Happening.TestimonialApproved approved => now with
            {
                Approved = approved.Words,
                ApprovedAt = fact.Recorded,
            },
            // who would rather not is not asked any more whether the words may be quoted
            Happening.TestimonialDeclined => now with { Declined = fact.Recorded, Quote = Unask(now.Quote) },
            Happening.LeaveGiven given => With(now, given.To, new(LeaveState.Given, fact.Happened, given.Wording)),
            Happening.LeaveRefused no => With(now, no.To, new(LeaveState.Refused, fact.Happened, no.Wording)),
            Happening.LeaveRevoked gone when now.Of(gone.To) is { State: LeaveState.Given } leave => With(
                now,
                gone.To,
                leave with
                {
                    State = LeaveState.Revoked,
                    Since = fact.Happened,
                }
            ),
            _ => now,
        };

    // what was answered stays answered: nobody is asked again for what they refused or took back
    private static Leave Ask(Leave leave, Fact fact) =>
        leave.State == LeaveState.Unasked ? new(LeaveState.Asked, fact.Happened, null) : leave;

    private static Leave Unask(Leave leave) => leave.State == LeaveState.Asked ? Leave.Unasked : leave;

    private static Testimonial With(Testimonial now, LeaveTo to, Leave leave) =>
        to == LeaveTo.Quote ? now with { Quote = leave } : now with { Show = leave };

    /// <summary>The sentence that is agreed to, in the studio's name.</summary>
    public static string Wording(LeaveTo to, string studio) =>
        to == LeaveTo.Quote
            ? $"{studio} may quote the words I approved, with the name I gave, on its website and in print. I can take this back at any time."
            : $"{studio} may show pictures of this work on its website and in print. I can take this back at any time.";
}
