using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Words;

namespace Gesamt.Web.Briefs;

/// <summary>A letter in the words it is to go out with.</summary>
public sealed record SaveLetterWordsDto(string Subject, string Body);

/// <summary>The client’s word that the brief is right. Hash: of what they read, so that nobody approves what has changed meanwhile.</summary>
public sealed record ApproveBriefDto(string Hash);

/// <summary>The addresses of the brief.</summary>
public static class BriefEndpoints
{
    public static void MapBriefs(this RouteGroupBuilder api)
    {
        api.MapPut(
            "/projects/{id:long}/details",
            async (long id, SaveDetailsDto save, Desk desk) =>
            {
                await ProjectBrief.SaveDetailsAsync(desk, new(id), save);
                return TypedResults.NoContent();
            }
        );
        api.MapPut(
            "/projects/{id:long}/brief/{part}",
            async (long id, string part, SaveBriefDto save, Desk desk) =>
            {
                await ProjectBrief.SaveAsync(desk, new(id), part, save);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/brief/put",
            async (long id, SaveLetterWordsDto letter, Desk desk, Settings settings) =>
                new SentDto((await ProjectBrief.PutAsync(desk, new(id), letter)).Id.Value, settings.HoldSeconds)
        );
        api.MapPost(
            "/projects/{id:long}/brief/back",
            async (long id, Desk desk) =>
            {
                await ProjectBrief.TakeBackAsync(desk, new(id));
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>What a client does with the brief.</summary>
    public static RouteGroupBuilder MapClientBrief(this RouteGroupBuilder page)
    {
        page.MapPost(
            "/brief/approve",
            async (ApproveBriefDto approve, HttpContext http, Desk desk) =>
            {
                await ProjectBrief.ApproveAsync(desk, ClientLink.Link(http).ProjectId, approve.Hash);
                return Results.NoContent();
            }
        );
        page.MapPost(
            "/brief/remark",
            async (WordsDto said, HttpContext http, Desk desk) =>
            {
                await ProjectBrief.RemarkAsync(desk, ClientLink.Link(http).ProjectId, said.Words);
                return Results.NoContent();
            }
        );
        return page;
    }
}
