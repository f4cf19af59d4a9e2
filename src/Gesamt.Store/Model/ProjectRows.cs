using System.ComponentModel.DataAnnotations.Schema;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.People;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>One project, with its standing as Core computed it when something last happened or its time ran out.</summary>
public sealed class ProjectRow
{
    public ProjectId Id { get; set; }
    public KindId KindId { get; set; }
    public KindRow? Kind { get; set; }
    public PersonId ClientId { get; set; }
    public PersonRow? Client { get; set; }
    public List<ProjectPersonRow> People { get; set; } = [];

    [Personal(PersonalAttribute.Erased)]
    public required string Title { get; set; }
    public string? Source { get; set; }

    /// <summary>What of the studio's own doing brought it, such as a fair or a leaflet; null where that is not known.</summary>
    public string? Campaign { get; set; }

    /// <summary>Numbers of the kinds it is of besides: what they offer is offered here too, while the rules are the leading kind's.</summary>
    public List<long> FurtherKinds { get; set; } = [];

    /// <summary>All its kinds, the leading one first.</summary>
    public IReadOnlyList<KindId> Kinds => [KindId, .. FurtherKinds.Select(kind => new KindId(kind))];

    /// <summary>The random part of the project's own reply address.</summary>
    public required string Code { get; set; }

    public required PinnedRules Pinned { get; set; }

    [Personal]
    public string? Summary { get; set; }

    /// <summary>What the projects of one client have in common whose pages the owner put together; null where its page stands alone.</summary>
    public string? PageGroup { get; set; }

    /// <summary>Nothing of it leaves the house, and it counts nowhere.</summary>
    public bool Rehearsal { get; set; }

    /// <summary>A rehearsal's own clock, wound ahead of the studio's.</summary>
    public Instant? WoundTo { get; set; }

    /// <summary>A rehearsal's letters go to the owner's own address.</summary>
    public bool ToOwner { get; set; }

    [Derived]
    public StandingColumns Standing { get; set; } = new();

    /// <summary>Who gets the letters of this project: somebody with that part and an address, else the client. To be asked of a row with its people.</summary>
    [NotMapped]
    public PersonRow MailContact =>
        People.FirstOrDefault(one => one is { Part: PersonPart.GetsMail, Person.Mail: not null })?.Person ?? Client!;

    /// <summary>The address they are written to; null while there is none, or only one that no mail program can write.</summary>
    [NotMapped]
    public string? MailTo => MailAddress.IsValid(MailContact.Mail) ? MailContact.Mail : null;
}

/// <summary>The kind's rules as they were when the project began, in a table beside the projects: they are twice as long as all the rest of a row, and who goes through all projects hardly ever asks for them.</summary>
public sealed class PinnedRules
{
    [HoldsJson]
    public required string Rules { get; set; }
}

/// <summary>A stored standing; must equal the computed one at any instant before <see cref="ValidUntil"/>.</summary>
public sealed class StandingColumns
{
    public Stage Stage { get; set; }
    public Side Turn { get; set; }
    public WaitKind Waits { get; set; }
    public string Words { get; set; } = "";
    public Instant? Since { get; set; }
    public int Nudged { get; set; }
    public Instant? Until { get; set; }
    public Instant? BookedAt { get; set; }
    public EndReason? Ended { get; set; }
    public LocalDate? LateSince { get; set; }
    public int Held { get; set; }
    public Instant? HeldSince { get; set; }
    public Instant? ValidUntil { get; set; }
    public LocalDate? MainDate { get; set; }

    /// <summary>In which the price was agreed, by its code of ISO 4217; null while none is.</summary>
    public string? Currency { get; set; }
    public long? AgreedMinor { get; set; }

    /// <summary>The agreed price without tax.</summary>
    public long? NetMinor { get; set; }
    public long PaidMinor { get; set; }

    /// <summary>What is open on issued invoices.</summary>
    public long OwedMinor { get; set; }
    public Instant? BeganAt { get; set; }
    public Instant? FinishedAt { get; set; }
    public bool PutAway { get; set; }

    /// <summary>Open, or over with something left for the owner: on Turns and Today.</summary>
    public bool OnTable { get; set; }

    /// <summary>When the client was last in touch.</summary>
    public Instant? TouchAt { get; set; }

    /// <summary>The kind's own step that was reached last.</summary>
    public string? Milestone { get; set; }

    /// <summary>When the next agreed instalment is to be invoiced.</summary>
    public Instant? InvoiceAt { get; set; }

    /// <summary>Its phases with the days they stand from and until, as JSON.</summary>
    public string Phases { get; set; } = "[]";

    /// <summary>The proposal that is out; null where none is, or a price is agreed.</summary>
    public VersionId? ProposalOut { get; set; }

    /// <summary>Its dates besides the one that matters, as JSON.</summary>
    public string Dates { get; set; } = "[]";

    /// <summary>The furthest it ever stood: all gates before it were passed, whatever was opened again.</summary>
    public Stage Furthest { get; set; }

    /// <summary>The gates it has, a bit each.</summary>
    public int Gates { get; set; }

    /// <summary>The version whose price is in force; null while none is.</summary>
    public VersionId? AgreedBy { get; set; }

    /// <summary>How many reminders went out before a price was agreed; null while none is.</summary>
    public int? Chases { get; set; }

    /// <summary>What is agreed and not invoiced yet, as JSON.</summary>
    public string ToCome { get; set; } = "[]";

    public Standing ToCore() =>
        new(Stage, Turn, Waits, Words, Since, Nudged, Until, BookedAt, Ended, LateSince, Held, HeldSince, ValidUntil);
}

/// <summary>An agreed payment for which no invoice is out yet; tax included.</summary>
/// <param name="Due">Null while what it hangs on is not known.</param>
public sealed record ComingPayment(LocalDate? Due, long Minor);

/// <summary>A date besides the one that matters, such as a fitting.</summary>
public sealed record NamedDay(string Name, LocalDate Date);

/// <summary>A fact as it lies in the table; append-only.</summary>
public sealed class FactRow
{
    public FactId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public Instant Happened { get; set; }
    public Instant Recorded { get; set; }
    public Actor By { get; set; }
    public required string Kind { get; set; }
    public int Version { get; set; }

    [HoldsJson]
    public required string Payload { get; set; }
}

/// <summary>The answers of a form, each with its question as it was asked.</summary>
public sealed class AnswersRow
{
    public AnswersId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string Form { get; set; }

    [HoldsJson]
    [Personal("[]")]
    public required string Items { get; set; }
    public Instant At { get; set; }
}

public enum NoteSort
{
    Note,
    Call,
    Words,
}

/// <summary>A short text: the owner's note, a call, or a client's words.</summary>
public sealed class NoteRow
{
    public NoteId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public NoteSort Sort { get; set; }

    [Personal]
    public required string Text { get; set; }
    public Instant At { get; set; }

    /// <summary>It was taken back; said by a fact, and copied here so that it is not found.</summary>
    public bool Removed { get; set; }

    /// <summary>Since when it stands on Today; null where it does not.</summary>
    public Instant? PinnedAt { get; set; }

    /// <summary>The round of review it is a remark on.</summary>
    public ReviewId? ReviewId { get; set; }

    /// <summary>Where in a draft it points, as JSON; null for the round as a whole.</summary>
    [HoldsJson]
    public string? Pin { get; set; }
}

/// <summary>A link that is used often, or something that a client gave access to: where it is kept, by whom, since when, and when it was handed back. The owner's alone; what opens it is kept elsewhere.</summary>
public sealed class AccessRow
{
    public AccessId Id { get; set; }
    public ProjectId ProjectId { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string What { get; set; }

    /// <summary>A link, or words: “the key safe by the door”.</summary>
    [Personal]
    public string Place { get; set; } = "";

    /// <summary>Who gave it; empty for a plain link.</summary>
    [Personal]
    public string GivenBy { get; set; } = "";
    public LocalDate Since { get; set; }
    public LocalDate? BackOn { get; set; }
    public bool Removed { get; set; }
}

/// <summary>Words that pleased, as they were said on a day. The owner's alone.</summary>
public sealed class PraiseRow
{
    public PraiseId Id { get; set; }
    public ProjectId ProjectId { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string Words { get; set; }
    public LocalDate On { get; set; }

    /// <summary>Who said it; empty where that was not written down.</summary>
    [Personal]
    public string Who { get; set; } = "";

    /// <summary>The letter it stands in.</summary>
    public LetterId? LetterId { get; set; }

    /// <summary>The remark or call it was said in.</summary>
    public NoteId? NoteId { get; set; }

    [Personal(true)]
    public bool Removed { get; set; }
}

/// <summary>What happens by the hour around a date of a project. One a project.</summary>
public sealed class RunSheetRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }

    /// <summary>The named date its main day is; null for the date that matters.</summary>
    [Personal]
    public string? DateName { get; set; }

    /// <summary>How many minutes earlier guests are told to come.</summary>
    public int Earlier { get; set; }

    /// <summary>Its items as JSON, each at its distance to the main day.</summary>
    [HoldsJson]
    [Personal("[]")]
    public required string Items { get; set; }
    public int Edition { get; set; }
}

public sealed class TaskRow
{
    public TaskId Id { get; set; }
    public ProjectId ProjectId { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string Title { get; set; }
    public LocalDate? Due { get; set; }

    /// <summary>What the date was counted from, in words.</summary>
    [Personal]
    public string? Counted { get; set; }

    /// <summary>Its distance to the date that matters, where it is counted from it.</summary>
    public int? OffsetCount { get; set; }
    public SpanUnit? OffsetUnit { get; set; }

    /// <summary>Its date was set by hand.</summary>
    public bool Fixed { get; set; }

    /// <summary>Belongs to what is done after the handover.</summary>
    public bool Closing { get; set; }
    public string? Phase { get; set; }

    /// <summary>What fulfils it when it happens; null where only a tick does.</summary>
    public Fulfilment? DoneBy { get; set; }

    /// <summary>1 to 3, 3 is high; null when nothing was said.</summary>
    public int? Importance { get; set; }

    /// <summary>1 to 3, 3 is much; null when only the estimate says it, or nothing.</summary>
    public int? Effort { get; set; }
    public int? EstimateMinutes { get; set; }

    /// <summary>The day it is worked on; when it is due is another thing.</summary>
    public LocalDate? WorkOn { get; set; }

    /// <summary>The list it stands in, such as a discipline of the work; null for none.</summary>
    [Personal]
    public string? List { get; set; }

    [Personal]
    public string Description { get; set; } = "";

    /// <summary>What counts as finished.</summary>
    [Personal]
    public string Finished { get; set; } = "";

    /// <summary>Its parts in their order, as JSON.</summary>
    [HoldsJson]
    [Personal("[]")]
    public string Steps { get; set; } = "[]";

    /// <summary>By which the client's page knows a task of theirs; null for one of the owner's.</summary>
    public string? PublicId { get; set; }

    /// <summary>How <see cref="MadeFrom"/> begins where an obstacle of the brief made it.</summary>
    public const string ObstacleMark = "obstacle:";

    /// <summary>What made it by itself: a question of a checklist as “form:question”, an obstacle of the brief as “obstacle:hash”; null for any other task.</summary>
    public string? MadeFrom { get; set; }

    /// <summary>Raised by every edit; a stale save is answered with both texts.</summary>
    public int Edition { get; set; }
    public bool Removed { get; set; }
    public Instant? DoneAt { get; set; }
}

/// <summary>A checklist as it was answered on a project.</summary>
public sealed class ChecklistRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public int FormId { get; set; }

    /// <summary>By the key of each question, as JSON.</summary>
    [HoldsJson]
    [Personal("{}")]
    public required string Given { get; set; }
    public int Edition { get; set; }
    public Instant At { get; set; }
}

/// <summary>One routine at work on one project, with its steps pinned.</summary>
public sealed class RunRow
{
    public RunId Id { get; set; }
    public ProjectId ProjectId { get; set; }

    /// <summary>The project's kind, whose routine it is.</summary>
    public KindId KindId { get; set; }

    /// <summary>The routine's key; of one begun anew, with a number behind a #.</summary>
    public required string Key { get; set; }

    [HoldsJson]
    public required string Routine { get; set; }

    /// <summary>It is offered and waits for the owner's word.</summary>
    public bool Offered { get; set; }

    /// <summary>Derived like its steps; null while it has not begun.</summary>
    [Derived]
    public RunState? State { get; set; }

    /// <summary>When it began, and when its last step acted or was stopped; derived likewise.</summary>
    [Derived]
    public Instant? BeganAt { get; set; }

    [Derived]
    public Instant? OverAt { get; set; }
}

/// <summary>What a client has typed into a form that is not sent yet.</summary>
[Personal]
public sealed class FormDraftRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public int FormId { get; set; }

    [HoldsJson]
    public required string Given { get; set; }
}

/// <summary>A planned step, derived from facts and replaced in the transaction that changes it.</summary>
[Derived]
public sealed class PlannedStepRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public RunId RunId { get; set; }
    public required string Step { get; set; }
    public int Occurrence { get; set; }
    public StepState State { get; set; }
    public Instant? Due { get; set; }

    /// <summary>Since when what it is about has waited.</summary>
    public Instant? Since { get; set; }
}

/// <summary>The first answer to a write, kept under the key its sender made, so that a double send returns it again.</summary>
[StaysHere]
public sealed class RequestRow
{
    public required string Key { get; set; }
    public Instant At { get; set; }

    /// <summary>Who asked first, and what for: both as hashes. Null in rows of an older Gesamt.</summary>
    public string? Asker { get; set; }
    public string? Content { get; set; }
    public int? Status { get; set; }
    public string? Body { get; set; }
}
