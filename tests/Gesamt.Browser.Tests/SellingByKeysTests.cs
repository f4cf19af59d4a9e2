namespace Gesamt.Browser.Tests;

/// <summary>A proposal written, chosen and signed by keys alone, each place known by the role and name that a screen reader tells; the client has a screen as narrow as a phone's.</summary>
public sealed class SellingByKeysTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;

    [Fact]
    public void A_proposal_is_written_chosen_and_signed_without_a_pointer()
    {
        owner.Go("/today");
        owner.See("Ready to go out");
        owner.Chord(Keys.Control, "k");
        owner.SeeHeard("combobox “Find”");
        owner.Key("Causeway hostel");
        owner.See("Nell Harrow");
        owner.Key(Keys.Enter);
        owner.See("Your turn for");
        WriteAndSend();
        client.Screen(390, 844);
        ChooseAndSign();
        owner.See("Nell signed the contract");
        owner.Key("a");
        owner.SeeHeard("button “Add your signature”");
        Assert.Empty(owner.Complaints());
        Assert.Empty(client.Complaints());
    }

    private void WriteAndSend()
    {
        owner.Key("a");
        owner.SeeHeard("link “Write the proposal”");
        owner.Key(Keys.Enter);
        owner.See("No service yet");
        AddFromPriceList("Gable mural");
        owner.See("3 360.00");
        AddFromPriceList("Scissor lift");
        owner.See("24 m² at 140.00");
        owner.See("Gable mural, 24 m²");
        owner.KeyTo(Keys.Tab, "textbox", "Letter");
        owner.See("kept");
        owner.Wait(() => owner.ValueOf("Letter").Contains("[page link]", StringComparison.Ordinal), () => owner.Text);
        owner.Chord(Keys.Control, Keys.Enter);
        owner.See("On its way: Your proposal for Causeway hostel");
        owner.See("Proposal, version 1, is out");
    }

    private void AddFromPriceList(string service)
    {
        owner.KeyTo(Keys.Tab, "button", "Add from the price list", 120);
        owner.Key(Keys.Enter);
        owner.SeeHeard("menuitem “Gable mural");
        // walked to by its first letters, and taken only by Enter
        owner.Key(service[..4]);
        owner.SeeHeard($"menuitem “{service}");
        owner.Key(Keys.Enter);
    }

    private void ChooseAndSign()
    {
        var record = owner.Driver.Url;
        owner.Go("/post-office");
        owner.PressWith("Your proposal for Causeway hostel");
        owner.See("/p/");
        client
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
        owner.Driver.Navigate().GoToUrl(record);
        client.See("Gable mural");
        client.KeyTo(Keys.Tab, "button", "Choose this and go on to sign");
        client.Key(Keys.Enter);
        client.SeeHeard("heading “Causeway hostel”");
        client.KeyTo(Keys.Tab, "checkbox", "I have read this contract");
        client.Key(Keys.Space);
        client.KeyTo(Keys.Tab, "textbox", "Your full name, as your signature");
        client.Key("Nell Harrow");
        client.KeyTo(Keys.Tab, "button", "Sign the contract");
        client.Key(Keys.Enter);
        client.See("The first payment");
    }
}
