using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Letters;
using Gesamt.Core.Proposals;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Proposals;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Contracts;

/// <summary>Who signs, from where, and under which name.</summary>
public sealed record SignatureInput(string Name, string Hash, string Address, string Agent);

/// <summary>From a choice to a contract signed by both.</summary>
public static class Contracting
{
    public const string Consent = "I have read this contract and agree to it. I sign it by typing my name.";

    /// <summary>Accepts an open proposal with a choice and fills the contract with exactly that choice.</summary>
    /// <exception cref="OfferException">The choice does not hold together.</exception>
    /// <exception cref="RefusedException">The proposal is not open any more.</exception>
    public static async Task AcceptAsync(Desk desk, ProjectId project, IReadOnlySet<string> chosen)
    {
        await using var transaction = await desk.BeginAsync();
        var file = await desk.OpenAsync(project);
        var row = await OpenVersionAsync(desk, file);
        var snapshot = Versions.Read<ProposalSnapshot>(row);
        if (snapshot.Offer.ValidUntil < desk.Today) throw new RefusedException($"The proposal was valid until {DateWords.Long(snapshot.Offer.ValidUntil)}. Ask for a new one below.");
        var priced = Pricing.Of(snapshot.Offer, chosen, file.Case.MainDate?.Date, desk.Today, desk.Calendar);
        var contract = await Versions.AddAsync(desk, project, PaperSort.Contract, await FillAsync(desk, file, row, snapshot, priced, chosen), row.Id);
        await desk.RecordAsync(file, Actor.Client,
            new Happening.ProposalAccepted(row.Id, priced.Totals.Payable, priced.DueOnBooking(snapshot.Offer), priced.Totals.Net, priced.Parts(snapshot.Offer)), new Happening.ContractSent(contract.Id));
        await desk.CommitAsync(transaction);
    }

    /// <summary>The client's signature; the invoice of the booking payment is issued with it.</summary>
    /// <exception cref="InvalidException">No name, or the page showed another version than the one to sign.</exception>
    public static async Task SignAsync(Desk desk, ProjectId project, SignatureInput input)
    {
        await using var transaction = await desk.BeginAsync();
        var file = await desk.OpenAsync(project);
        var contract = await StandingAsync(desk, file) ?? throw new RefusedException("There is no contract to sign at the moment. Load the page again to see what is.");
        await AddSignatureAsync(desk, file, contract, Signer.Client, Actor.Client, input);
        await Issuing.IssueBookingAsync(desk, file);
        await desk.CommitAsync(transaction);
    }

    /// <summary>The owner's own signature.</summary>
    /// <exception cref="RefusedException">The client has not signed yet.</exception>
    public static async Task CountersignAsync(Desk desk, ProjectId project, string name, string address, string agent)
    {
        await using var transaction = await desk.BeginAsync();
        var file = await desk.OpenAsync(project);
        var contract = await StandingAsync(desk, file);
        if (contract is null || !file.History.Any<Happening.ContractSigned>(s => s.Contract == contract.Id && s.Signer == Signer.Client))
            throw new RefusedException("The client has not signed yet; your signature comes after theirs.");
        await AddSignatureAsync(desk, file, contract, Signer.Owner, Actor.Owner, new(name, contract.Hash, address, agent));
        await desk.CommitAsync(transaction);
    }

    /// <summary>The contract that can be signed: the latest, unless it was voided or the project has ended.</summary>
    public static async Task<VersionRow?> StandingAsync(Desk desk, ProjectFile file) =>
        file.Case.End is null && await LatestAsync(desk, file.Id) is { } latest && !IsVoided(file, latest) ? latest : null;

    public static bool IsVoided(ProjectFile file, VersionRow contract) => file.History.Any<Happening.ContractVoided>(voided => voided.Contract == contract.Id);

    public static Task<VersionRow?> LatestAsync(Desk desk, ProjectId project) =>
        desk.Db.Versions.Where(v => v.ProjectId == project && v.Sort == PaperSort.Contract).OrderByDescending(v => v.Number).FirstOrDefaultAsync();

    /// <summary>The contract as a paper, with the signatures it has.</summary>
    public static async Task<byte[]> PdfAsync(Desk desk, VersionRow contract)
    {
        var snapshot = Versions.Read<ContractSnapshot>(contract);
        var choice = await ChoiceAsync(desk, contract);
        var signatures = await desk.Db.Signatures.AsNoTracking().Where(s => s.VersionId == contract.Id).OrderBy(s => s.Id).ToListAsync();
        var paper = new ContractPaper(Issuing.Letterhead(desk), snapshot.Title, snapshot.Project, snapshot.Parties, snapshot.Text,
            choice is null ? [] : Issuing.Lines(choice.Offer, choice.Priced.Lines), choice is null ? null : Issuing.Sums(choice.Priced.Totals),
            choice is null ? [] : [.. choice.Priced.Instalments.Select(i => (i.Words, i.Part.Payable))], contract.Hash,
            [.. signatures.Select(s => new SignaturePaper(s.Name, s.Signer == Signer.Client ? "client" : "studio", s.Consent, At(desk, s.At), s.Address, s.Hash))]);
        return Papers.Draw(paper, contract.At);
    }

    /// <summary>The choice a contract was filled from, priced as of the day it was made; none for one signed on paper before any price was agreed.</summary>
    public static async Task<Agreement?> ChoiceAsync(Desk desk, VersionRow contract)
    {
        if (contract.FromProposal is not { } from) return null;
        var proposal = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == from);
        return Agreements.Of(desk, await desk.OpenAsync(contract.ProjectId), proposal, contract);
    }

    public static string At(Desk desk, NodaTime.Instant at) =>
        $"{DateWords.Long(desk.Calendar.DateOf(at))}, {DateWords.Time(desk.Calendar.LocalOf(at).TimeOfDay)} ({desk.Studio.Zone})";

    private static async Task<ContractSnapshot> FillAsync(Desk desk, ProjectFile file, VersionRow proposal, ProposalSnapshot snapshot, PricedChoice priced, IReadOnlySet<string> chosen)
    {
        var words = await Writing.WordsAsync(desk, file) with
        {
            Price = priced.Totals.Payable,
            Deposit = priced.DueOnBooking(snapshot.Offer),
            ValidUntil = snapshot.Offer.ValidUntil,
            Choice = string.Join('\n', priced.Lines.Select(line => $"{Wire.Words(line)}: {MoneyText.Of(line.Priced(snapshot.Offer.Currency).Net)} net")),
            Payments = string.Join('\n', priced.Instalments.Select(i => $"{i.Words}: {MoneyText.Of(i.Part.Payable)}")),
        };
        var filled = LetterText.Parse(snapshot.ContractText).Fill(Blanks.Of(words));
        if (filled.HasGaps) throw new RefusedException($"The contract still lacks: {string.Join(", ", filled.Gaps)}. {desk.Studio.Owner} has to fill it in first.");
        var client = file.Row.Client!;
        return new(snapshot.ContractTitle, filled.Text,
            [$"{desk.Studio.Name}, {desk.Studio.Address}", client.Organisation is { } firm ? $"{client.Name}, {firm}" : client.Name],
            file.Row.Title, [.. chosen.Order(StringComparer.Ordinal)], proposal.Hash);
    }

    private static async Task AddSignatureAsync(Desk desk, ProjectFile file, VersionRow contract, Signer signer, Actor by, SignatureInput input)
    {
        var name = input.Name.Trim();
        if (name.Length is < 2 or > 120) throw new InvalidException(("name", "Type your full name, 2 to 120 characters."));
        if (input.Hash != contract.Hash) throw new RefusedException("The contract was changed while this page was open. Load the page again and read it once more.");
        if (await desk.Db.Signatures.AnyAsync(s => s.VersionId == contract.Id && s.Signer == signer)) throw new RefusedException("This contract is signed already.");
        desk.Db.Signatures.Add(new() { VersionId = contract.Id, Signer = signer, Name = name, Consent = Consent, At = desk.Now, Address = input.Address, Agent = input.Agent[..Math.Min(300, input.Agent.Length)], Hash = contract.Hash });
        await desk.RecordAsync(file, by, new Happening.ContractSigned(contract.Id, signer));
    }

    /// <exception cref="RefusedException">No proposal is out.</exception>
    public static async Task<VersionRow> OpenVersionAsync(Desk desk, ProjectFile file) =>
        Drafts.Waiting(file) is { } version ? await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == version)
            : throw new RefusedException("No proposal is open at the moment. Load the page again to see what is.");
}
