using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>An invoice written by hand, a card that is refused and one that pays, a part of it given back with a credit note, and the list of all invoices.</summary>
public sealed class PayingJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;

    [Fact]
    public async Task What_is_asked_for_besides_is_paid_and_a_part_of_it_given_back()
    {
        TheOwnerWritesAnInvoice();
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 1, 25, 10, 45));
        TheClientPaysIt();
        TheOwnerGivesAPartBack();
        TheListKnowsIt();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
        Assert.DoesNotContain(client.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void OpenRecord()
    {
        owner.Go("/register");
        owner.PressWith("Harbour bakery wall");
        owner.See("What happened?");
    }

    private void TheOwnerWritesAnInvoice()
    {
        OpenRecord();
        owner.Press("Write an invoice");
        owner.See("An invoice needs at least one line");
        owner.Press("Another line");
        owner.Within(
            "A new line",
            () =>
            {
                owner.Type("Quantity", "16");
                owner.Type("Unit", "letters");
                owner.Type("Unit price", "many");
                owner.Type("Tax, %", "23");
            }
        );
        owner.See("must be a number");
        owner.Within("A new line", () => owner.Type("Unit price", "20"));
        owner.See("Every line needs its words");
        owner.Within("A new line", () => owner.Type("What", "Lettering on the side door"));
        owner.Type("Performed from", "mon");
        owner.See("393.60");
        owner.See("kept");
        Assert.Equal("", owner.Violations());
        owner.PressWith("Issue 2027-");
        owner.See("On its way: Invoice 2027-");
        owner.See("Billed besides");
    }

    private void TheClientPaysIt()
    {
        owner.Go("/post-office");
        owner.Type("Only letters from or to", "oona");
        owner.PressWith("Invoice 2027-");
        owner.See("/p/");
        client.Screen(390, 1500);
        client
            .Driver.Navigate()
            .GoToUrl(
                owner.Driver.FindElement(OpenQA.Selenium.By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!
            );
        client.See("Reference");
        Assert.Equal("", client.Violations());
        client.Press("I have paid by transfer");
        client.See("You said that you have paid");
        client.Press("Pay by card");
        client.See("Card payment, a stand-in");
        client.Type("Card number", "1000 2000 3000 4018");
        client.PressWith("Pay €");
        client.See("not enough money");
        client.Type("Card number", "1000 2000 3000 4000");
        client.PressWith("Pay €");
        client.See(", paid");
        client.SeeNot("I have paid by transfer");
    }

    private void TheOwnerGivesAPartBack()
    {
        OpenRecord();
        owner.PressWith("€ 393.60 received");
        owner.PressWith("Give it back, or a part of it");
        owner.Type("Amount", "500");
        owner.Press("Give it back");
        owner.See("is left of this payment");
        owner.Type("Amount", "93.60");
        Assert.Equal("", owner.Violations());
        owner.Press("Give it back");
        owner.See("€ 93.60 given back");
        owner.See("Credit note C2027-");
    }

    private void TheListKnowsIt()
    {
        owner.Key("g", "m");
        owner.See("Owed to you");
        owner.Press("Invoices");
        owner.See("open ");
        owner.Choose("Show", "paid or credited");
        owner.Type("Number, client or project", "harbour bakery");
        owner.See("393.60");
        owner.Choose("Put together", "by month");
        owner.See("January 2027");
        Assert.Equal("", owner.Violations());
        owner.Screen(390, 844);
        Assert.Equal("", owner.Violations());
    }
}
