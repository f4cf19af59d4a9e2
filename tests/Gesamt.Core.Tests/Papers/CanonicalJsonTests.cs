using System.Diagnostics;
using System.Text;
using System.Text.Json.Nodes;
using Gesamt.Core.Papers;

namespace Gesamt.Core.Tests.Papers;

public class CanonicalJsonTests
{
    private static string Text(string json) => Encoding.UTF8.GetString(CanonicalJson.Of(JsonNode.Parse(json)));

    [Fact] // RFC 8785, 3.2.3: the sample of sorted property names
    public void Names_are_sorted_by_their_utf16_units() =>
        Assert.Equal(
            "{\"\\r\":1,\"1\":2,\"\u0080\":3,\"ö\":4,\"€\":5,\"😀\":6,\"\ufb33\":7}",
            Text("""{"\u20ac":5,"\r":1,"\ufb33":7,"1":2,"\ud83d\ude00":6,"\u0080":3,"\u00f6":4}""")
        );

    [Fact] // RFC 8785, 3.2.2.2: the sample string
    public void Only_what_must_be_is_escaped() =>
        Assert.Equal(
            "\"€$\\u000f\\nA'B\\\"\\\\\\\\\\\"/\"",
            Text("\"\\u20ac$\\u000F\\u000aA'\\u0042\\u0022\\u005c\\\\\\\"\\/\"")
        );

    [Fact]
    public void Spaces_and_order_do_not_change_the_hash() =>
        Assert.Equal(
            CanonicalJson.Hash(CanonicalJson.Of(JsonNode.Parse("""{"a":[1,null,true],"b":"x"}"""))),
            CanonicalJson.Hash(CanonicalJson.Of(JsonNode.Parse("""{ "b" : "x", "a" : [ 1, null, true ] }""")))
        );

    [Theory]
    [InlineData("1.5"), InlineData("9007199254740993")]
    public void A_number_that_is_not_exact_is_refused(string number) =>
        Assert.Throws<FormatException>(() => Text(number));

    [Fact] // coreutils' sha256sum as the independent reader
    public void The_hash_is_what_sha256sum_prints() =>
        Gen.String.Sample(
            text =>
            {
                var bytes = CanonicalJson.Of(JsonValue.Create(text));
                using var sum = Process.Start(
                    new ProcessStartInfo("sha256sum") { RedirectStandardInput = true, RedirectStandardOutput = true }
                )!;
                sum.StandardInput.BaseStream.Write(bytes);
                sum.StandardInput.Close();
                Assert.StartsWith(CanonicalJson.Hash(bytes), sum.StandardOutput.ReadToEnd());
            },
            iter: 10,
            threads: 1
        );

    private static readonly Gen<JsonNode?> Leaf = Gen.OneOf<JsonNode?>(
        Gen.String.Where(text => !text.Any(char.IsSurrogate)).Select(text => (JsonNode?)JsonValue.Create(text)),
        Gen.String[Gen.Char["äßΩЖ墙€\"\\/\b\u001f\u2028 "], 0, 8].Select(text => (JsonNode?)JsonValue.Create(text)),
        Gen.Int.Select(number => (JsonNode?)JsonValue.Create(number)),
        Gen.Long[-9_007_199_254_740_991, 9_007_199_254_740_991].Select(number => (JsonNode?)JsonValue.Create(number)),
        Gen.Bool.Select(yes => (JsonNode?)JsonValue.Create(yes)),
        Gen.Const((JsonNode?)null)
    );

    private static Gen<JsonNode?> Tree(int depth) =>
        depth == 0
            ? Leaf
            : Gen.OneOf(
                Leaf,
                Tree(depth - 1)
                    .Array[0, 4]
                    .Select(items => (JsonNode?)new JsonArray([.. items.Select(item => item?.DeepClone())])),
                Gen.Select(Gen.String[Gen.Char["abzÄé墙€_1 "], 0, 5], Tree(depth - 1))
                    .Array[0, 5]
                    .Select(pairs =>
                        (JsonNode?)
                            new JsonObject(
                                pairs
                                    .DistinctBy(pair => pair.Item1)
                                    .Select(pair => KeyValuePair.Create(pair.Item1, pair.Item2?.DeepClone()))
                            )
                    )
            );

    /// <summary>The npm package “canonicalize” (Erdtman and Rundgren, who wrote RFC 8785), given one text a line.</summary>
    private const string Reference = """
        import canonicalize from "canonicalize";
        import { createHash } from "node:crypto";
        import { createInterface } from "node:readline";
        for await (const line of createInterface({ input: process.stdin }))
          console.log(createHash("sha256").update(canonicalize(JSON.parse(line)), "utf8").digest("hex"));
        """;

    [Fact]
    public async Task The_hash_is_that_of_an_independent_implementation()
    {
        List<JsonNode?> all = [];
        Tree(3).Sample(all.Add, iter: 300, threads: 1);
        var start = new ProcessStartInfo("node")
        {
            WorkingDirectory = Path.Combine(Root(), "web"),
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
        };
        foreach (var argument in new[] { "--input-type=module", "-e", Reference })
            start.ArgumentList.Add(argument);
        using var node = Process.Start(start)!;
        var said = node.StandardOutput.ReadToEndAsync();
        foreach (var one in all)
            node.StandardInput.WriteLine(one?.ToJsonString() ?? "null");
        node.StandardInput.Close();
        Assert.Equal(
            all.Select(one => CanonicalJson.Hash(CanonicalJson.Of(one))),
            (await said).Split('\n', StringSplitOptions.RemoveEmptyEntries)
        );
    }

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!Directory.Exists(Path.Combine(folder.FullName, "web", "src")))
            folder = folder.Parent!;
        return folder.FullName;
    }
}
