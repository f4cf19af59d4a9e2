using System.Collections.Immutable;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Waiting;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>Whether a step's conditions hold.</summary>
public static class Conditions
{
    public static bool Hold(Step step, Traits traits) =>
        step.If.All(condition =>
            condition switch
            {
                Condition.SourceIs source => IsOneOf(source.Is, traits.Source),
                Condition.AnswerIs answer => IsOneOf(answer.Is, traits.Details.GetValueOrDefault(answer.Detail)),
                _ => throw new ArgumentOutOfRangeException(nameof(step), condition, "No such condition."),
            }
        );

    // an answer with several choices holds when one of them does
    private static bool IsOneOf(ImmutableArray<string> allowed, string? value) =>
        value is not null
        && Forms.FormRule.Lines(value).Any(line => allowed.Contains(line, StringComparer.OrdinalIgnoreCase));
}

/// <summary>When somebody may be asked for a favour: nobody unpaid, unhappy or in the middle of a review is.</summary>
public static class Favours
{
    /// <summary>What it waits for, as the end of “waits until …”; null when nothing stands in the way.</summary>
    public static string? WaitFor(Case project)
    {
        if (Owed.Open(project.History).Any())
            return "all that is due is paid";
        if (ReviewRule.Open(project.History) is not null || ReviewRule.ToRework(project.History) is not null)
            return "the round of review is over";
        return Unanswered
            .Of(project)
            .Any(wait =>
                wait.Kind
                    is WaitKind.ChangeAsked
                        or WaitKind.Declined
                        or WaitKind.AnswerRemark
                        or WaitKind.BriefRemarked
            )
            ? "what they objected to is answered"
            : null;
    }

    /// <summary>When the last thing that could have stood in the way was settled.</summary>
    public static Instant SettledAt(Case project) =>
        project
            .History.Facts.LastOrDefault(fact =>
                fact.What
                    is Happening.PaymentReceived
                        or Happening.InvoiceCredited
                        or Happening.ReviewApproved
                        or Happening.ReviewWithdrawn
                        or Happening.LetterSent { ByItself: false }
                        or Happening.CallHeld
                        or Happening.NoAnswerNeeded
            )
            ?.Recorded
        ?? Instant.MinValue;
}
