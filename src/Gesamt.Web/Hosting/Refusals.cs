using System.Text.Json;
using System.Text.RegularExpressions;
using Gesamt.Core.Amounts;
using Gesamt.Core.Letters;
using Gesamt.Core.Proposals;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Hosting;

/// <summary>What was asked for does not exist, or not for whoever asks.</summary>
public sealed class MissingException(string what) : Exception($"There is no such {what}.");

/// <summary>An act that cannot be done as things stand; says why and what is possible.</summary>
public sealed class RefusedException(string why) : Exception(why);

/// <summary>Input that is not allowed, by field.</summary>
public sealed class InvalidException(params (string Field, string Message)[] errors)
    : Exception(string.Join(" ", errors.Select(e => e.Message)))
{
    /// <summary>What is wrong, by the name of the field.</summary>
    public Dictionary<string, string[]> Errors { get; } =
        errors.GroupBy(e => e.Field).ToDictionary(g => g.Key, g => g.Select(e => e.Message).ToArray());
}

/// <summary>Somebody saved the same thing in another window meanwhile.</summary>
public sealed class StaleException(object theirs)
    : Exception("This was changed in another window. Both texts are shown; yours is kept as you wrote it.")
{
    public object Theirs { get; } = theirs;
}

/// <summary>Refusals as a part of what an endpoint answers.</summary>
public static class DeclaredRefusals
{
    /// <summary>Something in it is not allowed (400), it is not there (404), it cannot be done as things stand (409); each as problem details of RFC 9457.</summary>
    public static RouteGroupBuilder DeclareRefusals(this RouteGroupBuilder group) =>
        group
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict);
}

/// <summary>Turns refusals into problem details (RFC 9457) that name the field and what is allowed.</summary>
public sealed partial class Refusals(IProblemDetailsService problems) : IExceptionHandler
{
    private const int SqliteConstraintUnique = 2067,
        SqliteConstraintPrimaryKey = 1555;

    /// <inheritdoc/>
    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken stop)
    {
        var (status, errors, theirs) = Read(exception);
        if (status == 0)
            return false;
        context.Response.StatusCode = status;
        var problem = new Microsoft.AspNetCore.Mvc.ProblemDetails
        {
            Status = status,
            Title = Title(status),
            Detail = status == 413 ? TooLarge(context, exception) : Words(exception),
        };
        if (errors is not null)
            problem.Extensions["errors"] = errors;
        if (theirs is not null)
            problem.Extensions["theirs"] = theirs;
        // whoever asked for a page, a calendar or a picture is told all the same
        if (
            !await problems.TryWriteAsync(
                new()
                {
                    HttpContext = context,
                    ProblemDetails = problem,
                    Exception = exception,
                }
            )
        )
            await context.Response.WriteAsJsonAsync(
                problem,
                (JsonSerializerOptions?)null,
                "application/problem+json",
                stop
            );
        return true;
    }

    private static (int Status, Dictionary<string, string[]>? Errors, object? Theirs) Read(Exception exception) =>
        exception switch
        {
            InvalidException invalid => (400, invalid.Errors, null),
            OfferException offer => (400, new() { [offer.Field] = [offer.Message] }, null),
            LetterTextException text => (400, new() { ["text"] = [text.Message] }, null),
            InstalmentException instalment => (400, new() { ["plan"] = [instalment.Message] }, null),
            Store.Files.FileTooLargeException large => (413, new() { ["file"] = [large.Message] }, null),
            BadHttpRequestException { InnerException: JsonException json } bad => (bad.StatusCode, Unread(json), null),
            BadHttpRequestException bad => (bad.StatusCode, UnreadInAddress(bad), null),
            AntiforgeryValidationException => (400, null, null),
            MissingException => (404, null, null),
            RefusedException => (409, null, null),
            StaleException stale => (409, null, stale.Theirs),
            DbUpdateException
            {
                InnerException: SqliteException
                {
                    SqliteExtendedErrorCode: SqliteConstraintUnique or SqliteConstraintPrimaryKey
                }
            } => (409, null, null),
            _ when HouseTrouble.Of(exception) is not null => (503, null, null),
            _ => (0, null, null),
        };

    /// <summary>What of a request cannot be read: the fields that are missing, else the one that reads as nothing it could be.</summary>
    private static Dictionary<string, string[]> Unread(JsonException json)
    {
        var missing = Missing().Match(json.Message) is { Success: true } match
            ? Quoted().Matches(match.Value).Select(name => name.Value.Trim('\'')).ToList()
            : [];
        return missing.Count > 0
            ? missing.ToDictionary(name => name, _ => new[] { "This is missing." })
            : new()
            {
                [FieldOf(json)] = [json is NotAllowedException ? json.Message : "This is not what can be read here."],
            };
    }

    /// <summary>What of an address cannot be read, where the request says which; null otherwise.</summary>
    private static Dictionary<string, string[]>? UnreadInAddress(BadHttpRequestException bad) =>
        Parameter().Match(bad.Message) is { Success: true } match
            ? new()
            {
                [JsonNamingPolicy.CamelCase.ConvertName(match.Groups["name"].Value)] =
                [
                    match.Groups["given"] is { Success: true } given ? DoesNotRead(given.Value) : "This is missing.",
                ],
            }
            : null;

    /// <summary>Said of something in an address that reads as nothing it could be.</summary>
    public static string DoesNotRead(string given) => $"“{given}” is not what can be read here.";

    // “Required parameter "string words" was not provided from …”, “Failed to bind parameter "int? year" from "abc".”
    [GeneratedRegex(
        "^(?:Required|Failed to bind) parameter \"[^\"]* (?<name>\\w+)\"(?: from \"(?<given>.*)\"\\.$)?",
        RegexOptions.Singleline
    )]
    private static partial Regex Parameter();

    /// <summary>“to” for “$.to”; “request” where the whole does not read.</summary>
    private static string FieldOf(JsonException json) => json.Path is { Length: > 2 } path ? path[2..] : "request";

    // as the serializer words it, until it tells the names apart
    [GeneratedRegex(@"missing required properties including: .*")]
    private static partial Regex Missing();

    [GeneratedRegex("'[^']+'")]
    private static partial Regex Quoted();

    private static string Words(Exception exception) =>
        exception switch
        {
            _ when HouseTrouble.Of(exception) is { } trouble => trouble,
            AntiforgeryValidationException =>
                $"The {Writes.TokenHeader} header is missing or out of date. Load the page again.",
            DbUpdateException => "This was done a moment ago already.",
            BadHttpRequestException { InnerException: JsonException json } =>
                $"The request does not read as expected at {string.Join(", ", Unread(json).Keys)}.",
            BadHttpRequestException bad when UnreadInAddress(bad) is { } unread =>
                $"The request does not read as expected at {string.Join(", ", unread.Keys)}.",
            BadHttpRequestException => "The request does not read as expected.",
            _ => exception.Message,
        };

    /// <summary>What is too large, and how much may be sent at once.</summary>
    private static string TooLarge(HttpContext context, Exception exception) =>
        exception is BadHttpRequestException
        && context.Features.Get<Microsoft.AspNetCore.Http.Features.IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize
            is { } most
            ? $"This is too large: at most {most / (1024 * 1024)} MB can be sent at once."
            : exception.Message;

    private static string Title(int status) =>
        status switch
        {
            400 => "Something in it is not allowed",
            404 => "Not found",
            409 => "This cannot be done as things stand",
            413 => "Too large",
            503 => "Not possible at the moment",
            _ => "Refused",
        };
}
