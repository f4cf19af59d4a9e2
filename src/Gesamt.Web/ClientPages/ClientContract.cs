using Gesamt.Store.Model;
using Gesamt.Web.Access;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>A signature. Hash: of what was read. Code: the one that was sent, where one is asked for.</summary>
public sealed record SignDto(string Name, bool Agreed, string Hash, string Code = "");

/// <summary>Choosing, signing, asking about and declining a contract on the client's page.</summary>
public static class ClientContract
{
    public static RouteGroupBuilder MapClientContracts(this RouteGroupBuilder page)
    {
        page.MapPost(
            "/accept",
            async (HttpContext http, Desk desk, ChosenDto chosen) =>
            {
                var link = ClientLink.Link(http);
                await Contracting.AcceptAsync(desk, link.ProjectId, chosen.Read(), link.PersonId);
                return Results.NoContent();
            }
        );

        page.MapPost(
            "/sign",
            async (HttpContext http, Desk desk, SignCodes codes, SignDto sign) =>
            {
                if (!sign.Agreed)
                    throw new InvalidException(("agreed", "Tick that you have read the contract and agree to it."));
                var link = ClientLink.Link(http);
                await Contracting.SignAsync(
                    desk,
                    codes,
                    link.ProjectId,
                    link.PersonId,
                    new(sign.Name, sign.Hash, AddressOf(http), http.Request.Headers.UserAgent.ToString()),
                    sign.Code
                );
                return Results.NoContent();
            }
        );

        page.MapPost(
            "/code",
            async (HttpContext http, Desk desk) =>
            {
                var link = ClientLink.Link(http);
                await CodeAsking.SendAsync(desk, link.ProjectId, link.PersonId);
                return Results.NoContent();
            }
        );

        page.MapPost(
            "/contract/ask",
            (HttpContext http, Desk desk, AskDto ask) =>
                ClientEndpoints.SayAsync(
                    desk,
                    ClientLink.Link(http).ProjectId,
                    ask.Words,
                    (file, note) => Task.FromResult(Contracting.Ask(file, note, ask.Sort))
                )
        );

        page.MapPost(
            "/contract/decline",
            (HttpContext http, Desk desk, WordsDto words) =>
                ClientEndpoints.SayAsync(
                    desk,
                    ClientLink.Link(http).ProjectId,
                    words.Words,
                    (file, note) => Task.FromResult(Contracting.Decline(file, note))
                )
        );

        page.MapGet(
            "/contract.pdf",
            async (HttpContext http, Desk desk) =>
                await Contracting.ShownAsync(desk, await desk.OpenAsync(ClientLink.Link(http).ProjectId)) is { } shown
                    ? await PdfAsync(desk, shown)
                    : throw new MissingException("contract")
        );

        page.MapGet(
            "/contracts/{number:int}.pdf",
            async (int number, HttpContext http, Desk desk) =>
            {
                var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
                var row = await desk
                    .Db.Versions.AsNoTracking()
                    .SingleOrDefaultAsync(v =>
                        v.ProjectId == file.Id && v.Sort == PaperSort.Contract && v.Number == number
                    );
                // one that was made and never put to them is not theirs to see
                return
                    row is not null
                    && Core.Contracts.ContractState.Papers(file.History).Any(paper => paper.Version == row.Id)
                    ? await PdfAsync(desk, row)
                    : throw new MissingException("contract");
            }
        );
        return page;
    }

    private static async Task<IResult> PdfAsync(Desk desk, VersionRow contract) =>
        Results.File(await KeptPapers.ReadAsync(desk, contract), "application/pdf", "contract.pdf");

    private static string AddressOf(HttpContext http) =>
        http.Connection.RemoteIpAddress?.MapToIPv4().ToString() ?? "unknown";
}
