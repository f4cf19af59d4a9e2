using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>How a client pays.</summary>
/// <param name="Keeps">Whether they agree that what they pay with is kept and charged.</param>
/// <param name="Invoice">Which, by its public name; the earliest open one where none is named.</param>
public sealed record PayDto(PaymentMeans Means = PaymentMeans.Card, string? Invoice = null, bool Keeps = false);

/// <summary>What a client does with an invoice: read it, pay it, say that it is paid, ask about it.</summary>
internal static class ClientInvoices
{
    public static void MapClientInvoices(this RouteGroupBuilder page)
    {
        page.MapPost(
            "/pay",
            async (PayDto? pay, HttpContext http, Desk desk, IPaymentProvider provider) =>
                new AddressDto(
                    await Checkout.BeginAsync(
                        desk,
                        provider,
                        ClientLink.Link(http).ProjectId,
                        pay?.Means ?? PaymentMeans.Card,
                        pay?.Invoice,
                        $"/p/{ClientLink.Link(http).PublicId}",
                        pay?.Keeps == true ? ClientLink.Link(http).PersonId : null
                    )
                )
        );

        page.MapPost(
            "/kept-means/take-back",
            async (HttpContext http, Desk desk) =>
            {
                await KeptMeans.TakeBackAsync(desk, ClientLink.Link(http).ProjectId, Actor.Client);
                return Results.NoContent();
            }
        );

        page.MapPost(
            "/settle",
            async (HttpContext http, Desk desk, IPaymentProvider provider) =>
            {
                var project = ClientLink.Link(http).ProjectId;
                foreach (
                    var session in await desk
                        .Db.Checkouts.Where(c => c.ProjectId == project)
                        .Select(c => c.Session)
                        .ToListAsync()
                )
                    await Checkout.SettleAsync(desk, provider, session);
                return Results.NoContent();
            }
        );

        page.MapPost(
            "/invoices/{invoice}/paid",
            async (string invoice, HttpContext http, Desk desk) =>
            {
                await SayPaidAsync(desk, http, invoice);
                return Results.NoContent();
            }
        );
        page.MapPost(
            "/invoices/{invoice}/ask",
            async (string invoice, AskDto ask, HttpContext http, Desk desk) =>
            {
                var row = await OneAsync(desk, http, invoice);
                return await ClientEndpoints.SayAsync(
                    desk,
                    row.ProjectId,
                    ask.Words,
                    (_, note) => Task.FromResult<Happening>(new Happening.InvoiceAsked(row.Id, note, ask.Sort))
                );
            }
        );

        page.MapGet(
            "/invoices/{invoice}.pdf",
            async (string invoice, HttpContext http, Desk desk) =>
            {
                var row = await OneAsync(desk, http, invoice);
                return Results.File(
                    await KeptPapers.ReadAsync(desk, row),
                    "application/pdf",
                    $"{InvoiceFiles.NameOf(row)}.pdf"
                );
            }
        );
    }

    /// <summary>A mark that the owner sees, said once a day at most.</summary>
    private static async Task SayPaidAsync(Desk desk, HttpContext http, string invoice)
    {
        var row = await OneAsync(desk, http, invoice);
        await desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(row.ProjectId);
            var issued = file.History.Last<Happening.InvoiceIssued>(one => one.Invoice == row.Id);
            if (issued is null || Core.Invoicing.Owed.On(file.History, issued.Value.What).Minor <= 0)
                throw new RefusedException("This invoice is paid: the money has been seen.");
            if (
                file.History.Last<Happening.SaidToBePaid>(said => said.Invoice == row.Id) is { Happened: var before }
                && desk.Calendar.DateOf(before) == desk.Today
            )
                return;
            await act.RecordAsync(file, Actor.Client, new Happening.SaidToBePaid(row.Id));
        });
    }

    private static async Task<InvoiceRow> OneAsync(Desk desk, HttpContext http, string invoice)
    {
        var project = ClientLink.Link(http).ProjectId;
        return await desk
                .Db.Invoices.AsNoTracking()
                .SingleOrDefaultAsync(i => i.PublicId == invoice && i.ProjectId == project)
            ?? throw new MissingException("invoice");
    }
}
