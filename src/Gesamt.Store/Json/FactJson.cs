using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Core.Facts;

namespace Gesamt.Store.Json;

/// <summary>Facts as they lie in the table: kind by name, its version, and the payload as JSON.</summary>
/// <remarks>A payload that changes gets the next version and an upcaster here; rows are never rewritten.</remarks>
public static class FactJson
{
    public const int Version = 2;

    private static readonly Dictionary<string, Type> ByName = StoreJson
        .Kinds(typeof(Happening))
        .ToDictionary(kind => kind.Name);

    public static string KindOf(Happening what) => what.GetType().Name;

    public static string Write(Happening what) => JsonSerializer.Serialize(what, what.GetType(), StoreJson.Options);

    /// <summary>The fact in a row; <see cref="Happening.Unreadable"/> for one of a kind unknown to this version of the program, or whose payload is damaged, so that one row never hides all others.</summary>
    public static Happening Read(string kind, int version, string payload)
    {
        if (!ByName.TryGetValue(kind, out var type) || version > Version)
            return new Happening.Unreadable(kind);
        try
        {
            return (Happening?)
                    JsonSerializer.Deserialize(
                        version < Version ? Upcast(kind, payload) : payload,
                        type,
                        StoreJson.Options
                    )
                ?? new Happening.Unreadable(kind);
        }
        catch (Exception e)
            when (e
                    is JsonException
                        or ArgumentException
                        or FormatException
                        or OverflowException
                        or InvalidOperationException
            )
        {
            return new Happening.Unreadable(kind);
        }
    }

    /// <summary>Version 1 of an acceptance knew neither the price without tax nor the instalments: they read as the price itself, and as none still to be invoiced by itself.</summary>
    private static string Upcast(string kind, string payload)
    {
        if (kind != nameof(Happening.ProposalAccepted))
            return payload;
        var old = JsonNode.Parse(payload)!.AsObject();
        old.TryAdd("net", old["agreed"]!.DeepClone());
        old.TryAdd("parts", new JsonArray());
        return old.ToJsonString();
    }
}
