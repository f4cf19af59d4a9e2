using System.Collections.Frozen;

namespace Gesamt.Core.Amounts;

/// <summary>The unit of a price in words: “130 per day”, “2 days”. Common units of creative work are known in both numbers; any other word stays as it was typed.</summary>
public static class UnitWords
{
    private static readonly FrozenDictionary<string, string> Many = new Dictionary<string, string>(
        StringComparer.OrdinalIgnoreCase
    )
    {
        ["minute"] = "minutes",
        ["hour"] = "hours",
        ["half day"] = "half days",
        ["day"] = "days",
        ["night"] = "nights",
        ["week"] = "weeks",
        ["month"] = "months",
        ["year"] = "years",
        ["piece"] = "pieces",
        ["item"] = "items",
        ["set"] = "sets",
        ["copy"] = "copies",
        ["print"] = "prints",
        ["page"] = "pages",
        ["spread"] = "spreads",
        ["word"] = "words",
        ["letter"] = "letters",
        ["line"] = "lines",
        ["board"] = "boards",
        ["sign"] = "signs",
        ["wall"] = "walls",
        ["room"] = "rooms",
        ["window"] = "windows",
        ["metre"] = "metres",
        ["square metre"] = "square metres",
        ["kilometre"] = "kilometres",
        ["draft"] = "drafts",
        ["round"] = "rounds",
        ["session"] = "sessions",
        ["picture"] = "pictures",
        ["photograph"] = "photographs",
        ["illustration"] = "illustrations",
        ["drawing"] = "drawings",
        ["person"] = "people",
        ["guest"] = "guests",
        ["household"] = "households",
    }.ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);

    private static readonly FrozenDictionary<string, string> Single = Many.ToFrozenDictionary(
        pair => pair.Value,
        pair => pair.Key,
        StringComparer.OrdinalIgnoreCase
    );

    /// <summary>As it stands after “per”.</summary>
    public static string One(string unit) => Single.GetValueOrDefault(unit, unit);

    /// <summary>As it stands after a number that is not one.</summary>
    public static string Several(string unit) => Many.GetValueOrDefault(unit, unit);

    /// <summary>“2 days”, “1 day”, “1.5 hours”, “24 m²”; the number alone where there is no unit.</summary>
    public static string Counted(decimal quantity, string unit) =>
        unit.Length == 0 ? NumberText.Number(quantity)
        : quantity == 1 ? $"1 {One(unit)}"
        : $"{NumberText.Number(quantity)} {Several(unit)}";
}
