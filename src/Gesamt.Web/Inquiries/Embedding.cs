using Gesamt.Store.Files;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Inquiries;

/// <summary>Forms inside the studio's own site: a script that sets a frame and lets it grow with its form. The snippet names the form only, so an edit of the form shows at once.</summary>
public static class Embedding
{
    public static void MapEmbedding(this WebApplication app)
    {
        app.MapGet(
                "/embed/{slug}.js",
                async (string slug, Desk desk, HttpContext http) =>
                {
                    var form = await InquiryEndpoints.OpenAsync(desk, slug);
                    http.Response.Headers["Cross-Origin-Resource-Policy"] = "cross-origin";
                    http.Response.Headers.CacheControl = "no-cache";
                    return Results.Text(Script(slug, form.Title), "text/javascript; charset=utf-8");
                }
            )
            .ExcludeFromDescription();

        app.MapGet(
                "/logo",
                async (Desk desk, FileVault vault, HttpContext http) =>
                {
                    var hash = desk.Studio.Logo ?? throw new MissingException("logo");
                    var type =
                        await KeptFiles.TypeAsync(vault, hash, "logo", http.RequestAborted)
                        ?? throw new MissingException("logo");
                    http.Response.Headers.ContentSecurityPolicy = "default-src 'none'; sandbox";
                    return Results.File(vault.Open(hash), type.MediaType);
                }
            )
            .ExcludeFromDescription();
    }

    private static string Script(string slug, string title) =>
        $$"""
            (() => {
              const script = document.currentScript;
              const origin = new URL(script.src).origin;
              const frame = document.createElement("iframe");
              const campaign = new URLSearchParams(location.search).get("campaign");
              frame.src = `${origin}/i/{{slug}}?embedded${campaign ? `&campaign=${encodeURIComponent(campaign)}` : ""}`;
              frame.title = {{System.Text.Json.JsonSerializer.Serialize(title)}};
              frame.style.cssText = "width:100%;border:0;min-height:300px";
              script.after(frame);
              addEventListener("message", event => {
                if (event.source === frame.contentWindow && event.origin === origin && Number.isFinite(event.data?.formHeight))
                  frame.style.height = `${Math.min(event.data.formHeight, 6000)}px`;
              });
            })();
            """;
}
