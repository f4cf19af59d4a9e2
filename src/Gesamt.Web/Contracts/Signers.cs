using Gesamt.Core;
using Gesamt.Core.People;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Contracts;

/// <summary>Somebody who signs a contract for the client.</summary>
/// <param name="Signed">Whether they have.</param>
public sealed record SignerState(PersonId Person, string Name, bool Signed);

/// <summary>Several people who sign a contract for the client, one after the other.</summary>
public static class Signers
{
    private const string Subject = "Your signature for [project]",
        Body =
            """
                Hello [first name, or: there],

                “[project]” has a contract that needs your signature as well. Please read it and sign it here:
                [page link]

                [owner]
                """;

    private const string SignedSubject = "Signed: [project]",
        SignedBody =
            """
                Hello [first name, or: there],

                thank you. The amendment to “[project]” is signed and in force. You find it on your page, with everything that was signed before:
                [page link]

                [owner]
                """;

    /// <summary>In their order; none where whoever decides signs alone.</summary>
    public static async Task<IReadOnlyList<SignerState>> OfAsync(Desk desk, VersionRow contract)
    {
        var terms = Versions.Read<ContractSnapshot>(contract).SignedBy;
        if (terms.Signers.IsEmpty)
            return [];
        var signed = await desk
            .Db.Signatures.AsNoTracking()
            .Where(s => s.VersionId == contract.Id && s.PersonId != null)
            .Select(s => s.PersonId)
            .ToListAsync();
        return [.. terms.Signers.Select(one => new SignerState(one.Person, one.Name, signed.Contains(one.Person)))];
    }

    /// <summary>Who signs next; null where whoever decides signs alone, or all have.</summary>
    public static async Task<SignerState?> NextAsync(Desk desk, VersionRow contract) =>
        (await OfAsync(desk, contract)).FirstOrDefault(one => !one.Signed);

    /// <summary>Whether somebody is that signer, also after two entries of theirs were told to be one.</summary>
    public static async Task<bool> IsAsync(Desk desk, PersonId person, SignerState signer) =>
        person == signer.Person
        || await desk.Db.People.AnyAsync(p =>
            p.Id == signer.Person && p.MergedInto == person || p.Id == person && p.MergedInto == signer.Person
        );

    /// <summary>Writes to whoever signs next, unless they have the contract before them already.</summary>
    /// <param name="there">Who has.</param>
    public static async Task AskNextAsync(Act act, ProjectFile file, VersionRow contract, PersonId? there)
    {
        if (
            await NextAsync(act.Desk, contract) is not { } next
            || there is { } here && await IsAsync(act.Desk, here, next)
        )
            return;
        var words = await Writing.WordsAsync(act.Desk, file) with { Greeted = null, Name = next.Name };
        await WriteAsync(act, file, next.Person, Writing.Fill(Subject, Body, words));
    }

    /// <summary>Tells everybody who signed an amendment that it is in force; a contract's own letters come from its routine.</summary>
    public static async Task ConfirmAsync(Act act, ProjectFile file, ContractSnapshot snapshot)
    {
        var record = await Writing.WordsAsync(act.Desk, file);
        var contact = file.MailContact;
        var signers = snapshot.SignedBy.Signers.IsEmpty ? [new(contact.Id, contact.Name)] : snapshot.SignedBy.Signers;
        foreach (var one in signers)
            await WriteAsync(
                act,
                file,
                one.Person,
                Writing.Fill(
                    SignedSubject,
                    SignedBody,
                    one.Person == file.Row.ClientId ? record : record with { Greeted = null, Name = one.Name }
                )
            );
    }

    /// <summary>Claims the letter that carries a contract, to whoever signs it first.</summary>
    public static async Task<LetterRow> ClaimAsync(Act act, ProjectFile file, SigningTerms terms, Written written)
    {
        if (terms.Signers is not [var first, ..] || first.Person == file.MailContact.Id)
            return await LettersOut.ClaimAsync(act, file, written);
        var person = await act.Db.People.AsNoTracking().SingleAsync(p => p.Id == first.Person);
        if (!MailAddress.IsValid(person.Mail))
            throw new RefusedException($"{person.Name} signs first, and has no mail address yet. Add one first.");
        var letter = await LettersOut.ClaimAsync(
            act,
            file,
            written,
            with: words => words with { Greeted = null, Name = person.Name }
        );
        (letter.ToName, letter.ToMail, letter.ToPerson) = (person.Name, person.Mail!, person.Id);
        return letter;
    }

    /// <summary>Sends a letter at once to somebody who signs. One without a mail address that could be written to gets none: they are told in another way.</summary>
    public static async Task WriteAsync(Act act, ProjectFile file, PersonId to, FilledLetter filled)
    {
        var person = await act.Db.People.AsNoTracking().SingleAsync(p => p.Id == to);
        if (person is not { Mail: { } mail } || !MailAddress.IsValid(mail))
            return;
        var letter = new LetterRow
        {
            ProjectId = file.Id,
            State = LetterState.Draft,
            ByItself = true,
            FromName = act.Studio.Owner,
            FromMail = act.Studio.Mail,
            ToName = person.Name,
            ToMail = mail,
            ToPerson = person.Id,
            Subject = filled.Subject,
            Body = filled.Body,
            At = act.Now,
        };
        act.Db.Letters.Add(letter);
        await act.Db.SaveChangesAsync();
        Sending.Claim(act, letter, Sending.KeyOf(letter), act.Now);
    }
}
