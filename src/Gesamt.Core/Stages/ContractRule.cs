using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;

namespace Gesamt.Core.Stages;

/// <summary>What can be put to a client to sign.</summary>
public static class ContractRule
{
    /// <summary>Whether a contract is to be sent: a price is agreed, the kind asks for one, and none is out or signed.</summary>
    public static bool CanSend(Case project) =>
        MaySend(project)
        && project.Kind.Gates.Contains(Gate.Contract)
        && ContractState.Standing(project.History) is null;

    /// <summary>Whether a contract can be put to the client, perhaps in place of another.</summary>
    public static bool MaySend(Case project) =>
        project.End is null
        && AgreedPrice.Of(project.History) is not null
        && !project.History.Any<Happening.GateWaived>(waived => waived.Gate == Gate.Contract);

    /// <summary>Whether an amendment can be put to the client: a price is agreed, and no paper waits for their signature.</summary>
    public static bool CanAmend(Case project) =>
        project.End is null
        && AgreedPrice.Of(project.History) is not null
        && ContractState.Open(project.History) is null;
}
