using System.Globalization;
using Gesamt.Core.Amounts;
using Gesamt.Formats.Tables;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Hosting;

/// <summary>Tables that are handed out (CSV, RFC 4180), and how their cells are written: for a table program, not for reading.</summary>
public static class TableFile
{
    /// <summary>A table as a file, under a name without its ending.</summary>
    public static FileContentHttpResult Of(byte[] table, string name) =>
        TypedResults.File(table, "text/csv; charset=utf-8", $"{name}.csv");

    /// <inheritdoc cref="Of(byte[], string)"/>
    public static FileContentHttpResult Of(
        string name,
        IReadOnlyList<string> headings,
        IEnumerable<IReadOnlyList<string>> rows
    ) => Of(Csv.Write(headings, rows), name);

    /// <summary>By ISO 8601; empty for none.</summary>
    public static string Day(LocalDate? day) => day is { } known ? LocalDatePattern.Iso.Format(known) : "";

    /// <summary>“6642.00”: with all decimals of its currency, without its sign and thousands.</summary>
    public static string Amount(Money money) =>
        money.Major.ToString("F" + money.Currency.Exponent, CultureInfo.InvariantCulture);

    /// <summary>“2.5”.</summary>
    public static string Number(decimal number) => number.ToString("0.####", CultureInfo.InvariantCulture);

    public static string YesNo(bool yes) => yes ? "yes" : "no";
}
