using System.Text;
using Gesamt.Core;
using Gesamt.Core.Erasing;
using Gesamt.Core.Facts;
using Gesamt.Store.Erasing;
using Gesamt.Store.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Erasing;

/// <summary>Erases a person: name, addresses, words and files go, what the law keeps stays for its years, and what happened stays and names nobody.</summary>
public sealed class Erasure(Desk desk, Clearing clearing)
{
    /// <summary>Erases them for good.</summary>
    /// <exception cref="RefusedException">Something of theirs is still open; says what.</exception>
    public async Task EraseAsync(PersonId id, CancellationToken stop)
    {
        var files = await NamedFiles.HashesAsync(desk.Db, stop);
        var gone = await desk.ActAsync(async act =>
        {
            var whom = await Whom.OfAsync(desk, id);
            if (whom.Hinders is [var first, ..])
                throw new RefusedException(first.Sentence);
            var outside = await OutsideAsync(whom);
            await Blanking.PeopleAsync(desk.Db, whom.People);
            foreach (var project in whom.Projects)
                await ProjectAsync(act, project);
            await ElsewhereAsync(whom);
            await ImportsAsync(whom, stop);
            await desk
                .Db.People.Where(p => whom.People.Contains(p.Id))
                .ExecuteUpdateAsync(
                    set => set.SetProperty(p => p.ErasedAt, desk.Now).SetProperty(p => p.RemovedAt, desk.Now),
                    stop
                );
            // answers to writes that were sent twice may hold anything
            await desk
                .Db.Requests.Where(r => r.Status != null)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.Body, ""), stop);
            await desk.Db.Uploads.Where(u => u.Taken).ExecuteDeleteAsync(stop);
            await Clearing.DueAsync(desk);
            return outside;
        });
        KillPoints.Reach(KillPoints.Erased);
        await clearing.ClearAsync(files, gone, stop);
    }

    /// <summary>Erases what the law keeps no longer of a project whose client was erased.</summary>
    /// <exception cref="RefusedException">All of it is kept yet.</exception>
    public async Task ErasePapersAsync(ProjectId id, CancellationToken stop)
    {
        if (!await desk.Db.Erasures.AnyAsync(e => e.ProjectId == id, stop))
            throw new MissingException("erased project");
        if (!(await KeptPapersOfErased.OfAsync(desk, await desk.OpenAsync(id))).Over)
            throw new RefusedException("The law keeps all of these papers yet.");
        desk.Db.ChangeTracker.Clear();
        var files = await NamedFiles.HashesAsync(desk.Db, stop);
        await desk.ActAsync(async act =>
        {
            await KeptByLaw.EraseOverAsync(act, id);
            await Clearing.DueAsync(desk);
            act.Touch(id);
        });
        await clearing.ClearAsync(files, GoneOutside.Nothing, stop);
    }

    /// <summary>What lies with the stand-ins of services, whose files are beside the studio's.</summary>
    private async Task<GoneOutside> OutsideAsync(Whom whom)
    {
        var letters = await LettersAsync(whom);
        var projects = whom.Projects;
        return new(
            await desk
                .Db.Letters.Where(l => letters.Contains(l.Id) && l.MessageId != null)
                .Select(l => l.MessageId!)
                .ToListAsync(),
            whom.Addresses,
            await desk.Db.Checkouts.Where(c => projects.Contains(c.ProjectId)).Select(c => c.Session).ToListAsync(),
            await desk
                .Db.Meetings.Where(m => projects.Contains(m.ProjectId) && m.Room != null)
                .Select(m => m.Room!)
                .ToListAsync()
        );
    }

    /// <summary>Letters of their projects, and those from and to their addresses anywhere.</summary>
    private async Task<List<LetterId>> LettersAsync(Whom whom)
    {
        var (projects, people, addresses) = (whom.Projects, whom.People, whom.Addresses);
        return await desk
            .Db.Letters.Where(l =>
                l.ProjectId != null && projects.Contains(l.ProjectId.Value)
                || l.ToPerson != null && people.Contains(l.ToPerson.Value)
                || addresses.Contains(l.FromMail.ToLower())
                || addresses.Contains(l.ToMail.ToLower())
            )
            .Select(l => l.Id)
            .ToListAsync();
    }

    private async Task ProjectAsync(Act act, ProjectId id)
    {
        var file = await act.OpenAsync(id);
        var kept = await KeptByLaw.OfAsync(desk, file);
        var versions = await act.Db.Versions.Where(v => v.ProjectId == id).ToListAsync();
        Dictionary<string, string> hashes = [];
        foreach (var version in versions.Where(v => !kept.Agreements.Contains(v.Id)))
        {
            var before = version.Hash;
            BlankSnapshots.Blank(version);
            hashes[before] = version.Hash;
        }
        await NamelessAsync(file, hashes);
        foreach (var recurring in await act.Db.Recurring.Where(r => r.ProjectId == id).ToListAsync())
            BlankSnapshots.Blank(recurring);
        await EndAsync(file);
        await act.Db.SaveChangesAsync();
        await act
            .Db.Papers.Where(p =>
                p.ProjectId == id && p.VersionId != null && !kept.Agreements.Contains(p.VersionId.Value)
            )
            .ExecuteDeleteAsync();
        await Blanking.ProjectsAsync(act.Db, [id], Kept.Not);
        act.Db.Erasures.Add(new() { ProjectId = id, At = act.Now });
        await act.Db.SaveChangesAsync();
        act.Db.ChangeTracker.Clear();
        await KeptByLaw.EraseOverAsync(act, id);
        // found no more: the index is told by an update
        await act
            .Db.Versions.Where(v => v.ProjectId == id)
            .ExecuteUpdateAsync(set => set.SetProperty(v => v.Canonical, v => v.Canonical));
        await act.Ledger.RebuildAsync([await act.OpenAsync(id)], act.Now);
        act.Touch(id);
        act.Db.ChangeTracker.Clear();
    }

    /// <summary>Facts that call something by a name of this project alone, and the rows beside them that call it the same.</summary>
    private async Task NamelessAsync(ProjectFile file, Dictionary<string, string> hashes)
    {
        var nameless = new Nameless(Terms.Of(file.Row.Pinned.Rules), hashes);
        foreach (var row in await desk.Db.Facts.Where(f => f.ProjectId == file.Id).ToListAsync())
            if (
                FactJson.Read(row.Kind, row.Version, row.Payload) is var what and not Happening.Unreadable
                && nameless.Of(what) is var without
                && without != what
            )
                (row.Payload, row.Version) = (FactJson.Write(without), FactJson.Version);
        foreach (var task in await desk.Db.Tasks.Where(t => t.ProjectId == file.Id && t.Phase != null).ToListAsync())
            task.Phase = nameless.Phase(task.Phase!);
        foreach (var kept in await desk.Db.Files.Where(f => f.ProjectId == file.Id && f.Phase != null).ToListAsync())
            kept.Phase = nameless.Phase(kept.Phase!);
        foreach (
            var review in await desk.Db.Reviews.Where(r => r.ProjectId == file.Id && r.Phase != null).ToListAsync()
        )
            review.Phase = nameless.Phase(review.Phase!);
    }

    /// <summary>Nothing of it goes out any more, and nobody comes in.</summary>
    private async Task EndAsync(ProjectFile file)
    {
        var id = file.Id;
        foreach (var link in await desk.Db.Links.Where(l => l.ProjectId == id).ToListAsync())
            End(link);
        foreach (var means in await desk.Db.KeptMeans.Where(k => k.ProjectId == id).ToListAsync())
            means.TakenBackAt ??= desk.Now;
        await StopAsync(desk.Db.Letters.Where(l => l.ProjectId == id));
        // what brought it stays where it says no more than of others
        if (!await desk.Db.Projects.AnyAsync(p => p.Id != id && p.Source == file.Row.Source))
            file.Row.Source = null;
        if (!await desk.Db.Projects.AnyAsync(p => p.Id != id && p.Campaign == file.Row.Campaign))
            file.Row.Campaign = null;
    }

    private void End(LinkRow link)
    {
        link.Generation++;
        link.EndedAt ??= desk.Now;
    }

    private static Task StopAsync(IQueryable<LetterRow> letters) =>
        letters
            .Where(l =>
                l.State == LetterState.Draft
                || l.State == LetterState.Held
                || l.State == LetterState.Ready
                || l.State == LetterState.PutOff
            )
            .ExecuteUpdateAsync(set => set.SetProperty(l => l.State, LetterState.Stopped));

    /// <summary>What there is of them outside their own projects.</summary>
    private async Task ElsewhereAsync(Whom whom)
    {
        var people = whom.People;
        foreach (var link in await desk.Db.Links.Where(l => people.Contains(l.PersonId)).ToListAsync())
            End(link);
        await desk.Db.SaveChangesAsync();
        await desk.Db.ProjectPeople.Where(p => people.Contains(p.PersonId)).ExecuteDeleteAsync();
        var letters = await LettersAsync(whom);
        LetterState[] cameIn = [LetterState.Received, LetterState.Unfiled, LetterState.Aside, LetterState.Kept];
        await StopAsync(desk.Db.Letters.Where(l => letters.Contains(l.Id)));
        foreach (
            var letter in await desk
                .Db.Letters.Where(l => letters.Contains(l.Id) && l.MessageId != null && cameIn.Contains(l.State))
                .ToListAsync()
        )
        {
            letter.MessageId = UnnamedMessageId.Of(letter.MessageId!);
            if (letter.State == LetterState.Unfiled)
                letter.State = LetterState.Aside;
        }
        await desk.Db.SaveChangesAsync();
        await Blanking.LettersAsync(desk.Db, letters);
    }

    /// <summary>Tables that were taken over hold everybody in them: of those with this person the heading is left.</summary>
    private async Task ImportsAsync(Whom whom, CancellationToken stop)
    {
        var people = whom.People;
        foreach (
            var row in await desk
                .Db.Imports.Where(i =>
                    i.State != ImportState.Running
                    && desk.Db.Imported.Any(made => made.ImportId == i.Id && people.Contains(made.PersonId))
                )
                .ToListAsync(stop)
        )
        {
            // a file that is gone from the disk has nothing to be taken out of it
            var text = desk.Vault.Has(row.Hash) ? Encoding.UTF8.GetString(desk.Vault.Read(row.Hash)) : "";
            using var heading = new MemoryStream(Encoding.UTF8.GetBytes(text.Split('\n')[0] + "\n"));
            (row.Hash, _) = await desk.Vault.KeepAsync(heading, heading.Length, stop);
            row.Errors = "[]";
            await desk.Db.ImportParts.Where(part => part.ImportId == row.Id).ExecuteDeleteAsync(stop);
        }
        await desk.Db.SaveChangesAsync(stop);
        // whoever undoes such an import later leaves what was erased as it is
        await desk.Db.Imported.Where(made => people.Contains(made.PersonId)).ExecuteDeleteAsync(stop);
    }
}
