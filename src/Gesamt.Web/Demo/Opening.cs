using Gesamt.Formats.Mail;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Search;
using Gesamt.Web.Hosting;
using Gesamt.Web.SignIn;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Demo;

/// <summary>What happens before the first request: the schema, and a studio to open with.</summary>
public static class Opening
{
    public static async Task PrepareAsync(WebApplication app)
    {
        var settings = app.Services.GetRequiredService<Settings>();
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<GesamtDb>();
        var isOlder = await Sqlite.MigrateAsync(db);
        await SearchIndex.PrepareAsync(db);
        var clock = app.Services.GetRequiredService<TimeProvider>() as AdjustableClock;
        if (clock is not null && settings.ClockAt is { } at) clock.Set(at, settings.ClockStands);
        if (settings.Mode != RunMode.Real && settings.DemoFiles is { } files && !await db.Studio.AnyAsync())
            await DemoPlay.LayAsync(app.Services, clock!, files, settings.DemoProjects);
        else if (settings.Mode != RunMode.Real && clock is not null) await ResumeAsync(db, clock);
        if (isOlder) await RebuildAsync(scope.ServiceProvider.GetRequiredService<Desk>());
        if (settings.Mode == RunMode.Real) await OwnerAsync(db, settings, app.Services.GetRequiredService<IPasswordHasher<StudioRow>>());
    }

    /// <summary>What is derived may have gained columns: it is computed anew from the facts.</summary>
    private static async Task RebuildAsync(Desk desk)
    {
        await using var transaction = await desk.BeginAsync();
        foreach (var id in await desk.Db.Projects.Select(p => p.Id).ToListAsync())
        {
            await desk.Ledger.RebuildAsync(await desk.OpenAsync(id), desk.Now);
            desk.Db.ChangeTracker.Clear();
        }
        await desk.CommitAsync(transaction);
    }

    /// <summary>A demo started again does not go back behind what happened in it.</summary>
    private static async Task ResumeAsync(GesamtDb db, AdjustableClock clock)
    {
        var last = await db.Facts.MaxAsync(f => (NodaTime.Instant?)f.Recorded);
        if (last > clock.Now()) clock.Set(last.Value, clock.Stands);
    }

    /// <summary>The real thing begins with an empty studio and the password given once.</summary>
    private static async Task OwnerAsync(GesamtDb db, Settings settings, IPasswordHasher<StudioRow> hasher)
    {
        var studio = await db.Studio.SingleOrDefaultAsync();
        if (studio is { PasswordHash: not null }) return;
        if (string.IsNullOrWhiteSpace(settings.OwnerPassword) || settings.OwnerPassword.Length < 10)
            throw new InvalidOperationException("Choose an owner password of at least 10 characters: ./gesamt start asks for it once.");
        if (!OutgoingMail.IsAddress(settings.OwnerMail))
            throw new InvalidOperationException("The owner's mail address must be one such as name@place.example: ./gesamt start asks for it once.");
        studio = new()
        {
            Name = settings.StudioName,
            Owner = settings.OwnerName,
            Mail = settings.OwnerMail,
            Zone = "Europe/Dublin",
            Currency = "EUR",
            Brand = "#0f4c46",
            Signature = settings.OwnerName,
            SendFrom = new(8, 0),
            SendUntil = new(18, 0),
            SecurityStamp = SignInEndpoints.NewStamp(),
        };
        studio.PasswordHash = hasher.HashPassword(studio, settings.OwnerPassword);
        db.Studio.Add(studio);
        if (settings.DemoFiles is { } files)
        {
            studio.OpenHours = await DemoFiles.OpenHoursAsync(files);
            await DemoFiles.LoadKindsAsync(db, files);
        }
        await db.SaveChangesAsync();
    }
}
