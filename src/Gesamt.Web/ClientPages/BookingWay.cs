using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Turns;
using Gesamt.Web.Hosting;
using Gesamt.Web.Proposals;

namespace Gesamt.Web.ClientPages;

/// <summary>What a client still has before them on the way to a booking, in one sentence.</summary>
internal static class BookingWay
{
    // of plain prose, silently: about 240 words a minute (Brysbaert 2019, from memory), here with time to think
    private const int WordsAMinute = 180;

    public static bool Signs(Case project) =>
        project.Kind.Gates.Contains(Gate.Contract)
        && !project.History.Any<Happening.GateWaived>(waived => waived.Gate == Gate.Contract);

    private static bool Pays(Case project, PricedDto? priced) =>
        project.Kind.Gates.Contains(Gate.Payment)
        && !project.History.Any<Happening.GateWaived>(waived => waived.Gate == Gate.Payment)
        && priced is not { HasDeposit: false };

    public static string ToCome(
        Desk desk,
        Case project,
        ClientStep step,
        PricedDto? proposed,
        ContractPageDto? contract
    ) =>
        step switch
        {
            ClientStep.Choose => (Signs(project), Pays(project, proposed)) switch
            {
                (true, true) =>
                    $"Then you read and sign the contract, and pay {proposed!.DueOnBooking} to book: all on this page.",
                (true, false) => "Then you read and sign the contract, on this page.",
                (false, true) => $"Then you pay {proposed!.DueOnBooking} to book, on this page.",
                _ => $"With your choice it is agreed; {desk.Studio.Owner} writes to you.",
            },
            ClientStep.Sign when !contract!.Turn.Yours => "",
            ClientStep.Sign => Reading(contract!)
                + (
                    contract!.Amends is null && Pays(project, contract!.Priced) && contract.Priced is { } priced
                        ? $" Then you pay {priced.DueOnBooking} to book."
                        : ""
                ),
            ClientStep.Book => "By card it is here at once; a transfer takes a day or two until it is seen.",
            _ => "",
        };

    private static string Reading(ContractPageDto contract)
    {
        if (contract.File is not null)
            return "Read the file first; then you sign with your name.";
        var words = contract.Text.Sum(block => block.Plain.Split(' ', StringSplitOptions.RemoveEmptyEntries).Length);
        var minutes = Math.Max(1, (int)Math.Ceiling((double)words / WordsAMinute));
        return $"About {(minutes == 1 ? "a minute" : $"{minutes} minutes")} to read, then your name below it.";
    }
}
