using System.Security.Cryptography;

namespace Gesamt.Web.Hosting;

/// <summary>Serves the two built pages, the owner's and the clients', each with a strict policy and a style nonce of its own per request.</summary>
public static class Pages
{
    private const string Policy =
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{0}'; img-src 'self' data:; font-src 'self'; connect-src 'self'; frame-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    /// <summary>A public form may stand in a frame of the studio's own site; nothing else may.</summary>
    private static string Of(string nonce, bool framed) =>
        string.Format(System.Globalization.CultureInfo.InvariantCulture, Policy, nonce).Replace("frame-ancestors 'none'", framed ? "frame-ancestors *" : "frame-ancestors 'none'", StringComparison.Ordinal);

    public static void UseHeaders(this WebApplication app) => app.Use((context, next) =>
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = Of("none", framed: false);
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        return next(context);
    });

    public static void MapPages(this WebApplication app)
    {
        app.MapFallback(context => WriteAsync(context, app.Environment, "studio.html"));
        app.MapGet("/i/{slug}", context => WriteAsync(context, app.Environment, "client.html", form: (string)context.GetRouteValue("slug")!)).ExcludeFromDescription();
        foreach (var path in new[] { "/p/{link}", "/p/{link}/{**rest}", "/cards/{session}", "/rooms/{code}" })
            app.MapGet(path, context => WriteAsync(context, app.Environment, "client.html")).ExcludeFromDescription();
    }

    private static async Task WriteAsync(HttpContext context, IWebHostEnvironment environment, string page, string? form = null)
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
        context.Response.Headers.ContentSecurityPolicy = Of(nonce, framed: form is not null);
        context.Response.Headers.CacheControl = "no-store";
        context.Response.ContentType = "text/html; charset=utf-8";
        // a browser that runs no script goes on to the plain form
        var plain = form is null ? "" : $"<noscript><meta http-equiv=\"refresh\" content=\"0; url=/forms/{System.Net.WebUtility.HtmlEncode(Uri.EscapeDataString(form))}/plain\"></noscript>";
        await context.Response.WriteAsync((await reader.ReadToEndAsync()).Replace("__NONCE__", nonce, StringComparison.Ordinal).Replace("</head>", $"{plain}</head>", StringComparison.Ordinal));
    }
}
