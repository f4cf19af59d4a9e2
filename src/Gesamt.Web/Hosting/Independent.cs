namespace Gesamt.Web.Hosting;

/// <summary>Work in pieces of which none holds up another: what goes wrong is written down and tried again the next time.</summary>
public static class Independent
{
    /// <summary>Does one part; what it throws is logged, also in the moment of a stop, which alone goes through.</summary>
    /// <returns>What it threw; null where it went well.</returns>
    public static async Task<Exception?> TryAsync(
        ILogger log,
        string what,
        Func<CancellationToken, Task> work,
        CancellationToken stop
    )
    {
        try
        {
            await work(stop);
            return null;
        }
        catch (Exception e) when (!(stop.IsCancellationRequested && e is OperationCanceledException))
        {
            log.LogError(e, "This failed and is tried again: {What}", what);
            return e;
        }
    }

    /// <summary>The same for each of several; none is begun after a stop, nor where the database takes nothing: a disk that is full would be told for each of thousands.</summary>
    /// <returns>Whether each was begun.</returns>
    public static async Task<bool> EachAsync<T>(
        ILogger log,
        string what,
        IEnumerable<T> pieces,
        Func<T, Task> work,
        CancellationToken stop
    )
    {
        foreach (var piece in pieces)
        {
            stop.ThrowIfCancellationRequested();
            if (
                await TryAsync(log, $"{what} {piece}", _ => work(piece), stop) is { } failure
                && HouseTrouble.StopsAll(failure)
            )
                return false;
        }
        return true;
    }
}
