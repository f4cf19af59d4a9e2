using System.Reflection;
using System.Xml.Linq;
using NetArchTest.Rules;

namespace Gesamt.Web.Tests;

/// <summary>Dependencies point one way: Web → Store, Formats → Core.</summary>
public sealed partial class ArchitectureTests
{
    [Theory]
    [InlineData(
        "Gesamt.Core",
        "Gesamt.Store,Gesamt.Formats,Gesamt.Web,Microsoft.EntityFrameworkCore,Microsoft.AspNetCore,System.IO,System.Net,MimeKit,SkiaSharp"
    )]
    [InlineData("Gesamt.Formats", "Gesamt.Store,Gesamt.Web,Microsoft.EntityFrameworkCore,Microsoft.AspNetCore")]
    [InlineData("Gesamt.Store", "Gesamt.Formats,Gesamt.Web,Microsoft.AspNetCore,MimeKit,SkiaSharp")]
    public void A_part_knows_nothing_of_those_above_it(string part, string others)
    {
        var result = Types
            .InAssembly(Assembly.Load(part))
            .ShouldNot()
            .HaveDependencyOnAny(others.Split(','))
            .GetResult();
        Assert.True(result.IsSuccessful, string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact] // an unused reference shows in no assembly, so the project file is read
    public void Core_depends_on_NodaTime_alone()
    {
        var project = XDocument.Load(Path.Combine(Studio.Root, "src", "Gesamt.Core", "Gesamt.Core.csproj"));
        Assert.Equal(
            ["NodaTime"],
            project.Descendants("PackageReference").Select(reference => reference.Attribute("Include")!.Value)
        );
        Assert.Empty(project.Descendants("ProjectReference"));
    }

    [Fact]
    public void The_rules_read_no_clock()
    {
        var files = Directory
            .GetFiles(Path.Combine(Studio.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Contains("/obj/", StringComparison.Ordinal));
        string[] clocks =
        [
            "DateTime.Now",
            "DateTime.UtcNow",
            "DateTimeOffset.UtcNow",
            "DateTimeOffset.Now",
            "SystemClock.Instance",
            "Stopwatch",
        ];
        Assert.Empty(files.Where(file => clocks.Any(File.ReadAllText(file).Contains)).Select(Path.GetFileName));
    }

    [Fact] // rehearsals count nowhere: who means them too is named here
    public void Only_those_that_mean_rehearsals_too_read_all_projects()
    {
        var readers = Directory
            .GetFiles(Path.Combine(Studio.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Contains("/obj/", StringComparison.Ordinal))
            .Where(file => File.ReadAllText(file).Contains(".AllProjects", StringComparison.Ordinal))
            .Select(file => Path.GetFileName(file));
        Assert.Equal(
            [
                "ArchiveContents.cs",
                "ArchiveTables.cs",
                "Delivery.cs",
                "Inquiries.cs",
                "ProjectFile.cs",
                "Rehearsals.cs",
                "StepLetters.cs",
            ],
            readers.Order(StringComparer.Ordinal)
        );
    }

    [Fact] // a page that was renamed leaves a hole in the guides
    public void Every_file_that_the_readme_and_the_guides_link_is_there()
    {
        var pages = Directory
            .GetFiles(Path.Combine(Studio.Root, "docs"), "*.md", SearchOption.AllDirectories)
            .Append(Path.Combine(Studio.Root, "README.md"))
            .Append(Path.Combine(Studio.Root, "CONTRIBUTING.md"))
            .ToList();
        var links = pages
            .SelectMany(page =>
                LinkRegex()
                    .Matches(File.ReadAllText(page))
                    .Select(link => Path.GetFullPath(Path.Combine(Path.GetDirectoryName(page)!, link.Groups[1].Value)))
            )
            .ToList();
        Assert.True(links.Count > 30, $"{links.Count} links");
        Assert.All(links, link => Assert.True(File.Exists(link) || Directory.Exists(link), link));
    }

    [System.Text.RegularExpressions.GeneratedRegex(@"\]\((?!https?:|#)([^)#]+)")]
    private static partial System.Text.RegularExpressions.Regex LinkRegex();
}
