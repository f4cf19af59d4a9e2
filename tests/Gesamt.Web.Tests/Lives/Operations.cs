using System.Text.Json.Nodes;

namespace Gesamt.Web.Tests.Lives;

/// <summary>An address that does something, as the API describes it.</summary>
public sealed record Operation(
    string Method,
    string Path,
    JsonObject? Body,
    IReadOnlyList<JsonObject> Query,
    bool TakesBytes
);

/// <summary>Every operation of the API, and requests for them that fit their description, or are odd in one place.</summary>
public static class Operations
{
    private static readonly JsonObject Description = JsonNode
        .Parse(File.ReadAllText(Path.Combine(Studio.Root, "src", "Gesamt.Web", "obj", "openapi", "openapi.json")))!
        .AsObject();

    public static readonly IReadOnlyList<Operation> All =
    [
        .. from path in Description["paths"]!.AsObject()
        from method in path.Value!.AsObject()
        let content = method.Value!["requestBody"]?["content"]?.AsObject()
        select new Operation(
            method.Key.ToUpperInvariant(),
            path.Key,
            content?["application/json"]?["schema"]?.AsObject(),
            [
                .. (method.Value["parameters"]?.AsArray() ?? [])
                    .Where(p => (string?)p!["in"] == "query")
                    .Select(p => p!.AsObject()),
            ],
            content?.ContainsKey("application/octet-stream") == true
        ),
    ];

    // what people and robots type where words are expected
    public static readonly string[] OddWords =
    [
        "",
        " ",
        "\u0000",
        "a\r\nBcc: x@y.example",
        new string('x', 6_000),
        new string('墙', 400),
        string.Concat(Enumerable.Repeat("👩‍👩‍👧‍👦", 80)),
        "https://pictures.example/" + new string('a', 300),
        "[first name",
        "]] [price] {{x}}",
        "<script>alert(1)</script>",
        "'; DROP TABLE Facts;--",
        "\u202egnirts",
        "NaN",
        "-1",
        "1e400",
        "12,5",
        "0.0000001",
        "99999999999999999999",
        "2027-02-30",
        "0001-01-01",
        "-9998-01-01",
        "9999-12-31",
        "a..b@x.example",
        "../../etc/passwd",
        "%00",
        "null",
        "\ud83d",
        "é",
    ];

    private static readonly long[] OddNumbers =
    [
        0,
        -1,
        1,
        int.MaxValue,
        int.MinValue,
        long.MaxValue,
        long.MinValue,
        1L << 53,
    ];

    /// <summary>A body that fits its description.</summary>
    public static JsonNode? Sensible(JsonObject schema, Random random, Func<string, long> number) =>
        Value(schema, "", random, number, () => false, 0);

    /// <summary>One that is odd here and there: null, too long, too large, of another kind, of another world.</summary>
    public static JsonNode? Odd(JsonObject schema, Random random, Func<string, long> number) =>
        Value(schema, "", random, number, () => random.Next(4) == 0, 0);

    private static JsonNode? Value(
        JsonObject schema,
        string name,
        Random random,
        Func<string, long> number,
        Func<bool> odd,
        int depth
    )
    {
        if (depth > 6)
            return null;
        if ((string?)schema["$ref"] is { } reference)
            return Value(
                Description["components"]!["schemas"]![reference.Split('/')[^1]]!.AsObject(),
                name,
                random,
                number,
                odd,
                depth
            );
        if (schema["oneOf"] is JsonArray one)
            return Value(
                Pick(one.Where(o => (string?)o!["type"] != "null").ToList(), random)!.AsObject(),
                name,
                random,
                number,
                odd,
                depth + 1
            );
        var types = schema["type"] switch
        {
            JsonArray several => several.Select(t => (string)t!).ToList(),
            JsonValue type => [(string)type!],
            _ => [],
        };
        if (odd() && random.Next(3) == 0)
            return OddThing(random);
        if (types.Contains("null") && random.Next(3) > 0)
            return null;
        if (schema["enum"] is JsonArray allowed)
            return odd() ? "Nonsense"
                : allowed.Where(a => a is not null).ToList() is { Count: > 0 } some ? (string)Pick(some, random)!
                : null;
        return types.FirstOrDefault(type => type != "null") switch
        {
            "object" => Thing(schema, name, random, number, odd, depth),
            "array" => new JsonArray([
                .. Enumerable
                    .Range(0, odd() ? Pick([0, 1, 300], random) : random.Next(3))
                    .Select(_ =>
                        odd() && random.Next(4) == 0
                            ? null
                            : Value(schema["items"]!.AsObject(), name, random, number, odd, depth + 1)
                    ),
            ]),
            "integer" => odd() ? Pick(OddNumbers, random) : number(name),
            "number" => odd() ? Pick(OddNumbers, random) : random.Next(100),
            "boolean" => random.Next(2) == 0,
            _ => odd() ? Pick(OddWords, random) : Words((string?)schema["format"], name, random),
        };
    }

    private static JsonObject Thing(
        JsonObject schema,
        string name,
        Random random,
        Func<string, long> number,
        Func<bool> odd,
        int depth
    )
    {
        var made = new JsonObject();
        foreach (var (key, value) in schema["properties"]?.AsObject() ?? [])
            if (!odd() || random.Next(3) > 0)
                made[key] = Value(value!.AsObject(), key, random, number, odd, depth + 1);
        if (schema["additionalProperties"] is JsonObject of)
            foreach (
                var key in new[] { "name", "mail", "wish", "size", "date", "consent", "wall size" }.Take(random.Next(7))
            )
                made[key] = odd() && random.Next(2) == 0 ? null : Value(of, key, random, number, odd, depth + 1);
        _ = name;
        return made;
    }

    private static JsonNode? OddThing(Random random) =>
        random.Next(7) switch
        {
            0 => null,
            1 => new JsonObject(),
            2 => new JsonArray(null, null),
            3 => Pick(OddNumbers, random),
            4 => true,
            5 => new JsonArray("x"),
            _ => Pick(OddWords, random),
        };

    private static string Words(string? format, string name, Random random) =>
        format switch
        {
            "date" => new LocalDate(2027, 1, 1).PlusDays(random.Next(0, 500)).ToString("uuuu-MM-dd", null),
            "date-time" => $"2027-0{random.Next(1, 9)}-1{random.Next(0, 9)}T10:00:00Z",
            "local-date-time" => $"2027-0{random.Next(1, 9)}-1{random.Next(0, 9)}T10:00:00",
            "time" => $"{random.Next(8, 18):00}:00:00",
            _ => name.ToLowerInvariant() switch
            {
                "mail" => $"person{random.Next(30)}@lanternhouse.example",
                "phone" => "00353 1 5550100",
                "amount" or "unitprice" => $"{random.Next(1, 3000)}.50",
                "tax" => "23",
                "onbooking" => "40",
                "quantity" => $"{random.Next(1, 9)}",
                "zone" => "Europe/Dublin",
                "subject" => $"A word about it {random.Next(1_000)}",
                "brand" => "#0f4c46",
                "password" => "not the password",
                _ => Pick(
                    [
                        "Paint the gable.",
                        "A lantern in the window",
                        "Harbour blue",
                        "yes",
                        "Ask again on Friday",
                        "Two coats",
                    ],
                    random
                ),
            },
        };

    public static T Pick<T>(IReadOnlyList<T> some, Random random) => some[random.Next(some.Count)];
}
