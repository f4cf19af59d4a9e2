using System.ComponentModel;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Metadata;

namespace Gesamt.Web.Hosting;

/// <summary>What of an address does not read is named, as fields of a body are.</summary>
public static class Reading
{
    /// <summary>Put first: a parameter that could have been left out and does not read has set the answer to 400 by then, and says no more.</summary>
    public static T NameUnread<T>(this T endpoints)
        where T : IEndpointConventionBuilder =>
        endpoints.AddEndpointFilter(
            (context, next) =>
                context.HttpContext.Response.StatusCode == StatusCodes.Status400BadRequest
                && Unread(context.HttpContext) is { Length: > 0 } unread
                    ? throw new InvalidException(unread)
                    : next(context)
        );

    private static (string, string)[] Unread(HttpContext http) =>
        [
            .. from parameter in http.GetEndpoint()!.Metadata.GetOrderedMetadata<IParameterBindingMetadata>()
            let given = http.Request.Query[parameter.Name].ToString()
            where parameter.HasTryParse && given.Length > 0 && !Reads(parameter.ParameterInfo.ParameterType, given)
            select (JsonNamingPolicy.CamelCase.ConvertName(parameter.Name), Refusals.DoesNotRead(given)),
        ];

    private static bool Reads(Type type, string given) =>
        TypeDescriptor.GetConverter(Nullable.GetUnderlyingType(type) ?? type).IsValid(given);
}
