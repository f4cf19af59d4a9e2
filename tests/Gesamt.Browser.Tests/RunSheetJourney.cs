using System.Diagnostics;

namespace Gesamt.Browser.Tests;

/// <summary>A two-day workshop: its run sheet from the draft to what each of its readers prints.</summary>
public sealed class RunSheetJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;
    private string sheet = "";

    [Fact]
    public void A_workshop_goes_by_the_hour()
    {
        owner.Go("/register?words=ropeworks");
        owner.PressWith("Ropeworks lettering weekend");
        owner.See("What happened?");
        var record = new Uri(owner.Driver.Url).AbsolutePath;
        owner.Unfold("Run sheet");
        owner.See("provisional, 3 days, 13 items");
        owner.Press("Open the run sheet");
        owner.See("Saturday 6 March 2027");
        sheet = new Uri(owner.Driver.Url).AbsolutePath;
        SomethingIsAdded();
        TheClientAgrees(record);
        AChangeMakesItProvisional();
        EachReaderHasTheirPrint();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void SomethingIsAdded()
    {
        owner.Press("Add something on Monday 8 March 2027");
        owner.Within(
            "Something new",
            () =>
            {
                owner.Type("How long", "a while");
                owner.Type("True start", "4.30 pm");
                owner.Type("What happens", "Cake");
            }
        );
        owner.See("How long does it take? Write 2 h, 1:30 or 45 min.");
        owner.Within("Cake", () => owner.Type("How long", "20 min"));
        owner.Wait(
            () => owner.Text.Contains("provisional", StringComparison.Ordinal) && owner.Text.Contains("kept"),
            () => owner.Text
        );
        Assert.Equal("", owner.Violations());
        owner.Go(sheet);
        owner.See("Saturday 6 March 2027");
        owner.Within("Cake", () => Assert.Equal("16:30", owner.ValueOf("True start")));
    }

    private void TheClientAgrees(string record)
    {
        owner.Go(record);
        owner.See("What happened?");
        owner.Key("l");
        owner.SeeHeard("textbox “Subject”");
        owner.Type("Subject", "Our weekend by the hour");
        owner.Type("Text", "Please look whether it is right: [page link]");
        owner.Press("Send the letter");
        owner.SeeItLeave();
        owner.Go("/post-office");
        owner.PressWith("Our weekend by the hour");
        owner.See("/p/");
        client
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
        client.See("Read the run sheet, and say whether it is right");
        client.See("guests are told 09:45");
        client.SeeNot("Fetch the key");
        Assert.Equal("", client.Violations());
        client.Press("Ask about this");
        client.Type("Your question", "Is there parking?");
        client.Press("Send it");
        client.See("Isolde Marrin has your words and will answer.");
        client.Press("This is right");
        client.See("Agreed");
        client.SeeNot("Provisional");
    }

    private void AChangeMakesItProvisional()
    {
        owner.Go(sheet);
        owner.See("agreed");
        owner.Within("Cake", () => owner.Type("True start", "17"));
        owner.See("Cake: 17:00 instead of 16:30");
        owner.See("provisional, changed since it was agreed");
        client.Driver.Navigate().Refresh();
        client.See("Changed since you agreed");
        client.See("Cake: 17:00 instead of 16:30");
    }

    private void EachReaderHasTheirPrint()
    {
        owner.Go(sheet);
        owner.See("To print, for");
        var guests = Printed("reader=Guests");
        Assert.Contains("09:45", guests);
        Assert.DoesNotContain("Tables and lights", guests);
        var suppliers = Printed("reader=Suppliers");
        Assert.Contains("Tables and lights go in", suppliers);
        Assert.Contains("10:00", suppliers);
        Assert.DoesNotContain("09:45", suppliers);
        Assert.Equal(3, Printed("reader=Me").TrimEnd('\f').Split('\f').Length);
    }

    /// <summary>A copy as poppler reads it.</summary>
    private string Printed(string reader)
    {
        var path = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():n}.pdf");
        File.WriteAllBytes(path, owner.Fetched(reader));
        try
        {
            using var process = Process.Start(
                new ProcessStartInfo("pdftotext", ["-layout", path, "-"]) { RedirectStandardOutput = true }
            )!;
            return process.StandardOutput.ReadToEnd();
        }
        finally
        {
            File.Delete(path);
        }
    }
}
