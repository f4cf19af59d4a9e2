using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Core.Turns;

/// <summary>The one thing a client has to do now on the way to a booking; then done.</summary>
public enum ClientStep
{
    Nothing,
    Choose,
    Sign,
    Book,
    Done,
}

/// <summary>Something a client is asked for once the work goes on.</summary>
public abstract record ClientTask
{
    private ClientTask() { }

    /// <summary>Looking at a round of drafts, and saying what they think.</summary>
    public sealed record LookAt(Review Review) : ClientTask;

    /// <summary>Paying what is open of an invoice.</summary>
    public sealed record Pay(InvoiceId Invoice, Money Owed, LocalDate Due) : ClientTask;

    /// <summary>Looking at what was handed over, and saying whether all is well.</summary>
    public sealed record Approve : ClientTask;
}

/// <summary>What a client is to do, read from what happened.</summary>
public static class ClientWay
{
    /// <summary>Choosing goes before everything, also once more after a choice; then the signature, then the first payment.</summary>
    /// <param name="contract">The contract that they can read; none before there is one, or once it was voided unsigned.</param>
    public static ClientStep StepOf(Case project, VersionId? contract)
    {
        var history = project.History;
        if (ProposalState.Open(history) is not null)
            return ClientStep.Choose;
        var paid = GateRule.Read(project).FirstOrDefault(gate => gate.Gate == Gate.Payment) is not { IsClosed: false };
        if (contract is null)
            return paid && AgreedPrice.Of(history) is not null ? ClientStep.Done : ClientStep.Nothing;
        if (!history.Any<Happening.ContractSigned>(s => s.Contract == contract && s.Signer == Signer.Client))
            return project.End is null ? ClientStep.Sign : ClientStep.Nothing;
        return !paid && Owed.Open(history).Any() ? ClientStep.Book : ClientStep.Done;
    }

    /// <summary>Drafts first, then what is to be paid, the earliest due first, then the work that was handed over.</summary>
    public static IEnumerable<ClientTask> ToDo(History history)
    {
        if (ReviewRule.Open(history) is { } review)
            yield return new ClientTask.LookAt(review);
        foreach (var (invoice, owed) in Owed.Open(history))
            yield return new ClientTask.Pay(invoice.What.Invoice, owed, invoice.What.Due);
        if (history.Any<Happening.HandedOver>() && !history.Any<Happening.Approved>())
            yield return new ClientTask.Approve();
    }
}
