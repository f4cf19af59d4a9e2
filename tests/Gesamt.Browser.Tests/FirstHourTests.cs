namespace Gesamt.Browser.Tests;

/// <summary>The first hour of two trades that are not the demo's: from an empty house to a booked project with papers in their words, without a file or a terminal.</summary>
public sealed class FirstHourTests : IDisposable
{
    private readonly Started house = new();
    private readonly Person owner,
        client;

    public FirstHourTests() => (owner, client) = (new(house.Address), new(house.Address));

    public void Dispose()
    {
        owner.Dispose();
        client.Dispose();
        house.Dispose();
    }

    [Fact]
    public void A_stationer_whose_date_is_the_wedding_day()
    {
        SetUp("Inkwell & Daughter", "Mara Quince");
        Begin("Stationery", tax: "19");
        owner.See("To begin with");
        Assert.Equal("", owner.Violations());
        ThePricesAreHers();
        AStrangerInquires(
            "wedding-stationery",
            "Edda Holm",
            ("And your partner’s name?", "Nils Holm"),
            ("Wedding day", "in 9 months"),
            ("About how many households do you invite?", "about 60"),
            ("What should it feel like?", "Plain paper, dark green, our dog in the corner.")
        );
        owner.Go("/today");
        owner.PressWith("Wedding stationery for Edda Holm");
        owner.See("Wedding day");
        owner.See("Plain paper, dark green, our dog in the corner.");
        AnswerAndPropose("Invitation with envelope", "60");
        var contract = TheClientChoosesAndSigns("Edda Holm");
        Assert.Contains("the stationery for the wedding on", contract, StringComparison.Ordinal);
        Assert.Contains("Printing begins when the proof is approved in writing", contract, StringComparison.Ordinal);
        Assert.Contains("Invitation with envelope, 60 pieces", contract, StringComparison.Ordinal);
        Pays();
        owner.Press("Add your signature");
        owner.See("by both");
        owner.See("still needs: handover");
        // the work goes on in her words
        owner.Unfold("Phases");
        owner.See("printing");
        owner.See("Invitations handed over");
        Papers();
    }

    [Fact]
    public void Advice_by_the_hour_without_a_date()
    {
        SetUp("Second Opinion", "Ruth Okafor");
        Begin("Advice by the hour", tax: "");
        owner.See("To begin with");
        AStrangerInquires(
            "advice",
            "Tom Aldous",
            ("What is the question?", "Should we move the workshop before or after the summer?"),
            ("What have you tried so far?", "A list of pros and cons, twice.")
        );
        owner.Go("/today");
        owner.PressWith("Advice for Tom Aldous");
        owner.See("Should we move the workshop");
        owner.SeeNot("not known");
        AnswerAndPropose("Advice", "3");
        var contract = TheClientChoosesAndSigns("Tom Aldous");
        Assert.Contains("What I hear stays with me.", contract, StringComparison.Ordinal);
        Assert.DoesNotContain("date", contract.Split("What was chosen")[0], StringComparison.OrdinalIgnoreCase);
        owner.Go(new Uri(owner.Driver.Url).AbsolutePath);
        owner.Press("Add your signature");
        owner.See("by both");
        // the signature alone books it
        owner.See("We can begin");
        owner.See("Prepare the first talk");
        Pays();
        Papers();
    }

    private void SetUp(string studio, string name)
    {
        owner.Go("/");
        owner.See("Whose studio is it?");
        Assert.Equal("", owner.Violations());
        owner.Screen(390, 844);
        Assert.Equal("", owner.Violations());
        owner.Screen(1280, 800);
        owner.Type("Name of the studio", studio);
        owner.Type("Your name, as it stands under letters", name);
        owner.Type("Your mail address", "mail at studio");
        owner.Type("Choose your password", name.ToLowerInvariant());
        owner.See("Easily guessed");
        owner.Press("Set up the studio");
        owner.See("A mail address, such as name@place.example.");
        owner.Type("Your mail address", "mail@studio.example");
        owner.Type("Choose your password", "paper boats at noon");
        owner.See("Strong.");
        owner.Press("Set up the studio");
        owner.See("What kind of work do you do?");
        Assert.Equal("", owner.Violations());
    }

    private void Begin(string set, string tax)
    {
        owner.Tick(set);
        owner.Choose("Your time zone", "Europe/Berlin");
        owner.Type("Tax on what you sell, %", tax.Length > 0 ? tax : "0");
        owner.Press("Begin");
    }

    private void ThePricesAreHers()
    {
        owner.Press("Your prices");
        owner.See("offered for this kind");
        owner.PressWith("Invitation with envelope");
        owner.Within("Invitation with envelope", () => owner.Type("Price", "7.20"));
        owner.Press("Keep the services");
        owner.Wait(
            () => !owner.Driver.FindElements(By.XPath("//button[.='Keep the services']")).Any(b => b.Enabled),
            () => "The services are not kept."
        );
        owner.Go("/today");
        owner.See("4 steps, in any order");
        owner.SeeNot("Your prices");
    }

    private void AStrangerInquires(string form, string name, params (string Label, string Text)[] answers)
    {
        client.Screen(390, 844);
        client.Go($"/i/{form}");
        client.Type("Your name", name);
        client.Type("Mail address", "client@lanternhouse.example");
        foreach (var (label, text) in answers)
            client.Type(label, text);
        client.Tick("You may keep my answers");
        client.Press("Send the inquiry");
        client.See("Thank you, your inquiry has arrived.");
        client.Screen(1280, 800);
    }

    private void AnswerAndPropose(string service, string quantity)
    {
        var record = new Uri(owner.Driver.Url).AbsolutePath;
        owner.Press("Answer the inquiry");
        owner.See("Your mail is not set yet: this letter stays in the program’s own post office");
        owner.Choose("Begin with", "First answer with a question");
        owner.Tick("With it I say that it is a fit");
        owner.Press("Send the letter");
        owner.SeeItLeave();
        owner.Go(record);
        owner.Press("Write the proposal");
        owner.See("No service yet");
        owner.Pick("Add from the price list", service);
        owner.Within(service, () => owner.Type("Quantity", quantity));
        owner.Wait(() => owner.ValueOf("Letter").Contains("[page link]", StringComparison.Ordinal), () => owner.Text);
        owner.Press("Send the proposal");
        owner.See("Proposal, version 1, is out");
    }

    /// <returns>The contract as the client read it.</returns>
    private string TheClientChoosesAndSigns(string name)
    {
        var record = new Uri(owner.Driver.Url).AbsolutePath;
        owner.Go("/post-office");
        owner.PressWith("Your proposal for");
        owner.Wait(
            () => owner.Driver.FindElements(By.CssSelector("article a[href*='/p/']")).Count > 0,
            () => owner.Text
        );
        client
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
        client.Press("Choose this and go on to sign");
        client.See("I have read this contract");
        var contract = client.Text;
        client.Tick("I have read this contract");
        client.Type("Your full name, as your signature", name);
        client.Press("Sign the contract");
        client.See($"Signed by {name}");
        owner.Go(record);
        owner.See("signed, add your signature");
        return contract;
    }

    private void Pays()
    {
        owner.Press("Record a payment");
        owner.Press("Record: They paid");
        owner.See("received");
    }

    private void Papers()
    {
        owner.Unfold("At hand");
        Assert.Equal(
            "%PDF %PDF",
            owner.Driver.ExecuteAsyncScript(
                """
                const done = arguments[arguments.length - 1];
                Promise.all([...document.querySelectorAll('aside a[href$=".pdf"]')].map(a => fetch(a.href).then(r => r.text()).then(t => t.slice(0, 4)))).then(heads => done(heads.slice(0, 2).join(' ')));
                """
            )
        );
    }
}
