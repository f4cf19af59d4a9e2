using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Letters;

/// <summary>What a carrier answers when a message is handed over.</summary>
public abstract record HandOver
{
    private HandOver() { }

    public sealed record Accepted : HandOver;

    /// <summary>Certainly not taken; it may be tried again.</summary>
    public sealed record NotTaken(string Why) : HandOver;

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

/// <summary>A real mail server (RFC 5321), by MailKit.</summary>
public sealed class SmtpCarrier(SmtpSettings settings) : ICarrier
{
    private const int TimeoutMilliseconds = 20_000;

    public async Task<HandOver> SendAsync(string messageId, byte[] message, CancellationToken stop)
    {
        using var client = new SmtpClient { Timeout = TimeoutMilliseconds };
        try
        {
            await client.ConnectAsync(settings.Host, settings.Port, settings.Tls ? SecureSocketOptions.Auto : SecureSocketOptions.None, stop);
            if (settings.User is { } user) await client.AuthenticateAsync(user, settings.Password ?? "", stop);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            return new HandOver.NotTaken($"The mail server {settings.Host} did not answer: {e.Message}");
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
            return new HandOver.NotTaken($"The mail server refused it: {refused.Message}");
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // the message may have been taken before the line broke
            return new HandOver.Unknown(e.Message);
        }
    }

    public Task<bool?> KnowsAsync(string messageId, CancellationToken stop) => Task.FromResult<bool?>(null);
}

/// <summary>For a real mail server without incoming mail set up: nothing comes in.</summary>
public sealed class NoMailbox : IMailbox
{
    public Task<IReadOnlyList<(long, byte[])>> FetchAsync(CancellationToken stop) => Task.FromResult<IReadOnlyList<(long, byte[])>>([]);

    public Task FiledAsync(long number, CancellationToken stop) => Task.CompletedTask;
}
