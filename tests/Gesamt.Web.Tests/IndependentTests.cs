using Gesamt.Web.Hosting;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.Logging.Abstractions;

namespace Gesamt.Web.Tests;

/// <summary>Work in pieces of which none holds up another.</summary>
public sealed class IndependentTests
{
    [Fact]
    public async Task A_piece_that_fails_holds_up_no_other()
    {
        List<int> begun = [];
        await Independent.EachAsync(NullLogger.Instance, "piece", [1, 2], Begin, CancellationToken.None);
        Assert.Equal([1, 2], begun);

        Task Begin(int piece)
        {
            begun.Add(piece);
            throw new InvalidOperationException();
        }
    }

    [Theory] // SQLITE_FULL: each of thousands would be told; ENOSPC of Linux: a smaller file may find room
    [InlineData(13, 1)]
    [InlineData(null, 2)]
    public async Task Where_the_database_takes_nothing_the_rest_waits_for_the_next_time(int? code, int pieces)
    {
        Exception full = code is { } error
            ? new SqliteException("database or disk is full", error)
            : new IOException("No space left on device", 28);
        List<int> begun = [];
        Assert.Equal(
            pieces == 2,
            await Independent.EachAsync(NullLogger.Instance, "piece", [1, 2], Begin, CancellationToken.None)
        );
        Assert.Equal(pieces, begun.Count);

        Task Begin(int piece)
        {
            begun.Add(piece);
            throw full;
        }
    }

    [Fact] // thrown on, it would be the end of the ticker, told as a fault of the house
    public async Task What_fails_in_the_moment_of_a_stop_is_written_down_like_any_other_and_the_rest_is_left()
    {
        using var stop = new CancellationTokenSource();
        List<int> begun = [];
        await Assert.ThrowsAsync<OperationCanceledException>(() =>
            Independent.EachAsync(NullLogger.Instance, "piece", [1, 2], BeginAsync, stop.Token)
        );
        Assert.Equal([1], begun);

        async Task BeginAsync(int piece)
        {
            begun.Add(piece);
            await stop.CancelAsync();
            throw new InvalidOperationException();
        }
    }
}
