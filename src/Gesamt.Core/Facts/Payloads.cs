using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Core.Facts;

/// <summary>Why a project ended without being delivered.</summary>
public enum EndReason
{
    Declined,
    Referred,
    Lost,
    GoneQuiet,
    Cancelled,
    NotAnInquiry,
}

/// <summary>Who signs a contract.</summary>
public enum Signer
{
    Client,
    Owner,
}

/// <summary>What must be true for a project to leave a stage.</summary>
public enum Gate
{
    Lead,
    Proposal,
    Contract,
    Payment,
    Delivery,
}

/// <summary>How a phase of the work stands.</summary>
public enum PhaseState
{
    Ahead,
    InWork,
    Resting,
    Done,
}

/// <summary>Whose a file is: supplied by either side, a draft to look at, or a final one handed over.</summary>
public enum FileGroup
{
    Supplied,
    Drafts,
    Final,
}

/// <summary>Parts of a client page that the owner opens one by one. What was sent, proposal, contract and invoices, shows by itself.</summary>
public enum PagePart
{
    Whole,
    Drafts,
    Files,
    Help,

    /// <summary>What is the client's to do.</summary>
    Tasks,

    /// <summary>What happens by the hour.</summary>
    RunSheet,

    /// <summary>What the kind tells its clients to begin with.</summary>
    Introduction,

    /// <summary>Lists that are shown.</summary>
    Lists,

    /// <summary>Mood boards that are shown.</summary>
    Boards,

    /// <summary>Notes that are shared.</summary>
    Notes,
}

/// <summary>What the entries of a list are.</summary>
public enum ListSort
{
    /// <summary>Rows of typed cells.</summary>
    Rows,

    /// <summary>Pictures with words: a mood board.</summary>
    Board,

    /// <summary>Paragraphs.</summary>
    Notes,
}

/// <summary>What a client may allow once the work is done.</summary>
public enum LeaveTo
{
    /// <summary>To quote the words they approved.</summary>
    Quote,

    /// <summary>To show the work.</summary>
    Show,
}

/// <summary>A phase of one project, as its owner arranged them.</summary>
/// <param name="Was">What it was called before; null for a new one.</param>
public sealed record ArrangedPhase(string Name, string? Was);

/// <summary>When an instalment is due.</summary>
public abstract record DueRule
{
    private DueRule() { }

    /// <summary>So many days after the signature; its invoice goes out at once.</summary>
    public sealed record OnBooking(int Days) : DueRule;

    /// <summary>So far from the date that matters; its invoice goes out so many days earlier.</summary>
    public sealed record AroundMainDate(Span Offset, int InvoiceDaysBefore) : DueRule;

    /// <summary>So far from another date of the project, by its name.</summary>
    public sealed record AroundDate(string Name, Span Offset, int InvoiceDaysBefore) : DueRule;

    /// <summary>So many days after the handover, with which its invoice goes out.</summary>
    public sealed record OnHandover(int Days) : DueRule;

    /// <summary>On a fixed date.</summary>
    public sealed record OnDate(LocalDate Date, int InvoiceDaysBefore) : DueRule;
}

/// <summary>What a client wants who answers a paper neither by yes nor by no.</summary>
public enum AskSort
{
    Change,
    Question,
    Objection,
}

/// <summary>An instalment as it was agreed: what is to be paid, tax included, and when it is due.</summary>
public sealed record AgreedPart(Money Amount, DueRule Due);

/// <summary>What ends a step before it acts. Every step also stops when the project ends or is put away, or is finished and the step belongs to what came before the handover, when what it is about was replaced, when what it says is not true any more, or by the owner's hand.</summary>
/// <remarks>Past: the date it speaks of has come. NotTheirs: it is not the client's turn for what it reminds of.</remarks>
public enum StopRule
{
    Answered,
    Opened,
    Chosen,
    Signed,
    Paid,
    FormReturned,
    Ended,
    Resting,
    Replaced,
    ByHand,
    CauseGone,
    PutAway,
    Past,
    NotTheirs,
    Finished,
    HandedOver,
}

/// <summary>One step of one run, once: the key under which it acts exactly once.</summary>
public readonly record struct StepRef(RunId Run, string Step, int Occurrence);
