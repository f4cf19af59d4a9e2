using Gesamt.Core;
using Gesamt.Store.Model;

namespace Gesamt.Web.Letters;

/// <summary>Which of the studio's letters a project of a kind writes with.</summary>
public static class OfKind
{
    /// <summary>The letter of a key for a kind, at most two rows: the kind's own first, then the one that all share.</summary>
    public static IQueryable<LetterTemplateRow> For(
        this IQueryable<LetterTemplateRow> letters,
        KindId kind,
        string key
    ) =>
        letters
            .Where(t => t.Key == key && (t.KindId == null || (t.KindId == kind && !t.Removed)))
            .OrderBy(t => t.KindId == null);
}
