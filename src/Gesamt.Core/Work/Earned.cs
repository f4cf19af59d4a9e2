using Gesamt.Core.Amounts;

namespace Gesamt.Core.Work;

/// <summary>What an hour of a project earns.</summary>
public static class Earned
{
    /// <summary>(agreed net − direct costs) / hours; null without hours, which is no figure and not zero.</summary>
    /// <param name="net">Agreed, without tax.</param>
    /// <param name="costs">What the work cost, without tax; what the client pays besides is none of it.</param>
    /// <param name="minutes">Worked so far, or with what is still to do.</param>
    public static Money? PerHour(Money net, Money costs, int minutes) =>
        minutes <= 0 ? null : Money.Of((net - costs).Major * 60 / minutes, net.Currency);
}
