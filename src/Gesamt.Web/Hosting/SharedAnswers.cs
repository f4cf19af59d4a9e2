namespace Gesamt.Web.Hosting;

/// <summary>Many who ask for the same view at once get one answer, computed once: fifty open screens that hear of one change cost two computations, not fifty.</summary>
/// <remarks>Whoever asks while an answer is being computed waits for the next one, which begins after they asked: everybody sees at least what was there when they asked.</remarks>
public sealed class SharedAnswers(IServiceScopeFactory scopes)
{
    private sealed class Flight
    {
        public required Task<object> Present { get; set; }
        public Task<object>? Next { get; set; }
    }

    private readonly Lock gate = new();
    private readonly Dictionary<string, Flight> flights = [];

    public async Task<T> OfAsync<T>(string view, Func<Desk, Task<T>> compute) where T : class => (T)await Joined(view, async () =>
    {
        await using var scope = scopes.CreateAsyncScope();
        return await compute(scope.ServiceProvider.GetRequiredService<Desk>());
    });

    private Task<object> Joined(string view, Func<Task<object>> compute)
    {
        lock (gate)
        {
            if (!flights.TryGetValue(view, out var flight))
            {
                flights.Add(view, flight = new() { Present = Task.Run(compute) });
                _ = LandAsync(view, flight);
                return flight.Present;
            }
            return flight.Next ??= AfterAsync(flight.Present, compute);
        }
    }

    private static async Task<object> AfterAsync(Task before, Func<Task<object>> compute)
    {
        await before.ContinueWith(_ => { }, TaskScheduler.Default);
        return await compute();
    }

    private async Task LandAsync(string view, Flight flight)
    {
        while (true)
        {
            await flight.Present.ContinueWith(_ => { }, TaskScheduler.Default);
            lock (gate)
            {
                if (flight.Next is not { } next)
                {
                    flights.Remove(view);
                    return;
                }
                (flight.Present, flight.Next) = (next, null);
            }
        }
    }
}
