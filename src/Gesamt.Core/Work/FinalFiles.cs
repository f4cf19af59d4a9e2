using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;

namespace Gesamt.Core.Work;

/// <summary>Final files of a kind that hands them over only once everything is paid.</summary>
public static class FinalFiles
{
    /// <summary>What must still come in before the client can open them; null where nothing holds them back.</summary>
    /// <remarks>What is still to be invoiced of the agreed price counts with what is open.</remarks>
    public static Money? WaitFor(Case project)
    {
        if (!project.Kind.FinalsWait)
            return null;
        var history = project.History;
        var open = Owed.Open(history).Select(one => one.Owed).ToList();
        var toCome = Billing.Planned(project).Select(planned => planned.Amount).ToList();
        return open.Concat(toCome).ToList() is [var first, ..] all ? all.Sum(first.Currency) : null;
    }

    /// <summary>Whether a file of a group can be opened.</summary>
    public static bool IsOpen(Case project, FileGroup group) => group != FileGroup.Final || WaitFor(project) is null;
}
