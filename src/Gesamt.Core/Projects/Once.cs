using System.Runtime.CompilerServices;

namespace Gesamt.Core.Projects;

/// <summary>What a rule finds in a project, worked out once for each <see cref="Case"/>: one never changes, and the rules build on one another.</summary>
/// <remarks>Held by the case itself: nothing is kept of one that nobody looks at any more, and a changed copy is another case.</remarks>
internal sealed class Once<T>(Func<Case, T> rule)
{
    private readonly ConditionalWeakTable<Case, StrongBox<T>> known = [];

    public T Of(Case project) => known.GetValue(project, one => new(rule(one))).Value!;
}
