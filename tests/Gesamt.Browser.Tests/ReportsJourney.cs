namespace Gesamt.Browser.Tests;

/// <summary>The reports: a figure leads to the projects behind it, what narrows them, and a goal that counts by itself.</summary>
public sealed class ReportsJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public void The_reports_lead_to_the_projects_behind_them()
    {
        AFigureOpensItsProjects();
        HowLongIsToldAndOpened();
        WhatBroughtHowMuch();
        ItIsNarrowed();
        AGoalCountsByItself();
        WhatBroughtAProjectIsWrittenDown();
        OnAPhone();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void AFigureOpensItsProjects()
    {
        // by keys alone: to the page, to the figure, to the project, and back
        owner.Go("/today");
        owner.See("Came in");
        owner.Key("g", "o");
        owner.See("Where inquiries go");
        Assert.Equal("", owner.Violations());
        owner.KeyTo("j", "button", "5 lost at Proposal", most: 15);
        owner.Key("\n");
        owner.See("Lost at Proposal");
        owner.Wait(
            () =>
                owner.Section("Lost at Proposal").Contains("Skate bowl", StringComparison.Ordinal) == false
                && owner.Section("Lost at Proposal").Contains("lost at Proposal", StringComparison.Ordinal),
            () => owner.Section("Lost at Proposal")
        );
        owner.Key("j", "\n");
        owner.See("What happened?");
        owner.Driver.Navigate().Back();
        owner.See("Lost at Proposal");
        owner.Key("\uE00C");
        owner.SeeNot("Lost at Proposal");
        owner.See("How long they take");
        owner.PressWith("went on, 80 %");
        owner.See("Went on from Proposal");
        owner.Key("\uE00C");
        owner.SeeHeard("button “28 went on, 80 %, from Proposal");
    }

    private void HowLongIsToldAndOpened()
    {
        owner.PressWith("Contract the same day");
        owner.See("How long they stood at Contract");
        owner.See("the same day");
        owner.Press("Close");
        owner.See("How long they take");
        // the picture was drawn anew, and the focus is on the figure all the same
        owner.SeeHeard("button “Contract the same day");
    }

    private void WhatBroughtHowMuch()
    {
        owner.Choose("By what", "by service");
        owner.See("Gable mural");
        owner.Choose("By what", "by campaign");
        owner.See("Harbour craft fair");
        owner.Press("6 from Harbour craft fair");
        owner.See("Came in");
        owner.Press("Close");
        owner.Choose("By what", "by source");
    }

    private void ItIsNarrowed()
    {
        owner.Choose("Source", "a fair");
        owner.Wait(
            () => owner.Section("How far they came").Contains("of 8 that came in", StringComparison.Ordinal),
            () => owner.Section("How far they came")
        );
        owner.Choose("Source", "all sources");
        owner.Choose("Which inquiries", "2026");
        owner.See("Month by month");
        owner.Choose("Open a month", "December 2026");
        owner.Press("of them became work");
        owner.See("Became work");
        owner.Press("Close");
        // a first day after the last takes the last with it; what an address cannot ask leads back
        owner.Choose("Which inquiries", "from … to …");
        owner.Type("From", "12 dec 2026");
        owner.Type("To", "1 dec 2026");
        owner.Wait(
            () => owner.Driver.Url.Contains("from=2026-12-01&until=2026-12-01", StringComparison.Ordinal),
            () => owner.Driver.Url
        );
        foreach (
            var (page, says, leads, shows) in new[]
            {
                ("/season?months=99", "From 1 to 24 months", "Show it from this month", "The season"),
                ("/register?only=Soon", "“Soon” is not what can be read", "Show all projects", "Put together by"),
                ("/money?year=soon", "A year from 1990 to 2199, or all", "Show this year", "Owed to you"),
                (
                    "/reports?year=soon",
                    "A year from 1990 to 2199, or all",
                    "Show the last three years",
                    "How far they came"
                ),
            }
        )
        {
            owner.Go(page);
            owner.See(says);
            owner.Press(leads);
            owner.See(shows);
        }
    }

    private void AGoalCountsByItself()
    {
        owner.Press("set a goal");
        owner.Press("Set the goal");
        owner.See("A goal is said in 1 to 100 characters");
        owner.Type("What you want", "Ten murals");
        owner.Choose("Kind of work", "Mural");
        owner.Type("To reach", "10");
        owner.Press("another measure");
        owner.Within(
            "Measure 2",
            () =>
            {
                owner.Choose("What is counted", "a number that you type");
                owner.Type("What the number is", "walls drawn for nobody");
                owner.Type("To reach", "4");
                owner.Type("Stands at", "2");
            }
        );
        owner.Press("Set the goal");
        owner.SeeNot("Set the goal");
        owner.See("2 of 4 walls drawn for nobody, 50 %");
        owner.Press("Ten murals");
        owner.Press("Take it out");
        owner.See("Taken out: Ten murals");
        owner.Press("Undo");
        owner.See("2 of 4 walls drawn for nobody");
        owner.Choose("Goals of which year", "2026");
        owner.See("Twenty booked projects");
    }

    private void WhatBroughtAProjectIsWrittenDown()
    {
        owner.Go("/projects/1");
        owner.See("What happened?");
        owner.Press("Change title, source and kinds");
        owner.Type("Campaign that brought it", "Open studio day");
        owner.Press("Keep it");
        owner.SeeNot("Keep it");
        owner.Go("/reports?year=all&campaign=Open+studio+day");
        owner.See("of 1 that came in");
    }

    private void OnAPhone()
    {
        owner.Screen(390, 844);
        owner.Go("/today");
        owner.See("Came in");
        owner.Pick("More", "Reports");
        owner.See("Where inquiries go");
        Assert.Equal("", owner.Violations());
        owner.PressWith("gone quiet");
        owner.See("Gone quiet at");
        Assert.Equal("", owner.Violations());
        owner.Screen(1280, 800);
    }
}
