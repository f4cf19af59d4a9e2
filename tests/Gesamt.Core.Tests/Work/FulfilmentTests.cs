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

    public static TheoryData<Happening, Happening> Undone =>
        new()
        {
            { new Happening.MeetingHeld(new MeetingId(1)), new Happening.MeetingAsksAgain(new MeetingId(1)) },
            { new Happening.CallHeld(new NoteId(1)), new Happening.NoteTakenBack(new NoteId(1)) },
            { Paid(100), new Happening.PaymentVoided(new PaymentId(1)) },
        };

    [Theory, MemberData(nameof(Undone), DisableDiscoveryEnumeration = true)]
    public void What_is_taken_back_takes_what_it_had_ticked_off_along(Happening what, Happening back)
    {
        Fact FactOf(int id, string at, Actor by, Happening happening) =>
            new(new FactId(id), new ProjectId(1), At(at), At(at), by, happening);
        var history = new History([
            FactOf(1, "2027-02-01 10:00", Actor.Owner, what),
            FactOf(2, "2027-02-01 10:00", Actor.Gesamt, new Happening.TaskDone(new TaskId(1))),
            FactOf(3, "2027-02-01 10:00", Actor.Owner, new Happening.TaskDone(new TaskId(2))), // by hand
            FactOf(4, "2027-02-01 11:00", Actor.Gesamt, new Happening.TaskDone(new TaskId(3))), // by something else
        ]);
        Assert.Equal([(new TaskId(1), what)], FulfilmentRule.TakenBack(history, [Fit, back]));
        Assert.Empty(FulfilmentRule.TakenBack(history, [what]));
    }
}
