using System.Security.Claims;
using System.Security.Cryptography;
using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.SignIn;

/// <summary>A browser that is signed in.</summary>
/// <param name="This">Whether it is the one that asks.</param>
public sealed record OpenSessionDto(int Id, string Browser, string Address, string Began, string Seen, bool This);

/// <summary>The browsers the owner is signed in with. A session that has ended opens nothing, whoever kept its cookie.</summary>
public static class Sessions
{
    public const string Claim = "session";

    /// <summary>How long one lives without being used.</summary>
    public static readonly Duration Life = Duration.FromDays(14);

    private static readonly Duration Often = Duration.FromMinutes(5);

    public static void MapSessions(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/sessions",
            async (Desk desk, HttpContext http) =>
            {
                var name = NameOf(http.User);
                var since = desk.Now - Life;
                return (
                    await desk
                        .Db.Sessions.AsNoTracking()
                        .Where(s => s.EndedAt == null && s.SeenAt > since)
                        .OrderByDescending(s => s.SeenAt)
                        .ToListAsync()
                )
                    .Select(s => new OpenSessionDto(
                        s.Id,
                        BrowserOf(s.Agent),
                        s.Address,
                        desk.Precisely(s.Began),
                        desk.Precisely(s.SeenAt),
                        s.Name == name
                    ))
                    .ToList();
            }
        );
        api.MapDelete(
            "/sessions/{id:int}",
            async (int id, Desk desk) =>
            {
                var now = desk.Now;
                if (
                    await desk
                        .Db.Sessions.Where(s => s.Id == id && s.EndedAt == null)
                        .ExecuteUpdateAsync(set => set.SetProperty(s => s.EndedAt, now)) == 0
                )
                    throw new MissingException("session");
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>Begins a session; returns its name in the cookie.</summary>
    public static async Task<string> BeginAsync(Desk desk, HttpContext http)
    {
        var name = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        desk.Db.Sessions.Add(
            new()
            {
                Name = name,
                Began = desk.Now,
                SeenAt = desk.Now,
                Agent = ShortText.Of(http.Request.Headers.UserAgent.ToString(), 160),
                Address = http.VisitorAddress(),
            }
        );
        var old = desk.Now - Life - Life;
        await desk.Db.SaveChangesAsync();
        await desk.Db.Sessions.Where(s => s.SeenAt < old).ExecuteDeleteAsync();
        return name;
    }

    /// <summary>Ends this one.</summary>
    public static async Task EndAsync(GesamtDb db, ClaimsPrincipal user, Instant now)
    {
        if (NameOf(user) is { } name)
            await db
                .Sessions.Where(s => s.Name == name)
                .ExecuteUpdateAsync(set => set.SetProperty(s => s.EndedAt, now));
    }

    /// <summary>Ends all, on every device.</summary>
    public static Task EndAllAsync(GesamtDb db, Instant now) =>
        db.Sessions.Where(s => s.EndedAt == null).ExecuteUpdateAsync(set => set.SetProperty(s => s.EndedAt, now));

    // asked with every request, so it is made ready once
    private static readonly Func<GesamtDb, string, string, Task<SessionRow?>> Named = EF.CompileAsyncQuery(
        (GesamtDb db, string name, string stamp) =>
            db
                .Sessions.AsNoTracking()
                .SingleOrDefault(s => s.Name == name && db.Studio.Any(studio => studio.SecurityStamp == stamp))
    );

    /// <summary>Whether the session of a cookie is still open; notes now and then that it was used.</summary>
    /// <param name="stamp">The studio's stamp as the cookie has it; another one signs every browser out.</param>
    public static async Task<bool> IsOpenAsync(GesamtDb db, ClaimsPrincipal? user, string stamp, Instant now)
    {
        if (NameOf(user) is not { } name || await Named(db, name, stamp) is not { EndedAt: null } session)
            return false;
        if (now - session.SeenAt > Often)
            try
            {
                await db
                    .Sessions.Where(s => s.Id == session.Id)
                    .ExecuteUpdateAsync(set => set.SetProperty(s => s.SeenAt, now));
            }
            catch (Microsoft.Data.Sqlite.SqliteException)
            {
                // a disk that is full must not sign the owner out
            }
        return true;
    }

    // the order matters: every one of them claims to be one of the later
    private static readonly (string Mark, string Words)[] Browsers =
    [
        ("Edg/", "Edge"),
        ("OPR/", "Opera"),
        ("Firefox/", "Firefox"),
        ("Chrome/", "Chrome"),
        ("Safari/", "Safari"),
    ];
    private static readonly (string Mark, string Words)[] Systems =
    [
        ("iPhone", "an iPhone"),
        ("iPad", "an iPad"),
        ("Android", "Android"),
        ("Windows", "Windows"),
        ("Mac OS X", "a Mac"),
        ("Linux", "Linux"),
    ];

    /// <summary>“Firefox on Linux”, as far as a browser says what it is.</summary>
    private static string BrowserOf(string agent)
    {
        var (browser, system) = (
            Browsers.FirstOrDefault(one => agent.Contains(one.Mark, StringComparison.Ordinal)).Words,
            Systems.FirstOrDefault(one => agent.Contains(one.Mark, StringComparison.Ordinal)).Words
        );
        return browser is null ? agent
            : system is null ? browser
            : $"{browser} on {system}";
    }

    private static string? NameOf(ClaimsPrincipal? user) => user?.FindFirstValue(Claim);
}
