using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Proposals;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Access;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Papers;
using Gesamt.Web.Proposals;
using Gesamt.Web.Words;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>Keys of the lines a client chose, and how much of those whose quantity they changed.</summary>
public sealed record ChosenDto(string[] Chosen, QuantityDto[]? Quantities = null)
{
    /// <exception cref="InvalidException">A quantity is no number.</exception>
    public Choice Read() =>
        new(
            [.. Chosen],
            (Quantities ?? []).DistinctBy(one => one.Key).ToImmutableSortedDictionary(one => one.Key, Number)
        );

    private static decimal Number(QuantityDto one) =>
        NumberText.Exact(one.Quantity) is { } number && Math.Abs(number) <= 1_000_000
            ? number
            : throw new InvalidException(
                (
                    $"quantity.{one.Key}",
                    $"Give a number such as {NumberText.Number(2)}.{NumberText.Doubt(one.Quantity)}"
                )
            );
}

/// <summary>What a client asks for, or objects to.</summary>
public sealed record AskDto(string Words, AskSort Sort = AskSort.Change);

/// <summary>What one person sees of one project through their own link, without an account.</summary>
public static class ClientEndpoints
{
    /// <summary>The first look: sets a cookie bound to this link's path and goes on to an address without the token.</summary>
    public static void MapEntering(this WebApplication app) =>
        app.MapGet(
                "/p/{link}/enter/{token}",
                async (string link, string token, Desk desk, Links links, HttpContext http) =>
                {
                    var row = await desk.Db.Links.AsNoTracking().SingleOrDefaultAsync(l => l.PublicId == link);
                    if (row is not null && links.Opens(row, token))
                        http.Response.Cookies.Append(
                            ClientLink.Cookie,
                            token,
                            new()
                            {
                                Path = $"/p/{link}",
                                HttpOnly = true,
                                SameSite = SameSiteMode.Lax,
                                Secure = http.Request.IsHttps,
                                MaxAge = TimeSpan.FromDays(180),
                            }
                        );
                    return Results.Redirect($"/p/{link}");
                }
            )
            .LimitCalls(ClientLink.RateLimit)
            .ExcludeFromDescription();

    /// <summary>The client’s page with its proposal, contract and payments.</summary>
    public static RouteGroupBuilder MapClientPages(this RouteGroupBuilder page)
    {
        page.MapGet(
            "",
            async (
                HttpContext http,
                Desk desk,
                IPaymentProvider provider,
                Links links,
                Microsoft.AspNetCore.Antiforgery.IAntiforgery antiforgery
            ) =>
            {
                var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                return await ClientPage.OfAsync(
                    desk,
                    provider,
                    file,
                    ClientLink.Link(http).PersonId,
                    antiforgery.GetAndStoreTokens(http).RequestToken!,
                    part => Sight.IsOpen(file.History, part),
                    links.AddressOf
                );
            }
        );

        page.MapPost(
            "/opened",
            async (HttpContext http, Desk desk) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                    if (ProposalState.Open(file.History)?.What.Version is { } version)
                        await act.RecordAsync(file, Actor.Client, new Happening.ProposalOpened(version));
                    return Results.NoContent();
                });
            }
        );

        page.MapGet(
            "/price",
            async (HttpContext http, Desk desk, [FromQuery] string[] choose, [FromQuery] string[] quantity) =>
            {
                var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                var offer = Versions.OfferOf(
                    await Contracting.ChoosableAsync(desk, file) ?? await Contracting.OpenVersionAsync(desk, file)
                );
                var choice = new ChosenDto(choose, [.. quantity.Select(QuantityOf)]).Read();
                return PricedDto.Of(offer, Pricing.Of(offer, choice, PlanDates.Of(file.Case, desk.Today)));
            }
        );

        page.MapGet(
            "/papers/{hash}",
            async (string hash, HttpContext http, Desk desk) =>
            {
                var project = ClientLink.Link(http).ProjectId;
                var shown = await desk
                    .Db.Versions.AsNoTracking()
                    .Where(v =>
                        v.ProjectId == project && (v.Sort == PaperSort.Proposal || v.Sort == PaperSort.Contract)
                    )
                    .OrderByDescending(v => v.Id)
                    .ToListAsync();
                return shown.Any(version => FilesOf(version).Contains(hash))
                    ? await PaperFiles.ServeAsync(desk, hash, http)
                    : throw new MissingException("file");
            }
        );

        page.MapPost(
            "/change",
            (HttpContext http, Desk desk, AskDto ask) =>
                ReplyAsync(
                    desk,
                    ClientLink.Link(http).ProjectId,
                    ask.Words,
                    (version, note) => new Happening.ChangeAsked(version, note, ask.Sort)
                )
        );

        page.MapPost(
            "/decline",
            (HttpContext http, Desk desk, WordsDto words) =>
                ReplyAsync(
                    desk,
                    ClientLink.Link(http).ProjectId,
                    words.Words,
                    (version, note) => new Happening.ProposalDeclined(version, note)
                )
        );

        page.MapClientInvoices();
        return page;
    }

    /// <summary>“names=5”.</summary>
    private static QuantityDto QuantityOf(string pair) =>
        pair.IndexOf('=') is > 0 and var at
            ? new(pair[..at], pair[(at + 1)..])
            : throw new InvalidException(("quantity", "Give the line and its quantity, such as names=5."));

    private static IEnumerable<string> FilesOf(VersionRow version) =>
        version.Sort == PaperSort.Proposal ? Versions.OfferOf(version).Files
        : Versions.Read<ContractSnapshot>(version).SignedBy.File is { } own ? [own.Hash]
        : [];

    private static Task<IResult> ReplyAsync(
        Desk desk,
        ProjectId project,
        string words,
        Func<VersionId, NoteId, Happening> what
    ) =>
        SayAsync(
            desk,
            project,
            words,
            async (file, note) => what((await Contracting.OpenVersionAsync(desk, file)).Id, note)
        );

    /// <summary>Records what a client says of a paper, with their words.</summary>
    internal static async Task<IResult> SayAsync(
        Desk desk,
        ProjectId project,
        string words,
        Func<ProjectFile, NoteId, Task<Happening>> what
    )
    {
        var text = words.Trim();
        if (text.Length is 0 or > 5_000)
            throw new InvalidException(("words", "Write 1 to 5 000 characters."));
        return await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            var note = await Notes.AddAsync(desk, project, NoteSort.Words, text);
            await act.RecordAsync(file, Actor.Client, await what(file, note));
            return Results.NoContent();
        });
    }
}
