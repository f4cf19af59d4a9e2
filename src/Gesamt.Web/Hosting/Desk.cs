using System.Diagnostics.CodeAnalysis;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Store;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Hosting;

/// <summary>What every address needs at hand: the database to read, the studio's settings and the time; and acts, by which alone something happens to a project.</summary>
public sealed class Desk(
    GesamtDb db,
    TimeProvider time,
    Live live,
    Settings settings,
    FileVault vault,
    SealKey seal,
    IEnumerable<IEars> ears,
    IServiceScopeFactory scopes,
    ILogger<Desk> log
)
{
    private StudioRow? studio;
    private Instant? wound,
        begun;
    private StudioCalendar? calendar;

    /// <summary>To read. What happens to a project is written by an act alone.</summary>
    public GesamtDb Db { get; } = Opened(db);

    /// <summary>The key that signed papers are sealed with.</summary>
    public SealKey Seal { get; } = seal;

    /// <summary>Kept files, by their SHA-256.</summary>
    public FileVault Vault { get; } = vault;

    /// <summary>The studio's time; for a rehearsal that was opened, its own if that is ahead. It stands still during an act: all that is written in one is of one instant.</summary>
    public Instant Now
    {
        get
        {
            var now = begun ?? time.Now();
            return wound is { } ahead && ahead > now ? ahead : now;
        }
    }

    /// <summary>The studio’s settings, read once.</summary>
    public StudioRow Studio => studio ??= Settled(Db);

    // asked with every request, so it is made ready once
    private static readonly Func<GesamtDb, StudioRow> Settled = EF.CompileQuery(
        (GesamtDb db) => db.Studio.AsNoTracking().Single()
    );

    /// <summary>The studio’s zone, days off and sending hours.</summary>
    public StudioCalendar Calendar => calendar ??= Studio.Calendar();

    /// <summary>The currency of the studio’s own figures.</summary>
    public Currency Currency => Currency.Of(Studio.Currency);

    /// <summary>How long a letter can be taken back before it is handed over.</summary>
    public Duration Hold => Duration.FromSeconds(settings.HoldSeconds);

    /// <inheritdoc cref="Settings.PaysOnPage"/>
    public bool PaysOnPage => settings.PaysOnPage;

    /// <summary>The day it is in the studio.</summary>
    public LocalDate Today => Calendar.DateOf(Now);

    /// <summary>A day in few words, as seen from today: “Fri 12 March”.</summary>
    [return: NotNullIfNotNull(nameof(date))]
    public string? Short(LocalDate? date) => date is { } known ? DateWords.Short(known, Today) : null;

    /// <summary>An instant as papers say it: day, time and zone.</summary>
    public string Precisely(Instant at) =>
        $"{DateWords.Long(Calendar.DateOf(at))}, {DateWords.Time(Calendar.LocalOf(at).TimeOfDay)} ({Studio.Zone})";

    /// <summary>One connection for all that is read at this desk: taken out anew for each statement, it would be given its functions each time.</summary>
    private static GesamtDb Opened(GesamtDb db)
    {
        db.Database.OpenConnection();
        return db;
    }

    /// <summary>Reads at a second desk, over a connection of its own, while this one reads on: a page of many parts comes in half the time where there are two processors.</summary>
    /// <param name="read">Changes nothing, and reads nothing that an act at this desk has changed.</param>
    public Task<T> BesideAsync<T>(Func<Desk, Task<T>> read)
    {
        var (settled, days) = (Studio, Calendar);
        return Task.Run(async () =>
        {
            await using var scope = scopes.CreateAsyncScope();
            var second = scope.ServiceProvider.GetRequiredService<Desk>();
            (second.studio, second.calendar, second.wound) = (settled, days, wound);
            return await read(second);
        });
    }

    /// <summary>Opens a project to be decided on.</summary>
    /// <exception cref="MissingException">There is no such project.</exception>
    public async Task<ProjectFile> OpenAsync(ProjectId id)
    {
        var file = await Db.OpenAsync(id, Calendar) ?? throw new MissingException("project");
        if (file.Row is { Rehearsal: true, WoundTo: { } to })
            Wind(to);
        return file;
    }

    /// <summary>Goes on with a rehearsal's own clock.</summary>
    public void Wind(Instant to) => wound = wound > to ? wound : to;

    /// <summary>Tells one entry of a page. One that cannot be told, because its row is damaged or names what is not there, is told as such: it never takes the page with it.</summary>
    /// <param name="untold">What stands in its place: no more than its row's own plain columns.</param>
    public T Tell<T>(Func<T> tell, Func<T> untold)
    {
        try
        {
            return tell();
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            log.LogError(e, "An entry of type {Entry} cannot be told", typeof(T).Name);
            return untold();
        }
    }

    /// <summary>Does one act: begins, hands out what can record, saves, commits, and tells the open screens and the ticker. What it throws undoes all of it.</summary>
    /// <remarks>BEGIN IMMEDIATE: what is read inside is what is written upon, and nobody else writes meanwhile. So nothing slow belongs inside: letters are composed, files read and papers drawn before it or after.</remarks>
    public async Task<T> ActAsync<T>(Func<Act, Task<T>> what)
    {
        await using var transaction = await Db.Database.BeginTransactionAsync();
        begun = time.Now();
        try
        {
            var act = new Act(this, ears);
            var came = await what(act);
            await Db.SaveChangesAsync();
            await transaction.CommitAsync();
            foreach (var project in act.Changed)
                live.Changed(project);
            return came;
        }
        finally
        {
            begun = null;
        }
    }

    /// <inheritdoc cref="ActAsync{T}"/>
    public Task ActAsync(Func<Act, Task> what) =>
        ActAsync(async act =>
        {
            await what(act);
            return true;
        });
}
