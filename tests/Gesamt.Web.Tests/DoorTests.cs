using System.Net;
using Microsoft.AspNetCore.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>The real thing, as ./gesamt start opens it.</summary>
public sealed class RealStudio() : Studio(withProjects: false)
{
    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        base.ConfigureWebHost(builder);
        builder
            .UseSetting("Gesamt:Mode", "Real")
            .UseSetting("Gesamt:OwnerPassword", "harbour light")
            .UseSetting("Gesamt:OwnerName", "Ida")
            .UseSetting("Gesamt:OwnerMail", "ida@studio.example")
            .UseSetting("Gesamt:StudioName", "Ida paints");
    }
}

public sealed class DoorTests(RealStudio studio) : IClassFixture<RealStudio>
{
    [Fact]
    public async Task The_real_thing_has_no_clock_to_set_and_begins_with_what_was_chosen()
    {
        var owner = await OwnerAsync();
        Assert.Equal(HttpStatusCode.NotFound, (await owner.AskAsync("/api/clock")).StatusCode);
        Assert.Equal("Ida paints", (await owner.GetAsync("/forms/mural")).GetProperty("studio").GetString());
    }

    /// <summary>The owner, who began with murals.</summary>
    private async Task<Visitor> OwnerAsync()
    {
        var owner = await studio.OwnerAsync();
        if ((await owner.GetAsync("/api/kinds")).GetArrayLength() == 0)
            await FreshStudio.BeginAsync(owner, "murals");
        return owner;
    }

    [Fact]
    public async Task No_sample_card_books_a_real_project()
    {
        var (owner, client) = (await OwnerAsync(), new Visitor(studio));
        var (_, page) = await studio.ProposeAsync(owner, client, "real@lanternhouse.example");
        await studio.SignedAsync(client, page);
        Assert.False(
            (await client.GetAsync($"{page}/api"))
                .GetProperty("booking")
                .GetProperty("ways")
                .GetProperty("card")
                .GetBoolean()
        );
        Assert.Contains("by transfer", await (await client.PostAsync($"{page}/api/pay")).Content.ReadAsStringAsync());
        Assert.NotEqual(
            "application/json",
            (await client.AskAsync("/card-house/any")).Content.Headers.ContentType?.MediaType
        );
    }

    [Fact]
    public async Task Guessing_passwords_is_slowed_down()
    {
        await using var guessed = new GuardedStudio();
        var guesser = new Visitor(guessed);
        await guesser.TokenAsync("/api/session");
        List<HttpStatusCode> answers = [];
        // more than two minutes' worth, so that a minute that ends in between changes nothing
        for (var i = 0; i < 25; i++)
            answers.Add((await guesser.PostAsync("/api/session", new { password = $"guess {i}" })).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, answers[0]);
        Assert.Contains(HttpStatusCode.TooManyRequests, answers);
    }

    /// <summary>With the limits as they are in use.</summary>
    private sealed class GuardedStudio() : Studio(withProjects: false)
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.UseSetting(
                "Gesamt:SignInsPerMinute",
                new Gesamt.Web.Hosting.Settings().SignInsPerMinute.ToString(
                    System.Globalization.CultureInfo.InvariantCulture
                )
            );
        }
    }

    [Fact]
    public async Task Every_table_is_strict_and_no_column_is_a_floating_number()
    {
        var tables = await studio.LookAsync(db =>
            db.Database.SqlQuery<string>(
                    $"SELECT sql AS Value FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name <> '__EFMigrationsLock' AND name NOT LIKE 'Search%' AND name NOT LIKE 'Names%'"
                )
                .ToListAsync()
        );
        Assert.True(tables.Count > 20);
        Assert.All(tables, sql => Assert.EndsWith("STRICT", sql.TrimEnd(';', ' ', '\n')));
        Assert.DoesNotContain(tables, sql => sql.Contains(" REAL", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Commits_are_flushed_and_foreign_keys_hold()
    {
        await using var studio = new FlushingStudio();
        Assert.Equal("wal", (await PragmaAsync(studio, "journal_mode")));
        Assert.Equal("2", await PragmaAsync(studio, "synchronous")); // FULL
        Assert.Equal("1", await PragmaAsync(studio, "foreign_keys"));
    }

    private sealed class FlushingStudio() : Studio(withProjects: false, Laid.Copy(withProjects: false))
    {
        protected override bool Flushes => true;
    }

    private static Task<string> PragmaAsync(Studio studio, string name) =>
        studio.LookAsync(async db =>
        {
            await db.Database.OpenConnectionAsync();
            await using var command = db.Database.GetDbConnection().CreateCommand();
            command.CommandText = $"PRAGMA {name}";
            return (await command.ExecuteScalarAsync())!.ToString()!;
        });
}
