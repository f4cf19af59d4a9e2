using System.Text.Json;
using Gesamt.Core.Facts;

namespace Gesamt.Store.Json;

/// <summary>Facts as they lie in the table: kind by name, its version, and the payload as JSON.</summary>
/// <remarks>A payload that changes gets the next version and an upcaster here; rows are never rewritten.</remarks>
public static class FactJson
{
    public const int Version = 1;

    private static readonly Dictionary<string, Type> ByName = StoreJson.Kinds(typeof(Happening)).ToDictionary(kind => kind.Name);

    public static string KindOf(Happening what) => what.GetType().Name;

    public static string Write(Happening what) => JsonSerializer.Serialize(what, what.GetType(), StoreJson.Options);

    /// <exception cref="JsonException">The kind is unknown to this version of the program.</exception>
    public static Happening Read(string kind, int version, string payload) =>
        ByName.TryGetValue(kind, out var type) && version <= Version
            ? (Happening)JsonSerializer.Deserialize(payload, type, StoreJson.Options)!
            : throw new JsonException($"A fact of kind “{kind}”, version {version}, is not known here. The data was written by a newer Gesamt.");
}
