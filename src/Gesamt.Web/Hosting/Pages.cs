using System.Security.Cryptography;
using Gesamt.Core.Texts;

namespace Gesamt.Web.Hosting;

/// <summary>Serves the two built pages, the owner's and the clients', each with a strict policy and a style nonce of its own per request.</summary>
public static class Pages
{
    private const string Policy =
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{0}'; img-src 'self' data:; media-src 'self'; font-src 'self'; connect-src 'self'; frame-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    /// <summary>A public form may stand in a frame of the studio's own site; nothing else may.</summary>
    private static string Of(string nonce, bool framed) =>
        string.Format(System.Globalization.CultureInfo.InvariantCulture, Policy, nonce)
            .Replace(
                "frame-ancestors 'none'",
                framed ? "frame-ancestors *" : "frame-ancestors 'none'",
                StringComparison.Ordinal
            );

    /// <summary>On every answer, errors too: they are set when it begins, whatever was cleared before.</summary>
    public static void UseHeaders(this WebApplication app, Settings settings) =>
        app.Use(
            (context, next) =>
            {
                context.Response.OnStarting(() =>
                {
                    var headers = context.Response.Headers;
                    if (headers.ContentSecurityPolicy.Count == 0)
                        headers.ContentSecurityPolicy = Of("none", framed: false);
                    headers.XContentTypeOptions = "nosniff";
                    headers["Referrer-Policy"] = "no-referrer";
                    headers["Cross-Origin-Opener-Policy"] = "same-origin";
                    if (settings.IsSecure && context.Request.IsHttps)
                        headers.StrictTransportSecurity = "max-age=31536000";
                    return Task.CompletedTask;
                });
                return next(context);
            }
        );

    /// <summary>A studio whose address is https is used by https alone: one whose proxy does not say so is told, instead of failing at every cookie.</summary>
    public static void UseSecureOnly(this WebApplication app, Settings settings)
    {
        if (!settings.IsSecure)
            return;
        app.Use(
            (context, next) =>
                // who watches over the machine asks without the proxy
                context.Request.IsHttps
                || context.Request.Path == Health.Address
                    ? next(context)
                    : Results
                        .Problem(
                            $"This studio is reached at {settings.Address}. If that is where you are, its proxy must say so: it sends X-Forwarded-Proto and X-Forwarded-For, and its own address stands in Gesamt__Proxies.",
                            statusCode: 421,
                            title: "Only by https"
                        )
                        .ExecuteAsync(context)
        );
    }

    public static void MapPages(this WebApplication app)
    {
        app.MapMethods(
                "{**path:nonfile}",
                [HttpMethods.Get, HttpMethods.Head],
                context => WriteAsync(context, app.Environment, "studio.html")
            )
            .WithOrder(int.MaxValue - 1)
            .ExcludeFromDescription();
        // a write to no address that there is
        app.Map("{**path}", () => Results.Problem(statusCode: 404, title: "Not found"))
            .WithOrder(int.MaxValue)
            .ExcludeFromDescription();
        app.MapGet(
                "/i/{slug}",
                context =>
                    WriteAsync(context, app.Environment, "client.html", form: (string)context.GetRouteValue("slug")!)
            )
            .ExcludeFromDescription();
        foreach (var path in new[] { "/p/{link}", "/p/{link}/{**rest}", "/check", "/cards/{session}", "/rooms/{code}" })
            app.MapGet(path, context => WriteAsync(context, app.Environment, "client.html")).ExcludeFromDescription();
    }

    /// <summary>What the form's address says brought the visitor, to be said on.</summary>
    private static string CampaignOf(HttpContext context) =>
        context.Request.Query["campaign"].ToString() is { Length: > 0 } campaign
            ? $"?campaign={Uri.EscapeDataString(campaign)}"
            : "";

    private static async Task WriteAsync(
        HttpContext context,
        IWebHostEnvironment environment,
        string page,
        string? form = null
    )
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
        var plain = form is null
            ? ""
            : $"<noscript><meta http-equiv=\"refresh\" content=\"0; url=/forms/{System.Net.WebUtility.HtmlEncode(Uri.EscapeDataString(form))}/plain{System.Net.WebUtility.HtmlEncode(CampaignOf(context))}\"></noscript>";
        await context.Response.WriteAsync(
            (await reader.ReadToEndAsync())
                .Replace("__NONCE__", nonce, StringComparison.Ordinal)
                .Replace(
                    "<html",
                    // how the studio counts hours, for fields that hold a time
                    $"<html data-clock=\"{HouseStyle.Current.Clock}\"",
                    StringComparison.Ordinal
                )
                .Replace("</head>", $"{plain}</head>", StringComparison.Ordinal)
        );
    }
}
