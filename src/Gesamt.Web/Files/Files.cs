using Gesamt.Core;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Formats.Files;
using Gesamt.Formats.Mail;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Files;

/// <summary>A file as it was handed in.</summary>
/// <param name="Place">Where it belongs; null where the project itself tells.</param>
public sealed record NewFile(string Name, FilePlace? Place, Stream Content);

/// <summary>Keeps files of projects: their bytes in the vault, a row, and the fact.</summary>
public static class KeptFiles
{
    /// <summary>Most bytes of one file.</summary>
    public const long Most = 50L * 1024 * 1024;

    private const int LongestName = 160,
        LongestEnding = 12;

    /// <summary>Keeps a file. The bytes are stored first; the row is what makes them the project's.</summary>
    /// <exception cref="InvalidException">It has no name, is empty, or is of no kind that is kept.</exception>
    /// <exception cref="FileTooLargeException">It has more than <see cref="Most"/> bytes.</exception>
    public static async Task<FileRow> KeepAsync(
        Desk desk,
        FileVault vault,
        ProjectId project,
        NewFile file,
        Actor by,
        CancellationToken stop
    )
    {
        var (name, hash, size, type) = await TakeAsync(vault, file.Name, file.Content, stop);
        return await desk.ActAsync(async act =>
        {
            var opened = await desk.OpenAsync(project);
            var place = file.Place ?? FilePlace.Of(opened.Case, name);
            Check(opened, place);
            var row = new FileRow
            {
                ProjectId = project,
                PublicId = Codes.New() + Codes.New(),
                Group = place.Group,
                Phase = place.Phase,
                Version = await VersionAsync(desk, project, place),
                Name = name,
                Hash = hash,
                Size = size,
                Type = type,
                At = desk.Now,
                By = by,
            };
            desk.Db.Files.Add(row);
            await desk.Db.SaveChangesAsync();
            Happening[] what =
            [
                new Happening.FileKept(row.Id, row.Group),
                .. by == Actor.Client ? new Happening[] { new Happening.FileShown(row.Id) } : [],
            ];
            await act.RecordAsync(opened, by, what);
            return row;
        });
    }

    /// <summary>Puts a file that was kept elsewhere among the project's files.</summary>
    /// <exception cref="RefusedException">The client has seen it where it is.</exception>
    public static async Task PlaceAsync(Desk desk, ProjectId project, FileId id, FilePlace place)
    {
        await desk.ActAsync(async act =>
        {
            var (row, file) = (await OneAsync(desk, project, id), await desk.OpenAsync(project));
            Check(file, place);
            if (row.Group == place.Group && row.Phase == place.Phase)
                return;
            if (Sight.Shown(file.History).Contains(id))
                throw new RefusedException("The client was shown this file where it is. Keep it once more instead.");
            (row.Group, row.Phase) = (place.Group, place.Phase);
            row.Version = await VersionAsync(desk, project, place);
            await act.RecordAsync(file, Actor.Owner, new Happening.FileKept(id, place.Group));
        });
    }

    private static void Check(ProjectFile file, FilePlace place)
    {
        if (place.Phase is { } phase && !file.Case.Kind.HasPhase(phase))
            throw new InvalidException(("phase", $"This project has no phase “{phase}”."));
    }

    /// <summary>The number of a draft among the drafts; other files have none.</summary>
    private static async Task<int> VersionAsync(Desk desk, ProjectId project, FilePlace place) =>
        place.Group == FileGroup.Drafts
            ? await desk.Db.Files.CountAsync(f => f.ProjectId == project && f.Group == FileGroup.Drafts) + 1
            : 0;

    /// <summary>Takes bytes into the vault under a plain name, told what they are by themselves.</summary>
    /// <exception cref="InvalidException">It has no name, is empty, or is of no kind that is kept.</exception>
    public static async Task<(string Name, string Hash, long Size, string Type)> TakeAsync(
        FileVault vault,
        string name,
        Stream content,
        CancellationToken stop
    )
    {
        var plain = NameOf(name);
        // told by its first bytes before any is written: what is refused takes no room
        var head = new byte[FileTypes.HeadLength];
        var read = await content.ReadAtLeastAsync(head, head.Length, throwOnEndOfStream: false, stop);
        var type =
            FileTypes.Of(head.AsSpan(0, read), plain)
            ?? throw new InvalidException(
                ("file", $"“{plain}” is of a kind that is not kept. Kept are {FileTypes.Allowed}.")
            );
        var (hash, size) = await vault.KeepAsync(head.AsMemory(0, read), content, Most, stop);
        return (plain, hash, size, type.MediaType);
    }

    /// <summary>Takes a whole message (RFC 5322) into the vault. It is never opened in the page's own place, so its bytes may be any.</summary>
    public static async Task<(string Name, string Hash, long Size, string Type)> TakeMessageAsync(
        FileVault vault,
        string name,
        Stream content,
        CancellationToken stop
    )
    {
        var (hash, size) = await vault.KeepAsync(content, IncomingMail.MostBytes, stop);
        return (NameOf(name), hash, size, "message/rfc822");
    }

    /// <summary>Takes a file out of the record, or puts it back; its bytes stay.</summary>
    public static async Task RemoveAsync(Desk desk, ProjectId project, FileId id, bool removed)
    {
        await desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, project, id);
            if (row.Removed == removed)
                return;
            row.Removed = removed;
            await act.RecordAsync(
                await desk.OpenAsync(project),
                Actor.Owner,
                removed ? new Happening.FileRemoved(id) : new Happening.FileKept(id, row.Group)
            );
        });
    }

    /// <summary>Shows a file to the client, or hides it again; a word on its use goes with it.</summary>
    public static async Task ShowAsync(Desk desk, ProjectId project, FileId id, bool shown, string? use)
    {
        await desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, project, id);
            if (row.Removed)
                throw new RefusedException("The file was removed. Put it back first.");
            if (use is not null)
                row.Use = UseOf(use);
            var file = await desk.OpenAsync(project);
            if (Sight.Shown(file.History).Contains(id) != shown)
                await act.RecordAsync(
                    file,
                    Actor.Owner,
                    shown ? new Happening.FileShown(id) : new Happening.FileHidden(id)
                );
            act.Touch(project);
        });
    }

    public static string UseOf(string use) =>
        use.Trim().Length <= 300
            ? use.Trim()
            : throw new InvalidException(("use", "A word on its use has at most 300 characters."));

    /// <exception cref="MissingException">The project has no such file.</exception>
    public static async Task<FileRow> OneAsync(Desk desk, ProjectId project, FileId id) =>
        await desk.Db.Files.SingleOrDefaultAsync(f => f.Id == id && f.ProjectId == project)
        ?? throw new MissingException("file");

    /// <summary>A file of a client page, if it may be seen through it now.</summary>
    /// <exception cref="MissingException">There is none, or it is not shown; both read the same.</exception>
    /// <exception cref="RefusedException">It waits for the last payment.</exception>
    public static async Task<FileRow> SeenAsync(Desk desk, ProjectFile file, string publicId)
    {
        var row = await desk
            .Db.Files.AsNoTracking()
            .SingleOrDefaultAsync(f => f.PublicId == publicId && f.ProjectId == file.Id && !f.Removed);
        if (row is null || !Sight.MaySee(file.History, row.Id, row.Group))
            throw new MissingException("file");
        return FinalFiles.IsOpen(file.Case, row.Group)
            ? row
            : throw new RefusedException("This file opens as soon as everything is paid.");
    }

    private static string NameOf(string name)
    {
        // only the last part of what a browser sends, and nothing that could act in a header or a path
        var last = new string([
            .. name.Replace('\\', '/')
                .Split('/')[^1]
                .Where(c => !char.IsControl(c) && c is not ('"' or '<' or '>' or ':' or '*' or '?' or '|')),
        ]).Trim(' ', '.');
        if (last.Length == 0)
            throw new InvalidException(("name", "A file needs a name."));
        // an ending longer than any real one is part of the name
        var ending = Path.GetExtension(last) is { Length: <= LongestEnding } real ? real : "";
        return ShortText.Of(last[..^ending.Length], LongestName - ending.Length) + ending;
    }

    /// <summary>What the bytes of a kept file say they are; null for what is not kept.</summary>
    public static async Task<FileType?> TypeAsync(FileVault vault, string hash, string name, CancellationToken stop)
    {
        await using var stream = vault.Open(hash);
        var head = new byte[FileTypes.HeadLength];
        var read = await stream.ReadAtLeastAsync(head, head.Length, throwOnEndOfStream: false, stop);
        return FileTypes.Of(head.AsSpan(0, read), name);
    }
}
