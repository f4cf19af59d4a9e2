using System.Collections.Concurrent;
using System.Text.Json;
using Gesamt.Store;
using Gesamt.Store.Model;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Hosting;

/// <summary>What every write passes: the antiforgery token, and a key by which a double send returns the first answer.</summary>
public static class Writes
{
    public const string KeyHeader = "Idempotency-Key";
    public const string TokenHeader = "X-Gesamt-Token";

    private static readonly ConcurrentDictionary<string, SemaphoreSlim> UnderWay = new();

    public static RouteGroupBuilder GuardWrites(this RouteGroupBuilder group)
    {
        group.AddEndpointFilter(async (context, next) =>
        {
            var http = context.HttpContext;
            if (HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method)) return await next(context);
            try
            {
                await http.RequestServices.GetRequiredService<IAntiforgery>().ValidateRequestAsync(http);
            }
            catch (AntiforgeryValidationException)
            {
                return Results.Problem($"The {TokenHeader} header is missing or out of date. Load the page again.", statusCode: 400, title: "Not from this page");
            }
            return await OnceAsync(context, next);
        });
        return group;
    }

    /// <summary>For public forms, which have no session that could be forged: the key alone.</summary>
    public static RouteGroupBuilder ReceiveOnce(this RouteGroupBuilder group)
    {
        group.AddEndpointFilter((context, next) => HttpMethods.IsPost(context.HttpContext.Request.Method) && !context.HttpContext.Request.HasFormContentType ? OnceAsync(context, next) : next(context));
        return group;
    }

    private static async ValueTask<object?> OnceAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        var sent = http.Request.Headers[KeyHeader].ToString();
        if (sent.Length is < 8 or > 100)
            return Results.Problem($"Every write carries an {KeyHeader} header of 8 to 100 characters.", statusCode: 400, title: "No key");
        // one address's key says nothing about another's
        var key = $"{http.Request.Path}#{sent}";
        var gate = UnderWay.GetOrAdd(key, _ => new(1, 1));
        await gate.WaitAsync(http.RequestAborted);
        try
        {
            var db = http.RequestServices.GetRequiredService<GesamtDb>();
            if (await db.Requests.AsNoTracking().SingleOrDefaultAsync(r => r.Key == key) is { } first)
                return first.Status is { } status
                    ? Results.Text(first.Body ?? "", first.Body is null ? null : "application/json", statusCode: status)
                    : Results.Problem("This was received a moment ago. Load the page again to see what came of it.", statusCode: 409, title: "Already received");
            // saved with the first rows of the act itself, so that act and key are one commit
            var row = new RequestRow { Key = key, At = http.RequestServices.GetRequiredService<TimeProvider>().Now() };
            db.Requests.Add(row);
            var result = await next(context);
            if (db.Entry(row).State == EntityState.Added) await db.SaveChangesAsync();
            (row.Status, row.Body) = Answer(result, http);
            await db.SaveChangesAsync();
            return result;
        }
        finally
        {
            gate.Release();
            UnderWay.TryRemove(key, out _);
        }
    }

    private static (int, string?) Answer(object? result, HttpContext http)
    {
        var status = (result as IStatusCodeHttpResult)?.StatusCode ?? 200;
        var value = result is IResult ? (result as IValueHttpResult)?.Value : result;
        var options = http.RequestServices.GetRequiredService<Microsoft.Extensions.Options.IOptions<Microsoft.AspNetCore.Http.Json.JsonOptions>>().Value.SerializerOptions;
        return (status, value is null ? null : JsonSerializer.Serialize(value, value.GetType(), options));
    }
}
