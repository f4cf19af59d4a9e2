using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Waiting;

/// <summary>What a step takes for granted that the client still owes.</summary>
public enum Owing
{
    Nothing,
    Answer,
    Choice,
    Signature,
    Payment,
    Form,
    Approval,
}

/// <summary>Which steps remind of something, and the letters they sent.</summary>
public static class Reminders
{
    /// <summary>What a step reminds of: one that something the client does would end, begun by what was put to them.</summary>
    public static Owing About(Routine routine, Step step)
    {
        if (
            step.Action is not (StepAction.Letter or StepAction.EndAsQuiet or StepAction.TellMe)
            || !step.Stops.Any(Reminds)
        )
            return Owing.Nothing;
        return (step.When.Cause is Cause.RunBegun or Cause.PreviousStep ? routine.Begins : step.When.Cause) switch
        {
            Cause.InquiryCame => Owing.Answer,
            Cause.ProposalSent or Cause.ProposalOpened or Cause.ProposalRunsOut => Owing.Choice,
            Cause.ContractSent => Owing.Signature,
            Cause.InvoiceDue => Owing.Payment,
            Cause.HandedOver => Owing.Approval,
            _ => step.Stops.Contains(StopRule.FormReturned) ? Owing.Form : Owing.Nothing,
        };
    }

    private static bool Reminds(StopRule rule) =>
        rule
            is StopRule.Answered
                or StopRule.Opened
                or StopRule.Chosen
                or StopRule.Signed
                or StopRule.Paid
                or StopRule.FormReturned;

    /// <summary>Letters that were sent to remind: they answer nothing and make nothing younger.</summary>
    public static IReadOnlySet<LetterId> Letters(Case project) => Done(project).Select(sent => sent.Letter).ToHashSet();

    /// <summary>When each reminder was sent.</summary>
    public static IEnumerable<Instant> Sent(Case project) => Done(project).Select(sent => sent.At);

    /// <summary>When each reminder of an invoice was sent after its day, in their order.</summary>
    public static ILookup<InvoiceId, Instant> OfInvoices(Case project)
    {
        var issued = project.History.Of<Happening.InvoiceIssued>().Select(one => one.What).ToList();
        return Done(project)
            .Where(sent => sent.When == Cause.InvoiceDue)
            // the first occurrence of “the invoice is due” is that of the first invoice
            .Select(sent => (sent.At, Invoice: issued.ElementAtOrDefault(sent.Occurrence)))
            .Where(sent => sent.Invoice is { } invoice && project.Calendar.DateOf(sent.At) > invoice.Due)
            .ToLookup(sent => sent.Invoice!.Invoice, sent => sent.At);
    }

    private static IEnumerable<(LetterId Letter, Instant At, Cause When, int Occurrence)> Done(Case project)
    {
        foreach (var fact in project.History.Facts)
            if (
                fact.What is Happening.StepDone { Letter: { } letter } done
                && project.Runs.FirstOrDefault(run => run.Id == done.Step.Run) is { } run
                && run.Routine.Steps.FirstOrDefault(step => step.Key == done.Step.Step) is { } step
                && About(run.Routine, step) != Owing.Nothing
            )
                yield return (letter, fact.Happened, step.When.Cause, done.Step.Occurrence);
    }
}
