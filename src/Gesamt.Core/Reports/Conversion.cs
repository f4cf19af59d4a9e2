using Gesamt.Core.Facts;

namespace Gesamt.Core.Reports;

/// <summary>How many of those that came to a point and are decided there went on.</summary>
public static class Conversion
{
    /// <summary>went on / (went on + lost or gone quiet), in whole per cent, half upwards. The studio's own no, a referral and what was cancelled are no losses, nor is what is still open. Null where nothing is decided.</summary>
    /// <param name="wentOn">0 or more.</param>
    /// <param name="ended">Why the others that ended there did.</param>
    public static int? Percent(int wentOn, IEnumerable<EndReason> ended)
    {
        var decided = wentOn + ended.Count(reason => reason is EndReason.Lost or EndReason.GoneQuiet);
        return decided == 0 ? null : (200 * wentOn + decided) / (2 * decided);
    }
}
