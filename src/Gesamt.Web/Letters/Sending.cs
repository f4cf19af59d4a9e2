using Gesamt.Core;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Letters;
using Gesamt.Core.Meetings;
using Gesamt.Core.Projects;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Core.Texts;
using Gesamt.Formats.Mail;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Letters;

/// <summary>The first of the three steps of sending: claim. The letter lies in the outbox under a key that exists once, before anything leaves the house.</summary>
public static class Sending
{
    /// <summary>A new letter to the client of a project.</summary>
    /// <exception cref="RefusedException">The client has no mail address.</exception>
    public static LetterRow NewLetter(Desk desk, ProjectFile file, string subject, string body, bool byItself)
    {
        var letter = new LetterRow
        {
            ProjectId = file.Id,
            State = LetterState.Draft,
            ByItself = byItself,
            FromName = desk.Studio.Owner,
            FromMail = desk.Studio.Mail,
            ToName = "",
            ToMail = "",
            Subject = subject,
            Body = body,
            At = desk.Now,
        };
        Address(letter, file);
        return letter;
    }

    /// <summary>Addresses a letter to whoever gets the letters of the project now.</summary>
    /// <exception cref="RefusedException">They have no mail address.</exception>
    public static void Address(LetterRow letter, ProjectFile file)
    {
        var contact = file.MailContact;
        (letter.ToName, letter.ToMail, letter.ToPerson) = (
            contact.Name,
            file.MailTo
                ?? throw new RefusedException(
                    contact.Mail is { } wrong
                        ? $"“{wrong}” is no address that a letter can be written to. Mend it with {contact.Name}, or reach them by phone."
                        : $"{contact.Name} has no mail address yet. Add one, or reach them by phone."
                ),
            contact.Id
        );
    }

    /// <summary>Claims a letter, to be handed over after <paramref name="notBefore"/>; its Message-ID is settled here, under which no carrier gets it twice.</summary>
    /// <param name="key">Exists once: what was claimed under it before is refused by the database.</param>
    public static void Claim(Act act, LetterRow letter, string key, Instant notBefore)
    {
        letter.MessageId ??= $"{Guid.NewGuid():n}@{act.Studio.MailDomain}";
        letter.State = LetterState.Ready;
        letter.At = act.Now;
        act.Db.Outbox.Add(
            new()
            {
                Key = key,
                LetterId = letter.Id,
                ProjectId = letter.ProjectId!.Value,
                MessageId = letter.MessageId,
                NotBefore = notBefore,
                State = OutboxState.Claimed,
            }
        );
        act.Touch(letter.ProjectId!.Value);
    }

    /// <summary>The message of a claimed letter. It is composed when it is handed over, from what stands in its row by then, and never inside an act.</summary>
    public static byte[] Compose(Desk desk, ProjectRow project, LetterRow letter) =>
        OutgoingMail.Compose(
            new(
                (letter.FromName, letter.FromMail),
                (letter.ToName, letter.ToMail),
                ReplyAddress(desk, project),
                letter.Subject,
                $"{letter.Body}\n\n-- \nAbout: {Typed.Unlinked(project.Title)}",
                letter.MessageId!,
                letter.InReplyTo,
                desk.Now,
                letter.ByItself,
                letter.Invitation,
                [
                    .. letter.Files.Select(file => new MailFile(
                        Formats.Files.FileTypes.HandedOut(file.Name, file.Type),
                        file.Type,
                        desk.Vault.Read(file.Hash)
                    )),
                ]
            )
        );

    public static string ReplyAddress(Desk desk, ProjectRow project) => $"{project.Code}@{desk.Studio.MailDomain}";

    public static string KeyOf(LetterRow letter) =>
        StepOf(letter) is { } step ? KeyOf(step) : $"letter:{letter.Id.Value}";

    public static string KeyOf(StepRef step) => $"step:{step.Run.Value}:{step.Step}:{step.Occurrence}";

    /// <summary>The step a letter came by; null for one written by hand.</summary>
    public static StepRef? StepOf(LetterRow letter) =>
        letter is { RunId: { } run, Step: { } step, Occurrence: { } occurrence } ? new(run, step, occurrence) : null;

    /// <summary>The facts of a letter that has left the house: sent, its step done, its proposal put to the client.</summary>
    public static async Task<Happening[]> SentAsync(Desk desk, LetterRow letter, ProjectFile file)
    {
        List<Happening> what = [new Happening.LetterSent(letter.Id, letter.ByItself)];
        if (StepOf(letter) is { } step)
        {
            what.Add(new Happening.StepDone(step, letter.Id));
            if (await WithLetterAsync(desk, file, step) is { } put)
                what.Add(put);
        }
        if (letter.SendsVersion is { } version && await PutAsync(desk, file, version) is { } sent)
        {
            // what was out holds until its successor has left the house
            if (sent is Happening.ProposalSent && ProposalState.Open(file.History) is { } before)
                what.Add(new Happening.ProposalWithdrawn(before.What.Version));
            what.Add(sent);
        }
        return [.. what];
    }

    /// <summary>What is put to the client with the letter of a step, once it has left the house.</summary>
    private static async Task<Happening?> WithLetterAsync(Desk desk, ProjectFile file, StepRef reference) =>
        file
            .Case.Runs.FirstOrDefault(run => run.Id == reference.Run)
            ?.Routine.Steps.FirstOrDefault(step => step.Key == reference.Step)
            ?.Action switch
        {
            StepAction.Form form
                when await desk.Db.Forms.Where(f => f.Slug == form.Slug).Select(f => (int?)f.Id).SingleOrDefaultAsync()
                    is { } id
                    && FormsAsked.Open(file.History).All(asked => asked.What.Form != id) => new Happening.FormAsked(id),
            StepAction.MeetingChoice choice
                when MeetingState.Offered(file.History) is null
                    && await desk
                        .Db.MeetingKinds.Where(k => k.Name == choice.Kind && !k.Removed)
                        .Select(k => (int?)k.Id)
                        .FirstOrDefaultAsync()
                        is { } kind => new Happening.MeetingOffered(kind),
            _ => null,
        };

    private static async Task<Happening?> PutAsync(Desk desk, ProjectFile file, VersionId version)
    {
        if (
            file.History.Any<Happening.ProposalSent>(sent => sent.Version == version)
            || file.History.Any<Happening.ContractSent>(sent => sent.Contract == version)
        )
            return null;
        var row = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version);
        return row.Sort == PaperSort.Contract
            ? new Happening.ContractSent(version, Versions.Read<ContractSnapshot>(row).Amends?.Version)
            : new Happening.ProposalSent(version, Versions.OfferOf(row).ValidUntil);
    }

    /// <summary>Why the paper a letter carries must not go out any more; null when nothing has come between.</summary>
    public static async Task<string?> OvertakenAsync(Desk desk, LetterRow letter, ProjectFile file)
    {
        if (letter.SendsVersion is not { } version)
            return null;
        var row = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version);
        if (file.Case.End is not null)
            return "The project ended before it went out.";
        if (row.Sort == PaperSort.Proposal)
            return AgreedPrice.Of(file.History) is null
                ? null
                : "A price was agreed before it went out, and stays in force.";
        var contract = Versions.Read<ContractSnapshot>(row);
        if (contract.Amends is { } amends)
            return ContractRule.CanAmend(file.Case) && AgreedPrice.Of(file.History)?.Version == amends.Version
                ? null
                : "What it changes was changed before it went out.";
        return ContractRule.MaySend(file.Case) && ContractState.Standing(file.History) == contract.Replaces
            ? null
            : "A contract was sent or signed before it went out.";
    }

    public static bool MentionsLink(string text) => text.Contains(Blanks.LinkPlaceholder, StringComparison.Ordinal);
}
