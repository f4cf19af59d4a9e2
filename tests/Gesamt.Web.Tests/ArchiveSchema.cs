using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Xml.Linq;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Store;
using Gesamt.Store.Archives;
using Gesamt.Store.Json;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>The JSON Schema (2020-12) of an archive, read off the rows and facts themselves, with what their comments say: docs/archive.schema.json is this, and a test says so.</summary>
internal static class ArchiveSchema
{
    private static readonly XElement[] Comments =
    [
        .. new[] { "Gesamt.Core", "Gesamt.Store" }.Select(name =>
            XDocument.Load(Path.Combine(AppContext.BaseDirectory, $"{name}.xml")).Root!
        ),
    ];

    private static readonly Dictionary<string, XElement> ByMember = Comments
        .SelectMany(root => root.Descendants("member"))
        .ToDictionary(member => (string)member.Attribute("name")!);

    /// <summary>As it stands in the file.</summary>
    public static string Text()
    {
        var options = new JsonSerializerOptions
        {
            WriteIndented = true,
            Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        };
        return All().ToJsonString(options) + "\n";
    }

    private static JsonObject All()
    {
        using var db = new GesamtDb(
            ((DbContextOptionsBuilder<GesamtDb>)new DbContextOptionsBuilder<GesamtDb>().UseGesamt("none.db")).Options
        );
        var defs = new JsonObject { [ArchiveFile.ListName] = Of(typeof(ArchiveList), Listed) };
        foreach (var table in ArchiveTables.Of(db.Model))
        {
            var row = Of(table.Row, RowJson.Options);
            // all columns are always written
            row["required"] = new JsonArray([.. table.Columns.Select(column => (JsonNode)column)]);
            if (table.Row == typeof(FactRow))
                row["allOf"] = new JsonArray([.. Payloads()]);
            defs[table.Entry] = table.Entry.EndsWith(".jsonl", StringComparison.Ordinal)
                ? row
                : new JsonObject { ["type"] = "array", ["items"] = row };
        }
        return new()
        {
            ["$schema"] = "https://json-schema.org/draft/2020-12/schema",
            ["title"] = $"{ArchiveFile.Format}, version {ArchiveFile.Version}",
            ["description"] =
                "Under $defs, by the name of the entry it describes: archive.json and each of the tables; of facts.jsonl, one line of it.",
            ["$defs"] = defs,
        };
    }

    private static readonly JsonSerializerOptions Listed = new(JsonSerializerDefaults.Web)
    {
        RespectNullableAnnotations = true,
        NumberHandling = System.Text.Json.Serialization.JsonNumberHandling.Strict,
        TypeInfoResolver = new System.Text.Json.Serialization.Metadata.DefaultJsonTypeInfoResolver(),
    };

    /// <summary>What the payload of each kind of fact is, in the version that is written now.</summary>
    private static IEnumerable<JsonNode> Payloads() =>
        typeof(Happening)
            .GetNestedTypes(BindingFlags.Public)
            .Where(kind => kind.BaseType == typeof(Happening) && kind != typeof(Happening.Unreadable))
            .OrderBy(kind => kind.Name, StringComparer.Ordinal)
            .Select(kind =>
                (JsonNode)
                    new JsonObject
                    {
                        ["if"] = new JsonObject
                        {
                            ["properties"] = new JsonObject
                            {
                                ["kind"] = new JsonObject { ["const"] = kind.Name },
                                ["version"] = new JsonObject { ["const"] = FactJson.Version },
                            },
                        },
                        ["then"] = new JsonObject
                        {
                            ["properties"] = new JsonObject { ["payload"] = Of(kind, StoreJson.Options) },
                        },
                    }
            );

    private static JsonObject Of(Type type, JsonSerializerOptions options) =>
        (JsonObject)
            options.GetJsonSchemaAsNode(
                type,
                new() { TreatNullObliviousAsNonNullable = true, TransformSchemaNode = Told }
            );

    private static JsonNode Told(JsonSchemaExporterContext at, JsonNode schema)
    {
        var type = at.TypeInfo.Type;
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        var told = schema as JsonObject ?? [];
        if (at.PropertyInfo?.AttributeProvider is PropertyInfo property)
        {
            if (property.IsDefined(typeof(HoldsJsonAttribute), false))
                told = [];
            if (Comment($"P:{Named(property.DeclaringType!)}.{property.Name}") is { Length: > 0 } words)
                told.Insert(0, "description", words);
        }
        else if (at.PropertyInfo is null && at.Path.Length == 0 && Comment($"T:{Named(type)}") is { Length: > 0 } words)
            told.Insert(0, "description", words);
        if (Written(plain) is { } written)
            foreach (var (name, value) in written)
                told[name] =
                    name == "type" && Nullable.GetUnderlyingType(type) is not null
                        ? new JsonArray((string)value!, "null")
                        : value?.DeepClone();
        return told;
    }

    /// <summary>Values that are written in a way of their own.</summary>
    private static JsonObject? Written(Type type) =>
        type == typeof(Instant) ? new() { ["type"] = "string", ["format"] = "date-time" }
        : type == typeof(LocalDate) ? new() { ["type"] = "string", ["format"] = "date" }
        : type == typeof(LocalTime) ? new() { ["type"] = "string", ["pattern"] = @"^\d\d:\d\d:\d\d(\.\d+)?$" }
        : type == typeof(decimal) ? new() { ["type"] = "string", ["pattern"] = @"^-?\d+(\.\d{1,6})?$" }
        : type == typeof(Currency) ? new() { ["type"] = "string", ["pattern"] = "^[A-Z]{3}$" }
        : type == typeof(Rate) ? new() { ["type"] = "integer", ["description"] = "Parts per million." }
        : type == typeof(Money)
            ? new()
            {
                ["type"] = "object",
                ["required"] = new JsonArray("minor", "currency"),
                ["properties"] = new JsonObject
                {
                    ["minor"] = new JsonObject
                    {
                        ["type"] = "integer",
                        ["description"] = "In the currency's minor units.",
                    },
                    ["currency"] = new JsonObject { ["type"] = "string", ["pattern"] = "^[A-Z]{3}$" },
                },
            }
        : type.GetInterfaces().Any(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IId<>))
            ? new() { ["type"] = "integer" }
        : null;

    private static string Named(Type type) => type.FullName!.Replace('+', '.');

    private static string Comment(string member) =>
        ByMember.TryGetValue(member, out var found) && found.Element("summary") is { } summary
            ? string.Join(' ', summary.Nodes().Select(Words)).Replace("  ", " ", StringComparison.Ordinal).Trim()
            : "";

    private static string Words(XNode node) =>
        node switch
        {
            XText text => string.Join(' ', text.Value.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)),
            XElement element when (string?)element.Attribute("cref") is { } cref => Camel(cref.Split('.', ':')[^1]),
            XElement element => element.Value,
            _ => "",
        };

    private static string Camel(string name) => char.ToLowerInvariant(name[0]) + name[1..];
}
