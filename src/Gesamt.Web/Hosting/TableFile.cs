using System.Globalization;
using Gesamt.Formats.Tables;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Web.Hosting;

/// <summary>Tables that are handed in and out (CSV, RFC 4180), and how the cells of those that go out are written: for a table program, not for reading. Amounts are <see cref="Core.Amounts.MoneyText.Exact"/>.</summary>
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

    /// <summary>“2.5”.</summary>
    public static string Number(decimal number) => number.ToString("0.####", CultureInfo.InvariantCulture);

    /// <summary>A table that was handed in.</summary>
    /// <exception cref="InvalidException">It is none, or too large.</exception>
    public static TableText Read(byte[] bytes)
    {
        try
        {
            return TableText.Read(bytes);
        }
        catch (FormatException e)
        {
            throw new InvalidException(("file", e.Message));
        }
    }

    public static string YesNo(bool yes) => yes ? "yes" : "no";
}
