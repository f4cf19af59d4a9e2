using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Gesamt.Core.Calendar;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;
using NodaTime.Text;

namespace Gesamt.Web.Hosting;

/// <summary>How the API writes JSON and describes itself: enums in words, dates in ISO 8601, numbers as numbers.</summary>
public static partial class Api
{
    private static readonly Dictionary<Type, string> Formats = new()
    {
        [typeof(LocalDate)] = "date",
        [typeof(LocalDateTime)] = "local-date-time",
        [typeof(Instant)] = "date-time",
        [typeof(LocalTime)] = "time",
    };

    public static void Json(JsonSerializerOptions options)
    {
        // before those of NodaTime, which know no bounds
        options.Converters.Add(new Bounded<LocalDate>(LocalDatePattern.Iso, date => date, Dates.Allowed));
        options.Converters.Add(
            new Bounded<LocalDateTime>(
                LocalDateTimePattern.ExtendedIso,
                local => local.Date,
                "A date from 1900 to 2199 with its time, such as 2027-03-12T14:30:00."
            )
        );
        options.Converters.Add(
            new Bounded<Instant>(
                InstantPattern.ExtendedIso,
                instant => instant.InUtc().Date,
                "An instant from 1900 to 2199 in UTC, such as 2027-03-12T14:30:00Z."
            )
        );
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        options.Converters.Add(new JsonStringEnumConverter(null, allowIntegerValues: false));
        options.NumberHandling = JsonNumberHandling.Strict;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
    }

    /// <summary>Reads only dates that are allowed (see <see cref="Dates"/>): what lies beyond would break the arithmetic done with it.</summary>
    private sealed class Bounded<T>(IPattern<T> pattern, Func<T, LocalDate> date, string allowed) : JsonConverter<T>
    {
        public override T Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String
            && pattern.Parse(reader.GetString()!) is { Success: true, Value: var value }
            && Dates.IsAllowed(date(value))
                ? value
                : throw new NotAllowedException(allowed);

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            writer.WriteStringValue(pattern.Format(value));
    }

    [GeneratedRegex(@"\{(\w+)")]
    private static partial Regex InAddress();

    /// <param name="whole">With the owner's and the clients' addresses, too.</param>
    public static void Describe(OpenApiOptions options, bool whole)
    {
        if (!whole)
            options.ShouldInclude = description =>
                description.RelativePath?.StartsWith("open/", StringComparison.Ordinal) == true;
        options.CreateSchemaReferenceId = type =>
            Formats.ContainsKey(Nullable.GetUnderlyingType(type.Type) ?? type.Type)
                ? null
                : OpenApiOptions.CreateDefaultSchemaReferenceId(type);
        options.AddOperationTransformer(
            (operation, context, _) =>
            {
                operation.Parameters ??= [];
                // what a filter reads of the address belongs to it all the same
                foreach (Match name in InAddress().Matches(context.Description.RelativePath ?? ""))
                    if (operation.Parameters.All(parameter => parameter.Name != name.Groups[1].Value))
                        operation.Parameters.Add(
                            new OpenApiParameter
                            {
                                Name = name.Groups[1].Value,
                                In = ParameterLocation.Path,
                                Required = true,
                                Schema = new OpenApiSchema { Type = JsonSchemaType.String },
                            }
                        );
                // a list in an address may be empty, and then it is not there
                foreach (var asked in operation.Parameters.OfType<OpenApiParameter>())
                    if (asked.In == ParameterLocation.Query)
                    {
                        asked.Name = JsonNamingPolicy.CamelCase.ConvertName(asked.Name!);
                        asked.Required &= asked.Schema?.Type != JsonSchemaType.Array;
                    }
                return Task.CompletedTask;
            }
        );
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                var type = context.JsonTypeInfo.Type;
                var bare = Nullable.GetUnderlyingType(type);
                if (!Formats.TryGetValue(bare ?? type, out var format))
                    return Task.CompletedTask;
                schema.Type = JsonSchemaType.String | (bare is null ? 0 : JsonSchemaType.Null);
                schema.Format = format;
                schema.Properties?.Clear();
                schema.Required?.Clear();
                return Task.CompletedTask;
            }
        );
    }
}

/// <summary>Something in a request that reads as nothing it could be; says what is allowed.</summary>
public sealed class NotAllowedException(string allowed) : JsonException(allowed);
