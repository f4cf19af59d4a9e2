using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;

namespace Gesamt.Core.Routines;

/// <summary>What the keys in a routine are called.</summary>
public interface IRoutineNames
{
    string Letter(string key);
    string Form(string slug);
    string Kind(string key);
    string TaskList(string key);

    /// <summary>What the date that matters is called.</summary>
    string MainDate { get; }
}

/// <summary>Steps in words, the same in the editor, on the record and in a rehearsal.</summary>
public static class RoutineWords
{
    /// <summary>“5 days after the proposal was sent, if not opened, the letter “Did it reach you?”, asks first”.</summary>
    public static string Sentence(Step step, IRoutineNames names)
    {
        var before = step.Action.AlwaysAsks || step.Mode == StepMode.AsksFirst ? ", asks first" : ", by itself";
        return $"{Capital(When(step.When, names))}{Conditions(step)}{Unless(step)}{(step.Favour ? ", once all is settled" : "")}, {What(step.Action, names)}{before}";
    }

    /// <summary>“5 days after the proposal was sent, at 09:00”.</summary>
    public static string When(Timing when, IRoutineNames names)
    {
        var cause = Past(when.Cause, when.DateName ?? names.MainDate);
        var at = when.At is { } time ? $", at {DateWords.Time(time)}" : "";
        return when.Offset.Count == 0
            ? when.Cause == Cause.NamedDate
                ? $"on the {when.DateName ?? names.MainDate}{at}"
                : $"when {cause}{at}"
            : $"{when.Offset.Words} {cause}{at}";
    }

    /// <summary>The same without its hour, of what is due by now: “5 days after the proposal was sent”.</summary>
    public static string Why(Timing when, IRoutineNames names) => When(when with { At = null }, names);

    /// <summary>“the letter “Did it reach you?””.</summary>
    public static string What(StepAction action, IRoutineNames names) =>
        action switch
        {
            StepAction.Letter letter => $"the letter “{names.Letter(letter.Key)}”",
            StepAction.Form form => $"the form “{names.Form(form.Slug)}” with the letter “{names.Letter(form.Key)}”",
            StepAction.MeetingChoice choice =>
                $"times for “{choice.Kind}” with the letter “{names.Letter(choice.Key)}”",
            StepAction.Invoice => "the next agreed invoice",
            StepAction.Tasks tasks => $"the tasks “{names.TaskList(tasks.Key)}”",
            StepAction.OpenPart open => $"open “{Sight.Words(open.Part)}” on the client page",
            StepAction.Label label => label.On
                ? $"put on the label “{label.Name}”"
                : $"take off the label “{label.Name}”",
            StepAction.FollowOn follow => $"a project “{names.Kind(follow.Kind)}” with the same client",
            StepAction.EndAsQuiet => "end it as gone quiet",
            StepAction.Hook hook => $"call the web hook “{hook.Name}”",
            StepAction.TellMe tell => $"tell me “{tell.Words}”",
            _ => throw new ArgumentOutOfRangeException(nameof(action), action, "No such action."),
        };

    /// <summary>“, if not opened”, “, unless opened, answered or resting”; empty for a step that only an end stops.</summary>
    public static string Unless(Step step) =>
        step.Stops.Length switch
        {
            0 => "",
            1 => $", if not {Word(step.Stops[0])}",
            _ => $", unless {string.Join(", ", step.Stops[..^1].Select(Word))} or {Word(step.Stops[^1])}",
        };

    private static string Conditions(Step step) =>
        string.Concat(
            step.If.Select(condition =>
                condition switch
                {
                    Condition.SourceIs source => $", if it came from {string.Join(" or ", source.Is)}",
                    Condition.AnswerIs answer => $", if {answer.Detail} is {string.Join(" or ", answer.Is)}",
                    _ => "",
                }
            )
        ) + (step.In.IsEmpty ? "" : $", only {string.Join(" or ", step.In)}");

    /// <summary>“form returned”.</summary>
    public static string Word(StopRule rule) =>
        rule switch
        {
            StopRule.FormReturned => "form returned",
            StopRule.HandedOver => "handed over",
            StopRule.ByHand => "by hand",
            StopRule.CauseGone => "its cause taken back",
            StopRule.PutAway => "put away",
            StopRule.Past => "its date is past",
            StopRule.NotTheirs => "not their turn",
            StopRule.Finished => "the project finished",
            _ => rule.ToString().ToLowerInvariant(),
        };

    private static string Past(Cause cause, string date) =>
        cause switch
        {
            Cause.RunBegun => "it began",
            Cause.PreviousStep => "the step before",
            Cause.InquiryCame => "the inquiry came",
            Cause.ProposalSent => "the proposal was sent",
            Cause.ProposalOpened => "the proposal was opened",
            Cause.ProposalRunsOut => "the proposal runs out",
            Cause.ContractSent => "the contract was sent",
            Cause.ContractSigned => "the contract was signed",
            Cause.Booked => "it was booked",
            Cause.InvoiceDue => "the invoice is due",
            Cause.PaymentReceived => "a payment came",
            Cause.MeetingHeld => "a meeting was held",
            Cause.FormReturned => "a form was returned",
            Cause.HandedOver => "the handover",
            Cause.Approved => "the approval",
            Cause.Ended => "the ending",
            Cause.NamedDate => $"the {date}",
            _ => throw new ArgumentOutOfRangeException(nameof(cause), cause, "No such cause."),
        };

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
