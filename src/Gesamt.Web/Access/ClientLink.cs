using Gesamt.Core.People;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Access;

/// <summary>The link that let a client in, and what its person may do.</summary>
public static class ClientLink
{
    public const string Cookie = "gesamt-link";
    public const string RateLimit = "client";

    /// <summary>Lets only a link that opens pass, and keeps it for the endpoint.</summary>
    public static async ValueTask<object?> OnlyOpenLinks(
        EndpointFilterInvocationContext context,
        EndpointFilterDelegate next
    )
    {
        var http = context.HttpContext;
        var (desk, links) = (
            http.RequestServices.GetRequiredService<Desk>(),
            http.RequestServices.GetRequiredService<Links>()
        );
        var name = (string?)http.GetRouteValue("link") ?? "";
        var row = await desk.Db.Links.AsNoTracking().SingleOrDefaultAsync(l => l.PublicId == name);
        if (row is null || !links.Opens(row, http.Request.Cookies[Cookie] ?? ""))
            return Results.Problem(
                "This link is not valid any more. Ask for a new one by answering any letter you got.",
                statusCode: 401,
                title: "The link does not open"
            );
        http.Items[typeof(LinkRow)] = row;
        var need =
            HttpMethods.IsGet(http.Request.Method)
            || Looks.Any(path => http.Request.Path.Value!.EndsWith(path, StringComparison.Ordinal))
                ? PageAct.Look
            : http.Request.Path.Value!.EndsWith("/pay", StringComparison.Ordinal) ? PageAct.Pay
            : PageAct.Answer;
        if (!await MayAsync(desk, row, PageAct.Look))
            return Results.Problem(
                "This link is not valid any more. Ask for a new one by answering any letter you got.",
                statusCode: 401,
                title: "The link does not open"
            );
        return need == PageAct.Look || await MayAsync(desk, row, need)
            ? await next(context)
            : Results.Problem(
                "This page is yours to read. Whoever decides answers on it.",
                statusCode: 403,
                title: "Only for reading"
            );
    }

    // what a page tells by itself while it is only looked at
    private static readonly string[] Looks = ["/opened", "/fetched", "/settle"];

    /// <summary>Whether the person of a link may do something, by the part they have in the project.</summary>
    public static async Task<bool> MayAsync(Desk desk, LinkRow link, PageAct act)
    {
        var isClient = await desk.Db.Projects.AnyAsync(p =>
            p.Id == link.ProjectId
            && (
                p.ClientId == link.PersonId
                || desk.Db.People.Any(one => one.Id == link.PersonId && one.MergedInto == p.ClientId)
            )
        );
        return PartRule.May(
            isClient,
            isClient
                ? []
                : await desk
                    .Db.ProjectPeople.Where(p => p.ProjectId == link.ProjectId && p.PersonId == link.PersonId)
                    .Select(p => p.Part)
                    .ToListAsync(),
            act
        );
    }

    /// <summary>The link that let this request in.</summary>
    public static LinkRow Link(HttpContext http) => (LinkRow)http.Items[typeof(LinkRow)]!;
}
