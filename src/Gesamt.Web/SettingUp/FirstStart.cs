using Gesamt.Core.People;
using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Archives;
using Gesamt.Store.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Search;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Hosting;
using Gesamt.Web.SignIn;
using Gesamt.Web.Templates;
using Microsoft.AspNetCore.Identity;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.SettingUp;

/// <summary>The studio cannot be set up or opened as it was asked; says what is allowed.</summary>
public sealed class SetUpException(string why) : Exception(why);

/// <summary>Who owns a new studio.</summary>
/// <param name="Zone">Where its days begin, by its name in the tz database; UTC where that is none.</param>
public sealed record NewOwner(string Studio, string Name, string Mail, string Password, string Zone);

/// <summary>Setting up is one act that happens whole or not at all: the studio is laid aside, and stands in its place only when it is complete.</summary>
public static class FirstStart
{
    private const string Aside = "setting-up";

    /// <summary>Whether there is a studio; what an earlier first start left aside is taken away.</summary>
    /// <exception cref="SetUpException">What is there is damaged.</exception>
    public static bool HoldsStudio(Settings settings)
    {
        var aside = Path.Combine(settings.Data, Aside);
        if (Directory.Exists(aside))
            Directory.Delete(aside, recursive: true);
        EmptyFolder.TidyUp(settings.Data);
        try
        {
            return Sqlite.HoldsStudio(settings.Database);
        }
        catch (SqliteException e)
        {
            throw new SetUpException(
                $"{settings.Database} is damaged ({e.Message}). It is left as it is: restore the newest backup into a new folder with ./gesamt restore."
            );
        }
    }

    /// <summary>Who the settings say is the owner, for a studio that is set up by a script.</summary>
    /// <exception cref="SetUpException">What they say is not allowed.</exception>
    public static NewOwner OwnerOf(Settings settings)
    {
        var owner = new NewOwner(
            settings.StudioName.Trim(),
            settings.OwnerName.Trim(),
            settings.OwnerMail.Trim(),
            settings.OwnerPassword ?? "",
            settings.Zone
        );
        return Mistakes(owner) is [var (field, words), ..]
            ? throw new SetUpException($"The studio is not set up: {field}: {words}")
            : owner;
    }

    /// <summary>What is not allowed, by field.</summary>
    public static IReadOnlyList<(string Field, string Words)> Mistakes(NewOwner owner)
    {
        List<(string, string)> mistakes = [];
        if (owner.Studio.Trim().Length is 0 or > Typed.Most)
            mistakes.Add(("studio", $"Write its name, up to {Typed.Most} characters."));
        if (owner.Name.Trim().Length is 0 or > Typed.Most)
            mistakes.Add(("name", $"Write your name, up to {Typed.Most} characters."));
        if (!MailAddress.IsValid(owner.Mail.Trim()))
            mistakes.Add(("mail", MailAddress.Allowed));
        if (PasswordOf(owner) is { Allowed: false, Words: var words })
            mistakes.Add(("password", words));
        return mistakes;
    }

    /// <summary>How the chosen password holds for this owner.</summary>
    public static PasswordReading PasswordOf(NewOwner owner) =>
        Password.Read(owner.Password, [owner.Studio, owner.Name, owner.Mail]);

    /// <summary>Lays the studio where there is none yet.</summary>
    public static async Task LayAsync(Settings settings, IPasswordHasher<StudioRow> hasher, NewOwner owner)
    {
        var aside = Directory.CreateDirectory(Path.Combine(settings.Data, Aside)).FullName;
        var database = Path.Combine(aside, "gesamt.db");
        await FillAsync(database, owner, settings, hasher);
        foreach (var left in Directory.GetFiles(settings.Data, "gesamt.db*"))
            File.Delete(left); // what an earlier start left unfinished: nobody owned it
        File.Move(database, settings.Database);
        Directory.Delete(aside, recursive: true);
    }

    /// <summary>Takes an archive in. It holds no password: the studio gets this one.</summary>
    /// <exception cref="InvalidException">The password does not hold.</exception>
    /// <exception cref="InvalidDataException">The archive is not sound.</exception>
    /// <exception cref="IOException">There is something in the studio's folder already.</exception>
    public static Task TakeInAsync(
        Settings settings,
        IPasswordHasher<StudioRow> hasher,
        string archive,
        string password,
        CancellationToken stop = default
    ) => TakingIn.LayAsync(archive, settings.Data, studio => Own(studio, hasher, password), stop);

    /// <summary>Gives a studio its password.</summary>
    /// <exception cref="InvalidException">It does not hold.</exception>
    public static void Own(StudioRow studio, IPasswordHasher<StudioRow> hasher, string password)
    {
        if (Password.Read(password, [studio.Name, studio.Owner, studio.Mail]) is { Allowed: false, Words: var words })
            throw new InvalidException(("password", words));
        studio.SecurityStamp = SignInEndpoints.NewStamp();
        studio.PasswordHash = hasher.HashPassword(studio, password);
    }

    private static async Task FillAsync(
        string database,
        NewOwner owner,
        Settings settings,
        IPasswordHasher<StudioRow> hasher
    )
    {
        var options = new DbContextOptionsBuilder<GesamtDb>();
        options.UseGesamt(database);
        await using (var db = new GesamtDb(options.Options))
        {
            await Sqlite.MigrateAsync(db);
            await SearchIndex.PrepareAsync(db);
            var studio = new StudioRow
            {
                Name = owner.Studio.Trim(),
                Owner = owner.Name.Trim(),
                Mail = owner.Mail.Trim(),
                Zone = StartingSets.ZoneOf(owner.Zone),
                Currency = "EUR",
                Brand = "#0f4c46",
                Signature = $"{owner.Name.Trim()}\n{owner.Studio.Trim()}",
                SendFrom = new(8, 0),
                SendUntil = new(18, 0),
                SecurityStamp = SignInEndpoints.NewStamp(),
                OpenHours = StoreJson.Write(await KindFiles.OpenHoursAsync(settings.UsualSet, settings.UsualSet)),
                FirstSteps = StoreJson.Write(OpenSteps.Begun),
            };
            studio.PasswordHash = hasher.HashPassword(studio, owner.Password);
            db.Studio.Add(studio);
            await db.SaveChangesAsync();
            // all of it into the one file that is moved
            await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
        }
        SqliteConnection.ClearAllPools();
    }
}
