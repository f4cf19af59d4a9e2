using Gesamt.Core;
using Gesamt.Core.Texts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Erasing;

/// <summary>What keeps a person from being erased yet.</summary>
public sealed record HinderDto(long Project, string Title, string Sentence);

/// <summary>Who is erased, with all that is theirs.</summary>
/// <param name="People">They themselves first, then those who were found to be the same.</param>
/// <param name="Projects">Those whose client they are.</param>
/// <param name="Addresses">Theirs alone, in lower case.</param>
public sealed record Whom(
    string Name,
    IReadOnlyList<PersonId> People,
    IReadOnlyList<ProjectId> Projects,
    IReadOnlyList<string> Addresses,
    IReadOnlyList<HinderDto> Hinders
)
{
    public static async Task<Whom> OfAsync(Desk desk, PersonId id)
    {
        var one =
            await desk
                .Db.People.AsNoTracking()
                .SingleOrDefaultAsync(p => p.Id == id && p.RemovedAt == null && p.MergedInto == null)
            ?? throw new MissingException("person");
        var same = await desk.Db.People.AsNoTracking().Where(p => p.MergedInto == id).ToListAsync();
        List<PersonRow> rows = [one, .. same];
        var ids = rows.ConvertAll(row => row.Id);
        var projects = await desk.Db.Projects.AsNoTracking().Where(p => ids.Contains(p.ClientId)).ToListAsync();
        var addresses = rows.SelectMany(row => row.Also.Split('\n').Append(row.Mail ?? ""))
            .Select(address => address.Trim().ToLowerInvariant())
            .Where(address => address.Contains('@', StringComparison.Ordinal))
            .Distinct()
            .ToList();
        // an address that somebody else has too, or the studio itself, is not theirs alone
        var shared = await desk
            .Db.People.AsNoTracking()
            .Where(p => p.Mail != null && addresses.Contains(p.Mail.ToLower()) && !ids.Contains(p.Id))
            .Select(p => p.Mail!.ToLower())
            .ToListAsync();
        return new(
            one.Name,
            ids,
            projects.ConvertAll(project => project.Id),
            [.. addresses.Except(shared).Where(address => address != desk.Studio.Mail.ToLowerInvariant())],
            await HindersAsync(desk, projects)
        );
    }

    private static async Task<List<HinderDto>> HindersAsync(Desk desk, List<ProjectRow> projects)
    {
        var ids = projects.ConvertAll(project => project.Id);
        var comesAgain = await desk
            .Db.Recurring.Where(r => ids.Contains(r.ProjectId) && r.Next != null)
            .Select(r => r.ProjectId)
            .ToListAsync();
        var spentAgain = await desk
            .Db.RecurringCosts.Where(c => c.ProjectId != null && ids.Contains(c.ProjectId.Value) && c.Next != null)
            .Select(c => c.ProjectId!.Value)
            .ToListAsync();
        var clocked = await desk.Db.Clocks.Where(c => ids.Contains(c.ProjectId)).Select(c => c.ProjectId).ToListAsync();
        return
        [
            .. from project in projects
            let standing = project.Standing
            let why = standing is { Ended: null, FinishedAt: null } ? "is still open: end or finish it first"
            : standing.OwedMinor > 0 ? "has something still owed: wait for the payment, or credit the invoice"
            : comesAgain.Contains(project.Id) ? "has an invoice that comes again: stop it first"
            : spentAgain.Contains(project.Id) ? "has a cost that comes again: stop it first"
            : clocked.Contains(project.Id) ? "has the clock on it: stop it or answer first"
            : null
            where why is not null
            select new HinderDto(project.Id.Value, project.Title, $"“{ShortText.Of(project.Title, 60)}” {why}."),
        ];
    }
}
