using System.Runtime.CompilerServices;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Words;

namespace Gesamt.Web.Tests;

/// <summary>Whatever can happen to a project has its words on the line, or is named as silent.</summary>
public sealed class LineTests
{
    public static TheoryData<Type> Kinds => [.. typeof(Happening).GetNestedTypes()];

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Every_happening_is_told_or_silent_by_name(Type kind)
    {
        var what = (Happening)RuntimeHelpers.GetUninitializedObject(kind);
        var fact = new Fact(new(1), new(1), Instant.MinValue, Instant.MinValue, Actor.Owner, what);
        Assert.Equal(!LineText.Silent.Contains(kind), IsTold(fact));
    }

    /// <summary>It has words: they are said, or look for rows that are not there.</summary>
    private static bool IsTold(Fact fact)
    {
        try
        {
            return LineText.Of(new(fact, []), Nothing) is not null;
        }
        catch (Exception e)
            when (e is KeyNotFoundException or NullReferenceException or ArgumentException or InvalidOperationException)
        {
            return true;
        }
    }

    private static readonly LineRows Nothing = new()
    {
        Letters = new Dictionary<LetterId, LetterRow>(),
        Notes = new Dictionary<NoteId, NoteRow>(),
        Tasks = new Dictionary<TaskId, TaskRow>(),
        Invoices = new Dictionary<InvoiceId, InvoiceRow>(),
        Payments = new Dictionary<PaymentId, PaymentRow>(),
        Versions = new Dictionary<VersionId, VersionRow>(),
        Files = new Dictionary<FileId, FileRow>(),
        Reviews = new Dictionary<ReviewId, ReviewRow>(),
        Meetings = new Dictionary<MeetingId, MeetingRow>(),
        Rounds = new Dictionary<ReviewId, int?>(),
        Forms = new Dictionary<int, string>(),
        StepNames = new Dictionary<string, string> { ["0:"] = "a step" },
        Missed = "",
        Client = "Mona",
        Owner = "Ida",
        MainDate = "opening day",
        When = _ => "",
    };
}
