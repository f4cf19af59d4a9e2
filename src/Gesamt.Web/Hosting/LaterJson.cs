using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace Gesamt.Web.Hosting;

/// <summary>Looks into a type of an answer or a body when the first of it comes. Every address asks for its types when the program starts, and to look into them all would be a quarter of that start.</summary>
public sealed class LaterJson : IJsonTypeInfoResolver
{
    private readonly JsonSerializerOptions outer,
        inner;

    private LaterJson(JsonSerializerOptions outer) => (this.outer, inner) = (outer, new JsonSerializerOptions(outer));

    /// <summary>Whoever asks these options gets a type that is read and written by a copy of them as they are now.</summary>
    public static void For(JsonSerializerOptions options) => options.TypeInfoResolver = new LaterJson(options);

    /// <inheritdoc/>
    public JsonTypeInfo? GetTypeInfo(Type type, JsonSerializerOptions options) =>
        // other copies are made by those who describe types, and want to see all of one
        ReferenceEquals(options, outer) && IsOurs(type)
            ? ((IMaker)Activator.CreateInstance(typeof(Maker<>).MakeGenericType(type))!).Make(inner, options)
            : inner.TypeInfoResolver!.GetTypeInfo(type, options);

    /// <summary>A class of ours, or a list of them; what is a word, a number or nothing in particular is quickly looked into.</summary>
    private static bool IsOurs(Type type) =>
        !type.IsValueType
        && (
            type.Assembly == typeof(LaterJson).Assembly
            || type.IsGenericType && type.GenericTypeArguments.Any(IsOurs)
            || type.IsArray && IsOurs(type.GetElementType()!)
        );

    private interface IMaker
    {
        JsonTypeInfo Make(JsonSerializerOptions inner, JsonSerializerOptions outer);
    }

    private sealed class Maker<T> : IMaker
    {
        public JsonTypeInfo Make(JsonSerializerOptions inner, JsonSerializerOptions outer) =>
            JsonMetadataServices.CreateValueInfo<T>(outer, new Later<T>(inner));
    }

    private sealed class Later<T>(JsonSerializerOptions inner) : JsonConverter<T>
    {
        private JsonTypeInfo<T> Known => (JsonTypeInfo<T>)inner.GetTypeInfo(typeof(T));

        public override T? Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            JsonSerializer.Deserialize(ref reader, Known);

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize(writer, value, Known);
    }
}
