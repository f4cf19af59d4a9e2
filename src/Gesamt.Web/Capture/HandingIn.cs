using Gesamt.Formats.Mail;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Capture;

/// <summary>What became of one file that was handed in beside a table.</summary>
/// <param name="Known">Letters that are kept already, and what was handed in before.</param>
/// <param name="Unread">Messages that cannot be read.</param>
public sealed record HandedInDto(int Letters, int Files, int Known, int Unread);

/// <summary>Letters (mbox, RFC 4155; .eml, RFC 5322) and files in their folders that are handed in beside a table, and kept until it is taken over.</summary>
public static class HandingIn
{
    public const long MostBytes = 2L * 1024 * 1024 * 1024;

    private const int Most = 20_000,
        LongestPath = 500,
        AtOnce = 200;

    private static readonly string[] MailEndings = [".mbox", ".mbx", ".eml"];

    /// <summary>Keeps a file, or every message of a mailbox, until the table is taken over.</summary>
    /// <param name="path">Its name with the folders it lies in, parted by slashes.</param>
    /// <param name="letters">That it was given as letters, whatever its name: many mailboxes have none that tells.</param>
    /// <exception cref="InvalidException">It is of no kind that is kept, has no name, or there are too many.</exception>
    public static async Task<HandedInDto> AddAsync(
        Desk desk,
        int id,
        string path,
        bool letters,
        Stream content,
        CancellationToken stop
    )
    {
        await OpenAsync(desk, id);
        string[] parts =
        [
            .. path.Replace('\\', '/')
                .Split('/')
                .Select(part => new string([.. part.Where(c => !char.IsControl(c))]).Trim())
                .Where(part => part is not ("" or "." or "..")),
        ];
        if (parts.Length == 0 || path.Length > LongestPath)
            throw new InvalidException(
                ("path", $"A file needs a name, of at most {LongestPath} characters with its folders.")
            );
        return letters || MailEndings.Contains(System.IO.Path.GetExtension(parts[^1]).ToLowerInvariant())
            ? await LettersAsync(desk, id, content, stop)
            : await FileAsync(desk, id, parts, content, stop);
    }

    private static async Task<HandedInDto> FileAsync(
        Desk desk,
        int id,
        string[] path,
        Stream content,
        CancellationToken stop
    )
    {
        var (name, hash, size, type) = await KeptFiles.TakeAsync(desk.Vault, path[^1], content, stop);
        var place = string.Join('/', path[..^1]);
        return await desk.ActAsync(async act =>
        {
            if (
                await act.Db.ImportParts.AnyAsync(
                    p => p.ImportId == id && p.Hash == hash && p.Place == place && p.Name == name,
                    stop
                )
            )
                return new HandedInDto(0, 0, 1, 0);
            await KeepAsync(
                act,
                id,
                [
                    new()
                    {
                        ImportId = id,
                        Sort = ImportPart.File,
                        Name = name,
                        Place = place,
                        Hash = hash,
                        Size = size,
                        Type = type,
                    },
                ]
            );
            return new HandedInDto(0, 1, 0, 0);
        });
    }

    private static async Task<HandedInDto> LettersAsync(Desk desk, int id, Stream content, CancellationToken stop)
    {
        var before = (
            await desk.Db.ImportParts.Where(p => p.ImportId == id).Select(p => p.Hash).ToListAsync(stop)
        ).ToHashSet();
        var (kept, known, unread) = (0, 0, 0);
        List<ImportPartRow> some = [];
        async Task SaveAsync()
        {
            var added = await desk.ActAsync(async act =>
            {
                // another window may have handed in the same meanwhile
                var hashes = some.Select(part => part.Hash).ToList();
                var there = await act
                    .Db.ImportParts.Where(p => p.ImportId == id && hashes.Contains(p.Hash))
                    .Select(p => p.Hash)
                    .ToHashSetAsync(stop);
                List<ImportPartRow> fresh = [.. some.Where(part => !there.Contains(part.Hash))];
                await KeepAsync(act, id, fresh);
                return fresh.Count;
            });
            (kept, known) = (kept + added, known + some.Count - added);
            some.Clear();
        }
        try
        {
            await foreach (var message in Mbox.ReadAsync(content, IncomingMail.MostBytes, stop))
            {
                if (LetterFiles.Read(message) is not { } mail)
                    unread++;
                else if (await LetterFiles.IsKnownAsync(desk, mail, stop))
                    known++;
                else if (await PartOfAsync(desk, id, message, mail, stop) is var part && before.Add(part.Hash))
                    some.Add(part);
                else
                    known++;
                if (some.Count == AtOnce)
                    await SaveAsync();
            }
            if (some.Count > 0)
                await SaveAsync();
        }
        catch (FormatException e)
        {
            throw new InvalidException(("file", e.Message));
        }
        finally
        {
            // a disk that is full of it must not stay full
            await ForgetAsync(desk, some);
        }
        return kept + known + unread > 0
            ? new(kept, 0, known, unread)
            : throw new InvalidException(
                ("file", "This is no mail: choose messages saved as .eml, or a mailbox saved as .mbox.")
            );
    }

    /// <summary>Takes the bytes of letters away again that no row came to name.</summary>
    private static async Task ForgetAsync(Desk desk, IReadOnlyCollection<ImportPartRow> left)
    {
        if (left.Count == 0)
            return;
        var named = await NamedFiles.HashesAsync(desk.Db, CancellationToken.None);
        desk.Vault.Delete(left.Select(part => part.Hash).Where(hash => !named.Contains(hash)));
    }

    private static async Task<ImportPartRow> PartOfAsync(
        Desk desk,
        int id,
        byte[] message,
        IncomingLetter mail,
        CancellationToken stop
    ) =>
        new()
        {
            ImportId = id,
            Sort = ImportPart.Letter,
            Name = mail.Subject,
            Place = string.Join(
                '\n',
                mail.Recipients.Prepend(mail.FromAddress)
                    .Where(one => one.Length > 0 && one != desk.Studio.Mail)
                    .Distinct()
            ),
            People = string.Join('\n', mail.RecipientNames.Prepend(mail.FromName)),
            At = mail.Date,
            Hash = await Incoming.OriginalAsync(desk, message, stop),
            Size = message.Length,
            Type = "message/rfc822",
        };

    private static async Task KeepAsync(Act act, int id, IReadOnlyCollection<ImportPartRow> parts)
    {
        await OpenAsync(act.Desk, id);
        if (await act.Db.ImportParts.CountAsync(p => p.ImportId == id) + parts.Count > Most)
            throw new InvalidException(
                (
                    "file",
                    $"At most {Most} letters and files beside one table. Split the table and hand in what belongs to each part."
                )
            );
        act.Db.ImportParts.AddRange(parts);
        await act.Db.SaveChangesAsync();
        act.Db.ChangeTracker.Clear();
    }

    private static async Task OpenAsync(Desk desk, int id)
    {
        if ((await Import.OneAsync(desk, id)).State != ImportState.Matching)
            throw new RefusedException("Letters and files are handed in before the table is taken over.");
    }

    /// <summary>Takes away all that was handed in beside a table that is not taken over yet.</summary>
    public static Task TakeAwayAsync(Desk desk, int id) =>
        desk.ActAsync(async act =>
        {
            await OpenAsync(desk, id);
            await act.Db.ImportParts.Where(part => part.ImportId == id).ExecuteDeleteAsync();
        });
}
