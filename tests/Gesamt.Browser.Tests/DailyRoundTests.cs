namespace Gesamt.Browser.Tests;

/// <summary>The round of a day by keys alone, each place known by the role and name that a screen reader tells.</summary>
public sealed class DailyRoundTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public void The_round_of_a_day_needs_no_pointer()
    {
        owner.Go("/today");
        owner.See("Ready to go out");
        SendWhatWaits();
        AnswerAnInquiry();
        TickATask();
        WriteASlip();
        FindAndRead();
        Assert.Empty(owner.Complaints());
    }

    [Fact]
    public void What_goes_takes_the_focus_along_no_further_than_to_its_neighbour()
    {
        owner.Go("/tray");
        owner.See("Done with it");
        owner.KeyTo(Keys.Tab, "button", "Done with it");
        owner.Key(Keys.Enter);
        owner.SeeHeard("article “");
        // a window whose own field takes the focus gives it back to what opened it
        owner.Go("/today");
        owner.See("Your turn");
        owner.KeyTo(Keys.Tab, "button", "New inquiry");
        owner.Key(Keys.Enter);
        owner.SeeHeard("textbox “");
        owner.Key(Keys.Escape);
        owner.SeeHeard("button “New inquiry");
        // a field that was left is left, whatever changes on the page
        owner.Key("/");
        owner.SeeHeard("textbox “");
        owner.Key(Keys.Escape, "g", "m");
        owner.See("Money");
        owner.SeeHeard("generic “");
        Assert.Empty(owner.Complaints());
    }

    /// <summary>From letter to letter: the first goes out as it is, the second is skipped, and that is taken back.</summary>
    private void SendWhatWaits()
    {
        owner.KeyTo("j", "link", "Did the proposal reach you?");
        owner.Chord(Keys.Control, Keys.Enter);
        owner.See("On its way: Did the proposal reach you?");
        owner.KeyTo("k", "link", "A few questions before we start on Harbour bakery wall");
        owner.KeyTo(Keys.Tab, "button", "Skip", most: 4);
        owner.Key(Keys.Enter);
        owner.See("Skipped: A few questions before we start on Harbour bakery wall");
        owner.KeyTo(Keys.Tab, "button", "Undo");
        owner.Key(Keys.Enter);
        owner.SeeNot("Skipped: A few questions before we start on Harbour bakery wall");
        // it is back where it was, and the walk goes on from there
        owner.KeyTo("j", "link", "A few questions before we start on Harbour bakery wall");
        owner.Key(Keys.Enter);
        owner.See("What happened?");
        owner.See("Subject");
        owner.KeyTo(Keys.Tab, "textbox", "Text", most: 8);
        // the first Escape leaves the field, the second closes the letter; the focus goes to where it stands on the line
        owner.Key(Keys.Escape, Keys.Escape);
        owner.SeeHeard("button “The form “Before we start on your wall” with the letter");
    }

    private void AnswerAnInquiry()
    {
        owner.Key("g", "t");
        owner.See("Your turn");
        owner.KeyTo("j", "link", "Ropeworks stairwell");
        owner.Key(Keys.Enter);
        owner.See("What happened?");
        owner.Key("l");
        owner.See("Begin with");
        owner.SeeHeard("textbox “Subject”");
        owner.Key("The stairwell", Keys.Tab);
        owner.SeeHeard("textbox “Text”");
        owner.Key("Four floors, gladly. When may I come and look?");
        owner.Chord(Keys.Control, Keys.Enter);
        owner.See("Letter “The stairwell”");
    }

    private void TickATask()
    {
        owner.Key("g", "t");
        owner.See("The day");
        owner.KeyTo(Keys.Tab, "checkbox", "Order scaffold and lift is done");
        owner.Key(Keys.Space);
        owner.See("Done: Order scaffold and lift");
        owner.KeyTo(Keys.Tab, "button", "Undo");
        owner.Key(Keys.Enter);
        owner.SeeNot("Done: Order scaffold and lift");
        owner.KeyTo(Keys.Tab, "checkbox", "Order scaffold and lift is done");
    }

    private void WriteASlip()
    {
        owner.Key("/");
        owner.Key("ring the glazier fri", Keys.Enter);
        owner.See("Kept in the tray");
        owner.Key(Keys.Escape);
    }

    private void FindAndRead()
    {
        owner.Chord(Keys.Control, "k");
        owner.SeeHeard("combobox “Find”");
        owner.Key("beams are listed");
        owner.See("the beams are listed, ask the council");
        owner.Key(Keys.Enter);
        owner.See("What happened?");
        owner.See("Begin one:");
        owner.SeeHeard("complementary “Sheet”");
    }
}
