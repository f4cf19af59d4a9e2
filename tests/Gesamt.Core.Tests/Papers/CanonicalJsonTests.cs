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
}
