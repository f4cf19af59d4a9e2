using Gesamt.Core.Calendar;
using NodaTime.Text;

namespace Gesamt.Web.Words;

/// <summary>Sorts of entries on the line, that can be hidden and shown.</summary>
public enum EntrySort
{
    Letters,
    Papers,
    Work,
    Money,
    Tasks,
    Notes,
    Meetings,
    Steps,
}

/// <summary>Where an entry comes from, which is how it is drawn.</summary>
public enum EntryFrom
{
    Done,
    Client,
    Note,
}

/// <summary>What opens in the reader: its sort and number.</summary>
public enum OpensWhat
{
    Answers,
    Letter,
    Note,
    Proposal,
    Contract,
    Invoice,
    Payment,
    Review,
    Meeting,
}

/// <summary>What an entry opens.</summary>
public sealed record OpensDto(OpensWhat What, long Id);

/// <summary>A question and its answer.</summary>
public sealed record AnswerDto(string Question, string Text)
{
    /// <summary>In the words it was given, with what was made of them; a day as the house writes days.</summary>
    public static AnswerDto Of(Core.Forms.Answer answer) =>
        new(
            answer.Question,
            answer.Understood is { } read ? $"{answer.Text} (read as {read})"
                : LocalDatePattern.Iso.Parse(answer.Text) is { Success: true } day ? DateWords.Long(day.Value)
                : answer.Text
        );
}
