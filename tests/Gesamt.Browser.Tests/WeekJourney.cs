using System.Text;
using System.Text.RegularExpressions;

namespace Gesamt.Browser.Tests;

/// <summary>A week planned by keys alone, then by hand and on a phone; the month; the season.</summary>
public sealed partial class WeekJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public void A_week_is_planned()
    {
        ByKeysAlone();
        AnOwnTimeIsKept();
        ByHand();
        ItIsPrintedOnOnePage();
        TheMonthLeadsToItsWeeks();
        TheSeasonShowsWhatIsNext();
        OnAPhone();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void ByKeysAlone()
    {
        owner.Go("/today");
        owner.See("The week");
        owner.See("Tuesday holds 1 h too much");
        owner.Key("g", "w");
        owner.See("Not on a day");
        owner.See("25 to 31 January");
        // from what lies beside: the task that is due on Friday gets its day, and its hours
        owner.KeyTo("j", "link", "Primer test on the bricks");
        owner.Key("5");
        owner.See("Primer test on the bricks: worked on Fri 29 Jan");
        owner.SeeHeard("link “Primer test on the bricks”");
        owner.Key("e");
        owner.SeeHeard("textbox “How long will it take?”");
        owner.Key("soon");
        owner.Key(Keys.Enter);
        owner.See("Write 3 h");
        owner.Chord(Keys.Control, "a");
        owner.Key("1:30");
        owner.Key(Keys.Enter);
        owner.SeeHeard("link “Primer test on the bricks”");
        owner.See("1 h 30 min of 2 h 30 min");
        // Tuesday is too full: one of its tasks goes a day on, and back again, and on
        owner.KeyTo("j", "link", "Prepare the survey");
        owner.Key("l");
        owner.See("Prepare the survey: worked on Wed 27 Jan");
        owner.SeeHeard("link “Prepare the survey”");
        owner.Key("h");
        owner.See("Prepare the survey: worked on Tue 26 Jan");
        owner.SeeHeard("link “Prepare the survey”");
        owner.Key("5");
        owner.See("Prepare the survey: worked on Fri 29 Jan");
        owner.SeeNot("Tuesday holds");
        owner.SeeHeard("link “Prepare the survey”");
        // done, it stands on the day it was done
        owner.Key("x");
        owner.See("Done: Prepare the survey");
        owner.SeeHeard("link “Prepare the survey”");
        owner.Wait(
            () => Place("Prepare the survey") == "0",
            () => $"It stands in column {Place("Prepare the survey")}."
        );
        // g still means a place, though e alone means something here
        owner.Key("g", "s");
        owner.See("The season");
        owner.Key("g", "w");
        owner.See("Not on a day");
        owner.Key("]");
        owner.See("1 to 7 February");
        owner.Key("[");
        owner.See("25 to 31 January");
        owner.KeyTo("j", "link", "Sketch 2, taller lettering");
        owner.Key(Keys.Enter);
        owner.See("Change the task");
        owner.Key(Keys.Escape);
        owner.SeeNot("Change the task");
        Assert.Contains("/projects/", owner.Driver.Url, StringComparison.Ordinal);
    }

    /// <summary>The column a task stands in, Monday being 0.</summary>
    private string? Place(string title) =>
        owner.Driver.FindElement(By.CssSelector($"[data-title='{title}']")).GetDomAttribute("data-column");

    private void AnOwnTimeIsKept()
    {
        owner.Go("/week");
        owner.See("Dentist");
        owner.Press("keep a time");
        owner.Type("What", "Fair, set up the stall");
        owner.Type("From", "fri");
        owner.Type("at: From", "14:00");
        Assert.Equal("", owner.Violations());
        owner.Press("Keep it");
        owner.See("14:00 Fair, set up the stall");
        owner.PressWith("Fair, set up the stall");
        owner.See("A time of your own");
        owner.Type("What", "Fair");
        owner.Press("Keep it");
        owner.See("14:00 Fair");
        owner.SeeNot("set up the stall");
        owner.PressWith("14:00 Fair");
        owner.Press("Take it out");
        owner.See("Taken out: Fair");
        owner.Press("Undo");
        owner.See("14:00 Fair");
    }

    private void ByHand()
    {
        owner.Go("/week");
        owner.See("Not on a day");
        var drag = new OpenQA.Selenium.Interactions.Actions(owner.Driver);
        var task = owner.Driver.FindElement(By.CssSelector("aside [data-title='Collect the texts']"));
        var cell = owner.Driver.FindElement(By.CssSelector(".timetable tbody tr:nth-child(3) td:nth-child(5)"));
        drag.ClickAndHold(task).MoveByOffset(-12, 4).MoveToElement(cell).Perform();
        owner.Wait(
            () => owner.Driver.FindElements(By.CssSelector("td.outline-2")).Count == 1,
            () => "No day shows that the task would be dropped there."
        );
        new OpenQA.Selenium.Interactions.Actions(owner.Driver).Release().Perform();
        owner.See("Collect the texts: worked on Thu 28 Jan");
        owner.Press("Undo");
        owner.Wait(
            () => Place("Collect the texts") == "7",
            () => "What was undone does not stand beside the days again."
        );
        owner.Choose("Show", "all open, by project");
        owner.See("All open tasks");
        owner.Type("Filter these tasks", "scaffold");
        owner.SeeNot("Collect the texts");
        owner.Choose("Show", "done in these days");
        owner.See("Done in these days");
        Assert.Equal("", owner.Violations());
    }

    private void ItIsPrintedOnOnePage()
    {
        owner.Go("/week");
        owner.See("Not on a day");
        Assert.Equal(1, Pages());
        owner.Go("/week?by=month");
        owner.See("January 2027");
        Assert.Equal(1, Pages());
    }

    /// <summary>How many pages it is printed on.</summary>
    private int Pages()
    {
        var printed =
            (Dictionary<string, object>)
                owner.Driver.ExecuteCdpCommand("Page.printToPDF", new() { ["preferCSSPageSize"] = true })!;
        return PageRegex().Count(Encoding.Latin1.GetString(Convert.FromBase64String((string)printed["data"])));
    }

    [GeneratedRegex(@"/Type\s*/Page\b(?!s)")]
    private static partial Regex PageRegex();

    private void TheMonthLeadsToItsWeeks()
    {
        owner.Go("/week");
        owner.Press("month");
        owner.See("January 2027");
        Assert.Equal("", owner.Violations());
        owner.Key("]");
        owner.See("February 2027");
        owner.PressWith("Thursday 11 February");
        owner.See("8 to 14 February");
        owner.See("Lettering over the door");
    }

    private void TheSeasonShowsWhatIsNext()
    {
        owner.Go("/turns");
        owner.See("Whose turn is it?");
        owner.Press("Season");
        owner.See("Next free start");
        Assert.Equal("", owner.Violations());
        Assert.Contains(
            "12 Mar, opening day",
            owner
                .Driver.FindElement(By.CssSelector("svg[aria-label^='Harbour bakery wall']"))
                .GetDomAttribute("aria-label"),
            StringComparison.Ordinal
        );
        owner.Choose("Months across", "12 months");
        owner.See("January to December 2027");
        owner.Choose("Of what a start would be", "a start of Mural, 14 h");
        owner.See("dashed is free for a start of 14 h");
        owner.PressWith("Harbour bakery wall");
        owner.See("What happened?");
        owner.Screen(1280, 800, dark: true);
        owner.Go("/season");
        owner.See("Next free start");
        Assert.Equal("", owner.Violations());
        owner.Go("/week");
        owner.See("Not on a day");
        Assert.Equal("", owner.Violations());
        owner.Screen(1280, 800);
    }

    private void OnAPhone()
    {
        owner.Screen(390, 844);
        owner.Go("/week");
        owner.See("Monday 25 January");
        owner.Choose("On which day: Photograph the boards", "Thu 28");
        owner.See("Photograph the boards: worked on Thu 28 Jan");
        owner.Choose("On which day: Collect the texts", "Wed 27");
        owner.See("Collect the texts: worked on Wed 27 Jan");
        Assert.Equal("", owner.Violations());
        foreach (var page in new[] { "/week", "/week?by=month", "/season" })
        {
            owner.Go(page);
            owner.See(page == "/season" ? "Next free start" : "planned of");
            Assert.True(
                (bool)owner.Driver.ExecuteScript("return document.documentElement.scrollWidth <= innerWidth")!,
                $"{page} scrolls sideways on a phone."
            );
            Assert.Equal("", owner.Violations());
        }
        owner.Screen(1280, 800);
    }
}
