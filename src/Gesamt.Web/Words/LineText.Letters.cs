using Gesamt.Core.Facts;
using Gesamt.Core.Texts;

namespace Gesamt.Web.Words;

/// <inheritdoc cref="LineText"/>
public static partial class LineText
{
    /// <summary>Inquiries, letters and forms.</summary>
    private static LineWords? Letters(Fact fact, LineRows rows) =>
        fact.What switch
        {
            Happening.InquiryCame { Answers: { } answers } => new(
                EntrySort.Letters,
                EntryFrom.Client,
                $"Inquiry from {rows.Client}",
                "the answers of the form",
                new(OpensWhat.Answers, answers.Value)
            ),
            Happening.InquiryCame => new(EntrySort.Letters, EntryFrom.Client, $"Inquiry from {rows.Client}"),
            Happening.LetterReceived received => Letter(rows.Letters[received.Letter], rows, received.Automatic),
            Happening.LetterSent sent => Sent(rows.Letters[sent.Letter], sent.ByItself, rows),
            Happening.LetterRefused refused => new(
                EntrySort.Letters,
                EntryFrom.Done,
                $"“{rows.Letters[refused.Letter].Subject}” was refused",
                rows.Letters[refused.Letter].Problem ?? "sent again since",
                Open(refused.Letter)
            ),
            Happening.LetterTakenOver taken => new(
                EntrySort.Letters,
                taken.FromClient ? EntryFrom.Client : EntryFrom.Done,
                taken.FromClient
                    ? $"{rows.Client}: “{ShortText.Of(rows.Letters[taken.Letter].Body)}”"
                    : $"Letter “{rows.Letters[taken.Letter].Subject}”",
                "taken over from a file",
                Open(taken.Letter)
            ),
            Happening.FormAsked asked => new(
                EntrySort.Letters,
                EntryFrom.Done,
                $"Form “{rows.Forms.GetValueOrDefault(asked.Form, "")}” put to {rows.Client}"
            ),
            Happening.FormTakenBack back => new(
                EntrySort.Letters,
                EntryFrom.Done,
                $"Form “{rows.Forms.GetValueOrDefault(back.Form, "")}” taken back"
            ),
            Happening.FormReturned returned => new(
                EntrySort.Letters,
                EntryFrom.Client,
                $"{rows.Client} returned “{rows.Forms.GetValueOrDefault(returned.Form, "a form")}”",
                "the answers",
                new(OpensWhat.Answers, returned.Answers.Value)
            ),
            Happening.LetterUncertain uncertain => new(
                EntrySort.Letters,
                EntryFrom.Done,
                $"“{rows.Letters[uncertain.Letter].Subject}” may have gone out",
                "Ask whether it arrived; it is never sent again by itself",
                Open(uncertain.Letter)
            ),
            _ => null,
        };

    /// <summary>Meetings.</summary>
    private static LineWords? Meetings(Fact fact, LineRows rows) =>
        fact.What switch
        {
            Happening.MeetingOffered => new(EntrySort.Meetings, EntryFrom.Done, "Times for a meeting offered"),
            Happening.MeetingNotOffered => new(EntrySort.Meetings, EntryFrom.Done, "The offer of times taken back"),
            Happening.MeetingBooked booked => new(
                EntrySort.Meetings,
                fact.By == Actor.Client ? EntryFrom.Client : EntryFrom.Done,
                $"{rows.Meetings[booked.Meeting].Name} on {rows.When(booked.Start)}",
                fact.By == Actor.Client ? $"chosen by {rows.Client}" : "",
                new(OpensWhat.Meeting, booked.Meeting.Value)
            ),
            Happening.MeetingMoved moved => new(
                EntrySort.Meetings,
                fact.By == Actor.Client ? EntryFrom.Client : EntryFrom.Done,
                $"{rows.Meetings[moved.Meeting].Name} moved to {rows.When(moved.Start)}",
                "",
                new(OpensWhat.Meeting, moved.Meeting.Value)
            ),
            Happening.MeetingCancelled cancelled => new(
                EntrySort.Meetings,
                cancelled.ByClient ? EntryFrom.Client : EntryFrom.Done,
                $"{rows.Meetings[cancelled.Meeting].Name} cancelled",
                cancelled.ByClient ? $"by {rows.Client}" : "",
                new(OpensWhat.Meeting, cancelled.Meeting.Value)
            ),
            Happening.MeetingMissed missed => new(
                EntrySort.Meetings,
                EntryFrom.Done,
                $"{rows.Meetings[missed.Meeting].Name} did not take place",
                ShortText.Of(rows.Meetings[missed.Meeting].Notes),
                new(OpensWhat.Meeting, missed.Meeting.Value)
            ),
            Happening.MeetingHeld held => new(
                EntrySort.Meetings,
                EntryFrom.Done,
                $"{rows.Meetings[held.Meeting].Name} held",
                ShortText.Of(rows.Meetings[held.Meeting].Notes),
                new(OpensWhat.Meeting, held.Meeting.Value)
            ),
            _ => null,
        };
}
