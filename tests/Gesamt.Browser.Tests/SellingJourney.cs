using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>A change asked for, a new version with its differences, one that ran out and is renewed, and the sealed contract known again.</summary>
public sealed class SellingJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;

    [Fact]
    public async Task A_change_is_answered_by_a_new_version_and_one_that_ran_out_is_renewed()
    {
        TheOwnerChangesWhatWasSent();
        TheClientReadsWhatIsDifferent();
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 1, 28, 10, 30));
        TheClientAsksToRenewIt();
        TheOwnerRenewsIt();
        TheClientChoosesAndSigns();
        TheFileIsTheSealedOne();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
        Assert.DoesNotContain(client.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void OpenRecord()
    {
        owner.Go("/register");
        owner.PressWith("Dovecote taproom");
        owner.See("What happened?");
    }

    private void TheOwnerChangesWhatWasSent()
    {
        OpenRecord();
        owner.See("they asked for a change");
        owner.Press("Proposal");
        owner.See("Version 1 went out");
        owner.Type("Valid until", "27 jan");
        owner.PressWith("Gable mural");
        owner.Within("Gable mural", () => owner.Type("Quantity", "20"));
        owner.Press("Done with it");
        owner.See("20 m² at 140");
        owner.PressWith("Different from version 1");
        owner.See("cheaper");
        owner.Press("On a phone");
        owner.See("Version 2: what is different now");
        Assert.Equal("", owner.Violations());
        owner.Press("Close");
        owner.Press("Send the proposal");
        owner.See("Proposal, version 2, is out");
    }

    private void TheClientReadsWhatIsDifferent()
    {
        owner.Go("/post-office");
        owner.PressWith("Your proposal for Dovecote taproom");
        owner.See("/p/");
        client.Screen(390, 844);
        client
            .Driver.Navigate()
            .GoToUrl(
                owner.Driver.FindElement(OpenQA.Selenium.By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!
            );
        client.See("valid until 27 January 2027");
        client.Press("Version 2: what is different now");
        client.See("cheaper");
        client.See("Gable mural, 20 m²");
        Assert.Equal("", client.Violations());
    }

    private void TheClientAsksToRenewIt()
    {
        client.Driver.Navigate().Refresh();
        client.See("This proposal was valid until 27 January 2027.");
        client.Press("Ask to renew it");
        client.See("has your words and will answer");
    }

    private void TheOwnerRenewsIt()
    {
        OpenRecord();
        owner.Unfold("At hand");
        owner.Press("Proposal, version 2");
        owner.See("It ran out 27 January 2027");
        owner.Press("Renew it and tell Pia Lomond");
        owner.See("Proposal, version 3, is out");
    }

    private void TheClientChoosesAndSigns()
    {
        client.Driver.Navigate().Refresh();
        client.See("valid until 11 February 2027");
        client.Press("Choose this and go on to sign");
        client.See("Go back and choose again");
        client.Press("Go back and choose again");
        client.Press("Keep what I chose");
        client.Tick("I have read this contract");
        client.Type("Your full name, as your signature", "Pia Lomond");
        client.Press("Sign the contract");
        client.See("The first payment");
        Assert.Equal("", client.Violations());
    }

    private void TheFileIsTheSealedOne()
    {
        owner.Go("/people/papers?words=dovecote");
        owner.See("Pia Lomond");
        Assert.Contains("sealed", owner.Section("Signed papers") + owner.Text);
        // one key from wherever one stands
        owner.Key("j");
        Assert.Equal(owner.Driver.FindElement(By.CssSelector("main a[href$='.pdf']")).Text, owner.Focused());
        Assert.Equal("", owner.Violations());
        var path = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.pdf");
        try
        {
            var file = owner.Fetched(".pdf");
            File.WriteAllBytes(path, file);
            client.Go("/check");
            client.See("Is this paper the sealed one?");
            Assert.Equal("", client.Violations());
            client.Attach("Choose a file", path);
            client.See("Yes.");
            client.See("signed by Pia Lomond");
            File.AppendAllText(path, " ");
            client.Attach("Choose a file", path);
            client.See("No.");
        }
        finally
        {
            File.Delete(path);
        }
    }
}
