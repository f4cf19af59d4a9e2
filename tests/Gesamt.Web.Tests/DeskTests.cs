using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>What every act is, whatever is done in it.</summary>
public sealed class DeskTests
{
    [Fact]
    public async Task An_act_is_of_one_instant_however_long_it_takes()
    {
        await using var studio = new EmptyStudio();
        var clock = (AdjustableClock)studio.Services.GetRequiredService<TimeProvider>();
        await studio.LookAsync(
            async (Desk desk) =>
            {
                var (begun, later) = (desk.Now, desk.Now + Duration.FromHours(1));
                await desk.ActAsync(act =>
                {
                    clock.Set(later, stands: true);
                    Assert.Equal((begun, begun), (act.Now, desk.Now));
                    return Task.CompletedTask;
                });
                Assert.Equal(later, desk.Now);
                await Assert.ThrowsAsync<InvalidOperationException>(() =>
                    desk.ActAsync(Task (_) => throw new InvalidOperationException())
                );
                clock.Set(later + Duration.FromHours(1), stands: true);
                Assert.Equal(later + Duration.FromHours(1), desk.Now);
                return true;
            }
        );
    }
}
