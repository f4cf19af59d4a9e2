using Gesamt.Core.Facts;

namespace Gesamt.Core.Proposals;

/// <summary>Lists of services with their prices, put to the client before the call.</summary>
public static class RateSheets
{
    /// <summary>The one that waits for the client: put last, not ticked and not taken back. A proposal that is sent takes its place.</summary>
    public static Seen<Happening.RateSheetSent>? Open(History history) =>
        history.Last<Happening.RateSheetSent>() is { } sent
        && !history.Facts.Any(fact =>
            History.IsAfter(fact, sent.Fact)
            && fact.What switch
            {
                Happening.RateSheetTicked ticked => ticked.Sheet == sent.What.Sheet,
                Happening.RateSheetTakenBack back => back.Sheet == sent.What.Sheet,
                Happening.ProposalSent or Happening.PriceAgreed => true,
                _ => false,
            }
        )
            ? sent
            : null;
}
