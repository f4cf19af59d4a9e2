using Gesamt.Store.Model;
using MailKit;
using MailKit.Net.Imap;
using MailKit.Net.Smtp;
using MailKit.Search;
using MailKit.Security;
using MimeKit;

namespace Gesamt.Web.Letters;

/// <summary>What a carrier answers when a message is handed over.</summary>
public abstract record HandOver
{
    private HandOver() { }

    /// <summary>The server has it.</summary>
    public sealed record Accepted : HandOver;

    /// <summary>Certainly not taken; it may be tried again.</summary>
    public sealed record NotTaken(string Why) : HandOver;

    /// <summary>Certainly not taken, and it would not be another time (RFC 5321, 4.2.1: a code beginning with 5).</summary>
    public sealed record Refused(string Why) : HandOver;

    /// <summary>The connection broke where nobody can tell.</summary>
    public sealed record Unknown(string Why) : HandOver;
}

/// <summary>Takes finished messages out of the house.</summary>
public interface ICarrier
{
    Task<HandOver> SendAsync(string messageId, byte[] message, CancellationToken stop);

    /// <summary>Whether it once took a message of that Message-ID; null when it cannot tell, as SMTP cannot.</summary>
    Task<bool?> KnowsAsync(string messageId, CancellationToken stop);
}

/// <summary>Where answers come in.</summary>
public interface IMailbox
{
    /// <summary>Messages not yet fetched, oldest first.</summary>
    Task<IReadOnlyList<(long Number, byte[] Message)>> FetchAsync(CancellationToken stop);

    /// <summary>That a message was filed and need not be fetched again.</summary>
    Task FiledAsync(long number, CancellationToken stop);
}

/// <summary>The mail of a studio that has set no server.</summary>
public interface IStandInMail : ICarrier, IMailbox;

/// <summary>A line to a mail server.</summary>
public sealed record MailServer(string Host, int Port, MailSecurity Security, string? User, string? Password)
{
    /// <summary>How the connection is secured, in the library’s terms.</summary>
    public SecureSocketOptions Options =>
        Security switch
        {
            MailSecurity.Tls => SecureSocketOptions.SslOnConnect,
            MailSecurity.StartTls => SecureSocketOptions.StartTls,
            _ => SecureSocketOptions.None,
        };

    /// <summary>What went wrong with it, in words that say what to look at.</summary>
    public string Words(Exception e) =>
        e switch
        {
            AuthenticationException => $"{Host} does not accept this user and password.",
            SslHandshakeException =>
                $"{Host} cannot be spoken with in secret on port {Port}: its certificate is not trusted, or the port is for another way. {(Security == MailSecurity.Tls ? "STARTTLS" : "TLS")} may be what it wants.",
            NotSupportedException when Security == MailSecurity.StartTls =>
                $"{Host} offers no STARTTLS on port {Port}.",
            System.Net.Sockets.SocketException
            {
                SocketErrorCode: System.Net.Sockets.SocketError.HostNotFound
                    or System.Net.Sockets.SocketError.NoData
                    or System.Net.Sockets.SocketError.TryAgain
            } => $"There is no server of the name {Host}.",
            System.Net.Sockets.SocketException => $"{Host} does not answer on port {Port}.",
            TimeoutException or OperationCanceledException => $"{Host} does not answer in time on port {Port}.",
            _ => $"{Host}: {e.Message}",
        };
}

/// <summary>A real mail server (RFC 5321), by MailKit.</summary>
public sealed class SmtpCarrier(MailServer server) : ICarrier
{
    private const int TimeoutMilliseconds = 20_000,
        FirstPermanentCode = 500;

    /// <inheritdoc/>
    public async Task<HandOver> SendAsync(string messageId, byte[] message, CancellationToken stop)
    {
        using var client = new SmtpClient { Timeout = TimeoutMilliseconds, CheckCertificateRevocation = false };
        try
        {
            await ConnectAsync(client, stop);
        }
        catch (Exception e) when (e is not OperationCanceledException || !stop.IsCancellationRequested)
        {
            return new HandOver.NotTaken(server.Words(e));
        }
        try
        {
            using var stream = new MemoryStream(message);
            await client.SendAsync(await MimeMessage.LoadAsync(stream, stop), stop);
            await client.DisconnectAsync(true, stop);
            return new HandOver.Accepted();
        }
        catch (SmtpCommandException refused)
        {
            var words = $"{server.Host} refused it: {refused.Message}";
            return (int)refused.StatusCode >= FirstPermanentCode
                ? new HandOver.Refused(words)
                : new HandOver.NotTaken(words);
        }
        catch (Exception e) when (e is not OperationCanceledException || !stop.IsCancellationRequested)
        {
            // the message may have been taken before the line broke
            return new HandOver.Unknown(e.Message);
        }
    }

    /// <inheritdoc/>
    public Task<bool?> KnowsAsync(string messageId, CancellationToken stop) => Task.FromResult<bool?>(null);

    private async Task ConnectAsync(SmtpClient client, CancellationToken stop)
    {
        await client.ConnectAsync(server.Host, server.Port, server.Options, stop);
        if (server.User is { } user)
            await client.AuthenticateAsync(user, server.Password ?? "", stop);
    }
}

/// <summary>How far an inbox was read.</summary>
/// <param name="Validity">UIDVALIDITY: numbers of another one mean other messages (RFC 3501, 2.3.1.1).</param>
public sealed record InboxMark(long Validity, long LastUid);

/// <summary>A real inbox (RFC 3501), by MailKit. It is only read: nothing in it is changed or marked.</summary>
public sealed class ImapInbox(MailServer server)
{
    private const int TimeoutMilliseconds = 20_000,
        Most = 50;

    /// <summary>Where the inbox ends now: what lies in it is not fetched.</summary>
    public async Task<InboxMark> EndAsync(CancellationToken stop)
    {
        using var client = await OpenAsync(stop);
        return new(client.Inbox!.UidValidity, (client.Inbox.UidNext?.Id ?? 1) - 1);
    }

    /// <summary>Up to 50 messages behind a mark, oldest first. Where the server numbers anew, those delivered after <paramref name="since"/>; known ones are told by their Message-ID.</summary>
    public async Task<(long Validity, IReadOnlyList<(long Uid, byte[] Message)> Messages)> FetchAsync(
        InboxMark from,
        DateTime since,
        CancellationToken stop
    )
    {
        using var client = await OpenAsync(stop);
        var inbox = client.Inbox!;
        var anew = inbox.UidValidity != from.Validity;
        // a range that ends in “*” names the last message even when it lies before its beginning
        var found = anew
            ? await inbox.SearchAsync(SearchQuery.DeliveredAfter(since), stop)
            : await inbox.SearchAsync(
                SearchQuery.Uids(new UniqueIdRange(new UniqueId((uint)from.LastUid + 1), UniqueId.MaxValue)),
                stop
            );
        List<(long, byte[])> messages = [];
        foreach (var uid in found.Where(uid => anew || uid.Id > from.LastUid).OrderBy(uid => uid.Id).Take(Most))
        {
            await using var stream = await inbox.GetStreamAsync(uid, stop);
            using var bytes = new MemoryStream();
            await stream.CopyToAsync(bytes, stop);
            messages.Add((uid.Id, bytes.ToArray()));
        }
        await client.DisconnectAsync(true, stop);
        return (inbox.UidValidity, messages);
    }

    private async Task<ImapClient> OpenAsync(CancellationToken stop)
    {
        var client = new ImapClient { Timeout = TimeoutMilliseconds, CheckCertificateRevocation = false };
        try
        {
            await client.ConnectAsync(server.Host, server.Port, server.Options, stop);
            await client.AuthenticateAsync(server.User ?? "", server.Password ?? "", stop);
            await client.Inbox!.OpenAsync(FolderAccess.ReadOnly, stop);
            return client;
        }
        catch (Exception)
        {
            client.Dispose();
            throw;
        }
    }
}
