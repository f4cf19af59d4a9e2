using NodaTime;

namespace Gesamt.Browser.Tests;

/// <summary>Follow-ups that ask first, as their owner meets them: a quiet lead, a late booking, a letter that stopped by itself, a postponed opening, a rehearsal.</summary>
public sealed class FollowUpTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner,
        client = demo.Client;

    [Fact]
    public async Task Follow_ups_ask_first_and_stop_by_themselves()
    {
        foreach (var name in new[] { "Quinn Quill", "Tara Talk" })
        {
            AnInquiryComes(name);
            TheOwnerAsksBack(name);
        }
        TheFollowUpsAreStoppedAndLetGoOnByKeys();
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 4, 10, 0));
        TheClientWritesAMinuteEarlier();
        await TheQuietLeadIsFollowedUpTwiceAndEndedAsync();
        TheLateBookingGetsTheShortVariant();
        ThePostponedOpeningTakesTheHeldLetterAlong();
        AStepIsWrittenAndItsMistakesNamed();
        ARoutineIsRehearsedToItsEnd();
        AWholeProjectIsRehearsed();
        foreach (var person in new[] { owner, client })
            Assert.All(
                person.Complaints(),
                line => Assert.True(line.Contains("status of 4", StringComparison.Ordinal), line)
            );
    }

    private void AnInquiryComes(string name)
    {
        client.Go("/i/mural");
        client.Type("Your name", name);
        client.Type(
            "Mail address",
            $"{name.Split(' ')[0].ToLowerInvariant()}@{name.Split(' ')[1].ToLowerInvariant()}.example"
        );
        client.Type("What should the wall say?", "Something quiet.");
        client.Type("Size of the wall", "12");
        client.Tick("You may keep my answers");
        client.Press("Send the inquiry");
        client.See("Thank you, your inquiry has arrived.");
    }

    /// <summary>From here on the next word is the client's, and a reminder is true.</summary>
    private void TheOwnerAsksBack(string name)
    {
        owner.Go("/today");
        owner.PressWith($"Mural for {name}");
        AQuestionIsSent();
    }

    /// <summary>A part of the sheet changes its place as it is opened or folded, and the focus goes with it.</summary>
    private void TheFollowUpsAreStoppedAndLetGoOnByKeys()
    {
        owner.KeyTo(Keys.Tab, "button", "Follow-ups", 150);
        owner.Key(Keys.Enter);
        owner.See("stop all");
        owner.SeeHeard("button “Follow-ups”");
        owner.KeyTo(Keys.Tab, "button", "stop all", most: 1);
        owner.Key(Keys.Enter);
        owner.See("Everything pending is stopped");
        owner.KeyTo(Keys.Tab, "button", "go on", most: 2);
        owner.Key(Keys.Enter);
        owner.See("stop all");
        owner.Press("Follow-ups");
        owner.SeeHeard("button “Follow-ups ");
    }

    private void AQuestionIsSent()
    {
        owner.Press("Write a letter");
        owner.Choose("Begin with", "First answer with a question");
        owner.Wait(() => owner.ValueOf("Subject").Length > 0, () => owner.Text);
        owner.Press("Send the letter");
        owner.SeeItLeave();
    }

    private void TheClientWritesAMinuteEarlier()
    {
        owner.Go("/today");
        owner.See("Are you still thinking about it?");
        owner.Wait(() => owner.Has("Are you still thinking about it?, to Tara Talk"), () => owner.Text);
        // Tara answers while the letter waits for its OK
        client.Go("/");
        client.SignIn();
        client.Go("/post-office");
        client.Type("Only letters from or to", "tara@talk.example");
        client.PressWith("Your inquiry has arrived");
        client.Type("Answer as Tara Talk", "Sorry for the silence, yes please.");
        client.Press("Send the answer");
        client.See("The answer is with the studio.");
        owner.Wait(
            () => !owner.Has("Are you still thinking about it?, to Tara Talk"),
            () => "The letter to Tara still waits."
        );
        owner.PressWith("Mural for Tara Talk");
        owner.See("because Tara answered");
        owner.See("Sorry for the silence");
    }

    private async Task TheQuietLeadIsFollowedUpTwiceAndEndedAsync()
    {
        owner.Go("/today");
        owner.PressIn("Are you still thinking about it?, to Quinn Quill", "Send");
        owner.Wait(() => !owner.Has("Are you still thinking about it?, to Quinn Quill"), () => "It still waits.");
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 4, 10, 0)); // it leaves now, not when the clock is set on
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 15, 10, 0));
        owner.Go("/today");
        owner.PressIn("shall we leave it here?, to Quinn Quill", "Later");
        owner.Type("Ask me again", "16 feb");
        owner.Type("at: Ask me again", "10");
        owner.PressIn("shall we leave it here?, to Quinn Quill", "Put it off");
        owner.Wait(() => !owner.Has("shall we leave it here?, to Quinn Quill"), () => owner.Text);
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 16, 10, 1));
        owner.PressIn("shall we leave it here?, to Quinn Quill", "Send");
        owner.Wait(() => !owner.Has("shall we leave it here?, to Quinn Quill"), () => "It still waits.");
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 16, 10, 1));
        await demo.House.WaitUntilAsync(Instant.FromUtc(2027, 2, 26, 10, 0));
        owner.Go("/today");
        owner.PressIn("Mural for Quinn Quill: End it as gone quiet?", "End it");
        owner.Wait(() => !owner.Has("Mural for Quinn Quill: End it as gone quiet?"), () => owner.Text);
        owner.Chord(Keys.Control, "k");
        owner.Type("Find", "quinn quill");
        owner.See("Something quiet. Quinn Quill");
        owner.Key(Keys.Enter);
        owner.See("Gone quiet");
    }

    private void TheLateBookingGetsTheShortVariant()
    {
        owner.Go("/today");
        owner.See("Came in");
        owner.Key("i");
        owner.Type("Name", "Late Larry");
        owner.Choose("Kind of work", "Mural");
        owner.Type("Mail", "larry@late.example");
        owner.Press("Keep the inquiry");
        owner.See("Mural for Late Larry");
        owner.Press("set the opening day");
        owner.Type("New date", "2027-03-15");
        owner.Press("Show what moves with it");
        owner.Press("Move it to Mon 15 Mar");
        owner.See("in 17 days");
        owner.Press("What happened?");
        owner.PressWith("something else");
        owner.Tick("They are booked straight away");
        owner.Type("Price, before tax", "900");
        owner.Type("Why without a contract", "He always pays.");
        owner.Press("Record: They are booked straight away");
        owner.See("A routine is offered");
        owner.Go("/today");
        owner.PressIn("Mural for Late Larry: Begin “Before the opening, short”?", "Begin it");
        owner.Wait(() => !owner.Has("Begin “Before the opening, short”?"), () => owner.Text);
    }

    private void ThePostponedOpeningTakesTheHeldLetterAlong()
    {
        owner.Wait(() => owner.Has("a word to the neighbours, to Late Larry"), () => owner.Text);
        owner.PressWith("Mural for Late Larry");
        owner.See("Before the opening, short");
        owner.See("waits for your OK");
        owner.Press("move the opening day");
        owner.Type("New date", "2027-06-12");
        owner.Press("Show what moves with it");
        owner.See("A word to the neighbours");
        owner.Press("Move it to Sat 12 Jun");
        owner.See("Fri 21 May"); // three weeks before, a Saturday, in sending hours
        owner.Go("/today");
        owner.See("The day");
        owner.Wait(() => !owner.Has("a word to the neighbours, to Late Larry"), () => owner.Text);
        Assert.Equal("", owner.Violations());
    }

    private void AStepIsWrittenAndItsMistakesNamed()
    {
        owner.Go("/templates/routines");
        owner.PressWith("After a proposal");
        owner.See("Who is in it");
        owner.Press("Add a step");
        owner.See("3 days after the proposal was sent, at 09:00, if not answered");
        owner.Choose("Before or after", "before");
        owner.See("Only a date that is known beforehand has a before");
        owner.Choose("Before or after", "after");
        owner.Choose("What it does", "tells me something");
        owner.Type("Words", "Ring them.");
        owner.See("tell me “Ring them.”, asks first");
        owner.Press("Keep the routine");
        owner.See("Runs that have begun keep the steps they began with.");
        Assert.Equal("", owner.Violations());
    }

    private void ARoutineIsRehearsedToItsEnd()
    {
        owner.Press("Rehearse it");
        owner.See("every step with its date and its letter");
        owner.Type("find a project", "tara talk");
        owner.PressWith("Mural for Tara Talk");
        owner.Type("opens the proposal", "1");
        owner.Press("Rehearse it");
        owner.See("the client opens the proposal");
        owner.SeeNot("after your OK");
        owner.Press("Wind on");
        owner.See("stopped, opened");
        owner.Press("To the end");
        owner.See("the letter “The proposal is still open”, after your OK");
        owner.PressWith("the letter “The proposal is still open”");
        owner.See("Hello Tara,");
        Assert.Equal("", owner.Violations());
    }

    private void AWholeProjectIsRehearsed()
    {
        owner.Go("/templates/rehearsals");
        owner.Type("Whom you make up", "Nobody Atall");
        owner.Press("Begin the rehearsal");
        owner.See("A rehearsal.");
        owner.Press("Wind to what comes next");
        owner.See("Letter “Your inquiry has arrived”");
        AQuestionIsSent();
        owner.Press("Wind to what comes next"); // the letter leaves
        owner.See("decide whether it is a fit");
        owner.Press("Wind to what comes next");
        owner.See("waits for your OK");
        Assert.Equal("", owner.Violations());
        owner.Go("/turns");
        owner.See("Whose turn is it?");
        owner.SeeNot("Nobody Atall");
    }
}
