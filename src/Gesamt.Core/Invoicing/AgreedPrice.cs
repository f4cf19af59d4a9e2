using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Core.Invoicing;

/// <summary>The price in force: what was accepted or agreed last. A successor counts from its acceptance on; sending one opens nothing.</summary>
/// <param name="Net">The price without tax: its value.</param>
/// <param name="Version">The offer it was taken from.</param>
/// <param name="First">When a price was agreed for the first time, which is when the Proposal gate closed.</param>
/// <param name="Fact">The agreement in force.</param>
/// <param name="Amended">Whether it is an amendment: what was due on booking before stays so.</param>
public sealed record AgreedPrice(
    Money Agreed,
    Money DueOnBooking,
    Money Net,
    ImmutableArray<AgreedPart> Parts,
    VersionId Version,
    Instant First,
    Fact Fact,
    bool Amended = false
)
{
    public static AgreedPrice? Of(History history)
    {
        AgreedPrice? inForce = null;
        Instant? first = null;
        foreach (var fact in history.Facts)
        {
            AgreedPrice? Agreed(
                Money agreed,
                Money onBooking,
                Money net,
                ImmutableArray<AgreedPart> parts,
                VersionId version
            ) =>
                new(
                    agreed,
                    onBooking,
                    net,
                    parts,
                    version,
                    first is { } earlier && earlier < fact.Happened ? earlier : fact.Happened,
                    fact
                );
            var next = fact.What switch
            {
                Happening.ProposalAccepted a => Agreed(a.Agreed, a.DueOnBooking, a.Net, a.Parts, a.Version),
                Happening.PriceAgreed p => Agreed(p.Agreed, p.DueOnBooking, p.Net, p.Parts, p.Version),
                Happening.PriceAmended p when inForce is not null => With(p, inForce, fact),
                _ => null,
            };
            if (next is null)
                continue;
            (inForce, first) = (next, next.First);
        }
        return inForce;
    }

    private static AgreedPrice With(Happening.PriceAmended amended, AgreedPrice before, Fact fact) =>
        before with
        {
            Agreed = amended.Agreed,
            Net = amended.Net,
            Parts = amended.Parts,
            Version = amended.Version,
            Fact = fact,
            Amended = true,
        };
}
