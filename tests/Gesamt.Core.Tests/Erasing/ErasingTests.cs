using Gesamt.Core.Erasing;

namespace Gesamt.Core.Tests.Erasing;

/// <summary>How long papers are kept, and facts that name nobody.</summary>
public sealed class ErasingTests
{
    [Theory]
    // § 147 (4) of the Abgabenordnung counts from the end of the calendar year (from memory)
    [InlineData("2024-01-01", 10, "2034-12-31")]
    [InlineData("2024-12-31", 10, "2034-12-31")]
    [InlineData("2024-06-18", 0, "2024-12-31")]
    public void A_paper_is_kept_until_the_end_of_a_year(string of, int years, string until)
    {
        var day = NodaTime.Text.LocalDatePattern.Iso.Parse(of).Value;
        var last = NodaTime.Text.LocalDatePattern.Iso.Parse(until).Value;
        Assert.Equal(last, new Keeping(years, 1).BooksUntil(day));
        Assert.Equal(last, new Keeping(1, years).AgreementsUntil(day));
    }

    private readonly Nameless without = new(
        new HashSet<string> { "opening day", "sketch" },
        new Dictionary<string, string> { ["before"] = "after" }
    );

    [Fact]
    public void Words_of_the_trade_stay_and_what_was_called_something_for_one_project_is_numbered_throughout()
    {
        var day = new LocalDate(2027, 5, 14);
        Assert.Equal(
            new Happening.DateSet("opening day", day, null),
            without.Of(new Happening.DateSet("opening day", day, null))
        );
        var named = without.Of(new Happening.DateSet("Mona’s birthday", day, null));
        Assert.Equal(new Happening.DateSet("date 1", day, null), named);
        Assert.Equal("date 1", without.Date("Mona’s birthday"));
        Assert.Equal("date 2", without.Date("Mona’s wedding"));
        Assert.Equal("sketch", without.Phase("sketch"));
        Assert.Equal("phase 1", without.Phase("Mona’s sketch"));
        var arranged = Assert.IsType<Happening.PhasesArranged>(
            without.Of(
                new Happening.PhasesArranged(
                    ["sketch", "Mona’s sketch"],
                    [new("Another", "Mona’s sketch"), new("sketch", null)]
                )
            )
        );
        Assert.Equal(["sketch", "phase 1"], arranged.Before);
        Assert.Equal([new("phase 2", "phase 1"), new("sketch", null)], arranged.Phases);
    }

    [Fact]
    public void Lists_boards_and_access_are_called_nothing_and_a_brief_is_known_by_what_is_left_of_it()
    {
        Assert.Equal(
            new Happening.ListBegun(new(1), ListSort.Rows, Nameless.Erased),
            without.Of(new Happening.ListBegun(new(1), ListSort.Rows, "Mona’s guests"))
        );
        Assert.Equal(
            new Happening.AccessReturned(Nameless.Erased),
            without.Of(new Happening.AccessReturned("Mona’s key"))
        );
        Assert.Equal(new Happening.BriefPut("after"), without.Of(new Happening.BriefPut("before")));
        Assert.Equal(new Happening.BriefApproved("other"), without.Of(new Happening.BriefApproved("other")));
    }

    /// <summary>No text of a fact that its client or owner gave a name outlives the erasing, whichever kind it is.</summary>
    [Fact]
    public void No_fact_keeps_a_name()
    {
        const string name = "Mona Delarue";
        foreach (var kind in typeof(Happening).GetNestedTypes().Where(type => type.IsSubclassOf(typeof(Happening))))
        foreach (var property in kind.GetProperties().Where(p => p.PropertyType == typeof(string)))
            if (!Known.Contains($"{kind.Name}.{property.Name}"))
            {
                var fact = (Happening)System.Runtime.CompilerServices.RuntimeHelpers.GetUninitializedObject(kind);
                property.SetValue(fact, name);
                Assert.DoesNotContain(
                    name,
                    property.GetValue(without.Of(fact)) as string ?? "",
                    StringComparison.Ordinal
                );
            }
    }

    // the program's own words and the studio's: kinds, keys of routines, details and steps of a kind
    private static readonly HashSet<string> Known =
    [
        "Unreadable.Kind",
        "DetailKnown.Detail",
        "BriefPut.Hash",
        "BriefApproved.Hash",
        "MilestoneReached.Name",
        "VariantChosen.Routine",
        "VariantChosen.Variant",
    ];
}
