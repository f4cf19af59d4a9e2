using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Letters;
using Gesamt.Core.Stages;
using Gesamt.Formats.Calendars;
using Gesamt.Formats.Mail;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Letters;

/// <summary>Fetches what came in and files it; what belongs nowhere waits and is on no client's page.</summary>
public sealed class Incoming(IServiceScopeFactory scopes, IMailbox mailbox, ILogger<Incoming> log)
{
    /// <summary>Fetches and files what is new; a message that cannot be read is put aside whole.</summary>
    public async Task FetchAsync(CancellationToken stop)
    {
        foreach (var (number, message) in await mailbox.FetchAsync(stop))
        {
            try
            {
                await FileAsync(message, IncomingMail.Read(message), stop);
            }
            catch (Exception e) when (!IsOfTheHouse(e) && !stop.IsCancellationRequested)
            {
                log.LogWarning("Message {Number} of the mailbox is put aside whole: {Why}", number, e.Message);
                await FileAsync(message, Unread(message), stop);
            }
            await mailbox.FiledAsync(number, stop);
        }
    }

    /// <summary>Whether it is no fault of the message: a full disk or a locked database passes, and the message stays in the mailbox until then.</summary>
    private static bool IsOfTheHouse(Exception e) =>
        e is IOException or UnauthorizedAccessException
        || e.GetBaseException() is Microsoft.Data.Sqlite.SqliteException { SqliteErrorCode: not SqliteConstraint };

    private const int SqliteConstraint = 19;

    /// <summary>A message that cannot be read, as it came: it lies in the tray with itself as its file, and is told once however often it is fetched.</summary>
    private static IncomingLetter Unread(byte[] message) =>
        new(
            "Not known",
            "",
            [],
            "A message that cannot be read",
            "It is kept whole in the file beside this. Open it with a mail program.",
            $"unread-{Core.Papers.CanonicalJson.Hash(message)}@gesamt.invalid",
            null,
            [],
            null,
            Automatic: true,
            [IncomingMail.Whole(message)]
        );

    private async Task FileAsync(byte[] message, IncomingLetter incoming, CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var (original, files) = (await OriginalAsync(desk, message, stop), await KeepAsync(desk, incoming, stop));
        var unnamed = UnnamedMessageId.Of(incoming.MessageId);
        await desk.ActAsync(async act =>
        {
            // fetched twice is filed once
            if (await desk.Db.Letters.AnyAsync(l => l.MessageId == incoming.MessageId || l.MessageId == unnamed, stop))
                return;
            var filed = Filing.Of(incoming.Marks, new Index(desk.Db, desk.Studio.MailDomain));
            var letter = RowOf(desk, incoming, filed.Project);
            (letter.Files, letter.Original) = (files, original);
            letter.Automatic |= await RepliedAsync(desk, incoming);
            desk.Db.Letters.Add(letter);
            await desk.Db.SaveChangesAsync(stop);
            if (filed.Project is { } project)
            {
                var file = await desk.OpenAsync(project);
                await act.RecordAtAsync(
                    file,
                    Actor.Client,
                    ArrivedAt(file, letter),
                    [
                        new Happening.LetterReceived(letter.Id, letter.Automatic),
                        .. await FilesAsync(desk, project, letter),
                    ]
                );
            }
        });
    }

    /// <summary>When a letter arrived, as a fact of its project: never before the project began.</summary>
    public static Instant ArrivedAt(ProjectFile file, LetterRow letter) =>
        file.History.Began is { } began && letter.At < began ? began : letter.At;

    /// <summary>Keeps a message byte for byte.</summary>
    public static async Task<string> OriginalAsync(Desk desk, byte[] message, CancellationToken stop)
    {
        using var content = new MemoryStream(message);
        return (await desk.Vault.KeepAsync(content, IncomingMail.MostBytes * 2L, stop)).Hash;
    }

    /// <summary>What a calendar program answers to an invitation stands with the meeting; a mere yes asks nothing of the owner.</summary>
    /// <returns>Whether it was such a yes.</returns>
    private static async Task<bool> RepliedAsync(Desk desk, IncomingLetter incoming)
    {
        if (
            incoming.Reply is null
            || Invitations.ReplyIn(incoming.Reply) is not { } reply
            || await desk.Db.Meetings.FirstOrDefaultAsync(m => m.Uid == reply.Uid) is not { } meeting
        )
            return false;
        meeting.Reply = reply.Attendance switch
        {
            Attendance.Accepted => MeetingReply.Accepted,
            Attendance.Declined => MeetingReply.Declined,
            Attendance.Tentative => MeetingReply.Tentative,
            _ => meeting.Reply,
        };
        return reply.Attendance == Attendance.Accepted;
    }

    /// <summary>Takes the files of a message into the vault; what is of no kind that is kept is left out.</summary>
    public static async Task<List<LetterFileRow>> KeepAsync(Desk desk, IncomingLetter incoming, CancellationToken stop)
    {
        List<LetterFileRow> files = [];
        foreach (var file in incoming.Files)
            try
            {
                using var content = new MemoryStream(file.Content);
                // a message that goes with its letter is kept whatever its bytes look like
                var (name, hash, size, type) =
                    file.Type == "message/rfc822"
                        ? await KeptFiles.TakeMessageAsync(desk.Vault, file.Name, content, stop)
                        : await KeptFiles.TakeAsync(desk.Vault, file.Name, content, stop);
                files.Add(
                    new()
                    {
                        Name = name,
                        Hash = hash,
                        Size = size,
                        Type = type,
                    }
                );
            }
            catch (Exception e) when (e is InvalidException or Store.Files.FileTooLargeException)
            {
                // the letter itself is worth more than one part of it
            }
        return files;
    }

    /// <summary>Files that came with a letter become the project's.</summary>
    public static async Task<IReadOnlyList<Happening>> FilesAsync(Desk desk, ProjectId project, LetterRow letter)
    {
        var rows = letter
            .Files.Select(file => new FileRow
            {
                ProjectId = project,
                PublicId = Codes.New() + Codes.New(),
                Group = FileGroup.Supplied,
                Name = file.Name,
                Hash = file.Hash,
                Size = file.Size,
                Type = file.Type,
                At = desk.Now,
                By = Actor.Client,
            })
            .ToList();
        desk.Db.Files.AddRange(rows);
        await desk.Db.SaveChangesAsync();
        return [.. rows.Select(row => new Happening.FileKept(row.Id, row.Group))];
    }

    /// <summary>A letter as it came in, filed or not yet.</summary>
    public static LetterRow RowOf(Desk desk, IncomingLetter incoming, ProjectId? project)
    {
        var (own, quoted) = QuotedText.Split(incoming.Text);
        return new()
        {
            ProjectId = project,
            State = project is null ? LetterState.Unfiled : LetterState.Received,
            FromName = incoming.FromName,
            FromMail = incoming.FromAddress,
            ToName = desk.Studio.Owner,
            ToMail = desk.Studio.Mail,
            Subject = incoming.Subject,
            Body = own,
            Quoted = quoted,
            At = incoming.Arrived is { } arrived && arrived < desk.Now ? arrived : desk.Now,
            MessageId = incoming.MessageId,
            InReplyTo = incoming.InReplyTo,
            Automatic = incoming.Automatic,
            HasHtml = incoming.HasHtml,
        };
    }

    /// <summary>What the studio's rows tell of where letters belong.</summary>
    public sealed class Index(GesamtDb db, string domain) : IFilingIndex
    {
        public ProjectId? ByMessageId(string messageId) =>
            db.Letters.Where(l => l.MessageId == messageId).Select(l => l.ProjectId).FirstOrDefault();

        public ProjectId? ByReplyAddress(string address)
        {
            if (!address.EndsWith($"@{domain}", StringComparison.OrdinalIgnoreCase))
                return null;
            var code = address[..address.IndexOf('@')];
            return db.Projects.Where(p => p.Code == code).Select(p => (ProjectId?)p.Id).FirstOrDefault();
        }

        public IReadOnlyList<ProjectId> OpenProjectsOf(string address) =>
            [
                .. db
                    .Projects.Where(p =>
                        (
                            p.Client!.Mail == address
                            || p.People.Any(one => one.Person!.Mail == address)
                            || db.People.Any(one => one.Mail == address && one.MergedInto == p.ClientId)
                        )
                        && p.Standing.Ended == null
                        && p.Standing.Stage != Stage.Finished
                    )
                    .Select(p => p.Id),
            ];
    }
}
