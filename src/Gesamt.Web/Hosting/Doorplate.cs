using Gesamt.Core.Texts;
using Gesamt.Store;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Hosting;

/// <summary>What of the studio's settings everything needs before it looks at anything else: how it writes numbers and days, and where it is reached. Read once, and again when it was changed.</summary>
public sealed class Doorplate(Settings settings, IServiceProvider services)
{
    private sealed record Known(HouseStyle Style, string Address);

    private volatile Known? known;

    /// <summary>The style to work in.</summary>
    public async ValueTask<HouseStyle> StyleAsync(HttpContext http) =>
        (known ?? await ReadAsync(http.RequestServices.GetRequiredService<GesamtDb>())).Style;

    /// <inheritdoc cref="StyleAsync(HttpContext)"/>
    public async ValueTask<HouseStyle> StyleAsync()
    {
        if (known is { } read)
            return read.Style;
        await using var scope = services.CreateAsyncScope();
        return (await ReadAsync(scope.ServiceProvider.GetRequiredService<GesamtDb>())).Style;
    }

    /// <summary>Where clients reach the studio, without a slash at its end: what the environment says, else what the studio says of itself, else where this program listens.</summary>
    public string Address =>
        settings.Address is { Length: > 0 } set ? set.TrimEnd('/')
        : known?.Address is { Length: > 0 } said ? said.TrimEnd('/')
        : services
            .GetRequiredService<IServer>()
            .Features.Get<IServerAddressesFeature>()
            ?.Addresses.FirstOrDefault()
            ?.TrimEnd('/')
            ?? "http://localhost";

    /// <summary>The same, where nobody said it the address that whoever asks has come by.</summary>
    public string AddressSeenBy(HttpContext http) =>
        settings.Address.Length > 0 || known?.Address is { Length: > 0 }
            ? Address
            : $"{http.Request.Scheme}://{http.Request.Host}";

    /// <summary>Reads the settings again at the next use: they were changed here, or perhaps by another copy.</summary>
    public void Forget() => known = null;

    private async Task<Known> ReadAsync(GesamtDb db)
    {
        var studio = await db
            .Studio.AsNoTracking()
            .Select(s => new
            {
                s.Numbers,
                s.Days,
                s.Clock,
                s.ClientAddress,
            })
            .SingleOrDefaultAsync();
        return studio is null
            ? new(HouseStyle.Plain, "")
            : known = new(new(studio.Numbers, studio.Days, studio.Clock), studio.ClientAddress);
    }
}
