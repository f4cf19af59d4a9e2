using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;
using NodaTime.Serialization.SystemTextJson;

namespace Gesamt.Web.Hosting;

/// <summary>How the API writes JSON and describes itself: enums in words, dates in ISO 8601, numbers as numbers.</summary>
public static class Api
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
        options.ConfigureForNodaTime(DateTimeZoneProviders.Tzdb);
        options.Converters.Add(new JsonStringEnumConverter(null, allowIntegerValues: false));
        options.NumberHandling = JsonNumberHandling.Strict;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
    }

    public static void Describe(OpenApiOptions options)
    {
        options.CreateSchemaReferenceId = type => Formats.ContainsKey(Nullable.GetUnderlyingType(type.Type) ?? type.Type)
            ? null : OpenApiOptions.CreateDefaultSchemaReferenceId(type);
        options.AddSchemaTransformer((schema, context, _) =>
        {
            var type = context.JsonTypeInfo.Type;
            var bare = Nullable.GetUnderlyingType(type);
            if (!Formats.TryGetValue(bare ?? type, out var format)) return Task.CompletedTask;
            schema.Type = JsonSchemaType.String | (bare is null ? 0 : JsonSchemaType.Null);
            schema.Format = format;
            schema.Properties?.Clear();
            schema.Required?.Clear();
            return Task.CompletedTask;
        });
    }
}
