using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using Gesamt.Core.Waiting;
using NodaTime;

namespace Gesamt.Core.Reports;

/// <summary>The first time a project stood at a gate.</summary>
/// <param name="Until">Null while it still stands there.</param>
/// <param name="Left">Whether it passed or ended then; false where it still stands there, or was sent back to an earlier gate.</param>
public sealed record Stay(Gate Gate, Instant From, Instant? Until, bool Left);

/// <summary>How far a project ever came.</summary>
/// <param name="Furthest">The furthest it ever stood: all gates before it were passed.</param>
/// <param name="Stays">In the order of the gates; a gate that was passed together with the one before it has none.</param>
public sealed record Passage(Stage Furthest, ImmutableArray<Stay> Stays)
{
    /// <summary>Read from the facts by when they happened: at each instant the stage as it would have been read then.</summary>
    public static Passage Of(Case project)
    {
        if (project.History.Began is not { } began)
            return new(Stage.Lead, []);
        var facts = project.History.Facts.Where(fact => Moves(fact.What)).ToList();
        var walk = new Walk();
        foreach (var at in facts.Select(fact => fact.Happened).Append(began).Distinct().Order())
        {
            var then = project with { History = new(facts.Where(fact => fact.Happened <= at)) };
            walk.Take(at, GateRule.StageOf(GateRule.Read(then)), then.End is not null);
            // nobody stands anywhere for the first time any more
            if (walk.Furthest == Stage.Finished)
                break;
        }
        return new(walk.Furthest ?? Stage.Lead, [.. walk.Stays]);
    }

    /// <summary>How many reminders went out before the first price was agreed; null while none is.</summary>
    public static int? ChasesBeforeYes(Case project) =>
        AgreedPrice.Of(project.History) is { First: var yes }
            ? Reminders.Sent(project).Count(sent => sent <= yes)
            : null;

    private sealed class Walk
    {
        public Stage? Furthest { get; private set; }
        public List<Stay> Stays { get; } = [];

        public void Take(Instant at, Stage stage, bool ended)
        {
            if (Stays is [.., { Until: null } here] && (ended || stage != (Stage)here.Gate))
                Stays[^1] = here with { Until = at, Left = ended || stage > (Stage)here.Gate };
            if (stage <= Furthest)
                return;
            Furthest = stage;
            if (!ended && stage != Stage.Finished)
                Stays.Add(new((Gate)stage, at, null, false));
        }
    }

    /// <summary>Whether a fact can open or close a gate, or end a project.</summary>
    private static bool Moves(Happening what) =>
        what
            is Happening.MarkedFit
                or Happening.FitTakenBack
                or Happening.DetailKnown
                or Happening.ProposalSent
                or Happening.ProposalAccepted
                or Happening.PriceAgreed
                or Happening.PriceAmended
                or Happening.ContractSent
                or Happening.ContractSigned
                or Happening.ContractVoided
                or Happening.InvoiceIssued
                or Happening.InvoiceCredited
                or Happening.PaymentReceived
                or Happening.PaymentRefunded
                or Happening.PaymentVoided
                or Happening.PaymentChargedBack
                or Happening.HandedOver
                or Happening.Approved
                or Happening.TaskMade { Closing: true }
                or Happening.TaskDone
                or Happening.TaskReopened
                or Happening.TaskRemoved
                or Happening.GateWaived
                or Happening.NotWonAfterAll
                or Happening.Ended
                or Happening.TakenUp;
}
