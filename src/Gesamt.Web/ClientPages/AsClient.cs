using Gesamt.Core;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Lists;

namespace Gesamt.Web.ClientPages;

/// <summary>A client page as its client would see it, with what else becomes visible if one more part is opened.</summary>
public sealed record AsClientDto(ClientPageDto Page, string? With, IReadOnlyList<string> AlsoVisible);

/// <summary>Seeing a page as its client: making, seeing and opening are three acts.</summary>
public static class AsClient
{
    public static void MapAsClient(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/projects/{id:long}/as-client",
            async (long id, PagePart? with, Desk desk, IPaymentProvider provider) =>
                await OfAsync(desk, provider, new(id), with)
        );
        api.MapGet(
            "/projects/{id:long}/proposal/as-client",
            async (long id, Desk desk) => await ProposalPage.OfDraftAsync(desk, await desk.OpenAsync(new(id)))
        );
        api.MapGet(
            "/versions/{id:long}/as-client",
            async (long id, Desk desk) => await ProposalPage.OfVersionAsync(desk, new(id))
        );
    }

    /// <summary>A project’s page as its client sees it, with a part that is not open yet where one is named.</summary>
    public static async Task<AsClientDto> OfAsync(
        Desk desk,
        IPaymentProvider provider,
        ProjectId project,
        PagePart? with
    )
    {
        var file = await desk.OpenAsync(project);
        // it is only looked at, so it carries no token with which it could act
        var page = await ClientPage.OfAsync(
            desk,
            provider,
            file,
            null,
            "",
            part => part == with || Sight.IsOpen(file.History, part)
        );
        return new(
            page,
            with is { } part ? Sight.Words(part) : null,
            with is { } closed && !Sight.IsOpen(file.History, closed) ? [.. Also(page, closed)] : []
        );
    }

    private static IEnumerable<string> Also(ClientPageDto page, PagePart part) =>
        part switch
        {
            PagePart.Whole => page
                .Parts.Whole!.Phases.Select(phase => $"the phase {phase.Name}")
                .Append(page.Parts.Whole.Date is { } date ? $"{page.Parts.Whole.DateName}, {date}" : "no date yet"),
            PagePart.Drafts => page
                .Parts.Drafts!.Rounds.SelectMany(round => round.Files.Select(file => $"{file.Name} ({round.Title})"))
                .DefaultIfEmpty("no draft yet"),
            PagePart.Files => page
                .Parts.Files!.Final.Concat(page.Parts.Files.Supplied)
                .Select(file => file.Name)
                .DefaultIfEmpty("no file yet"),
            PagePart.Tasks => page.Parts.Tasks!.Select(task => task.Title).DefaultIfEmpty("no task of theirs yet"),
            PagePart.RunSheet => (page.Parts.RunSheet?.Days ?? [])
                .Select(day => $"{day.Words}: {day.Lines.Count}")
                .DefaultIfEmpty("no run sheet yet"),
            PagePart.Lists => Named(page.Parts.Lists, "no list of theirs yet"),
            PagePart.Boards => Named(page.Parts.Boards, "no mood board of theirs yet"),
            PagePart.Notes => Named(page.Parts.Notes, "no shared notes yet"),
            PagePart.Introduction => page.Parts.Introduction is { } said
                ? said.Questions.Select(one => one.Question).Prepend("the words to begin with")
                : ["nothing: its kind has no introduction"],
            _ => [$"the address {page.Parts.Help}"],
        };

    private static IEnumerable<string> Named(IReadOnlyList<ListDto>? lists, string none) =>
        (lists ?? [])
            .Select(list => $"{list.Name}, {ProjectLists.Count(list.Sort, list.Entries.Count)}")
            .DefaultIfEmpty(none);
}
