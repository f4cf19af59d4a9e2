using System.Text.Json;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Routing;

namespace Gesamt.Web.Tests;

/// <summary>What the addresses take and give is known when the program is built, so that no start has to find it out.</summary>
public sealed class WireTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public void All_that_is_asked_and_answered_is_in_the_context()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web) { TypeInfoResolver = WireJson.Default };
        var types = studio
            .Services.GetServices<EndpointDataSource>()
            .SelectMany(source => source.Endpoints)
            .SelectMany(endpoint =>
                endpoint
                    .Metadata.GetOrderedMetadata<IProducesResponseTypeMetadata>()
                    .Select(answer => answer.Type)
                    .Concat(endpoint.Metadata.GetOrderedMetadata<IAcceptsMetadata>().Select(asked => asked.RequestType))
            )
            .OfType<Type>()
            .Where(type => type.ToString().Contains("Gesamt.Web.", StringComparison.Ordinal))
            .Distinct()
            .ToList();
        Assert.True(types.Count > 150, $"{types.Count} types");
        Assert.All(types, type => Assert.True(options.TryGetTypeInfo(type, out _), type.ToString()));
    }
}
