using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Projects;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Gesamt.Store.Json;

/// <summary>How values of Core are written in JSON columns and frozen versions: ids and minor units as whole numbers, exact decimals as strings, closed sets by their name.</summary>
public static class StoreJson
{
    public static readonly JsonSerializerOptions Options = Make();

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    public static T Read<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Options)
        ?? throw new JsonException($"Stored JSON of {typeof(T).Name} is null.");

    /// <summary>The same few texts are asked for again and again, such as what is pinned on thousands of projects and runs: each is read once.</summary>
    /// <typeparam name="T">Never changed once it is made: many hold the same one.</typeparam>
    public static T ReadOnce<T>(string json)
        where T : class => Kept<T>.Known.TryGet(json, out var known) ? known : Kept<T>.Known.Keep(json, Read<T>(json));

    private static class Kept<T>
        where T : class
    {
        public static readonly Remembered<T> Known = new(500);
    }

    /// <summary>The value in a column; null where it is damaged.</summary>
    public static T? TryRead<T>(string json)
        where T : class
    {
        try
        {
            return JsonSerializer.Deserialize<T>(json, Options);
        }
        catch (Exception e)
            when (e
                    is JsonException
                        or FormatException
                        or ArgumentException
                        or OverflowException
                        or InvalidOperationException
            )
        {
            return null;
        }
    }

    private static JsonSerializerOptions Make()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            IgnoreReadOnlyProperties = true,
            NumberHandling = JsonNumberHandling.Strict,
            RespectRequiredConstructorParameters = true,
        };
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        options.Converters.Add(new JsonStringEnumConverter());
        options.Converters.Add(new IdConverters());
        options.Converters.Add(new ClosedSets());
        options.Converters.Add(new CurrencyConverter());
        options.Converters.Add(new MoneyConverter());
        options.Converters.Add(new RateConverter());
        options.Converters.Add(new ExactDecimals());
        options.Converters.Add(new PhaseConverter());
        options.MakeReadOnly(populateMissingResolver: true);
        return options;
    }

    private sealed class CurrencyConverter : JsonConverter<Currency>
    {
        public override Currency Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            Currency.Of(reader.GetString() ?? "");

        public override void Write(Utf8JsonWriter writer, Currency value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.Code);
    }

    private sealed record MoneyShape(long Minor, Currency Currency);

    private sealed class MoneyConverter : JsonConverter<Money>
    {
        public override Money Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            JsonSerializer.Deserialize<MoneyShape>(ref reader, options) is { } shape
                ? new(shape.Minor, shape.Currency)
                : throw new JsonException("An amount is null.");

        public override void Write(Utf8JsonWriter writer, Money value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize(writer, new MoneyShape(value.Minor, value.Currency), options);
    }

    private sealed class RateConverter : JsonConverter<Rate>
    {
        public override Rate Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            new(reader.GetInt32());

        public override void Write(Utf8JsonWriter writer, Rate value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.PartsPerMillion);
    }

    private sealed class ExactDecimals : JsonConverter<decimal>
    {
        public override decimal Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            decimal.Parse(reader.GetString() ?? "", NumberStyles.Number, CultureInfo.InvariantCulture);

        public override void Write(Utf8JsonWriter writer, decimal value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.ToString("0.######", CultureInfo.InvariantCulture));
    }

    /// <summary>A phase was a name alone before it had a usual length.</summary>
    private sealed class PhaseConverter : JsonConverter<KindPhase>
    {
        private sealed record Shape(string Name, int? Days);

        public override KindPhase Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String ? new(reader.GetString()!)
            : JsonSerializer.Deserialize<Shape>(ref reader, options) is { } shape ? new(shape.Name, shape.Days)
            : throw new JsonException("A phase is null.");

        public override void Write(Utf8JsonWriter writer, KindPhase value, JsonSerializerOptions options) =>
            JsonSerializer.Serialize(writer, new Shape(value.Name, value.Days), options);
    }

    private sealed class IdConverters : JsonConverterFactory
    {
        public override bool CanConvert(Type type) =>
            type.GetInterfaces().Any(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IId<>));

        public override JsonConverter CreateConverter(Type type, JsonSerializerOptions options) =>
            (JsonConverter)Activator.CreateInstance(typeof(IdConverter<>).MakeGenericType(type))!;
    }

    private sealed class IdConverter<T> : JsonConverter<T>
        where T : struct, IId<T>
    {
        public override T Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            T.From(reader.GetInt64());

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.Value);
    }

    /// <summary>Abstract records whose kinds are nested in them are written as {"is": "Kind", "of": {…}}.</summary>
    private sealed class ClosedSets : JsonConverterFactory
    {
        public override bool CanConvert(Type type) => type.IsAbstract && type.IsClass && Kinds(type).Any();

        public override JsonConverter CreateConverter(Type type, JsonSerializerOptions options) =>
            (JsonConverter)Activator.CreateInstance(typeof(ClosedSet<>).MakeGenericType(type))!;
    }

    internal static IEnumerable<Type> Kinds(Type set) =>
        set.GetNestedTypes(BindingFlags.Public).Where(nested => nested.BaseType == set);

    private sealed class ClosedSet<T> : JsonConverter<T>
        where T : class
    {
        private static readonly Dictionary<string, Type> ByName = Kinds(typeof(T)).ToDictionary(kind => kind.Name);

        public override T Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options)
        {
            using var document = JsonDocument.ParseValue(ref reader);
            var name = document.RootElement.GetProperty("is").GetString() ?? "";
            if (!ByName.TryGetValue(name, out var kind))
                throw new JsonException($"“{name}” is no {typeof(T).Name}.");
            return (T)document.RootElement.GetProperty("of").Deserialize(kind, options)!;
        }

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options)
        {
            writer.WriteStartObject();
            writer.WriteString("is", value.GetType().Name);
            writer.WritePropertyName("of");
            JsonSerializer.Serialize(writer, value, value.GetType(), options);
            writer.WriteEndObject();
        }
    }
}
