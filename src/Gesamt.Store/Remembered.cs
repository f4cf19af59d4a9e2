using System.Collections.Concurrent;
using System.Diagnostics.CodeAnalysis;

namespace Gesamt.Store;

/// <summary>Values that follow from a text and never change, each worked out once. Beyond so many it begins anew: a studio that goes on for years changes its texts now and then.</summary>
public sealed class Remembered<T>(int most)
    where T : notnull
{
    private readonly ConcurrentDictionary<string, T> known = new(StringComparer.Ordinal);

    public bool TryGet(string text, [MaybeNullWhen(false)] out T value) => known.TryGetValue(text, out value);

    public T Keep(string text, T value)
    {
        if (known.Count >= most)
            known.Clear();
        return known[text] = value;
    }
}
