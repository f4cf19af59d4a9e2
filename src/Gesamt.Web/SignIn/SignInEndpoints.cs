using System.Security.Claims;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Gesamt.Web.SignIn;

/// <param name="Owner">The owner's name when signed in.</param>
/// <param name="Token">Goes back in the X-Gesamt-Token header of every write; a new one after signing in or out.</param>
/// <param name="HasStandIns">Whether this copy has a stand-in post office to look into.</param>
/// <param name="ClockCanBeSet">Whether this is a demo whose clock can be moved.</param>
/// <param name="Empty">Set while there is no studio yet: what its first page asks for.</param>
public sealed record SessionDto(
    string? Owner,
    string Studio,
    string Token,
    bool HasStandIns,
    bool ClockCanBeSet,
    EmptyDto? Empty = null
);

/// <summary>A house that nobody owns yet.</summary>
/// <param name="NeedsCode">Whether whoever sets it up must say the code that the program said when it started.</param>
public sealed record EmptyDto(bool NeedsCode);

/// <param name="Code">A one-time code or a recovery code, where they are on.</param>
public sealed record SignInDto(string Password, string? Code = null);

/// <summary>The owner's sign-in: one password, hashed; a stamp that signs every window out at once.</summary>
public static class SignInEndpoints
{
    private const string StampClaim = "stamp";
    public const string RateLimit = "sign-in";

    public static void MapSignIn(this RouteGroupBuilder api)
    {
        api.MapGet(
                "/session",
                (HttpContext http, Desk desk, IAntiforgery antiforgery, Settings settings) =>
                {
                    var owner = http.User.Identity?.IsAuthenticated == true ? desk.Studio.Owner : null;
                    return TypedResults.Ok(
                        new SessionDto(
                            owner,
                            desk.Studio.Name,
                            antiforgery.GetAndStoreTokens(http).RequestToken!,
                            settings.HasStandIns,
                            settings.Mode != RunMode.Real
                        )
                    );
                }
            )
            .AllowAnonymous();

        api.MapPost("/session", SignInAsync).AllowAnonymous().LimitCalls(RateLimit);

        api.MapDelete(
            "/session",
            async (HttpContext http, Desk desk) =>
            {
                await Sessions.EndAsync(desk.Db, http.User, desk.Now);
                await http.SignOutAsync();
                return TypedResults.NoContent();
            }
        );

        api.MapPost(
            "/session/end-all",
            async (HttpContext http, Desk desk) =>
            {
                await desk.Db.Studio.ExecuteUpdateAsync(set =>
                    set.SetProperty(studio => studio.SecurityStamp, NewStamp())
                );
                await Sessions.EndAllAsync(desk.Db, desk.Now);
                await http.SignOutAsync();
                return TypedResults.NoContent();
            }
        );
        api.MapSessions();
        api.MapCodes();
    }

    /// <summary>Password, and the one-time code where they are on. A wrong one costs a wait that grows.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SignInAsync(
        SignInDto given,
        HttpContext http,
        Desk desk,
        IPasswordHasher<StudioRow> hasher,
        Tries tries,
        IDataProtectionProvider protection,
        TimeProvider time
    )
    {
        var (address, known) = (http.VisitorAddress(), Known(http, protection));
        if (tries.WaitOf(address, known) is { TotalSeconds: > 0 } wait)
        {
            var seconds = (int)Math.Ceiling(wait.TotalSeconds);
            http.Response.Headers.RetryAfter = seconds.ToString(System.Globalization.CultureInfo.InvariantCulture);
            return TypedResults.Problem(
                $"There were too many wrong tries. Try again in {(seconds < 120 ? $"{seconds} second{(seconds == 1 ? "" : "s")}" : $"{(seconds + 59) / 60} minutes")}.",
                statusCode: 429,
                title: "Wait a moment"
            );
        }
        var studio = await desk.Db.Studio.SingleAsync();
        if (
            studio.PasswordHash is null
            || hasher.VerifyHashedPassword(studio, studio.PasswordHash, given.Password)
                == PasswordVerificationResult.Failed
        )
        {
            tries.Fail(address, known);
            return TypedResults.Problem("The password is not right.", statusCode: 401, title: "Not signed in");
        }
        if (studio.CodeSecret is not null && string.IsNullOrWhiteSpace(given.Code))
            return TypedResults.Problem(
                "Type the code your telephone shows now, or one of your recovery codes.",
                statusCode: 401,
                title: "A code is needed",
                extensions: NeedsCode
            );
        if (
            studio.CodeSecret is not null
            && !OneTimeCodes.Opens(studio, given.Code!, protection, time.GetUtcNow().UtcDateTime)
        )
        {
            tries.Fail(address, known);
            return TypedResults.Problem(
                "The code is not right, or was used already.",
                statusCode: 401,
                title: "Not signed in",
                extensions: NeedsCode
            );
        }
        await desk.Db.SaveChangesAsync();
        tries.Succeed(address, known);
        var identity = new ClaimsIdentity(
            [
                new(ClaimTypes.Name, studio.Owner),
                new(StampClaim, studio.SecurityStamp),
                new(Sessions.Claim, await Sessions.BeginAsync(desk, http)),
            ],
            CookieAuthenticationDefaults.AuthenticationScheme
        );
        await http.SignInAsync(new ClaimsPrincipal(identity));
        http.Response.Cookies.Append(
            KnownCookie,
            Protector(protection).Protect(known ?? NewStamp()),
            new()
            {
                Path = "/api/session",
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                Secure = http.Request.IsHttps,
                MaxAge = TimeSpan.FromDays(365),
            }
        );
        return TypedResults.NoContent();
    }

    private const string KnownCookie = "gesamt-known";
    private static readonly Dictionary<string, object?> NeedsCode = new() { ["needsCode"] = true };

    /// <summary>The name of a browser the owner signed in with before; null for any other.</summary>
    private static string? Known(HttpContext http, IDataProtectionProvider protection)
    {
        try
        {
            return http.Request.Cookies[KnownCookie] is { } kept ? Protector(protection).Unprotect(kept) : null;
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return null;
        }
    }

    private static IDataProtector Protector(IDataProtectionProvider protection) =>
        protection.CreateProtector("known browser");

    public static void AddSignIn(this IServiceCollection services, bool secure)
    {
        services.AddSingleton<Tries>();
        services.AddSingleton(NewHasher());
        services
            .AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme)
            .AddCookie(options =>
            {
                options.Cookie.Name = "gesamt-owner";
                // the owner's cookie never travels to a client's page: what is seen there is seen as that client
                options.Cookie.Path = "/api";
                options.Cookie.HttpOnly = true;
                options.Cookie.SameSite = SameSiteMode.Strict;
                options.Cookie.SecurePolicy = secure ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
                options.ExpireTimeSpan = TimeSpan.FromDays(14);
                // there is no page to go to: whoever asks is told, also for a file
                options.Events.OnRedirectToLogin = context =>
                {
                    context.Response.StatusCode = StatusCodes.Status401Unauthorized;
                    return Task.CompletedTask;
                };
                options.Events.OnValidatePrincipal = async context =>
                {
                    var services = context.HttpContext.RequestServices;
                    var db = services.GetRequiredService<GesamtDb>();
                    if (
                        !await Sessions.IsOpenAsync(
                            db,
                            context.Principal,
                            context.Principal?.FindFirstValue(StampClaim) ?? "",
                            services.GetRequiredService<TimeProvider>().Now()
                        )
                    )
                        context.RejectPrincipal();
                };
            });
        services.AddAuthorization();
        services.AddAntiforgery(options =>
        {
            options.HeaderName = Writes.TokenHeader;
            options.Cookie.Name = Writes.TokenCookie;
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.Cookie.SecurePolicy = secure ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
        });
    }

    /// <summary>Hashes the owner's password: PBKDF2 with HMAC-SHA-512 in Identity's format.</summary>
    public static IPasswordHasher<StudioRow> NewHasher() =>
        new PasswordHasher<StudioRow>(Options.Create(new PasswordHasherOptions { IterationCount = 210_000 }));

    public static string NewStamp() =>
        Convert.ToHexStringLower(System.Security.Cryptography.RandomNumberGenerator.GetBytes(16));
}
