using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>Who signs, from where, and under which name.</summary>
/// <param name="Proof">How it is known to be them, besides the link; empty for the link alone.</param>
/// <param name="Person">Who it is, where several sign for the client.</param>
public sealed record SignatureInput(
    string Name,
    string Hash,
    string Address,
    string Agent,
    string Proof = "",
    PersonId? Person = null
);

/// <summary>Puts signatures under contracts.</summary>
public static class Signing
{
    /// <summary>What whoever signs consents to.</summary>
    public static string ConsentTo(VersionRow contract) =>
        $"I have read this {(Versions.Read<ContractSnapshot>(contract).Amends is null ? "contract" : "amendment")} and agree to it. I sign it by typing my name.";

    /// <summary>What stands beside a signature that the owner gives once for every contract, and types under none.</summary>
    private const string ConsentBeforehand = "I give my signature with every contract that I send.";

    /// <summary>The client's signature.</summary>
    /// <param name="follows">Whether somebody else is still to sign for the client.</param>
    /// <inheritdoc cref="Check"/>
    public static async Task AddForClientAsync(
        Act act,
        ProjectFile file,
        VersionRow contract,
        SignatureInput input,
        bool follows
    )
    {
        var signed = Check(contract, input);
        if (
            await act.Db.Signatures.AnyAsync(s =>
                s.VersionId == contract.Id && s.Signer == Signer.Client && s.PersonId == input.Person
            )
        )
            throw new RefusedException("This contract is signed already.");
        Keep(act, contract, Signer.Client, signed, ConsentTo(contract));
        await act.RecordAsync(
            file,
            Actor.Client,
            follows && input.Person is { } person
                ? new Happening.ContractSignedInPart(contract.Id, person)
                : new Happening.ContractSigned(contract.Id, Signer.Client)
        );
    }

    /// <summary>The owner's signature.</summary>
    /// <inheritdoc cref="Check"/>
    public static async Task AddForOwnerAsync(Act act, ProjectFile file, VersionRow contract, SignatureInput input)
    {
        var signed = Check(contract, input);
        if (await OwnerHasSignedAsync(act, contract))
            throw new RefusedException("This contract is signed already.");
        await KeepForOwnerAsync(act, file, contract, signed, ConsentTo(contract));
    }

    /// <summary>The owner's signature, where the studio gives it with every contract and it is not there yet.</summary>
    public static async Task GiveBeforehandAsync(Act act, ProjectFile file, VersionRow contract)
    {
        if (act.Studio.SignsAtOnce && !await OwnerHasSignedAsync(act, contract))
            await KeepForOwnerAsync(
                act,
                file,
                contract,
                new(act.Studio.Owner, contract.Hash, "", ""),
                ConsentBeforehand
            );
    }

    /// <exception cref="InvalidException">No name.</exception>
    /// <exception cref="RefusedException">The page showed another version than the one to sign, or the side has signed already.</exception>
    private static SignatureInput Check(VersionRow contract, SignatureInput input)
    {
        var name = input.Name.Trim();
        if (name.Length is < 2 or > 120)
            throw new InvalidException(("name", "Type your full name, 2 to 120 characters."));
        return input.Hash == contract.Hash
            ? input with
            {
                Name = name,
            }
            : throw new RefusedException(
                "The contract was changed while this page was open. Load the page again and read it once more."
            );
    }

    private static Task<bool> OwnerHasSignedAsync(Act act, VersionRow contract) =>
        act.Db.Signatures.AnyAsync(s => s.VersionId == contract.Id && s.Signer == Signer.Owner);

    private static async Task KeepForOwnerAsync(
        Act act,
        ProjectFile file,
        VersionRow contract,
        SignatureInput input,
        string consent
    )
    {
        Keep(act, contract, Signer.Owner, input, consent);
        await act.RecordAsync(file, Actor.Owner, new Happening.ContractSigned(contract.Id, Signer.Owner));
    }

    private static void Keep(Act act, VersionRow contract, Signer signer, SignatureInput input, string consent) =>
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
                Proof = input.Proof,
                PersonId = input.Person,
            }
        );
}
