using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Work;

/// <param name="To">The new date.</param>
/// <param name="Also">Keys of what was fixed by hand or skipped and shall move all the same.</param>
/// <param name="Confirmed">Without it nothing is moved, and what would be is shown.</param>
/// <param name="Name">Another named date, also one that is new; null is the date that matters.</param>
public sealed record MoveDateDto(LocalDate To, string[] Also, bool Confirmed, string? Name = null);

/// <param name="Ask">May be ticked to move all the same.</param>
public sealed record MovedDto(string Key, string Title, string Old, string New, string Words, bool Ask);

/// <param name="Old">The date as it is, in words; null while it is not known.</param>
public sealed record RedatingDto(string? Old, string New, IReadOnlyList<MovedDto> Moved, int Staying);

/// <param name="At">The day and time it shall act, fixed by hand; null counts it anew from its cause.</param>
public sealed record StepMoveDto(long Run, string Step, int Occurrence, LocalDateTime? At);

/// <summary>Sets and moves dates, and single steps by hand.</summary>
public static class Dates
{
    private const int LongestName = 40,
        MostDates = 20;

    /// <summary>What would move, or, confirmed, what has moved.</summary>
    /// <exception cref="InvalidException">It is the date it has already, or one out of reach.</exception>
    public static async Task<RedatingDto> MoveAsync(Desk desk, ProjectId project, MoveDateDto move)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var name = NameOf(file, move.Name);
            if (move.To == file.Case.DateNamed(name)?.Date)
                throw new InvalidException(("to", $"The {name} is {DateWords.Long(move.To)} already."));
            if (move.To < desk.Today.PlusYears(-20) || move.To > desk.Today.PlusYears(20))
                throw new InvalidException(("to", "Choose a date within twenty years."));
            var moved = Redating.Of(file.Case, move.To, desk.Now, name);
            var preview = await PreviewAsync(desk, file, name, move.To, moved);
            if (!move.Confirmed)
                return preview;
            var also = moved.Where(one => move.Also.Contains(KeyOf(one))).ToHashSet();
            var facts = Redating.Facts(file.Case, move.To, desk.Now, also, name);
            await ApplyAsync(desk, facts);
            await act.RecordAsync(file, Actor.Owner, [.. facts]);
            return preview;
        });
    }

    /// <summary>The names of the project's other dates: those that are set, and those that something waits for.</summary>
    public static IReadOnlyList<string> Others(Case project) =>
        [
            .. project
                .History.Of<Happening.DateSet>()
                .Select(set => set.What.Name)
                .Concat(
                    project.Runs.SelectMany(run =>
                        run.Routine.Steps.Select(step => step.When)
                            .Where(when => when.Cause == Cause.NamedDate)
                            .Select(when => when.DateName)
                            .OfType<string>()
                    )
                )
                .Concat(
                    (AgreedPrice.Of(project.History)?.Parts ?? [])
                        .Select(part => part.Due)
                        .OfType<DueRule.AroundDate>()
                        .Select(rule => rule.Name)
                )
                .Where(name => name != project.Kind.MainDate)
                .Distinct(),
        ];

    /// <summary>A date by its name as the project writes it.</summary>
    private static string NameOf(ProjectFile file, string? name)
    {
        if (name is null)
            return file.Case.Kind.MainDate;
        var plain = name.Trim();
        if (plain.Length is 0 or > LongestName)
            throw new InvalidException(("name", $"A date is called something of 1 to {LongestName} characters."));
        var others = Others(file.Case);
        if (
            others
                .Append(file.Case.Kind.MainDate)
                .FirstOrDefault(known => string.Equals(known, plain, StringComparison.OrdinalIgnoreCase)) is
            { } known
        )
            return known;
        return others.Count < MostDates
            ? plain
            : throw new InvalidException(
                ("name", $"A project has at most {MostDates} dates besides the one that matters.")
            );
    }

    /// <summary>Fixes a planned step to a day and time, or lets it be counted from its cause again.</summary>
    /// <exception cref="RefusedException">It has acted, or was stopped.</exception>
    public static async Task FixAsync(Desk desk, ProjectId project, StepMoveDto move)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var reference = new StepRef(new(move.Run), move.Step, move.Occurrence);
            var step =
                Plan.Of(file.Case).FirstOrDefault(step => step.Ref == reference) ?? throw new MissingException("step");
            if (!step.IsPending)
                throw new RefusedException("This step has acted, was skipped or was stopped. Load the page again.");
            if (move.At is { } at && desk.Calendar.At(at) < desk.Now)
                throw new InvalidException(("at", "Choose a time that is still ahead."));
            var facts = new List<Happening> { new Happening.StepReplanned(reference) };
            if (move.At is { } when)
                facts.Add(new Happening.StepFixed(reference, when));
            await ApplyAsync(desk, facts);
            await act.RecordAsync(file, Actor.Owner, [.. facts]);
        });
    }

    /// <summary>Tasks get their new days; held letters that are planned again are written anew when their time comes.</summary>
    private static async Task ApplyAsync(Desk desk, IEnumerable<Happening> facts)
    {
        foreach (var fact in facts)
            if (fact is Happening.TaskMoved task)
            {
                var row = await desk.Db.Tasks.SingleAsync(t => t.Id == task.Task);
                (row.Due, row.Fixed) = (task.Due, false);
            }
            else if (fact is Happening.StepReplanned { Step: var step })
                foreach (
                    var letter in await desk
                        .Db.Letters.Where(l =>
                            l.RunId == step.Run
                            && l.Step == step.Step
                            && l.Occurrence == step.Occurrence
                            && l.State == LetterState.Held
                        )
                        .ToListAsync()
                )
                    letter.State = LetterState.Stopped;
        await desk.Db.SaveChangesAsync();
    }

    private static async Task<RedatingDto> PreviewAsync(
        Desk desk,
        ProjectFile file,
        string date,
        LocalDate to,
        IReadOnlyCollection<Moved> moved
    )
    {
        var names = await desk
            .Db.LetterTemplates.AsNoTracking()
            .Where(t => t.KindId == null || t.KindId == file.Row.KindId)
            .GroupBy(t => t.Key)
            .Select(same => new { same.Key, Name = same.Min(t => t.Name)! })
            .ToDictionaryAsync(t => t.Key, t => t.Name);
        return new(
            file.Case.DateNamed(date) is { } old ? DateWords.Short(old.Date, desk.Today) : null,
            DateWords.Short(to, desk.Today),
            [
                .. moved
                    .Where(one => one.Fate != Fate.Stays)
                    .Select(one => new MovedDto(
                        KeyOf(one),
                        Title(one, names),
                        Day(desk, one.Old),
                        Day(desk, one.New),
                        Words(one, desk.Today),
                        one.Fate is Fate.Asked or Fate.Skipped
                    )),
            ],
            moved.Count(one => one.Fate == Fate.Stays)
        );
    }

    private static string KeyOf(Moved moved) =>
        moved switch
        {
            Moved.OfStep step => $"step:{step.Step.Ref.Run.Value}:{step.Step.Ref.Step}:{step.Step.Ref.Occurrence}",
            Moved.OfTask task => $"task:{task.Task.Id.Value}",
            Moved.OfInvoice invoice => $"invoice:{invoice.Invoice.Index}",
            _ => throw new ArgumentOutOfRangeException(nameof(moved), moved, "No such thing."),
        };

    private static string Title(Moved moved, Dictionary<string, string> names) =>
        moved switch
        {
            Moved.OfStep { Step.Step.Action: StepAction.Letter letter } =>
                $"Letter “{names.GetValueOrDefault(letter.Key, letter.Key)}”",
            Moved.OfStep step => step.Step.Step.Key,
            Moved.OfTask task => task.Task.Title,
            Moved.OfInvoice invoice =>
                $"Invoice {invoice.Invoice.Index + 1} of {invoice.Invoice.Of}, {MoneyText.Of(invoice.Invoice.Amount)}",
            _ => "",
        };

    private static string Words(Moved moved, LocalDate today) =>
        moved.Fate switch
        {
            Fate.Asked => "its day was set by hand",
            Fate.Skipped => "was skipped",
            Fate.Past => "its new day has gone by, so it is left out",
            _ when moved.New < today => "will be late at once",
            _ => moved is Moved.OfStep { Step.State: StepState.Held }
                ? "waits for your OK now; it is written anew"
                : "",
        };

    private static string Day(Desk desk, LocalDate? day) => desk.Short(day) ?? "no date";
}
