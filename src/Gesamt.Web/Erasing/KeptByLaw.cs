using Gesamt.Core;
using Gesamt.Core.Erasing;
using Gesamt.Core.Facts;
using Gesamt.Store.Erasing;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Erasing;

/// <summary>What of a project the law keeps, and until when.</summary>
/// <param name="Agreements">Versions that were accepted or signed.</param>
/// <param name="AgreedOn">The day of the last of them; null while there is none, or none any more.</param>
/// <param name="Invoices">Their numbers.</param>
/// <param name="BookedOn">The day of the last invoice, payment or receipt; null as with <paramref name="AgreedOn"/>.</param>
public sealed record KeptByLaw(
    IReadOnlySet<VersionId> Agreements,
    LocalDate? AgreedOn,
    IReadOnlyList<string> Invoices,
    LocalDate? BookedOn
)
{
    public static Keeping YearsOf(StudioRow studio) => new(studio.BookYears, studio.AgreementYears);

    public static async Task<KeptByLaw> OfAsync(Desk desk, ProjectFile file)
    {
        var id = file.Id;
        var erasure = await desk.Db.Erasures.AsNoTracking().SingleOrDefaultAsync(e => e.ProjectId == id);
        var versions = await desk
            .Db.Versions.AsNoTracking()
            .Where(v => v.ProjectId == id)
            .Select(v => new
            {
                v.Id,
                v.At,
                v.FromProposal,
                Signed = desk.Db.Signatures.Any(s => s.VersionId == v.Id),
            })
            .ToListAsync();
        var agreed = Agreed(file.History).Concat(versions.Where(v => v.Signed).Select(v => v.Id)).ToHashSet();
        agreed.UnionWith(versions.Where(v => agreed.Contains(v.Id)).Select(v => v.FromProposal).OfType<VersionId>());
        var invoices = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => i.ProjectId == id)
            .OrderBy(i => i.Id)
            .Select(i => new { i.Number, i.IssuedOn })
            .ToListAsync();
        var days = invoices
            .Select(i => i.IssuedOn)
            .Concat(await desk.Db.Costs.Where(c => c.ProjectId == id).Select(c => c.On).ToListAsync())
            .Concat(
                (await desk.Db.Payments.Where(p => p.ProjectId == id).Select(p => p.At).ToListAsync()).Select(
                    desk.Calendar.DateOf
                )
            )
            .ToList();
        return new(
            agreed,
            erasure?.AgreementsAt is null && agreed.Count > 0
                ? desk.Calendar.DateOf(versions.Where(v => agreed.Contains(v.Id)).Max(v => v.At))
                : null,
            invoices.ConvertAll(i => i.Number),
            erasure?.BooksAt is null && days.Count > 0 ? days.Max() : null
        );
    }

    private static IEnumerable<VersionId> Agreed(History history) =>
        history
            .Facts.Select(fact =>
                fact.What switch
                {
                    Happening.ProposalAccepted accepted => accepted.Version,
                    Happening.PriceAgreed agreed => agreed.Version,
                    Happening.PriceAmended amended => amended.Version,
                    Happening.ContractSigned signed => signed.Contract,
                    Happening.ContractSignedInPart signed => signed.Contract,
                    _ => (VersionId?)null,
                }
            )
            .OfType<VersionId>();

    /// <summary>Erases what is kept no longer of a project whose client was erased.</summary>
    public static async Task EraseOverAsync(Act act, ProjectId id)
    {
        var erasure = await act.Db.Erasures.SingleAsync(e => e.ProjectId == id);
        var kept = await OfAsync(act.Desk, await act.OpenAsync(id));
        var years = YearsOf(act.Studio);
        if (
            erasure.AgreementsAt is null
            && !(kept.AgreedOn is { } agreed && years.AgreementsUntil(agreed) >= act.Today)
        )
            await EraseAgreementsAsync(act, erasure, kept);
        if (erasure.BooksAt is null && !(kept.BookedOn is { } booked && years.BooksUntil(booked) >= act.Today))
            await EraseBooksAsync(act, erasure);
        await act.Db.SaveChangesAsync();
    }

    private static async Task EraseAgreementsAsync(Act act, ErasureRow erasure, KeptByLaw kept)
    {
        var id = erasure.ProjectId;
        foreach (
            var version in await act
                .Db.Versions.Where(v => v.ProjectId == id && kept.Agreements.Contains(v.Id))
                .ToListAsync()
        )
        {
            BlankSnapshots.Blank(version);
            foreach (var signature in await act.Db.Signatures.Where(s => s.VersionId == version.Id).ToListAsync())
                signature.Hash = version.Hash;
        }
        await act.Db.SaveChangesAsync();
        await act.Db.Papers.Where(p => p.ProjectId == id && p.VersionId != null).ExecuteDeleteAsync();
        await Blanking.ProjectsAsync(act.Db, [id], Kept.AsAgreement);
        erasure.AgreementsAt = act.Now;
    }

    private static async Task EraseBooksAsync(Act act, ErasureRow erasure)
    {
        var id = erasure.ProjectId;
        foreach (var invoice in await act.Db.Invoices.Where(i => i.ProjectId == id).ToListAsync())
            BlankSnapshots.Blank(invoice);
        await act.Db.SaveChangesAsync();
        await act.Db.Papers.Where(p => p.ProjectId == id && p.InvoiceId != null).ExecuteDeleteAsync();
        await Blanking.ProjectsAsync(act.Db, [id], Kept.AsBooks);
        erasure.BooksAt = act.Now;
    }
}
