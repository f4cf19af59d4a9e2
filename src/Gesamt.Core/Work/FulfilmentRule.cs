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

    /// <summary>The tasks that were ticked off by what is taken back now, each with what had fulfilled it.</summary>
    /// <param name="history">As it stood before.</param>
    public static IEnumerable<(TaskId Task, Happening By)> TakenBack(
        History history,
        IReadOnlyCollection<Happening> what
    ) =>
        from one in what
        let cause = Undone(history, one)
        where cause is not null
        from fact in history.Facts
        where fact.By == Actor.Gesamt && fact.Recorded == cause.Recorded && fact.Happened == cause.Happened
        let done = fact.What as Happening.TaskDone
        where done is not null
        select (done.Task, cause.What);

    private static Fact? Undone(History history, Happening what) =>
        what switch
        {
            Happening.MeetingAsksAgain again => history
                .Last<Happening.MeetingHeld>(held => held.Meeting == again.Meeting)
                ?.Fact,
            Happening.NoteTakenBack note => history.Last<Happening.CallHeld>(call => call.Note == note.Note)?.Fact,
            Happening.PaymentVoided voided => history
                .Last<Happening.PaymentReceived>(paid => paid.Payment == voided.Payment)
                ?.Fact,
            Happening.PaymentChargedBack back => history
                .Last<Happening.PaymentReceived>(paid => paid.Payment == back.Payment)
                ?.Fact,
            _ => null,
        };

    /// <summary>Whether something fulfils a task that waits for this.</summary>
    public static bool Is(Fulfilment by, Happening what, string? phase) =>
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
