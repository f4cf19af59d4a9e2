using System.Net;
using System.Net.Sockets;
using System.Text;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Tests;

/// <summary>The real carrier against a small server of RFC 5321.</summary>
public sealed class SmtpTests
{
    private static readonly byte[] Message = Gesamt.Formats.Mail.OutgoingMail.Compose(
        new(
            ("Isolde", "isolde@studio.example"),
            ("Mona", "mona@lanternhouse.example"),
            "p1@studio.example",
            "Hello",
            "Hello\n.\nthere",
            "one@studio.example",
            null,
            Instant.FromUtc(2027, 1, 25, 10, 30),
            false
        )
    );

    [Fact]
    public async Task A_message_arrives_whole()
    {
        var (port, seen) = Serve(_ => null);
        Assert.IsType<HandOver.Accepted>(
            await Carrier(port).SendAsync("one@studio.example", Message, TestContext.Current.CancellationToken)
        );
        Assert.Contains("Message-Id: <one@studio.example>", (await seen), StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task A_recipient_refused_for_good_is_not_tried_again()
    {
        var (port, _) = Serve(command =>
            command.StartsWith("RCPT", StringComparison.Ordinal) ? "550 nobody here" : null
        );
        var answer = Assert.IsType<HandOver.Refused>(
            await Carrier(port).SendAsync("one@studio.example", Message, TestContext.Current.CancellationToken)
        );
        Assert.Contains("nobody here", answer.Why);
    }

    [Fact] // RFC 5321, 4.2.1: a code beginning with 4 may be taken another time
    public async Task A_recipient_refused_for_now_may_be_tried_again()
    {
        var (port, _) = Serve(command => command.StartsWith("RCPT", StringComparison.Ordinal) ? "451 later" : null);
        Assert.IsType<HandOver.NotTaken>(
            await Carrier(port).SendAsync("one@studio.example", Message, TestContext.Current.CancellationToken)
        );
    }

    [Fact]
    public async Task A_server_that_is_not_there_took_nothing()
    {
        using var closed = new TcpListener(IPAddress.Loopback, 0);
        closed.Start();
        var port = ((IPEndPoint)closed.LocalEndpoint).Port;
        closed.Stop();
        Assert.IsType<HandOver.NotTaken>(
            await Carrier(port).SendAsync("one@studio.example", Message, TestContext.Current.CancellationToken)
        );
    }

    [Fact] // the line breaks after the data: it may have gone out, and is never tried again by itself
    public async Task A_line_that_breaks_after_the_data_is_unknown()
    {
        var (port, _) = Serve(command => command == "." ? "" : null);
        Assert.IsType<HandOver.Unknown>(
            await Carrier(port).SendAsync("one@studio.example", Message, TestContext.Current.CancellationToken)
        );
        Assert.Null(await Carrier(port).KnowsAsync("one@studio.example", TestContext.Current.CancellationToken));
    }

    private static SmtpCarrier Carrier(int port) =>
        new(new("127.0.0.1", port, Gesamt.Store.Model.MailSecurity.None, null, null));

    /// <summary>Answers one connection; an own answer of "" hangs up.</summary>
    private static (int Port, Task<string> Seen) Serve(Func<string, string?> own)
    {
        var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return (((IPEndPoint)listener.LocalEndpoint).Port, ServeAsync(listener, own));
    }

    private static async Task<string> ServeAsync(TcpListener listener, Func<string, string?> own)
    {
        using var client = await listener.AcceptTcpClientAsync();
        listener.Stop();
        client.NoDelay = true;
        await using var stream = client.GetStream();
        using var reader = new StreamReader(stream, Encoding.Latin1);
        var (seen, inData) = (new StringBuilder(), false);
        async Task SayAsync(string line) => await stream.WriteAsync(Encoding.ASCII.GetBytes(line + "\r\n"));
        await SayAsync("220 test");
        while (await reader.ReadLineAsync() is { } line)
        {
            if (inData && line != ".")
            {
                seen.AppendLine(line);
                continue;
            }
            if (own(line) is { } answer)
            {
                if (answer.Length == 0)
                    break;
                await SayAsync(answer);
                continue;
            }
            inData = line == "DATA";
            if (line == "QUIT")
            {
                await SayAsync("221 bye");
                break;
            }
            await SayAsync(inData ? "354 go on" : "250 ok");
        }
        return seen.ToString();
    }
}
