using System.Collections.Immutable;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>What a text of a proposal is about.</summary>
public enum TextSort
{
    Why,
    Scope,
    AboutUs,
    Terms,
    Free,
}

/// <summary>A day, or days, of the timeline.</summary>
/// <param name="Until">The last of several days.</param>
public sealed record TimelineDay(LocalDate On, LocalDate? Until, string Words);

/// <summary>One part of the page a proposal is read on, in its order.</summary>
public abstract record OfferPart
{
    private OfferPart() { }

    /// <param name="Heading">Empty for a text without one.</param>
    /// <param name="Body">Markdown of CommonMark.</param>
    public sealed record Words(TextSort Sort, string Heading, string Body) : OfferPart;

    public sealed record Timeline(string Heading, ImmutableArray<TimelineDay> Days) : OfferPart;

    /// <param name="Hash">SHA-256 of the picture's bytes.</param>
    public sealed record Picture(string Hash, string Caption) : OfferPart;

    /// <summary>Where the services and their prices stand; each proposal has it once.</summary>
    public sealed record Services : OfferPart;
}
