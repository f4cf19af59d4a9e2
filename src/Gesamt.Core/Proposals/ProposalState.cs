using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Proposals;

/// <summary>Where the proposal stands that was sent last.</summary>
public static class ProposalState
{
    /// <summary>The proposal that is out: sent last, not withdrawn, not answered by yes or no. Once a price is agreed none is.</summary>
    public static Seen<Happening.ProposalSent>? Open(History history) =>
        history.Last<Happening.ProposalSent>() is { } sent
        && AgreedPrice.Of(history) is null
        && !history.Facts.Any(fact =>
            History.IsAfter(fact, sent.Fact)
            && fact.What switch
            {
                Happening.ProposalWithdrawn withdrawn => withdrawn.Version == sent.What.Version,
                Happening.ProposalAccepted or Happening.ProposalDeclined or Happening.PriceAgreed => true,
                _ => false,
            }
        )
            ? sent
            : null;

    /// <summary>A proposal valid until a date runs out when that day is over.</summary>
    public static Instant RunsOutAt(Case project, Happening.ProposalSent sent) =>
        project.Calendar.StartOf(sent.ValidUntil.PlusDays(1));
}
