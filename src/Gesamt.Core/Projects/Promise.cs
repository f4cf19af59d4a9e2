using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Core.Projects;

/// <summary>What a studio promises whoever asks.</summary>
public static class Promise
{
    /// <summary>The day by which an answer is promised: so many business days after the inquiry, as its kind says.</summary>
    public static LocalDate ReplyBy(StudioCalendar calendar, LocalDate asked, KindRules kind) =>
        calendar.Add(asked, new Span(kind.ReplyWithin, SpanUnit.BusinessDays));
}
