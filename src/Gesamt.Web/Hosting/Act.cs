using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using NodaTime;

namespace Gesamt.Web.Hosting;

/// <summary>Hears of facts in the act that records them, so that what follows from them is one commit with them.</summary>
public interface IEars
{
    Task HearAsync(Act act, ProjectFile file, IReadOnlyCollection<Happening> what);
}

/// <summary>One act: what is decided and written in one transaction. Only <see cref="Desk.ActAsync{T}"/> makes one, and only one can record facts.</summary>
public sealed class Act
{
    private readonly IEnumerable<IEars> ears;
    private readonly HashSet<ProjectId> changed = [];

    internal Act(Desk desk, IEnumerable<IEars> ears) => (Desk, Ledger, this.ears) = (desk, new(desk.Db), ears);

    /// <summary>What can be read, inside an act as outside.</summary>
    public Desk Desk { get; }

    /// <summary>To read, and to add rows that go with the facts.</summary>
    public GesamtDb Db => Desk.Db;

    /// <summary>For what is done without ears: laying a studio, computing anew.</summary>
    public Ledger Ledger { get; }

    /// <inheritdoc cref="Desk.Now"/>
    public Instant Now => Desk.Now;

    /// <inheritdoc cref="Desk.Today"/>
    public LocalDate Today => Desk.Today;

    /// <inheritdoc cref="Desk.Studio"/>
    public StudioRow Studio => Desk.Studio;

    /// <inheritdoc cref="Desk.Calendar"/>
    public StudioCalendar Calendar => Desk.Calendar;

    /// <summary>Projects whose open screens learn of it after the commit.</summary>
    public IReadOnlySet<ProjectId> Changed => changed;

    /// <inheritdoc cref="Desk.OpenAsync"/>
    public Task<ProjectFile> OpenAsync(ProjectId id) => Desk.OpenAsync(id);

    /// <summary>Records facts with all that follows.</summary>
    public async Task RecordAsync(ProjectFile file, Actor by, params Happening[] what)
    {
        RefuseErased(file, by, what);
        await Ledger.RecordAsync(file, by, Now, what);
        await TellAsync(file, what);
    }

    /// <summary>The same in several projects, whose rows are read and written together.</summary>
    /// <param name="entries">One for each project.</param>
    public async Task RecordAsync(IReadOnlyCollection<LedgerEntry> entries)
    {
        if (entries.Count == 0)
            return;
        foreach (var entry in entries)
            RefuseErased(entry.File, entry.By, entry.What);
        await Ledger.RecordAsync(entries, Now);
        foreach (var entry in entries)
            await TellAsync(entry.File, entry.What);
    }

    /// <summary>The same for evidence from outside that happened earlier.</summary>
    public async Task RecordAtAsync(ProjectFile file, Actor by, Instant happened, params Happening[] what)
    {
        // what comes in by itself, such as a letter, is filed whoever it is from
        if (by == Actor.Owner)
            RefuseErased(file, by, what);
        await Ledger.RecordAsync(file, by, happened, Now, what);
        await TellAsync(file, what);
    }

    /// <summary>The same for letters and files kept elsewhere so far, each with its own instant: they move nothing.</summary>
    public async Task RecordKeptAsync(
        ProjectFile file,
        Actor by,
        IReadOnlyCollection<(Instant Happened, Happening What)> kept
    )
    {
        Happening[] what = [.. kept.Select(one => one.What)];
        RefuseErased(file, by, what);
        await Ledger.RecordKeptAsync(file, by, Now, kept);
        await TellAsync(file, what);
    }

    /// <summary>What is still to come of a project whose client was erased is money alone, such as what a bank takes back.</summary>
    private static void RefuseErased(ProjectFile file, Actor by, Happening[] what)
    {
        if (file.Row.Client is { ErasedAt: not null } && by != Actor.Gesamt && !Array.TrueForAll(what, Ledger.IsMoney))
            throw new RefusedException("The client of this project was erased: nothing more is written in it.");
    }

    private async Task TellAsync(ProjectFile file, Happening[] what)
    {
        foreach (var one in ears)
            await one.HearAsync(this, file, what);
        Touch(file.Id);
    }

    /// <summary>Remembers that something of a project changed besides its facts, such as a letter on its way.</summary>
    public void Touch(ProjectId project) => changed.Add(project);
}
