using Gesamt.Core.Facts;
using Gesamt.Core.Proposals;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;

namespace Gesamt.Web.Proposals;

/// <summary>What is looked at before a proposal goes: everything missing by its name, with where it is mended.</summary>
public static class BeforeSending
{
    private static readonly string[] Counted = ["first", "second", "third", "fourth", "fifth", "sixth"];

    /// <param name="priced">As suggested; null where there are faults.</param>
    public static async Task<IReadOnlyList<PointDto>> PointsAsync(
        Desk desk,
        ProjectFile file,
        Offer offer,
        string contract,
        SigningTerms signing,
        IReadOnlyList<OfferFault> faults,
        PricedChoice? priced
    ) =>
        [
            .. faults.Select(fault => new PointDto(fault.Words, false, true, fault.Field)),
            .. priced is null
                ? []
                : new[]
                {
                    signing.File is { } own
                        ? new($"The contract is your own file, {own.Name}", true, false, "contract")
                        : await ContractAsync(desk, file, offer, contract),
                    new PointDto("Payments add up to the total", true, false, "plan"),
                },
            .. WithoutDate(file, offer),
            .. file.MailTo is null
                ? new[]
                {
                    new PointDto(
                        $"{file.Row.Client!.Name} has no mail address: the letter cannot go",
                        false,
                        true,
                        "person"
                    ),
                }
                : [],
        ];

    private static async Task<PointDto> ContractAsync(Desk desk, ProjectFile file, Offer offer, string contract)
    {
        if (contract.Trim().Length == 0)
            return file.Case.Kind.Gates.Contains(Gate.Contract)
                ? new("No contract goes with it: its text is empty", false, true, "contract")
                : new("No contract goes with it, and none is asked for", true, false, "contract");
        var gaps = await ContractText.GapsAsync(desk, file, contract, offer, PlanDates.Of(file.Case, desk.Today));
        return gaps.Count > 0
            ? new($"The contract lacks: {string.Join(", ", gaps)}", false, true, "contract")
            : new("The contract is filled, no gap", true, false, "contract");
    }

    private static IEnumerable<PointDto> WithoutDate(ProjectFile file, Offer offer)
    {
        foreach (var (part, i) in offer.Plan.Select((part, i) => (part, i)))
        {
            var missing = part.Due switch
            {
                DueRule.AroundMainDate when file.Case.MainDate is null => file.Case.Kind.MainDate
                    is { Length: > 0 } main
                    ? main
                    : "date",
                DueRule.AroundDate around when file.Case.DateNamed(around.Name) is null => around.Name,
                _ => null,
            };
            if (missing is not null)
                yield return new(
                    $"No date for the {missing} yet: the {(i < Counted.Length ? Counted[i] : $"{i + 1}th")} payment has no due day",
                    false,
                    false,
                    "record"
                );
        }
    }
}
