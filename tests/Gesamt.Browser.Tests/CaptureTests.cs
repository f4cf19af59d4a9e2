using System.Text;
using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>How inquiries come in and become fits, as people do it: by form, by phone, by a table kept so far; the talk, the brief, and what is no fit.</summary>
public sealed class CaptureTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;
    private string record = "",
        page = "";

    [Fact]
    public async Task An_inquiry_is_told_apart_spoken_about_briefed_and_found_a_fit()
    {
        TheFormStandsInTheStudiosOwnSite();
        AnInquiryIsTakenDownByPhone();
        AnotherCoupleOfTheSamePlannerInquires();
        TheMatchIsRefused();
        TheClientIsOfferedATime();
        TheClientChoosesItInTheirZone();
        await TheCallTakesPlaceAsync();
        TheBriefIsApproved();
        ItIsAFit();
        OneIsReferredAndOneIsNone();
        SlipsAreKeptAndTakenBack();
        ATableIsTakenOver();
        foreach (var person in new[] { owner, client })
            Assert.All(
                person.Complaints(),
                line => Assert.True(line.Contains("status of 4", StringComparison.Ordinal), line)
            );
    }

    private void TheFormStandsInTheStudiosOwnSite()
    {
        // another name for this machine is another site to the browser
        client.Driver.Navigate().GoToUrl($"http://localhost:{demo.House.Address.Port}/sample-site/mural");
        client.Wait(() => client.Driver.FindElements(By.TagName("iframe")).Count == 1, () => "The form is not set in.");
        var frame = client.Driver.FindElement(By.TagName("iframe"));
        client.Wait(() => frame.Size.Height > 900, () => $"The frame does not grow: {frame.Size.Height}.");
        client.Driver.SwitchTo().Frame(frame);
        client.See("What should the wall say?");
        client.Driver.SwitchTo().DefaultContent();
    }

    private void AnInquiryIsTakenDownByPhone()
    {
        owner.Go("/today");
        owner.See("Came in");
        owner.Key("i");
        owner.See("A new inquiry");
        owner.Press("Keep the inquiry");
        owner.See("A name of 1 to 120 characters is needed.");
        owner.See("One way to reach them is needed");
        owner.Type("Name", "Ann and Bea");
        owner.Choose("Kind of work", "Mural");
        owner.Type("Mail", "plan@planner.example");
        owner.Press("Keep the inquiry");
        owner.See("Mural for Ann and Bea");
        owner.See("answer the inquiry");
    }

    private void AnotherCoupleOfTheSamePlannerInquires()
    {
        client.Screen(390, 844);
        client.Go("/i/mural");
        client.Type("Your name", "Cid and Dov");
        client.Type("Mail address", "plan@planner.example");
        client.Type("What should the wall say?", "Two swallows over the gate.");
        client.Type("Size of the wall", "18");
        client.SeeNot("What is in the way?");
        client.Choose("Can a scaffold stand before the wall?", "no");
        client.See("What is in the way?");
        client.Attach("Photos of the wall, if you like", Path.Combine(House.Root, "docs", "screenshots", "today.png"));
        client.See("today.png");
        client.Tick("You may keep my answers");
        client.Press("Send the inquiry");
        client.See("This question is to be answered.");
        client.Type("What is in the way?", "a canal");
        client.Press("Send the inquiry");
        client.See("Thank you, your inquiry has arrived.");
        client.Screen(1280, 800);
    }

    private void TheMatchIsRefused()
    {
        owner.Go("/today");
        owner.PressWith("Mural for Cid and Dov");
        owner.See("Ann and Bea has the same mail address.");
        owner.Press("Somebody else");
        owner.SeeNot("has the same mail address");
        owner.See("a canal");
        owner.See("today.png");
        record = new Uri(owner.Driver.Url).AbsolutePath;
    }

    private void TheClientIsOfferedATime()
    {
        owner.Unfold("Meetings");
        owner.Press("let them choose");
        owner.See("First call, 30 minutes");
        owner.Press("Send the choice of times");
        owner.SeeItLeave();
        owner.See("with the client, who has not chosen a time yet");
        owner.See("The client's turn");
        owner.Go("/post-office");
        owner.PressWith("Mural for Cid and Dov: shall we speak?");
        owner.See("/p/");
        page = owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!;
    }

    private void TheClientChoosesItInTheirZone()
    {
        client.Driver.ExecuteCdpCommand("Emulation.setTimezoneOverride", new() { ["timezoneId"] = "America/New_York" });
        client.Driver.Navigate().GoToUrl(page);
        client.See("These are times in your zone; the studio is in Europe/Dublin.");
        client.See("Tue 26 Jan");
        Assert.Equal("", client.Violations());
        client.Tick("05:00");
        client.Press("Take Tue 26 Jan, 05:00");
        client.See("Tue 26 Jan, 05:00 (America/New_York), 10:00 in Europe/Dublin");
        client.See("passcode");
        owner.Go(record);
        owner.See("First call on Tue 26 Jan, 10:00");
        owner.See("chosen by Cid");
        owner.Go("/post-office");
        owner.PressWith("first call, Tue 26 Jan, 05:00");
        owner.See("By video:");
    }

    private async Task TheCallTakesPlaceAsync()
    {
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 1, 26, 10, 35));
        owner.Go(record);
        owner.See("say how the meeting went");
        owner.PressWith("over: how did it go?");
        owner.Type("Notes, yours alone", "They marry in June. The canal belongs to the city.");
        owner.PressIn("Reader", "It was held");
        owner.See("First call held");
        owner.See("The canal belongs to the city.");
        owner.Press("Close");
    }

    private void TheBriefIsApproved()
    {
        owner.Unfold("Brief");
        owner.Press("Write the brief");
        owner.PressWith("Scope and requirements");
        owner.Type("Scope and requirements", "Two swallows, four metres wide, nothing below the sill.");
        owner.PressWith("For me alone");
        owner.Type("For me alone", "His mother pays and dislikes birds.");
        owner.See("3 of 8 parts written");
        owner.PressWith("Put it to the client");
        owner.See("Put the brief to the client");
        owner.PressWith("Put it to the client");
        owner.SeeItLeave();
        owner.See("with the client since");
        client.Driver.Navigate().Refresh();
        client.See("Two swallows, four metres wide");
        Assert.DoesNotContain("dislikes birds", client.Text);
        Assert.Equal("", client.Violations());
        client.Press("This is right");
        client.See("You approved it on");
        owner.See("Cid approved the brief");
    }

    private void ItIsAFit()
    {
        owner.Press("What happened?");
        owner.Tick("It is a fit");
        owner.Press("Record: It is a fit");
        owner.See("Fit, Tue 26 Jan");
    }

    private void OneIsReferredAndOneIsNone()
    {
        owner.Go("/today");
        owner.PressWith("Tidewater reading nook");
        owner.Press("What happened?");
        owner.PressWith("something else");
        owner.Tick("I referred it to a colleague");
        owner.Choose("Colleague", "Piet Sorrel");
        owner.Tick("with a letter to Maeve Osric");
        owner.Wait(
            () => owner.ValueOf("Subject").Contains("somebody who does this well", StringComparison.Ordinal),
            () => "The letter is not begun."
        );
        owner.Press("Record: I referred it to a colleague");
        owner.See("Referred to a colleague");
        owner.See("Piet Sorrel");
        owner.See("somebody who does this well");

        owner.Go("/today");
        owner.PressWith("Signal box mural");
        owner.Press("What happened?");
        owner.PressWith("something else");
        owner.Tick("It is not an inquiry");
        owner.Press("Record: It is not an inquiry");
        owner.See("Not an inquiry");
    }

    private void SlipsAreKeptAndTakenBack()
    {
        owner.Screen(390, 844);
        owner.Go("/today");
        owner.See("Your turn");
        owner.Key("/");
        owner.Type("Write a slip", "order blue for cid fri important");
        owner.See("becomes a task for Mural for Cid and Dov, due Fri 29 Jan, important");
        owner.Key(Keys.Enter);
        owner.See("Kept: a task for Mural for Cid and Dov");
        owner.Press("Undo");
        owner.Type("Write a slip", "gold leaf is dear this year");
        owner.See("into the tray");
        owner.Key(Keys.Enter);
        owner.See("Kept in the tray");
        owner.Go("/tray");
        owner.See("gold leaf is dear this year");
        Assert.Equal("", owner.Violations());
        owner.Screen(1280, 800);
    }

    private void ATableIsTakenOver()
    {
        const int Rows = 2_000;
        var table = new StringBuilder("Client;E-mail;Inquiry received;Status;Price\n");
        for (var i = 0; i < Rows; i++)
            table.Append(
                System.Globalization.CultureInfo.InvariantCulture,
                $"Client {i};c{i}@old.example;{1 + i % 28:00}.0{1 + i % 9}.2025;{(i % 2 == 0 ? "done" : "lost")};1.{i % 900 + 100},00\n"
            );
        table.Append("Nobody;;01.01.2025;done;\n");
        var file = Path.Combine(Path.GetTempPath(), $"jobs-{Guid.NewGuid():n}.csv");
        File.WriteAllText(file, table.ToString());
        try
        {
            owner.Go("/import");
            owner.Attach("Choose a table", file);
            owner.See("2001 rows, columns apart by “;”");
            owner.See("inquired: Wed 1 Jan 2025");
            owner.See("1 row would be left out");
            owner.See("There is no way to reach them.");
            Assert.Equal("", owner.Violations());
            owner.Choose("Kind of work, where none is named", "Upkeep");
            owner.Press("Take over 2000 rows");
            owner.Wait(
                () => owner.Text.Contains("2000 taken over, 1 left out", StringComparison.Ordinal),
                () => owner.Text,
                seconds: 240
            );
        }
        finally
        {
            File.Delete(file);
        }
        owner.Chord(Keys.Control, "k");
        owner.Type("Find", "cleint 1711");
        owner.See("Client 1711");
        owner.Key(Keys.Escape);
        owner.Go("/import");
        owner.PressWith("2000 taken over");
        owner.Press("Take all of it back");
        owner.Wait(
            () => owner.Text.Contains("2000 taken back", StringComparison.Ordinal),
            () => owner.Text,
            seconds: 120
        );
    }
}
