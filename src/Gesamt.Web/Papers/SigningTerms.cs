using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Proposals;

namespace Gesamt.Web.Papers;

/// <summary>Somebody who signs for the client.</summary>
public sealed record SignerTerms(PersonId Person, string Name);

/// <summary>How a contract is signed.</summary>
/// <param name="Signers">Who signs for the client, in that order; none for whoever decides and opens the page.</param>
/// <param name="AsksCode">Whether each types a code that was sent to their mail address.</param>
/// <param name="File">The owner's own file as the contract, in place of a text.</param>
public sealed record SigningTerms(ImmutableArray<SignerTerms> Signers, bool AsksCode = false, OfferFile? File = null)
{
    /// <summary>One signature by whoever decides.</summary>
    public static readonly SigningTerms Plain = new([]);
}

/// <summary>What an amendment rests on, as it was when it was put to the client.</summary>
/// <param name="Version">The agreed version it changes.</param>
/// <param name="Places">Of its instalments among the agreed parts.</param>
/// <param name="Billed">What was invoiced then, with what was left of each invoice.</param>
public sealed record AmendmentTerms(VersionId Version, ImmutableArray<int> Places, ImmutableArray<BilledPart> Billed);
