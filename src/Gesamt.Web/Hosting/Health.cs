using Gesamt.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Microsoft.Extensions.Hosting.Systemd;

namespace Gesamt.Web.Hosting;

/// <summary>For whoever watches over the machine: /health answers “Healthy”, “Degraded” while the nightly backup fails or little room is left on the disk of the studio or of its backups, or “Unhealthy” with 503 while the database does not answer; and the service manager is told when the studio is open.</summary>
public static class Health
{
    public const string Address = "/health";

    public static void AddHealth(this IServiceCollection services) =>
        services.AddHealthChecks().AddCheck<OfStudio>("studio");

    public static void MapHealth(this WebApplication app)
    {
        app.MapHealthChecks(Address);
        // sd_notify(3); nothing where no service manager listens
        app.Lifetime.ApplicationStarted.Register(() => new SystemdNotifier().Notify(ServiceState.Ready));
    }

    private sealed class OfStudio(GesamtDb db, Disk disk) : IHealthCheck
    {
        public async Task<HealthCheckResult> CheckHealthAsync(
            HealthCheckContext context,
            CancellationToken stop = default
        ) =>
            await db.Studio.AnyAsync(stop) && await db.Upkeep.AnyAsync(row => row.BackupProblem != null, stop)
            || disk.Troubles.Count > 0
                ? HealthCheckResult.Degraded()
                : HealthCheckResult.Healthy();
    }
}
