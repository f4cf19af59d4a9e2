using System.Collections.Immutable;

namespace Gesamt.Core.Forms;

/// <summary>A detail a kind of work wants to know of its projects.</summary>
/// <param name="Sort">One of short and long text, one of, number, date or amount.</param>
/// <param name="Private">Never in a letter, a brief or anything else a client sees.</param>
public sealed record DetailRule(
    string Name,
    FieldSort Sort,
    string? Unit = null,
    ImmutableArray<string>? Options = null,
    bool Private = false
)
{
    /// <summary>The detail as a field, so that values are checked as answers are.</summary>
    public FormField AsField => new(Name, Sort, Name, false, null, Unit, Options);
}

/// <summary>An answer that says something else than what is known; the owner decides.</summary>
public sealed record Contradiction(string Detail, string Known, string Said);

/// <summary>What answers add to what is known.</summary>
public static class DetailsRule
{
    /// <summary>New values for details that were unknown, and contradictions for the rest; what is known is never overwritten.</summary>
    public static (
        ImmutableArray<KeyValuePair<string, string>> New,
        ImmutableArray<Contradiction> Contradictions
    ) Compare(IReadOnlyDictionary<string, string> known, IEnumerable<KeyValuePair<string, string>> said)
    {
        var added = ImmutableArray.CreateBuilder<KeyValuePair<string, string>>();
        var contrary = ImmutableArray.CreateBuilder<Contradiction>();
        foreach (var (detail, text) in said)
            if (!known.TryGetValue(detail, out var before) || before.Length == 0)
                added.Add(new(detail, text));
            else if (!string.Equals(before.Trim(), text.Trim(), StringComparison.OrdinalIgnoreCase))
                contrary.Add(new(detail, before, text));
        return (added.ToImmutable(), contrary.ToImmutable());
    }
}
