namespace Gesamt.Browser.Tests;

/// <summary>Every screen by what WCAG A and AA ask, by keyboard, and on a phone.</summary>
public sealed class ScreenTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;

    [Theory]
    [
        InlineData("/today", "Came in"),
        InlineData("/turns", "Whose turn is it?"),
        InlineData("/register", "Not yet booked"),
        InlineData("/reports", "Reminders before a yes"),
        InlineData("/templates", "Menu boards"),
        InlineData("/post-office", "Only letters"),
        InlineData("/i/mural", "A mural for your wall")
    ]
    public void A_screen_has_no_violation_in_either_scheme(string path, string shows)
    {
        foreach (var dark in new[] { false, true })
        {
            owner.Screen(1280, 800, dark);
            owner.Go(path);
            owner.See(shows);
            Assert.Equal("", owner.Violations());
        }
        owner.Screen(1280, 800);
    }

    [Theory] // WCAG 1.4.4 and 1.4.10: at twice its size on 1280, and on a phone, nothing is lost and nothing scrolls sideways
    [
        InlineData("/today", "Came in"),
        InlineData("/turns", "Whose turn is it?"),
        InlineData("/register", "Not yet booked"),
        InlineData("/reports", "Reminders before a yes"),
        InlineData("/week", "Not on a day"),
        InlineData("/season", "Next free start"),
        InlineData("/money", "is owed to you"),
        InlineData("/money/invoices", "Heron library"),
        InlineData("/money/bank", "To be matched"),
        InlineData("/money/accounts", "Current account"),
        InlineData("/money/accountant", "For the accountant"),
        InlineData("/came-in", "What clients did"),
        InlineData("/people", "last contact"),
        InlineData("/people/praise", "Keep as CSV"),
        InlineData("/people/1", "Piet Sorrel"),
        InlineData("/people/papers", "still to be signed by"),
        InlineData("/check", "Is this paper the sealed one?"),
        InlineData("/templates/services", "Services for every kind"),
        InlineData("/projects/1", "What happened?"),
        InlineData("/projects/1/proposal", "Contract that goes with it"),
        InlineData("/templates", "Menu boards"),
        InlineData("/templates/routines/1", "As text"),
        InlineData("/templates/letters", "Letters"),
        InlineData("/templates/routines", "After an inquiry"),
        InlineData("/templates/task-lists", "Task lists"),
        InlineData("/studio", "The studio"),
        InlineData("/tray", "Slips and letters"),
        InlineData("/import", "table"),
        InlineData("/post-office", "Only letters"),
        InlineData("/i/mural", "A mural for your wall")
    ]
    public void A_screen_is_whole_at_twice_its_size_and_on_a_phone(string path, string shows)
    {
        foreach (var (width, height) in new[] { (640, 400), (390, 844) })
        {
            owner.Screen(width, height);
            owner.Go(path);
            owner.See(shows);
            Assert.Equal("", owner.Violations());
            Assert.True(FitsItsWidth(owner), $"{path} at {width}: {WhatSticksOut(owner)}");
        }
        owner.Screen(1280, 800);
    }

    [Theory]
    [
        InlineData("/projects/99999", "There is no such project."),
        InlineData("/projects/99999/proposal", "There is no such project."),
        InlineData("/people/99999", "There is no such person."),
        InlineData("/nonsense", "There is no such page")
    ]
    public void What_is_not_there_is_told_in_the_main_part_of_the_page(string path, string told)
    {
        owner.Go(path);
        owner.See(told);
        Assert.Contains(told, (string)owner.Driver.ExecuteScript("return document.querySelector('main').innerText")!);
        Assert.Equal("", owner.Violations());
    }

    [Theory] // WCAG 2.4.11: what has the focus is not hidden beneath the bars at the edges
    [
        InlineData("/today", "Came in", 390, 844),
        InlineData("/today", "Came in", 1280, 400),
        InlineData("/turns", "Whose turn is it?", 390, 844),
        InlineData("/turns", "Whose turn is it?", 1280, 500),
        InlineData("/register", "Not yet booked", 390, 844),
        InlineData("/studio", "Keep the studio", 390, 844)
    ]
    public void Whatever_has_the_focus_can_be_seen(string path, string shows, int width, int height)
    {
        owner.Screen(width, height);
        owner.Go(path);
        owner.See(shows);
        List<string> hidden = [];
        var seen = 0;
        for (; seen < 60; seen++)
        {
            owner.Key(OpenQA.Selenium.Keys.Tab);
            var under = (string?)
                owner.Driver.ExecuteScript(
                    """
                    const e = document.activeElement;
                    if (!e || e === document.body) return null;
                    const r = e.getBoundingClientRect();
                    const at = document.elementFromPoint(r.left + r.width / 2, Math.min(r.top + r.height / 2, r.top + 8));
                    return at && (e.contains(at) || at.contains(e) || at.control === e || at.closest("label")?.control === e) ? "" : `${e.innerText || e.ariaLabel || e.id}: ${at?.className ?? "outside"}`;
                    """
                );
            if (under is null)
                break;
            if (under.Length > 0)
                hidden.Add(under);
        }
        owner.Screen(1280, 800);
        Assert.True(seen > 10, $"{seen} places to walk to");
        Assert.Empty(hidden);
    }

    private static string WhatSticksOut(Person person) =>
        (string)
            person.Driver.ExecuteScript(
                "return [...document.querySelectorAll('body *')].filter(e => e.getBoundingClientRect().right > innerWidth + 1).slice(0, 4).map(e => e.tagName + ' ' + e.className + ' ' + (e.innerText ?? '').slice(0, 40)).join(' | ')"
            )!;

    [Fact]
    public void The_sign_in_has_no_violation()
    {
        client.Go("/");
        client.See("Your password");
        Assert.Equal("", client.Violations());
        client.Type("Your password", "not it");
        client.Press("Sign in");
        client.See("The password is not right.");
    }

    [Fact]
    public void The_record_its_reader_its_letter_and_the_window_have_no_violation()
    {
        foreach (var dark in new[] { false, true })
        {
            owner.Screen(1280, 800, dark);
            OpenRecord("Harbour bakery wall");
            Assert.Equal("", owner.Violations());
            owner.PressWith("Oona: “Love the gulls");
            owner.See("Re: Harbour bakery wall");
            owner.See("Close");
            Assert.Equal("", owner.Violations());
            owner.Press("Write a letter");
            owner.See("Letter to Oona Pettigrew");
            Assert.Equal("", owner.Violations());
            owner.Press("What happened?");
            owner.See("Record: We spoke");
            Assert.Equal("", owner.Violations());
            owner.Key(Keys.Escape);
        }
        owner.Screen(1280, 800);
    }

    [Fact]
    public void Moving_a_date_putting_up_a_draft_and_the_page_as_its_client_have_no_violation()
    {
        foreach (var dark in new[] { false, true })
        {
            owner.Screen(1280, 800, dark);
            OpenRecord("Signal box café");
            owner.Press("move the opening day");
            owner.Type("New date", "2027-06-11");
            owner.Press("Show what moves with it");
            owner.See("Moves with it");
            Assert.Equal("", owner.Violations());
            owner.Key(Keys.Escape);
            owner.Press("Put up for review");
            owner.See("A yes closes the phase");
            Assert.Equal("", owner.Violations());
            owner.Press("Close");
            owner.Unfold("Client page");
            owner.Press("See it as Wren");
            owner.See("As Wren Adair sees it");
            Assert.Equal("", owner.Violations());
        }
        owner.Screen(1280, 800);
    }

    [Fact]
    public void The_client_page_has_no_violation_and_fits_a_phone()
    {
        owner.Go("/post-office");
        owner.Type("Only letters from or to", "oona");
        owner.PressWith("Harbour bakery wall: a draft to look at");
        owner.See("/p/");
        client.Screen(390, 844);
        client
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
        client.See("For you to do now");
        client.See("It is good as it is");
        Assert.Equal("", client.Violations());
        Assert.Equal(390L, client.Driver.ExecuteScript("return document.documentElement.scrollWidth"));
        client.Screen(1280, 800);
    }

    [Theory] // by the real server: the one of the other tests has no such limit
    [InlineData("/forms/mural", 3), InlineData("/api/session", 3), InlineData("/forms/mural", 60)]
    public async Task A_body_larger_than_allowed_is_refused(string path, int megabytes)
    {
        using var http = new HttpClient { BaseAddress = demo.House.Address };
        var content = new StringContent(
            $$"""{"password":"{{new string('x', megabytes * 1024 * 1024)}}"}""",
            System.Text.Encoding.UTF8,
            "application/json"
        );
        try
        {
            Assert.Equal(
                System.Net.HttpStatusCode.RequestEntityTooLarge,
                (await http.PostAsync(path, content)).StatusCode
            );
        }
        catch (HttpRequestException e)
        {
            Assert.IsType<IOException>(e.InnerException, exactMatch: false); // hung up on before all of it was sent
        }
    }

    [Fact]
    public void The_register_is_narrowed_sorted_and_kept_under_a_name()
    {
        owner.Go("/register");
        owner.See("64 projects");
        owner.Choose("Kind", "Workshop");
        owner.SeeNot("Harbour bakery wall");
        owner.Choose("Put together by", "year of inquiry");
        owner.Press("Value, net");
        owner.Press("Views, 0");
        owner.Type("Keep this view as", "Workshops by year");
        owner.Press("Keep the view");
        owner.See("Views, 1");
        owner.Go("/register");
        owner.See("Harbour bakery wall");
        owner.Press("Views, 1");
        owner.Press("Workshops by year");
        owner.SeeNot("Harbour bakery wall");
        Assert.Contains("kind=Workshop", owner.Driver.Url);
        Assert.Contains("group=Year", owner.Driver.Url);
    }

    [Fact]
    public void The_proposal_editor_has_no_violation_and_keeps_what_is_typed()
    {
        OpenRecord("Causeway hostel");
        owner.Press("Proposal");
        owner.See("Add from the price list");
        owner.Pick("Add from the price list", "Gable mural");
        owner.Within("Gable mural", () => owner.Type("Quantity", "12.5"));
        owner.See("€ 2 152.50");
        Assert.Equal("", owner.Violations());
        owner.Driver.Navigate().Refresh();
        owner.See("€ 2 152.50");
        owner.PressWith("Gable mural");
        owner.Within("Gable mural", () => owner.Type("Quantity", "many"));
        owner.See("The quantity of “Gable mural” must be a number");
    }

    [Fact]
    public void The_clients_pages_have_no_violation_on_a_phone()
    {
        owner.Go("/post-office");
        owner.PressWith("Your proposal for Larkspur nursery");
        owner.See("/p/");
        var link = owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!;
        client.Screen(390, 844);
        client.Driver.Navigate().GoToUrl(link);
        client.See("Your choice");
        Assert.Equal("", client.Violations());
        Assert.True(FitsItsWidth(client));
        client.Press("Choose this and go on to sign");
        client.See("Sign the contract");
        Assert.Equal("", client.Violations());
        client.Tick("I have read this contract");
        client.Type("Your full name, as your signature", "Hollis Byrne");
        client.Press("Sign the contract");
        client.See("Pay by card");
        Assert.Equal("", client.Violations());
        client.Press("Pay by card");
        client.See("Card payment, a stand-in");
        Assert.Equal("", client.Violations());
        client.Type("Card number", "1000 2000 3000 4000");
        client.PressWith("Pay €");
        client.See("is booked");
        Assert.Equal("", client.Violations());
        client.Screen(1280, 800);
    }

    [Fact]
    public void Today_and_the_record_fit_a_phone()
    {
        owner.Screen(390, 844);
        owner.Go("/today");
        owner.See("Your turn");
        Assert.True(FitsItsWidth(owner));
        owner.Screen(1280, 800);
        OpenRecord("Harbour bakery wall");
        owner.Screen(390, 844);
        Assert.True(FitsItsWidth(owner));
        owner.Screen(1280, 800);
    }

    [Fact]
    public void What_was_changed_in_a_held_letter_survives_a_reload()
    {
        owner.Go("/today");
        owner.See("Did the proposal reach you?");
        owner.Press("Edit");
        owner.See("waits for your OK since");
        owner.Type("Subject", "Did it arrive?");
        owner.Driver.Navigate().Refresh();
        owner.See("waits for your OK since");
        Assert.Equal("Did it arrive?", owner.ValueOf("Subject"));
    }

    [Fact]
    public void A_task_done_can_be_undone()
    {
        owner.Go("/today");
        owner.See("3 days late");
        owner.Tick("Order scaffold and lift is done");
        owner.See("Done: Order scaffold and lift");
        owner.SeeNot("3 days late");
        owner.Press("Undo");
        owner.See("3 days late");
    }

    [Fact]
    public void Keys_go_walk_and_open()
    {
        owner.Go("/today");
        owner.See("Your turn");
        owner.Key("g", "u");
        owner.See("Whose turn is it?");
        owner.Key("j", Keys.Enter);
        owner.See("What happened?");
        owner.Key("w");
        owner.See("Record: ");
        owner.Key(Keys.Escape);
        owner.SeeNot("Record: ");
        owner.Key("l");
        owner.See("Begin with");
        // the first leaves the field it began in, the second closes the letter
        owner.Key(Keys.Escape);
        owner.Key(Keys.Escape);
        owner.SeeNot("Begin with");
        owner.Key("n");
        owner.Key("Rang twice, nobody there");
        owner.Chord(Keys.Control, Keys.Enter);
        owner.See("Rang twice, nobody there");
        owner.Key(Keys.Escape);
        owner.Key("?");
        owner.See("This page, and all keys");
        owner.Key(Keys.Escape);
        owner.Key("g", "t");
        owner.See("Ready to go out");
    }

    [Fact] // of a booked project whose invoice is late
    public void What_happened_begins_with_the_likeliest_and_records_it_with_one_key()
    {
        OpenRecord("Bellfounder's yard");
        owner.Key("w");
        owner.See("Record: They paid");
        owner.Key(Keys.Enter);
        owner.SeeNot("Record: ");
        owner.See("by transfer");
    }

    [Fact]
    public void The_count_in_the_bar_on_today_and_on_turns_is_one_number()
    {
        owner.Go("/today");
        owner.See("Came in");
        var count = (string)
            owner.Driver.ExecuteScript("return document.querySelector('nav b').firstChild.textContent")!;
        Assert.StartsWith($"{count} project", owner.Section("Your turn").Split('\n')[1]);
        owner.Go("/turns");
        owner.See($"{count} wait for you");
    }

    private void OpenRecord(string title)
    {
        owner.Go("/turns");
        owner.PressWith(title);
        owner.See("The inquiry");
    }

    private static bool FitsItsWidth(Person person) =>
        (bool)person.Driver.ExecuteScript("return document.documentElement.scrollWidth <= window.innerWidth")!;
}
