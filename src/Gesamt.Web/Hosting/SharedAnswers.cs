namespace Gesamt.Web.Hosting;

/// <summary>Many who ask for the same view at once get one answer, computed once: fifty open screens that hear of one change cost two computations, not fifty.</summary>
/// <remarks>Whoever asks while an answer is being computed waits for the next one, which begins after they asked: everybody sees at least what was there when they asked.</remarks>
public sealed class SharedAnswers(IServiceScopeFactory scopes)
{
    private sealed class Flight
    {
        public Task<object> Present { get; set; } = Task.FromResult(new object());
        public Task<object>? Next { get; set; }
    }

    private readonly Lock gate = new();
    private readonly Dictionary<string, Flight> flights = [];

    /// <summary>The answer of a view; whoever asks while it is computed gets the same one.</summary>
    public async Task<T> OfAsync<T>(string view, Func<Desk, Task<T>> compute)
        where T : class =>
        (T)
            await Joined(
                view,
                async () =>
                {
                    await using var scope = scopes.CreateAsyncScope();
                    return await compute(scope.ServiceProvider.GetRequiredService<Desk>());
                }
            );

    private Task<object> Joined(string view, Func<Task<object>> compute)
    {
        lock (gate)
        {
            if (!flights.TryGetValue(view, out var flight))
                flights.Add(view, flight = new());
            // the next one has begun as soon as the one before it was done: it is the present one, and too old for whoever asks now
            if (flight is { Present.IsCompleted: true, Next: { } begun })
                (flight.Present, flight.Next) = (begun, null);
            if (flight.Present.IsCompleted)
                return flight.Present = Task.Run(compute);
            return flight.Next ??= AfterAsync(flight.Present, compute);
        }
    }

    private static async Task<object> AfterAsync(Task before, Func<Task<object>> compute)
    {
        await before.ContinueWith(_ => { }, TaskScheduler.Default);
        return await compute();
    }
}
