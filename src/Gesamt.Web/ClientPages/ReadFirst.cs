using Gesamt.Core.Work;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.ClientPages;

/// <summary>Keeps what is done in the work to reading until the start call, where the kind says so. Proposal, contract, payments, forms and questions are not held up.</summary>
internal static class ReadFirst
{
    private static readonly string[] Parts = ["/tasks/", "/lists/", "/rounds/", "/run-sheet/"];

    public static async ValueTask<object?> UntilStartCall(
        EndpointFilterInvocationContext context,
        EndpointFilterDelegate next
    )
    {
        var http = context.HttpContext;
        var path = http.Request.Path.Value!;
        if (
            HttpMethods.IsGet(http.Request.Method)
            || !Parts.Any(part => path.Contains($"/api{part}", StringComparison.Ordinal))
        )
            return await next(context);
        var desk = http.RequestServices.GetRequiredService<Desk>();
        var file = await desk.OpenAsync(ClientLink.Link(http).ProjectId);
        if (StartCall.IsAwaited(file.Case))
            throw new RefusedException(
                $"For now this is yours to read. It opens to your changes once you and {desk.Studio.Owner} have spoken about the start."
            );
        desk.Db.ChangeTracker.Clear();
        return await next(context);
    }
}
