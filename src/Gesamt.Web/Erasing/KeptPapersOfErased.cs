using Gesamt.Core.Calendar;
using Gesamt.Store;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Erasing;

/// <summary>What the law keeps, in words.</summary>
public static class KeptPapersOfErased
{
    private const int MostNumbers = 4;

    /// <summary>Projects of people who were erased of which something is kept yet, those of which something may go first.</summary>
    public static async Task<IReadOnlyList<KeptOfErasedDto>> AllAsync(Desk desk)
    {
        var ids = await desk
            .Db.Erasures.AsNoTracking()
            .Where(e => e.AgreementsAt == null || e.BooksAt == null)
            .Select(e => e.ProjectId)
            .ToListAsync();
        var files = await desk.Db.OpenManyAsync(ids, desk.Calendar);
        List<KeptOfErasedDto> all = [];
        foreach (var file in files.Values)
            if (await OfAsync(desk, file) is { What.Count: > 0 } kept)
                all.Add(kept);
        return [.. all.OrderByDescending(one => one.Over).ThenBy(one => one.Project)];
    }

    public static async Task<KeptOfErasedDto> OfAsync(Desk desk, ProjectFile file)
    {
        var kept = await KeptByLaw.OfAsync(desk, file);
        var years = KeptByLaw.YearsOf(desk.Studio);
        List<(string What, LocalDate Until)> parts = [];
        if (kept.BookedOn is { } booked)
            parts.Add((Books(kept.Invoices), years.BooksUntil(booked)));
        if (kept.AgreedOn is { } agreed)
            parts.Add(("What was agreed, as it was signed", years.AgreementsUntil(agreed)));
        return new(
            file.Id.Value,
            [
                .. parts.Select(part =>
                    part.Until < desk.Today
                        ? $"{part.What}: kept until {DateWords.Long(part.Until)}, which is over"
                        : $"{part.What}: until {DateWords.Long(part.Until)}"
                ),
            ],
            parts.Exists(part => part.Until < desk.Today)
        );
    }

    /// <summary>Says that papers of somebody erased may go; null while none may.</summary>
    public static async Task<string?> OfferedAsync(Desk desk)
    {
        // a paper is kept until the end of a year, so those of the years before may go
        LocalDate First(int years) => new(desk.Today.Year - years, 1, 1);
        var (books, agreements) = (First(desk.Studio.BookYears), First(desk.Studio.AgreementYears));
        var (booksAt, agreementsAt) = (desk.Calendar.StartOf(books), desk.Calendar.StartOf(agreements));
        var over = await Over(desk.Db, books, booksAt, agreementsAt);
        return over == 0
            ? null
            : $"The law keeps some papers of people who were erased no longer ({(over == 1 ? "1 project" : $"{over} projects")}): erase them on the page of the studio, under Erasing people.";
    }

    private static readonly Func<GesamtDb, LocalDate, Instant, Instant, Task<int>> Over = EF.CompileAsyncQuery(
        (GesamtDb db, LocalDate books, Instant booksAt, Instant agreementsAt) =>
            db.Erasures.Count(e =>
                e.BooksAt == null
                    && !db.Invoices.Any(i => i.ProjectId == e.ProjectId && i.IssuedOn >= books)
                    && !db.Costs.Any(c => c.ProjectId == e.ProjectId && c.On >= books)
                    && !db.Payments.Any(p => p.ProjectId == e.ProjectId && p.At >= booksAt)
                || e.AgreementsAt == null && !db.Versions.Any(v => v.ProjectId == e.ProjectId && v.At >= agreementsAt)
            )
    );

    private static string Books(IReadOnlyList<string> numbers) =>
        numbers.Count switch
        {
            0 => "Payments and receipts",
            1 => $"Invoice {numbers[0]}, with what was paid",
            <= MostNumbers => $"Invoices {string.Join(", ", numbers)}, with what was paid",
            _ => $"{numbers.Count} invoices, {numbers[0]} to {numbers[^1]}, with what was paid",
        };
}
