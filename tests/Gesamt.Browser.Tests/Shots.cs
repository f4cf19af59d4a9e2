namespace Gesamt.Browser.Tests;

/// <summary>Makes the pictures of docs/screenshots from the demo. Run by ./gesamt shots, not with the tests.</summary>
public sealed class Shots
{
    private static readonly string Folder =
        Environment.GetEnvironmentVariable("GESAMT_SHOTS") ?? Path.Combine(House.Root, "docs", "screenshots");

    [Fact(Explicit = true)]
    public void All()
    {
        using var house = new House();
        using var owner = new Person(house.Address);
        owner.SignIn();
        Shot(owner, "today", "Came in");
        owner.Screen(390, 844);
        Shot(owner, "today-phone", "Your turn");
        owner.Screen(1280, 800);
        Page(owner, "/turns", "turns", "Whose turn is it?");
        owner.Go("/today");
        owner.See("Came in");
        owner.Go("/turns");
        owner.PressWith("Harbour bakery wall");
        Shot(owner, "record", "Open tasks");
        var record = new Uri(owner.Driver.Url).AbsolutePath;
        owner.Go($"{record}?write=letter");
        owner.Choose("Begin with", "A word to the neighbours");
        owner.See("As it will read");
        owner.Driver.ExecuteScript(
            "[...document.querySelectorAll('button[aria-expanded]')].find(e => e.innerText.startsWith('As it will read')).scrollIntoView({block: 'center'})"
        );
        Shot(owner, "letter", "Earlier");
        Page(owner, "/register", "register", "Not yet booked");
        Page(owner, "/week", "week", "Not on a day");
        Page(owner, "/season", "season", "Next free start");
        Routine(owner);
        owner.Go("/templates");
        owner.See("used by");
        owner.Driver.ExecuteScript(
            "[...document.querySelectorAll('button[aria-expanded]')].find(e => e.innerText.startsWith('Forms')).click()"
        );
        owner.Press("A mural for your wall");
        owner.See("As a visitor sees it");
        owner.Driver.ExecuteScript(
            "document.querySelector('[aria-label=\"As a visitor sees it\"]').closest('.panel').scrollIntoView()"
        );
        Shot(owner, "forms");
        owner.Go("/register?words=ropeworks");
        owner.PressWith("Ropeworks lettering weekend");
        owner.See("What happened?");
        Page(owner, $"{new Uri(owner.Driver.Url).AbsolutePath}/run-sheet", "run-sheet", "To print, for");
        owner.Go("/register?words=harbour bakery");
        owner.PressWith("Harbour bakery wall");
        owner.See("What happened?");
        owner.Go($"{new Uri(owner.Driver.Url).AbsolutePath}?sheet=Lists and boards");
        owner.See("Which gulls?");
        owner.Press("Which gulls?");
        Shot(owner, "board", "Still, on the ridge");
        Page(owner, "/money", "money", "Paint and primer");
        Page(owner, "/reports", "reports", "An hour worth 70");
        owner.Go("/turns");
        owner.PressWith("Dovecote taproom");
        owner.Press("Proposal");
        Shot(owner, "proposal", "As suggested");
        Page(owner, "/people", "people", "Last contact");
        owner.Go("/post-office");
        owner.Type("Only letters from or to", "oskar");
        owner.Wait(() => !owner.Text.Contains("to Ada", StringComparison.Ordinal), () => "The list does not narrow.");
        owner.PressWith("Your proposal for Quay Street arcade");
        owner.See("/p/");
        var link = owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!;
        owner.Driver.Navigate().GoToUrl(link);
        owner.Screen(390, 844);
        Shot(owner, "choose-phone", "Your choice");
        owner.Screen(1280, 800);
        owner.Go("/post-office");
        owner.Type("Only letters from or to", "oona");
        owner.PressWith("Harbour bakery wall: a draft to look at");
        owner.See("/p/");
        var page = owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!;
        owner.Screen(390, 844);
        owner.Driver.Navigate().GoToUrl(page);
        Shot(owner, "client-page-phone", "Which gulls?");
        owner.Screen(1280, 800);
        owner.Go("/today");
        Contract(owner);
    }

    /// <summary>A routine with the dates it would give.</summary>
    private static void Routine(Person owner)
    {
        owner.Go("/templates/routines");
        owner.PressWith("Before the opening");
        owner.See("Who is in it");
        owner.Type("a project", "reading nook");
        owner.PressWith("Tidewater reading nook");
        owner.See("dates for Tidewater reading nook");
        owner.PressWith("3 weeks before the opening day");
        owner.See("Move it up");
        // the dates come a moment after the steps
        Shot(owner, "routine", "Thu 3 Jun, 09:00");
    }

    /// <summary>The first page of a sealed contract, drawn by poppler.</summary>
    private static void Contract(Person owner)
    {
        owner.Screen(1280, 800);
        owner.Go("/people/papers?words=harbour");
        owner.See("Oona Pettigrew");
        var file = owner.Fetched(".pdf");
        var path = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.pdf");
        try
        {
            File.WriteAllBytes(path, file);
            using var drawn = System.Diagnostics.Process.Start(
                "pdftoppm",
                ["-png", "-r", "110", "-singlefile", path, Path.Combine(Folder, "contract")]
            )!;
            drawn.WaitForExit();
            Assert.Equal(0, drawn.ExitCode);
        }
        finally
        {
            File.Delete(path);
        }
    }

    private static void Page(Person person, string path, string name, string shows)
    {
        person.Go(path);
        Shot(person, name, shows);
    }

    private static void Shot(Person person, string name, string? shows = null)
    {
        if (shows is not null)
            person.See(shows);
        person.Shot(Path.Combine(Folder, $"{name}.png"));
    }
}
