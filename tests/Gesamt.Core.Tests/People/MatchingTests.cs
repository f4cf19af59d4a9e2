using Gesamt.Core.People;

namespace Gesamt.Core.Tests.People;

public sealed class MatchingTests
{
    private static Known Somebody(
        long id,
        string name,
        string? organisation = null,
        string? mail = null,
        string? phone = null
    ) => new(new(id), name, organisation, mail, phone);

    [Fact]
    public void A_shared_address_phone_or_name_is_offered_with_its_reasons_strongest_first()
    {
        var matches = Matching.Of(
            Somebody(1, "Mona Delarue", "Lantern House", "plan@planner.example", "+353 87 555 0142"),
            [
                Somebody(2, "Delarue, Mona"),
                Somebody(3, "Tilda Crane", "Lantern House"),
                Somebody(4, "Ann Other", null, "PLAN@planner.example "),
                Somebody(5, "Ann Third", null, null, "087 5550142"),
                Somebody(1, "Mona Delarue", null, "plan@planner.example"),
            ]
        );
        Assert.Equal([4, 5, 2], matches.Select(match => match.Id.Value));
        Assert.Equal([MatchReason.Mail], matches[0].Reasons);
    }

    [Fact]
    public void An_organisation_counts_only_beside_another_reason()
    {
        Assert.Empty(Matching.Of(Somebody(1, "A B", "Tidewater Library"), [Somebody(2, "C D", "Tidewater Library")]));
        Assert.Equal(
            [MatchReason.Name, MatchReason.Organisation],
            Matching.Of(Somebody(1, "A B", "Tidewater Library"), [Somebody(2, "B. A.", "tidewater library")])[0].Reasons
        );
    }

    [Theory]
    [InlineData("Zoë O’Brien-Núñez", "nunez obrien zoe", false)]
    [InlineData("Zoë Núñez", "NUNEZ zoe", true)]
    [InlineData("Ada Quill", "Ada Quilla", false)]
    public void Names_are_the_same_without_accents_case_and_order(string a, string b, bool same) =>
        Assert.Equal(same, Matching.Plain(a) == Matching.Plain(b));

    [Fact]
    public void A_misspelt_name_is_more_alike_than_another()
    {
        Assert.Equal(1, Similarity.Of("Pettigrew", "pettigrew"));
        Assert.True(Similarity.OfAnyWord("petigrew", "Oona Pettigrew") > 0.6);
        Assert.True(Similarity.OfAnyWord("kestral", "Kestrel climbing hall") > 0.45);
        Assert.True(Similarity.OfAnyWord("kestral", "Causeway hostel") < 0.3);
        Assert.Equal(0, Similarity.Of("", "Ada"));
    }

    [Fact]
    public void Likeness_is_the_same_either_way_and_never_above_one() =>
        Gen.Select(Gen.String[Gen.Char["abcdeé "], 0, 12], Gen.String[Gen.Char["abcdeé "], 0, 12])
            .Sample(
                (a, b) =>
                {
                    Assert.Equal(Similarity.Of(a, b), Similarity.Of(b, a));
                    Assert.InRange(Similarity.Of(a, b), 0, 1);
                }
            );

    [Theory]
    [InlineData(true, null, PageAct.Answer, true)]
    [InlineData(false, PersonPart.Decides, PageAct.Answer, true)]
    [InlineData(false, PersonPart.GetsMail, PageAct.Answer, true)]
    [InlineData(false, PersonPart.Pays, PageAct.Pay, true)]
    [InlineData(false, PersonPart.Pays, PageAct.Answer, false)]
    [InlineData(false, PersonPart.ReadsAlong, PageAct.Look, true)]
    [InlineData(false, PersonPart.ReadsAlong, PageAct.Pay, false)]
    [InlineData(false, PersonPart.Supplies, PageAct.Look, false)]
    [InlineData(false, null, PageAct.Look, false)]
    public void What_somebody_may_do_follows_their_part(bool isClient, PersonPart? part, PageAct act, bool may) =>
        Assert.Equal(may, PartRule.May(isClient, part is { } one ? [one] : [], act));
}
