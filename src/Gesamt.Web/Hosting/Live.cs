using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Gesamt.Core;

namespace Gesamt.Web.Hosting;

/// <summary>Tells the owner's open screens which project changed, and wakes the ticker.</summary>
public sealed class Live
{
    private static readonly TimeSpan Ping = TimeSpan.FromSeconds(15);
    private readonly Lock gate = new();
    private readonly List<Channel<string>> listeners = [];
    private readonly List<Waker> wakers = [];

    public void Changed(ProjectId project) =>
        Say(project.Value.ToString(System.Globalization.CultureInfo.InvariantCulture), all: false);

    /// <summary>Everything may have changed: the clock was set, or something came from outside.</summary>
    public void ChangedAll() => Say("all", all: true);

    /// <summary>For a loop that works whenever something happened.</summary>
    /// <param name="ofAll">Only when everything may have changed: what happens to one project brings nothing in from outside.</param>
    public Waker NewWaker(bool ofAll = false)
    {
        var waker = new Waker(ofAll);
        lock (gate)
            wakers.Add(waker);
        return waker;
    }

    /// <summary>One loop's sleep.</summary>
    public sealed class Waker(bool ofAll)
    {
        private readonly Channel<bool> wake = Channel.CreateBounded<bool>(
            new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
        );

        internal void Wake(bool all)
        {
            if (all || !ofAll)
                wake.Writer.TryWrite(true);
        }

        /// <summary>Completes when something happened since the last call, or after a while.</summary>
        public async Task WaitAsync(TimeSpan longest, CancellationToken stop)
        {
            using var patience = CancellationTokenSource.CreateLinkedTokenSource(stop);
            patience.CancelAfter(longest);
            try
            {
                await wake.Reader.ReadAsync(patience.Token);
            }
            catch (OperationCanceledException) when (!stop.IsCancellationRequested)
            {
                // nothing happened in that time
            }
        }
    }

    /// <summary>One screen’s channel: the number of a project that changed, or “all”.</summary>
    public async IAsyncEnumerable<SseItem<string>> ListenAsync([EnumeratorCancellation] CancellationToken stop)
    {
        var channel = Channel.CreateBounded<string>(
            new BoundedChannelOptions(100) { FullMode = BoundedChannelFullMode.DropOldest }
        );
        lock (gate)
            listeners.Add(channel);
        try
        {
            yield return new("", "hello") { ReconnectionInterval = TimeSpan.FromSeconds(2) };
            while (!stop.IsCancellationRequested)
            {
                string? changed = null;
                using var quiet = CancellationTokenSource.CreateLinkedTokenSource(stop);
                quiet.CancelAfter(Ping);
                try
                {
                    changed = await channel.Reader.ReadAsync(quiet.Token);
                }
                catch (OperationCanceledException)
                {
                    if (stop.IsCancellationRequested)
                        yield break;
                }
                yield return changed is null ? new("", "ping") : new(changed, "changed");
            }
        }
        finally
        {
            lock (gate)
                listeners.Remove(channel);
        }
    }

    private void Say(string what, bool all)
    {
        lock (gate)
        {
            foreach (var listener in listeners)
                listener.Writer.TryWrite(what);
            foreach (var waker in wakers)
                waker.Wake(all);
        }
    }
}
