using System.Reflection;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Gesamt.Store.Json;
using Gesamt.Store.Model;

namespace Gesamt.Store.Archives;

/// <summary>How a row is written in an archive: its columns under their names, instants and days by ISO 8601, closed sets by their names, exact numbers as texts, amounts in minor units.</summary>
/// <remarks>What does not belong to a row is refused and not passed over: a newer Gesamt may have written what this one would lose.</remarks>
public static class RowJson
{
    public static readonly JsonSerializerOptions Options = Make();

    private static JsonSerializerOptions Make()
    {
        var options = new JsonSerializerOptions(StoreJson.Options)
        {
            // it stands in files, not in pages
            Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
            UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
            TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { KeepColumns } },
        };
        options.MakeReadOnly();
        return options;
    }

    private static void KeepColumns(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object || type.Type.Namespace != typeof(StudioRow).Namespace)
            return;
        for (var at = type.Properties.Count - 1; at >= 0; at--)
        {
            var property = type.Properties[at];
            if (property.AttributeProvider is not PropertyInfo member || !IsColumn(member))
                type.Properties.RemoveAt(at);
            else if (member.IsDefined(typeof(HoldsJsonAttribute), false))
                property.CustomConverter =
                    member.PropertyType == typeof(byte[])
                        ? new Value<byte[]>(Encoding.UTF8.GetBytes, Encoding.UTF8.GetString)
                        : new Value<string>(text => text, text => text);
        }
    }

    /// <summary>Whether it is a value of the row itself: neither what is worked out, nor a row beside it.</summary>
    private static bool IsColumn(PropertyInfo member) =>
        member.SetMethod is { IsPublic: true }
        && !ArchiveTables.StaysOut(member)
        && (
            member.PropertyType == typeof(PinnedRules)
            || member.PropertyType == typeof(List<long>)
            || member.PropertyType == typeof(string)
            || member.PropertyType == typeof(byte[])
            || member.PropertyType.IsValueType
        );

    /// <summary>A column that holds JSON, as the value it holds, to the letter; what is no object and no array, as a text.</summary>
    private sealed class Value<T>(Func<string, T> of, Func<T, string> text) : JsonConverter<T>
        where T : class
    {
        public override T Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options)
        {
            using var document = JsonDocument.ParseValue(ref reader);
            return of(
                document.RootElement.ValueKind == JsonValueKind.String
                    ? document.RootElement.GetString()!
                    : document.RootElement.GetRawText()
            );
        }

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options)
        {
            var json = text(value);
            if (IsValue(json))
                writer.WriteRawValue(json, skipInputValidation: true);
            else
                writer.WriteStringValue(json);
        }

        // it stands a few levels deeper in a row, and a row is read down to 64
        private static readonly JsonDocumentOptions Shallower = new() { MaxDepth = 56 };

        private static bool IsValue(string json)
        {
            // white space around it, or a line of it, would be lost, or break the line that a row is
            if (json is not ['{' or '[', .., '}' or ']'] || json.Contains('\n', StringComparison.Ordinal))
                return false;
            try
            {
                using var _ = JsonDocument.Parse(json, Shallower);
                return true;
            }
            catch (JsonException)
            {
                return false;
            }
        }
    }
}
