using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Letters;

/// <summary>A project an unfiled letter may belong to.</summary>
public sealed record CandidateDto(long Project, string Title);

/// <param name="Candidates">Projects it may belong to, by its sender.</param>
public sealed record UnfiledDto(
    long Id,
    string From,
    string Mail,
    string When,
    string Subject,
    string Text,
    IReadOnlyList<CandidateDto> Candidates
);

/// <summary>A slip in the tray.</summary>
public sealed record SlipDto(int Id, string Text, string When);

/// <summary>What has no project yet: slips and letters.</summary>
public sealed record TrayDto(IReadOnlyList<SlipDto> Slips, IReadOnlyList<UnfiledDto> Letters, int More);

/// <summary>The project a letter is filed to.</summary>
public sealed record FileLetterDto(long Project);

/// <summary>What belongs nowhere yet and waits to be filed; it is on no client's page.</summary>
public static class Tray
{
    private const int Most = 100;

    public static void MapTray(this RouteGroupBuilder api)
    {
        api.MapGet("/tray", (Desk desk) => OfAsync(desk));
        api.MapPost(
            "/letters/{id:long}/file",
            async (long id, FileLetterDto to, Desk desk) =>
            {
                return await desk.ActAsync(async act =>
                {
                    await FileAsync(act, await desk.OpenAsync(new(to.Project)), await UnfiledAsync(desk, new(id)));
                    return TypedResults.NoContent();
                });
            }
        );
        api.MapPost(
            "/letters/{id:long}/aside",
            async (long id, AsideDto to, Desk desk) =>
            {
                var number = new LetterId(id);
                var (from, state) = to.Aside
                    ? (LetterState.Unfiled, LetterState.Aside)
                    : (LetterState.Aside, LetterState.Unfiled);
                if (
                    await desk
                        .Db.Letters.Where(l => l.Id == number && l.State == from)
                        .ExecuteUpdateAsync(set => set.SetProperty(l => l.State, state)) == 0
                )
                    throw new RefusedException("This letter is not in the tray any more.");
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>How much lies in the tray.</summary>
    public static async Task<int> CountAsync(Desk desk) => await Unfiled(desk.Db) + await LooseSlips(desk.Db);

    private static readonly Func<GesamtDb, Task<int>> Unfiled = EF.CompileAsyncQuery(
        (GesamtDb db) => db.Letters.Count(l => l.State == LetterState.Unfiled)
    );

    private static readonly Func<GesamtDb, Task<int>> LooseSlips = EF.CompileAsyncQuery(
        (GesamtDb db) => db.Slips.Count(s => s.GoneAt == null && s.ProjectId == null)
    );

    /// <summary>Files a letter with a project as something its client wrote.</summary>
    public static async Task FileAsync(Act act, ProjectFile file, LetterRow letter)
    {
        (letter.ProjectId, letter.State) = (file.Id, LetterState.Received);
        await act.Db.SaveChangesAsync();
        await act.Db.Entry(letter).Collection(l => l.Files).LoadAsync();
        await act.RecordAtAsync(
            file,
            Actor.Client,
            Incoming.ArrivedAt(file, letter),
            [
                new Happening.LetterReceived(letter.Id, letter.Automatic),
                .. await Incoming.FilesAsync(act.Desk, file.Id, letter),
            ]
        );
    }

    /// <exception cref="RefusedException">It was filed meanwhile.</exception>
    public static async Task<LetterRow> UnfiledAsync(Desk desk, LetterId id)
    {
        var letter =
            await desk.Db.Letters.SingleOrDefaultAsync(l => l.Id == id) ?? throw new MissingException("letter");
        return letter.State == LetterState.Unfiled
            ? letter
            : throw new RefusedException("This letter is not in the tray any more.");
    }

    private static async Task<TrayDto> OfAsync(Desk desk)
    {
        var letters = await desk
            .Db.Letters.AsNoTracking()
            .Where(l => l.State == LetterState.Unfiled)
            .OrderByDescending(l => l.Id)
            .Take(Most)
            .ToListAsync();
        var slips = await desk
            .Db.Slips.AsNoTracking()
            .Where(s => s.GoneAt == null && s.ProjectId == null)
            .OrderByDescending(s => s.Id)
            .Take(Most)
            .ToListAsync();
        var index = new Incoming.Index(desk.Db, desk.Studio.MailDomain);
        var candidates = letters
            .Select(l => l.FromMail)
            .Distinct()
            .ToDictionary(mail => mail, mail => index.OpenProjectsOf(mail));
        var ids = candidates.Values.SelectMany(c => c).ToList();
        var titles = await desk
            .Db.Projects.AsNoTracking()
            .Where(p => ids.Contains(p.Id))
            .ToDictionaryAsync(p => p.Id, p => p.Title);
        return new(
            [.. slips.Select(s => new SlipDto(s.Id, s.Text, desk.Short(desk.Calendar.DateOf(s.At))!))],
            [
                .. letters.Select(l => new UnfiledDto(
                    l.Id.Value,
                    l.FromName,
                    l.FromMail,
                    desk.Short(desk.Calendar.DateOf(l.At))!,
                    l.Subject,
                    ShortText.Of(l.Body),
                    [.. candidates[l.FromMail].Select(id => new CandidateDto(id.Value, titles[id]))]
                )),
            ],
            await CountAsync(desk) - letters.Count - slips.Count
        );
    }
}

/// <summary>Set aside as belonging nowhere, or put back into the tray.</summary>
public sealed record AsideDto(bool Aside);
