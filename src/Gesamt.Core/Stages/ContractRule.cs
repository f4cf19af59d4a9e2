using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;

namespace Gesamt.Core.Stages;

/// <summary>Where the contract stands.</summary>
public static class ContractRule
{
    /// <summary>The contract that is out or signed and was not voided; null while there is none.</summary>
    public static VersionId? Standing(History history)
    {
        VersionId? standing = null;
        foreach (var fact in history.Facts)
            standing = fact.What switch
            {
                Happening.ContractSent sent => sent.Contract,
                Happening.ContractSigned signed => signed.Contract,
                Happening.ContractVoided voided when voided.Contract == standing => null,
                _ => standing,
            };
        return standing;
    }

    /// <summary>Whether a contract is to be sent: a price is agreed, the kind asks for one, and none is out or signed.</summary>
    public static bool CanSend(Case project) =>
        project.End is null
        && project.Kind.Gates.Contains(Gate.Contract)
        && AgreedPrice.Of(project.History) is not null
        && !project.History.Any<Happening.GateWaived>(waived => waived.Gate == Gate.Contract)
        && Standing(project.History) is null;

    /// <summary>The client's signature that waits for the owner's, on a contract that stands.</summary>
    public static Seen<Happening.ContractSigned>? Countersign(History history) =>
        Standing(history) is { } contract
        && history.Last<Happening.ContractSigned>(s => s.Contract == contract && s.Signer == Signer.Client)
            is { } client
        && !history.Any<Happening.ContractSigned>(s => s.Contract == contract && s.Signer == Signer.Owner)
            ? client
            : null;

    /// <summary>The contract that is with the client to sign; the owner's signature may stand under it already.</summary>
    public static Seen<Happening.ContractSent>? Open(History history) =>
        Standing(history) is { } contract
        && !history.Any<Happening.ContractSigned>(s => s.Contract == contract && s.Signer == Signer.Client)
            ? history.Last<Happening.ContractSent>(sent => sent.Contract == contract)
            : null;
}
