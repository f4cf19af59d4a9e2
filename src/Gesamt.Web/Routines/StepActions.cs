using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Letters;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hooks;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Routines;

/// <summary>What steps do besides sending a letter, and what a sent letter of a step brings about.</summary>
public static class StepActions
{
    /// <summary>Does what a step says and records that it is done.</summary>
    public static async Task DoAsync(Act act, ProjectFile file, PlannedStep step, Actor by)
    {
        var what = await OfAsync(act, file, step);
        await act.RecordAsync(file, by, [.. what, new Happening.StepDone(step.Ref, null)]);
    }

    private static async Task<IReadOnlyList<Happening>> OfAsync(Act act, ProjectFile file, PlannedStep step)
    {
        switch (step.Step.Action)
        {
            case StepAction.Tasks tasks:
                return await act.Db.TaskLists.AsNoTracking().SingleOrDefaultAsync(l => l.Key == tasks.Key) is { } list
                    ? await LaidLists.MakeAsync(act.Desk, file, list, _ => true)
                    : [];
            case StepAction.OpenPart open:
                return Sight.IsOpen(file.History, open.Part) ? [] : [new Happening.PartOpened(open.Part)];
            case StepAction.Label label:
                await LabelAsync(act.Desk, file, label);
                return [];
            case StepAction.Invoice:
                await InstalmentInvoices.IssueNextAsync(act, file);
                return [];
            case StepAction.Hook hook:
                await HookCalls.QueueAsync(act, file, hook.Name, Sending.KeyOf(step.Ref));
                return [];
            default:
                return []; // what only asks or tells is over with its answer
        }
    }

    private static async Task LabelAsync(Desk desk, ProjectFile file, StepAction.Label label)
    {
        var row = await desk.Db.Labels.FirstOrDefaultAsync(l => l.ProjectId == file.Id && l.Label == label.Name);
        if (label.On && row is null)
            desk.Db.Labels.Add(new() { ProjectId = file.Id, Label = label.Name });
        else if (!label.On && row is not null)
            desk.Db.Labels.Remove(row);
    }

    /// <summary>What the letter of a step can say besides what the record knows: the invoice it reminds of, the meeting it offers.</summary>
    public static async Task<Func<RecordWords, RecordWords>> WordsAsync(Desk desk, ProjectFile file, PlannedStep step)
    {
        if (
            step.Step.When.Cause == Cause.InvoiceDue
            && file.History.Of<Happening.InvoiceIssued>().ElementAtOrDefault(step.Ref.Occurrence)
                is { Fact: not null } issued
        )
            return await Writing.AboutInvoiceAsync(desk, file, issued.What);
        return step.Step.Action is StepAction.MeetingChoice choice
            ? words => words with { Meeting = choice.Kind.ToLowerInvariant() }
            : words => words;
    }

    /// <summary>What goes with the letter of a step besides its own files: the contract as it is signed by now, with what confirms a signature or the booking.</summary>
    public static async Task<IReadOnlyList<LetterFileRow>> PapersAsync(Desk desk, ProjectFile file, PlannedStep step)
    {
        if (step.Step.When.Cause is not (Cause.ContractSigned or Cause.Booked) || !step.Step.Confirms)
            return [];
        if (
            await Contracts.Contracting.ShownAsync(desk, file) is not { } contract
            || !file.History.Any<Happening.ContractSigned>(signed =>
                signed.Contract == contract.Id && signed.Signer == Signer.Client
            )
        )
            return [];
        return await KeptPapers.OfAsync(desk, contract) is not { } paper
            ? []
            :
            [
                new()
                {
                    Name = "contract.pdf",
                    Hash = paper.Hash,
                    Size = desk.Vault.SizeOf(paper.Hash),
                    Type = "application/pdf",
                },
            ];
    }
}
