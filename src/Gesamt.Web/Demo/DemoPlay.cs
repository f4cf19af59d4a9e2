using System.Globalization;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Ticking;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Demo;

/// <summary>One thing that happens in the demo: which project, when, and what.</summary>
/// <param name="Rest">What the act is done with: words, a choice, a date.</param>
public sealed record DemoEvent(string Project, Instant At, string Act, string Rest);

/// <summary>A project of the demo before it begins.</summary>
public sealed record DemoProject(
    string Title,
    string Kind,
    string Person,
    string? Organisation,
    string Mail,
    string Source,
    int? DateIn,
    string Words
)
{
    /// <summary>What brought it, where the file says so behind the source.</summary>
    public string? Campaign { get; init; }

    /// <summary>Whether the owner has said that a client who comes again is the same: all but those who wrote within the last days.</summary>
    public bool Known { get; init; } = true;
}

/// <summary>Lays the demo by playing its dated events through the product's own acts, the ticker running in between.</summary>
public static class DemoPlay
{
    /// <summary>Plays the demo’s projects from their beginnings up to its clock.</summary>
    public static async Task LayAsync(
        IServiceProvider services,
        AdjustableClock clock,
        string folder,
        string usual,
        bool withProjects
    )
    {
        var (end, stands) = (clock.Now(), clock.Stands);
        StudioZone zone;
        await using (var scope = services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<GesamtDb>();
            await DemoFiles.LoadAsync(
                db,
                scope.ServiceProvider.GetRequiredService<IPasswordHasher<StudioRow>>(),
                folder,
                usual
            );
            zone = new(scope.ServiceProvider.GetRequiredService<Desk>().Calendar);
        }
        if (!withProjects)
            return;
        var (projects, events) = await ReadAsync(Path.Combine(folder, "projects.txt"), zone.Calendar.DateOf(end), zone);
        var ticker = services.GetRequiredService<Ticker>();
        var acts = new DemoActs(services, projects);
        foreach (var happening in events.Where(e => e.At <= end).OrderBy(e => e.At))
        {
            await RunUntilAsync(services, clock, ticker, happening.At, end);
            clock.Set(happening.At, stands: true);
            await acts.PlayAsync(happening);
            await ticker.TickAsync(CancellationToken.None);
        }
        await RunUntilAsync(services, clock, ticker, end, end);
        clock.Set(end, stands);
        await DemoBooks.LayAsync(services, Path.Combine(folder, "books.txt"));
        await ticker.TickAsync(CancellationToken.None);
        // the owner looked last on the evening before
        await using var last = services.CreateAsyncScope();
        var looked = end - Duration.FromHours(14);
        await last
            .ServiceProvider.GetRequiredService<GesamtDb>()
            .Studio.ExecuteUpdateAsync(set => set.SetProperty(studio => studio.LookedAt, looked));
    }

    private sealed record StudioZone(Core.Calendar.StudioCalendar Calendar);

    /// <summary>Stops at every instant at which something is due, so that routines act when they would have.</summary>
    private static async Task RunUntilAsync(
        IServiceProvider services,
        AdjustableClock clock,
        Ticker ticker,
        Instant until,
        Instant end
    )
    {
        while (await NextDueAsync(services, clock.Now()) is { } next && next < until)
        {
            clock.Set(next, stands: true);
            await ticker.TickAsync(CancellationToken.None);
            // what waits for an OK on the day the demo begins is what came up lately; the rest was dealt with at the time
            if (next < end - Duration.FromDays(14))
                await DemoAnswers.GiveAsync(services);
        }
    }

    private static async Task<Instant?> NextDueAsync(IServiceProvider services, Instant now)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<GesamtDb>();
        var step = await db
            .PlannedSteps.Where(s => s.State == Core.Routines.StepState.Planned && s.Due > now)
            .MinAsync(s => s.Due);
        var letter = await db
            .Outbox.Where(o => o.State == OutboxState.Claimed && o.NotBefore > now)
            .Select(o => (Instant?)o.NotBefore)
            .MinAsync();
        var reminder = await db.Meetings.Where(m => m.RemindAt > now).MinAsync(m => m.RemindAt);
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var today = desk.Calendar.DateOf(now);
        // invoices that come again, and what is charged to a card, have a day and no hour
        var recurring = await db.Recurring.Where(r => r.Next > today).MinAsync(r => r.Next);
        var charge =
            await db.KeptMeans.AnyAsync(k => k.TakenBackAt == null)
            && await db.Invoices.AnyAsync(i => i.Recurring != null && i.OwedMinor > 0)
                ? today.PlusDays(1)
                : (LocalDate?)null;
        Instant? Morning(LocalDate? day) => day is { } known ? desk.Calendar.At(known + new LocalTime(9, 0)) : null;
        return new[] { step, letter, reminder, Morning(recurring), Morning(charge) }.Min();
    }

    /// <summary>Projects as paragraphs: the first lines say who and what, then one line for each event, “-12d 09:30 letter: …”.</summary>
    private static async Task<(Dictionary<string, DemoProject>, List<DemoEvent>)> ReadAsync(
        string path,
        LocalDate today,
        StudioZone zone
    )
    {
        var projects = new Dictionary<string, DemoProject>();
        List<DemoEvent> events = [];
        DemoProject? present = null;
        foreach (var line in await File.ReadAllLinesAsync(path))
        {
            if (line.StartsWith('#') || line.Trim().Length == 0)
                continue;
            if (!line.StartsWith(' '))
            {
                present = ProjectOf(line);
                projects.Add(present.Title, present);
                continue;
            }
            if (
                line.TrimStart().StartsWith("-1d", StringComparison.Ordinal)
                && line.EndsWith("inquiry", StringComparison.Ordinal)
                && present is not null
            )
                projects[present.Title] = present = present with { Known = false };
            events.Add(
                EventOf(
                    line.Trim(),
                    present ?? throw new FormatException("An event stands before any project."),
                    today,
                    zone
                )
            );
        }
        return (projects, events);
    }

    /// <summary>“Title | kind | person | organisation | mail | source; campaign | date in days | first words”.</summary>
    private static DemoProject ProjectOf(string line)
    {
        var parts = line.Split('|', StringSplitOptions.TrimEntries);
        if (parts.Length != 8)
            throw new FormatException($"A project needs eight parts: {line}");
        var from = parts[5].Split(';', 2, StringSplitOptions.TrimEntries);
        return new(
            parts[0],
            parts[1],
            parts[2],
            parts[3].Length > 0 ? parts[3] : null,
            parts[4],
            from[0],
            parts[6].Length > 0 ? int.Parse(parts[6], CultureInfo.InvariantCulture) : null,
            parts[7]
        )
        {
            Campaign = from.Length > 1 ? from[1] : null,
        };
    }

    private static DemoEvent EventOf(string line, DemoProject project, LocalDate today, StudioZone zone)
    {
        var parts = line.Split(' ', 3);
        var days = int.Parse(parts[0].TrimEnd('d'), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture);
        var time = NodaTime.Text.LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(parts[1]).GetValueOrThrow();
        var colon = parts[2].IndexOf(':');
        return new(
            project.Title,
            zone.Calendar.At(today.PlusDays(days) + time),
            colon < 0 ? parts[2] : parts[2][..colon],
            colon < 0 ? "" : parts[2][(colon + 1)..].Trim()
        );
    }
}
