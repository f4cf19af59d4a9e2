namespace Gesamt.Browser.Tests;

/// <summary>A mood board that the client prunes, and a list with sums.</summary>
public sealed class BoardJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;
    private string record = "",
        board = "";

    [Fact]
    public void A_board_is_seeded_pruned_looked_over_and_approved()
    {
        owner.Go("/register?words=harbour bakery");
        owner.PressWith("Harbour bakery wall");
        owner.See("What happened?");
        record = new Uri(owner.Driver.Url).AbsolutePath;
        owner.Go($"{record}?sheet=Lists and boards");
        owner.See("2 changes of the client to look at");
        owner.Press("Which gulls?");
        owner.See("Bread and nothing else");
        board = new Uri(owner.Driver.Url).AbsolutePath;
        WhatTheClientChangedIsUndoneByAKey();
        TheClientPrunes();
        TheFinalOneIsApproved();
        Assert.DoesNotContain(owner.Complaints(), line => !line.Contains("status of 4", StringComparison.Ordinal));
    }

    private void WhatTheClientChangedIsUndoneByAKey()
    {
        Assert.Equal("", owner.Violations());
        owner.See("2 changes of the client");
        owner.Key("z");
        owner.See("1 change of the client");
        owner.SeeNot("Seen from the ferry");
        owner.Key("s");
        owner.SeeNot("change of the client");
    }

    private void TheClientPrunes()
    {
        client.Driver.Navigate().GoToUrl(LinkInALetter("The board for the gulls"));
        client.See("Which gulls?");
        client.Press("Strike it out: Loud, over the whole gable");
        client.Press("Put it back: Loud, over the whole gable");
        client.Press("Strike it out: Loud, over the whole gable");
        client.Press("Change words: Still, on the ridge");
        client.Type("Words on Still, on the ridge", "Still, on the ridge, and one of them asleep");
        client.Press("Keep it");
        client.See("and one of them asleep");
        client.Press("Add a paragraph");
        client.Type("A new paragraph", "The baker would like the chimney left as it is.");
        client.Press("Keep it");
        client.See("chimney left as it is");
        client.SeeNot("changed by");
        Assert.Equal("", client.Violations());
    }

    private string LinkInALetter(string subject)
    {
        owner.Go(record);
        owner.See("What happened?");
        owner.Key("l");
        owner.SeeHeard("textbox “Subject”");
        owner.Type("Subject", subject);
        owner.Type("Text", "Please strike out what does not fit: [page link]");
        owner.Press("Send the letter");
        owner.SeeItLeave();
        owner.Go("/post-office");
        owner.PressWith(subject);
        owner.See("/p/");
        return owner.Driver.FindElement(By.CssSelector("article a[href*='/p/']")).GetAttribute("href")!;
    }

    private void TheFinalOneIsApproved()
    {
        owner.Go(board);
        owner.See("struck out “Loud, over the whole gable”, today");
        owner.PressWith("Seen");
        owner.Press("Put it up as the final board");
        owner.See("This is the final board, put to the client.");
        client.Driver.Navigate().Refresh();
        client.See("Look at the mood board “Which gulls?”, and say whether it is right");
        client.SeeNot("Strike it out: Still");
        client.Press("This is right");
        client.See("Approved");
        owner.Go(record);
        owner.See("approved the mood board “Which gulls?”");
    }

    [Fact]
    public void A_list_is_written_by_keys_summed_and_read_from_a_table()
    {
        owner.Go("/register?words=ropeworks");
        owner.PressWith("Ropeworks lettering weekend");
        owner.See("What happened?");
        owner.Go($"{new Uri(owner.Driver.Url).AbsolutePath}?sheet=Lists and boards");
        owner.See("What it takes");
        owner.Press("What it takes");
        owner.See("€ 618.90 and GBP 38.00");
        owner.Press("Add a row");
        owner.SeeHeard("textbox “What”");
        owner.Type("What", "Chalk");
        owner.Type("Costs", "1.500");
        owner.Key(Keys.Enter);
        owner.See("It can be read as 1 500 or 1.5: write which.");
        owner.Type("Costs", "1,50");
        owner.Key(Keys.Enter);
        owner.See("€ 620.40 and GBP 38.00");
        // the next row can be written at once
        owner.SeeHeard("textbox “What”");
        Assert.Equal("", owner.ValueOf("What"));
        Assert.Equal("", owner.Violations());
        owner.Press("Never mind");
        owner.Press("Columns");
        owner.See("Columns of What it takes");
        Assert.Equal("", owner.Violations());
        owner.Press("Close");
        Assert.Contains("Chalk,,,1.5,", System.Text.Encoding.UTF8.GetString(owner.Fetched("table.csv")));
    }
}
