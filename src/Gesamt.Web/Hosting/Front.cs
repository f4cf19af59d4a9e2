using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.StaticFiles;

namespace Gesamt.Web.Hosting;

/// <summary>What stands before everything that is served, whether there is a studio yet or not.</summary>
public static class Front
{
    private const long UsualBytes = 2 * 1024 * 1024;

    /// <summary>Refusals as problem details, proxies that are believed, and how much a request may hold.</summary>
    public static void AddFront(this WebApplicationBuilder builder, Settings settings)
    {
        // what cannot be read is told with its field in every environment, and reaches the refusals
        builder.Services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        builder.Services.AddProblemDetails();
        builder.Services.AddExceptionHandler<Refusals>();
        builder.WebHost.ConfigureKestrel(kestrel => kestrel.Limits.MaxRequestBodySize = UsualBytes);
        builder.Services.Configure<ForwardedHeadersOptions>(options => Believe(options, settings));
    }

    /// <summary>Scripts, styles and fonts: those whose name carries their hash are kept for good.</summary>
    public static void UsePageFiles(this WebApplication app) =>
        app.UseStaticFiles(
            new StaticFileOptions
            {
                ContentTypeProvider = new FileExtensionContentTypeProvider
                {
                    // what the reader of PDF fetches: character maps (Adobe) and Type 1 fonts
                    Mappings = { [".bcmap"] = "application/octet-stream", [".pfb"] = "application/octet-stream" },
                },
                OnPrepareResponse = file =>
                    file.Context.Response.Headers.CacheControl = file.Context.Request.Path.StartsWithSegments("/assets")
                        ? "public,max-age=31536000,immutable"
                        : "no-cache",
            }
        );

    private static void Believe(ForwardedHeadersOptions options, Settings settings)
    {
        options.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
        options.KnownProxies.Clear();
        options.KnownIPNetworks.Clear();
        var (addresses, networks) = settings.Believed();
        foreach (var address in addresses)
            options.KnownProxies.Add(address);
        foreach (var network in networks)
            options.KnownIPNetworks.Add(network);
    }
}
