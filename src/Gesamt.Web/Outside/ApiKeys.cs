using System.Security.Cryptography;
using System.Text;
using Gesamt.Core.People;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Outside;

/// <summary>A project as other programs read it: where it stands, nothing of what was said.</summary>
public sealed record OpenProjectDto(
    long Id,
    string Title,
    string Kind,
    long Client,
    Stage Stage,
    Side Turn,
    Instant? BookedAt,
    string? Ended,
    LocalDate? Date,
    string? DateName,
    long? AgreedMinor,
    long PaidMinor,
    long OwedMinor,
    string Currency
);

/// <summary>A person as programs outside read them.</summary>
public sealed record OpenPersonDto(long Id, string Name, string? Organisation, string? Mail, string? Phone);

/// <param name="Next">Goes back as “after” for the next page; null at the end.</param>
public sealed record OpenPageDto<T>(IReadOnlyList<T> Items, long? Next);

/// <summary>A new inquiry from another program.</summary>
/// <param name="Kind">The key or the name of a kind of work.</param>
public sealed record OpenInquiryDto(
    string Kind,
    string Name,
    string? Mail,
    string? Phone = null,
    string? Organisation = null,
    string? Words = null,
    string? Source = null,
    LocalDate? Date = null,
    bool FollowUp = false
);

/// <summary>What other programs may do with a key: read, and bring new inquiries.</summary>
public static class ApiKeys
{
    public const string RateLimit = "open-api";
    private const int PageSize = 100;

    public static string HashOf(string key) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(key)));

    public static void MapOpen(this WebApplication app)
    {
        var open = app.MapGroup("/open/v1")
            .NameUnread()
            .LimitCalls(RateLimit)
            .WithTags("open")
            .WithDescription("Needs a key of the studio: “Authorization: Bearer gesamt_…”.");
        var read = open.MapGroup("")
            .AddEndpointFilter((context, next) => AllowedAsync(context, next, key => key.MayRead));
        read.MapGet("/projects", async (long? after, Desk desk) => await ProjectsAsync(desk, after ?? 0))
            .WithSummary("Projects in the order they began, 100 at a time");
        read.MapGet("/people", async (long? after, Desk desk) => await PeopleAsync(desk, after ?? 0))
            .WithSummary("Clients and others, 100 at a time");
        // a repeat under the same Idempotency-Key returns the first answer
        open.MapGroup("")
            .AddEndpointFilter((context, next) => AllowedAsync(context, next, key => key.MayInquire))
            .ReceiveOnce()
            .MapPost(
                "/inquiries",
                async (OpenInquiryDto inquiry, Desk desk) => new CreatedDto((await InquireAsync(desk, inquiry)).Value)
            )
            .WithSummary("A new inquiry; needs an Idempotency-Key");
    }

    private static async ValueTask<object?> AllowedAsync(
        EndpointFilterInvocationContext context,
        EndpointFilterDelegate next,
        Func<ApiKeyRow, bool> may
    )
    {
        var http = context.HttpContext;
        var desk = http.RequestServices.GetRequiredService<Desk>();
        var sent = http.Request.Headers.Authorization.ToString();
        var hash = sent.StartsWith("Bearer ", StringComparison.OrdinalIgnoreCase) ? HashOf(sent[7..].Trim()) : "";
        var row = await desk.Db.ApiKeys.AsNoTracking().SingleOrDefaultAsync(k => k.Hash == hash && k.EndedAt == null);
        if (row is null)
            return Results.Problem(
                "Send a key of the studio: “Authorization: Bearer gesamt_…”.",
                statusCode: 401,
                title: "No key"
            );
        if (!may(row))
            return Results.Problem("This key is for something else.", statusCode: 403, title: "Not with this key");
        var now = desk.Now;
        if (row.UsedAt is null || now - row.UsedAt > Duration.FromMinutes(1))
            await desk
                .Db.ApiKeys.Where(k => k.Id == row.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(k => k.UsedAt, now));
        return await next(context);
    }

    private static async Task<OpenPageDto<OpenProjectDto>> ProjectsAsync(Desk desk, long after)
    {
        var rows = await desk
            .Db.Projects.AsNoTracking()
            .Include(p => p.Kind)
            .Where(p => (long)(object)p.Id > after)
            .OrderBy(p => p.Id)
            .Take(PageSize)
            .ToListAsync();
        return new(
            [
                .. rows.Select(p => new OpenProjectDto(
                    p.Id.Value,
                    p.Title,
                    p.Kind!.Name,
                    p.ClientId.Value,
                    p.Standing.Stage,
                    p.Standing.Turn,
                    p.Standing.BookedAt,
                    p.Standing.Ended?.ToString(),
                    p.Standing.MainDate,
                    Store.Json.StoreJson.TryRead<Core.Projects.KindRules>(p.Pinned.Rules)?.MainDate,
                    p.Standing.AgreedMinor,
                    p.Standing.PaidMinor,
                    p.Standing.OwedMinor,
                    p.Standing.Currency ?? desk.Currency.Code
                )),
            ],
            rows.Count == PageSize ? rows[^1].Id.Value : null
        );
    }

    private static async Task<OpenPageDto<OpenPersonDto>> PeopleAsync(Desk desk, long after)
    {
        var rows = await desk
            .Db.People.AsNoTracking()
            .Where(p => (long)(object)p.Id > after && p.MergedInto == null && p.RemovedAt == null)
            .OrderBy(p => p.Id)
            .Take(PageSize)
            .ToListAsync();
        return new(
            [.. rows.Select(p => new OpenPersonDto(p.Id.Value, p.Name, p.Organisation, p.Mail, p.Phone))],
            rows.Count == PageSize ? rows[^1].Id.Value : null
        );
    }

    private static async Task<Core.ProjectId> InquireAsync(Desk desk, OpenInquiryDto inquiry)
    {
        var kind =
            await desk
                .Db.Kinds.AsNoTracking()
                .FirstOrDefaultAsync(k => !k.Removed && (k.Key == inquiry.Kind || k.Name == inquiry.Kind))
            ?? throw new InvalidException(
                (
                    "kind",
                    $"One of: {string.Join(", ", await desk.Db.Kinds.Where(k => !k.Removed).Select(k => k.Key).ToListAsync())}."
                )
            );
        if (inquiry.Mail is { Length: > 0 } mail && !MailAddress.IsValid(mail.Trim()))
            throw new InvalidException(("mail", MailAddress.Allowed));
        return await TypedIn.AddAsync(
            desk,
            new(
                kind.Id.Value,
                inquiry.Name,
                inquiry.Mail,
                inquiry.Phone,
                null,
                inquiry.Organisation,
                null,
                inquiry.Source,
                inquiry.Words,
                inquiry.Date,
                null,
                null,
                inquiry.FollowUp
            )
        );
    }
}
