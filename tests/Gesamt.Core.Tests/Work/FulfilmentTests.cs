using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

public class FulfilmentTests
{
    private static Case With(Fulfilment? by, string? phase = null) =>
        Case(KindRules.Default, [], [])
            .With(
                new OpenTask(new TaskId(1), "Anything", null, DoneBy: by, Phase: phase),
                new OpenTask(new TaskId(2), "Only by hand", null)
            );

    public static TheoryData<Fulfilment, Happening> Pairs =>
        new()
        {
            { Fulfilment.ProposalSent, Sent() },
            { Fulfilment.ContractSent, ContractSent },
            { Fulfilment.ContractSigned, Signed(Signer.Client) },
            { Fulfilment.PaymentReceived, Paid(100) },
            { Fulfilment.MeetingHeld, new Happening.MeetingHeld(new MeetingId(1)) },
            { Fulfilment.MeetingHeld, new Happening.CallHeld(new NoteId(1)) },
            { Fulfilment.FormReturned, new Happening.FormReturned(1, new AnswersId(1)) },
            { Fulfilment.DraftPutUp, new Happening.ReviewOpened(new ReviewId(1), "sketch") },
            { Fulfilment.DraftApproved, new Happening.ReviewApproved(new ReviewId(1), "sketch") },
            { Fulfilment.HandedOver, new Happening.HandedOver() },
            { Fulfilment.Approved, new Happening.Approved() },
        };

    [Fact]
    public void Every_fulfilment_has_what_fulfils_it() =>
        Assert.Equal(Enum.GetValues<Fulfilment>(), Pairs.Select(pair => pair.Data.Item1).Distinct().Order());

    [Theory]
    [MemberData(nameof(Pairs), DisableDiscoveryEnumeration = true)]
    public void A_task_is_fulfilled_by_its_own_fact_alone(Fulfilment by, Happening what)
    {
        Assert.Equal([new TaskId(1)], FulfilmentRule.Of(With(by), [Fit, what]));
        foreach (var (other, _) in Pairs.Select(pair => pair.Data).Where(pair => pair.Item1 != by))
            Assert.Empty(FulfilmentRule.Of(With(other), [what]));
        Assert.Empty(FulfilmentRule.Of(With(null), [what]));
    }

    [Fact]
    public void A_draft_fulfils_a_task_of_its_phase_and_the_studios_signature_none()
    {
        var draft = new Happening.ReviewOpened(new ReviewId(1), "sketch");
        Assert.Single(FulfilmentRule.Of(With(Fulfilment.DraftPutUp, "sketch"), [draft]));
        Assert.Empty(FulfilmentRule.Of(With(Fulfilment.DraftPutUp, "paint"), [draft]));
        Assert.Empty(FulfilmentRule.Of(With(Fulfilment.ContractSigned), [Signed(Signer.Owner)]));
    }
}
