using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>Who signs, from where, and under which name.</summary>
public sealed record SignatureInput(string Name, string Hash, string Address, string Agent);

/// <summary>Puts signatures under contracts.</summary>
public static class Signing
{
    public const string Consent = "I have read this contract and agree to it. I sign it by typing my name.";

    /// <summary>What stands beside a signature that the owner gives once for every contract, and types under none.</summary>
    private const string ConsentBeforehand = "I give my signature with every contract that I send.";

    /// <exception cref="InvalidException">No name.</exception>
    /// <exception cref="RefusedException">The page showed another version than the one to sign, or the side has signed already.</exception>
    public static async Task AddAsync(
        Act act,
        ProjectFile file,
        VersionRow contract,
        Signer signer,
        SignatureInput input
    )
    {
        var name = input.Name.Trim();
        if (name.Length is < 2 or > 120)
            throw new InvalidException(("name", "Type your full name, 2 to 120 characters."));
        if (input.Hash != contract.Hash)
            throw new RefusedException(
                "The contract was changed while this page was open. Load the page again and read it once more."
            );
        if (await HasSignedAsync(act, contract, signer))
            throw new RefusedException("This contract is signed already.");
        await KeepAsync(act, file, contract, signer, input with { Name = name }, Consent);
    }

    /// <summary>The owner's signature, where the studio gives it with every contract and it is not there yet.</summary>
    public static async Task GiveBeforehandAsync(Act act, ProjectFile file, VersionRow contract)
    {
        if (act.Studio.SignsAtOnce && !await HasSignedAsync(act, contract, Signer.Owner))
            await KeepAsync(
                act,
                file,
                contract,
                Signer.Owner,
                new(act.Studio.Owner, contract.Hash, "", ""),
                ConsentBeforehand
            );
    }

    private static Task<bool> HasSignedAsync(Act act, VersionRow contract, Signer signer) =>
        act.Db.Signatures.AnyAsync(s => s.VersionId == contract.Id && s.Signer == signer);

    private static async Task KeepAsync(
        Act act,
        ProjectFile file,
        VersionRow contract,
        Signer signer,
        SignatureInput input,
        string consent
    )
    {
        act.Db.Signatures.Add(
            new()
            {
                VersionId = contract.Id,
                Signer = signer,
                Name = input.Name,
                Consent = consent,
                At = act.Now,
                Address = input.Address,
                Agent = input.Agent[..Math.Min(300, input.Agent.Length)],
                Hash = contract.Hash,
            }
        );
        await act.RecordAsync(
            file,
            signer == Signer.Client ? Actor.Client : Actor.Owner,
            new Happening.ContractSigned(contract.Id, signer)
        );
    }
}
