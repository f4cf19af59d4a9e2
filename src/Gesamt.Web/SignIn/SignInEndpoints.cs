using System.Security.Claims;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.SignIn;

/// <param name="Owner">The owner's name when signed in.</param>
/// <param name="Token">Goes back in the X-Gesamt-Token header of every write; a new one after signing in or out.</param>
/// <param name="HasStandIns">Whether this copy has a stand-in post office to look into.</param>
/// <param name="ClockCanBeSet">Whether this is a demo whose clock can be moved.</param>
public sealed record SessionDto(string? Owner, string Studio, string Token, bool HasStandIns, bool ClockCanBeSet);

public sealed record SignInDto(string Password);

/// <summary>The owner's sign-in: one password, hashed; a stamp that signs every window out at once.</summary>
public static class SignInEndpoints
{
    private const string StampClaim = "stamp";
    public const string RateLimit = "sign-in";

    public static void MapSignIn(this RouteGroupBuilder api)
    {
        api.MapGet("/session", (HttpContext http, Desk desk, IAntiforgery antiforgery, Settings settings) =>
        {
            var owner = http.User.Identity?.IsAuthenticated == true ? desk.Studio.Owner : null;
            return TypedResults.Ok(new SessionDto(owner, desk.Studio.Name, antiforgery.GetAndStoreTokens(http).RequestToken!, settings.HasStandIns, settings.Mode != RunMode.Real));
        }).AllowAnonymous();

        api.MapPost("/session", async Task<Results<NoContent, ProblemHttpResult>> (SignInDto given, HttpContext http, Desk desk, IPasswordHasher<StudioRow> hasher) =>
        {
            var studio = desk.Studio;
            if (studio.PasswordHash is null || hasher.VerifyHashedPassword(studio, studio.PasswordHash, given.Password) == PasswordVerificationResult.Failed)
                return TypedResults.Problem("The password is not right.", statusCode: 401, title: "Not signed in");
            var identity = new ClaimsIdentity([new(ClaimTypes.Name, studio.Owner), new(StampClaim, studio.SecurityStamp)], CookieAuthenticationDefaults.AuthenticationScheme);
            await http.SignInAsync(new ClaimsPrincipal(identity));
            return TypedResults.NoContent();
        }).AllowAnonymous().RequireRateLimiting(RateLimit);

        api.MapDelete("/session", async (HttpContext http) =>
        {
            await http.SignOutAsync();
            return TypedResults.NoContent();
        });

        api.MapPost("/session/end-all", async (HttpContext http, GesamtDb db) =>
        {
            await db.Studio.ExecuteUpdateAsync(set => set.SetProperty(studio => studio.SecurityStamp, NewStamp()));
            await http.SignOutAsync();
            return TypedResults.NoContent();
        });
    }

    public static void AddSignIn(this IServiceCollection services, bool secure)
    {
        services.AddSingleton<IPasswordHasher<StudioRow>, PasswordHasher<StudioRow>>();
        services.Configure<PasswordHasherOptions>(options => options.IterationCount = 210_000);
        services.AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme).AddCookie(options =>
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
                var stamp = (await context.HttpContext.RequestServices.GetRequiredService<GesamtDb>().Studio.AsNoTracking().SingleAsync()).SecurityStamp;
                if (context.Principal?.FindFirstValue(StampClaim) != stamp) context.RejectPrincipal();
            };
        });
        services.AddAuthorization();
        services.AddAntiforgery(options =>
        {
            options.HeaderName = Writes.TokenHeader;
            options.Cookie.Name = "gesamt-token";
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.Cookie.SecurePolicy = secure ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
        });
    }

    public static string NewStamp() => Convert.ToHexStringLower(System.Security.Cryptography.RandomNumberGenerator.GetBytes(16));
}
