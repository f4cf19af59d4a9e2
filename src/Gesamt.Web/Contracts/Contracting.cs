using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Core.Texts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Contracts;

/// <summary>A contract as the owner wrote it.</summary>
public sealed record WrittenContract(string Title, string Text, SigningTerms Signing);

/// <summary>From a choice to a contract signed by both.</summary>
public static class Contracting
{
    /// <summary>Accepts an open proposal with a choice and fills the contract with exactly that choice.</summary>
    /// <exception cref="OfferException">The choice does not hold together.</exception>
    /// <exception cref="RefusedException">The proposal is not open any more.</exception>
    /// <param name="by">Whose page it is; null where it is nobody's.</param>
    public static async Task AcceptAsync(Desk desk, ProjectId project, Choice choice, PersonId? by = null)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var again = await ChoosableAsync(desk, file);
            var row = again ?? await OpenVersionAsync(desk, file);
            // pressed twice, or in two windows: the choice stands already
            if (
                again is not null
                && await ShownAsync(desk, file) is { } standing
                && choice.Equals(Versions.Read<ContractSnapshot>(standing).Choice)
            )
                return;
            var snapshot = Versions.Read<ProposalSnapshot>(row);
            if (!snapshot.Offer.IsValidOn(desk.Today))
                throw new RefusedException(
                    $"The proposal was valid until {DateWords.Long(snapshot.Offer.ValidUntil)}. Ask for a new one below."
                );
            var priced = Pricing.Of(snapshot.Offer, choice, PlanDates.Of(file.Case, desk.Today));
            var contract = await Versions.AddAsync(
                desk,
                project,
                PaperSort.Contract,
                await FillAsync(desk, file, row, snapshot, priced, choice),
                row.Id
            );
            // whoever goes back and chooses otherwise signs the contract of that choice, and no other
            Happening[] instead = ContractState.Open(file.History) is { } unsigned
                ? [new Happening.ContractVoided(unsigned.What.Contract)]
                : [];
            await act.RecordAsync(
                file,
                Actor.Client,
                [
                    .. instead,
                    new Happening.ProposalAccepted(
                        row.Id,
                        priced.Totals.Payable,
                        priced.DueOnBooking,
                        priced.Totals.Net,
                        priced.Parts
                    ),
                    new Happening.ContractSent(contract.Id),
                ]
            );
            await Signing.GiveBeforehandAsync(act, file, contract);
            await Signers.AskNextAsync(act, file, contract, by);
        });
    }

    /// <summary>The proposal whose choice can still be changed: chosen by the client, and its contract neither signed by them nor overtaken by an invoice.</summary>
    public static async Task<VersionRow?> ChoosableAsync(Desk desk, ProjectFile file)
    {
        if (
            file.Case.End is not null
            || file.History.Last<Happening.ProposalAccepted>() is not { What.Version: var version }
            || AgreedPrice.Of(file.History)?.Version != version
            // an amendment changes what was signed: nothing is chosen again
            || ContractState.Open(file.History) is not { What.Amends: null }
            || file.History.Any<Happening.InvoiceIssued>(issued => !issued.Extra)
        )
            return null;
        var row = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version);
        return Versions.OfferOf(row).IsValidOn(desk.Today) ? row : null;
    }

    /// <summary>A signature for the client; with the last of them the contract is signed, and the invoice of the booking payment is issued.</summary>
    /// <param name="person">Whose page it is.</param>
    /// <exception cref="InvalidException">No name, or not the code that was sent.</exception>
    /// <exception cref="RefusedException">There is nothing to sign, somebody else signs first, or the page showed another version.</exception>
    public static async Task SignAsync(
        Desk desk,
        SignCodes codes,
        ProjectId project,
        PersonId person,
        SignatureInput input,
        string code
    )
    {
        var before = await ToSignAsync(desk, await desk.OpenAsync(project), person);
        if (Versions.Read<ContractSnapshot>(before).SignedBy.AsksCode)
            input = input with { Proof = await CodeAsking.ProveAsync(desk, codes, before, person, code) };
        // what was read before the act is read anew in it
        desk.Db.ChangeTracker.Clear();
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var contract = await ToSignAsync(desk, file, person);
            var still = (await Signers.OfAsync(desk, contract)).Where(one => !one.Signed).ToList();
            await Signing.AddForClientAsync(
                act,
                file,
                contract,
                input with
                {
                    Person = still.FirstOrDefault()?.Person,
                },
                follows: still.Count > 1
            );
            await act.Db.SignCodes.Where(c => c.VersionId == contract.Id && c.PersonId == person).ExecuteDeleteAsync();
            await act.Db.SaveChangesAsync();
            if (still.Count > 1)
            {
                await Signers.AskNextAsync(act, file, contract, there: person);
                return;
            }
            await Signing.GiveBeforehandAsync(act, file, contract);
            await FollowAsync(act, file, contract);
        });
    }

    /// <summary>What follows from the client's signature: an amendment is in force, what it takes the place of is void, and what is due on booking is invoiced.</summary>
    private static async Task FollowAsync(Act act, ProjectFile file, VersionRow contract)
    {
        var snapshot = Versions.Read<ContractSnapshot>(contract);
        if (snapshot.Amends is { } terms)
        {
            await Amendments.TakeEffectAsync(act, file, contract, terms);
            await Signers.ConfirmAsync(act, file, snapshot);
        }
        if (
            snapshot.Replaces is { } old
            && ContractState.Papers(file.History).Any(paper => paper.Version == old && !paper.Gone)
        )
            await act.RecordAsync(file, Actor.Gesamt, new Happening.ContractVoided(old));
        await InstalmentInvoices.IssueBookingAsync(act, file);
    }

    /// <summary>What somebody is to sign now.</summary>
    /// <exception cref="RefusedException">There is nothing to sign, or somebody else signs first.</exception>
    public static async Task<VersionRow> ToSignAsync(Desk desk, ProjectFile file, PersonId person)
    {
        var contract = await ReadAsync(desk, Open(file));
        var signers = await Signers.OfAsync(desk, contract);
        if (signers.FirstOrDefault(one => !one.Signed) is not { } next || await Signers.IsAsync(desk, person, next))
            return contract;
        foreach (var one in signers)
            if (await Signers.IsAsync(desk, person, one))
                throw new RefusedException(
                    one.Signed
                        ? "This contract is signed already."
                        : $"{next.Name} signs first. A letter tells you when it is with you."
                );
        throw new RefusedException($"{next.Name} signs this contract.");
    }

    private static VersionId Open(ProjectFile file) =>
        file.Case.End is null && ContractState.Open(file.History) is { } open
            ? open.What.Contract
            : throw new RefusedException(
                file.History.Last<Happening.ContractSigned>(signed => signed.Signer == Signer.Client) is not null
                    ? "This contract is signed already."
                    : "There is no contract to sign at the moment. Load the page again to see what is."
            );

    /// <summary>A question, a wish or an objection, instead of a signature.</summary>
    /// <exception cref="RefusedException">There is nothing to sign.</exception>
    public static Happening Ask(ProjectFile file, NoteId words, AskSort sort) =>
        new Happening.ContractAsked(Open(file), words, sort);

    /// <summary>The client does not sign, and says why.</summary>
    /// <inheritdoc cref="Ask" path="/exception"/>
    public static Happening Decline(ProjectFile file, NoteId words) =>
        new Happening.ContractDeclined(Open(file), words);

    /// <summary>The owner's own signature.</summary>
    /// <exception cref="RefusedException">The client has not signed yet, the owner has, or the project has ended.</exception>
    public static async Task CountersignAsync(Desk desk, ProjectId project, string name, string address, string agent)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (file.Case.End is not null)
                throw new RefusedException("The project has ended. Take it up again first.");
            if (ContractState.Countersign(file.History) is not { } signed)
                throw new RefusedException(
                    ContractState.Papers(file.History).Any(paper => paper is { Gone: false, Client: not null })
                        ? "You have signed it already. Nothing waits for your signature."
                        : "The client has not signed yet; your signature comes after theirs."
                );
            var contract = await ReadAsync(desk, signed.What.Contract);
            await Signing.AddForOwnerAsync(act, file, contract, new(name, contract.Hash, address, agent));
        });
    }

    /// <summary>Voids a contract, or an amendment that is not in force yet. What it was stays to be read.</summary>
    /// <param name="words">Why; may be empty.</param>
    /// <exception cref="RefusedException">It is void already, or an amendment in force.</exception>
    public static async Task VoidAsync(Desk desk, ProjectId project, VersionId version, string words)
    {
        if (words.Trim().Length > 1_000)
            throw new InvalidException(("words", "Write at most 1 000 characters."));
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var paper =
                ContractState.Papers(file.History).FirstOrDefault(one => one.Version == version)
                ?? throw new MissingException("contract");
            if (paper.Gone)
                throw new RefusedException("It is void already.");
            if (paper is { Amends: not null, Client: not null })
                throw new RefusedException("This amendment is in force. What it changed is changed by another one.");
            NoteId? why = words.Trim() is { Length: > 0 } text
                ? await Notes.AddAsync(desk, project, NoteSort.Words, text)
                : null;
            await act.RecordAsync(file, Actor.Owner, new Happening.ContractVoided(version, why));
        });
    }

    public static bool IsVoided(ProjectFile file, VersionRow contract) =>
        file.History.Any<Happening.ContractVoided>(voided => voided.Contract == contract.Id);

    /// <summary>What the client's page shows: the latest that can be signed or is; a signed one stays readable, one that was voided or declined before is none.</summary>
    public static async Task<VersionRow?> ShownAsync(Desk desk, ProjectFile file) =>
        ContractState.Papers(file.History).LastOrDefault(paper => !paper.Gone || paper.Client is not null) is { } shown
            ? await ReadAsync(desk, shown.Version)
            : null;

    private static Task<VersionRow> ReadAsync(Desk desk, VersionId version) =>
        desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version);

    /// <summary>Puts a contract to the client for a price that is agreed, with the letter that carries it: sent when the letter is handed over. One that stands already stays in force until this one is signed.</summary>
    /// <exception cref="RefusedException">No price is agreed, or no contract is asked for.</exception>
    public static async Task<LetterRow> SendAsync(Desk desk, ProjectId project, WrittenContract written, Written letter)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (!ContractRule.MaySend(file.Case))
                throw new RefusedException(
                    "A contract is sent for an agreed price. Load the page again to see what is."
                );
            var agreed = await Agreements.OfAsync(desk, file) ?? throw new RefusedException("No price is agreed yet.");
            var proposal = Versions.Read<ProposalSnapshot>(agreed.Proposal) with
            {
                ContractTitle = written.Title,
                ContractText = written.Text,
                Signing = written.Signing,
            };
            var snapshot = await FillAsync(
                desk,
                file,
                agreed.Proposal,
                proposal,
                await WholeAsync(desk, file, agreed),
                agreed.Choice
            ) with
            {
                Replaces = ContractState.Standing(file.History),
            };
            var contract = await Versions.AddAsync(desk, project, PaperSort.Contract, snapshot, agreed.Proposal.Id);
            return await Signers.ClaimAsync(act, file, written.Signing, letter with { Sends = contract.Id });
        });
    }

    /// <summary>An agreement with all its payments: after an amendment, those that were invoiced before it as well.</summary>
    private static async Task<PricedChoice> WholeAsync(Desk desk, ProjectFile file, Agreement agreed)
    {
        if (agreed.Places is not { } places)
            return agreed.Priced;
        var parts = AgreedPrice.Of(file.History)!.Parts;
        var before = (await Amendments.BilledAsync(desk, file))
            .Where(part => !places.Contains(part.Place) && part.Left.Payable.Minor > 0)
            .ToList();
        var ids = before.Select(part => part.Invoice).ToList();
        var numbers = await desk.Db.Invoices.Where(i => ids.Contains(i.Id)).ToDictionaryAsync(i => i.Id, i => i.Number);
        return agreed.Priced with
        {
            Instalments =
            [
                .. before.Select(part => new PlannedInstalment(
                    $"invoice {numbers[part.Invoice]}, issued already",
                    new(part.Left),
                    parts[part.Place].Due,
                    null,
                    null
                )),
                .. agreed.Priced.Instalments,
            ],
        };
    }

    private static async Task<ContractSnapshot> FillAsync(
        Desk desk,
        ProjectFile file,
        VersionRow proposal,
        ProposalSnapshot snapshot,
        PricedChoice priced,
        Choice choice
    )
    {
        var filled = snapshot.Signing is { File: not null }
            ? new("", [])
            : await ContractText.FillAsync(desk, file, snapshot.ContractText, snapshot.Offer, priced);
        if (filled.HasGaps)
            throw new RefusedException(
                $"The contract still lacks: {string.Join(", ", filled.Gaps)}. {desk.Studio.Owner} has to fill it in first."
            );
        return new(
            snapshot.ContractTitle,
            filled.Text,
            Parties(desk, file),
            file.Row.Title,
            [.. choice.Keys.Order(StringComparer.Ordinal)],
            proposal.Hash,
            Print.Terms(desk, snapshot.Offer, priced),
            choice.Quantities,
            Markdown: true,
            snapshot.Signing
        );
    }

    /// <summary>Between whom it is.</summary>
    public static ImmutableArray<string> Parties(Desk desk, ProjectFile file) =>
        [
            string.Join(
                ", ",
                new[] { desk.Studio.Name, Typed.OneLine(desk.Studio.Address) }.Where(part => part.Length > 0)
            ),
            string.Join(", ", Print.Addressee(file.Row.Client!)),
        ];

    /// <exception cref="RefusedException">No proposal is out.</exception>
    public static async Task<VersionRow> OpenVersionAsync(Desk desk, ProjectFile file) =>
        ProposalState.Open(file.History)?.What.Version is { } version
            ? await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version)
            : throw new RefusedException(
                AgreedPrice.Of(file.History) is { } price
                    ? $"The price is agreed already, {MoneyText.Of(price.Agreed)}, and stays in force. Write to {desk.Studio.Mail} about a change."
                    : "No proposal is open at the moment. Load the page again to see what is."
            );
}
