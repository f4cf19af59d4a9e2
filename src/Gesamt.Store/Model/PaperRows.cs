using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>A proposal being written.</summary>
[Personal]
public sealed class OfferDraftRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }

    [HoldsJson]
    public required string Offer { get; set; }
    public required string Contract { get; set; }

    /// <summary>Who signs in which order, how, and what, as JSON; null for the client alone, as the kind says.</summary>
    [HoldsJson]
    public string? Signing { get; set; }

    /// <summary>The agreed version it changes; null for a proposal.</summary>
    public VersionId? Amends { get; set; }
    public int Edition { get; set; }
    public Instant ChangedAt { get; set; }
}

/// <summary>What a proposal of a kind may begin with.</summary>
public sealed class OfferTemplateRow
{
    public int Id { get; set; }
    public KindId KindId { get; set; }
    public required string Name { get; set; }

    [HoldsJson]
    public required string Offer { get; set; }
    public Instant ChangedAt { get; set; }
}

/// <summary>A picture or a file that papers show: named by proposals and services by its SHA-256, and never taken away.</summary>
public sealed class PaperFileRow
{
    public int Id { get; set; }

    [NamesFile(nameof(Name))]
    public required string Hash { get; set; }
    public required string Name { get; set; }
    public required string Type { get; set; }
    public Instant At { get; set; }
}

public enum PaperSort
{
    Proposal,
    Contract,
    Brief,

    /// <summary>Words to be quoted.</summary>
    Testimonial,

    /// <summary>The sentence of a leave that was given or refused.</summary>
    Leave,

    /// <summary>What happens by the hour, as it was agreed.</summary>
    RunSheet,

    /// <summary>What was said when the work was handed over.</summary>
    Handover,

    /// <summary>A mood board as it was approved.</summary>
    Board,
}

/// <summary>A proposal, contract, brief or testimonial as it was put to the client: the canonical bytes of its snapshot and their SHA-256. Never changes.</summary>
public sealed class VersionRow
{
    public VersionId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public PaperSort Sort { get; set; }
    public int Number { get; set; }

    [HoldsJson]
    public required byte[] Canonical { get; set; }
    public required string Hash { get; set; }
    public Instant At { get; set; }

    /// <summary>The proposal a contract was filled from.</summary>
    public VersionId? FromProposal { get; set; }
}

/// <summary>A signature: the name as typed, what was consented to, and the hash of what was signed.</summary>
public sealed class SignatureRow
{
    public int Id { get; set; }
    public VersionId VersionId { get; set; }
    public Signer Signer { get; set; }

    [Personal(PersonalAttribute.Erased, Kept = Kept.AsAgreement)]
    public required string Name { get; set; }

    [Personal(Kept = Kept.AsAgreement)]
    public required string Consent { get; set; }
    public Instant At { get; set; }

    [Personal(Kept = Kept.AsAgreement)]
    public required string Address { get; set; }

    [Personal(Kept = Kept.AsAgreement)]
    public required string Agent { get; set; }
    public required string Hash { get; set; }

    /// <summary>Who it was, where a contract has several to sign it for the client.</summary>
    public PersonId? PersonId { get; set; }

    /// <summary>How it is known to be them, besides the link: “a code sent to …”; empty for the link alone.</summary>
    [Personal(Kept = Kept.AsAgreement)]
    public string Proof { get; set; } = "";
}

/// <summary>A code that goes to somebody's mail address for a signature. It is not kept: it is worked out from this row with a key that lies outside the database.</summary>
[StaysHere]
[Personal]
public sealed class SignCodeRow
{
    public int Id { get; set; }
    public VersionId VersionId { get; set; }
    public PersonId PersonId { get; set; }

    /// <summary>What makes it another code each time; random.</summary>
    public required string Seed { get; set; }
    public required string SentTo { get; set; }
    public Instant At { get; set; }
    public int Tries { get; set; }
}

/// <summary>A list of services with their prices, sent before the call, on which the client ticks what interests them.</summary>
public sealed class RateSheetRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }

    /// <summary>Its services as they were sent, as JSON.</summary>
    [HoldsJson]
    [Personal("[]")]
    public required string Services { get; set; }
    public Instant At { get; set; }

    /// <summary>Places of the services that were ticked, as JSON; null while it was not answered.</summary>
    [HoldsJson]
    [Personal("[]")]
    public string? Ticked { get; set; }
    public Instant? AnsweredAt { get; set; }
}

/// <summary>A contract or invoice as a file: drawn once, its bytes lie under their SHA-256 and are what is served from then on.</summary>
public sealed class PaperRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }

    /// <summary>The contract it is, with this many signatures.</summary>
    public VersionId? VersionId { get; set; }
    public int Signatures { get; set; }

    /// <summary>The invoice or credit note it is.</summary>
    public InvoiceId? InvoiceId { get; set; }

    [NamesFile]
    public required string Hash { get; set; }

    /// <summary>SHA-256 of the same invoice in UBL; null where there is none.</summary>
    [NamesFile]
    public string? Data { get; set; }
    public Instant At { get; set; }

    /// <summary>Whether it carries the studio's own seal: an X.509 signature over all of it.</summary>
    public bool Sealed { get; set; }

    /// <summary>Its snapshot did not hold all that is printed, so it was drawn from what the studio said of itself on that day.</summary>
    public bool DrawnLater { get; set; }
}

/// <summary>A link for one person to one project; ending or renewing it raises its generation.</summary>
public sealed class LinkRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public PersonId PersonId { get; set; }
    public required string PublicId { get; set; }
    public int Generation { get; set; }
    public Instant? EndedAt { get; set; }
}

public enum InvoiceSort
{
    Invoice,
    CreditNote,
}

/// <summary>An issued invoice or credit note; never changes but for what is still owed, which is derived.</summary>
public sealed class InvoiceRow
{
    public InvoiceId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string PublicId { get; set; }
    public required string Number { get; set; }

    /// <summary>What stands before its number: each series counts by itself.</summary>
    public string Series { get; set; } = "";
    public int Year { get; set; }
    public int Sequence { get; set; }
    public LocalDate IssuedOn { get; set; }
    public LocalDate Due { get; set; }
    public long TotalMinor { get; set; }
    public required string Currency { get; set; }

    /// <summary>Its own copy of names, lines and sums.</summary>
    [HoldsJson]
    public required string Snapshot { get; set; }

    /// <summary>Which instalment of the chosen proposal it bills; once each, unless it was credited at an end that was taken back.</summary>
    public VersionId? ProposalId { get; set; }
    public int Instalment { get; set; }

    /// <summary>How often the instalment was billed before.</summary>
    public int Again { get; set; }
    public InvoiceSort Sort { get; set; }

    /// <summary>The invoice a credit note takes back.</summary>
    public InvoiceId? Credits { get; set; }

    /// <summary>The late invoice whose interest this one asks for.</summary>
    public InvoiceId? InterestOf { get; set; }

    /// <summary>The recurring invoice whose occurrence this is, and which, from 0; once each.</summary>
    public RecurringId? Recurring { get; set; }
    public int? Occurrence { get; set; }

    /// <summary>Derived from the facts, so that sums need not read them.</summary>
    [Derived]
    public long OwedMinor { get; set; }

    /// <summary>How often the client was reminded of it after its day, and when last; derived likewise.</summary>
    [Derived]
    public int Reminded { get; set; }

    [Derived]
    public Instant? RemindedAt { get; set; }
}

public enum PaymentMeans
{
    Card,
    Transfer,
    Cash,
    Cheque,

    /// <summary>From the payer's account, through a provider.</summary>
    Account,
}

/// <summary>An invoice that is being written; one of a project at a time.</summary>
[Personal]
public sealed class BillDraftRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }

    [HoldsJson]
    public required string Bill { get; set; }

    /// <summary>The late invoice whose interest it asks for.</summary>
    public InvoiceId? InterestOf { get; set; }

    /// <summary>The recurring invoice that it changes for what lies ahead.</summary>
    public RecurringId? Changes { get; set; }
    public int Edition { get; set; }
    public Instant ChangedAt { get; set; }
}

public sealed class PaymentRow
{
    public PaymentId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public InvoiceId? InvoiceId { get; set; }
    public long AmountMinor { get; set; }
    public required string Currency { get; set; }
    public PaymentMeans Means { get; set; }

    /// <summary>The provider's or bank's own reference; one payment each.</summary>
    [Personal(Kept = Kept.AsBooks)]
    public string? Reference { get; set; }
    public Instant At { get; set; }

    /// <summary>When it was taken back or charged back.</summary>
    public Instant? GoneAt { get; set; }

    /// <summary>The payer's bank took it back: it came and it went. What was only written down by mistake never came.</summary>
    public bool ChargedBack { get; set; }

    /// <summary>Where it arrived; null for the first account of its currency.</summary>
    public AccountId? AccountId { get; set; }
}

public enum RefundState
{
    /// <summary>The provider is asked for it, and has not said yet.</summary>
    Asked,
    Done,
    Refused,
}

/// <summary>Money given back of a payment.</summary>
public sealed class RefundRow
{
    public RefundId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public PaymentId PaymentId { get; set; }
    public long AmountMinor { get; set; }
    public required string Currency { get; set; }
    public RefundState State { get; set; }
    public PaymentMeans Means { get; set; }

    /// <summary>The credit note it goes with; null for money that is owed again.</summary>
    public InvoiceId? NoteId { get; set; }

    /// <summary>Our key with the provider, under which it is done once; null for one done by hand.</summary>
    public string? Key { get; set; }

    /// <summary>Why the provider refused it.</summary>
    [Personal(Kept = Kept.AsBooks)]
    public string Words { get; set; } = "";
    public Instant At { get; set; }
}

/// <summary>How far a payment with a provider has come.</summary>
public enum CheckoutState
{
    /// <summary>It was begun, and nothing was paid yet.</summary>
    Open,

    /// <summary>The payer has done their part, and the money is on its way.</summary>
    Pending,
    Paid,
    Refused,
}

/// <summary>A payment that was begun with the provider.</summary>
public sealed class CheckoutRow
{
    public int Id { get; set; }

    /// <summary>The provider's session and our idempotency key.</summary>
    public required string Session { get; set; }
    public InvoiceId InvoiceId { get; set; }
    public ProjectId ProjectId { get; set; }
    public long AmountMinor { get; set; }
    public Instant At { get; set; }
    public CheckoutState State { get; set; }

    /// <summary>By card, or from an account.</summary>
    public PaymentMeans Means { get; set; }

    /// <summary>Why it was refused, as the provider says it.</summary>
    [Personal(Kept = Kept.AsBooks)]
    public string Words { get; set; } = "";

    /// <summary>Which attempt to charge a kept means it is, from 0; null for one the client began.</summary>
    public int? Attempt { get; set; }

    /// <summary>Who agreed that the means is kept once it has paid, and to which words; null for nobody.</summary>
    public PersonId? ConsentBy { get; set; }

    [Personal(Kept = Kept.AsBooks)]
    public string? Consent { get; set; }
}

/// <summary>An invoice that comes again.</summary>
public sealed class RecurringRow
{
    public RecurringId Id { get; set; }
    public ProjectId ProjectId { get; set; }

    /// <summary>As it is written each time.</summary>
    [HoldsJson]
    public required string Bill { get; set; }
    public Every Every { get; set; }
    public LocalDate First { get; set; }
    public LocalDate? Until { get; set; }
    public int? Count { get; set; }

    /// <summary>How many were issued.</summary>
    public int Issued { get; set; }

    /// <summary>The day of the next; null when it was stopped or has run out.</summary>
    public LocalDate? Next { get; set; }

    public Recurrence Recurrence => new(Every, First, Until, Count);
}

/// <summary>A means of payment that a client keeps with the provider, with their consent that recurring invoices are charged to it.</summary>
public sealed class KeptMeansRow
{
    public KeptMeansId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public PersonId PersonId { get; set; }

    /// <summary>What the provider knows it by.</summary>
    [Personal]
    public required string Token { get; set; }

    /// <summary>As the provider says it: “card ending in 4000”.</summary>
    [Personal(PersonalAttribute.Erased)]
    public required string Words { get; set; }

    /// <summary>The words that were agreed to.</summary>
    [Personal]
    public required string Consent { get; set; }
    public PaymentMeans Means { get; set; }
    public Instant At { get; set; }
    public Instant? TakenBackAt { get; set; }
}
