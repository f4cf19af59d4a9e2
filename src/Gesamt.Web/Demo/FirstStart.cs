using System.Text;
using Gesamt.Core.People;
using Gesamt.Core.Texts;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Search;
using Gesamt.Web.Hosting;
using Gesamt.Web.SignIn;
using Microsoft.AspNetCore.Identity;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Demo;

/// <summary>The studio cannot be set up or opened as it was asked; says what is allowed.</summary>
public sealed class SetUpException(string why) : Exception(why);

/// <summary>Setting up is one act that happens whole or not at all: the studio is laid aside, and stands in its place only when it is complete.</summary>
public static class FirstStart
{
    public const int ShortestPassword = 10;

    private const string Aside = "setting-up";

    private sealed record Owner(string Studio, string Name, string Mail, string Password);

    /// <summary>Lays a studio where there is none yet, also where an earlier first start broke off. Asks for what the settings do not say, where there is somebody to ask.</summary>
    /// <exception cref="SetUpException">There is nobody to ask, and what the settings say is not allowed.</exception>
    public static async Task LayAsync(Settings settings, IPasswordHasher<StudioRow> hasher)
    {
        var aside = Path.Combine(settings.Data, Aside);
        if (Directory.Exists(aside))
            Directory.Delete(aside, recursive: true);
        if (HoldsStudio(settings))
            return;
        var owner = Owned(settings);
        Directory.CreateDirectory(aside);
        var database = Path.Combine(aside, "gesamt.db");
        await FillAsync(database, owner, settings, hasher);
        foreach (var left in Directory.GetFiles(settings.Data, "gesamt.db*"))
            File.Delete(left); // what an earlier start left unfinished: nobody owned it
        File.Move(database, settings.Database);
        Directory.Delete(aside, recursive: true);
    }

    private static bool HoldsStudio(Settings settings)
    {
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

    private static async Task FillAsync(
        string database,
        Owner owner,
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
                Name = owner.Studio,
                Owner = owner.Name,
                Mail = owner.Mail,
                Zone = "Europe/Dublin",
                Currency = "EUR",
                Brand = "#0f4c46",
                Signature = owner.Name,
                SendFrom = new(8, 0),
                SendUntil = new(18, 0),
                SecurityStamp = SignInEndpoints.NewStamp(),
            };
            studio.PasswordHash = hasher.HashPassword(studio, owner.Password);
            db.Studio.Add(studio);
            if (settings.DemoFiles is { } files)
            {
                studio.OpenHours = await DemoFiles.OpenHoursAsync(files);
                await DemoFiles.LoadKindsAsync(db, files);
            }
            await db.SaveChangesAsync();
            // all of it into the one file that is moved
            await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
        }
        SqliteConnection.ClearAllPools();
    }

    /// <summary>What the settings say, or whoever sits before the screen.</summary>
    private static Owner Owned(Settings settings)
    {
        var asks = settings.OwnerPassword is null && !Console.IsInputRedirected;
        string One(string given, string question, Func<string, string?> wrong, bool secret = false)
        {
            for (var answer = given.Trim(); ; answer = Ask(question, secret))
            {
                if (wrong(answer) is not { } why)
                    return answer;
                if (!asks)
                    throw new SetUpException($"The studio is not set up: {why}");
                if (answer.Length > 0)
                    Console.Error.WriteLine(why);
            }
        }
        return new(
            One(
                settings.StudioName,
                "The studio's name: ",
                text => text.Length is 0 or > Typed.Most ? $"its name has 1 to {Typed.Most} characters." : null
            ),
            One(
                settings.OwnerName,
                "Your name, as it stands under letters: ",
                text => text.Length is 0 or > Typed.Most ? $"your name has 1 to {Typed.Most} characters." : null
            ),
            One(
                settings.OwnerMail,
                "Your mail address: ",
                text => MailAddress.IsValid(text) ? null : "your mail address is one such as name@place.example."
            ),
            One(
                settings.OwnerPassword ?? "",
                $"Choose your password (at least {ShortestPassword} characters): ",
                text =>
                    text.Length < ShortestPassword ? $"the password has at least {ShortestPassword} characters." : null,
                secret: true
            )
        );
    }

    private static string Ask(string question, bool secret)
    {
        Console.Error.Write(question);
        if (!secret)
            return (
                Console.ReadLine() ?? throw new SetUpException("The studio is not set up: nothing was answered.")
            ).Trim();
        var typed = new StringBuilder();
        for (
            var key = Console.ReadKey(intercept: true);
            key.Key != ConsoleKey.Enter;
            key = Console.ReadKey(intercept: true)
        )
            if (key.Key == ConsoleKey.Backspace)
                typed.Length = Math.Max(0, typed.Length - 1);
            else if (!char.IsControl(key.KeyChar))
                typed.Append(key.KeyChar);
        Console.Error.WriteLine();
        return typed.ToString().Trim();
    }
}
