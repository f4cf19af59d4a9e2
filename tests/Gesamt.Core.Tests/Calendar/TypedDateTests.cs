using System.Globalization;
using NodaTime.Text;

namespace Gesamt.Core.Tests.Calendar;

public class TypedDateTests
{
    private static readonly LocalDate Monday = new(2027, 1, 25);

    private static readonly Gen<LocalDate> Dates = Gen.Int[0, 109_000]
        .Select(days => Core.Calendar.Dates.First.PlusDays(days));

    private static string? Read(string text, Lean lean = Lean.Ahead) =>
        TypedDate.Day(text, Monday, World.Calendar, lean) is { } date ? LocalDatePattern.Iso.Format(date) : null;

    [Theory] // common practice
    [InlineData("today", "2027-01-25"), InlineData("Tomorrow", "2027-01-26"), InlineData("yesterday", "2027-01-24")]
    [InlineData("fri", "2027-01-29"), InlineData("next Fri", "2027-01-29"), InlineData("last fri", "2027-01-22")]
    [InlineData("mon", "2027-02-01"), InlineData("on tuesday", "2027-01-26")]
    [InlineData("12 mar", "2027-03-12"), InlineData("march 12", "2027-03-12"), InlineData("12th March,", "2027-03-12")]
    [InlineData("24 jan", "2028-01-24"), InlineData("25 jan", "2027-01-25"), InlineData("12 mar 2031", "2031-03-12")]
    [
        InlineData("in 3 weeks", "2027-02-15"),
        InlineData("in a month", "2027-02-25"),
        InlineData("in 1 day", "2027-01-26")
    ]
    [InlineData("2 days ago", "2027-01-23"), InlineData("a week ago", "2027-01-18")]
    [InlineData("12.3.", "2027-03-12"), InlineData("12.3.2027", "2027-03-12"), InlineData("12.3.27", "2027-03-12")]
    [InlineData("13/3", "2027-03-13"), InlineData("3/13/2027", "2027-03-13"), InlineData("4/4", "2027-04-04")]
    [InlineData("29 feb", "2028-02-29"), InlineData(" 2027-03-12 ", "2027-03-12")]
    [InlineData("Fri 12 Mar", "2027-03-12"), InlineData("friday, 12 mar", "2027-03-12")]
    [InlineData("Fri 12 Mar 2028", "2028-03-12")]
    public void A_day_is_read_as_people_write_it(string text, string expected) => Assert.Equal(expected, Read(text));

    [Theory] // common practice
    [InlineData("fri", "2027-01-22"), InlineData("mon", "2027-01-25"), InlineData("last mon", "2027-01-18")]
    [InlineData("today", "2027-01-25"), InlineData("tomorrow", "2027-01-26"), InlineData("sun", "2027-01-24")]
    [InlineData("12 mar", "2026-03-12"), InlineData("25 jan", "2027-01-25"), InlineData("26 jan", "2026-01-26")]
    [InlineData("12.3.", "2026-03-12"), InlineData("29 feb", "2024-02-29"), InlineData("next fri", "2027-01-29")]
    [InlineData("2027-03-12", "2027-03-12")]
    public void What_happened_is_read_backwards(string text, string expected) =>
        Assert.Equal(expected, Read(text, Lean.Back));

    [Theory]
    [InlineData(""), InlineData("  "), InlineData("soon"), InlineData("13/14"), InlineData("0/4/2027")]
    [InlineData("30 feb"), InlineData("30.2.2027"), InlineData("2027-02-30"), InlineData("0.3.2027")]
    [InlineData("12 mar or so"), InlineData("call on fri"), InlineData("2 weeks before"), InlineData("1899-12-31")]
    [InlineData("12.3.1899"), InlineData("99999"), InlineData("32.1."), InlineData("13.13.2027")]
    public void What_is_no_day_is_none(string text)
    {
        Assert.Null(Read(text));
        Assert.Null(Read(text, Lean.Back));
    }

    [Theory] // the ends of what is allowed
    [
        InlineData("in 999 months", "2110-04-25"),
        InlineData("31 dec 2199", "2199-12-31"),
        InlineData("1.1.1900", "1900-01-01")
    ]
    public void The_ends_are_read(string text, string expected) => Assert.Equal(expected, Read(text));

    [Fact] // written by NodaTime's own patterns
    public void Every_date_is_read_back_however_it_is_written_whole() =>
        Dates.Sample(date =>
        {
            foreach (
                var pattern in new[]
                {
                    "uuuu-MM-dd",
                    "d MMM uuuu",
                    "d MMMM uuuu",
                    "MMM d, uuuu",
                    "d.M.uuuu",
                    "ddd d MMM uuuu",
                }
            )
            {
                var text = LocalDatePattern.CreateWithInvariantCulture(pattern).Format(date);
                Assert.Equal(LocalDatePattern.Iso.Format(date), Read(text));
            }
        });

    [Fact]
    public void A_day_without_a_year_lies_within_a_leap_cycle_on_the_side_it_leans_to() =>
        Gen.Select(Dates.Where(date => date.Year is > 1910 and < 2190), Dates)
            .Sample(
                (today, date) =>
                {
                    var text = LocalDatePattern.CreateWithInvariantCulture("d MMM").Format(date);
                    var ahead = TypedDate.Day(text, today, World.Calendar)!.Value;
                    var back = TypedDate.Day(text, today, World.Calendar, Lean.Back)!.Value;
                    Assert.True(ahead >= today && back <= today, $"{today} {text}: {ahead}, {back}");
                    Assert.Equal((date.Month, date.Day), (ahead.Month, ahead.Day));
                    Assert.Equal((date.Month, date.Day), (back.Month, back.Day));
                }
            );

    [Theory] // common practice
    [InlineData("9", "09:00"), InlineData("9:30", "09:30"), InlineData("9.30", "09:30"), InlineData("0930", "09:30")]
    [InlineData("930", "09:30"), InlineData("14h", "14:00"), InlineData("9h30", "09:30"), InlineData("noon", "12:00")]
    [InlineData("3pm", "15:00"), InlineData("3:15 p.m.", "15:15"), InlineData("12 am", "00:00")]
    [
        InlineData("12 pm", "12:00"),
        InlineData("midnight", "00:00"),
        InlineData("0:05", "00:05"),
        InlineData("23:59", "23:59")
    ]
    public void A_time_is_read_as_people_write_it(string text, string expected) =>
        Assert.Equal(expected, TypedDate.Time(text) is { } time ? DateWords.Time(time) : null);

    [Theory]
    [InlineData(""), InlineData("24:00"), InlineData("9:60"), InlineData("13 pm"), InlineData("0 am")]
    [InlineData("nine"), InlineData("9:5"), InlineData("12345"), InlineData("-1")]
    public void What_is_no_time_is_none(string text) => Assert.Null(TypedDate.Time(text));

    [Fact] // written by NodaTime's own patterns, on both clocks
    public void Every_minute_of_the_day_is_read_back() =>
        Gen.Int[0, 1_439]
            .Sample(minute =>
            {
                var time = new LocalTime(minute / 60, minute % 60);
                foreach (var pattern in new[] { "HH:mm", "H:mm", "h:mm tt", "HHmm" })
                    Assert.Equal(
                        time,
                        TypedDate.Time(LocalTimePattern.Create(pattern, CultureInfo.InvariantCulture).Format(time))
                    );
            });
}
