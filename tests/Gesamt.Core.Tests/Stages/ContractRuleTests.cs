using Gesamt.Core.Contracts;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Stages;

/// <summary>Contracts asked about, declined, voided, replaced, and signed by several.</summary>
public class ContractRuleTests
{
    private static readonly VersionId Next = new(11);
    private static readonly (string, Happening)[] Out =
    [
        ("2027-01-01 09:00", Inquiry),
        ("2027-01-08 09:00", Accepted()),
        ("2027-01-08 09:01", ContractSent),
    ];

    private static Standing Turn(params (string, Happening)[] more) =>
        TurnRule.Of(Case([.. Out, .. more]), At("2027-02-01 09:00"));

    [Fact]
    public void A_question_about_a_contract_is_the_owners_until_it_is_answered()
    {
        (string, Happening) asked = (
            "2027-01-10 09:00",
            new Happening.ContractAsked(Contract, new NoteId(1), AskSort.Objection)
        );
        var turn = Turn(asked);
        Assert.Equal(
            (Side.Yours, WaitKind.ContractAsked, "They object to the contract"),
            (turn.Turn, turn.Waits, turn.Words)
        );
        Assert.Equal(
            (Side.Clients, WaitKind.SignContract),
            (Turn(asked, ("2027-01-11 09:00", Letter())) is var now ? (now.Turn, now.Waits) : default)
        );
    }

    [Fact]
    public void A_declined_contract_cannot_be_signed_and_another_is_sent()
    {
        var declined = Case([.. Out, ("2027-01-10 09:00", new Happening.ContractDeclined(Contract, new NoteId(1)))]);
        Assert.Null(ContractState.Open(declined.History));
        Assert.Null(ContractState.Standing(declined.History));
        Assert.True(ContractRule.CanSend(declined));
        var turn = TurnRule.Of(declined, At("2027-01-11 09:00"));
        Assert.Equal((Side.Yours, WaitKind.ContractDeclined), (turn.Turn, turn.Waits));
        // answered, what is next is another contract
        Assert.Equal(
            WaitKind.SendContract,
            Turn(
                ("2027-01-10 09:00", new Happening.ContractDeclined(Contract, new NoteId(1))),
                ("2027-01-11 09:00", Letter())
            ).Waits
        );
    }

    [Fact]
    public void One_of_several_signatures_leaves_it_with_the_client()
    {
        var part = Turn(("2027-01-10 09:00", new Happening.ContractSignedInPart(Contract, new PersonId(3))));
        Assert.Equal(
            (Side.Clients, WaitKind.SignContract, "Contract not signed by all yet"),
            (part.Turn, part.Waits, part.Words)
        );
        Assert.Null(
            ContractState.Countersign(
                Case([
                    .. Out,
                    ("2027-01-10 09:00", new Happening.ContractSignedInPart(Contract, new PersonId(3))),
                ]).History
            )
        );
    }

    [Fact]
    public void A_signed_contract_stays_in_force_until_its_successor_is_signed()
    {
        (string, Happening)[] signed =
        [
            .. Out,
            ("2027-01-09 09:00", Signed(Signer.Client)),
            ("2027-01-09 10:00", Signed(Signer.Owner)),
            ("2027-01-20 09:00", new Happening.ContractSent(Next)),
        ];
        var between = Case(signed);
        Assert.Equal(Next, ContractState.Open(between.History)!.Value.What.Contract);
        Assert.Equal(
            At("2027-01-09 10:00"),
            GateRule.Read(between).Single(gate => gate.Gate == Gate.Contract).ClosedAt
        );
        // the successor is voided unsigned: the first stands as before
        var back = Case([.. signed, ("2027-01-21 09:00", new Happening.ContractVoided(Next))]);
        Assert.Equal(Contract, ContractState.Standing(back.History));
        Assert.Null(ContractState.Open(back.History));
        // it is signed, and takes the first one's place
        var replaced = Case([
            .. signed,
            ("2027-01-22 09:00", new Happening.ContractSigned(Next, Signer.Client)),
            ("2027-01-22 09:00", new Happening.ContractVoided(Contract)),
        ]);
        Assert.Equal(Next, ContractState.Standing(replaced.History));
        Assert.NotNull(ContractState.Countersign(replaced.History));
    }
}
