using System.Collections.Immutable;
using System.Numerics;

namespace Gesamt.Core.Reports;

/// <summary>How long one of a sample lasted.</summary>
/// <param name="Days">Whole days, 0 or more.</param>
/// <param name="Left">Whether it was over then; else it was only seen for so long.</param>
public readonly record struct Lasted(int Days, bool Left);

/// <summary>An exact share of a whole, in lowest terms.</summary>
public readonly record struct Share(BigInteger Of, BigInteger All)
{
    public static readonly Share Whole = new(1, 1);

    /// <summary>This much of <paramref name="of"/> out of <paramref name="all"/>.</summary>
    public Share Times(int of, int all)
    {
        var (top, bottom) = (Of * of, All * all);
        var common = BigInteger.GreatestCommonDivisor(top, bottom);
        return new(top / common, bottom / common);
    }

    public bool IsAtMostHalf => 2 * Of <= All;

    /// <summary>0 to 1, for drawing.</summary>
    public double Rough => Math.Exp(BigInteger.Log(Of) - BigInteger.Log(All));
}

/// <summary>A day on which some of a sample left.</summary>
/// <param name="AtRisk">How many had been there until then.</param>
/// <param name="Staying">The share that stays longer.</param>
public sealed record SurvivalStep(int Days, int AtRisk, int Left, Share Staying);

/// <summary>How a sample thins out.</summary>
/// <param name="Median">The least day by which at most half stay; null for not yet half.</param>
/// <param name="Longest">The longest any was seen; 0 for no sample.</param>
public sealed record Survival(ImmutableArray<SurvivalStep> Steps, int? Median, int Count, int Longest);

/// <summary>The share of a sample that stays longer than any time, where some are still there and count for as long as they were seen.</summary>
/// <remarks>
/// The product-limit estimate of E. L. Kaplan and P. Meier, “Nonparametric Estimation from Incomplete Observations”,
/// Journal of the American Statistical Association 53 (1958), 457–481. Who was seen no longer than a day was there when
/// others left on it.
/// </remarks>
public static class KaplanMeier
{
    public static Survival Of(IEnumerable<Lasted> sample)
    {
        var days = sample
            .GroupBy(one => one.Days)
            .OrderBy(same => same.Key)
            .Select(same => (Days: same.Key, All: same.Count(), Left: same.Count(one => one.Left)))
            .ToList();
        var count = days.Sum(day => day.All);
        var (atRisk, staying) = (count, Share.Whole);
        var steps = ImmutableArray.CreateBuilder<SurvivalStep>();
        foreach (var day in days)
        {
            if (day.Left > 0)
            {
                staying = staying.Times(atRisk - day.Left, atRisk);
                steps.Add(new(day.Days, atRisk, day.Left, staying));
            }
            atRisk -= day.All;
        }
        var median = steps.FirstOrDefault(step => step.Staying.IsAtMostHalf)?.Days;
        return new(steps.ToImmutable(), median, count, days.Count == 0 ? 0 : days[^1].Days);
    }
}
