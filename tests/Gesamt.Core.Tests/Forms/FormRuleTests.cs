using Gesamt.Core.Forms;

namespace Gesamt.Core.Tests.Forms;

public sealed class FormRuleTests
{
    private static readonly FormField Name = new("name", FieldSort.ShortText, "Your name", true, Fills: "name");
    private static readonly FormField Mail = new("mail", FieldSort.Mail, "Mail address", true, Fills: "mail");
    private static readonly FormField Access = new("access", FieldSort.OneOf, "Access?", Options: ["yes", "no"]);
    private static readonly FormField Why = new(
        "why",
        FieldSort.ShortText,
        "Why not?",
        true,
        ShownIf: new("access", ["no"])
    );
    private static readonly FormField Deeper = new(
        "deeper",
        FieldSort.AnyOf,
        "What of it?",
        Options: ["a", "b"],
        ShownIf: new("access", ["no"])
    );
    private static readonly FormField Deepest = new(
        "deepest",
        FieldSort.ShortText,
        "And?",
        true,
        ShownIf: new("deeper", ["b"])
    );

    private static Dictionary<string, string> Given(params (string, string)[] answers) =>
        answers.ToDictionary(a => a.Item1, a => a.Item2);

    [Fact]
    public void A_field_is_shown_by_a_choice_above_it_and_hidden_with_what_it_hangs_on()
    {
        FormField[] fields = [Name, Access, Why, Deeper, Deepest];
        string[] Shown(params (string, string)[] answers) =>
            [.. FormRule.Shown(fields, Given(answers)).Select(field => field.Key)];
        Assert.Equal(["name", "access"], Shown());
        Assert.Equal(["name", "access", "why", "deeper"], Shown(("access", "no")));
        Assert.Equal(["name", "access", "why", "deeper", "deepest"], Shown(("access", "no"), ("deeper", "a\nb")));
        // the answer that showed it is still there, but the question above is not
        Assert.Equal(["name", "access"], Shown(("access", "yes"), ("deeper", "b")));
    }

    [Fact]
    public void A_required_field_that_is_not_shown_is_not_asked_for_and_its_answer_is_left_out()
    {
        var (answers, mistakes) = FormRule.Read(
            [Name, Access, Why],
            Given(("name", "Mona"), ("access", "yes"), ("why", "a canal"))
        );
        Assert.Empty(mistakes);
        Assert.Equal(["name", "access"], answers.Select(a => a.Key));
        Assert.Equal(
            ["why"],
            FormRule.Read([Name, Access, Why], Given(("name", "Mona"), ("access", "no"))).Mistakes.Select(m => m.Field)
        );
    }

    [Theory]
    [InlineData(FieldSort.Number, "12.5", true)]
    [InlineData(FieldSort.Number, "-3", false)]
    [InlineData(FieldSort.Number, "a lot", false)]
    [InlineData(FieldSort.Amount, "1200", true)]
    [InlineData(FieldSort.Amount, "1200-2000", true)]
    [InlineData(FieldSort.Amount, "1200 - 2000.50", true)]
    [InlineData(FieldSort.Amount, "2000-1200", false)]
    [InlineData(FieldSort.Amount, "1-2-3", false)]
    [InlineData(FieldSort.Date, "2027-03-12", true)]
    [InlineData(FieldSort.Date, "2027-02-29", false)]
    [InlineData(FieldSort.Phone, "+353 1 555 0142", true)]
    [InlineData(FieldSort.Phone, "ring me", false)]
    [InlineData(FieldSort.Consent, "yes", true)]
    [InlineData(FieldSort.Consent, "no", false)]
    [InlineData(FieldSort.OneOf, "red", true)]
    [InlineData(FieldSort.OneOf, "red\nblue", false)]
    [InlineData(FieldSort.AnyOf, "red\nblue", true)]
    [InlineData(FieldSort.AnyOf, "red\ngreen", false)]
    public void An_answer_is_checked_by_what_its_field_asks_for(FieldSort sort, string text, bool allowed) =>
        Assert.Equal(allowed, FormRule.MistakeIn(new("f", sort, "F", Options: ["red", "blue"]), text) is null);

    [Theory] // a hint says “roughly; width times height”, and people answer it
    [
        InlineData("about 24", "24 m²"),
        InlineData("6 x 4", "24 m²"),
        InlineData("6×4", "24 m²"),
        InlineData("6 m x 4 m", "24 m²"),
        InlineData("6 by 4 metres", "24 m²"),
        InlineData("roughly 4,20 x 2", "8.4 m²"),
        InlineData("24 m²", "24 m²"),
        InlineData("2,000", "2000 m²"),
        InlineData("~ 31", "31 m²"),
        InlineData("24", null)
    ]
    [
        InlineData("24 m2", "24 m²"),
        InlineData("24 sqm or so", "24 m²"),
        InlineData("24 square metres, approx.", "24 m²"),
        InlineData("6m x 4m", "24 m²")
    ]
    public void Sizes_are_understood_as_people_write_them(string text, string? understood)
    {
        FormField size = new("size", FieldSort.Number, "Size", Unit: "m²");
        var (answers, mistakes) = FormRule.Read([size], Given(("size", text)));
        Assert.Empty(mistakes);
        Assert.Equal((text, understood), (answers[0].Text, answers[0].Understood));
    }

    [Theory]
    [
        InlineData("about 1200 €", "1200"),
        InlineData("1 200 – 2 000", "1200-2000"),
        InlineData("1200 to 2000 euro", "1200-2000"),
        InlineData("up to 2,000", "2000")
    ]
    [
        InlineData("3k", "3000"),
        InlineData("about 2.5k €", "2500"),
        InlineData("3k to 5k", "3000-5000"),
        InlineData("2 thousand euro", "2000")
    ]
    public void Amounts_and_ranges_are_understood(string text, string understood) =>
        Assert.Equal(
            understood,
            FormRule.Read([new("b", FieldSort.Amount, "Budget")], Given(("b", text))).Answers[0].Understood
        );

    [Theory]
    [
        InlineData("1.500"),
        InlineData("twenty"),
        InlineData("6 x 4 x 3 x 2"),
        InlineData("20-25"),
        InlineData("6 or 4 x")
    ]
    public void What_is_doubtful_is_asked(string text) =>
        Assert.NotNull(FormRule.MistakeIn(new("size", FieldSort.Number, "Size"), text));

    [Theory] // another measure is another number
    [
        InlineData("m²", "600 cm"),
        InlineData("m²", "24 m"),
        InlineData("m²", "6 ft x 4 ft"),
        InlineData("m²", "600 x 400 cm"),
        InlineData("m²", "3 walls"),
        InlineData("days", "2 weeks"),
        InlineData("letters", "30 cm"),
        InlineData("cm", "2 m")
    ]
    public void Another_measure_is_asked_again(string unit, string text) =>
        Assert.StartsWith(
            $"A number ({unit})",
            FormRule.MistakeIn(new("size", FieldSort.Number, "Size", Unit: unit), text)
        );

    [Theory]
    [
        InlineData("letters", "14 letters", "14 letters"),
        InlineData("people", "12 guests", "12 people"),
        InlineData("days", "about 2 days", "2 days"),
        InlineData("ft²", "6 ft x 4 ft", "24 ft²"),
        InlineData("ft", "6'", "6 ft")
    ]
    public void What_was_asked_for_can_be_named(string unit, string text, string understood) =>
        Assert.Equal(
            understood,
            FormRule
                .Read([new("size", FieldSort.Number, "Size", Unit: unit)], Given(("size", text)))
                .Answers[0]
                .Understood
        );

    [Theory] // how much the 3 is is not said
    [InlineData("3-5k"), InlineData("3k-5000"), InlineData("5k-3k")]
    public void A_range_of_which_one_end_is_in_thousands_is_asked(string text) =>
        Assert.NotNull(FormRule.MistakeIn(new("b", FieldSort.Amount, "Budget"), text));

    [Fact]
    public void Too_long_an_answer_says_how_long_it_may_be() =>
        Assert.Equal("At most 120 characters, these are 201.", FormRule.MistakeIn(Name, new string('x', 201)));

    [Fact]
    public void Unknown_answers_are_named() =>
        Assert.Equal(
            "This form has no such field.",
            Assert.Single(FormRule.Read([Access], Given(("likelihood", "high"))).Mistakes).Words
        );

    [Fact]
    public void A_form_that_cannot_work_says_where()
    {
        Assert.Empty(FormRule.MistakesIn([Name, Mail, Access, Why]));
        string[] Of(params FormField[] fields) => [.. FormRule.MistakesIn(fields).Select(m => m.Field)];
        Assert.Equal(["fields"], Of(Name));
        Assert.Equal(["fields"], Of(Mail));
        Assert.Equal(["fields[2].key"], Of(Name, Mail, Name with { Fills = null }));
        Assert.Equal(["fields[2].options"], Of(Name, Mail, Access with { Options = ["yes"] }));
        Assert.Equal(["fields[2].options"], Of(Name, Mail, Access with { Options = ["yes", "yes"] }));
        Assert.Equal(["fields[2].label"], Of(Name, Mail, Access with { Label = " " }));
        // a condition needs a field above it, and a choice that exists
        Assert.Equal(["fields[2].shownIf"], Of(Name, Mail, Why, Access));
        Assert.Equal(["fields[3].shownIf"], Of(Name, Mail, Access, Why with { ShownIf = new("access", ["maybe"]) }));
    }

    [Fact]
    public void Whatever_is_given_hidden_fields_never_come_through()
    {
        FormField[] fields = [Name, Mail, Access, Why, Deeper, Deepest];
        var word = Any.Of("yes", "no", "a", "b", "a\nb", "x", "", "mona@place.example");
        Gen.Select(word, word, word, word, word)
            .Sample(
                (access, why, deeper, deepest, name) =>
                {
                    var given = Given(
                        ("access", access),
                        ("why", why),
                        ("deeper", deeper),
                        ("deepest", deepest),
                        ("name", name)
                    );
                    var shown = FormRule.Shown(fields, given).Select(field => field.Key).ToHashSet();
                    Assert.All(FormRule.Read(fields, given).Answers, answer => Assert.Contains(answer.Key, shown));
                    if (access != "no")
                        Assert.DoesNotContain("why", shown);
                }
            );
    }

    [Fact]
    public void What_is_known_is_never_overwritten()
    {
        var (added, differs) = DetailsRule.Compare(
            new Dictionary<string, string>
            {
                ["phone"] = "01 555",
                ["mail"] = "",
                ["organisation"] = "Dovecote",
            },
            [new("phone", "087 555"), new("mail", "pia@dovecote.example"), new("organisation", " dovecote ")]
        );
        Assert.Equal(new KeyValuePair<string, string>("mail", "pia@dovecote.example"), Assert.Single(added));
        Assert.Equal(new Contradiction("phone", "01 555", "087 555"), Assert.Single(differs));
    }
}
