using System.Text.Json.Nodes;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Waiting;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>How often clients were reminded of an invoice after its day, by the letters of routines.</summary>
internal static class Reminded
{
    /// <summary>By invoice, the days on which it was reminded of; one that nobody was reminded of is not among them.</summary>
    public static async Task<ILookup<InvoiceId, LocalDate>> OfAsync(Desk desk, IReadOnlyCollection<AheadLine> late)
    {
        var projects = late.Select(line => line.Project).Distinct().ToList();
        if (projects.Count == 0)
            return Enumerable.Empty<(InvoiceId Id, LocalDate On)>().ToLookup(one => one.Id, one => one.On);
        var letters = await (
            from letter in desk.Db.Letters
            join run in desk.Db.Runs on letter.RunId equals run.Id
            where
                letter.State == LetterState.Sent
                && letter.ProjectId != null
                && projects.Contains(letter.ProjectId.Value)
                && letter.Step != null
            orderby letter.At
            select new
            {
                Project = run.ProjectId,
                letter.At,
                letter.Step,
                letter.Occurrence,
                run.Routine,
            }
        ).ToListAsync();
        var issued = (
            await desk
                .Db.Facts.Where(f => projects.Contains(f.ProjectId) && f.Kind == nameof(Happening.InvoiceIssued))
                .OrderBy(f => f.Recorded)
                .ThenBy(f => f.Id)
                .Select(f => new { f.ProjectId, f.Payload })
                .ToListAsync()
        ).ToLookup(f => f.ProjectId, f => new InvoiceId(JsonNode.Parse(f.Payload)!["invoice"]!.GetValue<long>()));
        var due = late.Where(line => line.Invoice is not null)
            .ToDictionary(line => line.Invoice!.Value, line => line.On!.Value);
        return letters
            .Where(letter => IsReminder(letter.Routine, letter.Step!))
            .Select(letter =>
                (
                    Id: issued[letter.Project].ElementAtOrDefault(letter.Occurrence ?? 0),
                    On: desk.Calendar.DateOf(letter.At)
                )
            )
            .Where(one => due.TryGetValue(one.Id, out var day) && one.On > day)
            .ToLookup(one => one.Id, one => one.On);
    }

    // a letter of each occurrence of “the invoice is due” is about the invoice of that number in the project's order
    private static bool IsReminder(string pinned, string key)
    {
        var routine = StoreJson.ReadPinned<Routine>(pinned);
        return routine.Steps.FirstOrDefault(step => step.Key == key) is { When.Cause: Cause.InvoiceDue } step
            && Reminders.About(routine, step) == Owing.Payment;
    }
}
