namespace Gesamt.Browser.Tests;

/// <summary>What is not allowed is said once, beside its field, and the focus goes there; nothing that was typed is lost.</summary>
public sealed class RefusalTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public void What_is_wrong_with_a_project_is_said_once_where_it_stands()
    {
        owner.Go("/turns");
        owner.PressWith("Harbour bakery wall");
        owner.See("What happened?");
        var record = new Uri(owner.Driver.Url).AbsolutePath;

        owner.Press("change");
        owner.Type("Title", "");
        SaysOnce("Keep it", "A title of 1 to 200 characters is needed.");

        owner.Go($"{record}?write=letter");
        owner.Type("Text", "Words that must not be lost.");
        SaysOnce("Send the letter", "A subject of 1 to 200 characters is needed.");
        Assert.Contains("Words that must not be lost.", owner.ValueOf("Text"));

        owner.Go($"{record}?sheet=Open+tasks");
        owner.Type("Add a task", new string('x', 300));
        SaysOnce("Keep the task", "A task of 1 to 200 characters is needed.");

        owner.Go($"{record}?sheet=Details");
        owner.Press("fill in");
        owner.Type("wall size (m²)", "wide");
        SaysOnce("Keep the details", "A number (m²), such as 12.5, “about 24” or “6 x 4”.");

        owner.Go($"{record}?sheet=People");
        owner.Press("change: Oona Pettigrew");
        owner.Type("Name", "");
        owner.Type("Mail", "nonsense");
        SaysOnce("Keep", "A name of 1 to 120 characters is needed.", "A mail address, such as name@place.example.");

        owner.Go(record);
        owner.Press("move the opening day");
        owner.Type("New date", "never");
        SaysOnce("Show what moves with it", "Write a day, such as fri");
    }

    [Fact]
    public void What_is_wrong_with_the_studio_is_said_where_it_stands_and_below_the_button_that_was_pressed()
    {
        owner.Go("/studio");
        owner.PressWith("Money and invoices");
        owner.Type("IBAN", "IE00");
        owner.Press("Keep the studio");
        owner.See("its check digits must fit");
        Assert.Single(owner.Driver.FindElements(By.CssSelector("[role=alert]")));
        IsLedToWhatIsWrong("Keep the studio");
    }

    [Fact]
    public void What_is_refused_to_a_button_alone_is_said_at_the_lower_edge()
    {
        owner.Go("/turns");
        owner.PressWith("Harbour bakery wall");
        owner.See("What happened?");
        var task = owner.Driver.FindElement(By.CssSelector("aside input[type=checkbox]"));
        Connect(false);
        task.Click();
        owner.See("Gesamt cannot be reached. What you typed is still here");
        Connect(true);
    }

    private void Connect(bool connected)
    {
        owner.Driver.ExecuteCdpCommand("Network.enable", []);
        owner.Driver.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new()
            {
                ["offline"] = !connected,
                ["latency"] = 0,
                ["downloadThroughput"] = -1,
                ["uploadThroughput"] = -1,
            }
        );
    }

    /// <param name="messages">The beginnings of what is said.</param>
    private void SaysOnce(string button, params string[] messages)
    {
        owner.Press(button);
        foreach (var message in messages)
            owner.See(message);
        Assert.All(messages, message => Assert.Equal(2, owner.Text.Split(message).Length));
        IsLedToWhatIsWrong(button);
    }

    /// <summary>A field that is read while it is typed says what is wrong as soon as it is left: the words may stand before the answer leads to it.</summary>
    private void IsLedToWhatIsWrong(string button) =>
        owner.Wait(IsAtWhatIsWrong, () => $"The focus is elsewhere after “{button}”.");

    private bool IsAtWhatIsWrong() =>
        (bool)owner.Driver.ExecuteScript("return document.activeElement.getAttribute('aria-invalid') === 'true'")!;
}
