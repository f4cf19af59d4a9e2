using Gesamt.Core.Capture;

namespace Gesamt.Core.Tests.Capture;

public sealed class SlipTests
{
    // Monday
    private static readonly LocalDate Today = World.Date("2027-01-25");
    private static readonly SlipProject Harbour = new(
        new(1),
        ["Harbour Lane Bakery front", "Oona Pettigrew", "Harbour Lane Bakery"],
        World.Date("2027-05-14")
    );
    private static readonly SlipProject Kestrel = new(
        new(2),
        ["Kestrel climbing hall", "Ada Quill", "Kestrel Climbing Hall"],
        null
    );
    private static readonly SlipProject Quay = new(
        new(3),
        ["Quay Street arcade", "Oskar Lind", "Quay Street Arcade"],
        null
    );
    private static readonly SlipProject Harbourview = new(new(4), ["Harbourview hotel", "Elin Vogt", null!], null);

    private static SlipReading Read(string text, long? here = null) =>
        SlipReader.Read(
            text,
            Today,
            World.Calendar,
            [Harbour, Kestrel, Quay],
            here is { } id ? new ProjectId(id) : null
        );

    [Theory]
    [InlineData("order paint for harbour fri", SlipSort.Task, "order paint", 1, "2027-01-29")]
    [InlineData(
        "ask about the key for harbour lane bakery tomorrow",
        SlipSort.Task,
        "ask about the key",
        1,
        "2027-01-26"
    )]
    [InlineData("ring Ada about kestrel on monday", SlipSort.Task, "ring Ada", 2, "2027-02-01")]
    [InlineData("send photos for quay 12 mar", SlipSort.Task, "send photos", 3, "2027-03-12")]
    [InlineData("send photos for quay 12 jan", SlipSort.Task, "send photos", 3, "2028-01-12")]
    [InlineData("send photos for quay mar 12 2029", SlipSort.Task, "send photos", 3, "2029-03-12")]
    [InlineData("send photos for quay 2027-04-01", SlipSort.Task, "send photos", 3, "2027-04-01")]
    [InlineData("order lift for harbour in 3 days", SlipSort.Task, "order lift", 1, "2027-01-28")]
    [InlineData("order lift for harbour in a month", SlipSort.Task, "order lift", 1, "2027-02-25")]
    [InlineData("run sheet for harbour 2 weeks before", SlipSort.Task, "run sheet", 1, "2027-04-30")]
    [InlineData("thank you for oona 1 day after", SlipSort.Task, "thank you", 1, "2027-05-15")]
    [InlineData("note for kestrel: the belay line stays", SlipSort.Note, "the belay line stays", 2, null)]
    [InlineData("call: Oskar wants stars, for quay", SlipSort.Call, "Oskar wants stars", 3, null)]
    [InlineData("call Oskar for quay thu", SlipSort.Task, "Call Oskar", 3, "2027-01-28")]
    [InlineData("gold leaf is cheaper elsewhere", SlipSort.Note, "gold leaf is cheaper elsewhere", null, null)]
    public void Plain_words_are_read(string text, SlipSort sort, string rest, int? project, string? due)
    {
        var read = Read(text);
        Assert.Equal((sort, rest), (read.Sort, read.Text.Trim(' ', ':', ',')));
        Assert.Equal(project, (int?)read.Project?.Value);
        Assert.Equal(due, read.Due is { } date ? NodaTime.Text.LocalDatePattern.Iso.Format(date) : null);
    }

    [Theory] // whole words only, and nothing is cut that did not become what it says
    [
        InlineData("order 12 markers"),
        InlineData("2 decals for the van"),
        InlineData("the sun over the door"),
        InlineData("paint the sun"),
        InlineData("wall 4 may need a second coat"),
        InlineData("we sat with the brushes"),
        InlineData("colour 12-mar-red"),
        InlineData("page 2027-04-01-b"),
        InlineData("monument needs wax")
    ]
    public void What_only_looks_like_a_date_is_none(string text)
    {
        var read = Read(text);
        Assert.Equal((null, text), (read.Due, read.Text));
    }

    [Theory]
    [
        InlineData("paint ceiling sun", "2027-01-31"),
        InlineData("paint on sat", "2027-01-30"),
        InlineData("varnish 12 march", "2027-03-12"),
        InlineData("varnish by 4 may and pack", "2027-05-04"),
        InlineData("varnish 1st sept", "2027-09-01"),
        InlineData("the sun over the door fri", "2027-01-29")
    ]
    public void Days_and_months_that_are_words_too_are_read_where_they_can_be_nothing_else(string text, string due) =>
        Assert.Equal(World.Date(due), Read(text).Due);

    [Theory]
    [
        InlineData("prime the wall 2.25 hours", 135),
        InlineData("prime the wall 1,5 h", 90),
        InlineData("prime the wall 45 mins", 45),
        InlineData("prime 2 hrs", 120)
    ]
    [
        InlineData("prime 1 h 15 min", 75),
        InlineData("prime 1 hour and 5 minutes", 65),
        InlineData("prime 1:30 h", 90),
        InlineData("prime 1h30", 90),
        InlineData("prime 2 hours 30 brushes", 120)
    ]
    public void How_long_it_takes_is_read_whole(string text, int minutes) => Assert.Equal(minutes, Read(text).Minutes);

    [Theory] // the end of another number is no number of its own
    [
        InlineData("prime 2-3 hours"),
        InlineData("prime 1/2 hour"),
        InlineData("prime 1:75 h"),
        InlineData("sheet 2.5 weeks before"),
        InlineData("sheet 10–12 days before"),
        InlineData("cut 1/2 mar")
    ]
    public void Part_of_a_number_is_not_read(string text)
    {
        var read = Read(text, here: 1);
        Assert.Equal((null, null, text), (read.Minutes, read.Due, read.Text));
    }

    [Fact] // R4: a weekday in words means the next one after today
    public void A_weekday_is_the_next_one_after_today() =>
        Assert.Equal(World.Date("2027-02-01"), Read("varnish monday").Due);

    [Fact]
    public void Time_it_takes_importance_and_labels_are_read()
    {
        var read = Read("prime the wall for harbour, 2.5 hours, important, label sign label outdoors");
        Assert.Equal((150, true), (read.Minutes!.Value, read.Important));
        Assert.Equal(["sign", "outdoors"], read.Labels);
        Assert.Equal("prime the wall", read.Text.TrimEnd(',', ' '));
        Assert.Equal(30, Read("sand the board 30 min").Minutes);
    }

    [Fact]
    public void A_name_that_fits_two_projects_is_neither()
    {
        var read = SlipReader.Read(
            "order paint for harbour",
            Today,
            World.Calendar,
            [Harbour, Harbourview with { Names = ["Harbourview hotel", "Elin Vogt"] }]
        );
        Assert.Null(read.Project);
        Assert.Equal("order paint for harbour", read.Text);
    }

    [Fact]
    public void What_is_open_is_meant_when_nothing_is_named_and_a_name_goes_first()
    {
        Assert.Equal(new ProjectId(2), Read("belay line stays", here: 2).Project);
        Assert.Equal(new ProjectId(1), Read("order paint for harbour", here: 2).Project);
    }

    [Fact]
    public void Days_before_a_date_nobody_knows_stay_text()
    {
        var read = Read("run sheet for kestrel 2 weeks before");
        Assert.Null(read.Due);
        Assert.Equal("run sheet 2 weeks before", read.Text);
    }

    [Theory]
    [InlineData("30 feb")]
    [InlineData("2027-13-01")]
    public void A_day_that_does_not_exist_stays_text(string day)
    {
        var read = Read($"varnish {day}");
        Assert.Null(read.Due);
        Assert.Equal($"varnish {day}", read.Text);
    }

    [Fact]
    public void No_letter_of_a_slip_is_lost()
    {
        var word = Any.Of(
            "order",
            "paint",
            "for",
            "harbour",
            "fri",
            "12",
            "mar",
            "in",
            "3",
            "days",
            "important",
            "label",
            "sign",
            "hours",
            "note",
            "call",
            "kestrel",
            "2",
            "weeks",
            "before",
            "Ü",
            "30",
            "feb",
            ":"
        );
        word.Array[1, 9]
            .Sample(words =>
            {
                var text = string.Join(' ', words);
                var read = Read(text);
                var left = $"{read.Text} {string.Join(' ', read.Read.Select(one => one.Words))}"
                    .Split([' ', ':', ','], StringSplitOptions.RemoveEmptyEntries)
                    .Select(w => w.ToLowerInvariant())
                    .ToList();
                foreach (var one in text.Split([' ', ':'], StringSplitOptions.RemoveEmptyEntries))
                    Assert.True(
                        left.Contains(one.ToLowerInvariant()),
                        $"“{one}” of “{text}” is in neither “{read.Text}” nor what was understood."
                    );
            });
    }

    [Theory] // a note and a call keep every word of theirs, days too
    [
        InlineData(
            "note: Ada said friday is fine, 2 hours at most",
            SlipSort.Note,
            "Ada said friday is fine, 2 hours at most"
        ),
        InlineData("call: Ada wants it important and by 12 mar", SlipSort.Task, "Call Ada wants it and")
    ]
    public void What_was_said_keeps_its_words(string text, SlipSort sort, string kept)
    {
        var read = Read(text);
        Assert.Equal((sort, kept), (read.Sort, read.Text));
        Assert.Equal(sort == SlipSort.Task, read.Due is not null);
    }

    [Fact]
    public void Whoever_writes_says_what_it_becomes()
    {
        SlipReading As(SlipSort sort) =>
            SlipReader.Read(
                "Ada for kestrel: friday is fine, 2 hours",
                Today,
                World.Calendar,
                [Harbour, Kestrel],
                Harbour.Id,
                sort,
                isOfHere: true
            );
        var note = As(SlipSort.Note);
        Assert.Equal(
            (SlipSort.Note, "Ada for kestrel: friday is fine, 2 hours", Harbour.Id),
            (note.Sort, note.Text, note.Project!.Value)
        );
        Assert.Equal((null, null, SlipSort.Call), (note.Due, note.Minutes, As(SlipSort.Call).Sort));
        var task = As(SlipSort.Task);
        Assert.Equal((World.Date("2027-01-29"), 120), (task.Due!.Value, task.Minutes!.Value));
    }

    [Fact]
    public void A_day_takes_its_for_along() =>
        Assert.Equal("order the undercoat", Read("order the undercoat for friday").Text);
}
