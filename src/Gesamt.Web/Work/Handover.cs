using Gesamt.Core;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Stages;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Work;

/// <param name="Use">A word on its use.</param>
public sealed record FinalDto(long File, string Use);

/// <summary>What is said of the work as it is handed over; each empty where nothing is.</summary>
/// <param name="Goals">The goals of the brief, and how they were met.</param>
/// <param name="After">What comes after: care, upkeep.</param>
/// <param name="Review">Where the client can speak of it in public, a link.</param>
/// <param name="Care">How to care for it, and how it may be used.</param>
/// <param name="Links">What is handed over as a link.</param>
public sealed record HandoverWordsDto(
    string Goals,
    string After,
    string Review,
    string Care = "",
    HandedLinkDto[]? Links = null
)
{
    internal bool IsEmpty => Goals.Length + After.Length + Review.Length + Care.Length + (Links?.Length ?? 0) == 0;
}

/// <summary>Work that is fetched from elsewhere.</summary>
/// <param name="Use">A word on its use.</param>
public sealed record HandedLinkDto(string Address, string Use);

/// <param name="Files">What is handed over; none for work that is not a file.</param>
/// <param name="Done">Open tasks that are fulfilled by it.</param>
/// <param name="Words">What stands with it on the client’s page.</param>
public sealed record HandOverDto(
    FinalDto[] Files,
    string Subject,
    string Body,
    long[]? Done = null,
    HandoverWordsDto? Words = null
);

/// <summary>A phase and the state it is set to.</summary>
public sealed record PhaseDto(string Phase, PhaseState State);

/// <summary>A part of the client’s page, opened or closed.</summary>
public sealed record PartDto(PagePart Part, bool Open);

/// <summary>Hands the work over, and opens and closes what the client sees of it.</summary>
public static class Handover
{
    private const int LongestWords = 4_000,
        MostLinks = 20;

    /// <summary>Final files are shown, each with a word on its use, the part Files is open, the closing steps are made, and a letter says so.</summary>
    /// <exception cref="RefusedException">It is not booked yet, was handed over already, or has ended.</exception>
    public static async Task<LetterRow> HandOverAsync(Desk desk, ProjectId project, HandOverDto over)
    {
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (file.Case.End is not null)
                throw new RefusedException("The project has ended. Take it up again first.");
            if (file.Row.Standing.Stage < Stage.Delivery)
                throw new RefusedException(
                    "The work is handed over once the project is booked and paid as agreed. Say “What happened?” if that came outside."
                );
            if (file.History.Any<Happening.HandedOver>())
                throw new RefusedException("The work was handed over already.");
            var shown = Sight.Shown(file.History);
            List<Happening> facts = [];
            foreach (var final in over.Files)
            {
                var row = await KeptFiles.OneAsync(desk, project, new(final.File));
                if (row.Group != FileGroup.Final || row.Removed)
                    throw new InvalidException(("files", $"“{row.Name}” is not among the final files."));
                row.Use = KeptFiles.UseOf(final.Use);
                if (row.Use.Length == 0)
                    throw new InvalidException(($"use:{final.File}", $"Say in a few words what “{row.Name}” is for."));
                if (!shown.Contains(row.Id))
                    facts.Add(new Happening.FileShown(row.Id));
            }
            if (!Sight.IsOpen(file.History, PagePart.Files))
                facts.Add(new Happening.PartOpened(PagePart.Files));
            facts.AddRange(await Tasks.FulfilledAsync(desk, project, over.Done ?? []));
            if (over.Words is { } said && Read(said) is { IsEmpty: false } words)
                await Versions.AddAsync(desk, project, PaperSort.Handover, words);
            facts.Add(new Happening.HandedOver());
            facts.AddRange(await Tasks.CloseUpAsync(desk, file));
            await act.RecordAsync(file, Actor.Owner, [.. facts]);
            var letter = await LettersOut.ClaimAsync(act, file, over.Subject, over.Body, null);
            return letter;
        });
    }

    private static HandoverWordsDto Read(HandoverWordsDto said)
    {
        var review = said.Review.Trim().Length > 0 ? WebAddress.Meant(said.Review) : "";
        if (review.Length > 0 && !WebAddress.Is(review))
            throw new InvalidException(("review", WebAddress.Allowed));
        return new(
            TypedText.Of("goals", said.Goals, 0, LongestWords, "How the goals were met"),
            TypedText.Of("after", said.After, 0, LongestWords, "What comes after"),
            review,
            TypedText.Of("care", said.Care, 0, LongestWords, "How to care for it"),
            HandedLinks(said.Links ?? [])
        );
    }

    private static HandedLinkDto[] HandedLinks(HandedLinkDto[] links)
    {
        if (links.Length > MostLinks)
            throw new InvalidException(("links", $"At most {MostLinks} links are handed over."));
        return
        [
            .. links.Select(
                (link, i) =>
                    WebAddress.Meant(link.Address) is var address && WebAddress.Is(address)
                        ? new HandedLinkDto(address, KeptFiles.UseOf(link.Use))
                        : throw new InvalidException(("links", $"Line {i + 1}: {WebAddress.Allowed}"))
            ),
        ];
    }

    /// <summary>What was said when the work was handed over; null for nothing.</summary>
    public static async Task<HandoverWordsDto?> WordsAsync(Desk desk, ProjectFile file) =>
        file.History.Any<Happening.HandedOver>()
        && await desk
            .Db.Versions.AsNoTracking()
            .Where(v => v.ProjectId == file.Id && v.Sort == PaperSort.Handover)
            .OrderByDescending(v => v.Number)
            .FirstOrDefaultAsync()
            is { } version
            ? Versions.Read<HandoverWordsDto>(version)
            : null;

    /// <summary>Sets a phase of the work.</summary>
    public static async Task SetPhaseAsync(Desk desk, ProjectId project, PhaseDto to)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (PhaseRule.Of(file.Case).FirstOrDefault(phase => phase.Name == to.Phase) is not { } phase)
                throw new InvalidException(("phase", $"This project has no phase “{to.Phase}”."));
            if (phase.State != to.State)
                await act.RecordAsync(file, Actor.Owner, new Happening.PhaseSet(to.Phase, to.State));
        });
    }

    /// <summary>Opens or closes a part of the client page; what was sent, proposal, contract and invoices, shows all the same.</summary>
    public static async Task SetPartAsync(Desk desk, ProjectId project, PartDto to)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (Sight.IsOpen(file.History, to.Part) != to.Open)
                await act.RecordAsync(
                    file,
                    Actor.Owner,
                    to.Open ? new Happening.PartOpened(to.Part) : new Happening.PartClosed(to.Part)
                );
        });
    }

    /// <summary>Out of the daily lists, or back; the record stays as it is and is found again by search.</summary>
    /// <exception cref="RefusedException">It, or a recurring invoice of it, is still going on.</exception>
    public static async Task PutAwayAsync(Desk desk, ProjectId project, bool away, Actor? by = null)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (away && file.Case.End is null && file.Row.Standing.Stage != Stage.Finished)
                throw new RefusedException("Only a project that is finished or has ended is put away.");
            if (away && RecurringInvoices.Running(file.History).Any())
                throw new RefusedException(
                    "A recurring invoice goes on in this project. Stop it first, on the sheet under Money."
                );
            if (file.Case.IsPutAway != away)
                await act.RecordAsync(
                    file,
                    by ?? Actor.Owner,
                    away ? new Happening.PutAway() : new Happening.TakenOut()
                );
        });
    }

    /// <summary>Ends the client's link, or makes a new one; the old address never opens again.</summary>
    public static async Task RenewLinkAsync(Desk desk, ProjectId project, bool open)
    {
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var link = await Links.OfAsync(desk.Db, project, file.Row.ClientId);
            link.Generation++;
            link.EndedAt = open ? null : desk.Now;
            act.Touch(project);
        });
    }
}
