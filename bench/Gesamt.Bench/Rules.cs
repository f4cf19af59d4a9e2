using BenchmarkDotNet.Attributes;
using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Loggers;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;
using Gesamt.Core.Amounts;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Core.Turns;
using NodaTime;

namespace Gesamt.Bench;

/// <summary>The rules that every act and every screen ask, on the project of the demo with the longest history.</summary>
[MemoryDiagnoser]
public class Rules
{
    /// <summary>Set before they are run, in the same process.</summary>
    public static Case Project { get; set; } = null!;

    public static Instant Now { get; set; }

    private static readonly Totals Price = Totals.OfLines(
        [
            new(31, 140, Money.Zero(Currency.Of("EUR")), Rate.Percent(23)),
            new(6, 130, Money.Zero(Currency.Of("EUR")), Rate.Percent(13.5m)),
        ],
        Money.Zero(Currency.Of("EUR"))
    );

    [Benchmark(Description = "the plan of a project")]
    public int Planned() => Plan.Of(Another).Length;

    [Benchmark(Description = "its standing: stage, turn, since, next act, sums")]
    public Standing Stands() => TurnRule.Of(Another, Now);

    // what was read of a case is known of it from then on
    private static Case Another => Project with { };

    [Benchmark(Description = "a price in five instalments, to the cent")]
    public int InParts() => Instalments.Of(Price, 40, 15, 15, 15, 15).Length;

    /// <summary>What each takes on average, and what it leaves to be collected.</summary>
    public static IEnumerable<(string What, double Microseconds, long Bytes)> Measure()
    {
        var config = ManualConfig
            .CreateEmpty()
            .AddJob(Job.ShortRun.WithToolchain(InProcessEmitToolchain.Instance))
            .AddLogger(NullLogger.Instance)
            .WithOptions(ConfigOptions.DisableLogFile)
            .AddDiagnoser(BenchmarkDotNet.Diagnosers.MemoryDiagnoser.Default);
        var summary = BenchmarkRunner.Run<Rules>(config);
        return summary.Reports.Select(report =>
            (
                report.BenchmarkCase.Descriptor.WorkloadMethodDisplayInfo.Trim('\''),
                report.ResultStatistics!.Mean / 1000,
                report.GcStats.GetBytesAllocatedPerOperation(report.BenchmarkCase) ?? 0
            )
        );
    }
}
