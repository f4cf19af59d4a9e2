using Gesamt.Core.Facts;
using Gesamt.Core.Projects;

namespace Gesamt.Core.Work;

/// <summary>Which open tasks are fulfilled by what happened.</summary>
public static class FulfilmentRule
{
    /// <summary>The open tasks that wait for what has just happened. A draft fulfils a task of its own phase, or one of none.</summary>
    public static IEnumerable<TaskId> Of(Case project, IReadOnlyCollection<Happening> what) =>
        project
            .OpenTasks.Where(task => task.DoneBy is { } by && what.Any(one => Is(by, one, task.Phase)))
            .Select(task => task.Id);

    private static bool Is(Fulfilment by, Happening what, string? phase) =>
        (by, what) switch
        {
            (Fulfilment.ProposalSent, Happening.ProposalSent) => true,
            (Fulfilment.ContractSent, Happening.ContractSent) => true,
            (Fulfilment.ContractSigned, Happening.ContractSigned signed) => signed.Signer == Signer.Client,
            (Fulfilment.PaymentReceived, Happening.PaymentReceived) => true,
            (Fulfilment.MeetingHeld, Happening.MeetingHeld or Happening.CallHeld) => true,
            (Fulfilment.FormReturned, Happening.FormReturned) => true,
            (Fulfilment.DraftPutUp, Happening.ReviewOpened opened) => phase is null || opened.Phase == phase,
            (Fulfilment.DraftApproved, Happening.ReviewApproved approved) => phase is null || approved.Phase == phase,
            (Fulfilment.HandedOver, Happening.HandedOver) => true,
            (Fulfilment.Approved, Happening.Approved) => true,
            _ => false,
        };
}
