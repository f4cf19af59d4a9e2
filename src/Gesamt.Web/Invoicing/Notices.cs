using Gesamt.Web.Hosting;

namespace Gesamt.Web.Invoicing;

/// <summary>The door for a provider's notices. A notice is believed in nothing but that something changed, and only with the provider's signature.</summary>
public static class Notices
{
    /// <summary>The header with the signature over the body.</summary>
    public const string SignatureHeader = "Gesamt-Signature";

    private const int MostBytes = 64 * 1024;

    public static void MapNotices(this RouteGroupBuilder notices) =>
        notices.MapPost(
            "/payments",
            async (HttpContext http, Desk desk, IPaymentProvider provider) =>
            {
                if (await BodyAsync(http.Request.Body, http.RequestAborted) is not { } body)
                    return Results.StatusCode(StatusCodes.Status413PayloadTooLarge);
                if (provider.SessionOf(body, http.Request.Headers[SignatureHeader].ToString()) is not { } session)
                    return Results.StatusCode(StatusCodes.Status401Unauthorized);
                await Checkout.SettleAsync(desk, provider, session);
                return Results.NoContent();
            }
        );

    private static async Task<string?> BodyAsync(Stream body, CancellationToken stop)
    {
        using var kept = new MemoryStream();
        var part = new byte[8 * 1024];
        int read;
        while ((read = await body.ReadAsync(part, stop)) > 0)
        {
            kept.Write(part, 0, read);
            if (kept.Length > MostBytes)
                return null;
        }
        return System.Text.Encoding.UTF8.GetString(kept.ToArray());
    }
}
