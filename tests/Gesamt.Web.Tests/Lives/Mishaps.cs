using System.Collections.Concurrent;
using Microsoft.Extensions.Logging;

namespace Gesamt.Web.Tests.Lives;

/// <summary>What the product wrote down as gone wrong. Work that runs by itself is tried again and shows nothing to anybody: here it is seen.</summary>
public sealed class Mishaps : ILoggerProvider
{
    private readonly ConcurrentQueue<string> told = new();

    /// <summary>What was written since it was asked last.</summary>
    public IReadOnlyList<string> Take()
    {
        List<string> all = [];
        while (told.TryDequeue(out var one))
            all.Add(one);
        return all;
    }

    public ILogger CreateLogger(string categoryName) =>
        categoryName.StartsWith("Gesamt", StringComparison.Ordinal)
        || categoryName.StartsWith("Microsoft.AspNetCore.Diagnostics", StringComparison.Ordinal)
            ? new Keeping(told)
            : Microsoft.Extensions.Logging.Abstractions.NullLogger.Instance;

    public void Dispose() { }

    private sealed class Keeping(ConcurrentQueue<string> told) : ILogger
    {
        public IDisposable? BeginScope<TState>(TState state)
            where TState : notnull => null;

        public bool IsEnabled(LogLevel logLevel) => logLevel >= LogLevel.Error;

        public void Log<TState>(
            LogLevel logLevel,
            EventId eventId,
            TState state,
            Exception? exception,
            Func<TState, Exception?, string> formatter
        )
        {
            if (IsEnabled(logLevel))
                told.Enqueue($"{formatter(state, exception)} {exception}");
        }
    }
}
