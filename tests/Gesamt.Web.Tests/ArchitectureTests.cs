using System.Reflection;
using System.Xml.Linq;
using NetArchTest.Rules;

namespace Gesamt.Web.Tests;

/// <summary>Dependencies point one way: Web → Store, Formats → Core.</summary>
public sealed class ArchitectureTests
{
    [Theory]
    [InlineData("Gesamt.Core", "Gesamt.Store,Gesamt.Formats,Gesamt.Web,Microsoft.EntityFrameworkCore,Microsoft.AspNetCore,System.IO,System.Net,MimeKit,SkiaSharp")]
    [InlineData("Gesamt.Formats", "Gesamt.Store,Gesamt.Web,Microsoft.EntityFrameworkCore,Microsoft.AspNetCore")]
    [InlineData("Gesamt.Store", "Gesamt.Formats,Gesamt.Web,Microsoft.AspNetCore,MimeKit,SkiaSharp")]
    public void A_part_knows_nothing_of_those_above_it(string part, string others)
    {
        var result = Types.InAssembly(Assembly.Load(part)).ShouldNot().HaveDependencyOnAny(others.Split(',')).GetResult();
        Assert.True(result.IsSuccessful, string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact] // an unused reference shows in no assembly, so the project file is read
    public void Core_depends_on_NodaTime_alone()
    {
        var project = XDocument.Load(Path.Combine(Studio.Root, "src", "Gesamt.Core", "Gesamt.Core.csproj"));
        Assert.Equal(["NodaTime"], project.Descendants("PackageReference").Select(reference => reference.Attribute("Include")!.Value));
        Assert.Empty(project.Descendants("ProjectReference"));
    }

    [Fact]
    public void The_rules_read_no_clock()
    {
        var files = Directory.GetFiles(Path.Combine(Studio.Root, "src"), "*.cs", SearchOption.AllDirectories).Where(file => !file.Contains("/obj/", StringComparison.Ordinal));
        string[] clocks = ["DateTime.Now", "DateTime.UtcNow", "DateTimeOffset.UtcNow", "DateTimeOffset.Now", "SystemClock.Instance", "Stopwatch"];
        Assert.Empty(files.Where(file => clocks.Any(File.ReadAllText(file).Contains)).Select(Path.GetFileName));
    }
}
