using Gesamt.Core;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;

namespace Gesamt.Web.Invoicing;

/// <summary>The addresses of invoices: written, looked at, issued, and as files.</summary>
public static class InvoiceEndpoints
{
    public static void MapInvoices(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/projects/{id:long}/bill",
            async (long id, Desk desk) =>
            {
                var file = await desk.OpenAsync(new(id));
                return await Bills.DtoAsync(desk, file, await Bills.OfAsync(desk, file));
            }
        );
        api.MapPut(
            "/projects/{id:long}/bill",
            async (long id, SaveBillDto save, Desk desk) =>
            {
                var file = await desk.OpenAsync(new(id));
                var bill = BillReading.Of(save.Bill, desk.CurrencyOf(file));
                return await Bills.DtoAsync(desk, file, await Bills.SaveAsync(desk, file, bill, save.Edition, save.Of));
            }
        );
        api.MapDelete(
            "/projects/{id:long}/bill",
            async (long id, Desk desk) =>
            {
                await Bills.DiscardAsync(desk, new(id));
                return TypedResults.NoContent();
            }
        );
        api.MapGet(
            "/projects/{id:long}/bill/preview.pdf",
            async (long id, Desk desk) =>
                TypedResults.File(await Bills.PreviewAsync(desk, new(id)), "application/pdf", "invoice-preview.pdf")
        );
        api.MapGet(
            "/projects/{id:long}/bill/files",
            async (long id, Desk desk) =>
            {
                var project = (await desk.OpenAsync(new(id))).Id;
                return await desk
                    .Db.Files.AsNoTracking()
                    .Where(f => f.ProjectId == project && !f.Removed)
                    .OrderByDescending(f => f.Id)
                    .Take(200)
                    .Select(f => new BillFileDto(f.Hash, f.Name))
                    .ToListAsync();
            }
        );
        api.MapPost(
            "/projects/{id:long}/bill/issue",
            (long id, IssueBillDto issue, Desk desk) => Bills.IssueAsync(desk, new(id), issue)
        );
        api.MapGet(
            "/projects/{id:long}/cancelling",
            (long id, string? on, Desk desk) =>
                Cancelling.PreviewAsync(
                    desk,
                    new(id),
                    LocalDatePattern.Iso.Parse(on ?? "") is { Success: true, Value: var day } ? day : desk.Today
                )
        );
        api.MapGet(
            "/invoices",
            (InvoiceShow? show, InvoiceBy? by, string? words, long? client, string? month, int? most, Desk desk) =>
                InvoiceList.OfAsync(
                    desk,
                    new(show ?? InvoiceShow.Open, by ?? InvoiceBy.Number, words, client, month, most)
                )
        );
        api.MapGet(
            "/invoices.csv",
            async (InvoiceShow? show, InvoiceBy? by, string? words, long? client, string? month, Desk desk) =>
                TableFile.Of(
                    await InvoiceList.CsvAsync(
                        desk,
                        new(show ?? InvoiceShow.Open, by ?? InvoiceBy.Number, words, client, month, null)
                    ),
                    $"invoices-{desk.Today:uuuu-MM-dd}"
                )
        );
        api.MapPost(
            "/invoices/{id:long}/credit",
            async (long id, CreditDto credit, Desk desk) =>
            {
                await Crediting.ByHandAsync(desk, new(id), credit);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/invoices/{id:long}/interest",
            async (long id, Desk desk) =>
            {
                await Lateness.BeginAsync(desk, new(id));
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/payments/{payment:long}/refund",
            async (long id, long payment, RefundDto refund, Desk desk, IPaymentProvider provider) =>
            {
                await Refunding.RefundAsync(desk, provider, new(id), new(payment), refund);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/payments/{payment:long}/charged-back",
            async (long id, long payment, ChargedBackDto what, Desk desk) =>
            {
                await Refunding.ChargedBackAsync(desk, new(id), new(payment), what);
                return TypedResults.NoContent();
            }
        );
        api.MapGet(
            "/invoices/{id:long}.pdf",
            async (long id, Desk desk) =>
            {
                var row = await OneAsync(desk, id);
                return TypedResults.File(
                    await KeptPapers.ReadAsync(desk, row),
                    "application/pdf",
                    $"{InvoiceFiles.NameOf(row)}.pdf"
                );
            }
        );
        api.MapGet(
            "/invoices/{id:long}.xml",
            async (long id, Desk desk) =>
            {
                var row = await OneAsync(desk, id);
                return (await KeptPapers.OfAsync(desk, row)).Data is { } data
                    ? TypedResults.File(desk.Vault.Read(data), "application/xml", $"{InvoiceFiles.NameOf(row)}.xml")
                    : throw new RefusedException(InvoicePapers.WhyNoData(row) ?? "This invoice has no data.");
            }
        );
    }

    private static async Task<Store.Model.InvoiceRow> OneAsync(Desk desk, long id)
    {
        var number = new InvoiceId(id);
        return await desk.Db.Invoices.AsNoTracking().SingleOrDefaultAsync(i => i.Id == number)
            ?? throw new MissingException("invoice");
    }
}
