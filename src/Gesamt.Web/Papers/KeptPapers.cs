using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>Contracts and invoices as files: each drawn once, kept under its SHA-256 and served from there, whatever changes later.</summary>
public static class KeptPapers
{
    private const long MostBytes = 64L * 1024 * 1024;

    /// <summary>The contract's file: kept once somebody has signed; before, it is drawn from its own copy, which does not change either.</summary>
    public static async Task<byte[]> ReadAsync(Desk desk, VersionRow contract) =>
        await OfAsync(desk, contract) is { } paper ? desk.Vault.Read(paper.Hash) : await DrawAsync(desk, contract, []);

    /// <summary>The contract with the signatures it has by now; null while nobody has signed.</summary>
    public static async Task<PaperRow?> OfAsync(Desk desk, VersionRow contract)
    {
        var signatures = await desk
            .Db.Signatures.AsNoTracking()
            .Where(s => s.VersionId == contract.Id)
            .OrderBy(s => s.Id)
            .ToListAsync();
        if (signatures.Count == 0 && !await IsSignedOnPaperAsync(desk, contract))
            return null;
        return await desk
                .Db.Papers.AsNoTracking()
                .SingleOrDefaultAsync(p => p.VersionId == contract.Id && p.Signatures == signatures.Count)
            ?? await KeepAsync(
                desk,
                await DrawAsync(desk, contract, signatures),
                new()
                {
                    ProjectId = contract.ProjectId,
                    VersionId = contract.Id,
                    Signatures = signatures.Count,
                    Hash = "",
                    At = desk.Now,
                    DrawnLater = Versions.Read<ContractSnapshot>(contract).Printed is null,
                    Sealed = signatures.Count > 0,
                }
            );
    }

    private static async Task<bool> IsSignedOnPaperAsync(Desk desk, VersionRow contract) =>
        (await desk.OpenAsync(contract.ProjectId)).History.Any<Happening.ContractSigned>(signed =>
            signed.Contract == contract.Id
        );

    /// <summary>The invoice or credit note.</summary>
    public static async Task<PaperRow> OfAsync(Desk desk, InvoiceRow invoice) =>
        await desk.Db.Papers.AsNoTracking().SingleOrDefaultAsync(p => p.InvoiceId == invoice.Id)
        ?? await KeepAsync(desk, invoice);

    private static async Task<PaperRow> KeepAsync(Desk desk, InvoiceRow invoice)
    {
        var (pdf, data) = InvoicePapers.Draw(desk, invoice);
        return await KeepAsync(
            desk,
            pdf,
            new()
            {
                ProjectId = invoice.ProjectId,
                InvoiceId = invoice.Id,
                Hash = "",
                Data = data is null ? null : await KeepAsync(desk, data),
                At = desk.Now,
                DrawnLater = StoreJson.Read<InvoiceSnapshot>(invoice.Snapshot).Head is null,
            }
        );
    }

    /// <summary>The invoice’s file.</summary>
    public static async Task<byte[]> ReadAsync(Desk desk, InvoiceRow invoice) =>
        desk.Vault.Read((await OfAsync(desk, invoice)).Hash);

    /// <summary>Keeps the bytes, then their row; another that was quicker wins, and its bytes count.</summary>
    private static async Task<PaperRow> KeepAsync(Desk desk, byte[] bytes, PaperRow row)
    {
        row.Hash = await KeepAsync(desk, bytes);
        await desk.Db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO Papers (ProjectId, VersionId, Signatures, InvoiceId, Hash, Data, At, DrawnLater, Sealed)
            VALUES ({row.ProjectId.Value}, {Id(row.VersionId)}, {row.Signatures}, {Id(
                row.InvoiceId
            )}, {row.Hash}, {row.Data}, {row.At.ToUnixTimeTicks()}, {row.DrawnLater}, {row.Sealed}) ON CONFLICT DO NOTHING
            """
        );
        return await desk
            .Db.Papers.AsNoTracking()
            .SingleAsync(p =>
                p.VersionId == row.VersionId && p.InvoiceId == row.InvoiceId && p.Signatures == row.Signatures
            );
    }

    private static async Task<string> KeepAsync(Desk desk, byte[] bytes)
    {
        using var content = new MemoryStream(bytes);
        var (hash, _) = await desk.Vault.KeepAsync(content, MostBytes, CancellationToken.None);
        return hash;
    }

    private static long? Id<T>(T? id)
        where T : struct, IId<T> => id?.Value;

    private static async Task<byte[]> DrawAsync(Desk desk, VersionRow contract, IReadOnlyList<SignatureRow> signatures)
    {
        var snapshot = Versions.Read<ContractSnapshot>(contract);
        var terms = await Agreements.TermsAsync(desk, contract);
        var paper = new ContractPaper(
            terms.Head,
            snapshot.Title,
            snapshot.Project,
            snapshot.Parties,
            snapshot.Blocks,
            terms.Lines,
            terms.Sums,
            terms.Payments,
            contract.Hash,
            [
                .. signatures.Select(s => new SignaturePaper(
                    s.Name,
                    s.Signer == Signer.Client ? "client" : "studio",
                    s.Consent,
                    desk.Precisely(s.At),
                    s.Address,
                    s.Hash,
                    s.Proof
                )),
            ],
            snapshot.SignedBy.File is { } file ? new(file.Name, file.Hash) : null
        );
        var drawn = Formats.Pdf.Papers.Draw(paper, contract.At, Logo(desk, terms.Head));
        if (snapshot.SignedBy.File is { } own)
            drawn = PdfJoin.Behind(
                desk.Vault.Read(own.Hash),
                drawn,
                $"{snapshot.Title}: {snapshot.Project}",
                contract.At
            );
        return signatures.Count == 0
            ? drawn
            : PdfSeal.Seal(
                drawn,
                desk.Seal.At(desk.Now, desk.Studio.Name),
                $"Signed by {string.Join(" and ", signatures.Select(s => s.Name))}",
                desk.Now
            );
    }

    private static byte[]? Logo(Desk desk, Letterhead head) =>
        head.Logo is { } hash && desk.Vault.Has(hash) ? desk.Vault.Read(hash) : null;
}
