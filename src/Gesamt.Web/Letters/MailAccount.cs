using System.Net;
using Gesamt.Formats.Mail;
using Gesamt.Store.Model;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Letters;

/// <param name="Password">Null keeps what is set; it is never sent out.</param>
public sealed record MailServerDto(
    string Host,
    int Port,
    MailSecurity Security,
    string User,
    string? Password,
    bool HasPassword = false
);

/// <param name="MayLeave">False for a demo, whose letters stay in its post office.</param>
/// <param name="Problem">What was wrong when the inbox was read last.</param>
public sealed record MailAccountDto(
    MailServerDto Smtp,
    MailServerDto Imap,
    int Edition,
    bool MayLeave,
    string? Problem
);

/// <param name="Part">What was tried: the server letters go to, or the inbox.</param>
public sealed record MailTestDto(string Part, bool Works, string Words);

/// <summary>The studio's mail servers: set, tested, taken away again.</summary>
public static class MailAccount
{
    public static void MapMailAccount(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/mail-account",
            async (Desk desk, MailRoom room) =>
                Of(await desk.Db.MailAccounts.AsNoTracking().SingleOrDefaultAsync(), room)
        );
        api.MapPut("/mail-account", SaveAsync);
        api.MapPost("/mail-account/test", TestAsync);
    }

    private static MailAccountDto Of(MailAccountRow? row, MailRoom room) =>
        new(
            new(
                row?.SmtpHost ?? "",
                row is { SmtpPort: > 0 } ? row.SmtpPort : 587,
                row?.SmtpSecurity ?? MailSecurity.StartTls,
                row?.SmtpUser ?? "",
                null,
                row is { SmtpPassword.Length: > 0 }
            ),
            new(
                row?.ImapHost ?? "",
                row is { ImapPort: > 0 } ? row.ImapPort : 993,
                row?.ImapSecurity ?? MailSecurity.Tls,
                row?.ImapUser ?? "",
                null,
                row is { ImapPassword.Length: > 0 }
            ),
            row?.Edition ?? 0,
            room.MayLeave,
            row?.Problem
        );

    /// <exception cref="InvalidException">A host, port or way is not as it must be; or the inbox cannot be opened, which must be seen to be read from here on.</exception>
    private static async Task<MailAccountDto> SaveAsync(
        MailAccountDto save,
        Desk desk,
        MailRoom room,
        CancellationToken stop
    )
    {
        if (!room.MayLeave)
            throw new RefusedException(
                "This is the demo: its people are made up, and its letters stay in its post office."
            );
        Check(save);
        var row = await desk.Db.MailAccounts.SingleOrDefaultAsync(stop);
        if ((row?.Edition ?? 0) != save.Edition)
            throw new StaleException(Of(row, room));
        var isNew = row is null;
        row ??= new();
        var otherInbox = (row.ImapHost, row.ImapUser) != (save.Imap.Host.Trim(), save.Imap.User.Trim());
        Fill(row, save, room);
        if (otherInbox && room.Imap(row) is { } server)
            try
            {
                // letters that lie in it already are not Gesamt's to file
                var end = await new ImapInbox(server).EndAsync(stop);
                (row.UidValidity, row.LastUid) = (end.Validity, end.LastUid);
            }
            catch (Exception e) when (!stop.IsCancellationRequested)
            {
                throw new InvalidException(("imap.host", server.Words(e)));
            }
        row.Edition++;
        row.Problem = null;
        if (isNew)
            desk.Db.MailAccounts.Add(row);
        await desk.Db.SaveChangesAsync(stop);
        if (row.SmtpHost is { Length: > 0 })
            await OpenSteps.DoneAsync(desk, FirstStep.Mail);
        return Of(row, room);
    }

    /// <summary>Tries what is typed in: a letter to the owner's own address, and a look into the inbox.</summary>
    private static async Task<IReadOnlyList<MailTestDto>> TestAsync(
        MailAccountDto account,
        Desk desk,
        MailRoom room,
        CancellationToken stop
    )
    {
        if (!room.MayLeave)
            throw new RefusedException(
                "This is the demo: its people are made up, and its letters stay in its post office."
            );
        Check(account);
        var row = await desk.Db.MailAccounts.AsNoTracking().SingleOrDefaultAsync(stop) ?? new();
        Fill(row, account, room);
        List<MailTestDto> tests = [];
        if (room.Smtp(row) is { } smtp)
        {
            var me = (desk.Studio.Owner, desk.Studio.Mail);
            var id = $"test-{Guid.NewGuid():n}@{desk.Studio.MailDomain}";
            var message = OutgoingMail.Compose(
                new(
                    me,
                    me,
                    desk.Studio.Mail,
                    "A test from Gesamt",
                    "Letters reach you through this server.",
                    id,
                    null,
                    desk.Now,
                    true
                )
            );
            tests.Add(
                await new SmtpCarrier(smtp).SendAsync(id, message, stop) switch
                {
                    HandOver.Accepted => new("letters out", true, $"{smtp.Host} took a letter to {desk.Studio.Mail}."),
                    HandOver.NotTaken no => new("letters out", false, no.Why),
                    HandOver.Refused no => new("letters out", false, no.Why),
                    HandOver.Unknown unknown => new("letters out", false, $"{smtp.Host} broke off: {unknown.Why}"),
                    _ => throw new InvalidOperationException("No such answer."),
                }
            );
        }
        if (room.Imap(row) is { } imap)
            tests.Add(await LookAsync(imap, stop));
        return tests;
    }

    private static async Task<MailTestDto> LookAsync(MailServer imap, CancellationToken stop)
    {
        try
        {
            await new ImapInbox(imap).EndAsync(stop);
            return new("letters in", true, $"The inbox of {imap.User} at {imap.Host} can be read.");
        }
        catch (Exception e) when (!stop.IsCancellationRequested)
        {
            return new("letters in", false, imap.Words(e));
        }
    }

    private static void Fill(MailAccountRow row, MailAccountDto save, MailRoom room)
    {
        (row.SmtpHost, row.SmtpPort, row.SmtpSecurity, row.SmtpUser) = (
            save.Smtp.Host.Trim(),
            save.Smtp.Port,
            save.Smtp.Security,
            save.Smtp.User.Trim()
        );
        (row.ImapHost, row.ImapPort, row.ImapSecurity, row.ImapUser) = (
            save.Imap.Host.Trim(),
            save.Imap.Port,
            save.Imap.Security,
            save.Imap.User.Trim()
        );
        if (save.Smtp.Password is { } smtp)
            row.SmtpPassword = room.Protect(smtp);
        if (save.Imap.Password is { } imap)
            row.ImapPassword = room.Protect(imap);
    }

    private static void Check(MailAccountDto save)
    {
        List<(string, string)> errors = [];
        foreach (var (name, server) in new[] { ("smtp", save.Smtp), ("imap", save.Imap) })
        {
            if (server.Host.Trim().Length == 0)
                continue;
            if (server.Host.Trim().Length > 200 || Uri.CheckHostName(server.Host.Trim()) == UriHostNameType.Unknown)
                errors.Add(($"{name}.host", "A server's name, such as mail.place.example."));
            if (server.Port is < 1 or > 65_535)
                errors.Add(($"{name}.port", "A port from 1 to 65535."));
            if (server.Security == MailSecurity.None && !IsHere(server.Host.Trim()))
                errors.Add(($"{name}.security", "Without secrecy only a server on this machine is spoken to."));
        }
        if (save.Imap.Host.Trim().Length > 0 && save.Smtp.Host.Trim().Length == 0)
            errors.Add(
                (
                    "smtp.host",
                    "Letters that come in are answered through a server of your own: give one for letters out, too."
                )
            );
        if (save.Imap.Host.Trim().Length > 0 && save.Imap.User.Trim().Length == 0)
            errors.Add(("imap.user", "The user whose inbox is read."));
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
    }

    private static bool IsHere(string host) =>
        host == "localhost" || IPAddress.TryParse(host, out var address) && IPAddress.IsLoopback(address);
}
