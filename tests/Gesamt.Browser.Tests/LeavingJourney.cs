namespace Gesamt.Browser.Tests;

/// <summary>Everything out: the studio in one file, one project to read and to keep, and what a person may ask for.</summary>
public sealed class LeavingJourney(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public void The_studio_is_put_into_one_file_while_it_goes_on_and_the_file_is_taken_away_again()
    {
        owner.Go("/studio");
        owner.See("Everything in one file of open formats.");
        owner.PressWith("Archive");
        owner.See("an empty Gesamt takes it in again");
        Assert.Equal("", owner.Violations());
        owner.Press("Make an archive");
        owner.See("Take it away");
        owner.See("One is kept, of 25 January 2027");
        Assert.Equal("", owner.Violations());
        owner.Press("Take it away");
        owner.SeeNot("Take it away");
        owner.See("Make an archive");
        Assert.Empty(owner.Complaints());
    }

    [Fact]
    public void A_record_hands_out_its_history_and_everything_of_it_and_a_person_their_copy()
    {
        owner.Go("/register?putAway=true&words=terrace");
        owner.PressWith("Weir House terrace");
        owner.See("What happened?");
        owner.Unfold("Copies and letters as files");
        owner.See("its history (PDF)");
        Assert.StartsWith("%PDF", System.Text.Encoding.ASCII.GetString(owner.Fetched("history.pdf")[..4]));
        Assert.StartsWith("PK", System.Text.Encoding.ASCII.GetString(owner.Fetched("everything.zip")[..2]));
        owner.Go("/people?words=conlon");
        owner.PressWith("Rafe Conlon");
        owner.See("A copy for them");
        Assert.StartsWith("PK", System.Text.Encoding.ASCII.GetString(owner.Fetched("copy.zip")[..2]));
    }

    [Fact]
    public void Somebody_is_erased_after_it_was_told_what_goes_and_what_the_law_keeps()
    {
        owner.Go("/people?words=solberg");
        owner.PressWith("Pia Solberg");
        owner.See("Northgate first wash");
        owner.Press("Erase");
        owner.See("Gone for good");
        owner.See("until 31 December 2030");
        owner.See("This cannot be taken back.");
        Assert.Equal("", owner.Violations());
        owner.Press("Erase for good");
        owner.SeeNot("Pia Solberg");
        owner.Go("/people?words=solberg");
        owner.SeeNot("Pia Solberg");
        // what happened is there, and what is kept is told
        owner.Go("/studio");
        owner.PressWith("Erasing people");
        owner.See("What was agreed, as it was signed: until 31 December 2030");
        Assert.Equal("", owner.Violations());
        owner.PressWith("Project ");
        owner.See("The client was erased on 25 January 2027.");
        owner.See("Somebody approved the work");
        Assert.Equal("", owner.Violations());
        Assert.Empty(owner.Complaints());
    }
}
