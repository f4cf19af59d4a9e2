using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>What was handed over as a PDF to keep: files and links with their use, and what was said with them.</summary>
internal static class HandedOverPaper
{
    /// <exception cref="MissingException">Nothing was handed over, or the part is closed.</exception>
    public static async Task<byte[]> OfAsync(Desk desk, ProjectFile file)
    {
        if (file.History.Last<Happening.HandedOver>() is not { } handed || !Sight.IsOpen(file.History, PagePart.Files))
            throw new MissingException("handover");
        var shown = Sight.Shown(file.History);
        var finals = await desk
            .Db.Files.AsNoTracking()
            .Where(f => f.ProjectId == file.Id && f.Group == FileGroup.Final && !f.Removed)
            .OrderBy(f => f.Id)
            .ToListAsync();
        var words = await Handover.WordsAsync(desk, file) ?? new("", "", "");
        var approved = file.History.Last<Happening.Approved>();
        var head = Print.Letterhead(desk);
        return new Formats.Pdf.HandoverPaper(
            head,
            file.Row.Title,
            $"Handed over on {Day(desk, handed.Happened)}{(approved is { } yes ? $", approved on {Day(desk, yes.Happened)}" : "")}. For {file.Row.Client!.Name}.",
            [
                .. finals.Where(row => shown.Contains(row.Id)).Select(row => new HandedThing(row.Name, row.Use)),
                .. (words.Links ?? []).Select(link => new HandedThing(link.Address, link.Use)),
            ],
            [
                .. new HandoverPart[]
                {
                    new("How to care for it, and how it may be used", words.Care),
                    new("The goals, and how they were met", words.Goals),
                    new("What comes after", words.After),
                    new("Where you can speak of it", words.Review),
                }.Where(part => part.Words.Length > 0),
            ]
        ).Draw(desk.Now, Print.Logo(desk, head));
    }

    private static string Day(Desk desk, NodaTime.Instant at) => DateWords.Long(desk.Calendar.DateOf(at));
}
