using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using NodaTime;

namespace Gesamt.Core.Work;

/// <summary>How a round of review stands. Returned: the client asked for changes.</summary>
public enum ReviewState
{
    Open,
    Returned,
    Approved,
    Withdrawn,
}

/// <summary>A round of review.</summary>
/// <param name="Round">Its number among the project's rounds that were not withdrawn; null for a withdrawn one.</param>
/// <param name="Answered">When the client returned or approved it.</param>
public sealed record Review(
    ReviewId Id,
    string? Phase,
    int? Round,
    ReviewState State,
    Instant Opened,
    Instant? Answered
);

/// <summary>Where in a draft a remark points: at a place of a picture, a page or a place of it, or a second of a film.</summary>
/// <param name="X">From the left edge, in thousandths of the width.</param>
/// <param name="Y">From the top edge, in thousandths of the height.</param>
/// <param name="Page">Of a document, from 1.</param>
/// <param name="Second">Of a film, from its beginning.</param>
public sealed record RemarkPin(FileId File, int? X, int? Y, int? Page, int? Second)
{
    private const int LongestFilm = 24 * 60 * 60,
        MostPages = 5_000;

    /// <summary>Whether it points at exactly one thing, within it.</summary>
    public bool IsOne =>
        (X, Y, Page, Second) switch
        {
            (>= 0 and <= 1_000, >= 0 and <= 1_000, null, null) => true,
            (null, null, >= 1 and <= MostPages, null) => true,
            (>= 0 and <= 1_000, >= 0 and <= 1_000, >= 1 and <= MostPages, null) => true,
            (null, null, null, >= 0 and <= LongestFilm) => true,
            _ => false,
        };

    /// <summary>“page 3”, “at 1:05”; empty for a place of a picture, which is shown on it.</summary>
    public string Words =>
        Page is { } page ? $"page {page}"
        : Second is { } second ? $"at {second / 60}:{second % 60:00}"
        : "";
}

/// <summary>Rounds of review, read from what happened, and how many of them the price includes.</summary>
public static class ReviewRule
{
    public static ImmutableArray<Review> Of(History history)
    {
        var round = 0;
        return
        [
            .. history
                .Of<Happening.ReviewOpened>()
                .Select(opened =>
                {
                    var (state, at) = StateOf(history, opened.What.Review);
                    int? number = state == ReviewState.Withdrawn ? null : ++round;
                    var phase = opened.What.Phase is { } name ? PhaseRule.NameNow(history, name, opened.Fact) : null;
                    return new Review(opened.What.Review, phase, number, state, opened.Happened, at);
                }),
        ];
    }

    /// <summary>The round that waits for the client.</summary>
    public static Review? Open(History history) =>
        Of(history).LastOrDefault(review => review.State == ReviewState.Open);

    /// <summary>A round that came back with changes to make, and no later one was put up.</summary>
    public static Review? ToRework(History history) =>
        Of(history).LastOrDefault(review => review.State != ReviewState.Withdrawn)
            is { State: ReviewState.Returned } back
            ? back
            : null;

    /// <summary>The number the next round would have.</summary>
    public static int NextRound(History history) => Of(history).Count(review => review.Round is not null) + 1;

    /// <summary>“Paint, round 2 of 3”; beyond what was agreed “Paint, round 4”.</summary>
    public static string Title(string? phase, int round, int agreed) =>
        $"{(phase is null ? "Round" : $"{ShortText.Capital(phase)}, round")} {round}{(round > agreed ? "" : $" of {agreed}")}";

    private static (ReviewState, Instant?) StateOf(History history, ReviewId review)
    {
        (ReviewState State, Instant?) state = (ReviewState.Open, null);
        foreach (var fact in history.Facts)
            state = fact.What switch
            {
                Happening.ChangesAsked asked when asked.Review == review => (ReviewState.Returned, fact.Happened),
                Happening.ReviewApproved approved when approved.Review == review => (
                    ReviewState.Approved,
                    fact.Happened
                ),
                Happening.ApprovalWithdrawn withdrawn when withdrawn.Review == review => (ReviewState.Open, null),
                Happening.ReviewWithdrawn withdrawn when withdrawn.Review == review => (ReviewState.Withdrawn, null),
                _ => state,
            };
        return state;
    }
}
