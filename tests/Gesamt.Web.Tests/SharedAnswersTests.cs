using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>Many who ask at once get one answer; nobody gets one that was begun before they asked.</summary>
public sealed class SharedAnswersTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task Who_asks_while_it_is_computed_shares_the_next_one()
    {
        var shared = new SharedAnswers(studio.Services.GetRequiredService<IServiceScopeFactory>());
        var (begun, gate, computed) = (new TaskCompletionSource(), new TaskCompletionSource(), 0);
        async Task<string> ComputeAsync(Desk desk)
        {
            var number = Interlocked.Increment(ref computed);
            begun.TrySetResult();
            await gate.Task;
            return $"answer {number}";
        }
        var first = shared.OfAsync("view", ComputeAsync);
        await begun.Task;
        var later = Enumerable.Range(0, 50).Select(_ => shared.OfAsync("view", ComputeAsync)).ToList();
        gate.SetResult();
        Assert.Equal("answer 1", await first);
        Assert.All(await Task.WhenAll(later), answer => Assert.Equal("answer 2", answer));
        Assert.Equal("answer 3", await shared.OfAsync("view", ComputeAsync));
    }

    [Fact]
    public async Task One_that_fails_fails_for_those_who_share_it_alone()
    {
        var shared = new SharedAnswers(studio.Services.GetRequiredService<IServiceScopeFactory>());
        await Assert.ThrowsAsync<InvalidOperationException>(() =>
            shared.OfAsync<string>("view", _ => throw new InvalidOperationException())
        );
        Assert.Equal("whole", await shared.OfAsync("view", _ => Task.FromResult("whole")));
    }
}
