using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;

namespace Gesamt.Web.Tests;

/// <summary>Real mail servers on this machine, from Debian's packages: aiosmtpd puts what it takes into a Maildir that dovecot serves as an inbox.</summary>
public sealed class MailServers : IDisposable
{
    public const string Password = "harbour light";
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    private readonly string folder = Directory.CreateTempSubdirectory("gesamt-mail").FullName;
    private readonly Process imap;
    private Process? smtp;

    public int SmtpPort { get; } = FreePort();
    public int ImapPort { get; } = FreePort();

    public MailServers()
    {
        File.WriteAllText(Path.Combine(folder, "dovecot.conf"), Configuration());
        foreach (var part in new[] { "run", "state" })
            Directory.CreateDirectory(Path.Combine(folder, part));
        StartSmtp();
        // the servers read mail as somebody who is not root
        if (IsRoot)
            Run("chown", "-R", "nobody", folder);
        Run("chmod", "-R", "a+rwX", folder);
        imap = Start("dovecot", "-F", "-c", Path.Combine(folder, "dovecot.conf"));
        WaitFor(ImapPort, imap);
    }

    private static bool IsRoot => Environment.UserName == "root";

    public void StartSmtp()
    {
        var mail = Path.Combine(folder, "mail");
        Directory.CreateDirectory(mail);
        if (IsRoot)
            Run("chown", "nobody", mail);
        string[] user = IsRoot ? [] : ["-n"];
        smtp = Start(
            "/usr/bin/python3",
            [
                "-m",
                "aiosmtpd",
                .. user,
                "-c",
                "aiosmtpd.handlers.Mailbox",
                "-l",
                $"127.0.0.1:{SmtpPort.ToString(CultureInfo.InvariantCulture)}",
                Path.Combine(mail, "box"),
            ]
        );
        WaitFor(SmtpPort, smtp);
    }

    public void StopSmtp()
    {
        smtp?.Kill();
        smtp?.WaitForExit();
        smtp?.Dispose();
        smtp = null;
    }

    private string Configuration() =>
        $$"""
            base_dir = {{folder}}/run
            state_dir = {{folder}}/state
            log_path = {{folder}}/dovecot.log
            protocols = imap
            listen = 127.0.0.1
            ssl = no
            disable_plaintext_auth = no
            mail_location = maildir:{{folder}}/mail/box
            default_internal_user = {{(IsRoot ? "nobody" : Environment.UserName)}}
            default_internal_group = {{(IsRoot ? "nogroup" : Environment.UserName)}}
            default_login_user = {{(IsRoot ? "nobody" : Environment.UserName)}}
            passdb {
              driver = static
              args = password={{Password.Replace(" ", "", StringComparison.Ordinal)}}
            }
            userdb {
              driver = static
              args = uid={{(IsRoot ? "nobody" : Environment.UserName)}} gid={{(
                IsRoot ? "nogroup" : Environment.UserName
            )}} home={{folder}}/mail
            }
            first_valid_gid = 0
            service imap-login {
              chroot =
              inet_listener imap {
                port = {{ImapPort.ToString(CultureInfo.InvariantCulture)}}
              }
              inet_listener imaps {
                port = 0
              }
            }
            service anvil {
              chroot =
            }
            service stats {
              chroot =
            }
            """;

    private static Process Start(string program, params string[] arguments) =>
        Process.Start(
            new ProcessStartInfo(program, arguments) { RedirectStandardError = true, RedirectStandardOutput = true }
        ) ?? throw new InvalidOperationException($"{program} does not start.");

    private static void Run(string program, params string[] arguments)
    {
        using var process = Start(program, arguments);
        process.WaitForExit();
    }

    private void WaitFor(int port, Process server)
    {
        var until = Stopwatch.StartNew();
        while (until.Elapsed < Patience)
        {
            try
            {
                using var client = new TcpClient();
                client.Connect(IPAddress.Loopback, port);
                return;
            }
            catch (SocketException)
            {
                if (server.HasExited)
                    break;
                Thread.Yield();
            }
        }
        throw new InvalidOperationException(
            $"A mail server does not come up: {(server.HasExited ? server.StandardError.ReadToEnd() : "no answer")} {(File.Exists(Path.Combine(folder, "dovecot.log")) ? File.ReadAllText(Path.Combine(folder, "dovecot.log")) : "")}"
        );
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    public void Dispose()
    {
        StopSmtp();
        // its own children end with it
        Run("kill", "-TERM", imap.Id.ToString(CultureInfo.InvariantCulture));
        imap.WaitForExit(TimeSpan.FromSeconds(10));
        imap.Dispose();
        Directory.Delete(folder, recursive: true);
    }
}
