using Gesamt.Core.Forms;

namespace Gesamt.Core.Projects;

/// <summary>How long the words at a project's head may be, in characters: as long as a visitor's own, so that what came in can be kept again.</summary>
public static class HeadLimits
{
    public const int Title = FormRule.ShortLength,
        Source = FormRule.ShortLength,
        Campaign = FormRule.ShortLength;
}
