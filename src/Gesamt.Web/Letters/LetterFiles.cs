using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Formats.Mail;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Letters;

/// <param name="Known">Messages that were kept already.</param>
/// <param name="Unread">Messages that could not be read.</param>
public sealed record TakenOverDto(int Kept, int Known, int Unread);

/// <summary>A project's letters as open files: mbox (RFC 4155) and .eml (RFC 5322), out and in.</summary>
public static class LetterFiles
{
    public const int MostBytes = 60 * 1024 * 1024;
    private const int MostMessages = 5_000;

    /// <summary>Every letter of a project as a message by RFC 5322.</summary>
    public static async Task<IReadOnlyList<StoredMessage>> AllAsync(Desk desk, ProjectId project)
    {
        await desk.OpenAsync(project);
        return [.. (await RowsAsync(desk, project)).Select(letter => MessageOf(desk, letter))];
    }

    /// <summary>The letters of a project that went out or came in, the first one first.</summary>
    internal static Task<List<LetterRow>> RowsAsync(Desk desk, ProjectId project) =>
        desk
            .Db.Letters.AsNoTracking()
            .Include(l => l.Files)
            .Where(l =>
                l.ProjectId == project
                && (
                    l.State == LetterState.Sent
                    || l.State == LetterState.Uncertain
                    || l.State == LetterState.Received
                    || l.State == LetterState.Kept
                )
            )
            .OrderBy(l => l.At)
            .ThenBy(l => l.Id)
            .ToListAsync();

    /// <summary>One letter as a message.</summary>
    public static async Task<StoredMessage> OneAsync(Desk desk, LetterId id) =>
        MessageOf(
            desk,
            await desk
                .Db.Letters.AsNoTracking()
                .Include(l => l.Files)
                .SingleOrDefaultAsync(l => l.Id == id && l.ProjectId != null)
                ?? throw new MissingException("letter")
        );

    /// <summary>What came in, byte for byte; else the letter as a message of its own. Whose link it carried is not in it: a file that is passed on must open nothing.</summary>
    internal static StoredMessage MessageOf(Desk desk, LetterRow letter) =>
        new(
            letter.FromMail,
            letter.At,
            letter.Original is { } original && desk.Vault.Has(original)
                ? desk.Vault.Read(original)
                : OutgoingMail.Compose(
                    new(
                        (letter.FromName, letter.FromMail),
                        (letter.ToName, letter.ToMail),
                        letter.FromMail,
                        letter.Subject,
                        LetterEndpoints.Shown(letter.Body) + (letter.Quoted.Length > 0 ? $"\n\n{letter.Quoted}" : ""),
                        letter.MessageId ?? $"letter-{letter.Id.Value}@{desk.Studio.MailDomain}",
                        letter.InReplyTo,
                        letter.At,
                        false,
                        letter.Invitation,
                        [
                            .. letter.Files.Select(file => new MailFile(
                                Formats.Files.FileTypes.HandedOut(file.Name, file.Type),
                                file.Type,
                                desk.Vault.Read(file.Hash)
                            )),
                        ]
                    )
                )
        );

    /// <summary>Keeps letters that were written elsewhere, with their own dates. They tell what was said and move nothing: no turn, no step.</summary>
    /// <exception cref="InvalidException">The bytes are no message and no mailbox.</exception>
    public static async Task<TakenOverDto> TakeOverAsync(
        Desk desk,
        ProjectId project,
        Stream content,
        CancellationToken stop
    )
    {
        using var bytes = new MemoryStream();
        await content.CopyToAsync(bytes, stop);
        var messages = Mbox.Read(bytes.ToArray());
        if (messages.Count == 0)
            throw new InvalidException(
                ("file", "This is no mail: choose a message saved as .eml, or a mailbox saved as .mbox.")
            );
        if (messages.Count > MostMessages)
            throw new InvalidException(
                ("file", $"A mailbox of at most {MostMessages} messages, this has {messages.Count}. Split it.")
            );
        var (letters, known, unread) = await ReadAsync(desk, messages, stop);
        await desk.ActAsync(async act =>
            await AddAsync(act, await desk.OpenAsync(project), letters, mail => mail != desk.Studio.Mail)
        );
        return new(letters.Count, known, unread);
    }

    /// <summary>Messages as letters that no project has yet, with their files in the vault; the first written first.</summary>
    internal static async Task<(IReadOnlyList<LetterRow> Letters, int Known, int Unread)> ReadAsync(
        Desk desk,
        IEnumerable<byte[]> messages,
        CancellationToken stop
    )
    {
        var (letters, known, unread) = (new List<LetterRow>(), 0, 0);
        foreach (var message in messages)
        {
            if (Read(message) is not { } mail)
                unread++;
            else if (letters.Any(l => l.MessageId == mail.MessageId) || await IsKnownAsync(desk, mail, stop))
                known++;
            else
                letters.Add(await RowAsync(desk, message, mail, stop));
        }
        return ([.. letters.OrderBy(letter => letter.At)], known, unread);
    }

    /// <summary>Whether a message is kept already, as itself or as that of somebody erased.</summary>
    internal static Task<bool> IsKnownAsync(Desk desk, IncomingLetter mail, CancellationToken stop)
    {
        var unnamed = UnnamedMessageId.Of(mail.MessageId);
        return desk.Db.Letters.AnyAsync(l => l.MessageId == mail.MessageId || l.MessageId == unnamed, stop);
    }

    /// <summary>Puts letters that were read into a project, each at its own date.</summary>
    /// <param name="fromClient">Whether an address it was written from is not the studio's own.</param>
    internal static async Task AddAsync(
        Act act,
        ProjectFile file,
        IReadOnlyList<LetterRow> letters,
        Func<string, bool> fromClient
    )
    {
        foreach (var letter in letters)
            letter.ProjectId = file.Id;
        act.Db.Letters.AddRange(letters);
        await act.Db.SaveChangesAsync();
        await act.RecordKeptAsync(
            file,
            Actor.Owner,
            [.. letters.Select(l => (l.At, (Happening)new Happening.LetterTakenOver(l.Id, fromClient(l.FromMail))))]
        );
    }

    /// <summary>A message as it reads; null for one that cannot be read.</summary>
    internal static IncomingLetter? Read(byte[] message)
    {
        try
        {
            return IncomingMail.Read(message);
        }
        catch (FormatException)
        {
            return null;
        }
    }

    private static async Task<LetterRow> RowAsync(
        Desk desk,
        byte[] message,
        IncomingLetter mail,
        CancellationToken stop
    )
    {
        var row = Incoming.RowOf(desk, mail, null);
        (row.State, row.At) = (LetterState.Kept, mail.Date is { } date && date < desk.Now ? date : desk.Now);
        (row.ToName, row.ToMail) = (mail.Recipients.FirstOrDefault() ?? "", mail.Recipients.FirstOrDefault() ?? "");
        (row.Files, row.Original) = (
            await Incoming.KeepAsync(desk, mail, stop),
            await Incoming.OriginalAsync(desk, message, stop)
        );
        return row;
    }
}
