using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.People;
using Gesamt.Store.Model;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Contracts;

/// <summary>Codes that are sent to a signer's mail address and typed with the signature.</summary>
public static class CodeAsking
{
    private static readonly Duration Good = Duration.FromMinutes(30),
        Between = Duration.FromMinutes(1);
    private const int MostTries = 5;

    /// <summary>Sends a code to whoever is to sign now.</summary>
    /// <exception cref="RefusedException">No code is asked for, it is not their turn, they have no mail address, or one went out a moment ago.</exception>
    public static Task SendAsync(Desk desk, ProjectId project, PersonId person) =>
        desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var contract = await Contracting.ToSignAsync(desk, file, person);
            if (!Versions.Read<ContractSnapshot>(contract).SignedBy.AsksCode)
                throw new RefusedException("This contract is signed without a code.");
            var mail = await desk
                .Db.People.AsNoTracking()
                .Where(p => p.Id == person)
                .Select(p => p.Mail)
                .SingleOrDefaultAsync();
            if (mail is null || !MailAddress.IsValid(mail))
                throw new RefusedException(
                    $"{desk.Studio.Name} has no mail address of yours to send a code to. Write to {desk.Studio.Mail}."
                );
            var row = await act.Db.SignCodes.SingleOrDefaultAsync(c =>
                c.VersionId == contract.Id && c.PersonId == person
            );
            if (row is not null && desk.Now < row.At + Between)
                throw new RefusedException("A code went out a moment ago. Wait a minute before you ask for another.");
            if (row is null)
                act.Db.SignCodes.Add(
                    row = new()
                    {
                        VersionId = contract.Id,
                        PersonId = person,
                        Seed = "",
                        SentTo = "",
                    }
                );
            (row.Seed, row.SentTo, row.At, row.Tries) = (Codes.New(), mail, desk.Now, 0);
            await act.Db.SaveChangesAsync();
            await Signers.WriteAsync(
                act,
                file,
                person,
                new(
                    $"Your code for signing, {file.Row.Title}",
                    $"""
                    {SignCodes.PlaceholderOf(row)}

                    Type it where you sign. It is good for {Good.TotalMinutes:0} minutes. If you have asked for no code, leave this letter; nothing happens.
                    """,
                    []
                )
            );
        });

    /// <summary>Looks at a code that was typed; a wrong one counts, whatever becomes of the signature.</summary>
    /// <returns>How it is known to be them, as the signature says it.</returns>
    /// <exception cref="InvalidException">It is not the one that was sent, or no longer good.</exception>
    public static async Task<string> ProveAsync(
        Desk desk,
        SignCodes codes,
        VersionRow contract,
        PersonId person,
        string typed
    )
    {
        var (proof, wrong) = await desk.ActAsync(async act =>
        {
            var row = await act.Db.SignCodes.SingleOrDefaultAsync(c =>
                c.VersionId == contract.Id && c.PersonId == person
            );
            if (row is null)
                return ("", "Ask for a code first: it goes to your mail address.");
            if (row.Tries >= MostTries || desk.Now > row.At + Good)
                return ("", "This code is not good any more. Ask for another.");
            if (!codes.Is(row, typed))
            {
                row.Tries++;
                return (
                    "",
                    row.Tries < MostTries
                        ? "That is not the code that was sent: six digits, from the newest letter."
                        : "That was not the code either. Ask for another."
                );
            }
            return (
                $"By a code of six digits that was sent to {row.SentTo}, {DateWords.Long(desk.Calendar.DateOf(row.At))}, {DateWords.Time(desk.Calendar.LocalOf(row.At).TimeOfDay)}.",
                ""
            );
        });
        return wrong.Length == 0 ? proof : throw new InvalidException(("code", wrong));
    }
}
