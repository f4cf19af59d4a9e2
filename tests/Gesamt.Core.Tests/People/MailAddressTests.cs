using Gesamt.Core.People;

namespace Gesamt.Core.Tests.People;

public sealed class MailAddressTests
{
    [Theory] // RFC 5321, 4.1.2: Dot-string and Domain; RFC 5322, 3.2.3: atext; RFC 6531, 3.3: letters beyond ASCII
    [InlineData("mona@lanternhouse.example", true)]
    [InlineData("first.last+wall@sub.place.example", true)]
    [InlineData("o'neill@place.example", true)]
    [InlineData("zoë@straße.example", true)]
    [InlineData("用户@例子.example", true)]
    [InlineData("!#$%&'*+-/=?^_`{|}~@place.example", true)]
    [InlineData("mona@localhost", false)]
    [InlineData("mona lantern@place.example", false)]
    [InlineData("Mona <mona@place.example>", false)]
    [InlineData("mona@place..example", false)]
    [InlineData("@place.example", false)]
    [InlineData("a..b@place.example", false)]
    [InlineData(".a@place.example", false)]
    [InlineData("a.@place.example", false)]
    [InlineData("a@b@place.example", false)]
    [InlineData("a@-place.example", false)]
    [InlineData("a@place-.example", false)]
    [InlineData("a@place.example.", false)]
    [InlineData("a@[192.0.2.1]", false)]
    [InlineData("\"a b\"@place.example", false)]
    [InlineData("a\u0000b@place.example", false)]
    [InlineData("a\r\nBcc: b@place.example", false)]
    [InlineData("a\u202eb@place.example", false)]
    [InlineData("\u200b@place.example", false)]
    [InlineData("", false)]
    [InlineData(null, false)]
    public void An_address_is_one_a_letter_can_be_written_to(string? text, bool valid) =>
        Assert.Equal(valid, MailAddress.IsValid(text));

    [Theory] // RFC 5321, 4.5.3.1: 64 octets before the “@”, 255 of domain; 254 in all (RFC 3696, erratum 1690)
    [InlineData(64, true), InlineData(65, false)]
    public void Its_local_part_has_at_most_64_octets(int length, bool valid) =>
        Assert.Equal(valid, MailAddress.IsValid(new string('a', length) + "@place.example"));

    [Theory]
    [InlineData(63, true), InlineData(64, false)]
    public void A_label_has_at_most_63_octets(int length, bool valid) =>
        Assert.Equal(valid, MailAddress.IsValid($"a@{new string('b', length)}.example"));
}
