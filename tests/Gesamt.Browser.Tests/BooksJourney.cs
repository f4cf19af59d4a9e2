using System.IO.Compression;
using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>The books: a cost with its receipt, one that books itself over the end of a month, money out of the bank, accounts, and a year closed and handed over.</summary>
public sealed class BooksJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public async Task The_books_are_kept()
    {
        TodaysSentenceLeadsThere();
        AFigureOpensWhatItIsMadeOf();
        ACostIsWrittenDownWithItsReceipt();
        ACostBooksItself();
        MoneyComesFromElsewhere();
        HowLikelyIsSaid();
        AnAccountIsKept();
        await AYearIsClosedAndHandedOverAsync();
        OnAPhone();
        await AMonthEndsAsync();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void TodaysSentenceLeadsThere()
    {
        owner.Go("/today");
        owner.See("received");
        owner.PressWith("received");
        owner.See("Owed to you");
        Assert.Contains("show=Received", owner.Driver.Url, StringComparison.Ordinal);
        owner.Key("g", "m");
        owner.See("January 2027");
        Assert.Equal("", owner.Violations());
    }

    private void AFigureOpensWhatItIsMadeOf()
    {
        owner.PressIn("January 2027", "€ 4 362.56 late");
        owner.Wait(
            () => owner.Section("January 2027").Contains("invoice 2026-024", StringComparison.Ordinal),
            () => $"The late invoices do not stand under January:\n{owner.Section("January 2027")}"
        );
        owner.Press("Feb, February 2027");
        owner.See("February 2027");
        owner.PressWith("agreed, to come");
        owner.See("agreed, not invoiced yet");
        owner.Press("Jan, January 2027");
        owner.Choose("Which figures", "as billed");
        owner.See("billed,");
        owner.Choose("Which figures", "as received");
        owner.Choose("Which days", "2026");
        owner.See("December 2026");
        owner.Choose("Which days", "2027");
        owner.See("2027 so far");
    }

    private void ACostIsWrittenDownWithItsReceipt()
    {
        // dropped anywhere on the page, it opens the window with it
        owner.Drop("brushes.png", [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A], "image/png");
        owner.See("Another receipt");
        owner.See("brushes.png");
        owner.Press("Keep the cost");
        owner.See("What it was for is said in 1 to 200 characters");
        owner.Type("What for", "Sable brushes");
        owner.Type("Amount, with its tax", "84,05");
        owner.Type("Paid to", "Corrigan Paints");
        owner.Type("Category", "materials");
        owner.Press("Keep the cost");
        owner.SeeNot("Another receipt");
        owner.See("Sable brushes");
        owner.See("− 84.05");
        owner.See("receipt");
        // opened again by its name, taken out, and put back
        owner.Press("Sable brushes");
        owner.See("Keep the change");
        owner.Press("Take it out");
        owner.See("Taken out: Sable brushes");
        owner.Press("Undo");
        owner.See("− 84.05");
    }

    private void ACostBooksItself()
    {
        owner.Press("a cost that comes again");
        owner.Type("What for", "Store room");
        owner.Type("Amount, with its tax", "40");
        owner.Type("Tax in it, %", "0");
        owner.Type("First day", "31 jan");
        owner.Press("Let it book itself");
        owner.See("next Sun 31 Jan");
        owner.See("Store room");
    }

    private void MoneyComesFromElsewhere()
    {
        owner.Press("other income");
        owner.Type("What for", "Talk at the library");
        owner.Type("Amount, with its tax", "120");
        owner.Press("Keep the income");
        owner.See("Talk at the library");
        owner.See("+ 120.00");
        owner.See("other income");
    }

    private void HowLikelyIsSaid()
    {
        owner.Press("how likely");
        owner.See("were booked");
        owner.Type("Your own for Proposal, %", "150");
        owner.Key(Keys.Enter);
        owner.See("From 0 to 100 per cent");
        owner.Type("Your own for Proposal, %", "70");
        owner.Key(Keys.Enter);
        owner.See("as you say");
        owner.Key(Keys.Escape);
        owner.SeeNot("as you say");
    }

    private void AnAccountIsKept()
    {
        owner.Press("Accounts");
        owner.See("Balances");
        owner.See("Current account");
        owner.Press("Add an account");
        owner.Type("Name", "Savings");
        owner.Type("Balance that morning", "1000");
        Assert.Equal("", owner.Violations());
        owner.Press("Add it");
        owner.See("€ 1 000.00");
        owner.Press("A transfer");
        owner.Choose("To", "Savings, EUR");
        owner.Type("Amount", "250");
        owner.Press("Keep the transfer");
        owner.See("Current account to Savings");
        owner.See("€ 1 250.00");
        // the account’s own entries end with its balance
        owner.Press("Savings");
        owner.See("from Current account");
        owner.See("1 250.00");
    }

    private async Task AYearIsClosedAndHandedOverAsync()
    {
        owner.Press("Accountant");
        owner.See("Charged less paid");
        owner.Press("The quarter before");
        owner.SeeNot("€ 1 857.07");
        owner.Press("Close 2025");
        owner.See("2025 is closed");
        owner.See("Open 2025");
        Assert.Equal("", owner.Violations());
        using var zip = new ZipArchive(new MemoryStream(owner.Fetched("/2025/folder.zip")));
        using var control = new StreamReader(zip.GetEntry("control.csv")!.Open());
        var line = (await control.ReadToEndAsync(TestContext.Current.CancellationToken)).Split("\r\n")[1].Split(',');
        Assert.Equal(("EUR", "0.00"), (line[0], line[5]));
        owner.Press("The year");
        owner.See("Owed to you");
        owner.Press("write down a cost");
        // what a window asks for comes a moment later: whoever types at once is heard all the same
        owner.SeeHeard("textbox “What for”");
        owner.Type("What for", "Late find");
        owner.Type("Amount, with its tax", "12");
        owner.Type("Day", "1 jun 2025");
        owner.Press("Keep the cost");
        owner.See("2025 is closed and handed over");
        owner.Key(Keys.Escape);
        // the same from anywhere
        owner.Go("/today");
        owner.See("Your turn");
        owner.Chord(Keys.Control, "k");
        owner.SeeHeard("combobox “Find”");
        owner.Key("down a cost");
        // also when what is found has come meanwhile, and nothing is
        owner.SeeAsked("/api/search?words=down%20a%20cost");
        owner.SeeNot("Go to Today");
        owner.Key(Keys.Enter);
        owner.SeeHeard("textbox “What for”");
        owner.Key(Keys.Escape);
        owner.See("Owed to you");
    }

    private void OnAPhone()
    {
        owner.Screen(390, 844);
        owner.Go("/money");
        owner.See("Owed to you");
        Assert.Equal(390L, owner.Driver.ExecuteScript("return document.documentElement.scrollWidth"));
        Assert.Equal("", owner.Violations());
        owner.Screen(1280, 800);
    }

    private async Task AMonthEndsAsync()
    {
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 1, 9, 0));
        owner.Go("/money?at=2027-01-01&show=Spent");
        owner.See("Store room");
        owner.See("− 40.00");
        owner.See("next Sun 28 Feb");
    }
}
