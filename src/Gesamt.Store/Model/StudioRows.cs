using Gesamt.Core;
using Gesamt.Core.Texts;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>The one studio: who runs it, where its days begin, how its papers look.</summary>
public sealed class StudioRow
{
    /// <summary>Counts the changes of the services that all kinds share.</summary>
    public int SharedServicesEdition { get; set; }
    public int Id { get; set; } = 1;
    public required string Name { get; set; }
    public required string Owner { get; set; }
    public required string Mail { get; set; }
    public required string Zone { get; set; }
    public required string Currency { get; set; }
    public required string Brand { get; set; }
    public string Address { get; set; } = "";
    public string TaxNumber { get; set; } = "";
    public string Iban { get; set; } = "";

    /// <summary>By its two letters (ISO 3166-1); empty while it was not said.</summary>
    public string Country { get; set; } = "";

    /// <summary>Printed below the sums of every invoice.</summary>
    public string InvoiceNote { get; set; } = "";

    /// <summary>A way to pay of the studio's own choosing, a link or a few words; printed beside the transfer.</summary>
    public string PayAt { get; set; } = "";

    /// <summary>Why its work is exempt of tax, where some is.</summary>
    public string ExemptReason { get; set; } = "";

    /// <summary>What is asked for late payment, as JSON; null for nothing.</summary>
    [HoldsJson]
    public string? LateTerms { get; set; }

    /// <summary>Reference rates of half-years, as JSON.</summary>
    [HoldsJson]
    public string ReferenceRates { get; set; } = "[]";

    /// <summary>The bank as it stands on papers, and its BIC (ISO 9362).</summary>
    public string Bank { get; set; } = "";
    public string Bic { get; set; } = "";
    public string Phone { get; set; } = "";
    public string Site { get; set; } = "";

    /// <summary>Where clients reach this program, such as https://work.studio.example; empty while it is only known from where the owner sits.</summary>
    public string ClientAddress { get; set; } = "";

    /// <summary>How numbers, days and times are written for everybody who reads of this studio.</summary>
    public NumberLook Numbers { get; set; }
    public DayOrder Days { get; set; }
    public ClockHours Clock { get; set; }

    /// <summary>What stands before the number of an invoice; and, for a studio that comes with invoices of its own, the first number of one year.</summary>
    public string InvoiceSeries { get; set; } = "";
    public int InvoiceFirst { get; set; } = 1;
    public int InvoiceFirstYear { get; set; }

    /// <summary>What a proposal begins with: the share due on booking, the days a payment has, and how long it is valid.</summary>
    public int OnBookingPartsPerMillion { get; set; } = 400_000;
    public int DueDays { get; set; } = 14;
    public int ValidDays { get; set; } = 14;

    /// <summary>Whether the owner's signature is given with every contract: it stands under it as it is put to the client.</summary>
    public bool SignsAtOnce { get; set; }

    /// <summary>Days after which a finished project is put away by itself; null for never.</summary>
    public int? PutAwayDays { get; set; }

    /// <summary>Years, counted from the end of the one they are of, for which the law keeps invoices with all that belongs to the books, and what was agreed.</summary>
    public int BookYears { get; set; } = 10;
    public int AgreementYears { get; set; } = 6;

    /// <summary>Whether tax is owed when money comes; else when an invoice is issued.</summary>
    public bool TaxAsReceived { get; set; }

    /// <summary>How likely projects of a stage are to be booked where the owner says so, as JSON.</summary>
    [HoldsJson]
    public string Chances { get; set; } = "[]";

    /// <summary>Whether hours are kept at all; while they are not, no hourly figure appears anywhere.</summary>
    public bool HoursOff { get; set; }

    /// <summary>Which first steps of a new studio are still open, as JSON; null once none is.</summary>
    [HoldsJson]
    public string? FirstSteps { get; set; }
    public string Signature { get; set; } = "";
    public LocalTime SendFrom { get; set; }
    public LocalTime SendUntil { get; set; }

    [HoldsJson]
    public string DaysOff { get; set; } = "[]";

    /// <summary>Spans of the week in which meetings can be, as JSON.</summary>
    [HoldsJson]
    public string OpenHours { get; set; } = "[]";

    /// <summary>SHA-256 of the logo that clients see.</summary>
    [NamesFile]
    public string? Logo { get; set; }

    /// <summary>The secret part of the feed's address.</summary>
    [StaysHere]
    public string? FeedKey { get; set; }
    public int Edition { get; set; }

    [StaysHere]
    public string? PasswordHash { get; set; }

    [StaysHere]
    public string SecurityStamp { get; set; } = "";

    /// <summary>The secret of one-time codes (RFC 6238), protected by the keys beside the database; null while they are off.</summary>
    [StaysHere]
    public string? CodeSecret { get; set; }

    /// <summary>The time step of the code used last: each opens once (RFC 6238, 5.2).</summary>
    [StaysHere]
    public long CodeStep { get; set; }

    /// <summary>Hashes of recovery codes not used yet, one a line.</summary>
    [StaysHere]
    public string RecoveryCodes { get; set; } = "";
    public Instant? LookedAt { get; set; }

    /// <summary>The part behind the @ of the studio's own addresses.</summary>
    public string MailDomain => Mail[(Mail.IndexOf('@') + 1)..];
}

/// <summary>A kind of work; its rules are pinned on each project that begins.</summary>
public sealed class KindRow
{
    /// <summary>Raised by every edit; a stale save is answered with both texts.</summary>
    public int Edition { get; set; }
    public KindId Id { get; set; }
    public required string Key { get; set; }
    public required string Name { get; set; }

    [HoldsJson]
    public required string Rules { get; set; }
    public int Position { get; set; }
    public bool Removed { get; set; }
}

/// <summary>What a form is for: an inquiry on its own page; or questions to a client, or feedback, on the client's page.</summary>
public enum FormPurpose
{
    Inquiry,
    Questionnaire,
    Feedback,

    /// <summary>The owner answers it; no client ever sees it.</summary>
    Checklist,
}

/// <summary>A form of a kind.</summary>
public sealed class FormRow
{
    public int Id { get; set; }
    public FormPurpose Purpose { get; set; }
    public KindId KindId { get; set; }
    public required string Slug { get; set; }

    /// <summary>Addresses it had before, one a line: they go on leading to it.</summary>
    public string EarlierSlugs { get; set; } = "";
    public required string Title { get; set; }
    public required string Intro { get; set; }

    [HoldsJson]
    public required string Fields { get; set; }

    /// <summary>Said after sending; empty for the usual words.</summary>
    public string Thanks { get; set; } = "";

    /// <summary>Where a visitor goes after sending, instead of a message.</summary>
    public string? GoTo { get; set; }

    /// <summary>The source of inquiries that name none.</summary>
    public string? Source { get; set; }

    /// <summary>Of a checklist: whether no draft is put up before it is gone through.</summary>
    public bool BeforeDraft { get; set; }
    public bool Closed { get; set; }
    public int Edition { get; set; }
}

/// <summary>A service of the price list.</summary>
public sealed class ServiceRow
{
    public int Id { get; set; }

    /// <summary>The kind it is offered for; null for all kinds.</summary>
    public KindId? KindId { get; set; }
    public required string Title { get; set; }
    public string Detail { get; set; } = "";
    public string Unit { get; set; } = "";
    public decimal UnitPrice { get; set; }
    public int TaxPartsPerMillion { get; set; }

    /// <summary>Whether the price includes the tax.</summary>
    public bool Gross { get; set; }

    /// <summary>More about it, in Markdown.</summary>
    public string Text { get; set; } = "";
    public string Link { get; set; } = "";

    /// <summary>SHA-256 of a file for papers.</summary>
    public string? Picture { get; set; }

    /// <summary>Other prices from a quantity on, as JSON; null for none.</summary>
    [HoldsJson]
    public string? Steps { get; set; }

    /// <summary>Hours that one of it is expected to take; the owner's own.</summary>
    public decimal? Hours { get; set; }

    /// <summary>What one of it is expected to cost, in major units before tax; the owner's own.</summary>
    public decimal? Cost { get; set; }
    public bool OnRateSheet { get; set; }

    /// <summary>Offered no more; what was offered keeps it.</summary>
    public bool PutAway { get; set; }
    public int Position { get; set; }
}

/// <summary>A reusable text with named blanks. One of a kind's own is taken for its projects in place of the shared one of the same key.</summary>
public sealed class LetterTemplateRow
{
    public int Id { get; set; }

    /// <summary>The kind whose own it is; null for one that all kinds share.</summary>
    public KindId? KindId { get; set; }
    public required string Key { get; set; }
    public required string Name { get; set; }
    public required string Subject { get; set; }
    public required string Body { get; set; }

    /// <summary>By which it is called up while writing.</summary>
    public int? Number { get; set; }
    public bool Removed { get; set; }
    public int Edition { get; set; }
    public List<TemplateFileRow> Files { get; set; } = [];
}

/// <summary>A file that goes with every letter of a template.</summary>
public sealed class TemplateFileRow
{
    public int Id { get; set; }
    public int TemplateId { get; set; }
    public required string Name { get; set; }

    [NamesFile(nameof(Name))]
    public required string Hash { get; set; }
    public long Size { get; set; }
    public required string Type { get; set; }
}

/// <summary>The text of a kind's contract with named blanks.</summary>
public sealed class ContractTemplateRow
{
    public int Id { get; set; }
    public KindId KindId { get; set; }
    public required string Title { get; set; }
    public required string Body { get; set; }

    /// <summary>The owner's own file as the contract, in place of the text: its SHA-256, and its name.</summary>
    public string? File { get; set; }
    public string FileName { get; set; } = "";

    /// <summary>Whether whoever signs types a code that was sent to their mail address.</summary>
    public bool AsksCode { get; set; }
    public int Edition { get; set; }
}

/// <summary>A kind's routine; its steps are pinned on each run.</summary>
public sealed class RoutineRow
{
    public int Id { get; set; }
    public KindId KindId { get; set; }
    public required string Key { get; set; }

    [HoldsJson]
    public required string Routine { get; set; }

    /// <summary>Turned off by the owner: it begins nowhere.</summary>
    public bool Off { get; set; }

    /// <summary>What keeps it off: a letter, form or blank that is missing; empty when nothing does.</summary>
    public string Trouble { get; set; } = "";
    public int Position { get; set; }
    public bool Removed { get; set; }
    public int Edition { get; set; }
}

/// <summary>A run sheet to be laid on a date.</summary>
public sealed class RunSheetTemplateRow
{
    public int Id { get; set; }
    public required string Key { get; set; }
    public required string Name { get; set; }

    /// <summary>As JSON, each at its distance to the main day.</summary>
    [HoldsJson]
    public required string Items { get; set; }
    public bool Removed { get; set; }
    public int Edition { get; set; }
}

/// <summary>Tasks that are made together, each with its distance to the date that matters.</summary>
public sealed class TaskListRow
{
    public int Id { get; set; }
    public required string Key { get; set; }
    public string Name { get; set; } = "";

    [HoldsJson]
    public required string Items { get; set; }
    public bool Removed { get; set; }
    public int Edition { get; set; }
}

/// <summary>An address that is told of what happens, signed with a secret.</summary>
public sealed class HookRow
{
    public int Id { get; set; }
    public required string Name { get; set; }
    public required string Address { get; set; }

    [StaysHere]
    public required string Secret { get; set; }

    /// <summary>The kinds of facts it is told of, as JSON; a routine's step may call it besides.</summary>
    [HoldsJson]
    public string Events { get; set; } = "[]";

    /// <summary>May lie in the studio's own network.</summary>
    public bool Inside { get; set; }
    public bool Off { get; set; }
    public int Edition { get; set; }
}

public enum HookCallState
{
    Waiting,
    Taken,
    GivenUp,
}

/// <summary>One call of a web hook; its key travels along, so that a call received twice is known.</summary>
[Personal]
public sealed class HookCallRow
{
    public int Id { get; set; }
    public required string Key { get; set; }
    public int HookId { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string Event { get; set; }
    public required string Body { get; set; }
    public HookCallState State { get; set; }
    public Instant At { get; set; }
    public Instant NotBefore { get; set; }
    public int Failures { get; set; }
    public string? LastError { get; set; }
}

/// <summary>A key for programs of the owner's choosing; only its SHA-256 is kept.</summary>
[StaysHere]
public sealed class ApiKeyRow
{
    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>Its first characters, to be told apart by.</summary>
    public required string Begins { get; set; }
    public required string Hash { get; set; }
    public bool MayRead { get; set; }
    public bool MayInquire { get; set; }
    public Instant MadeAt { get; set; }
    public Instant? UsedAt { get; set; }
    public Instant? EndedAt { get; set; }
}
