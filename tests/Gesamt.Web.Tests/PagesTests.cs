using System.Text.RegularExpressions;

namespace Gesamt.Web.Tests;

/// <summary>The pages are made of the kit, and call the server by the addresses it describes.</summary>
public sealed partial class PagesTests
{
    private const int MostLines = 250;

    private static readonly string Pages = Path.Combine(Studio.Root, "web", "src");

    private static IEnumerable<(string Name, string Text)> Sources(Func<string, bool> which) =>
        from file in Directory.EnumerateFiles(Pages, "*.ts*", SearchOption.AllDirectories)
        let name = Path.GetRelativePath(Pages, file)
        where name != Path.Combine("api", "schema.d.ts") && which(name)
        select (name, File.ReadAllText(file));

    private static bool IsScreen(string name) =>
        name.StartsWith("studio", StringComparison.Ordinal) || name.StartsWith("client", StringComparison.Ordinal);

    [Fact]
    public void No_screen_makes_a_control_of_its_own() =>
        Assert.Empty(
            from source in Sources(IsScreen)
            from Match match in Raw().Matches(source.Text)
            select $"{source.Name}: {match.Value}"
        );

    [Fact]
    public void No_screen_says_how_a_control_looks() =>
        Assert.Empty(
            from source in Sources(IsScreen)
            from Match match in Look().Matches(source.Text)
            select $"{source.Name}: {match.Value}"
        );

    [Fact]
    public void Nothing_but_the_client_of_the_server_fetches() =>
        Assert.Equal(
            [Path.Combine("api", "client.ts")],
            Sources(_ => true)
                .Where(source => source.Text.Contains("fetch(", StringComparison.Ordinal))
                .Select(source => source.Name)
        );

    [Fact]
    public void No_file_is_longer_than_can_be_looked_over() =>
        Assert.Empty(
            from source in Sources(_ => true)
            let lines = source.Text.Split('\n').Length
            where lines > MostLines
            select $"{source.Name}: {lines} lines"
        );

    [Fact] // an act that is refused must say so: in its place, or at the lower edge of the screen
    public void Whoever_runs_an_act_shows_what_was_refused() =>
        Assert.Empty(
            from source in Sources(name => IsScreen(name) && name.EndsWith(".tsx", StringComparison.Ordinal))
            let runs = Count(source.Text, "useAct()")
            let shows = Count(source.Text, "<Refused ") + Count(source.Text, "<Alert>")
            where runs > shows
            select $"{source.Name}: {runs} run, {shows} shown"
        );

    [Fact] // what names none is not drawn, and nothing says so
    public void Every_colour_that_is_named_is_in_the_theme()
    {
        var theme = File.ReadAllText(Path.Combine(Pages, "ui", "theme.css"));
        var known = Defined().Matches(theme).Select(match => match.Groups[1].Value).ToHashSet();
        Assert.Contains("--plaster", known);
        Assert.Empty(
            from source in Sources(_ => true).Append((Name: "theme.css", Text: theme))
            from Match match in Named().Matches(source.Text)
            let name = match.Groups[1].Value
            where !known.Contains(name) && !source.Text.Contains($"\"{name}\"", StringComparison.Ordinal)
            select $"{source.Name}: {name}"
        );
    }

    private static int Count(string text, string what) => text.Split(what).Length - 1;

    [GeneratedRegex(@"<(button|input|select|textarea|details|summary|dialog)\b|type=""(date|time|datetime-local)""")]
    private static partial Regex Raw();

    [GeneratedRegex(@"className=[^>]*[""'` ](btn|btn-\w+|link|field|tick|choice|kbd)[""'` ]")]
    private static partial Regex Look();

    [GeneratedRegex(@"(?:^|[\s{;])(--[\w-]+)\s*:", RegexOptions.Multiline)]
    private static partial Regex Defined();

    [GeneratedRegex(@"(?:var\(|-\()(--[\w-]+)")]
    private static partial Regex Named();
}
