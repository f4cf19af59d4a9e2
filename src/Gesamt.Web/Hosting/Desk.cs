using System.Diagnostics.CodeAnalysis;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Store;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using NodaTime;

namespace Gesamt.Web.Hosting;

/// <summary>Hears of facts in the act that records them, so that what follows from them is one commit with them.</summary>
public interface IEars
{
    Task HearAsync(Desk desk, ProjectFile file, IReadOnlyCollection<Happening> what);
}

/// <summary>What every act needs at hand: the database, the ledger, the studio's settings and the time.</summary>
public sealed class Desk(
    GesamtDb db,
    TimeProvider time,
    Live live,
    Settings settings,
    FileVault vault,
    IEars ears,
    ILogger<Desk> log
)
{
    private readonly HashSet<ProjectId> changed = [];
    private StudioRow? studio;
    private Instant? wound;
    private StudioCalendar? calendar;

    public GesamtDb Db { get; } = db;
    public Ledger Ledger { get; } = new(db);
    public FileVault Vault { get; } = vault;

    /// <summary>The studio's time; for a rehearsal that was opened, its own if that is ahead.</summary>
    public Instant Now => wound is { } ahead && ahead > time.Now() ? ahead : time.Now();
    public StudioRow Studio => studio ??= Db.Studio.AsNoTracking().Single();
    public StudioCalendar Calendar => calendar ??= Studio.Calendar();
    public Currency Currency => Currency.Of(Studio.Currency);

    /// <summary>How long a letter can be taken back before it is handed over.</summary>
    public Duration Hold => Duration.FromSeconds(settings.HoldSeconds);
    public LocalDate Today => Calendar.DateOf(Now);

    /// <summary>A day in few words, as seen from today: “Fri 12 March”.</summary>
    [return: NotNullIfNotNull(nameof(date))]
    public string? Short(LocalDate? date) => date is { } known ? DateWords.Short(known, Today) : null;

    /// <summary>An instant as papers say it: day, time and zone.</summary>
    public string Precisely(Instant at) =>
        $"{DateWords.Long(Calendar.DateOf(at))}, {DateWords.Time(Calendar.LocalOf(at).TimeOfDay)} ({Studio.Zone})";

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

    /// <summary>Records facts with all that follows; remembers the project, so that open screens learn of it after the commit.</summary>
    public async Task RecordAsync(ProjectFile file, Actor by, params Happening[] what)
    {
        await Ledger.RecordAsync(file, by, Now, what);
        await ears.HearAsync(this, file, what);
        changed.Add(file.Id);
    }

    /// <summary>The same for evidence from outside that happened earlier.</summary>
    public async Task RecordAtAsync(ProjectFile file, Actor by, Instant happened, params Happening[] what)
    {
        await Ledger.RecordAsync(file, by, happened, Now, what);
        await ears.HearAsync(this, file, what);
        changed.Add(file.Id);
    }

    /// <summary>Remembers that something of a project changed besides its facts, such as a letter on its way.</summary>
    public void Touch(ProjectId project) => changed.Add(project);

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

    /// <summary>BEGIN IMMEDIATE: what is read after this is what is written upon.</summary>
    public Task<IDbContextTransaction> BeginAsync() => Db.Database.BeginTransactionAsync();

    /// <summary>Saves, commits, and tells the open screens and the ticker.</summary>
    public async Task CommitAsync(IDbContextTransaction transaction)
    {
        await Db.SaveChangesAsync();
        await transaction.CommitAsync();
        foreach (var project in changed)
            live.Changed(project);
        changed.Clear();
    }
}
