using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Projects;

/// <param name="On">The day it happened, today or earlier; now when left out.</param>
/// <param name="Words">What was said in a call, or the name typed as a signature.</param>
/// <param name="Until">Until when it rests.</param>
public sealed record HappenedDto(HappenedSort Sort, LocalDate? On, string? Words, LocalDate? Until);

/// <summary>“What happened?”: how the owner records what came outside Gesamt, and decides.</summary>
public static class Happened
{
    /// <summary>What can be said to have happened, as things stand.</summary>
    public static IReadOnlyList<HappenedSort> Possible(ProjectFile file)
    {
        var (history, standing) = (file.History, file.Row.Standing);
        if (file.Case.End is not null) return [HappenedSort.TakenUp, HappenedSort.Call];
        List<HappenedSort> can = [];
        if (standing.Stage == Stage.Lead && !history.Any<Happening.MarkedFit>()) can.AddRange([HappenedSort.Fit, HappenedSort.NotAFit, HappenedSort.NotAnInquiry]);
        if (standing.Waits == WaitKind.Countersign) can.Add(HappenedSort.Countersign);
        if (standing.Waits is WaitKind.AnswerInquiry or WaitKind.AnswerLetter or WaitKind.ChangeAsked or WaitKind.Declined) can.Add(HappenedSort.NoAnswerNeeded);
        can.Add(HappenedSort.Call);
        if (standing.Stage == Stage.Delivery && !history.Any<Happening.HandedOver>()) can.Add(HappenedSort.HandedOver);
        if (history.Any<Happening.HandedOver>() && !history.Any<Happening.Approved>()) can.Add(HappenedSort.Approved);
        can.Add(TurnRule.IsResting(file.Case) ? HappenedSort.GoOn : HappenedSort.Rest);
        if (standing.BookedAt is null) can.AddRange([HappenedSort.GoneQuiet, HappenedSort.Lost]);
        return can;
    }

    /// <exception cref="RefusedException">It cannot be said of this project as things stand.</exception>
    public static async Task RecordAsync(Desk desk, ProjectId id, HappenedDto what, string address, string agent)
    {
        if (what.Sort == HappenedSort.Countersign)
        {
            await Contracting.CountersignAsync(desk, id, what.Words ?? "", address, agent);
            return;
        }
        await using var transaction = await desk.BeginAsync();
        var file = await desk.OpenAsync(id);
        if (!Possible(file).Contains(what.Sort)) throw new RefusedException("This cannot be said of the project as it stands now. Load the page again.");
        await desk.RecordAtAsync(file, Actor.Owner, InstantOf(desk, what.On), await FactAsync(desk, id, what));
        await desk.CommitAsync(transaction);
    }

    private static async Task<Happening> FactAsync(Desk desk, ProjectId id, HappenedDto what) => what.Sort switch
    {
        HappenedSort.Fit => new Happening.MarkedFit(),
        HappenedSort.NotAFit => new Happening.Ended(EndReason.Declined),
        HappenedSort.NotAnInquiry => new Happening.Ended(EndReason.NotAnInquiry),
        HappenedSort.GoneQuiet => new Happening.Ended(EndReason.GoneQuiet),
        HappenedSort.Lost => new Happening.Ended(EndReason.Lost),
        HappenedSort.TakenUp => new Happening.TakenUp(),
        HappenedSort.NoAnswerNeeded => new Happening.NoAnswerNeeded(),
        HappenedSort.HandedOver => new Happening.HandedOver(),
        HappenedSort.Approved => new Happening.Approved(),
        HappenedSort.GoOn => new Happening.RestEnded(),
        HappenedSort.Rest => new Happening.RestBegan(Later(desk, what.Until)),
        HappenedSort.Call => new Happening.CallHeld(await NoteAsync(desk, id, NoteSort.Call, what.Words ?? "")),
        _ => throw new ArgumentOutOfRangeException(nameof(what), what.Sort, "No such act."),
    };

    /// <summary>Keeps a short text.</summary>
    /// <exception cref="InvalidException">It says nothing, or too much.</exception>
    public static async Task<NoteId> NoteAsync(Desk desk, ProjectId id, NoteSort sort, string text)
    {
        if (text.Trim().Length is 0 or > 10_000) throw new InvalidException(("words", "Write 1 to 10 000 characters."));
        var note = new NoteRow { ProjectId = id, Sort = sort, Text = text.Trim(), At = desk.Now };
        desk.Db.Notes.Add(note);
        await desk.Db.SaveChangesAsync();
        return note.Id;
    }

    private static LocalDate? Later(Desk desk, LocalDate? until) =>
        until is null || until > desk.Today ? until : throw new InvalidException(("until", "Rest until a day after today, or leave it empty to be asked again in 14 days."));

    private static Instant InstantOf(Desk desk, LocalDate? on)
    {
        if (on is not { } day || day == desk.Today) return desk.Now;
        if (day > desk.Today) throw new InvalidException(("on", "Nothing can have happened later than today."));
        return desk.Calendar.At(day + new LocalTime(12, 0));
    }
}
