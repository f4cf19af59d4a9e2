using System.Collections.Immutable;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Stages;

/// <summary>Where a project stands: at its first open gate, or finished.</summary>
public enum Stage
{
    Lead,
    Proposal,
    Contract,
    Payment,
    Delivery,
    Finished,
}

/// <summary>What an open gate still needs.</summary>
public enum Lack
{
    Fit,
    Details,
    Acceptance,
    ClientSignature,
    OwnerSignature,
    Price,
    BookingPayment,
    Handover,
    Approval,
    ClosingSteps,
    Balance,
}

/// <summary>One gate: since when it is closed, or what it lacks.</summary>
public sealed record GateReading(Gate Gate, Instant? ClosedAt, ImmutableArray<Lack> Lacks, bool Waived)
{
    public bool IsClosed => ClosedAt is not null;
}

/// <summary>The gates of a project, read from its facts. A gate closes at the instant its last condition came true.</summary>
public static class GateRule
{
    private static readonly Once<ImmutableArray<GateReading>> Known = new(ReadNow);

    public static ImmutableArray<GateReading> Read(Case project) => Known.Of(project);

    private static ImmutableArray<GateReading> ReadNow(Case project)
    {
        var readings = new List<GateReading>();
        Instant? before = null;
        foreach (var gate in project.Kind.Gates)
        {
            var reading =
                Waived(project, gate)
                ?? gate switch
                {
                    Gate.Lead => Lead(project),
                    Gate.Proposal => Proposal(project),
                    Gate.Contract => Contract(project),
                    Gate.Payment => Payment(project, before),
                    Gate.Delivery => Delivery(project),
                    _ => throw new ArgumentOutOfRangeException(nameof(project), gate, "No such gate."),
                };
            readings.Add(reading);
            before = reading.ClosedAt;
        }
        return LeadClosedByLater(readings, project);
    }

    /// <summary>Since when all gates are closed; null while one is open.</summary>
    public static Instant? FinishedAt(Case project) =>
        Read(project) is var gates && StageOf(gates) == Stage.Finished ? gates.Max(gate => gate.ClosedAt) : null;

    /// <summary>The first gate that is not closed; all closed is finished.</summary>
    public static Stage StageOf(IEnumerable<GateReading> gates) =>
        gates.FirstOrDefault(gate => !gate.IsClosed) is { Gate: var open } ? (Stage)open : Stage.Finished;

    private static GateReading? Waived(Case project, Gate gate) =>
        project.History.Last<Happening.GateWaived>(waived => waived.Gate == gate) is { Happened: var at }
            ? new(gate, at, [], true)
            : null;

    private static GateReading Lead(Case project)
    {
        var fit = project.History.FitAt;
        var details = project
            .Kind.Demands.Select(detail =>
                project
                    .History.Of<Happening.DetailKnown>()
                    .Where(known => known.What.Detail == detail)
                    .Select(known => (Instant?)known.Happened)
                    .Min()
            )
            .ToList();
        List<Lack> lacks = [];
        if (fit is null)
            lacks.Add(Lack.Fit);
        if (details.Contains(null))
            lacks.Add(Lack.Details);
        return Reading(Gate.Lead, lacks, [fit, .. details]);
    }

    /// <summary>Lead also closes with any later gate, or when a proposal is sent.</summary>
    private static ImmutableArray<GateReading> LeadClosedByLater(List<GateReading> gates, Case project)
    {
        var at = gates.FindIndex(gate => gate.Gate == Gate.Lead);
        if (at < 0)
            return [.. gates];
        var first = gates
            .Where(gate => gate.Gate != Gate.Lead)
            .Select(gate => gate.ClosedAt)
            .Append(project.History.Of<Happening.ProposalSent>().Select(sent => (Instant?)sent.Happened).Min())
            .Append(gates[at].ClosedAt)
            .Min();
        if (first is not null)
            gates[at] = gates[at] with { ClosedAt = first, Lacks = [] };
        return [.. gates];
    }

    private static GateReading Proposal(Case project) =>
        AgreedPrice.Of(project.History) is { } agreed
            ? new(Gate.Proposal, agreed.First, [], false)
            : new(Gate.Proposal, null, [Lack.Acceptance], false);

    private static GateReading Contract(Case project)
    {
        var voided = project.History.Of<Happening.ContractVoided>().Select(v => v.What.Contract).ToHashSet();
        var amendments = ContractState.Amendments(project.History);
        var complete = project
            .History.Of<Happening.ContractSigned>()
            .Where(signed => !voided.Contains(signed.What.Contract) && !amendments.Contains(signed.What.Contract))
            .GroupBy(signed => signed.What.Contract)
            .Select(signatures =>
                (
                    Client: signatures
                        .Where(s => s.What.Signer == Signer.Client)
                        .Select(s => (Instant?)s.Happened)
                        .Min(),
                    Owner: signatures.Where(s => s.What.Signer == Signer.Owner).Select(s => (Instant?)s.Happened).Min()
                )
            )
            .ToList();
        // a signed contract stays in force until its successor is signed, so the first complete one closes the gate
        if (
            complete
                .Where(c => c is { Client: not null, Owner: not null })
                .Select(c => Later(c.Client, c.Owner))
                .Min() is
            { } closed
        )
            return new(Gate.Contract, closed, [], false);
        List<Lack> lacks = [];
        if (complete.All(c => c.Client is null))
            lacks.Add(Lack.ClientSignature);
        if (complete.All(c => c.Owner is null))
            lacks.Add(Lack.OwnerSignature);
        return new(Gate.Contract, null, [.. lacks], false);
    }

    private static GateReading Payment(Case project, Instant? before)
    {
        if (AgreedPrice.Of(project.History) is not { } agreed)
            return new(Gate.Payment, null, [Lack.Price], false);
        if (agreed.DueOnBooking.Minor == 0)
            return before is null
                ? new(Gate.Payment, null, [Lack.BookingPayment], false)
                : new(Gate.Payment, Later(before, agreed.First), [], false);
        return Payments.ReachedAt(project.History, agreed.DueOnBooking) is { } reached
            ? new(Gate.Payment, Later(reached, agreed.First), [], false)
            : new(Gate.Payment, null, [Lack.BookingPayment], false);
    }

    private static GateReading Delivery(Case project)
    {
        var history = project.History;
        var handedOver = history.Last<Happening.HandedOver>()?.Happened;
        var approved = history.Last<Happening.Approved>()?.Happened;
        var price = AgreedPrice.Of(history);
        var settled = price is { } agreed ? Payments.SettledAt(history, agreed) : null;
        var (closed, closedAt) = ClosingSteps(project);
        List<Lack> lacks = [];
        if (handedOver is null)
            lacks.Add(Lack.Handover);
        if (approved is null)
            lacks.Add(Lack.Approval);
        if (!closed)
            lacks.Add(Lack.ClosingSteps);
        if (settled is null)
            lacks.Add(Lack.Balance);
        return Reading(
            Gate.Delivery,
            lacks,
            [handedOver, approved, settled, .. closedAt is null ? Array.Empty<Instant?>() : [closedAt]]
        );
    }

    /// <summary>Whether what the kind asks for after the handover is done, and since when; tasks that were removed are not asked for.</summary>
    private static (bool Closed, Instant? At) ClosingSteps(Case project)
    {
        var state = new Dictionary<TaskId, Instant?>();
        foreach (var fact in project.History.Facts)
            switch (fact.What)
            {
                case Happening.TaskMade { Closing: true } made:
                    state[made.Task] = null;
                    break;
                case Happening.TaskDone done when state.ContainsKey(done.Task):
                    state[done.Task] = fact.Happened;
                    break;
                case Happening.TaskReopened again when state.ContainsKey(again.Task):
                    state[again.Task] = null;
                    break;
                case Happening.TaskRemoved removed:
                    state.Remove(removed.Task);
                    break;
                default:
                    break;
            }
        // they are made with the handover, so before it there is nothing to be done yet
        if (state.Count == 0)
            return (project.Kind.ClosingSteps.IsEmpty || project.History.Any<Happening.HandedOver>(), null);
        return (state.Values.All(at => at is not null), state.Values.Max());
    }

    private static GateReading Reading(Gate gate, List<Lack> lacks, IReadOnlyCollection<Instant?> conditions) =>
        new(gate, lacks.Count == 0 ? conditions.Max() : null, [.. lacks], false);

    private static Instant? Later(Instant? a, Instant? b) => a > b ? a : b;
}
