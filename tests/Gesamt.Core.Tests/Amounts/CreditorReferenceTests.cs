namespace Gesamt.Core.Tests.Amounts;

public class CreditorReferenceTests
{
    [Theory] // the worked example of ISO 11649 and of the European Payments Council, from memory: RF18 5390 0754 7034
    [InlineData("539007547034", "RF18539007547034")]
    public void Check_digits_are_those_of_the_published_example(string number, string reference) =>
        Assert.Equal(reference, CreditorReference.Of(number));

    [Theory]
    [
        InlineData("RF18 5390 0754 7034", true),
        InlineData("rf18539007547034", true),
        InlineData("RF19 5390 0754 7034", false),
        InlineData("RF18 5390 0754 7035", false),
        InlineData("RF", false),
        InlineData("", false),
        InlineData("XX18 5390 0754 7034", false),
        InlineData("RF18 5390 0754 7034 5390 0754 7034 1", false)
    ]
    public void A_reference_is_known_by_its_check_digits(string text, bool valid) =>
        Assert.Equal(valid, CreditorReference.IsValid(text));

    [Fact] // ISO 7064, MOD 97-10: any one letter or digit mistyped for another is found
    public void Any_number_gives_a_reference_that_holds_and_no_neighbour_of_it_does() =>
        Gen.Select(Gen.String[Gen.Char["ABCXYZ0123456789-/ "], 1, 21], Gen.Int[0, 40])
            .Where((number, _) => number.Any(char.IsAsciiLetterOrDigit))
            .Sample(
                (number, at) =>
                {
                    var reference = CreditorReference.Of(number);
                    Assert.True(CreditorReference.IsValid(CreditorReference.Written(reference)));
                    var place = 4 + at % (reference.Length - 4);
                    var other =
                        char.IsAsciiDigit(reference[place]) ? (reference[place] == '7' ? '8' : '7')
                        : reference[place] == 'Q' ? 'R'
                        : 'Q';
                    var mistyped = reference[..place] + other + reference[(place + 1)..];
                    Assert.False(CreditorReference.IsValid(mistyped));
                }
            );

    [Fact]
    public void Of_a_long_number_its_end_counts() =>
        Assert.True(CreditorReference.IsValid(CreditorReference.Of("SERIES-OF-A-VERY-LONG-NAME-2027-001")));

    [Fact]
    public void It_is_printed_in_groups_of_four() =>
        Assert.Equal("RF18 5390 0754 7034", CreditorReference.Written("rf18539007547034"));

    [Theory] // ISO 13616, the examples of its registry, from memory
    [
        InlineData("GB29 NWBK 6016 1331 9268 19"),
        InlineData("DE89 3704 0044 0532 0130 00"),
        InlineData("FR14 2004 1010 0505 0001 3M02 606"),
        InlineData("AT61 1904 3002 3457 3201"),
        InlineData("IE29 AIBK 9311 5212 3456 78")
    ]
    public void Account_numbers_of_the_registry_hold(string iban)
    {
        Assert.True(Iban.IsValid(iban));
        Assert.False(Iban.IsValid(iban[..^1] + (iban[^1] == '1' ? '2' : '1')));
    }
}
