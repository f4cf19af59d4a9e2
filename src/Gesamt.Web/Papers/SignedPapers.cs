using System.Text.Json.Nodes;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>A signed contract in the list of all.</summary>
/// <param name="By">Who signed it, as typed; “on paper” for one signed on a print.</param>
/// <param name="Waits">Who is still to sign it; empty once everybody has.</param>
/// <param name="File">Its file.</param>
public sealed record SignedPaperDto(
    string Title,
    long Project,
    string ProjectTitle,
    long Person,
    string Client,
    string Kind,
    string On,
    string By,
    string Waits,
    bool Voided,
    bool Sealed,
    string File
);

/// <summary>The newest first.</summary>
/// <param name="More">How many more there are.</param>
public sealed record SignedPapersDto(
    IReadOnlyList<SignedPaperDto> Rows,
    int More,
    IReadOnlyList<KindNameDto> Kinds,
    IReadOnlyList<int> Years
);

/// <summary>A kind by its name.</summary>
public sealed record KindNameDto(long Id, string Name);

/// <summary>Of a contract, what the list shows: a hundred of them are read at once.</summary>
/// <inheritdoc cref="ContractSnapshot"/>
internal sealed record ContractHead(string Title, SigningTerms? Signing = null);

/// <summary>What is asked of the list.</summary>
internal sealed record SignedQuery(string? Words, long? Kind, int? Year, long? Person, bool? Voided, int? Most);

/// <summary>What a file turns out to be, compared by the SHA-256 of its bytes.</summary>
/// <param name="Known">Whether it is, byte for byte, a paper that this studio kept.</param>
/// <param name="Words">What it is; or that no such file was kept.</param>
public sealed record CheckedDto(bool Known, string Words);

/// <summary>All signed papers of all clients, and whether a file is one of them.</summary>
public static class SignedPapers
{
    private const int Page = 100,
        MostRows = 2_000;

    public static void MapSignedPapers(this RouteGroupBuilder api) =>
        api.MapGet(
            "/papers/signed",
            (string? words, long? kind, int? year, long? person, bool? voided, int? most, Desk desk) =>
                OfAsync(desk, new(words, kind, year, person, voided, most))
        );

    /// <summary>Open to everybody: whoever holds a file may ask whether it is the sealed one. Only the file's hash is asked after.</summary>
    public static void MapCheck(this WebApplication app) =>
        app.MapGet("/check/api/{hash}", (string hash, Desk desk) => CheckAsync(desk, hash))
            .LimitCalls(Access.ClientLink.RateLimit);

    private static async Task<SignedPapersDto> OfAsync(Desk desk, SignedQuery query)
    {
        var voids = await VoidedAsync(desk);
        var asked = Asked(desk, query, voids);
        var count = await asked.CountAsync();
        var rows = await asked
            .OrderByDescending(paper => paper.VersionId)
            .Take(Math.Clamp(query.Most ?? Page, 1, MostRows))
            .Join(
                desk.Db.Projects,
                paper => paper.ProjectId,
                project => project.Id,
                (paper, project) =>
                    new
                    {
                        Paper = paper,
                        project.Title,
                        project.ClientId,
                        Client = project.Client!.Name,
                        Kind = project.Kind!.Name,
                    }
            )
            .OrderByDescending(row => row.Paper.VersionId)
            .ToListAsync();
        var ids = rows.Select(row => row.Paper.VersionId!.Value).ToList();
        var versions = (await VersionsOf(desk.Db, ids)).ToDictionary(v => v.Id);
        var signatures = (await SignaturesOf(desk.Db, ids)).OrderBy(s => s.At).ToLookup(s => s.VersionId);
        var kinds = await Kinds(desk.Db);
        return new(
            [
                .. rows.Select(row =>
                {
                    var (id, signed) = (row.Paper.VersionId!.Value, signatures[row.Paper.VersionId!.Value].ToList());
                    var contract = Versions.Read<ContractHead>(versions[id]);
                    return new SignedPaperDto(
                        contract.Title,
                        row.Paper.ProjectId.Value,
                        row.Title,
                        row.ClientId.Value,
                        row.Client,
                        row.Kind,
                        DateWords.Long(desk.Calendar.DateOf(signed.Count > 0 ? signed[^1].At : versions[id].At)),
                        signed.Count > 0 ? string.Join(", ", signed.Select(s => s.Name)) : "on paper",
                        string.Join(", ", StillToSign(contract, signed, row.Client)),
                        voids.Contains(id),
                        row.Paper.Sealed,
                        $"/api/contracts/{id.Value}.pdf"
                    );
                }),
            ],
            count - rows.Count,
            [.. kinds.Select(k => new KindNameDto(k.Id.Value, k.Name))],
            await YearsAsync(desk)
        );
    }

    /// <summary>The last file of each contract, without what is not asked for. Of projects only what is asked after is looked at, since all are counted.</summary>
    private static IQueryable<PaperRow> Asked(Desk desk, SignedQuery query, HashSet<VersionId> voids)
    {
        var asked = desk
            .Db.Papers.AsNoTracking()
            .Where(p =>
                p.VersionId != null
                && !desk.Db.Papers.Any(q => q.VersionId == p.VersionId && q.Signatures > p.Signatures)
            );
        if (query.Kind is { } kind)
            asked = asked.Where(p =>
                desk.Db.Projects.Any(q =>
                    q.Id == p.ProjectId && (q.KindId == new KindId(kind) || q.FurtherKinds.Contains(kind))
                )
            );
        if (query.Person is { } person)
            asked = asked.Where(p =>
                desk.Db.Projects.Where(q => q.ClientId == new PersonId(person))
                    .Select(q => q.Id)
                    .Union(
                        desk.Db.ProjectPeople.Where(part => part.PersonId == new PersonId(person))
                            .Select(part => part.ProjectId)
                    )
                    .Contains(p.ProjectId)
            );
        if (query.Words?.Trim() is { Length: > 0 } words)
            asked = asked.Where(p =>
                desk.Db.Projects.Any(q =>
                    q.Id == p.ProjectId && (GesamtDb.Holds(q.Title, words) || GesamtDb.Holds(q.Client!.Name, words))
                )
            );
        if (query.Year is { } year)
        {
            var (from, to) = (YearBegins(desk, year), YearBegins(desk, year + 1));
            asked = asked.Where(p => p.At >= from && p.At < to);
        }
        if (query.Voided is { } voided)
            asked = asked.Where(p => voids.Contains(p.VersionId!.Value) == voided);
        return asked;
    }

    private static IEnumerable<string> StillToSign(
        ContractHead contract,
        IReadOnlyCollection<Signed> signed,
        string client
    )
    {
        if (signed.Count == 0)
            return [];
        bool Misses(Signer side) => signed.All(s => s.Signer != side);
        var theirs = contract.Signing is { Signers: { IsEmpty: false } signers }
            ? signers.Where(one => signed.All(s => s.PersonId != one.Person)).Select(one => one.Name)
            : Enumerable.Repeat(client, Misses(Signer.Client) ? 1 : 0);
        return Misses(Signer.Owner) ? theirs.Append("you") : theirs;
    }

    private static NodaTime.Instant YearBegins(Desk desk, int year) =>
        desk.Calendar.StartOf(new NodaTime.LocalDate(Math.Clamp(year, 1970, 9000), 1, 1));

    /// <summary>From the year of the first contract to this one, the newest first.</summary>
    private static async Task<IReadOnlyList<int>> YearsAsync(Desk desk)
    {
        var first = await FirstAt(desk.Db);
        if (first is not { } began)
            return [];
        var (from, to) = (desk.Calendar.DateOf(began).Year, desk.Today.Year);
        return [.. Enumerable.Range(from, Math.Max(1, to - from + 1)).Reverse()];
    }

    private static readonly Func<GesamtDb, Task<List<string>>> Voided = Prepared.Rows(
        (GesamtDb db) =>
            db.Facts.AsNoTracking().Where(f => f.Kind == nameof(Happening.ContractVoided)).Select(f => f.Payload)
    );

    private static readonly Func<GesamtDb, Task<NodaTime.Instant?>> FirstAt = EF.CompileAsyncQuery(
        (GesamtDb db) =>
            db
                .Papers.Where(p => p.VersionId != null)
                .OrderBy(p => p.VersionId)
                .Select(p => (NodaTime.Instant?)p.At)
                .FirstOrDefault()
    );

    private static readonly Func<GesamtDb, IReadOnlyCollection<VersionId>, Task<List<VersionRow>>> VersionsOf =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<VersionId> ids) =>
                db.Versions.AsNoTracking().Where(v => ids.Contains(v.Id))
        );

    /// <summary>A signature without what proves it.</summary>
    private sealed record Signed(
        VersionId VersionId,
        Signer Signer,
        PersonId? PersonId,
        string Name,
        NodaTime.Instant At
    );

    private static readonly Func<GesamtDb, IReadOnlyCollection<VersionId>, Task<List<Signed>>> SignaturesOf =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<VersionId> ids) =>
                db
                    .Signatures.AsNoTracking()
                    .Where(s => ids.Contains(s.VersionId))
                    .Select(s => new Signed(s.VersionId, s.Signer, s.PersonId, s.Name, s.At))
        );

    private sealed record NamedKind(KindId Id, string Name);

    private static readonly Func<GesamtDb, Task<List<NamedKind>>> Kinds = Prepared.Rows(
        (GesamtDb db) => db.Kinds.AsNoTracking().OrderBy(k => k.Position).Select(k => new NamedKind(k.Id, k.Name))
    );

    private static async Task<HashSet<VersionId>> VoidedAsync(Desk desk) =>
        [
            .. (await Voided(desk.Db)).Select(payload => new VersionId(
                JsonNode.Parse(payload)!["contract"]!.GetValue<long>()
            )),
        ];

    private static async Task<CheckedDto> CheckAsync(Desk desk, string hash)
    {
        var paper =
            hash.Length == 64
                ? await desk.Db.Papers.AsNoTracking().FirstOrDefaultAsync(p => p.Hash == hash)
                : throw new InvalidException(("hash", "A SHA-256 has 64 hexadecimal digits."));
        if (paper is null)
            return new(
                false,
                $"This is no file that {desk.Studio.Name} kept: it was changed, if only by a byte, or it never came from here."
            );
        if (paper.VersionId is not { } id)
            return new(true, $"This is an invoice of {desk.Studio.Name}, exactly as it was issued.");
        var version = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == id);
        var snapshot = Versions.Read<ContractSnapshot>(version);
        var names = await desk
            .Db.Signatures.AsNoTracking()
            .Where(s => s.VersionId == id)
            .OrderBy(s => s.Id)
            .Take(paper.Signatures)
            .Select(s => s.Name)
            .ToListAsync();
        return new(
            true,
            $"This is “{snapshot.Title}: {snapshot.Project}” of {desk.Studio.Name}, exactly as it was {(paper.Sealed ? "sealed" : "kept")} {desk.Precisely(paper.At)}{(names.Count > 0 ? $", signed by {string.Join(" and ", names)}" : "")}."
        );
    }
}
