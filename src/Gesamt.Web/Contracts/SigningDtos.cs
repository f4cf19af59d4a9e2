using Gesamt.Core.People;
using Gesamt.Core.Proposals;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Json;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Contracts;

/// <summary>How a contract is signed.</summary>
/// <param name="Signers">Who signs for the client, in that order; none for whoever decides.</param>
/// <param name="AsksCode">Whether each types a code that was sent to their mail address.</param>
/// <param name="File">The owner’s own file in place of a text: a PDF.</param>
public sealed record SigningDto(IReadOnlyList<SignerDto> Signers, bool AsksCode, ContractFileDto? File = null);

/// <summary>Somebody who can sign for the client.</summary>
/// <param name="Mail">Where a letter reaches them; empty for none.</param>
public sealed record SignerDto(long Person, string Name, string Mail = "");

/// <param name="Hash">SHA-256 of its bytes.</param>
public sealed record ContractFileDto(string Hash, string Name);

/// <summary>Reads and writes how a contract is signed.</summary>
public static class SigningReading
{
    private const int MostSigners = 6;

    public static SigningTerms Stored(string? json) =>
        json is null ? SigningTerms.Plain : StoreJson.Read<SigningTerms>(json);

    public static SigningDto Of(SigningTerms terms) =>
        new(
            [.. terms.Signers.Select(one => new SignerDto(one.Person.Value, one.Name))],
            terms.AsksCode,
            terms.File is { } file ? new(file.Hash, file.Name) : null
        );

    /// <summary>Who can sign for the client of a project: those who may answer on its page.</summary>
    public static async Task<IReadOnlyList<SignerDto>> WhoCanAsync(Desk desk, ProjectFile file)
    {
        var parts = await desk
            .Db.ProjectPeople.AsNoTracking()
            .Where(p => p.ProjectId == file.Id)
            .OrderBy(p => p.Id)
            .Include(p => p.Person)
            .ToListAsync();
        return
        [
            .. parts
                .GroupBy(part => part.PersonId)
                .Where(one => PartRule.May(false, [.. one.Select(part => part.Part)], PageAct.Answer))
                .Select(one => one.First().Person!)
                .Prepend(file.Row.Client!)
                .DistinctBy(person => person.Id)
                .Select(person => new SignerDto(
                    person.Id.Value,
                    person.Name,
                    MailAddress.IsValid(person.Mail) ? person.Mail! : ""
                )),
        ];
    }

    /// <summary>How it is to be signed, with the names as they are now.</summary>
    /// <param name="before">As it was: a file that was looked at is not looked at again.</param>
    /// <exception cref="InvalidException">Somebody has no part in the project that lets them sign, or stands there twice; or the file is no kept PDF.</exception>
    public static async Task<SigningTerms> ReadAsync(Desk desk, ProjectFile file, SigningDto wire, SigningTerms before)
    {
        var can = await WhoCanAsync(desk, file);
        if (wire.Signers.Count > MostSigners)
            throw new InvalidException(("signers", $"At most {MostSigners} people sign for the client."));
        if (wire.Signers.DistinctBy(one => one.Person).Count() < wire.Signers.Count)
            throw new InvalidException(("signers", "Each person signs once."));
        return new(
            [
                .. wire.Signers.Select(one =>
                    can.FirstOrDefault(person => person.Person == one.Person) is { } known
                        ? new SignerTerms(new(known.Person), known.Name)
                        : throw new InvalidException(
                            ("signers", $"{one.Name} cannot sign: give them a part that decides in this project first.")
                        )
                ),
            ],
            wire.AsksCode,
            wire.File?.Hash == before.File?.Hash ? before.File : await FileAsync(desk, wire.File)
        );
    }

    /// <summary>What keeps a contract from being signed so; nothing when it can be.</summary>
    public static async Task<IReadOnlyList<string>> FaultsAsync(Desk desk, ProjectFile file, SigningTerms terms)
    {
        if (terms is { Signers.Length: <= 1, AsksCode: false })
            return [];
        var can = await WhoCanAsync(desk, file);
        return
        [
            .. terms
                .Signers.Select(one => one.Person.Value)
                .DefaultIfEmpty(file.Row.ClientId.Value)
                .Select(person => can.FirstOrDefault(one => one.Person == person))
                .Where(one => one is { Mail.Length: 0 })
                .Select(one =>
                    $"{one!.Name} has no mail address{(terms.AsksCode ? " that a code could go to" : " that a letter reaches")}"
                ),
        ];
    }

    /// <exception cref="InvalidException">Somebody cannot be written to.</exception>
    public static async Task DemandAsync(Desk desk, ProjectFile file, SigningTerms terms)
    {
        if ((await FaultsAsync(desk, file, terms)).FirstOrDefault() is { } fault)
            throw new InvalidException(("signers", $"{fault}."));
    }

    /// <summary>A file that was kept for papers, which can be read and signed.</summary>
    /// <exception cref="InvalidException">There is none, or it is no PDF that can be.</exception>
    public static async Task<OfferFile?> FileAsync(Desk desk, ContractFileDto? wire)
    {
        if (wire is null)
            return null;
        var kept =
            await desk.Db.PaperFiles.AsNoTracking().SingleOrDefaultAsync(f => f.Hash == wire.Hash)
            ?? throw new InvalidException(("file", "The file is not here any more. Choose it again."));
        if (PdfJoin.WhyNot(desk.Vault.Read(kept.Hash)) is { } why)
            throw new InvalidException(("file", why));
        return new(kept.Hash, kept.Name);
    }
}
