using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>While the work goes on: a task from the writing field to its hours, what an hour earns, a checklist, other phases, a quote taken, the client's own tasks, a letter of progress.</summary>
public sealed class WorkJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;
    private string record = "";

    [Fact]
    public async Task The_work_goes_on()
    {
        owner.Go("/register");
        owner.PressWith("Signal box café");
        owner.See("What happened?");
        record = new Uri(owner.Driver.Url).AbsolutePath;
        ATaskIsWrittenByKeys();
        ItIsSaidInFull();
        await TheClockBecomesHoursAsync();
        AChecklistMakesItsTask();
        ThePhasesAreArranged();
        AQuoteIsTaken();
        AListIsLaid();
        HowItGoesIsTold();
        TheClientDoesTheirPart();
        HoursAreSwitchedOff();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void ATaskIsWrittenByKeys()
    {
        owner.Key("n");
        owner.SeeHeard("textbox “Write a note, a task with its day, or a call”");
        owner.Key("Wren says friday is fine");
        owner.See("becomes a task for Signal box café, due Fri 29 Jan");
        owner.KeyTo(Keys.Tab, "radio", "Task", most: 3);
        owner.Key(Keys.ArrowLeft);
        owner.See("“Wren says friday is fine” becomes a note");
        owner.Key(Keys.Enter);
        owner.See("Kept: a note for Signal box café");
        owner.Key("order the undercoat for friday, 3 hours, important");
        owner.See("becomes a task for Signal box café, due Fri 29 Jan, 3 h, important");
        owner.Key(Keys.Enter);
        owner.See("Kept: a task for Signal box café, due Fri 29 Jan, 3 h, important");
        owner.See("order the undercoat");
        Assert.Contains("Wren says friday is fine", owner.Text);
    }

    private void ItIsSaidInFull()
    {
        owner.Press("order the undercoat");
        owner.Type("Estimate", "a while");
        owner.Press("Keep the change");
        owner.See("How long will it take?");
        owner.Type("Estimate", "5 h");
        owner.Type("List", "Paint");
        owner.Type("Worked on", "thu");
        owner.Press("What it is about, when it is finished, its parts");
        owner.Type("Finished when", "three tins stand in the yard");
        owner.Type("Its parts, one a line", "ring Boyle and Sons\nfetch it");
        Assert.Equal("", owner.Violations());
        owner.Press("Keep the change");
        owner.See("0 of 2 parts, 5 h, important, worked on Thu 28 Jan");
        owner.Tick("ring Boyle and Sons");
        owner.See("1 of 2 parts, 5 h");
        owner.Press("what matters first");
        owner.See("by due day");
    }

    private async Task TheClockBecomesHoursAsync()
    {
        owner.Press("order the undercoat");
        owner.Press("Start the clock for it");
        owner.See("Stop the clock");
        Assert.Equal("", owner.Violations());
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 1, 25, 12, 0));
        owner.Go(record);
        owner.See("Stop the clock");
        owner.Key("c");
        owner.See("Kept: 1 h 30 min for Signal box café");
        owner.SeeNot("Stop the clock");
        owner.Unfold("Hours and costs");
        owner.See("An hour earns so far");
        owner.See("with what is still to do");
        owner.Go("/register?columns=Worked&columns=AnHour");
        owner.See("An hour earns");
        owner.Go(record);
    }

    private void AChecklistMakesItsTask()
    {
        owner.Unfold("Checklists");
        owner.Press("At the wall");
        owner.See("Will the ground carry a lift?");
        Assert.Equal("", owner.Violations());
        owner.Within("Will the ground carry a lift?", () => owner.Tick("no"));
        owner.See("makes the task “Ask for a scaffold instead of a lift”");
        owner.Press("Keep the answers");
        owner.Wait(() => Tasks().Contains("Ask for a scaffold", StringComparison.Ordinal), Tasks);
        owner.Press("At the wall");
        owner.Within("Will the ground carry a lift?", () => owner.Tick("yes"));
        owner.Press("Keep the answers");
        owner.Wait(() => !Tasks().Contains("Ask for a scaffold", StringComparison.Ordinal), Tasks);
    }

    private string Tasks() => owner.Section("Open tasks");

    private void ThePhasesAreArranged()
    {
        owner.Unfold("Phases");
        owner.Press("arrange");
        owner.Type("Phase 2", "paint");
        owner.Press("Keep the phases");
        owner.See("Another phase has this name.");
        owner.Type("Phase 2", "drawing");
        owner.Press("Add a phase");
        owner.Type("Phase 6", "opening");
        Assert.Equal("", owner.Violations());
        owner.Press("Keep the phases");
        owner.See("Phases arranged for this project");
        owner.Wait(
            () => System.Text.RegularExpressions.Regex.IsMatch(owner.Section("Phases"), "(?i)drawing(.|\n)*opening"),
            () => owner.Section("Phases")
        );
    }

    private void AQuoteIsTaken()
    {
        owner.Unfold("Hours and costs");
        owner.Press("take it: Scissor lift, four days");
        owner.See("A cost now: Scissor lift, four days");
        owner.See("€ 492.00");
        owner.Press("Keep a quote");
        owner.Type("What for", "Varnish");
        owner.Type("Amount, with its tax", "lots");
        Assert.Equal("", owner.Violations());
        owner.Press("Keep the quote");
        owner.See("Who quotes is said in 1 to");
        owner.Type("Who quotes", "Boyle and Sons");
        owner.Type("Amount, with its tax", "60");
        owner.Press("Keep the quote");
        owner.See("Varnish, Boyle and Sons");
    }

    private void AListIsLaid()
    {
        owner.Press("add a list");
        owner.See("Tasks of a list");
        owner.Tick("Workshop");
        owner.See("before opening day");
        Assert.Equal("", owner.Violations());
        owner.Tick("Order material");
        owner.Press("Make 2 tasks");
        owner.Wait(() => Tasks().Contains("Book the room", StringComparison.Ordinal), Tasks);
        Assert.DoesNotContain("Order material", Tasks());
    }

    private void HowItGoesIsTold()
    {
        owner.Unfold("Phases");
        owner.Press("Tell how it goes");
        owner.Wait(
            () => owner.ValueOf("Text").Contains("Done so far", StringComparison.Ordinal),
            () => owner.ValueOf("Text")
        );
        Assert.Contains("Drawing, round 2: you said yes", owner.ValueOf("Text"));
        owner.Type("Text", "It goes well, and your part is here: [page link]");
        owner.Press("Send the letter");
        owner.SeeItLeave();
    }

    private void TheClientDoesTheirPart()
    {
        owner.Go("/post-office");
        owner.PressWith("Signal box café: how it goes");
        owner.See("/p/");
        client
            .Driver.Navigate()
            .GoToUrl(owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!);
        client.See("Your tasks");
        client.See("Tell the tenants about the scaffold");
        Assert.DoesNotContain("undercoat", client.Text);
        Assert.Equal("", client.Violations());
        client.Tick("Tell the tenants about the scaffold");
        client.See("1 done");
        owner.Go(record);
        owner.See("task done by Wren");
    }

    private void HoursAreSwitchedOff()
    {
        owner.Go("/studio");
        owner.PressWith("Habits");
        owner.Tick("I keep hours");
        owner.Press("Keep the studio");
        owner.Wait(
            () => owner.Driver.FindElements(By.CssSelector(".btn-go:not(:disabled), [aria-busy=true]")).Count == 0,
            () => "The studio is not kept."
        );
        owner.Go(record);
        owner.Unfold("Hours and costs");
        owner.See("Quotes of suppliers");
        owner.SeeNot("An hour earns");
        owner.SeeNot("Start the clock");
    }
}
