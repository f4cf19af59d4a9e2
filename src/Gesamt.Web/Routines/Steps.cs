using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Routines;

/// <summary>A due step of a project that was opened.</summary>
internal sealed record DueOf(ProjectFile File, DueStep Due)
{
    public PlannedStep Step => Due.Step;

    /// <summary>The letter it writes, by its key; null where it writes none.</summary>
    public string? LetterKey => Due.Act == DueAct.Skip ? null : Step.Step.Action.LetterKey;
}

/// <summary>Lets due steps act: what is due next in each of some projects, in one short transaction, until nothing is.</summary>
/// <remarks>The claims of several projects share one flush; nothing leaves the house before it.</remarks>
public static class Steps
{
    /// <summary>So many projects share one act, so that nobody who writes waits long for it.</summary>
    public const int AtOnce = 50;

    /// <summary>Lets all that is due of a project act.</summary>
    public static async Task ActAsync(Desk desk, ProjectId project) =>
        await ActAsync(desk, [await desk.OpenAsync(project)]);

    /// <summary>Lets all that is due of some projects act. What goes wrong in one of them undoes what was done together with it.</summary>
    public static async Task ActAsync(Desk desk, IReadOnlyCollection<ProjectFile> files)
    {
        HashSet<StepRef> tried = [];
        // one after another in each project, decided on what the one before left
        while (Next(desk, files, tried) is { Count: > 0 } due)
        {
            tried.UnionWith(due.Select(one => one.Step.Ref));
            var overtaken = await RoundAsync(desk, due);
            files = [.. due.Select(one => one.File).Except(overtaken)];
        }
    }

    private static List<DueOf> Next(Desk desk, IEnumerable<ProjectFile> files, HashSet<StepRef> tried) =>
        [
            .. from file in files
            let due = DueSteps.Of(file.Case, desk.Now).FirstOrDefault(due => !tried.Contains(due.Step.Ref))
            where due is not null
            select new DueOf(file, due),
        ];

    /// <summary>One step of each project.</summary>
    /// <returns>Where something happened meanwhile, or another copy was quicker: it is decided again on the next tick.</returns>
    private static async Task<IReadOnlyCollection<ProjectFile>> RoundAsync(Desk desk, List<DueOf> due)
    {
        var acting = await StepLetters.WithoutWaitingAsync(desk, due);
        if (acting.Count == 0)
            return [];
        // texts are written before the act; it then only checks that nothing happened meanwhile
        var letters = await StepLetters.PrepareAsync(desk, acting);
        KillPoints.Reach("claiming");
        var overtaken = await desk.ActAsync(async act =>
        {
            var last = await act.Db.LastFactsAsync([.. acting.Select(one => one.File.Id)]);
            var parted = acting.ToLookup(one => last.GetValueOrDefault(one.File.Id) == one.File.History.LastFact);
            await DoAsync(act, [.. parted[true]], letters);
            return parted[false].Select(one => one.File).ToList();
        });
        KillPoints.Reach("claimed");
        return overtaken;
    }

    private static async Task DoAsync(
        Act act,
        IReadOnlyCollection<DueOf> due,
        IReadOnlyDictionary<StepRef, LetterRow> letters
    )
    {
        foreach (var letter in due.Select(one => letters.GetValueOrDefault(one.Step.Ref)).OfType<LetterRow>())
            if (letter.Id.Value == 0)
                act.Db.Letters.Add(letter);
            else
                letter.State = LetterState.Held;
        await act.Db.SaveChangesAsync();
        List<LedgerEntry> done = [];
        foreach (var one in due)
            if (letters.GetValueOrDefault(one.Step.Ref) is { State: LetterState.Ready } letter)
                // the key exists once: a step that was claimed before is refused by the database
                Sending.Claim(act, letter, Sending.KeyOf(letter), act.Now);
            else if (Written(one, letters.GetValueOrDefault(one.Step.Ref)) is { } what)
                done.Add(new(one.File, Actor.Gesamt, act.Now, [what]));
            else
                await StepActions.DoAsync(act, one.File, one.Step, Actor.Gesamt);
        await act.RecordAsync(done);
    }

    /// <summary>What is only written down of a step; null for one that does something.</summary>
    private static Happening? Written(DueOf due, LetterRow? letter) =>
        due.Due.Act == DueAct.Skip ? new Happening.StepSkipped(due.Step.Ref)
        : letter is not null || due.Due.Act == DueAct.Hold ? new Happening.StepHeld(due.Step.Ref, letter?.Id)
        : null;
}
