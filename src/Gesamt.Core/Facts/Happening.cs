using Gesamt.Core.Amounts;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using NodaTime;

namespace Gesamt.Core.Facts;

/// <summary>Why a project ended without being delivered.</summary>
public enum EndReason { Declined, Referred, Lost, GoneQuiet, Cancelled, NotAnInquiry }

/// <summary>Who signs a contract.</summary>
public enum Signer { Client, Owner }

/// <summary>What can happen to a project: a closed set of small payloads of ids, kinds and amounts, without names or texts.</summary>
public abstract record Happening
{
    private Happening() { }

    // the inquiry
    public sealed record InquiryCame(AnswersId? Answers) : Happening;
    public sealed record DetailKnown(string Detail) : Happening;
    public sealed record MarkedFit : Happening;
    public sealed record NoAnswerNeeded : Happening;
    public sealed record CallHeld(NoteId Note) : Happening;
    public sealed record NoteWritten(NoteId Note) : Happening;

    // letters
    public sealed record LetterSent(LetterId Letter, bool ByItself) : Happening;
    public sealed record LetterReceived(LetterId Letter, bool Automatic) : Happening;
    public sealed record LetterUncertain(LetterId Letter) : Happening;

    // proposal and contract
    public sealed record ProposalSent(VersionId Version, LocalDate ValidUntil) : Happening;
    public sealed record ProposalOpened(VersionId Version) : Happening;
    public sealed record ProposalWithdrawn(VersionId Version) : Happening;
    public sealed record ProposalDeclined(VersionId Version) : Happening;
    public sealed record ChangeAsked(VersionId Version, NoteId Words) : Happening;
    public sealed record ProposalAccepted(VersionId Version, Money Agreed, Money DueOnBooking) : Happening;
    public sealed record PriceAgreed(Money Agreed, Money DueOnBooking) : Happening;
    public sealed record ContractSent(VersionId Contract) : Happening;
    public sealed record ContractSigned(VersionId Contract, Signer Signer) : Happening;
    public sealed record ContractVoided(VersionId Contract) : Happening;

    // money
    public sealed record InvoiceIssued(InvoiceId Invoice, Money Amount, LocalDate Due) : Happening;
    public sealed record PaymentReceived(PaymentId Payment, InvoiceId? Invoice, Money Amount) : Happening;
    public sealed record PaymentVoided(PaymentId Payment) : Happening;
    public sealed record PaymentChargedBack(PaymentId Payment) : Happening;

    // work
    public sealed record TaskMade(TaskId Task, LocalDate? Due) : Happening;
    public sealed record TaskDone(TaskId Task) : Happening;
    public sealed record TaskReopened(TaskId Task) : Happening;
    public sealed record HandedOver : Happening;
    public sealed record Approved : Happening;

    // the project as a whole
    public sealed record DateSet(string Name, LocalDate Date, LocalTime? Time) : Happening;
    public sealed record GateWaived(Gate Gate) : Happening;
    public sealed record Ended(EndReason Reason) : Happening;
    public sealed record TakenUp : Happening;
    public sealed record RestBegan(LocalDate? Until) : Happening;
    public sealed record RestEnded : Happening;
    public sealed record NotWonAfterAll : Happening;

    // routines
    public sealed record RunBegan(RunId Run) : Happening;
    public sealed record StepHeld(StepRef Step, LetterId Letter) : Happening;
    public sealed record StepDone(StepRef Step, LetterId? Letter) : Happening;
    public sealed record StepSkipped(StepRef Step) : Happening;
    public sealed record StepStopped(StepRef Step, StopRule Why) : Happening;
}
