using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
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
    public const string TokenCookie = "gesamt-token";

    private static readonly ConcurrentDictionary<string, SemaphoreSlim> UnderWay = new();

    /// <summary>Every write carries a token of this session and a key, and is answered once.</summary>
    public static RouteGroupBuilder GuardWrites(this RouteGroupBuilder group)
    {
        group.AddEndpointFilter(
            async (context, next) =>
            {
                var http = context.HttpContext;
                if (HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method))
                    return await next(context);
                try
                {
                    await http.RequestServices.GetRequiredService<IAntiforgery>().ValidateRequestAsync(http);
                }
                catch (AntiforgeryValidationException)
                {
                    return Results.Problem(
                        $"The {TokenHeader} header is missing or out of date. Load the page again.",
                        statusCode: 400,
                        title: "Not from this page"
                    );
                }
                return await OnceAsync(context, next);
            }
        );
        return group;
    }

    /// <summary>For public forms, which have no session that could be forged: the key alone.</summary>
    public static RouteGroupBuilder ReceiveOnce(this RouteGroupBuilder group)
    {
        group.AddEndpointFilter(
            (context, next) =>
                HttpMethods.IsPost(context.HttpContext.Request.Method)
                && !context.HttpContext.Request.HasFormContentType
                    ? OnceAsync(context, next)
                    : next(context)
        );
        return group;
    }

    private static async ValueTask<object?> OnceAsync(
        EndpointFilterInvocationContext context,
        EndpointFilterDelegate next
    )
    {
        var http = context.HttpContext;
        var sent = http.Request.Headers[KeyHeader].ToString();
        if (sent.Length is < 8 or > 100)
            return Results.Problem(
                $"Every write carries an {KeyHeader} header of 8 to 100 characters.",
                statusCode: 400,
                title: "No key"
            );
        // one address's key says nothing about another's
        var key = $"{http.Request.Method} {http.Request.Path}#{sent}";
        var (asker, content) = (
            HashOf($"{http.Request.Cookies[TokenCookie]}|{http.Request.Headers.Authorization}"),
            ContentOf(http)
        );
        var gate = UnderWay.GetOrAdd(key, _ => new(1, 1));
        await gate.WaitAsync(http.RequestAborted);
        try
        {
            var db = http.RequestServices.GetRequiredService<GesamtDb>();
            if (await db.Requests.AsNoTracking().SingleOrDefaultAsync(r => r.Key == key) is { } first)
                return Again(first, asker, content);
            // saved with the first rows of the act itself, so that act and key are one commit
            var row = new RequestRow
            {
                Key = key,
                At = http.RequestServices.GetRequiredService<TimeProvider>().Now(),
                Asker = asker,
                Content = content,
            };
            db.Requests.Add(row);
            Nothing.IsInside(context.Arguments);
            object? result;
            try
            {
                result = await next(context);
            }
            catch (DbUpdateException) when (db.Entry(row).State == EntityState.Added)
            {
                // another copy of the program may have received the same a moment ago
                db.ChangeTracker.Clear();
                if (await db.Requests.AsNoTracking().SingleOrDefaultAsync(r => r.Key == key) is { } theirs)
                    return Again(theirs, asker, content);
                throw;
            }
            var (status, body) = Answer(result, http);
            var isSaved = db.Entry(row).State != EntityState.Added;
            if (status >= 400)
            {
                // what was refused leaves nothing behind, and can be sent again under its key
                if (isSaved)
                    await db.Requests.Where(r => r.Key == key).ExecuteDeleteAsync();
                return result;
            }
            (row.Status, row.Body) = (status, body);
            // an act that tidied up the tracker may have saved its key before, or not
            if (
                db.Entry(row).State == EntityState.Detached
                && await db
                    .Requests.Where(r => r.Key == key)
                    .ExecuteUpdateAsync(set => set.SetProperty(r => r.Status, status).SetProperty(r => r.Body, body))
                    == 0
            )
                db.Requests.Add(row);
            await db.SaveChangesAsync();
            return result;
        }
        finally
        {
            gate.Release();
            UnderWay.TryRemove(key, out _);
        }
    }

    /// <summary>The first answer to whoever asked first for the same; anybody else, or anything else, under that key is refused.</summary>
    private static IResult Again(RequestRow first, string asker, string content)
    {
        if (first.Asker is { } by && by != asker || first.Content is { } of && of != content)
            return Results.Problem(
                $"This {KeyHeader} was used for something else already. Load the page again.",
                statusCode: 422,
                title: "Another request had this key"
            );
        return first.Status is { } status
            ? Results.Text(first.Body ?? "", first.Body is null ? null : "application/json", statusCode: status)
            : Results.Problem(
                "This was received a moment ago. Load the page again to see what came of it.",
                statusCode: 409,
                title: "Already received"
            );
    }

    /// <summary>What is asked for: the query, and the body as far as it was read. Files are read by their endpoint, after this: of them the length counts.</summary>
    private static string ContentOf(HttpContext http) =>
        $"{(http.Request.Body as HashedBody)?.Hash() ?? ""}{HashOf($"{http.Request.QueryString}|{http.Request.ContentType}|{http.Request.ContentLength}")}";

    private static string HashOf(string text) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)))[..16];

    private static (int, string?) Answer(object? result, HttpContext http)
    {
        var status = (result as IStatusCodeHttpResult)?.StatusCode ?? 200;
        var value = result is IResult ? (result as IValueHttpResult)?.Value : result;
        var options = http
            .RequestServices.GetRequiredService<Microsoft.Extensions.Options.IOptions<Microsoft.AspNetCore.Http.Json.JsonOptions>>()
            .Value.SerializerOptions;
        return (status, value is null ? null : JsonSerializer.Serialize(value, value.GetType(), options));
    }
}

/// <summary>A request's body that keeps the hash of what was read of it.</summary>
public sealed class HashedBody(Stream body) : Stream
{
    private readonly IncrementalHash sha = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);

    public string Hash() => Convert.ToHexStringLower(sha.GetCurrentHash())[..32];

    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        var read = await body.ReadAsync(buffer, cancellationToken);
        sha.AppendData(buffer.Span[..read]);
        return read;
    }

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override int Read(byte[] buffer, int offset, int count) =>
        throw new NotSupportedException("A body is read without blocking.");

    public override bool CanRead => true;
    public override bool CanSeek => false;
    public override bool CanWrite => false;
    public override long Length => throw new NotSupportedException();
    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    public override void Flush() { }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    protected override void Dispose(bool disposing)
    {
        if (disposing)
            sha.Dispose();
        base.Dispose(disposing);
    }
}
