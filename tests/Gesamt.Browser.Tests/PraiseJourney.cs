namespace Gesamt.Browser.Tests;

/// <summary>From words that pleased to words that may be quoted, and a leave that is taken back.</summary>
public sealed class PraiseJourney(Demo demo) : IClassFixture<Demo>
{
    private const string Praise = "The children read the cakes out loud, and their parents buy them.";

    private readonly Person owner = demo.Owner,
        client = demo.Client;

    [Fact]
    public void Praise_becomes_a_testimonial_and_a_leave_is_taken_back()
    {
        owner.Go("/register?putAway=true&words=counter");
        owner.PressWith("Harbour Lane counter boards");
        owner.See("What happened?");
        var record = new Uri(owner.Driver.Url).AbsolutePath;
        OneKeyKeepsIt();
        ItIsPutToTheClient();
        TheClientSaysItInTheirWords();
        ItStandsInTheList("may be quoted", "given");
        TheClientTakesItBack();
        ItStandsInTheList("taken back", "taken back");
        owner.Go("/people/praise?standing=MayBeQuoted");
        owner.See("Harbour Lane delivery van");
        owner.SeeNot("Harbour Lane counter boards");
        owner.Go(record);
        owner.See("Oona took back the leave to quote");
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void OneKeyKeepsIt()
    {
        owner.Key("n");
        owner.SeeHeard("textbox “Write a note, a task with its day, or a call”");
        owner.Key($"call {Praise}", Keys.Enter);
        owner.See(Praise);
        owner.PressWith(Praise);
        owner.See("Keep as praise");
        Assert.Equal("", owner.Violations());
        owner.Key("q");
        owner.See("Kept as praise");
        owner.Key(Keys.Escape);
        owner.Unfold("Praise");
        owner.Wait(() => owner.Section("Praise").Contains(Praise, StringComparison.Ordinal), () => owner.Text);
        Assert.Contains("Oona Pettigrew, Mon 25 Jan", owner.Section("Praise"));
    }

    private void ItIsPutToTheClient()
    {
        owner.Press("Ask to quote and to show");
        owner.Wait(
            () => owner.ValueOf("Letter").Contains("only in words that are right to you", StringComparison.Ordinal),
            () => owner.ValueOf("Letter")
        );
        Assert.Equal(Praise, owner.ValueOf("Words to be quoted"));
        Assert.Equal("Oona Pettigrew, Harbour Lane Bakery", owner.ValueOf("Given with the name"));
        owner.Type("Given with the name", "");
        owner.Press("Put it to the client");
        owner.See("The name it is given with is said in 1 to 120 characters.");
        Assert.Equal("", owner.Violations());
        owner.Type("Given with the name", "Oona, Harbour Lane Bakery");
        owner.Press("Put it to the client");
        owner.SeeItLeave();
    }

    private void TheClientSaysItInTheirWords()
    {
        owner.Go("/post-office");
        owner.PressWith("May I quote you? Harbour Lane counter boards");
        owner.See("/p/");
        client
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
        client.See("may quote and show");
        Assert.Equal(Praise, client.ValueOf("The words"));
        Assert.Equal("", client.Violations());
        client.Type("The words", "The children read the cakes out loud.");
        client.Press("These words are right");
        client.See("You approved these words on Mon 25 Jan");
        client.Within("May these words be quoted?", () => client.Press("Yes"));
        client.See("Yes, given Mon 25 Jan");
        client.Within("May the work be shown?", () => client.Press("No"));
        client.See("No, refused Mon 25 Jan");
        Assert.Equal("", client.Violations());
    }

    private void TheClientTakesItBack()
    {
        client.Press("Take it back");
        client.See("No, taken back Mon 25 Jan");
    }

    private void ItStandsInTheList(string standing, string leave)
    {
        owner.Go("/people/praise");
        owner.See("Harbour Lane counter boards");
        owner.Choose("Standing", standing);
        owner.Wait(
            () => !owner.Text.Contains("Tidewater entrance hall", StringComparison.Ordinal) || leave == "given",
            () => owner.Text
        );
        owner.See("“The children read the cakes out loud.”");
        owner.See($"{leave} Mon 25 Jan");
        Assert.Equal("", owner.Violations());
    }
}
