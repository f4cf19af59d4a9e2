using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>From an inquiry on the public page to a project that is put away, by hand as people do it; nothing is put behind the interface's back but the clock.</summary>
public sealed class JourneyTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;
    private string record = "";

    [Fact]
    public async Task An_inquiry_is_booked_delivered_paid_and_put_away()
    {
        AStrangerInquires();
        TheOwnerFindsIt();
        TheOwnerDecidesAndWrites();
        TheClientAnswers();
        TheOwnerSendsAProposal();
        await TwoDaysPassAsync();
        TheClientChooses();
        TheClientSigns();
        TheClientPays();
        TheOwnerSigns();
        GatesAreClosedAndPapersExist();
        await new DeliveryJourney(demo, record).RunAsync();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
        Assert.DoesNotContain(client.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void AStrangerInquires()
    {
        client.Screen(390, 844);
        client.Go("/i/mural");
        client.Type("Your name", "Mona Delarue");
        client.Type("Business or organisation", "Lantern House");
        client.Type("Mail address", "mona@lanternhouse.example");
        client.Type("Size of the wall", "31");
        client.Type("Opening day, or by when", "14 May 2027");
        client.Choose("How did you find us?", "a friend");
        client.Tick("You may keep my answers");
        client.Press("Send the inquiry");
        client.See("Not sent yet: please look at “What should the wall say?”");
        client.See("This question is to be answered.");
        client.Type("What should the wall say?", "A lantern that is seen from the quay.");
        client.Press("Send the inquiry");
        client.See("Thank you, your inquiry has arrived.");
        client.See("Isolde Marrin reads it and answers by Wed 27 Jan.");
        client.Screen(1280, 800);
    }

    private void TheOwnerFindsIt()
    {
        owner.Go("/today");
        owner.See("Mural for Lantern House, answer the inquiry");
        Assert.InRange(
            owner.Section("Your turn").IndexOf("Mural for Lantern House", StringComparison.Ordinal),
            1,
            owner.Section("Your turn").IndexOf("Then, longest first", StringComparison.Ordinal)
        );
        owner.Go("/turns");
        owner.See("Mural for Lantern House");
        owner.Go("/post-office");
        owner.PressWith("Your inquiry has arrived to Mona Delarue");
        owner.See("thank you for writing to Marrin Murals & Lettering.");
    }

    private void TheOwnerDecidesAndWrites()
    {
        owner.Go("/today");
        owner.PressWith("Mural for Lantern House");
        owner.See("still needs: your yes");
        record = new Uri(owner.Driver.Url).AbsolutePath;
        owner.See("Inquiry from Mona");
        owner.See("Letter “Your inquiry has arrived”");
        owner.See("The letter “Are you still thinking about it?”");
        owner.See("9 days after the inquiry came, at 09:00, unless answered or resting");
        owner.Press("What happened?");
        owner.Tick("It is a fit");
        owner.Press("Record: It is a fit");
        owner.See("Fit, Mon 25 Jan");

        owner.Press("Write a letter");
        owner.Choose("Begin with", "Payment reminder, late");
        owner.See("Not filled yet: invoice number");
        owner.Press("Send the letter");
        owner.See("The record does not know “invoice number”.");
        owner.Choose("Begin with", "First answer with a question");
        owner.SeeNot("Not filled yet");
        owner.Press("Send the letter");
        owner.SeeItLeave();
        owner.See("Letter “Your Mural: one question first”");
    }

    private void TheClientAnswers()
    {
        owner.Go("/post-office");
        owner.PressWith("Your Mural: one question first to Mona Delarue");
        owner.Type("Answer as Mona Delarue", "It is 31 square metres, and the opening is on the 14th of May.");
        owner.Press("Send the answer");
        owner.See("The answer is with the studio.");
        owner.Go(record);
        owner.See("Mona: “It is 31 square metres");
        owner.See("3 planned steps stopped because Mona answered");
        owner.See("the letter “Are you still thinking about it?”, the letter “A last question”, end it as gone quiet");
        owner.See("answer their letter");
    }

    private void TheOwnerSendsAProposal()
    {
        owner.Press("Proposal");
        owner.See("No service yet");
        Line("Gable mural", "Included", "31");
        Line("Scaffold", "One of several", "6");
        Line("Scissor lift", "One of several", "4");
        Line("Hand-lettered name", "May be added", "14");
        owner.Type("Valid until", "5 feb");
        owner.Within("Payment 1", () => Assert.Equal("40", owner.ValueOf("Share %")));
        owner.Within("Payment 2", () => Assert.Equal("60", owner.ValueOf("Share %")));
        owner.Within("Payment 2", () => Assert.Equal("14", owner.ValueOf("Invoiced, days before it is due")));
        owner.See("€ 6 297.60"); // (4 340 + 780) × 1.23
        Assert.Contains("[page link]", owner.ValueOf("Letter"));
        owner.Press("Send the proposal");
        owner.See("Proposal, version 1, is out");
        owner.See("The client's turn");
        owner.See("not opened yet");
    }

    private void Line(string service, string role, string quantity)
    {
        owner.Pick("Add from the price list", service);
        owner.Within(
            service,
            () =>
            {
                owner.Tick(role);
                owner.Type("Quantity", quantity);
            }
        );
    }

    private async Task TwoDaysPassAsync()
    {
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 1, 27, 10, 31));
        owner.Go("/today");
        owner.Wait(
            () =>
                owner
                    .Section("Did the proposal reach you?, to Mona Delarue")
                    .Contains("not opened for 2 days", StringComparison.Ordinal),
            () => owner.Section("Ready to go out")
        );
        owner.Go(record);
        owner.See("The client's for 2 days");
        owner.See("waits for your OK");
        owner.Go("/turns");
        owner.See("Waits for your OK");

        owner.Go("/post-office");
        owner.PressWith("Your proposal for Mural for Lantern House");
        owner.See("It is valid until 5 February 2027.");
        var link = owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!;
        client.Driver.Navigate().GoToUrl(link);
        client.See("Your choice");
        Assert.DoesNotContain("/enter/", client.Driver.Url);
        owner.Go(record);
        owner.See("Mona opened the proposal");
        owner.See("The letter “Did it reach you?” stopped");
        owner.See("because Mona opened the proposal");
    }

    private void TheClientChooses()
    {
        client.See("€ 6 297.60");
        client.Tick("Hand-lettered name");
        client.See("€ 6 642.00");
        client.See("2 656.80");
        client.Tick("Scissor lift");
        client.See("€ 6 371.40"); // (4 340 + 560 + 280) × 1.23
        client.See("60 %, due 14 May 2027");
        client.Press("Choose this and go on to sign");
    }

    private void TheClientSigns()
    {
        client.See("Scissor lift, 4 days: € 560.00 net");
        Assert.DoesNotContain("Scaffold, 6 days", client.Text);
        client.Press("Sign the contract");
        client.See("Tick that you have read the contract");
        client.Tick("I have read this contract");
        client.Press("Sign the contract");
        client.See("Type your full name");
        client.Type("Your full name, as your signature", "Mona Delarue");
        client.Press("Sign the contract");
        client.See("The first payment");
    }

    private void TheClientPays()
    {
        client.See("€ 2 548.56"); // 40 %
        client.Press("Pay by card");
        client.Type("Card number", "1000 2000 3000 4018");
        client.Press("Pay € 2 548.56");
        client.See("The bank refused this card: not enough money. Nothing was charged");
        client.Type("Card number", "1000 2000 3000 4000");
        client.Press("Pay € 2 548.56");
        client.See("Mural for Lantern House is booked");
        client.See("Signed by Mona Delarue");
    }

    private void TheOwnerSigns()
    {
        owner.Go(record);
        owner.See("signed, add your signature");
        owner.Press("What happened?");
        owner.Tick("I sign the contract");
        owner.Type("Your full name, as your signature", "Isolde Marrin");
        owner.Press("Record: I sign the contract");
        owner.See("Isolde Marrin signed the contract");
    }

    private void GatesAreClosedAndPapersExist()
    {
        owner.See("Fit, Mon 25 Jan");
        owner.See("Chosen Wed 27 Jan, € 6 371.40");
        owner.See("Signed Wed 27 Jan by both");
        owner.See("€ 2 548.56 in, Wed 27 Jan");
        owner.See("still needs: handover, approval, the closing steps, € 3 822.84");
        owner.See("Order scaffold and lift");
        owner.See("28 days before opening day");
        owner.See("Fri 16 Apr");
        owner.Unfold("At hand");
        Assert.Equal(
            "%PDF %PDF",
            owner.Driver.ExecuteAsyncScript(
                """
                const done = arguments[arguments.length - 1];
                Promise.all([...document.querySelectorAll('aside a[href$=".pdf"]')].map(a => fetch(a.href).then(r => r.text()).then(t => t.slice(0, 4)))).then(heads => done(heads.join(' ')));
                """
            )
        );
    }
}
