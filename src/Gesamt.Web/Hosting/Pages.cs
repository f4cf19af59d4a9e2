using System.Security.Cryptography;

namespace Gesamt.Web.Hosting;

/// <summary>Serves the two built pages, the owner's and the clients', each with a strict policy and a style nonce of its own per request.</summary>
public static class Pages
{
    private const string Policy =
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{0}'; img-src 'self' data:; font-src 'self'; connect-src 'self'; frame-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    public static void UseHeaders(this WebApplication app) => app.Use((context, next) =>
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = string.Format(System.Globalization.CultureInfo.InvariantCulture, Policy, "none");
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        return next(context);
    });

    public static void MapPages(this WebApplication app)
    {
        app.MapFallback(context => WriteAsync(context, app.Environment, "studio.html"));
        foreach (var path in new[] { "/i/{slug}", "/p/{link}", "/p/{link}/{**rest}", "/cards/{session}" })
            app.MapGet(path, context => WriteAsync(context, app.Environment, "client.html")).ExcludeFromDescription();
    }

    private static async Task WriteAsync(HttpContext context, IWebHostEnvironment environment, string page)
    {
        var file = environment.WebRootFileProvider.GetFileInfo(page);
        if (!file.Exists)
        {
            context.Response.StatusCode = 503;
            await context.Response.WriteAsync("The pages are not built yet. Run ./gesamt demo, which builds them.");
            return;
        }
        using var reader = new StreamReader(file.CreateReadStream());
        var nonce = Convert.ToBase64String(RandomNumberGenerator.GetBytes(16));
        context.Response.Headers.ContentSecurityPolicy = string.Format(System.Globalization.CultureInfo.InvariantCulture, Policy, nonce);
        context.Response.Headers.CacheControl = "no-store";
        context.Response.ContentType = "text/html; charset=utf-8";
        await context.Response.WriteAsync((await reader.ReadToEndAsync()).Replace("__NONCE__", nonce, StringComparison.Ordinal));
    }
}
