using System.Text.RegularExpressions;

namespace Gesamt.Browser.Tests;

/// <summary>The owner's own file signed by two in their order, each with a code; an amendment after the first invoice; a rate sheet ticked. By hand, as people do it.</summary>
public sealed class SigningJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;

    private void OpenRecord(string title)
    {
        owner.Go("/register");
        owner.PressWith(title);
        owner.See("What happened?");
    }

    private void EnterBy(Person reader, string subject)
    {
        owner.Go("/post-office");
        owner.PressWith(subject);
        owner.See("/p/");
        reader
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
    }

    [Fact]
    public void Two_sign_the_owners_own_file_in_their_order_each_with_a_code()
    {
        OpenRecord("Quay Street arcade");
        owner.Unfold("People");
        owner.Press("add somebody");
        owner.Type("Who", "Nan Ware");
        owner.Choose("Their part", "decides");
        owner.PressWith("Nan Ware");
        owner.See("Nan Ware decides");
        owner.Go(new Uri(owner.Driver.Url).AbsolutePath + "/proposal");
        owner.PressWith("Contract that goes with it");
        var terms = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.pdf");
        File.WriteAllBytes(terms, OwnPdf());
        try
        {
            owner.Attach("Choose a PDF of your own as the contract", terms);
            owner.See("is the contract, in place of a text");
        }
        finally
        {
            File.Delete(terms);
        }
        owner.Pick("Say who signs", "Oskar Lind");
        owner.Pick("Somebody else signs too", "Nan Ware");
        // whoever is second can be first, by keys alone
        owner.KeyTo(Keys.Tab, "button", "Move Nan Ware", 120);
        owner.Key(Keys.Space);
        owner.Wait(() => owner.Text.Contains("raggable item"), () => owner.Text);
        owner.Key(Keys.ArrowUp);
        owner.Wait(
            () => Regex.IsMatch(owner.Text, @"item (\d+) was moved over droppable area (?!\1\b)"),
            () => owner.Text
        );
        owner.Key(Keys.Space);
        owner.Wait(
            () =>
                owner.Section("Signatures").IndexOf("Nan Ware", StringComparison.Ordinal)
                < owner.Section("Signatures").IndexOf("Oskar Lind", StringComparison.Ordinal),
            () => owner.Section("Signatures")
        );
        owner.Tick("A code goes to each one’s mail address");
        owner.See("kept");
        Assert.Equal("", owner.Violations());
        owner.Press("Send the proposal");
        owner.See("Proposal, version 2, is out");

        client.Screen(390, 844);
        EnterBy(client, "Your proposal for Quay Street arcade");
        client.Press("Choose this and go on to sign");
        client.See("It is with Nan Ware.");
        client.See("Read the contract:");
        Assert.Equal("", client.Violations());
        Assert.True((bool)client.Driver.ExecuteScript("return document.documentElement.scrollWidth <= innerWidth")!);

        using var nan = new Person(demo.House.Address);
        nan.Screen(390, 1500);
        EnterBy(nan, "Your signature for Quay Street arcade");
        SignWithCode(nan, "Nan Ware");
        nan.See("It is with Oskar Lind.");
        client.Screen(390, 1500);
        client.Driver.Navigate().Refresh();
        SignWithCode(client, "Oskar Lind");
        client.See("The first payment");
        OpenRecord("Quay Street arcade");
        owner.See("Oskar signed the contract");
        owner.See("Nan signed the contract");
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
        Assert.DoesNotContain(nan.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void SignWithCode(Person reader, string name)
    {
        reader.Tick("I have read this contract");
        reader.Type("Your full name, as your signature", name);
        reader.Press("Sign the contract");
        reader.See("Ask for a code first");
        reader.Press("Send me a code");
        reader.See("A code is on its way");
        owner.Go("/post-office");
        owner.PressWith($"Your code for signing, Quay Street arcade to {name}");
        owner.See("Type it where you sign.");
        reader.Type("Code from the letter", Regex.Match(owner.Text, @"\b(\d{6})\b").Value);
        Assert.Equal("", reader.Violations());
        reader.Press("Sign the contract");
    }

    /// <summary>A PDF as another program makes one.</summary>
    private static byte[] OwnPdf()
    {
        var builder = new UglyToad.PdfPig.Writer.PdfDocumentBuilder();
        var font = builder.AddStandard14Font(UglyToad.PdfPig.Fonts.Standard14Fonts.Standard14Font.Helvetica);
        builder.AddPage(UglyToad.PdfPig.Content.PageSize.A4).AddText("Our own terms", 12, new(50, 700), font);
        return builder.Build();
    }

    [Fact]
    public void What_was_agreed_is_changed_after_the_first_invoice_and_signed_again()
    {
        OpenRecord("Copperline bikes");
        owner.Unfold("At hand");
        owner.Press("Write an amendment");
        owner.See("is invoiced and stays");
        owner.PressWith("Hand-lettered name");
        owner.Within("Hand-lettered name", () => owner.Type("Quantity", "14"));
        owner.Press("Done with it");
        owner.See("dearer");
        owner.See("becomes");
        Assert.Equal("", owner.Violations());
        owner.Screen(390, 844);
        Assert.True((bool)owner.Driver.ExecuteScript("return document.documentElement.scrollWidth <= innerWidth")!);
        owner.Screen(1280, 800);
        owner.Press("Send the amendment");
        owner.See("Letter “A change to what we agreed, Copperline bikes”");

        using var jun = new Person(demo.House.Address);
        jun.Screen(390, 844);
        EnterBy(jun, "A change to what we agreed, Copperline bikes");
        jun.See("What changes");
        jun.See("dearer");
        // a question first; the owner's answer gives it back
        jun.Press("Ask, object or decline to sign");
        jun.Tick("Ask a question");
        jun.Type("What would you like to know?", "Are the four letters on the door?");
        jun.Press("Send your words");
        jun.See("has your words and will answer");
        OpenRecord("Copperline bikes");
        owner.See("they asked about the contract");
        owner.Press("It needs no answer");
        owner.SeeNot("they asked about the contract");
        jun.Driver.Navigate().Refresh();
        jun.Tick("I have read this amendment");
        jun.Type("Your full name, as your signature", "Jun Abara");
        Assert.Equal("", jun.Violations());
        jun.Press("Sign the amendment");
        OpenRecord("Copperline bikes");
        owner.See("from now on");
        owner.See("by an amendment");
        owner.See("Letter “Signed: Copperline bikes”");
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
        Assert.DoesNotContain(jun.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    [Fact]
    public void A_rate_sheet_is_ticked_on_a_phone_and_begins_the_proposal()
    {
        OpenRecord("Causeway hostel");
        owner.PressWith("Forms and rates");
        owner.PressIn("Rate sheet", "put one to the client");
        owner.See("What stands on it");
        Assert.Equal("", owner.Violations());
        owner.Press("Put it to the client");
        owner.SeeItLeave();
        using var nell = new Person(demo.House.Address);
        nell.Screen(390, 844);
        EnterBy(nell, "What things cost");
        nell.See("It binds you to nothing");
        nell.Press("Send what I ticked");
        nell.See("Tick at least one of them.");
        nell.Tick("Gable mural");
        Assert.Equal("", nell.Violations());
        nell.Press("Send what I ticked");
        nell.See("sees what you ticked");
        OpenRecord("Causeway hostel");
        owner.See("read what they ticked");
        owner.Press("Write the proposal");
        owner.See("As suggested");
        owner.See("Gable mural");
        Assert.DoesNotContain(nell.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }
}
