namespace Gesamt.Browser.Tests;

/// <summary>The parts that pages are made of, each in each state, and the fields for days by hand and by keys.</summary>
public sealed class KitTests(Demo demo) : IClassFixture<Demo>
{
    private readonly Person owner = demo.Owner;

    [Fact]
    public void Every_part_in_every_state_has_no_violation_in_either_scheme_and_fits_a_phone()
    {
        foreach (var dark in new[] { false, true })
        {
            owner.Screen(1280, 800, dark);
            owner.Go("/kit");
            owner.See("What every page is made of");
            Assert.Equal("", owner.Violations());
            owner.Press("More");
            owner.See("Keep as a mail file");
            Assert.Equal("", owner.Violations());
            owner.Key(Keys.Escape);
            owner.Press("pick the day: Day to come");
            owner.See("January 2027");
            Assert.Equal("", owner.Violations());
            owner.Key(Keys.Escape);
            owner.Press("Open a window");
            owner.See("For what is said once");
            Assert.Equal("", owner.Violations());
            owner.Key(Keys.Escape);
        }
        owner.Screen(390, 844);
        owner.Go("/kit");
        owner.See("What every page is made of");
        Assert.Equal(390L, owner.Driver.ExecuteScript("return document.documentElement.scrollWidth"));
        owner.Screen(1280, 800);
    }

    [Fact]
    public void A_day_is_typed_as_people_write_it_and_read_at_once()
    {
        owner.Go("/kit");
        owner.Type("Day to come", "in 3 weeks");
        owner.See("Mon 15 Feb, in 21 days");
        owner.Key(Keys.Tab);
        Assert.Equal("Mon 15 Feb 2027", owner.ValueOf("Day to come"));
        owner.Type("Day to come", "the day after");
        owner.Key(Keys.Tab);
        owner.See("Write a day, such as fri");
        Assert.Equal("the day after", owner.ValueOf("Day to come"));
        owner.Type("Day it happened", "fri");
        owner.See("Fri 22 Jan, 3 days ago");
    }

    [Fact]
    public void A_day_is_picked_by_keys_and_the_focus_goes_back()
    {
        owner.Go("/kit");
        owner.Type("Day to come", "12 mar");
        owner.See("Fri 12 Mar");
        owner.Press("pick the day: Day to come");
        owner.See("March 2027");
        // a week on, a day back, a month on: the grid of WAI-ARIA
        owner.Key(Keys.ArrowDown, Keys.ArrowLeft, Keys.PageDown, Keys.Enter);
        owner.SeeNot("April 2027");
        Assert.Equal("Sun 18 Apr 2027", owner.ValueOf("Day to come"));
        Assert.Equal("Day to come", owner.Focused());
        owner.Press("pick the day: Day to come");
        owner.See("April 2027");
        owner.Key(Keys.Escape);
        owner.SeeNot("April 2027");
        Assert.Equal("Day to come", owner.Focused());
    }

    [Fact]
    public void An_amount_is_shown_as_it_is_read_and_asked_about_where_it_could_be_two()
    {
        owner.Go("/kit");
        owner.Type("Price, before tax", "1.234,50");
        owner.See("€ 1 234.50");
        owner.Type("Price, before tax", "1.500");
        owner.See("It can be read as 1 500 or 1.5: write which.");
    }
}
