using Gesamt.Web.Demo;
using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>The whole way of a project, from the inquiry until it is put away, in as few acts of its owner as the work allows. An act is a press, a choice, a tick or a file; moving about and writing freely are none.</summary>
public sealed class FewActsTests(Demo demo, ITestOutputHelper output) : IClassFixture<Demo>
{
    private const int Most = 24;

    private readonly Person owner = demo.Owner,
        client = demo.Client;
    private readonly List<string> told = [];
    private string record = "";

    [Fact]
    public async Task A_project_asks_few_acts_of_its_owner()
    {
        TheStudioSaysWhatIsDoneUnasked();
        AStrangerInquires();
        owner.Go("/today");
        owner.PressWith("Mural for Lantern House");
        owner.See("still needs: your yes");
        record = new Uri(owner.Driver.Url).AbsolutePath;
        Act("answers, says it is a fit and offers a call", AnswerTheInquiry);
        await TheyChooseATimeAsync();
        Act("says the call was held", () => Press("It was held", "First call held"));
        Act("writes and sends the proposal", WriteTheProposal);
        TheyChooseSignAndPay();
        owner.Go(record);
        owner.See("Signed Tue 26 Jan by both");
        owner.See("still needs: handover");
        Act("puts up the first sketch", () => PutUp("sketch-1.png", 1));
        TheyAskForChanges();
        Act("puts up the second", () => PutUp("sketch-2.png", 2));
        TheyApprove();
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 5, 3, 9, 0)); // the second invoice has gone out by itself
        owner.SignIn();
        Act("hands over", HandOver, startsAt: owner.Acts);
        TheyApproveTheWork();
        Act("records the transfer", RecordThePayment);
        Act("does the closing steps", CloseUp);
        await ItIsPutAwayByItselfAsync();
        output.WriteLine(string.Join('\n', told));
        Assert.InRange(sum, 1, Most);
    }

    private int sum,
        again;

    private void Act(string what, Action act, int? startsAt = null)
    {
        var from = startsAt ?? owner.Acts;
        again = 0;
        act();
        var acts = owner.Acts - from + again;
        sum += acts;
        told.Add($"{acts} {what}");
    }

    private void Press(string button, string then)
    {
        owner.Go(record);
        owner.Press(button);
        owner.See(then);
    }

    private void TheStudioSaysWhatIsDoneUnasked()
    {
        owner.Go("/studio");
        owner.PressWith("Habits");
        owner.Tick("My signature is given with every contract as it is sent");
        owner.Type("Put finished projects away after", "30");
        owner.Press("Keep the studio");
        owner.SeeNot("Something is not as it must be");
        owner.Wait(
            () =>
                owner
                    .Driver.FindElements(By.XPath("//button[.='Keep the studio'][not(@disabled) or @aria-busy='true']"))
                    .Count == 0,
            () => "The studio is not kept."
        );
    }

    private void AStrangerInquires()
    {
        client.Go("/i/mural");
        client.Type("Your name", "Mona Delarue");
        client.Type("Business or organisation", "Lantern House");
        client.Type("Mail address", "mona@lanternhouse.example");
        client.Type("What should the wall say?", "A lantern that is seen from the quay.");
        client.Type("Size of the wall", "6 x 4");
        client.Type("Opening day, or by when", "14 May 2027");
        client.Tick("You may keep my answers");
        client.Press("Send the inquiry");
        client.See("Thank you, your inquiry has arrived.");
    }

    private void AnswerTheInquiry()
    {
        owner.Press("Answer the inquiry");
        owner.See("A lantern that is seen from the quay.");
        owner.Type("Subject", "Your lantern");
        owner.Type("Text", "Hello Mona, I would love to paint it. Let us speak.");
        owner.Tick("With it I say that it is a fit");
        owner.Tick("They can choose a time: First call");
        owner.Press("Send the letter");
        owner.SeeItLeave();
        owner.See("Fit, Mon 25 Jan");
    }

    private async Task TheyChooseATimeAsync()
    {
        Enter("Your lantern");
        client.Tick("10:00");
        client.Press("Take Tue 26 Jan, 10:00");
        client.See("passcode");
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 1, 26, 10, 35));
    }

    private void WriteTheProposal()
    {
        owner.Go(record);
        owner.Press("Write the proposal");
        owner.See("or begin from one of these");
        // named by its beginning, which is how one moves about elsewhere: here it is an act
        owner.PressWith("Dovecote taproom");
        again++;
        // the wall, as it was written into the form: 6 x 4
        owner.See("24 m² at 140");
        owner.Press("Send the proposal");
        owner.See("Proposal, version 1, is out");
    }

    private void TheyChooseSignAndPay()
    {
        Enter("Your proposal for Mural for Lantern House");
        client.Press("Choose this and go on to sign");
        client.Tick("I have read this contract");
        client.Type("Your full name, as your signature", "Mona Delarue");
        client.Press("Sign the contract");
        client.See("The first payment");
        client.Press("Pay by card");
        client.Type("Card number", "1000 2000 3000 4000");
        client.PressWith("Pay €");
        client.See("Mural for Lantern House is booked");
    }

    private void PutUp(string name, int round)
    {
        owner.Go(record);
        var file = Path.Combine(Directory.CreateTempSubdirectory("gesamt-file").FullName, name);
        File.WriteAllBytes(file, DemoPictures.Draw(name));
        owner.Attach("Files to keep", file);
        owner.See($"Kept: {name}");
        owner.Press("Put up the draft");
        owner.Wait(() => owner.ValueOf("Subject").Length > 0, () => owner.Text);
        owner.Press($"Put up round {round}");
        owner.SeeItLeave();
        owner.See("is with the client");
    }

    private void TheyAskForChanges()
    {
        Enter("a draft to look at");
        client.Type("What do you see?", "A warmer yellow, please.");
        client.Press("Ask for these changes");
        client.See("you asked for changes");
    }

    private void TheyApprove()
    {
        client.Driver.Navigate().Refresh();
        client.See("round 2 of 3");
        client.Press("It is good as it is");
        client.See("you said yes");
    }

    private void HandOver()
    {
        owner.Go(record);
        var file = Path.Combine(Directory.CreateTempSubdirectory("gesamt-file").FullName, "wall-final.png");
        File.WriteAllBytes(file, DemoPictures.Draw("wall-final.png"));
        owner.Attach("Files to keep", file);
        owner.See("Kept: wall-final.png");
        owner.Press("Hand the work over");
        owner.Type("What wall-final.png is for", "for print, 300 dpi");
        owner.Press("Hand over");
        owner.SeeItLeave();
        owner.See("Handed over");
    }

    private void TheyApproveTheWork()
    {
        client.Driver.Navigate().Refresh();
        client.Press("All is well, I approve the work");
        client.See("approved by you");
    }

    private void RecordThePayment()
    {
        owner.Go(record);
        owner.Press("Record a payment");
        owner.Press("Record: They paid");
        owner.See("still needs: the closing steps");
    }

    private void CloseUp()
    {
        foreach (var task in new[] { "Take photos for the portfolio", "Note what the wall needs in five years" })
        {
            owner.Press($"Done: {task}");
            owner.SeeNot($"Done: {task}");
        }
        owner.See("handed over, approved and paid");
    }

    private async Task ItIsPutAwayByItselfAsync()
    {
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 6, 30, 9, 0));
        owner.SignIn();
        owner.Go(record);
        owner.See("Take it out again");
    }

    /// <summary>The client follows the link of a letter.</summary>
    private void Enter(string letter)
    {
        owner.Go("/post-office");
        owner.PressWith(letter);
        owner.Wait(
            () => owner.Driver.FindElements(By.CssSelector("article a[href*='/p/']")).Count > 0,
            () => $"No link in “{letter}”. Shown is:\n{owner.Text}"
        );
        client
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
    }
}
