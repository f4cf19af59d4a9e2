namespace Gesamt.Core.Projects;

/// <summary>What fulfils a task when it happens, so that nobody has to tick it off.</summary>
public enum Fulfilment
{
    ProposalSent,
    ContractSent,
    ContractSigned,
    PaymentReceived,
    MeetingHeld,
    FormReturned,
    DraftPutUp,
    DraftApproved,
    HandedOver,
    Approved,
}
