using System.Diagnostics;
using System.Globalization;
using Gesamt.Core.Reports;

namespace Gesamt.Core.Tests.Reports;

/// <summary>The estimate beside that of the package “survival” for R (T. Therneau), over samples of many shapes.</summary>
public sealed class SurvivalPackageTests
{
    [Fact]
    public void Every_step_and_median_is_that_of_the_statistics_package()
    {
        var random = new Random(1958);
        List<Lasted[]> samples =
        [
            [new(0, true)],
            [new(5, false), new(9, false)],
            .. Enumerable
                .Range(0, 40)
                .Select(i =>
                    Enumerable
                        .Range(0, 1 + random.Next(i < 20 ? 12 : 200))
                        // few days, so that many leave together; shares of those still there from none to most
                        .Select(_ => new Lasted(random.Next(i % 2 == 0 ? 8 : 400), random.Next(10) >= i % 9))
                        .ToArray()
                ),
        ];
        var told = Told(samples);
        Assert.Equal(samples.Count, told.Count);
        foreach (var (sample, (steps, median)) in samples.Zip(told))
        {
            var ours = KaplanMeier.Of(sample);
            Assert.Equal(
                steps.Select(step => (step.Days, step.AtRisk, step.Left)),
                ours.Steps.Select(step => (step.Days, step.AtRisk, step.Left))
            );
            foreach (var (step, own) in steps.Zip(ours.Steps))
                Assert.Equal(step.Share, own.Staying.Of.IsZero ? 0 : own.Staying.Rough, tolerance: 1e-9);
            // where exactly half stay for a while, the package names the middle of that while, and we its beginning
            if (ours.Steps.All(step => 2 * step.Staying.Of != step.Staying.All))
                Assert.Equal(median, ours.Median);
        }
        Assert.Contains(told, one => one.Median is null);
        Assert.Contains(told, one => one.Median is not null);
    }

    private sealed record StepTold(int Days, int AtRisk, int Left, double Share);

    private const string Script = """
        library(survival)
        input <- read.csv(file("stdin"))
        for (part in split(input, input$sample)) {
          fit <- survfit(Surv(days, left) ~ 1, data = part)
          cat("median", summary(fit)$table[["median"]], "\n")
          at <- fit$n.event > 0
          cat(sprintf("%d %d %d %.15g\n", as.integer(fit$time[at]), as.integer(fit$n.risk[at]), as.integer(fit$n.event[at]), fit$surv[at]), sep = "")
        }
        """;

    private static List<(List<StepTold> Steps, int? Median)> Told(List<Lasted[]> samples)
    {
        using var process = Process.Start(
            new ProcessStartInfo("Rscript", ["--vanilla", "-e", Script])
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        process.StandardInput.WriteLine("sample,days,left");
        for (var i = 0; i < samples.Count; i++)
            foreach (var one in samples[i])
                process.StandardInput.WriteLine($"{i},{one.Days},{(one.Left ? 1 : 0)}");
        process.StandardInput.Close();
        var trouble = process.StandardError.ReadToEndAsync();
        List<(List<StepTold> Steps, int? Median)> told = [];
        while (process.StandardOutput.ReadLine() is { } line)
        {
            var words = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (words[0] == "median")
                told.Add(([], words[1] == "NA" ? null : (int)double.Parse(words[1], CultureInfo.InvariantCulture)));
            else
                told[^1]
                    .Steps.Add(
                        new(
                            int.Parse(words[0], CultureInfo.InvariantCulture),
                            int.Parse(words[1], CultureInfo.InvariantCulture),
                            int.Parse(words[2], CultureInfo.InvariantCulture),
                            double.Parse(words[3], CultureInfo.InvariantCulture)
                        )
                    );
        }
        process.WaitForExit();
        Assert.True(process.ExitCode == 0, trouble.Result);
        return told;
    }
}
