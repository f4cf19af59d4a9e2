using NodaTime;

namespace Gesamt.Core.Facts;

/// <summary>Who did it. Names stand in rows that can be blanked, never in a fact.</summary>
public enum Actor
{
    Owner,
    Client,
    Gesamt,
}

/// <summary>One thing that happened to a project. Append-only: a mistake is answered by a later fact.</summary>
/// <param name="Happened">When it happened; the owner may set it back for outside evidence, never forward. Gates, wins and ages follow it.</param>
/// <param name="Recorded">When it was written down. Stop rules, steps and numbering follow it.</param>
public sealed record Fact(FactId Id, ProjectId Project, Instant Happened, Instant Recorded, Actor By, Happening What);

/// <summary>A fact with its happening seen as the kind it is.</summary>
public readonly record struct Seen<T>(Fact Fact, T What)
    where T : Happening
{
    public Instant Happened => Fact.Happened;
    public Instant Recorded => Fact.Recorded;
}
