using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Letters;

/// <summary>Hands letters to the mail server that is set, and reads its inbox; the stand-in post office where none is.</summary>
public sealed class MailRoom(
    IServiceScopeFactory scopes,
    IStandInMail office,
    IDataProtectionProvider protection,
    Settings settings,
    TimeProvider time,
    ILogger<MailRoom> log
) : ICarrier, IMailbox
{
    private static readonly TimeSpan Back = TimeSpan.FromDays(7);
    private static readonly Duration Often = Duration.FromSeconds(50);

    private readonly IDataProtector passwords = protection.CreateProtector("mail-passwords");
    private Instant lookedAt = Instant.MinValue;
    private long validity;

    /// <summary>A demo's people are made up, so its letters never leave the house.</summary>
    public bool MayLeave => settings.Mode != RunMode.Demo;

    /// <summary>Said where letters are written, while they reach nobody; null once a mail server is set.</summary>
    public async Task<string?> WhyItStaysAsync(CancellationToken stop) =>
        settings.Mode != RunMode.Real || Smtp(await AccountAsync(stop)) is not null
            ? null
            : "Your mail is not set yet: this letter stays in the program’s own post office and reaches nobody.";

    public string Protect(string password) => password.Length == 0 ? "" : passwords.Protect(password);

    /// <inheritdoc/>
    public async Task<HandOver> SendAsync(string messageId, byte[] message, CancellationToken stop) =>
        await (Smtp(await AccountAsync(stop)) is { } server ? new SmtpCarrier(server) : (ICarrier)office).SendAsync(
            messageId,
            message,
            stop
        );

    /// <inheritdoc/>
    public async Task<bool?> KnowsAsync(string messageId, CancellationToken stop) =>
        await (Smtp(await AccountAsync(stop)) is { } server ? new SmtpCarrier(server) : (ICarrier)office).KnowsAsync(
            messageId,
            stop
        );

    /// <inheritdoc/>
    public async Task<IReadOnlyList<(long Number, byte[] Message)>> FetchAsync(CancellationToken stop)
    {
        var account = await AccountAsync(stop);
        if (Imap(account) is not { } server)
            return Smtp(account) is null ? await office.FetchAsync(stop) : [];
        if (time.Now() - lookedAt < Often)
            return [];
        lookedAt = time.Now();
        try
        {
            var (now, messages) = await new ImapInbox(server).FetchAsync(
                new(account!.UidValidity, account.LastUid),
                (time.GetUtcNow() - Back).UtcDateTime,
                stop
            );
            validity = now;
            await TellAsync(null, stop);
            return messages;
        }
        catch (Exception e) when (!stop.IsCancellationRequested)
        {
            log.LogWarning("The inbox cannot be read: {Why}", server.Words(e));
            await TellAsync(server.Words(e), stop);
            return [];
        }
    }

    /// <inheritdoc/>
    public async Task FiledAsync(long number, CancellationToken stop)
    {
        if (Imap(await AccountAsync(stop)) is null)
            await office.FiledAsync(number, stop);
        else
            await InDbAsync(db =>
                db.MailAccounts.ExecuteUpdateAsync(
                    set => set.SetProperty(a => a.LastUid, number).SetProperty(a => a.UidValidity, validity),
                    stop
                )
            );
    }

    /// <summary>The server letters are handed to; null for the post office.</summary>
    public MailServer? Smtp(MailAccountRow? account) =>
        !MayLeave ? null
        : account is { SmtpHost.Length: > 0 }
            ? new(
                account.SmtpHost,
                account.SmtpPort,
                account.SmtpSecurity,
                account.SmtpUser.Length > 0 ? account.SmtpUser : null,
                Open(account.SmtpPassword)
            )
        : settings.Smtp is { } set
            ? new(
                set.Host,
                set.Port,
                set.Tls
                    ? set.Port == 465
                        ? MailSecurity.Tls
                        : MailSecurity.StartTls
                    : MailSecurity.None,
                set.User,
                set.Password
            )
        : null;

    /// <summary>The inbox that is read; null for the post office, or none.</summary>
    public MailServer? Imap(MailAccountRow? account) =>
        MayLeave && account is { ImapHost.Length: > 0 }
            ? new(
                account.ImapHost,
                account.ImapPort,
                account.ImapSecurity,
                account.ImapUser,
                Open(account.ImapPassword)
            )
            : null;

    private string? Open(string password) => password.Length == 0 ? null : passwords.Unprotect(password);

    private Task<MailAccountRow?> AccountAsync(CancellationToken stop) =>
        InDbAsync(db => db.MailAccounts.AsNoTracking().SingleOrDefaultAsync(stop));

    private Task TellAsync(string? problem, CancellationToken stop) =>
        InDbAsync(db =>
            db.MailAccounts.Where(a => a.Problem != problem)
                .ExecuteUpdateAsync(set => set.SetProperty(a => a.Problem, problem), stop)
        );

    private async Task<T> InDbAsync<T>(Func<GesamtDb, Task<T>> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await act(scope.ServiceProvider.GetRequiredService<GesamtDb>());
    }
}
