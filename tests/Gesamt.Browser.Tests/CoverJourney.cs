namespace Gesamt.Browser.Tests;

/// <summary>Others look at the screen: one key hides names and amounts everywhere, and shows them again. Then the quieter corners of Today.</summary>
public sealed class CoverJourney(Demo demo) : IClassFixture<Demo>
{
    private static readonly string[] Names =
    [
        "Oona",
        "Pettigrew",
        "Harbour",
        "Kestrel",
        "Quill",
        "Oskar",
        "Bellfounder",
        "Copperline",
        "oona@",
        "Zephyrine",
        "Quast",
        "6 875",
        "4 031",
    ];

    private readonly Person owner = demo.Owner,
        client = demo.Client;

    [Fact]
    public void One_key_hides_names_and_amounts_everywhere()
    {
        owner.Go("/today");
        owner.See("Oona Pettigrew");
        owner.Key("v");
        owner.See("Names and amounts are hidden.");
        owner.See("bakery wall");
        Assert.Equal("", Seen());
        Assert.Equal("", owner.Violations());
        WhoComesMeanwhileIsHidden();
        foreach (
            var (page, shows) in new[]
            {
                ("/turns", "Whose turn is it?"),
                ("/season", "Next free start"),
                ("/week", "Not on a day"),
                ("/register", "Not yet booked"),
                ("/money/invoices?by=Age", "of it late"),
                ("/money", "is owed to you"),
                ("/money/accounts", "Current account"),
                ("/money/bank", "To be matched"),
                ("/reports", "What it brought"),
                ("/reports?by=Client", "by client"),
                ("/people", "longest without contact first"),
                ("/people/papers", "▪▪▪"),
                ("/came-in", "What clients did"),
            }
        )
        {
            owner.Go(page);
            owner.See(shows);
            owner.Wait(() => Seen().Length == 0, () => $"{page} shows {Seen()}");
        }
        owner.Go("/turns");
        owner.PressWith("bakery wall");
        owner.See("What happened?");
        owner.Wait(() => Seen().Length == 0, () => $"The record shows {Seen()}");
        Assert.DoesNotContain("Harbour", owner.Driver.Title, StringComparison.Ordinal);
        // what is hidden is never saved in the place of what it hides
        owner.Press("Change title, source and kinds");
        owner.Wait(
            () => owner.Driver.FindElements(By.CssSelector("input[value*='▪']")).Count > 0,
            () => "The popover of the head shows no hidden title."
        );
        owner.Press("Keep it");
        owner.See("What is hidden cannot be saved");
        owner.Key(Keys.Escape);
        // search, too
        owner.Chord(Keys.Control, "k");
        owner.SeeHeard("combobox “Find”");
        owner.Key("bakery");
        owner.See("bakery wall");
        Assert.Equal("", Seen());
        owner.Key(Keys.Escape);
        owner.Go("/today");
        owner.See("bakery wall");
        owner.Key("v");
        owner.See("Oona Pettigrew");
        owner.SeeNot("Names and amounts are hidden.");
        Assert.Contains("Harbour bakery wall", owner.Text, StringComparison.Ordinal);
        NotesArePinned();
        EarlierDaysAreLookedThrough();
        WhoIsSignedOutMeanwhileComesToTheDoor();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    /// <summary>What the screen still shows of them, also to a screen reader.</summary>
    private string Seen()
    {
        var all = (string)
            owner.Driver.ExecuteScript(
                "return document.body.textContent + [...document.querySelectorAll('[aria-label], [title]')].map(e => e.getAttribute('aria-label') + e.getAttribute('title')).join(' ')"
            )!;
        return string.Join(
            ", ",
            Names.Where(name => all.Replace('\u00a0', ' ').Contains(name, StringComparison.Ordinal))
        );
    }

    private void WhoComesMeanwhileIsHidden()
    {
        client.Go("/i/mural");
        client.Type("Your name", "Zephyrine Quast");
        client.Type("Mail address", "zephyrine@quast.example");
        client.Type("What should the wall say?", "A heron.");
        client.Type("Size of the wall", "12");
        client.Choose("Can a scaffold stand before the wall?", "yes");
        client.Tick("You may keep my answers");
        client.Press("Send the inquiry");
        client.See("Thank you, your inquiry has arrived.");
        owner.See("Mural for ▪▪▪ ▪▪▪");
        Assert.Equal("", Seen());
    }

    private void WhoIsSignedOutMeanwhileComesToTheDoor()
    {
        owner.Go("/today");
        owner.See("Your turn");
        owner.Key("v");
        owner.See("Names and amounts are hidden.");
        // of every path
        owner.Driver.ExecuteCdpCommand("Network.clearBrowserCookies", []);
        owner.Go("/today");
        owner.See("Your password");
        owner.SignIn();
        owner.See("Names and amounts are hidden.");
        owner.Wait(() => Seen().Length == 0, () => $"Today shows {Seen()}");
    }

    private void NotesArePinned()
    {
        owner.Go("/turns");
        owner.PressWith("Saltmarsh gym");
        owner.See("What happened?");
        owner.Key("n");
        owner.Key("note the key hangs in the boiler room");
        owner.Key(Keys.Enter);
        owner.See("Kept: a note for Saltmarsh gym");
        owner.PressWith("the key hangs in the boiler room");
        owner.Press("Pin to Today");
        owner.See("The note stands on Today");
        owner.Go("/today");
        owner.See("Pinned");
        owner.See("the key hangs in the boiler room");
        Assert.Equal("", owner.Violations());
        owner.PressWith("take down");
        owner.See("Taken down: the key hangs");
        owner.Press("Undo");
        owner.See("Pinned");
    }

    private void EarlierDaysAreLookedThrough()
    {
        owner.Press("earlier days");
        owner.See("Monday 25 January");
        owner.See("Ada Quill signed, Kestrel climbing hall");
        owner.Press("Earlier days");
        owner.Choose("Show", "money");
        owner.SeeNot("Ada Quill signed");
        owner.See("from Oona Pettigrew");
        Assert.Equal("", owner.Violations());
    }
}
