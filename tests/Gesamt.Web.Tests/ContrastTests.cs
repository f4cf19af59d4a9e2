using System.Globalization;
using System.Text.RegularExpressions;

namespace Gesamt.Web.Tests;

/// <summary>How well text stands out from what it stands on, by the formula of WCAG 2.2 (relative luminance, contrast ratio).</summary>
public sealed partial class ContrastTests
{
    // 1.4.6 (AAA) and 1.4.3 (AA)
    private const double Enhanced = 7,
        Least = 4.5;

    private static readonly string[] Grounds = ["plaster", "sheet", "yours-wash", "theirs-wash"];

    /// <summary>The colours of a palette of the theme: the light one, the dark one, and that of clients’ pages, each upon the light one.</summary>
    private static Dictionary<string, string>[] Palettes()
    {
        var css = File.ReadAllText(Path.Combine(Studio.Root, "web", "src", "ui", "theme.css"));
        var named = Colour()
            .Matches(css)
            .Select(match => (Name: match.Groups[1].Value, Value: match.Groups[2].Value))
            .ToList();
        // each palette begins with its ground
        var starts = named.Select((one, at) => (one, at)).Where(pair => pair.one.Name == "plaster").Select(p => p.at);
        var palettes = starts
            .Append(named.Count)
            .Zip(starts.Skip(1).Append(named.Count), (from, to) => named[from..to])
            .Where(palette => palette.Count > 0)
            .Select(palette => palette.ToDictionary(one => one.Name, one => one.Value))
            .ToArray();
        return
        [
            .. palettes.Select(palette =>
                palettes[0].Where(one => !palette.ContainsKey(one.Key)).Concat(palette).ToDictionary()
            ),
        ];
    }

    [GeneratedRegex("--([a-z-]+): (#[0-9a-f]{6});")]
    private static partial Regex Colour();

    private static double Luminance(string colour)
    {
        double Part(int at)
        {
            var share = int.Parse(colour.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0;
            return share <= 0.04045 ? share / 12.92 : Math.Pow((share + 0.055) / 1.055, 2.4);
        }
        return 0.2126 * Part(1) + 0.7152 * Part(3) + 0.0722 * Part(5);
    }

    private static double Contrast(string a, string b)
    {
        var (one, other) = (Luminance(a), Luminance(b));
        return (Math.Max(one, other) + 0.05) / (Math.Min(one, other) + 0.05);
    }

    [Fact] // black on white is 21, and #777777 on white 4.48, by the same source
    public void The_formula_is_that_of_the_standard()
    {
        Assert.Equal(21, Contrast("#000000", "#ffffff"), 3);
        Assert.Equal(4.48, Contrast("#777777", "#ffffff"), 2);
    }

    [Fact]
    public void Ink_and_soft_ink_stand_out_enhanced_from_every_ground_by_day_and_by_night()
    {
        var palettes = Palettes();
        Assert.Equal(3, palettes.Length);
        foreach (var palette in palettes)
        foreach (var ink in new[] { "ink", "soft" })
        foreach (var ground in Grounds)
            Assert.True(
                Contrast(palette[ink], palette[ground]) >= Enhanced,
                $"{ink} {palette[ink]} on {ground} {palette[ground]}: {Contrast(palette[ink], palette[ground]):0.00}"
            );
    }

    [Theory]
    [InlineData("yours", "yours-wash")]
    [InlineData("theirs", "theirs-wash")]
    [InlineData("date", "plaster")]
    public void Signals_are_read_as_words_too(string signal, string wash)
    {
        var (palettes, dark) = (Palettes(), 1);
        for (var i = 0; i < palettes.Length; i++)
            foreach (var ground in new[] { "plaster", "sheet", wash })
                Assert.True(
                    Contrast(palettes[i][signal], palettes[i][ground]) >= (i == dark ? Enhanced : Least),
                    $"{signal} {palettes[i][signal]} on {ground}: {Contrast(palettes[i][signal], palettes[i][ground]):0.00}"
                );
    }
}
