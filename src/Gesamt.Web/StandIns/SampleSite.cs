using Gesamt.Web.Hosting;

namespace Gesamt.Web.StandIns;

/// <summary>A sample of the studio's own site, with a form set into it by each snippet. It stands for a site elsewhere and has a policy of its own.</summary>
public static class SampleSite
{
    public static void MapSampleSite(this WebApplication app) =>
        app.MapGet(
                "/sample-site/{slug}",
                (string slug, Desk desk, Doorplate plate, HttpContext http) =>
                {
                    // named by another name than the site itself is opened under, as a real site would
                    var origin = plate.AddressSeenBy(http);
                    var name = System.Net.WebUtility.HtmlEncode(desk.Studio.Name);
                    var form = System.Net.WebUtility.HtmlEncode(Uri.EscapeDataString(slug));
                    http.Response.Headers.ContentSecurityPolicy =
                        $"default-src 'none'; script-src {origin}; frame-src {origin}; style-src 'unsafe-inline'";
                    http.Response.Headers["Cross-Origin-Opener-Policy"] = "unsafe-none";
                    return Results.Content(
                        $"""
                        <!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>{name}</title></head>
                        <body style="font-family:Georgia,serif;max-width:46rem;margin:2rem auto;padding:0 1rem;background:#f3efe6">
                        <h1>{name}</h1><p>Painted walls, shop fronts, lettering. This page stands for the studio's own site; the form below is set into it.</p>
                        <h2>Ask us</h2>
                        <script src="{origin}/embed/{form}.js" async></script>
                        <p>The Sail Loft, 4 Ferry Street, Dunmarrin</p>
                        </body></html>
                        """,
                        "text/html; charset=utf-8"
                    );
                }
            )
            .ExcludeFromDescription();
}
