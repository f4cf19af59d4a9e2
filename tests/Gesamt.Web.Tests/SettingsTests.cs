using Gesamt.Web.Hosting;
using Microsoft.Extensions.Configuration;

namespace Gesamt.Web.Tests;

/// <summary>A setting that cannot be is told before anything is opened, by its name and with what can be said.</summary>
public sealed class SettingsTests
{
    private static Settings Of(params (string Name, string Value)[] settings) =>
        SettingsReader.Read(
            new ConfigurationBuilder()
                .AddInMemoryCollection(
                    settings.Select(one => KeyValuePair.Create($"Gesamt:{one.Name}", (string?)one.Value))
                )
                .Build()
        );

    [Theory]
    [InlineData("Address", "studio.example", "https://studio.example")]
    [InlineData("Address", "ftp://studio.example", "https://studio.example")]
    [InlineData("Address", "https://studio.example/?from=letters", "https://studio.example")]
    [InlineData("Proxies", "10.0.0.0/8, the proxy", "“the proxy”")]
    [InlineData("Clock", "tomorrow", "2027-01-25T10:30:00Z")]
    [InlineData("InquiriesPerMinute", "0", "less than 1")]
    [InlineData("UploadMegabytes", "-5", "less than 1")]
    [InlineData("InquiriesPerMinute", "many", "“many” is no whole number")]
    [InlineData("Flushes", "often", "neither true nor false")]
    [InlineData("Mode", "Holiday", "none of Real, Demo, Test")]
    [InlineData("Smtp:Port", "post", "“post” is no whole number")]
    public void What_cannot_be_is_told_by_its_name(string name, string value, string told)
    {
        var refused = Assert.Throws<SettingException>(() => Of((name, value)));
        Assert.StartsWith($"Gesamt__{name.Replace(":", "__", StringComparison.Ordinal)}: ", refused.Message);
        Assert.Contains(told, refused.Message);
    }

    [Fact]
    public void What_can_be_is_taken()
    {
        var settings = Of(
            ("Address", "https://studio.example"),
            ("Proxies", "::1, 10.0.0.0/8"),
            ("Clock", "2027-01-25T10:30:00Z"),
            ("InquiriesPerMinute", "1")
        );
        Assert.True(settings.IsSecure);
        Assert.Equal((1, 1), (settings.Believed().Addresses.Count, settings.Believed().Networks.Count));
        Assert.Equal(NodaTime.Instant.FromUtc(2027, 1, 25, 10, 30), settings.ClockAt);
        Assert.Equal(RunMode.Real, settings.Mode);
    }

    [Fact]
    public void Nothing_set_is_the_usual() => Assert.Equal("data", Of().Data);
}
