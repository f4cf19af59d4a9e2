using System.Text.RegularExpressions;
using Mono.Cecil;

namespace Gesamt.Web.Tests;

/// <summary>The folders of a part stand on floors: each knows only those below it. The lists are the map, bottom first; what they mean is told in docs/house.md.</summary>
public sealed partial class FloorTests(ITestOutputHelper output)
{
    private static readonly string[] Core =
    [
        "Ids",
        "Texts",
        "Papers",
        "Amounts",
        "Calendar",
        "People",
        "Letters",
        "Capture",
        "Facts",
        "Erasing",
        "Contracts",
        "Forms",
        "Briefs",
        "Meetings",
        "ClientPages",
        "Projects",
        "Invoicing",
        "Banking",
        "Books",
        "Proposals",
        "Stages",
        "Work",
        "Planning",
        "Waiting",
        "Reports",
        "Routines",
        "Turns",
    ];

    private static readonly string[] Web =
    [
        "Hosting",
        "FirstSteps",
        "Words",
        "Access",
        "Files",
        "Hooks",
        "Papers",
        "Letters",
        "Accounts",
        "Invoicing",
        "Banking",
        "Contracts",
        "Prices",
        "Proposals",
        "Briefs",
        "Checklists",
        "Reviews",
        "Meetings",
        "People",
        "Inquiries",
        "Work",
        "Spent",
        "Testimonials",
        "RunSheets",
        "Lists",
        "Recurring",
        "WhatHappened",
        "Routines",
        "Templates",
        "Projects",
        "Outside",
        "Search",
        "Studios",
        "SignIn",
        "Upkeep",
        "Archives",
        "Erasing",
        "SettingUp",
        "Registers",
        "Books",
        "Reports",
        "Planning",
        "Turns",
        "Capture",
        "Rehearsals",
        "ClientPages",
        "Ticking",
        "StandIns",
        "Demo",
        "Program",
    ];

    public static TheoryData<string> Parts => ["Gesamt.Core", "Gesamt.Web"];

    [Theory]
    [MemberData(nameof(Parts))]
    public void A_folder_knows_only_those_on_floors_below(string part)
    {
        var (floors, arrows) = (FloorsOf(part), ArrowsOf(part));
        foreach (var floor in floors)
            output.WriteLine(
                $"{floor}: {string.Join(", ", arrows.Where(arrow => arrow.From == floor).Select(arrow => arrow.To).Distinct().OrderBy(to => Array.IndexOf(floors, to)))}"
            );
        Assert.Empty(
            arrows
                .Where(arrow => Array.IndexOf(floors, arrow.To) >= Array.IndexOf(floors, arrow.From))
                .Select(arrow =>
                    $"{arrow.From} knows {arrow.To}, which is not below it: {arrow.Type} names {arrow.Named}"
                )
        );
        Assert.True(arrows.Count > floors.Length, $"{arrows.Count} arrows");
    }

    [Theory]
    [MemberData(nameof(Parts))]
    public void Every_folder_has_its_floor_and_every_floor_its_paragraph(string part)
    {
        var folders = Directory
            .GetDirectories(Path.Combine(Studio.Root, "src", part))
            .Select(folder => Path.GetFileName(folder)!)
            .Except(["bin", "obj", "wwwroot", "Properties"]);
        Assert.Equal(
            folders.Order(StringComparer.Ordinal),
            FloorsOf(part).Except(["Ids", "Program"]).Order(StringComparer.Ordinal)
        );
        var told = ParagraphRegex().Matches(Chapter(part)).Select(match => match.Groups[1].Value);
        Assert.Equal(FloorsOf(part), told);
    }

    /// <summary>The part of docs/house.md under the heading of that name.</summary>
    private static string Chapter(string part) =>
        File.ReadAllText(Path.Combine(Studio.Root, "docs", "house.md"))
            .Split("\n## ")
            .Single(chapter => chapter.StartsWith($"{part},", StringComparison.Ordinal));

    [GeneratedRegex(@"^- \*\*(\w+)\*\*", RegexOptions.Multiline)]
    private static partial Regex ParagraphRegex();

    private static string[] FloorsOf(string part) => part == "Gesamt.Core" ? Core : Web;

    private sealed record Arrow(string From, string To, string Type, string Named);

    /// <summary>Which folder's types name which others', as compiled: bases, members, bodies, arguments and attributes. A constant that the compiler has put in its place is not seen.</summary>
    private static HashSet<Arrow> ArrowsOf(string part)
    {
        using var assembly = AssemblyDefinition.ReadAssembly(Path.Combine(AppContext.BaseDirectory, $"{part}.dll"));
        var arrows = new HashSet<Arrow>();
        foreach (var type in assembly.MainModule.Types)
        foreach (var named in NamesIn(type).Select(Outermost))
            if (
                FolderOf(type, part) is { } from
                && named.Scope == assembly.MainModule
                && FolderOf(named, part) is { } to
                && from != to
            )
                arrows.Add(new(from, to, type.Name, named.Name));
        return arrows;
    }

    /// <summary>Core's root holds its ids, Web's the program that puts all together.</summary>
    private static string? FolderOf(TypeReference type, string part) =>
        type.Namespace == "Gesamt.Core" ? "Ids"
        : type.Namespace == "Gesamt.Web" || type.Name == "Program" ? "Program"
        : type.Namespace.StartsWith($"{part}.", StringComparison.Ordinal)
            ? type.Namespace[(part.Length + 1)..].Split('.')[0]
        : null;

    private static TypeReference Outermost(TypeReference type) =>
        type.DeclaringType is { } outer ? Outermost(outer) : type;

    private static IEnumerable<TypeReference> NamesIn(TypeDefinition type) =>
        new[] { type.BaseType }
            .OfType<TypeReference>()
            .Concat(type.Interfaces.Select(one => one.InterfaceType))
            .Concat(type.CustomAttributes.Select(attribute => attribute.AttributeType))
            .Concat(type.Fields.Select(field => field.FieldType))
            .Concat(type.Methods.SelectMany(NamesIn))
            .SelectMany(Bare)
            .Concat(type.NestedTypes.SelectMany(NamesIn));

    private static IEnumerable<TypeReference> NamesIn(MethodDefinition method)
    {
        IEnumerable<TypeReference> names = method
            .Parameters.Select(parameter => parameter.ParameterType)
            .Append(method.ReturnType);
        return method.HasBody
            ? names
                .Concat(method.Body.Variables.Select(variable => variable.VariableType))
                .Concat(method.Body.Instructions.SelectMany(instruction => NamesIn(instruction.Operand)))
            : names;
    }

    private static IEnumerable<TypeReference> NamesIn(object? operand) =>
        operand switch
        {
            GenericInstanceMethod method => [method.DeclaringType, .. method.GenericArguments],
            MethodReference method => [method.DeclaringType],
            FieldReference field => [field.DeclaringType, field.FieldType],
            TypeReference type => [type],
            _ => [],
        };

    /// <summary>A type without its arrays, references and arguments, and the arguments beside it.</summary>
    private static IEnumerable<TypeReference> Bare(TypeReference type) =>
        type switch
        {
            GenericInstanceType generic => generic.GenericArguments.SelectMany(Bare).Append(generic.ElementType),
            TypeSpecification specification => Bare(specification.ElementType),
            GenericParameter => [],
            _ => [type],
        };
}
