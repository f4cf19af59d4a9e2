using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Contracts;

/// <summary>A contract before it goes, for a price that is agreed.</summary>
/// <param name="Who">Who can sign for the client.</param>
/// <param name="InPlaceOf">What it takes the place of; null where none stands.</param>
public sealed record ContractDeskDto(
    string Title,
    string Text,
    SigningDto Signing,
    IReadOnlyList<SignerDto> Who,
    string? InPlaceOf
);

/// <summary>A contract that is put to the client, with its letter.</summary>
public sealed record SendContractDto(string Title, string Text, SigningDto Signing, string Subject, string Body);

/// <summary>What a contract begins with, and what the owner wrote of it.</summary>
public static class ContractWriting
{
    private const int MostText = 50_000;

    /// <summary>How contracts of a kind are signed until the owner says otherwise.</summary>
    public static SigningTerms UsualSigning(ContractTemplateRow? template) =>
        template is null
            ? SigningTerms.Plain
            : new([], template.AsksCode, template.File is { } file ? new(file, template.FileName) : null);

    /// <summary>The text that went with the agreed proposal, else that of the kind.</summary>
    /// <exception cref="RefusedException">No price is agreed.</exception>
    public static async Task<ContractDeskDto> OfAsync(Desk desk, ProjectFile file)
    {
        var agreed = await Agreements.OfAsync(desk, file) ?? throw new RefusedException("No price is agreed yet.");
        var proposal = Versions.Read<ProposalSnapshot>(agreed.Proposal);
        var template = await TemplateAsync(desk, file);
        // an amendment's text is no contract
        var own = proposal.ContractText.Length > 0 && agreed.Places is null;
        return new(
            own ? proposal.ContractTitle : template?.Title ?? "Contract",
            own ? proposal.ContractText : template?.Body ?? "",
            SigningReading.Of(own && proposal.Signing is { } signing ? signing : UsualSigning(template)),
            await SigningReading.WhoCanAsync(desk, file),
            await InPlaceOfAsync(desk, file)
        );
    }

    /// <exception cref="InvalidException">A field is empty or too long, or its signing does not hold together.</exception>
    public static async Task<LetterRow> SendAsync(Desk desk, ProjectFile file, SendContractDto send)
    {
        var signing = await SigningReading.ReadAsync(desk, file, send.Signing, SigningTerms.Plain);
        await SigningReading.DemandAsync(desk, file, signing);
        if (send.Title.Trim() is not { Length: > 0 and <= 120 } title)
            throw new InvalidException(("title", "A title of 1 to 120 characters is needed."));
        if (signing.File is null && send.Text.Trim().Length is 0 or > MostText)
            throw new InvalidException(
                ("text", $"Write 1 to {MostText} characters, or choose a file of your own as the contract.")
            );
        ContractText.Check(send.Text);
        // what was read before the act is read anew in it
        desk.Db.ChangeTracker.Clear();
        return await Contracting.SendAsync(
            desk,
            file.Id,
            new(title, send.Text.Trim(), signing),
            new Written(send.Subject, send.Body)
        );
    }

    public static Task<ContractTemplateRow?> TemplateAsync(Desk desk, ProjectFile file) =>
        desk.Db.ContractTemplates.AsNoTracking().FirstOrDefaultAsync(c => c.KindId == file.Row.KindId);

    private static async Task<string?> InPlaceOfAsync(Desk desk, ProjectFile file)
    {
        if (ContractState.Standing(file.History) is not { } standing)
            return null;
        var row = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == standing);
        var signed = file.History.Any<Happening.ContractSigned>(one =>
            one.Contract == standing && one.Signer == Signer.Client
        );
        var title = Versions.Read<ContractSnapshot>(row).Title;
        return signed
            ? $"“{title}”, which is signed and stays in force until this one is"
            : $"“{title}”, which is not signed yet and ends with this one";
    }
}
