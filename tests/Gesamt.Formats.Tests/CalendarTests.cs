using Gesamt.Formats.Calendars;
using NodaTime;
using Xunit;

namespace Gesamt.Formats.Tests;

public sealed class CalendarTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];

    private static CalendarMeeting Meeting(Instant start, bool cancelled = false) =>
        new(
            "m1@studio.example",
            3,
            start,
            start + Duration.FromMinutes(30),
            "First call, “Über” Wall; and, more",
            "Line one\nLine two",
            "By video: https://rooms.example/x (passcode 123)",
            Instant.FromUtc(2027, 1, 25, 10, 30),
            ("Isolde Marrin", "isolde@marrin.example"),
            ("Mona Delarue", "mona@house.example"),
            cancelled,
            30
        );

    [Theory] // read by Debian's python3-icalendar (RFC 5545), across the clock changes of three zones (IANA time zone database)
    [InlineData("Europe/Dublin", "2027-03-28T10:00")]
    [InlineData("America/New_York", "2027-11-07T10:00")]
    [InlineData("Australia/Lord_Howe", "2027-04-04T10:00")]
    public void An_invitation_reads_the_same_to_another_parser(string zone, string local)
    {
        var at = NodaTime
            .Text.LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm")
            .Parse(local)
            .Value.InZoneLeniently(DateTimeZoneProviders.Tzdb[zone])
            .ToInstant();
        var read = Python.Run(
            """
            import sys, icalendar
            c = icalendar.Calendar.from_ical(sys.stdin.read())
            e = [e for e in c.walk('VEVENT')][0]
            print(c['METHOD'], e['UID'], e['SEQUENCE'], e['STATUS'])
            print(e['DTSTART'].dt.strftime('%Y-%m-%dT%H:%M:%SZ'), e['DTEND'].dt.strftime('%Y-%m-%dT%H:%M:%SZ'), e['DTSTART'].dt.utcoffset())
            print(e['SUMMARY']); print(repr(str(e['DESCRIPTION']))); print(e['ORGANIZER'], e['ATTENDEE'], e['ATTENDEE'].params['CN'])
            print([a['TRIGGER'].dt for a in e.walk('VALARM')][0])
            """,
            Invitations.Of(InvitationMethod.Request, Meeting(at))
        );
        Assert.Equal(
            [
                "REQUEST m1@studio.example 3 CONFIRMED",
                $"{NodaTime.Text.InstantPattern.General.Format(at)} {NodaTime.Text.InstantPattern.General.Format(at + Duration.FromMinutes(30))} 0:00:00",
                "First call, “Über” Wall; and, more",
                "'Line one\\nLine two'",
                "mailto:isolde@marrin.example mailto:mona@house.example Mona Delarue",
                "-1 day, 23:30:00",
            ],
            read
        );
    }

    [Fact]
    public void A_cancelled_meeting_is_cancelled_under_its_own_uid_and_rings_no_bell()
    {
        var read = Python.Run(
            "import sys, icalendar\nc = icalendar.Calendar.from_ical(sys.stdin.read())\ne = c.walk('VEVENT')[0]\nprint(c['METHOD'], e['UID'], e['STATUS'], len(e.walk('VALARM')))",
            Invitations.Of(InvitationMethod.Cancel, Meeting(Instant.FromUtc(2027, 2, 1, 10, 0)))
        );
        Assert.Equal(["CANCEL m1@studio.example CANCELLED 0"], read);
    }

    [Fact]
    public void A_feed_holds_meetings_and_tasks_as_days_that_take_no_time()
    {
        var feed = Invitations.Feed(
            "Marrin",
            [Meeting(Instant.FromUtc(2027, 2, 1, 10, 0))],
            [
                new(
                    "t1@studio.example",
                    new(2027, 3, 12),
                    "Order paint",
                    "Harbour",
                    Instant.FromUtc(2027, 1, 25, 0, 0),
                    0
                ),
            ]
        );
        var read = Python.Run(
            "import sys, icalendar\nc = icalendar.Calendar.from_ical(sys.stdin.read())\nfor e in c.walk('VEVENT'): print(e['UID'], e['DTSTART'].dt, e['DTEND'].dt, e.get('TRANSP', '-'), len(e.walk('VALARM')))",
            feed
        );
        Assert.Equal(
            [
                "m1@studio.example 2027-02-01 10:00:00+00:00 2027-02-01 10:30:00+00:00 OPAQUE 1",
                "t1@studio.example 2027-03-12 2027-03-13 TRANSPARENT 1",
            ],
            read.Select(line => line.Replace(" - ", " OPAQUE ", StringComparison.Ordinal))
        );
    }

    private static string Outside(params string[] events) =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Test//EN\r\n{string.Concat(events.Select((e, i) => $"BEGIN:VEVENT\r\nUID:{i}\r\nDTSTAMP:20270101T000000Z\r\n{e}\r\nEND:VEVENT\r\n"))}END:VCALENDAR\r\n";

    private static string[] Busy(string text) =>
        [
            .. BusyTimes
                .Read(text, Dublin, Instant.FromUtc(2027, 3, 1, 0, 0), Instant.FromUtc(2027, 4, 12, 0, 0))
                .Select(b =>
                    $"{b.Start.InZone(Dublin).LocalDateTime:uuuu-MM-dd HH:mm} {(b.End - b.Start).TotalHours:0.##}"
                ),
        ];

    [Fact]
    public void What_is_free_or_cancelled_takes_no_time_and_days_take_them_all()
    {
        Assert.Equal(
            ["2027-03-04 10:00 1"],
            Busy(
                Outside(
                    "DTSTART:20270304T100000Z\r\nDTEND:20270304T110000Z",
                    "DTSTART:20270305T100000Z\r\nDTEND:20270305T110000Z\r\nTRANSP:TRANSPARENT",
                    "DTSTART:20270306T100000Z\r\nDTEND:20270306T110000Z\r\nSTATUS:CANCELLED"
                )
            )
        );
        // the Sunday on which the clocks go forward has 23 hours
        Assert.Equal(
            ["2027-03-28 00:00 23"],
            Busy(Outside("DTSTART;VALUE=DATE:20270328\r\nDTEND;VALUE=DATE:20270329"))
        );
    }

    [Fact]
    public void A_weekly_meeting_keeps_its_wall_clock_time_over_the_change_and_a_time_without_a_zone_is_the_studios()
    {
        Assert.Equal(
            ["2027-03-22 10:00 1", "2027-03-29 10:00 1", "2027-04-05 10:00 1"],
            Busy(
                Outside(
                    "DTSTART;TZID=Europe/Dublin:20270322T100000\r\nDTEND;TZID=Europe/Dublin:20270322T110000\r\nRRULE:FREQ=WEEKLY;COUNT=3"
                )
            )
        );
        Assert.Equal(["2027-03-29 10:00 1"], Busy(Outside("DTSTART:20270329T100000\r\nDTEND:20270329T110000")));
    }

    [Fact]
    public void A_zone_nobody_knows_loses_no_other_event()
    {
        var busy = Busy(
            Outside(
                "DTSTART;TZID=My Own Zone:20270304T100000\r\nDTEND;TZID=My Own Zone:20270304T110000",
                "DTSTART:20270305T100000Z\r\nDTEND:20270305T110000Z"
            )
        );
        Assert.Contains("2027-03-05 10:00 1", busy);
        Assert.Equal(2, busy.Length);
    }

    [Theory]
    [InlineData("")]
    [InlineData("hello")]
    public void What_is_no_calendar_is_said_to_be_none(string text) => Assert.Throws<FormatException>(() => Busy(text));

    private const string OwnZone =
        "BEGIN:VTIMEZONE\r\nTZID:Our office\r\nBEGIN:STANDARD\r\nDTSTART:19701025T030000\r\nTZOFFSETFROM:+0200\r\nTZOFFSETTO:+0100\r\nRRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU\r\nEND:STANDARD\r\nBEGIN:DAYLIGHT\r\nDTSTART:19700329T020000\r\nTZOFFSETFROM:+0100\r\nTZOFFSETTO:+0200\r\nRRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU\r\nEND:DAYLIGHT\r\nEND:VTIMEZONE\r\n";

    [Fact] // RFC 5545, 3.6.5: the zone as the file describes it, which is that of Paris; before and after the clocks change on 28 March 2027
    public void A_zone_that_only_the_file_knows_is_read_by_its_own_rules() =>
        Assert.Equal(
            ["2027-03-22 09:00 1", "2027-03-29 09:00 1", "2027-04-05 09:00 1"],
            Busy(
                Outside(
                        "DTSTART;TZID=Our office:20270322T100000\r\nDTEND;TZID=Our office:20270322T110000\r\nRRULE:FREQ=WEEKLY;COUNT=3"
                    )
                    .Replace("BEGIN:VEVENT", OwnZone + "BEGIN:VEVENT", StringComparison.Ordinal)
            )
        );

    [Fact] // RFC 5545, 3.6.4
    public void Times_told_as_busy_are_taken_and_free_ones_are_not() =>
        Assert.Equal(
            ["2027-03-04 10:00 1", "2027-03-05 10:00 2"],
            Busy(
                "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Test//EN\r\nBEGIN:VFREEBUSY\r\nUID:1\r\nDTSTAMP:20270101T000000Z\r\nFREEBUSY;FBTYPE=BUSY:20270304T100000Z/20270304T110000Z,20270305T100000Z/PT2H\r\nFREEBUSY;FBTYPE=FREE:20270306T100000Z/PT1H\r\nEND:VFREEBUSY\r\nEND:VCALENDAR\r\n"
            )
        );

    [Fact]
    public void What_was_declined_takes_no_time()
    {
        const string declined =
            "DTSTART:20270304T100000Z\r\nDTEND:20270304T110000Z\r\nATTENDEE;PARTSTAT=ACCEPTED:mailto:somebody@x.example\r\nATTENDEE;PARTSTAT=DECLINED:mailto:Isolde@marrin.example";
        Assert.Empty(
            BusyTimes.Read(
                Outside(declined),
                Dublin,
                Instant.FromUtc(2027, 3, 1, 0, 0),
                Instant.FromUtc(2027, 4, 12, 0, 0),
                ["isolde@marrin.example"]
            )
        );
        Assert.Single(
            BusyTimes.Read(
                Outside(declined),
                Dublin,
                Instant.FromUtc(2027, 3, 1, 0, 0),
                Instant.FromUtc(2027, 4, 12, 0, 0),
                ["other@marrin.example"]
            )
        );
    }

    [Fact]
    public void One_rule_that_cannot_be_read_costs_none_of_the_others() =>
        Assert.Equal(
            ["2027-03-04 10:00 1", "2027-03-05 10:00 1", "2027-03-06 10:00 1"],
            Busy(
                Outside(
                    "DTSTART:20270304T100000Z\r\nDTEND:20270304T110000Z",
                    "DTSTART:20270305T100000Z\r\nDTEND:20270305T110000Z\r\nRRULE:FREQ=SOMETIMES;COUNT=x",
                    "DTSTART:20270306T100000Z\r\nDTEND:20270306T110000Z"
                )
            )
        );

    [Theory]
    [
        InlineData(Attendance.Asked, "NEEDS-ACTION"),
        InlineData(Attendance.Accepted, "ACCEPTED"),
        InlineData(Attendance.Declined, "DECLINED")
    ]
    public void An_invitation_says_what_its_guest_has_said(Attendance attendance, string status) =>
        Assert.Equal(
            [status],
            Python.Run(
                "import sys, icalendar\nc = icalendar.Calendar.from_ical(sys.stdin.read())\nprint(c.walk('VEVENT')[0]['ATTENDEE'].params['PARTSTAT'])",
                Invitations.Of(
                    InvitationMethod.Request,
                    Meeting(Instant.FromUtc(2027, 2, 1, 10, 0)) with
                    {
                        Attendance = attendance,
                    }
                )
            )
        );
}
