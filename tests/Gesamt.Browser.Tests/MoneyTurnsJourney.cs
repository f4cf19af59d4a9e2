namespace Gesamt.Browser.Tests;

/// <summary>Money that goes other ways: kept hours charged and paid by a cheque in two parts, reverse charge to a client abroad, a payment that the bank takes back, a project cancelled by its kind's terms.</summary>
public sealed class MoneyTurnsJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public void Money_goes_other_ways()
    {
        HoursAndACostAreCharged();
        AChequeComesInTwoParts();
        AClientAbroadOwesTheTax();
        ThePaymentIsTakenBack();
        TheKindSaysWhatIsKept();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void OpenRecord(string project = "Harbour bakery wall")
    {
        owner.Go("/register");
        owner.PressWith(project);
        owner.See("What happened?");
    }

    private void HoursAndACostAreCharged()
    {
        OpenRecord();
        owner.Unfold("Hours and costs");
        owner.See("Worked");
        owner.Type("Time worked", "a while");
        owner.Press("Keep the hours");
        owner.See("How long?");
        owner.Type("Time worked", "1:30");
        owner.Type("What was done", "Door lettering drawn");
        owner.Key(Keys.Enter);
        owner.See("1 h 30 min");
        owner.Press("Keep a cost");
        owner.Type("What for", "Scaffold tower, a day");
        owner.Type("Amount, with its tax", "123");
        owner.Type("Paid to", "Northgate Hire");
        owner.Tick("The client pays it besides");
        Assert.Equal("", owner.Violations());
        owner.Press("Keep the cost");
        owner.See("Scaffold tower, a day");
        owner.Press("Charge them on an invoice");
        owner.See("Price of an hour");
        Assert.Equal("", owner.Violations());
        owner.Type("Price of an hour", "60");
        owner.Tick("a line for each");
        owner.Press("Put them on the invoice");
        // 9.75 and 1.5 hours at 60, 30.00 and 100.00 of costs, 23 %
        owner.See("€ 990.15");
        owner.See("kept");
        owner.PressWith("Issue 2027-");
        owner.See("On its way: Invoice 2027-");
        owner.Unfold("Hours and costs");
        owner.See("on invoice 2027-");
        owner.Press("Door lettering drawn");
        owner.See("What is charged stays as it is");
        owner.Key(Keys.Escape);
    }

    private void AChequeComesInTwoParts()
    {
        Pay("500");
        owner.See("€ 500.00 received");
        owner.See("€ 490.15");
        Pay("600");
        owner.See("is open on this invoice");
        owner.Type("Amount", "490.15");
        owner.Press("Record: They paid");
        owner.See("€ 490.15 received");
        owner.Wait(
            () => !owner.Section("Money").Contains("Open, ", StringComparison.Ordinal),
            () => owner.Section("Money")
        );
    }

    private void Pay(string amount)
    {
        owner.Press("What happened?");
        owner.Tick("They paid");
        owner.Type("Amount", amount);
        owner.Choose("How", "by cheque");
        owner.Press("Record: They paid");
    }

    private void AClientAbroadOwesTheTax()
    {
        owner.Press("Write an invoice");
        owner.Press("Another line");
        owner.Within(
            "A new line",
            () =>
            {
                owner.Type("Quantity", "1");
                owner.Type("Unit price", "250");
                owner.Type("Tax, %", "reverse charge");
                owner.Type("What", "Design licence");
            }
        );
        owner.See("the client’s tax number must stand on the invoice");
        owner.PressWith("Oona Pettigrew");
        owner.Press("Change");
        owner.Type("Country", "AT");
        owner.Type("Tax number", "ATU12345678");
        owner.Choose("Buys as", "a business");
        owner.Press("Keep");
        owner.SeeNot("Buys as");
        owner.See("ATU12345678");
        OpenRecord();
        owner.Press("Write an invoice");
        owner.See("€ 250.00");
        owner.See("reverse charge");
        Assert.Equal("", owner.Violations());
        owner.Press("Issue without a letter");
        owner.See("Billed besides");
    }

    private void ThePaymentIsTakenBack()
    {
        OpenRecord();
        owner.PressWith("earlier");
        owner.PressWith("€ 2 750.28 received");
        owner.PressWith("The bank took it back");
        Assert.Equal("", owner.Violations());
        owner.Press("It was charged back");
        owner.See("€ 2 750.28 charged back");
        // what it paid is owed again, and its gate stands open
        owner.SeeNot("It was booked");
        Pay("2750.28");
        owner.Wait(
            () => owner.Section("Money").Contains("Paid\n€ 2 750.28", StringComparison.Ordinal),
            () => owner.Section("Money")
        );
    }

    private void TheKindSaysWhatIsKept()
    {
        owner.Go("/templates");
        owner.PressWith("Mural");
        owner.PressWith("The work");
        owner.Within("Cancelled 59 days before", () => owner.Type("Kept, %", "150"));
        owner.Tick("Final files wait for the last payment");
        owner.Press("Keep the work");
        owner.See("Per cent, from 0 to 100.");
        owner.Within("Cancelled 59 days before", () => owner.Type("Kept, %", "60"));
        owner.Press("Keep the work");
        owner.SeeNot("Per cent, from 0 to 100.");
        // what has begun keeps what it began with
        OpenRecord();
        owner.Press("What happened?");
        owner.PressWith("something else");
        owner.Tick("It was cancelled");
        owner.See("the terms keep 50 % of € 6 875.70: € 3 437.85");
        owner.Tick("Settle the money as the terms say");
        Assert.Equal("", owner.Violations());
        owner.Press("Record: It was cancelled");
        owner.See("Cancelled");
    }
}
