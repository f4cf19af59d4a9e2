using Gesamt.Core.Turns;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Turns;

/// <summary>What a client is to do, along the life of a project.</summary>
public sealed class ClientWayTests
{
    private static readonly (string, Happening)[] Chosen =
    [
        ("2027-02-01 10:00", Inquiry),
        ("2027-02-02 10:00", Sent()),
        ("2027-02-03 10:00", Accepted()),
        ("2027-02-03 10:01", ContractSent),
    ];

    private static readonly (string, Happening)[] Signed =
    [
        .. Chosen,
        ("2027-02-04 10:00", World.Signed(Signer.Client)),
        ("2027-02-05 10:00", World.Signed(Signer.Owner)),
        ("2027-02-05 10:00", Invoice(1, 1200, "2027-02-12")),
    ];

    private static Happening Invoice(long id, decimal amount, string due) =>
        new Happening.InvoiceIssued(new InvoiceId(id), Eur(amount), Date(due), (int)id - 1);

    private static ClientStep StepOf(VersionId? contract, params (string, Happening)[] facts) =>
        ClientWay.StepOf(Case(facts), contract);

    [Fact]
    public void They_choose_sign_and_pay_one_after_another()
    {
        Assert.Equal(ClientStep.Nothing, StepOf(null, ("2027-02-01 10:00", Inquiry)));
        Assert.Equal(ClientStep.Choose, StepOf(null, ("2027-02-01 10:00", Inquiry), ("2027-02-02 10:00", Sent())));
        Assert.Equal(ClientStep.Sign, StepOf(Contract, Chosen));
        Assert.Equal(ClientStep.Book, StepOf(Contract, Signed));
        Assert.Equal(ClientStep.Done, StepOf(Contract, [.. Signed, ("2027-02-10 10:00", Paid(1200, 1, 1))]));
    }

    [Fact]
    public void Nothing_is_signed_once_it_has_ended() =>
        Assert.Equal(
            ClientStep.Nothing,
            StepOf(Contract, [.. Chosen, ("2027-02-04 10:00", new Happening.Ended(EndReason.Lost))])
        );

    [Fact]
    public void What_is_open_is_asked_for_the_earliest_due_first_and_no_longer_than_it_is_open()
    {
        (string, Happening)[] facts =
        [
            .. Signed,
            ("2027-02-06 10:00", Invoice(2, 900, "2027-02-09")),
            ("2027-02-07 10:00", new Happening.ReviewOpened(new ReviewId(4), "sketch")),
            ("2027-02-08 10:00", new Happening.HandedOver()),
        ];
        Assert.Equal(
            ["look at 4", "pay 2: 900", "pay 1: 1200", "approve"],
            ClientWay.ToDo(Case(facts).History).Select(Words)
        );
        Assert.Equal(
            ["look at 4", "pay 1: 1000", "approve"],
            ClientWay
                .ToDo(
                    Case([
                        .. facts,
                        ("2027-02-09 10:00", Paid(900, 1, 2)),
                        ("2027-02-09 11:00", Paid(200, 2, 1)),
                    ]).History
                )
                .Select(Words)
        );
        Assert.DoesNotContain(
            "approve",
            ClientWay.ToDo(Case([.. facts, ("2027-02-10 10:00", new Happening.Approved())]).History).Select(Words)
        );
    }

    private static string Words(ClientTask task) =>
        task switch
        {
            ClientTask.LookAt look => $"look at {look.Review.Id.Value}",
            ClientTask.Pay pay => $"pay {pay.Invoice.Value}: {pay.Owed.Major:0}",
            _ => "approve",
        };
}
