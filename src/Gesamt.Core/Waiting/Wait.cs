using NodaTime;

namespace Gesamt.Core.Waiting;

/// <summary>What somebody waits for.</summary>
public enum WaitKind
{
    AnswerInquiry,
    AnswerLetter,
    ChangeAsked,
    Declined,
    ContractAsked,
    InvoiceAsked,
    RefundRefused,
    ChargeRefused,
    ContractDeclined,
    RanOut,
    Countersign,
    SendContract,
    DecideFit,
    FillDetails,
    WriteProposal,
    TaskDue,
    HandOver,
    ReworkDraft,
    AnswerRemark,
    CloseUp,
    NoteMeeting,
    MeetingCancelled,
    BriefRemarked,
    ReadForm,
    ReadRateSheet,
    LetterHeld,
    SayWhatIsNext,
    AskAgain,
    ChooseProposal,
    SignContract,
    PayInvoice,
    Review,
    Approve,
    ChooseTime,
    ApproveBrief,
    FillForm,
    TickRateSheet,
    DoTask,
    Resting,
    Planned,
    Ended,
    Finished,
}

/// <summary>One thing that waits for somebody, since its own instant.</summary>
/// <param name="Words">The reason and next act, as a sentence without its age.</param>
public sealed record Wait(WaitKind Kind, Instant Since, string Words);
