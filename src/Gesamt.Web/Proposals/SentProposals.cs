using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Proposals;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <summary>Proposals as they went out: which came last, what changed, and whether they were opened.</summary>
public static class SentProposals
{
    /// <summary>The version sent last, whatever became of it; null while none was.</summary>
    public static async Task<VersionRow?> LastAsync(Desk desk, ProjectFile file) =>
        file.History.Last<Happening.ProposalSent>() is { What.Version: var version }
            ? await Version(desk.Db, version)
            : null;

    private static readonly Func<GesamtDb, Core.VersionId, Task<VersionRow>> Version = EF.CompileAsyncQuery(
        (GesamtDb db, Core.VersionId id) => db.Versions.AsNoTracking().Single(v => v.Id == id)
    );

    /// <summary>The version that was sent before another; null for the first.</summary>
    public static async Task<VersionRow?> BeforeAsync(Desk desk, ProjectFile file, VersionRow version) =>
        file
            .History.Of<Happening.ProposalSent>()
            .Select(sent => sent.What.Version)
            .TakeWhile(sent => sent != version.Id)
            .Cast<Core.VersionId?>()
            .LastOrDefault()
            is { } before
            ? await Version(desk.Db, before)
            : null;

    public static IReadOnlyList<DifferenceDto> Differences(Offer before, Offer after) =>
        [
            .. OfferDifferences
                .Between(before, after)
                .Select(one => new DifferenceDto(one.Sort, one.What, one.Before, one.After)),
        ];

    public static SentVersionDto Of(Desk desk, ProjectFile file, VersionRow version)
    {
        var until = Versions.OfferOf(version).ValidUntil;
        return new(
            version.Number,
            DateWords.Short(desk.Calendar.DateOf(version.At), desk.Today),
            DateWords.Long(until),
            until < desk.Today,
            Opened(desk, file, version)
        );
    }

    /// <summary>“3 times, first Tue 5 Jan, last yesterday”: a hint, never a reproach.</summary>
    private static string? Opened(Desk desk, ProjectFile file, VersionRow version)
    {
        var looks = file
            .History.Of<Happening.ProposalOpened>()
            .Where(opened => opened.What.Version == version.Id)
            .Select(opened => desk.Calendar.DateOf(opened.Happened))
            .ToList();
        if (looks.Count == 0)
            return null;
        var last = $"{DateWords.Short(looks[^1], desk.Today)}, {DateWords.Distance(looks[^1], desk.Today)}";
        return looks.Count == 1
            ? $"once, {last}"
            : $"{looks.Count} times, first {DateWords.Short(looks[0], desk.Today)}, last {last}";
    }

    /// <summary>The studio's own first, then all of ISO 4217 by their codes.</summary>
    public static IReadOnlyList<string> Currencies(Desk desk) =>
        [
            desk.Currency.Code,
            .. Currency.All.Keys.Where(code => code != desk.Currency.Code).Order(StringComparer.Ordinal),
        ];

    /// <summary>The project's dates besides the one that matters, in the order in which they were named.</summary>
    public static IReadOnlyList<string> OtherDates(ProjectFile file) =>
        [
            .. file
                .History.Of<Happening.DateSet>()
                .Select(set => set.What.Name)
                .Where(name => name != file.Case.Kind.MainDate)
                .Distinct(),
        ];
}
