using Gesamt.Web.Demo;
using Gesamt.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>The second half of the journey: a booked project is worked on, moved, paid, handed over, finished and put away.</summary>
public sealed class DeliveryJourney(Demo demo, string record)
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;
    private string page = "";

    public async Task RunAsync()
    {
        page = new Uri(client.Driver.Url).AbsolutePath;
        TheOwnerKeepsASketch();
        ThePageIsSeenAsTheClientAndOpened();
        TheFirstRoundComesBack();
        TheSecondRoundIsApproved();
        TheDateMoves();
        await TheSecondInvoiceGoesOutByItselfAsync();
        await AMistakenPaymentIsTakenBackAsync();
        TheClientPaysByTransfer();
        TheWorkIsHandedOver();
        TheClientApproves();
        TheProjectIsFinishedPutAwayAndFound();
    }

    private void TheOwnerKeepsASketch()
    {
        Keep("sketch-1.png", "a draft to be looked at");
        owner.See("draft 1, sketch");
        owner.See("private");
    }

    private void ThePageIsSeenAsTheClientAndOpened()
    {
        client.Go(page);
        client.SeeNot("For you to do now");
        owner.Unfold("Client page");
        owner.Press("Look and open: The project as a whole");
        owner.See("As Mona Delarue sees it");
        owner.See("Also becomes visible: the phase Survey");
        owner.See("There is nothing for you to do at the moment.");
        owner.Press("Open this part");
        owner.See("open since Wed 27 Jan");
        client.Go(page);
        client.See("Opening day 14 May 2027");
        client.See("Sketch");
        Assert.DoesNotContain("sketch-1.png", client.Text);
    }

    private void TheFirstRoundComesBack()
    {
        PutUp("Put up round 1", "3 rounds were agreed.");
        client.Go(page);
        client.See("For you to do now");
        client.See("Look at the sketch and say what you think");
        client.See("Sketch, round 1 of 3");
        client.Press("Point at a place in sketch-1.png: arrow keys lead there, Enter sets it");
        client.See("About the place you marked.");
        Assert.Equal("", client.Violations());
        client.Type("What do you see?", "The lantern hangs well.");
        client.Press("Only leave a remark");
        client.See("1: The lantern hangs well.");
        owner.Go(record);
        owner.See("Mona remarks on sketch, round 1");
        client.Press("Ask for these changes");
        client.See("Say in 1 to 5 000 characters what you see.");
        client.Type("What do you see?", "A warmer yellow for the flame, please.");
        client.Press("Ask for these changes");
        client.See("you asked for changes");
        owner.Go(record);
        owner.See("sketch, round 1: they ask for changes");
        owner.PressWith("Mona asks for changes, sketch, round 1");
        owner.See("1: The lantern hangs well.");
        Assert.Equal("", owner.Violations());
        owner.Press("Close");
    }

    private void TheSecondRoundIsApproved()
    {
        Keep("sketch-2.png", "a draft to be looked at");
        PutUp("Put up round 2", "3 rounds were agreed.");
        client.Go(page);
        client.See("Sketch, round 2 of 3");
        client.Press("Beside Sketch, round 1 of 3");
        client.See("Only this round");
        Assert.Equal("", client.Violations());
        client.Press("It is good as it is");
        client.See("you said yes");
        owner.Go(record);
        owner.PressWith("Mona approved sketch, round 2");
        owner.See("approved by Mona Delarue, 27 January 2027");
        owner.See("sketch-2.png");
        owner.Press("Close");
        owner.Unfold("Phases");
        owner.Wait(
            () => System.Text.RegularExpressions.Regex.IsMatch(owner.Section("Phases"), @"(?i)sketch\s+Wed 27 Jan"),
            () => owner.Section("Phases")
        );
    }

    private void TheDateMoves()
    {
        // done ones stay; one fixed by hand is asked about
        owner.Tick("Survey the wall, photos and damp is done");
        owner.See("Done: Survey the wall");
        owner.Press("Order paint");
        owner.Type("Due", "2027-05-03");
        owner.Press("Keep the change");
        owner.See("Mon 3 May");
        owner.Press("move the opening day");
        owner.Type("New date", "28 may");
        owner.Press("Show what moves with it");
        owner.See("Moves with it, from Fri 14 May to Fri 28 May");
        Assert.Matches(@"Order scaffold and lift\s+Fri 16 Apr\s+Fri 30 Apr", owner.Text);
        Assert.Matches(@"Invoice 2 of 2, € 3 822\.84\s+Fri 30 Apr\s+Fri 14 May", owner.Text);
        Assert.Matches(@"its day was set by hand; tick to move it too\s+Mon 3 May\s+stays", owner.Text);
        Assert.DoesNotMatch(@"Survey the wall, photos and damp\s+Fri", owner.Text);
        owner.Press("Move it to Fri 28 May");
        owner.See("Opening day: 28 May 2027");
        owner.Wait(
            () => owner.Section("Open tasks").Contains("Fri 30 Apr", StringComparison.Ordinal),
            () => owner.Section("Open tasks")
        );
        Assert.Contains("Mon 3 May", owner.Section("Open tasks"));
    }

    private async Task TheSecondInvoiceGoesOutByItselfAsync()
    {
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 5, 14, 7, 59));
        owner.SignIn(); // months have passed
        owner.Go(record);
        owner.SeeNot("due 28 May 2027");
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 5, 14, 8, 1)); // nine in Dublin
        owner.Go(record);
        owner.See("€ 3 822.84");
        owner.See("due 28 May 2027");
        owner.See("The letter “Payment reminder, late”");
        owner.Go("/post-office");
        owner.PressWith("for Mural for Lantern House");
        owner.See("over € 3 822.84, due on 28 May 2027");
        client.Go(page);
        client.See("Invoice 2027-");
        client.See("Pay by card");
    }

    private async Task AMistakenPaymentIsTakenBackAsync()
    {
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 5, 25, 8, 1)); // three days before it is due a reminder goes out by itself
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 5, 26, 10, 0));
        SayTheyPaid();
        owner.See("4 planned steps stopped because it was paid");
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 6, 2, 10, 0));
        var before = Reminders();
        owner.Go(record);
        owner.PressWith("€ 3 822.84 received");
        owner.PressWith("It was recorded by mistake");
        owner.Press("Take this payment back");
        owner.See("A payment was recorded by mistake and taken back");
        owner.See("missed meanwhile and not sent: the letter “Payment reminder, late” (2)");
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 6, 2, 16, 0));
        Assert.Equal(before, Reminders());
        owner.Go(record);
        owner.See("The letter “Payment reminder, late”"); // the one a week after, still ahead
    }

    private void TheClientPaysByTransfer()
    {
        SayTheyPaid();
        owner.See("2 planned steps stopped because it was paid");
        owner.See("by transfer, invoice 2027-");
    }

    private void TheWorkIsHandedOver()
    {
        Keep("wall-final.png", "final, to be handed over");
        owner.Press("Hand over");
        owner.See("Hand over the work");
        owner.Press("Hand over");
        owner.See("Say in a few words what “wall-final.png” is for.");
        owner.Type("The goals, and how they were met", "Seen from the ferry: it is.");
        owner.Type("What comes after", "A wash each spring.");
        // the work is done with it, and so are the tasks that were its parts
        owner.See("Done with it");
        owner.Type("What wall-final.png is for", "for print, 300 dpi");
        owner.Press("Hand over");
        owner.SeeItLeave();
        owner.See("Handed over");
    }

    private void TheClientApproves()
    {
        client.Go(page);
        client.See("Look at what was handed over, and say whether all is well");
        client.See("for print, 300 dpi");
        client.See("Seen from the ferry: it is.");
        client.See("A wash each spring.");
        Assert.Equal("", client.Violations());
        Assert.Equal(
            "attachment 200",
            client.Driver.ExecuteAsyncScript(
                """
                const done = arguments[arguments.length - 1];
                const link = [...document.querySelectorAll('#files a')].find(a => a.innerText === 'wall-final.png');
                fetch(link.href).then(r => done(r.headers.get('content-disposition').split(';')[0] + ' ' + r.status));
                """
            )
        );
        client.Press("All is well, I approve the work");
        client.See("and approved by you on 2 June 2027");
    }

    private void TheProjectIsFinishedPutAwayAndFound()
    {
        owner.Go(record);
        owner.See("still needs: the closing steps");
        foreach (var task in new[] { "Take photos for the portfolio", "Note what the wall needs in five years" })
        {
            owner.Tick($"{task} is done");
            owner.See($"Done: {task}");
        }
        owner.See("handed over, approved and paid");
        owner.Press("Put it away");
        owner.See("Take it out again");

        owner.Go("/templates");
        owner.See("Menu boards");
        owner.Chord(Keys.Control, "k");
        owner.Type("Find", "lantern");
        owner.See("Mural for Lantern House");
        owner.Key(Keys.Enter);
        owner.See("Take it out again");

        // won once, in January; received once, in June
        owner.Go("/register?group=BookedMonth&words=Lantern&columns=Value&columns=Paid&columns=Booked");
        owner.See("January 2027 1, 1 booked");
        owner.See("1 project, 1 booked, worth € 5 180.00 net");
        owner.See("€ 6 371.40");
        owner.Go("/today");
        owner.See("June so far:");
        owner.Wait(() => owner.Text.Contains("€ 3 822.84 received", StringComparison.Ordinal), () => owner.Text);
    }

    private void Keep(string name, string what)
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("gesamt-file").FullName, name);
        File.WriteAllBytes(file, DemoPictures.Draw(name));
        owner.Go(record);
        owner.Unfold("Files");
        owner.Attach("Files to keep", file);
        owner.See($"Kept: {name}");
        // where it belongs follows from where the project stands
        owner.Wait(
            () => owner.Section("Kept just now").Contains(what, StringComparison.Ordinal),
            () => owner.Section("Kept just now")
        );
        owner.Press("Close");
        owner.Wait(() => owner.Section("Files").Contains(name, StringComparison.Ordinal), () => owner.Section("Files"));
    }

    private void PutUp(string button, string says)
    {
        owner.Press("Put up for review");
        owner.See(says);
        Assert.Equal("sketch", owner.ValueOf("A yes closes the phase")); // the draft's own
        owner.Wait(() => owner.ValueOf("Subject").Length > 0, () => owner.Text);
        owner.Press(button);
        owner.SeeItLeave();
        owner.See("is with the client");
    }

    private void SayTheyPaid()
    {
        owner.Go(record);
        owner.Press("What happened?");
        owner.Tick("They paid");
        Assert.Equal("3822.84", owner.ValueOf("Amount"));
        owner.Press("Record: They paid");
    }

    /// <summary>Reminders about late invoices that have left the house.</summary>
    private int Reminders() =>
        demo
            .House.Services.CreateScope()
            .ServiceProvider.GetRequiredService<Desk>()
            .Db.Letters.Count(l =>
                l.Subject.StartsWith("Invoice 2027")
                && l.Subject.Contains("was due")
                && l.State == Store.Model.LetterState.Sent
                && l.ToMail == "mona@lanternhouse.example"
            );
}
