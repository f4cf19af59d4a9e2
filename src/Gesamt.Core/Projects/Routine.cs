using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Projects;

/// <summary>What a step, or a whole routine, may hang on: its own beginning, the step before, something that happened, or a named date.</summary>
public enum Cause
{
    RunBegun,
    PreviousStep,
    InquiryCame,
    ProposalSent,
    ProposalOpened,
    ProposalRunsOut,
    ContractSent,
    ContractSigned,
    Booked,
    InvoiceDue,
    PaymentReceived,
    MeetingHeld,
    FormReturned,
    HandedOver,
    Approved,
    NamedDate,

    /// <summary>The project ended without being finished. Taken up again, it is gone.</summary>
    Ended,
}

/// <summary>Whether a step acts by itself or waits for the owner's OK.</summary>
public enum StepMode
{
    AsksFirst,
    ByItself,
}

/// <summary>What a step does whose time had passed before its run began.</summary>
public enum LateStart
{
    Skip,
    AtOnce,
    Ask,
}

/// <summary>When a step acts: so long after (or before) its cause, at a time of day of its own if it has one.</summary>
/// <param name="DateName">The named date for <see cref="Cause.NamedDate"/>; null is the date that matters.</param>
/// <param name="AnyHour">Acts outside sending hours too: receipts and confirmations that somebody has just asked for.</param>
public sealed record Timing(
    Cause Cause,
    Span Offset,
    LocalTime? At = null,
    string? DateName = null,
    bool AnyHour = false
);

/// <summary>What a step does.</summary>
public abstract record StepAction
{
    private StepAction() { }

    /// <summary>Sends the letter of that key.</summary>
    public sealed record Letter(string Key) : StepAction;

    /// <summary>Puts a form on the client's page, with the letter that asks for it.</summary>
    public sealed record Form(string Slug, string Key) : StepAction;

    /// <summary>Offers times for a kind of meeting, with the letter that says so.</summary>
    public sealed record MeetingChoice(string Kind, string Key) : StepAction;

    /// <summary>Issues the next agreed invoice, with its letter.</summary>
    public sealed record Invoice : StepAction;

    /// <summary>Makes the tasks of the list of that key.</summary>
    public sealed record Tasks(string Key) : StepAction;

    /// <summary>Opens a part of the client page.</summary>
    public sealed record OpenPart(PagePart Part) : StepAction;

    /// <summary>Puts a label on, or takes it off.</summary>
    public sealed record Label(string Name, bool On) : StepAction;

    /// <summary>Proposes a project of another kind with the same client; always asks first.</summary>
    public sealed record FollowOn(string Kind) : StepAction;

    /// <summary>Proposes to end the project as gone quiet; always asks first.</summary>
    public sealed record EndAsQuiet : StepAction;

    /// <summary>Calls the web hook of that name.</summary>
    public sealed record Hook(string Name) : StepAction;

    /// <summary>Tells the owner something, until it was seen.</summary>
    public sealed record TellMe(string Words) : StepAction;

    /// <summary>Whether it leaves the house.</summary>
    public bool LeavesTheHouse => this is Letter or Form or MeetingChoice or Invoice or Hook;

    /// <summary>Whether it waits for the owner whatever its mode says.</summary>
    public bool AlwaysAsks => this is EndAsQuiet or FollowOn or TellMe;

    /// <summary>The letter a client reads of it, where there is one of the owner's making.</summary>
    public string? LetterKey =>
        this switch
        {
            Letter letter => letter.Key,
            Form form => form.Key,
            MeetingChoice choice => choice.Key,
            _ => null,
        };
}

/// <summary>What must hold for a step to be part of a run.</summary>
public abstract record Condition
{
    private Condition() { }

    /// <summary>The project came from one of these sources.</summary>
    public sealed record SourceIs(ImmutableArray<string> Is) : Condition;

    /// <summary>A detail, which answers fill, is one of these.</summary>
    public sealed record AnswerIs(string Detail, ImmutableArray<string> Is) : Condition;
}

/// <summary>One timed step of a routine.</summary>
/// <param name="If">All must hold, or the step is no part of the run.</param>
/// <param name="In">The variants it belongs to; none is all.</param>
/// <param name="Favour">Asks for feedback, a quotation or leave to show: waits until all due is paid, no round is open and nothing objected to.</param>
public sealed record Step(
    string Key,
    Timing When,
    StepAction Action,
    StepMode Mode,
    ImmutableArray<StopRule> Stops,
    LateStart LateStart = LateStart.Skip,
    ImmutableArray<Condition> If = default,
    ImmutableArray<string> In = default,
    bool Favour = false
)
{
    /// <summary>It answers an act of the client's at once: an inquiry, a signature, a payment, a form. It goes outside sending hours too.</summary>
    public bool Confirms =>
        Action is StepAction.Letter
        && When
            is {
                Offset.Count: 0,
                At: null,
                Cause: Cause.InquiryCame
                    or Cause.ContractSigned
                    or Cause.Booked
                    or Cause.PaymentReceived
                    or Cause.FormReturned
                    or Cause.Approved
            };

    public ImmutableArray<Condition> If { get; init; } = If.IsDefault ? [] : If;
    public ImmutableArray<string> In { get; init; } = In.IsDefault ? [] : In;
}

/// <summary>A way a routine goes when it begins at least so many months before the date that matters.</summary>
public sealed record Variant(string Name, int MonthsAhead);

/// <summary>A series of timed steps that follow up by themselves or ask first.</summary>
/// <param name="Begins">The cause that begins a run of it, once per project.</param>
/// <param name="Variants">Ways it goes by lead time; none is one way for all.</param>
public sealed record Routine(
    string Key,
    string Name,
    Cause Begins,
    ImmutableArray<Step> Steps,
    ImmutableArray<Variant> Variants = default
)
{
    public ImmutableArray<Variant> Variants { get; init; } = Variants.IsDefault ? [] : Variants;

    /// <summary>The steps of one variant, as a run of it is pinned.</summary>
    public Routine Of(Variant variant) =>
        this with
        {
            Name = $"{Name}, {variant.Name}",
            Steps = [.. Steps.Where(step => step.In.IsEmpty || step.In.Contains(variant.Name))],
            Variants = [],
        };
}

/// <summary>One routine at work on one project, with the steps pinned as they were when it began.</summary>
public sealed record Run(RunId Id, Routine Routine);
