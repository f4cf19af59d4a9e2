using System.Net;
using System.Security.Cryptography;
using System.Text;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.SignIn;

namespace Gesamt.Web.SettingUp;

/// <summary>A house nobody owns yet: it serves its first page until a studio is set up or brought back, and then gives way to the program itself.</summary>
public sealed class EmptyHouse(IHostApplicationLifetime life) : IDisposable
{
    private readonly SemaphoreSlim one = new(1, 1);

    /// <summary>Asked of whoever does not sit at the machine itself: the address may be open to strangers before it has an owner.</summary>
    private readonly string code = Codes.New();

    /// <summary>Whether a studio stands now.</summary>
    public bool IsFilled { get; private set; }

    /// <summary>An archive that was looked over and waits for a password: where it lies, and whose it is.</summary>
    public (string File, StudioRow Studio)? Waiting { get; private set; }

    /// <summary>Keeps an archive until its password is chosen, in place of an earlier one.</summary>
    public void Keep(string file, StudioRow studio)
    {
        Dispose();
        Waiting = (file, studio);
    }

    public void Dispose()
    {
        if (Waiting is { } waiting)
            File.Delete(waiting.File);
        Waiting = null;
    }

    /// <summary>Serves the first page.</summary>
    /// <returns>Whether there is a studio now; false when the program was told to stop before.</returns>
    public static async Task<bool> ServeAsync(string[] args, Settings settings)
    {
        var builder = WebApplication.CreateBuilder(args);
        builder.Services.AddSingleton(settings);
        builder.Services.AddHealthChecks();
        builder.Services.AddSingleton<EmptyHouse>();
        builder.Services.AddSingleton(SignInEndpoints.NewHasher());
        builder.Services.ConfigureHttpJsonOptions(options => Api.Json(options.SerializerOptions));
        builder.AddFront(settings);
        await using var app = builder.Build();
        app.UseForwardedHeaders();
        app.UseHeaders(settings);
        app.UseExceptionHandler();
        app.UseSecureOnly(settings);
        app.UsePageFiles();
        app.UseRouting();
        app.UseCallLimits((SignInEndpoints.RateLimit, settings.SignInsPerMinute));
        var house = app.Services.GetRequiredService<EmptyHouse>();
        var api = app.MapGroup("/api").NameUnread();
        api.MapSetUp();
        app.MapGet(
                "/api/session",
                (HttpContext http) =>
                    new SessionDto(null, "", "", HasStandIns: false, ClockCanBeSet: false, new(!IsHere(http)))
            )
            .ExcludeFromDescription();
        app.MapGroup("/api")
            .Map("{**rest}", () => Results.Problem(statusCode: 404, title: "There is no studio yet"))
            .ExcludeFromDescription();
        app.MapHealth();
        app.MapPages();
        await Console.Error.WriteLineAsync(
            $"There is no studio yet: its first page sets it up. From another machine it asks for this code: {house.code}"
        );
        await app.RunAsync();
        return house.IsFilled;
    }

    /// <summary>Whether a request comes from the machine itself.</summary>
    private static bool IsHere(HttpContext http) =>
        http.Connection.RemoteIpAddress is { } address && IPAddress.IsLoopback(address);

    /// <exception cref="InvalidException">It is another code.</exception>
    public void CheckCode(HttpContext http, string given)
    {
        if (
            !IsHere(http)
            && !CryptographicOperations.FixedTimeEquals(
                Encoding.UTF8.GetBytes(given.Trim()),
                Encoding.UTF8.GetBytes(code)
            )
        )
            throw new InvalidException(("code", "The code that the program said where it was started."));
    }

    /// <summary>Fills the house once, and gives way.</summary>
    /// <exception cref="RefusedException">Somebody else was first.</exception>
    public async Task FillAsync(Func<Task> fill)
    {
        await one.WaitAsync();
        try
        {
            if (IsFilled)
                throw new RefusedException("The studio was set up meanwhile. Load the page again to sign in.");
            await fill();
            IsFilled = true;
            // after the answer has gone out
            life.StopApplication();
        }
        finally
        {
            one.Release();
        }
    }
}
