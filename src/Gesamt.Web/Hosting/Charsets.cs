using System.Text;
using Microsoft.Net.Http.Headers;

namespace Gesamt.Web.Hosting;

/// <summary>Requests in a character set nobody knows are refused before anything tries to read them.</summary>
public static class Charsets
{
    public static void UseKnownCharsets(this WebApplication app) =>
        app.Use(
            (context, next) =>
                context.Request.ContentType is not { Length: > 0 } type || IsKnown(type)
                    ? next(context)
                    : Results
                        .Problem(
                            "Send it in UTF-8, with a content type that says so: “application/json; charset=utf-8”.",
                            statusCode: 415,
                            title: "This content type cannot be read"
                        )
                        .ExecuteAsync(context)
        );

    private static bool IsKnown(string type)
    {
        if (!MediaTypeHeaderValue.TryParse(type, out var parsed))
            return false;
        if (!parsed.Charset.HasValue)
            return true;
        var isJson =
            parsed.SubType.Equals("json", StringComparison.OrdinalIgnoreCase)
            || parsed.SubTypeWithoutSuffix != parsed.SubType;
        try
        {
            // JSON between programs is UTF-8 alone (RFC 8259, 8.1)
            return Encoding.GetEncoding(HeaderUtilities.RemoveQuotes(parsed.Charset).ToString()) is { } known
                && (!isJson || known.CodePage is 65001 or 20127);
        }
        catch (ArgumentException)
        {
            return false;
        }
    }
}
