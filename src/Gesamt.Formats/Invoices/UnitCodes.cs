using System.Collections.Frozen;
using Gesamt.Core.Amounts;

namespace Gesamt.Formats.Invoices;

/// <summary>Units by the codes of UN/ECE recommendation 20, as EN 16931 asks for them (BT-130).</summary>
public static class UnitCodes
{
    /// <summary>One of a thing without a unit of its own.</summary>
    public const string One = "C62";

    private static readonly FrozenDictionary<string, string> Codes = new Dictionary<string, string>(
        StringComparer.OrdinalIgnoreCase
    )
    {
        ["minute"] = "MIN",
        ["hour"] = "HUR",
        ["day"] = "DAY",
        ["week"] = "WEE",
        ["month"] = "MON",
        ["year"] = "ANN",
        ["piece"] = "H87",
        ["item"] = "H87",
        ["set"] = "SET",
        ["page"] = "ZP",
        ["metre"] = "MTR",
        ["m"] = "MTR",
        ["cm"] = "CMT",
        ["square metre"] = "MTK",
        ["m²"] = "MTK",
        ["m2"] = "MTK",
        ["sqm"] = "MTK",
        ["kilometre"] = "KMT",
        ["km"] = "KMT",
        ["kg"] = "KGM",
        ["litre"] = "LTR",
        ["person"] = "IE",
    }.ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);

    /// <summary>The code of a unit as it is typed, in either number; one of a thing for any other word.</summary>
    public static string Of(string unit) => Codes.GetValueOrDefault(UnitWords.One(unit.Trim()), One);
}
