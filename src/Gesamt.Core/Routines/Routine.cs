using System.Collections.Immutable;
using Gesamt.Core.Calendar;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>What a step, or a whole routine, may hang on besides a named date.</summary>
public enum Cause { RunBegun, PreviousStep, InquiryCame, ProposalSent, ContractSent, Booked, InvoiceDue, HandedOver, NamedDate }

/// <summary>What ends a step before it acts. Every step also stops when the project ends.</summary>
public enum StopRule { Answered, Opened, Chosen, Signed, Paid, Ended, Resting, Replaced }

/// <summary>Whether a step acts by itself or waits for the owner's OK.</summary>
public enum StepMode { AsksFirst, ByItself }

/// <summary>What a step does whose time had passed before its run began.</summary>
public enum LateStart { Skip, AtOnce, Ask }

/// <summary>When a step acts: so long after (or before) its cause, at a time of day of its own if it has one.</summary>
/// <param name="DateName">The named date for <see cref="Cause.NamedDate"/>; null is the date that matters.</param>
/// <param name="AnyHour">Acts outside sending hours too: receipts and confirmations that somebody has just asked for.</param>
public sealed record Timing(Cause Cause, Span Offset, LocalTime? At = null, string? DateName = null, bool AnyHour = false);

/// <summary>What a step does.</summary>
public abstract record StepAction
{
    private StepAction() { }

    /// <summary>Sends the letter of that key.</summary>
    public sealed record Letter(string Key) : StepAction;

    /// <summary>Makes the tasks of the list of that key.</summary>
    public sealed record Tasks(string Key) : StepAction;

    /// <summary>Proposes to end the project as gone quiet; always asks first.</summary>
    public sealed record EndAsQuiet : StepAction;

    /// <summary>Whether it leaves the house.</summary>
    public bool LeavesTheHouse => this is Letter;
}

/// <summary>One timed step of a routine.</summary>
public sealed record Step(
    string Key,
    Timing When,
    StepAction Action,
    StepMode Mode,
    ImmutableArray<StopRule> Stops,
    LateStart LateStart = LateStart.Skip);

/// <summary>A series of timed steps that follow up by themselves or ask first.</summary>
/// <param name="Begins">The cause that begins a run of it, once per project.</param>
public sealed record Routine(string Key, string Name, Cause Begins, ImmutableArray<Step> Steps);

/// <summary>One routine at work on one project, with the steps pinned as they were when it began.</summary>
public sealed record Run(RunId Id, Routine Routine);

/// <summary>One step of one run, once: the key under which it acts exactly once.</summary>
public readonly record struct StepRef(RunId Run, string Step, int Occurrence);
