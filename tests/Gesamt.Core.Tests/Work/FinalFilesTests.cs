using Gesamt.Core.Work;
using static Gesamt.Core.Tests.World;

namespace Gesamt.Core.Tests.Work;

public class FinalFilesTests
{
    private static Money? WaitFor(bool waits, params (string At, Happening What)[] facts)
    {
        var project = Case(facts);
        return FinalFiles.WaitFor(project with { Kind = project.Kind with { FinalsWait = waits } });
    }

    private static readonly (string, Happening)[] HalfPaid =
    [
        ("2027-01-05 09:00", new Happening.InvoiceIssued(new(1), Eur(400), Date("2027-01-20"), Extra: true)),
        ("2027-01-06 09:00", new Happening.InvoiceIssued(new(2), Eur(100), Date("2027-01-20"), Extra: true)),
        ("2027-01-07 09:00", Paid(400, 1, invoice: 1)),
    ];

    [Fact]
    public void Where_the_kind_says_so_they_wait_for_what_is_open()
    {
        Assert.Equal(Eur(100), WaitFor(true, HalfPaid));
        Assert.Null(WaitFor(false, HalfPaid));
    }

    [Fact]
    public void With_the_last_payment_they_open() =>
        Assert.Null(WaitFor(true, [.. HalfPaid, ("2027-01-08 09:00", Paid(100, 2, invoice: 2))]));

    [Fact]
    public void Drafts_and_what_the_client_sent_wait_for_nothing()
    {
        var project = Case(HalfPaid);
        project = project with { Kind = project.Kind with { FinalsWait = true } };
        Assert.False(FinalFiles.IsOpen(project, FileGroup.Final));
        Assert.True(FinalFiles.IsOpen(project, FileGroup.Drafts));
        Assert.True(FinalFiles.IsOpen(project, FileGroup.Supplied));
    }
}
