using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>Money that comes by itself: a transfer after a refused card, matched from the bank's file, and a client who is charged each month.</summary>
public sealed class MoneyComesJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;

    [Fact]
    public async Task A_transfer_is_matched_and_a_card_is_charged_each_month()
    {
        var number = ACardIsRefused();
        TheBankBringsIt(number);
        TheOwnerMatchesByKeys();
        TheOwnerLetsAnInvoiceComeAgain();
        TheClientAgrees();
        await TheCardIsChargedAsync();
        TheOwnerRestsIt();
        TheClientTakesItBack();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
        Assert.DoesNotContain(client.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void OpenLetterOf(string person)
    {
        owner.Go("/post-office");
        owner.Type("Only letters from or to", person);
        owner.PressWith("Invoice 202");
        owner.See("/p/");
        client.Screen(390, 1500);
        client
            .Driver.Navigate()
            .GoToUrl(
                owner.Driver.FindElement(OpenQA.Selenium.By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!
            );
    }

    /// <returns>The number of the invoice that is due first.</returns>
    private string ACardIsRefused()
    {
        OpenLetterOf("rafe");
        client.See("Pay by card");
        client.Press("Pay by card");
        client.See("Card payment, a stand-in");
        client.Type("Card number", "1000 2000 3000 4018");
        client.PressWith("Pay €");
        client.See("not enough money");
        owner.Go("/money/invoices");
        owner.Type("Number, client or project", "weir");
        owner.See("Weir House lettering");
        owner.SeeNot("Copperline bikes");
        return System.Text.RegularExpressions.Regex.Match(owner.Text, @"20\d\d-\d{3}").Value;
    }

    private void TheBankBringsIt(string number)
    {
        owner.Go("/post-office");
        owner.See("The stand-in bank writes");
        var file = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.xml");
        File.WriteAllBytes(file, owner.Fetched("form=Camt08"));
        owner.Go("/money/bank");
        owner.See("To be matched");
        owner.Attach("Take in a statement", file);
        owner.See("lines read; 2 booked by themselves");
        owner.Wait(
            () => owner.Section("Booked by themselves").Contains(number, StringComparison.Ordinal),
            () => $"{number} is not among what was booked by itself."
        );
        owner.Attach("Take in a statement", file);
        owner.See("every one was known already");
        File.Delete(file);
        Assert.Equal("", owner.Violations());
        owner.Screen(390, 844);
        Assert.Equal("", owner.Violations());
        owner.Screen(1280, 800);
        client.Driver.Navigate().Back();
        client.Driver.Navigate().Refresh();
        client.SeeNot("Pay by card");
    }

    /// <summary>One key a line.</summary>
    private void TheOwnerMatchesByKeys()
    {
        owner.Go("/money/bank");
        owner.See("thank you");
        owner.Key("j", "1");
        owner.See("booked on 20");
        owner.Press("Undo");
        owner.SeeNot("booked on 20");
        owner.Go("/money/bank");
        owner.See("thank you");
        owner.Key("j", "o");
        owner.See("What does €");
        Assert.Equal("", owner.Violations());
        owner.Key(OpenQA.Selenium.Keys.Escape);
        owner.Key("x");
        owner.See("Set aside: it pays no invoice");
    }

    private void OpenRecord()
    {
        owner.Go("/register");
        owner.PressWith("Harbour bakery wall");
        owner.See("What happened?");
    }

    private void TheOwnerLetsAnInvoiceComeAgain()
    {
        OpenRecord();
        owner.Press("Write an invoice");
        owner.Press("Another line");
        owner.Within(
            "A new line",
            () =>
            {
                owner.Type("Quantity", "1");
                owner.Type("Unit price", "100");
                owner.Type("Tax, %", "23");
                owner.Type("What", "Wash and touch-up");
            }
        );
        owner.Type("Days to pay", "0");
        owner.See("kept");
        owner.See("123.00");
        owner.PressWith("Let it come again");
        owner.Type("The first on", "today");
        owner.Key(OpenQA.Selenium.Keys.Tab);
        Assert.Equal("", owner.Violations());
        owner.Press("Begin, every month");
        owner.See("€ 123.00 every month");
        owner.See("A recurring invoice was begun");
    }

    private void TheClientAgrees()
    {
        OpenLetterOf("oona");
        client.See("Keep my card");
        client.Tick("Keep my card");
        Assert.Equal("", client.Violations());
        client.Press("Pay by card");
        client.See("Card payment, a stand-in");
        client.Type("Card number", "1000 2000 3000 4059");
        client.PressWith("Pay €");
        client.See("Your card ending in 4059");
        Assert.Equal("", client.Violations());
    }

    private async Task TheCardIsChargedAsync()
    {
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 25, 10, 0));
        owner.SignIn();
        OpenRecord();
        owner.See("€ 123.00 could not be charged");
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 28, 10, 0));
        OpenRecord();
        owner.See("Charged on the day each is due: card ending in 4059");
        owner.See("by card, invoice 2027-");
    }

    /// <summary>Whoever lets a project rest says what becomes of it.</summary>
    private void TheOwnerRestsIt()
    {
        owner.Press("What happened?");
        owner.PressWith("something else");
        owner.Tick("It rests");
        owner.Type("The reason", "the ferry is in dock");
        owner.Press("Record: It rests");
        owner.See("Say whether the recurring invoices stop or go on");
        owner.Tick("comes no more");
        owner.Press("Record: It rests");
        owner.See("The recurring invoice comes no more");
    }

    private void TheClientTakesItBack()
    {
        client.Driver.Navigate().Refresh();
        client.Press("I take my consent back");
        client.SeeNot("Your card ending in 4059");
    }
}
