using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

/// <summary>Where a dropped file belongs, from where the project stands.</summary>
public sealed class FilePlaceTests
{
    private static readonly KindRules Kind = KindRules.Default with
    {
        Win = WinRule.Signature,
        Phases = ["survey", "sketch", "paint"],
    };

    private static readonly (string, Happening)[] Booked =
    [
        ("2027-01-04 09:00", new Happening.ContractSigned(new(1), Signer.Client)),
        ("2027-01-04 10:00", new Happening.ContractSigned(new(1), Signer.Owner)),
    ];

    private static FilePlace Of(string name, params (string, Happening)[] facts) =>
        FilePlace.Of(Case(Kind, [], facts), name);

    [Fact]
    public void Before_it_is_booked_a_file_was_supplied() =>
        Assert.Equal(
            new(FileGroup.Supplied, null),
            Of("sketch-1.png", ("2027-01-04 09:00", new Happening.InquiryCame(null)))
        );

    [Theory]
    [InlineData("sketch-1.png", "sketch"), InlineData("Sketch 2.pdf", "sketch"), InlineData("IMG_2041.jpg", "survey")]
    public void A_draft_is_of_the_phase_its_name_says_else_of_the_one_in_work(string name, string phase) =>
        Assert.Equal(new(FileGroup.Drafts, phase), Of(name, Booked));

    [Fact]
    public void After_a_round_came_back_a_draft_is_of_its_phase() =>
        Assert.Equal(
            new(FileGroup.Drafts, "paint"),
            Of(
                "IMG_2042.jpg",
                [
                    .. Booked,
                    ("2027-01-05 09:00", new Happening.ReviewOpened(new(1), "paint")),
                    ("2027-01-06 09:00", new Happening.ChangesAsked(new(1), new(1))),
                ]
            )
        );

    [Theory]
    [InlineData("wall-final.png"), InlineData("FINAL.pdf")]
    public void What_calls_itself_final_is_final(string name) =>
        Assert.Equal(new(FileGroup.Final, null), Of(name, Booked));

    [Fact]
    public void Once_all_phases_are_done_a_file_is_final() =>
        Assert.Equal(
            new(FileGroup.Final, null),
            Of(
                "IMG_2043.jpg",
                [
                    .. Booked,
                    .. Kind.Phases.Select(phase =>
                        ("2027-02-05 09:00", (Happening)new Happening.PhaseSet(phase.Name, PhaseState.Done))
                    ),
                ]
            )
        );
}
