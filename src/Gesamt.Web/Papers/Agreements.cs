using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>What was agreed with a client: the offer, the choice out of it, and what it comes to.</summary>
/// <param name="Priced">Its instalments are those of the rest alone, for an amendment.</param>
/// <param name="Contract">What the client signed of it last, else what was put to them last; null for a price without a contract.</param>
/// <param name="Places">Of its instalments among the agreed parts, for an amendment; null where they are all of them.</param>
public sealed record Agreement(
    VersionRow Proposal,
    Offer Offer,
    Choice Choice,
    PricedChoice Priced,
    VersionRow? Contract,
    ImmutableArray<int>? Places = null
)
{
    /// <summary>The instalment at a place among the agreed parts; null where it was invoiced before an amendment.</summary>
    public PlannedInstalment? InstalmentAt(int place) =>
        (Places is { } places ? places.IndexOf(place) : place) is >= 0 and var at ? Priced.Instalments[at] : null;
}

/// <summary>A price and a signature, however they came: through the client page, by phone, on paper.</summary>
public static class Agreements
{
    /// <summary>The agreement in force; null while no price is agreed.</summary>
    public static async Task<Agreement?> OfAsync(Desk desk, ProjectFile file)
    {
        if (AgreedPrice.Of(file.History) is not { } price)
            return null;
        return await OfVersionAsync(desk, file, price.Version);
    }

    /// <summary>What was agreed with a version, whether it is in force or not any more.</summary>
    /// <remarks>Its terms are those of the contract that was filled when it was chosen, or of the amendment itself; another contract in the place of that one binds to the same.</remarks>
    public static async Task<Agreement> OfVersionAsync(Desk desk, ProjectFile file, VersionId version)
    {
        var contracts = await desk
            .Db.Versions.AsNoTracking()
            .Where(v => v.FromProposal == version)
            .OrderBy(v => v.Number)
            .ToListAsync();
        var proposal = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version);
        var chosen = FilledFromChoice(file.History, version);
        var signed = ContractState
            .Papers(file.History)
            .Where(paper => paper is { Gone: false, Client: not null })
            .Select(paper => paper.Version)
            .ToHashSet();
        return Of(
            desk,
            file,
            proposal,
            contracts.FirstOrDefault(c => c.Id == chosen) ?? contracts.FirstOrDefault()
        ) with
        {
            Contract = contracts.LastOrDefault(c => signed.Contains(c.Id)) ?? contracts.LastOrDefault(),
        };
    }

    /// <summary>The contract that the last choice out of a proposal was put in, in the same act.</summary>
    private static VersionId? FilledFromChoice(History history, VersionId version) =>
        history.Last<Happening.ProposalAccepted>(accepted => accepted.Version == version) is { } choice
            ? history
                .Of<Happening.ContractSent>()
                .Where(sent => History.IsAfter(sent.Fact, choice.Fact))
                .Select(sent => (VersionId?)sent.What.Contract)
                .FirstOrDefault()
            : null;

    /// <summary>What was chosen out of a proposal, priced as of the day the contract was made, or the price agreed.</summary>
    public static Agreement Of(Desk desk, ProjectFile file, VersionRow proposal, VersionRow? contract)
    {
        var offer = Versions.OfferOf(proposal);
        var on = desk.Calendar.DateOf(contract?.At ?? proposal.At);
        if (contract is not null && Versions.Read<ContractSnapshot>(contract).Amends is { } terms)
            return new(
                proposal,
                offer,
                Choice.Nothing,
                Amendment.Of(offer, terms.Billed, PlanDates.Of(file.Case, on)).Priced,
                contract,
                terms.Places
            );
        var choice = contract is null ? Choice.Nothing : Versions.Read<ContractSnapshot>(contract).Choice;
        return new(proposal, offer, choice, Pricing.Of(offer, choice, PlanDates.Of(file.Case, on)), contract);
    }

    /// <summary>A price agreed outside, by phone or by hand: kept as a version of its own with one line, so that everything that follows from a price follows from this one too.</summary>
    /// <param name="net">Without tax.</param>
    /// <param name="onBooking">The share due on booking.</param>
    public static async Task<Happening> PriceAsync(Desk desk, ProjectFile file, decimal net, Rate tax, Rate onBooking)
    {
        var offer = new Offer(
            file.Row.Title,
            "",
            "",
            desk.CurrencyOf(file),
            desk.Today,
            [new("agreed", LineRole.Included, null, file.Row.Title, "as agreed", 1, "", net, tax, false)],
            UsualOffer.Plan(
                desk.Studio.Habits() with
                {
                    OnBooking = onBooking,
                },
                file.Case.Kind,
                file.Case.MainDate is not null
            )
        );
        var dates = PlanDates.Of(file.Case, desk.Today);
        OfferCheck.Demand(offer, dates);
        var priced = Pricing.Of(offer, Choice.Nothing, dates);
        var version = await Versions.AddAsync(
            desk,
            file.Id,
            PaperSort.Proposal,
            new ProposalSnapshot(offer, "Contract", "", file.Row.Client!.Name)
        );
        return new Happening.PriceAgreed(
            version.Id,
            priced.Totals.Payable,
            priced.DueOnBooking,
            priced.Totals.Net,
            priced.Parts
        );
    }

    /// <summary>A contract signed on paper: a version that names the kept file by its SHA-256, signed by both.</summary>
    /// <exception cref="InvalidException">The project has no such file.</exception>
    public static async Task<Happening[]> PaperAsync(Desk desk, ProjectFile file, FileId? scan)
    {
        var kept =
            await desk
                .Db.Files.AsNoTracking()
                .SingleOrDefaultAsync(f => f.Id == scan && f.ProjectId == file.Id && !f.Removed)
            ?? throw new InvalidException(("file", "Keep the signed contract as a file first: a scan or a photo."));
        var price = AgreedPrice.Of(file.History);
        var agreed = await OfAsync(desk, file);
        var terms = agreed is null
            ? new(Print.Letterhead(desk), [], null, [], null)
            : Print.Terms(desk, agreed.Offer, agreed.Priced);
        var snapshot = new ContractSnapshot(
            "Contract signed on paper",
            $"Signed on paper by both. The signed paper is kept as “{kept.Name}”, SHA-256 {kept.Hash}.",
            [desk.Studio.Name, string.Join(", ", Print.Addressee(file.Row.Client!))],
            file.Row.Title,
            [.. (agreed?.Choice ?? Choice.Nothing).Keys.Order(StringComparer.Ordinal)],
            kept.Hash,
            terms,
            agreed?.Choice.Quantities
        );
        var version = await Versions.AddAsync(desk, file.Id, PaperSort.Contract, snapshot, price?.Version);
        return
        [
            new Happening.ContractSigned(version.Id, Signer.Client),
            new Happening.ContractSigned(version.Id, Signer.Owner),
        ];
    }

    /// <summary>What a contract binds to: its own copy; for one of an older Gesamt, the choice it was filled from, priced as of the day it was made.</summary>
    public static async Task<PrintedTerms> TermsAsync(Desk desk, VersionRow contract)
    {
        if (Versions.Read<ContractSnapshot>(contract).Printed is { } printed)
            return printed;
        if (contract.FromProposal is not { } from)
            return new(Print.Letterhead(desk), [], null, [], null);
        var proposal = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == from);
        var agreement = Of(desk, await desk.OpenAsync(contract.ProjectId), proposal, contract);
        return Print.Terms(desk, agreement.Offer, agreement.Priced);
    }
}
