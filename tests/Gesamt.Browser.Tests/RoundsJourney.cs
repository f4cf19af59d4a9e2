using Gesamt.Web.Demo;

namespace Gesamt.Browser.Tests;

/// <summary>A draft through its rounds: what was said of the first two stands with them, the third is a document marked on its page, the fourth was not agreed and becomes a priced extra.</summary>
public sealed class RoundsJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;
    private string record = "";

    [Fact]
    public void Remarks_are_pinned_to_pages_and_one_round_too_many_is_signed_for()
    {
        owner.Go("/register?words=signal box café");
        owner.PressWith("Signal box café");
        owner.See("What happened?");
        record = new Uri(owner.Driver.Url).AbsolutePath;
        Keep(MadeFiles.Pdf("letters.pdf", "Platform two", "Tickets and tea"));
        PutUp("This is the last round that was agreed.", "Put up round 3", "letters.pdf");
        TheClientMarksThePage();
        TheOwnerSeesTheMark();
        Keep(MadeFiles.Kept("letters-2.png", DemoPictures.Draw("letters-2.png")));
        AFurtherRoundIsPriced();
        TheClientSignsForIt();
        ItIsPutUpAndGood();
        WhatIsTypedWhileLeavingIsKept();
        foreach (var one in new[] { owner, client })
            Assert.DoesNotContain(one.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void TheClientMarksThePage()
    {
        Follow("Signal box café: a draft to look at");
        client.See("Paint, round 3 of 3");
        client.See("This is the last round that is included.");
        // what was said of the rounds before still stands with them
        client.See("2: The clock should say five past eight");
        client.Press("Page after");
        client.See("Page 2 of 2");
        client.See("Tickets and tea"); // as it is heard
        Assert.Equal("", client.Violations());
        client.Screen(390, 844);
        Assert.True((bool)client.Driver.ExecuteScript("return document.documentElement.scrollWidth <= innerWidth")!);
        client.Screen(1280, 800);
        client.Press("Remark on this page as a whole");
        client.See("About page 2.");
        client.Press("Point at a place in page 2 of letters.pdf: arrow keys lead there, Enter sets it");
        client.See("About the place you marked on page 2.");
        client.Type("What do you see?", "There were no tickets in 1961.");
        client.Press("Ask for these changes");
        client.See("1, page 2: There were no tickets in 1961.");
    }

    private void TheOwnerSeesTheMark()
    {
        owner.Go(record);
        owner.PressWith("Wren asks for changes, paint, round 3");
        // the page that is meant is the one that is open
        owner.See("Page 2 of 2");
        owner.See("1, page 2: There were no tickets in 1961.");
        owner.Wait(
            () => (bool)owner.Driver.ExecuteScript("return !!document.querySelector('canvas + p')?.textContent")!,
            () => owner.Text
        );
        Assert.Equal("", owner.Violations());
        owner.Press("Close");
    }

    private void AFurtherRoundIsPriced()
    {
        owner.Press("Put up for review");
        owner.See("3 rounds were agreed; this one goes beyond them.");
        owner.Press("Write an amendment");
        owner.See("is invoiced and stays");
        owner.Press("Something else");
        owner.Type("Service", "A fourth round of drafts");
        owner.Type("Unit price", "180");
        owner.See("€ 5 153.70 becomes € 5 375.10.");
        owner.Press("Send the amendment");
        owner.See("Letter “A change to what we agreed, Signal box café”");
    }

    private void TheClientSignsForIt()
    {
        Follow("A change to what we agreed, Signal box café");
        client.See("A fourth round of drafts");
        client.Tick("I have read this amendment");
        client.Type("Your full name, as your signature", "Wren Adair");
        client.Press("Sign the amendment");
        owner.Go(record);
        owner.See("by an amendment");
    }

    private void ItIsPutUpAndGood()
    {
        owner.Press("Put up for review");
        owner.See("this one goes beyond them");
        OnlyDraft("letters-2.png");
        owner.Press("Put up round 4");
        owner.See("3 rounds were agreed and this is round 4.");
        owner.Tick("A further round is meant; what it costs stands in the letter.");
        owner.Press("Put up round 4");
        owner.SeeItLeave();
        owner.See("is with the client");
        client.Driver.Navigate().Refresh();
        client.See("This round goes beyond what is included.");
        client.Press("Point at a place in letters-2.png: arrow keys lead there, Enter sets it");
        client.Type("What do you see?", "Now it is right.");
        client.Press("It is good as it is");
        client.See("you said yes");
        client.See("Now it is right.");
        owner.Go(record);
        owner.PressWith("Wren approved paint, round 4");
        owner.See("approved by Wren Adair");
        owner.Press("Close");
        // a yes opens the next phase
        owner.See("varnish in work, 2 done");
    }

    private void WhatIsTypedWhileLeavingIsKept()
    {
        const string Field = "When may it be loud?";
        var page = client.Driver.Url;
        client.TypeAndLeave(Field, "after nine");
        client.Wait(
            () =>
            {
                client.Driver.Navigate().GoToUrl(page);
                client.See(Field);
                return client.ValueOf(Field) == "after nine";
            },
            () => $"What was typed last is lost: {client.Text}"
        );
    }

    private void Keep(string file)
    {
        owner.Go(record);
        owner.Unfold("Files");
        owner.Attach("Files to keep", file);
        owner.See($"Kept: {Path.GetFileName(file)}");
        owner.Press("Close");
    }

    private void PutUp(string says, string button, string draft)
    {
        owner.Press("Put up for review");
        owner.See(says);
        OnlyDraft(draft);
        owner.Wait(() => owner.ValueOf("Subject").Length > 0, () => owner.Text);
        owner.Press(button);
        owner.SeeItLeave();
        owner.See("is with the client");
    }

    /// <summary>The newest draft is ticked by itself; nothing else is.</summary>
    private void OnlyDraft(string name) =>
        Assert.Equal(
            name,
            owner.Driver.ExecuteScript(
                "return [...document.querySelectorAll('fieldset input:checked')].map(e => e.labels[0].innerText.split('\\n')[0]).join()"
            )
        );

    private void Follow(string subject)
    {
        owner.Go("/post-office");
        owner.PressWith(subject);
        owner.See("/p/");
        client
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
    }
}
