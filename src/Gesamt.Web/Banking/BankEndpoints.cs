using Gesamt.Core;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Gesamt.Web.Banking;

/// <summary>The addresses of the bank: statements in, lines matched.</summary>
public static class BankEndpoints
{
    public static void MapBank(this RouteGroupBuilder api)
    {
        api.MapGet("/bank", (Desk desk) => BankDesk.OfAsync(desk));
        api.MapPost(
                "/bank/statements",
                (string name, Desk desk, HttpContext http, CancellationToken stop) =>
                    Statements.TakeAsync(desk, name, http.Request.Body, stop)
            )
            .WithMetadata(new RequestSizeLimitAttribute(Statements.Most))
            .Accepts<byte[]>("application/octet-stream");
        api.MapPost(
            "/bank/statements/{hash}/columns",
            (string hash, MatchStatementDto match, Desk desk) => Statements.MatchAsync(desk, hash, match)
        );
        api.MapDelete(
            "/bank/statements/{id:int}",
            async (int id, Desk desk) =>
            {
                await Statements.TakeBackAsync(desk, id);
                return TypedResults.NoContent();
            }
        );
        api.MapGet(
            "/bank/lines/{id:long}/shares",
            (long id, long[] invoices, Desk desk) => BankDesk.SharesAsync(desk, new(id), invoices)
        );
        api.MapPost(
            "/bank/lines/{id:long}/book",
            async (long id, BookLineDto book, Desk desk) =>
            {
                await BankBooking.BookAsync(desk, new(id), [.. book.Invoices.Select(one => new InvoiceId(one))]);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/bank/lines/{id:long}/set-aside",
            async (long id, Desk desk) =>
            {
                await BankBooking.SetAsideAsync(desk, new(id));
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/bank/lines/{id:long}/undo",
            async (long id, Desk desk) =>
            {
                await BankBooking.UndoAsync(desk, new(id));
                return TypedResults.NoContent();
            }
        );
    }
}
