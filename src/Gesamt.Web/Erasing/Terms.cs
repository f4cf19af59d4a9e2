using System.Text.Json;

namespace Gesamt.Web.Erasing;

/// <summary>The words of the studio's trade: what its kinds call dates, phases and steps.</summary>
public static class Terms
{
    /// <summary>Every text in the rules of a kind, JSON.</summary>
    public static IReadOnlySet<string> Of(string rules)
    {
        using var json = JsonDocument.Parse(rules);
        return Texts(json.RootElement).ToHashSet(StringComparer.Ordinal);
    }

    private static IEnumerable<string> Texts(JsonElement value) =>
        value.ValueKind switch
        {
            JsonValueKind.String => [value.GetString()!],
            JsonValueKind.Array => value.EnumerateArray().SelectMany(Texts),
            JsonValueKind.Object => value.EnumerateObject().SelectMany(property => Texts(property.Value)),
            _ => [],
        };
}
