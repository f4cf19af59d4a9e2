using System.Collections.Immutable;

namespace Gesamt.Core.ClientPages;

/// <summary>A question that clients ask again and again, with its answer.</summary>
public sealed record CommonQuestion(string Question, string Answer);

/// <summary>What a kind tells its clients to begin with.</summary>
/// <param name="Film">The address of a film; empty for none.</param>
/// <param name="FilmFile">SHA-256 of a film that is kept here; null for none.</param>
/// <param name="ReadFirst">Whether they only read the parts of their page until the start call.</param>
public sealed record Introduction(
    string Text,
    string Film,
    ImmutableArray<CommonQuestion> Questions,
    string? FilmFile = null,
    bool ReadFirst = false
)
{
    public static Introduction None { get; } = new("", "", []);

    public bool IsEmpty => Text.Length == 0 && Film.Length == 0 && FilmFile is null && Questions.IsEmpty;
}
