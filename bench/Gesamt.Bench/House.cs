using System.Data.Common;
using Gesamt.Store;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Gesamt.Bench;

/// <summary>A statement as it was sent to SQLite.</summary>
public sealed record Statement(string Sql, IReadOnlyList<(string Name, object? Value)> Parameters);

/// <summary>The product inside this process: to lay the demo, to run ticks, and to see which statements an endpoint sends.</summary>
public sealed class House(string data, string root, bool demo) : WebApplicationFactory<Gesamt.Web.Hosting.Live>
{
    private readonly Seen seen = new();

    /// <summary>The statements that read while something is asked.</summary>
    public async Task<IReadOnlyList<Statement>> WatchAsync(Func<Task> ask)
    {
        seen.Statements.Clear();
        await ask();
        return [.. seen.Statements];
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder) =>
        builder
            .UseContentRoot(Path.Combine(root, "src", "Gesamt.Web"))
            .ConfigureServices(services =>
                services.ConfigureDbContext<GesamtDb>(options => options.AddInterceptors(seen))
            )
            .UseSetting("Logging:LogLevel:Default", "Error")
            .UseSetting("Gesamt:Mode", "Test")
            .UseSetting("Gesamt:Data", data)
            .UseSetting("Gesamt:Address", "http://studio.example")
            .UseSetting("Gesamt:HoldSeconds", "0")
            .UseSetting("Gesamt:DemoFiles", Path.Combine(root, "demo"))
            .UseSetting("Gesamt:DemoProjects", demo ? "true" : "false")
            .UseSetting("Gesamt:Clock", Clock)
            .UseSetting("Gesamt:ClockStands", "true");

    public const string Clock = "2027-01-25T10:30:00Z";

    private sealed class Seen : DbCommandInterceptor
    {
        public List<Statement> Statements { get; } = [];

        public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result,
            CancellationToken cancellationToken = default
        )
        {
            Keep(command);
            return new(result);
        }

        public override InterceptionResult<DbDataReader> ReaderExecuting(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result
        )
        {
            Keep(command);
            return result;
        }

        private void Keep(DbCommand command)
        {
            lock (Statements)
                Statements.Add(
                    new(
                        command.CommandText,
                        [.. command.Parameters.Cast<DbParameter>().Select(p => (p.ParameterName, p.Value))]
                    )
                );
        }
    }
}
