using Gesamt.Core;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Gesamt.Web.Prices;

/// <summary>The addresses of the price list.</summary>
public static class PriceEndpoints
{
    private const int MostBytes = 2 * 1024 * 1024;

    public static void MapPrices(this RouteGroupBuilder api)
    {
        api.MapGet("/services", (Desk desk) => PriceList.SharedAsync(desk));
        api.MapPut(
            "/services",
            async (SaveServicesDto save, Desk desk) =>
            {
                await PriceList.SaveAsync(desk, null, save, async () => await PriceList.SharedAsync(desk));
                return TypedResults.NoContent();
            }
        );
        api.MapGet(
            "/services.csv",
            async (long? kind, Desk desk) => Table(await PriceTable.WriteAsync(desk, Of(kind)))
        );
        api.MapPost(
                "/services/table",
                async (long? kind, Desk desk, HttpContext http) =>
                {
                    using var bytes = new MemoryStream();
                    await http.Request.Body.CopyToAsync(bytes, http.RequestAborted);
                    return await PriceTable.ReadAsync(desk, Of(kind), bytes.ToArray());
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(MostBytes))
            .Accepts<byte[]>("application/octet-stream");
    }

    private static KindId? Of(long? kind) => kind is { } id ? new KindId(id) : null;

    private static IResult Table(byte[] bytes) => TableFile.Of(bytes, "services");
}
