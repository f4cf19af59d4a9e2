using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Core.Facts;

/// <summary>What can happen to a project: a closed set of small payloads of ids, kinds and amounts, without names or texts.</summary>
public abstract record Happening
{
    private Happening() { }

    /// <summary>A stored fact that this program cannot read: it is kept and told as such, and counts for nothing. Never recorded.</summary>
    public sealed record Unreadable(string Kind) : Happening;

    // the inquiry
    public sealed record InquiryCame(AnswersId? Answers) : Happening;

    public sealed record DetailKnown(string Detail) : Happening;

    public sealed record MarkedFit : Happening;

    /// <summary>It is not decided, after all.</summary>
    public sealed record FitTakenBack : Happening;

    public sealed record InquiryRead(bool FollowUp) : Happening;

    public sealed record Imported : Happening;

    public sealed record NoAnswerNeeded : Happening;

    public sealed record CallHeld(NoteId Note) : Happening;

    public sealed record NoteWritten(NoteId Note) : Happening;

    public sealed record NoteTakenBack(NoteId Note) : Happening;

    /// <summary>A note or call that was taken back stands again where it stood.</summary>
    public sealed record NotePutBack(NoteId Note) : Happening;

    // the brief
    public sealed record BriefPut(string Hash) : Happening;

    public sealed record BriefTakenBack : Happening;

    public sealed record BriefApproved(string Hash) : Happening;

    public sealed record BriefRemarked(NoteId Words) : Happening;

    // meetings
    public sealed record MeetingOffered(int MeetingKind) : Happening;

    public sealed record MeetingNotOffered : Happening;

    public sealed record MeetingBooked(MeetingId Meeting, Instant Start, Instant End) : Happening;

    public sealed record MeetingMoved(MeetingId Meeting, Instant Start, Instant End) : Happening;

    public sealed record MeetingCancelled(MeetingId Meeting, bool ByClient) : Happening;

    public sealed record MeetingHeld(MeetingId Meeting) : Happening;

    /// <summary>Its time is over, and it did not take place.</summary>
    public sealed record MeetingMissed(MeetingId Meeting) : Happening;

    /// <summary>The owner took back what they last said of a meeting whose time is over.</summary>
    public sealed record MeetingAsksAgain(MeetingId Meeting) : Happening;

    // letters
    public sealed record LetterSent(LetterId Letter, bool ByItself) : Happening;

    public sealed record LetterReceived(LetterId Letter, bool Automatic) : Happening;

    public sealed record LetterUncertain(LetterId Letter) : Happening;

    public sealed record LetterRefused(LetterId Letter) : Happening;

    public sealed record LetterTakenOver(LetterId Letter, bool FromClient) : Happening;

    // forms on the client's page
    public sealed record FormAsked(int Form) : Happening;

    public sealed record FormTakenBack(int Form) : Happening;

    public sealed record FormReturned(int Form, AnswersId Answers) : Happening;

    // the rate sheet
    public sealed record RateSheetSent(int Sheet) : Happening;

    public sealed record RateSheetTakenBack(int Sheet) : Happening;

    public sealed record RateSheetTicked(int Sheet) : Happening;

    // proposal and contract
    public sealed record ProposalSent(VersionId Version, LocalDate ValidUntil) : Happening;

    public sealed record ProposalOpened(VersionId Version) : Happening;

    public sealed record ProposalWithdrawn(VersionId Version) : Happening;

    public sealed record ProposalDeclined(VersionId Version, NoteId? Words = null) : Happening;

    public sealed record ChangeAsked(VersionId Version, NoteId Words, AskSort Sort = AskSort.Change) : Happening;

    public sealed record ProposalAccepted(
        VersionId Version,
        Money Agreed,
        Money DueOnBooking,
        Money Net,
        ImmutableArray<AgreedPart> Parts
    ) : Happening;

    public sealed record PriceAgreed(
        VersionId Version,
        Money Agreed,
        Money DueOnBooking,
        Money Net,
        ImmutableArray<AgreedPart> Parts
    ) : Happening;

    /// <param name="Amends">The version whose price it changes, once it is signed; null for a contract of its own.</param>
    public sealed record ContractSent(VersionId Contract, VersionId? Amends = null) : Happening;

    /// <summary>One of several signed for the client, and another is still to.</summary>
    public sealed record ContractSignedInPart(VersionId Contract, PersonId By) : Happening;

    /// <summary>A side has signed; the client's when the last of those who sign for it did.</summary>
    public sealed record ContractSigned(VersionId Contract, Signer Signer) : Happening;

    public sealed record ContractAsked(VersionId Contract, NoteId Words, AskSort Sort) : Happening;

    public sealed record ContractDeclined(VersionId Contract, NoteId Words) : Happening;

    public sealed record ContractVoided(VersionId Contract, NoteId? Words = null) : Happening;

    /// <summary>A signed amendment is in force: the whole new price, and its parts. Those that were invoiced keep their places and their amounts.</summary>
    public sealed record PriceAmended(VersionId Version, Money Agreed, Money Net, ImmutableArray<AgreedPart> Parts)
        : Happening;

    // money
    /// <param name="Part">Which part of the agreed price it bills.</param>
    /// <param name="Extra">Whether it asks for something besides the agreed price: written by hand, or recurring.</param>
    public sealed record InvoiceIssued(
        InvoiceId Invoice,
        Money Amount,
        LocalDate Due,
        int? Part = null,
        bool Extra = false
    ) : Happening;

    /// <summary>An invoice that comes again was begun.</summary>
    public sealed record RecurringBegun(RecurringId Recurring, Money Amount, Every Every) : Happening;

    /// <summary>It was changed for what lies ahead.</summary>
    public sealed record RecurringChanged(RecurringId Recurring, Money Amount) : Happening;

    /// <summary>It comes no more: stopped, or run out.</summary>
    public sealed record RecurringStopped(RecurringId Recurring) : Happening;

    /// <summary>The client keeps a means of payment, and agrees that recurring invoices are charged to it.</summary>
    public sealed record MeansKept(KeptMeansId Means) : Happening;

    /// <summary>That consent holds no longer.</summary>
    public sealed record ConsentTakenBack(KeptMeansId Means) : Happening;

    /// <summary>An invoice could not be charged.</summary>
    /// <param name="Again">The day of the next attempt; null when there is none, and it is the owner's.</param>
    public sealed record ChargeRefused(InvoiceId Invoice, Money Amount, LocalDate? Again) : Happening;

    /// <summary>A client’s question or objection about an invoice.</summary>
    public sealed record InvoiceAsked(InvoiceId Invoice, NoteId Words, AskSort Sort) : Happening;

    /// <summary>The client says that it is paid: a mark, and no payment.</summary>
    public sealed record SaidToBePaid(InvoiceId Invoice) : Happening;

    public sealed record InvoiceCredited(InvoiceId Invoice, InvoiceId Note, Money Amount, bool AtEnd = true)
        : Happening;

    public sealed record PaymentReceived(PaymentId Payment, InvoiceId? Invoice, Money Amount) : Happening;

    /// <summary>A part of a payment, or all of it, was given back.</summary>
    /// <param name="Note">The credit note it goes with, by which nothing is owed for it; null for one that is owed again.</param>
    public sealed record PaymentRefunded(PaymentId Payment, RefundId Refund, Money Amount, InvoiceId? Note = null)
        : Happening;

    /// <summary>The provider would not give a part of a payment back: the owner has to, by another way.</summary>
    public sealed record RefundRefused(PaymentId Payment, RefundId Refund, Money Amount) : Happening;

    public sealed record PaymentVoided(PaymentId Payment) : Happening;

    public sealed record PaymentChargedBack(PaymentId Payment) : Happening;

    // work
    public sealed record TaskMade(TaskId Task, LocalDate? Due, bool Closing = false) : Happening;

    public sealed record TaskMoved(TaskId Task, LocalDate? Due) : Happening;

    public sealed record TaskRemoved(TaskId Task) : Happening;

    public sealed record HoursKept(HoursId Hours) : Happening;

    public sealed record CostKept(CostId Cost) : Happening;

    public sealed record TaskDone(TaskId Task) : Happening;

    public sealed record TaskReopened(TaskId Task) : Happening;

    /// <summary>A kind's own step that the owner says is reached.</summary>
    public sealed record MilestoneReached(string Name) : Happening;

    public sealed record PhaseSet(string Phase, PhaseState State) : Happening;

    /// <summary>The phases of this project are others than before, or in another order.</summary>
    /// <param name="Before">As they stood until then.</param>
    public sealed record PhasesArranged(ImmutableArray<string> Before, ImmutableArray<ArrangedPhase> Phases)
        : Happening;

    /// <summary>The owner answered a checklist.</summary>
    public sealed record ChecklistAnswered(int Form, int Answered, int Questions) : Happening;

    public sealed record HandedOver : Happening;

    public sealed record Approved : Happening;

    // files and reviews
    public sealed record FileKept(FileId File, FileGroup Group) : Happening;

    public sealed record FileShown(FileId File) : Happening;

    public sealed record FileHidden(FileId File) : Happening;

    public sealed record FileRemoved(FileId File) : Happening;

    public sealed record FileFetched(FileId File) : Happening;

    public sealed record ReviewOpened(ReviewId Review, string? Phase) : Happening;

    public sealed record ReviewWithdrawn(ReviewId Review) : Happening;

    public sealed record RemarkLeft(ReviewId Review, NoteId Words) : Happening;

    public sealed record ChangesAsked(ReviewId Review, NoteId Words) : Happening;

    public sealed record ReviewApproved(ReviewId Review, string? Phase) : Happening;

    public sealed record ApprovalWithdrawn(ReviewId Review, string? Phase) : Happening;

    // the run sheet
    /// <summary>A run sheet was begun.</summary>
    public sealed record RunSheetKept : Happening;

    /// <summary>It is right as it stands; any change makes it provisional again.</summary>
    /// <param name="Agreed">What was agreed, without what is the owner's alone.</param>
    public sealed record RunSheetAgreed(VersionId Agreed) : Happening;

    // access
    /// <summary>A link, or access that was given, was first written down.</summary>
    public sealed record AccessNoted : Happening;

    /// <summary>Access was handed back.</summary>
    public sealed record AccessReturned(string What) : Happening;

    // lists, boards and shared notes
    /// <summary>A list, a mood board or notes were begun.</summary>
    public sealed record ListBegun(ListId List, ListSort Sort, string Name) : Happening;

    /// <summary>A client changed it; said once until the owner has seen what they changed.</summary>
    public sealed record ListChanged(ListId List, ListSort Sort, string Name) : Happening;

    /// <summary>The final board is put to the client.</summary>
    public sealed record BoardPut(ListId Board, string Name) : Happening;

    /// <param name="Agreed">What was approved: the pictures that stood, with their words.</param>
    public sealed record BoardApproved(ListId Board, VersionId Agreed, string Name) : Happening;

    // the client page
    /// <summary>A client asks about a part of their page.</summary>
    public sealed record PartAsked(PagePart Part, NoteId Words) : Happening;

    public sealed record PartOpened(PagePart Part) : Happening;

    public sealed record PartClosed(PagePart Part) : Happening;

    // praise, and leave to use it
    public sealed record PraiseKept(PraiseId Praise) : Happening;

    /// <summary>Words were put to the client, to be quoted once they approve them.</summary>
    public sealed record TestimonialPut(VersionId Words) : Happening;

    public sealed record TestimonialTakenBack : Happening;

    /// <summary>The client approved words, those put to them or as they changed them.</summary>
    public sealed record TestimonialApproved(VersionId Words) : Happening;

    public sealed record TestimonialDeclined : Happening;

    /// <param name="Wording">The sentence they agreed to.</param>
    public sealed record LeaveGiven(LeaveTo To, VersionId Wording) : Happening;

    public sealed record LeaveRefused(LeaveTo To, VersionId Wording) : Happening;

    /// <summary>A leave that was given is taken back: from now on it is not used.</summary>
    public sealed record LeaveRevoked(LeaveTo To) : Happening;

    // the project as a whole
    public sealed record DateSet(string Name, LocalDate Date, LocalTime? Time) : Happening;

    public sealed record GateWaived(Gate Gate, NoteId? Why = null) : Happening;

    public sealed record Ended(EndReason Reason, NoteId? Words = null) : Happening;

    public sealed record TakenUp : Happening;

    public sealed record RestBegan(LocalDate? Until, NoteId? Why = null) : Happening;

    public sealed record RestEnded : Happening;

    public sealed record NotWonAfterAll : Happening;

    public sealed record FollowedOn(ProjectId Project) : Happening;

    public sealed record PutAway : Happening;

    public sealed record TakenOut : Happening;

    // routines
    public sealed record RunBegan(RunId Run) : Happening;

    public sealed record RunOffered(RunId Run) : Happening;

    public sealed record RunDeclined(RunId Run) : Happening;

    public sealed record VariantChosen(string Routine, string Variant) : Happening;

    public sealed record StepHeld(StepRef Step, LetterId? Letter) : Happening;

    public sealed record StepDone(StepRef Step, LetterId? Letter) : Happening;

    public sealed record StepSkipped(StepRef Step) : Happening;

    /// <summary>The owner took the last skip of a step back, or that they had seen what it tells: it asks again.</summary>
    public sealed record StepAsksAgain(StepRef Step) : Happening;

    public sealed record StepStopped(StepRef Step, StopRule Why) : Happening;

    public sealed record StepFixed(StepRef Step, LocalDateTime At) : Happening;

    public sealed record StepReplanned(StepRef Step) : Happening;
}
