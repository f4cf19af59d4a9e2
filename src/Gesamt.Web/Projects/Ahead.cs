using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Routines;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Projects;

/// <summary>What lies ahead of a project: steps with their dates, tasks, invoices to come.</summary>
public static class Ahead
{
    public static IReadOnlyList<AheadDto> Of(Desk desk, ProjectFile file, LineRows rows)
    {
        var steps = Plan.Of(file.Case).Where(step => step.IsPending && step.Step.Action is StepAction.Letter or StepAction.EndAsQuiet).Select(step => (step.Due, Step(desk, file, rows, step)));
        var tasks = file.Case.OpenTasks.Where(task => task.Due is not null).Select(task => (
            (Instant?)desk.Calendar.StartOf(task.Due!.Value),
            new AheadDto($"task:{task.Id.Value}", Day(desk, task.Due.Value), "", EntrySort.Tasks, task.Title, $"{rows.Tasks[task.Id].Counted}", "task", false, task.Id.Value, null)));
        var invoices = Billing.Planned(file.Case).Select(p => (
            p.On is { } on ? (Instant?)desk.Calendar.StartOf(on) : null,
            new AheadDto($"invoice:{p.Index}", p.On is { } day ? Day(desk, day) : "date unknown", "", EntrySort.Money, $"Invoice {p.Index + 1} of {p.Of}, {MoneyText.Of(p.Amount)}",
                p.Due is { } due ? $"due {DateWords.Short(due, desk.Today)}" : "when what it hangs on is known", "by itself", false, null, null)));
        var meetings = Core.Meetings.MeetingState.Of(file.History).Where(m => m.IsStanding && m.End > desk.Now).Select(m => (
            (Instant?)m.Start, new AheadDto($"meeting:{m.Id.Value}", Day(desk, desk.Calendar.DateOf(m.Start)), DateWords.Time(desk.Calendar.LocalOf(m.Start).TimeOfDay), EntrySort.Meetings, rows.Meetings[m.Id].Name,
                Meetings.MeetingLetters.PlaceWords(rows.Meetings[m.Id]), "meeting", false, null, new(OpensWhat.Meeting, m.Id.Value))));
        return [.. steps.Concat(meetings).Concat(tasks).Concat(invoices).OrderBy(pair => pair.Item1 ?? Instant.MaxValue).Select(pair => pair.Item2)];
    }

    private static AheadDto Step(Desk desk, ProjectFile file, LineRows rows, PlannedStep step)
    {
        var held = step.State == StepState.Held;
        var mark = held ? "waits for your OK" : step.Step.Mode == StepMode.AsksFirst ? "asks first" : "by itself";
        var local = step.Due is { } due ? desk.Calendar.LocalOf(due) : (LocalDateTime?)null;
        var run = file.Case.Runs.First(r => r.Id == step.Ref.Run);
        var detail = step.State == StepState.Parked ? $"waits until {CauseWords(step.Step.When, file)}" : $"{TimingWords(step.Step, file)}{StopWords(step.Step)}{(step.FixedByHand ? ", its day set by hand" : "")}";
        return new($"step:{step.Ref.Run.Value}:{step.Ref.Step}:{step.Ref.Occurrence}",
            step.State == StepState.Parked ? "no date yet" : Day(desk, local!.Value.Date), local is null || step.State == StepState.Parked ? "" : DateWords.Time(local.Value.TimeOfDay), EntrySort.Letters,
            step.Step.Action is StepAction.EndAsQuiet ? "End it as gone quiet?" : $"Letter “{LineText.LetterOf(step.Ref, rows)}”", $"{detail}. {run.Routine.Name}", mark, held, null,
            step.Letter is { } letter ? new(OpensWhat.Letter, letter.Value) : null,
            new(step.Ref.Run.Value, step.Ref.Step, step.Ref.Occurrence, local, step.FixedByHand));
    }

    /// <summary>“2 days after the proposal was sent”.</summary>
    public static string TimingWords(Step step, ProjectFile file)
    {
        var words = step.When.Offset.Words;
        return words.Length == 0 ? $"when {CauseWords(step.When, file)}" : $"{words} {CauseNoun(step.When, file)}";
    }

    private static string StopWords(Step step) => step.Stops.Length == 0 ? "" : ", if not " + string.Join(" or ", step.Stops.Select(rule => rule.ToString().ToLowerInvariant()));

    private static string CauseNoun(Timing when, ProjectFile file) => when.Cause switch
    {
        Cause.InquiryCame => "the inquiry",
        Cause.ProposalSent => "the proposal",
        Cause.ContractSent => "the contract",
        Cause.Booked => "booking",
        Cause.InvoiceDue => "the invoice is due",
        Cause.HandedOver => "handover",
        Cause.PreviousStep => "the step before",
        Cause.NamedDate => $"the {when.DateName ?? file.Case.Kind.MainDate}",
        _ => "it began",
    };

    private static string CauseWords(Timing when, ProjectFile file) => when.Cause switch
    {
        Cause.InquiryCame => "the inquiry comes",
        Cause.ProposalSent => "a proposal is sent",
        Cause.ContractSent => "the contract is sent",
        Cause.Booked => "it is booked",
        Cause.InvoiceDue => "an invoice is due",
        Cause.HandedOver => "it is handed over",
        Cause.PreviousStep => "the step before is done",
        Cause.NamedDate => $"the {when.DateName ?? file.Case.Kind.MainDate} is known",
        _ => "it begins",
    };

    private static string Day(Desk desk, LocalDate date) => DateWords.DaysBetween(desk.Today, date) switch
    {
        0 => "today",
        1 => "tomorrow",
        _ => DateWords.Short(date, desk.Today),
    };
}
