using System.Globalization;
using System.Text;
using Gesamt.Core.Amounts;
using QRCoder;

namespace Gesamt.Formats.Invoices;

/// <summary>The QR code by which a bank's app fills in a transfer in euro (European Payments Council, EPC069-12, version 002).</summary>
public static class EpcCode
{
    /// <summary>Modules of the light zone around it.</summary>
    public const int Quiet = 4;

    private const int MostName = 70,
        MostBytes = 331;

    /// <summary>What the code holds, a line each; null where it cannot be made: another currency than the euro, no valid account, or an amount beyond 0.01 to 999 999 999.99.</summary>
    /// <param name="reference">ISO 11649.</param>
    public static string? Text(string name, string iban, string bic, Money amount, string reference)
    {
        if (
            amount.Currency != Currency.Eur
            || !Iban.IsValid(iban)
            || name.Trim().Length == 0
            || amount.Minor is < 1 or > 99_999_999_999
        )
            return null;
        var text = string.Join(
            '\n',
            "BCD",
            "002",
            "1", // UTF-8
            "SCT",
            bic.Trim(),
            OneLine(name, MostName),
            Iban.Plain(iban),
            $"EUR{amount.Major.ToString("0.00", CultureInfo.InvariantCulture)}",
            "", // the purpose, which is free to be left out
            CreditorReference.Plain(reference)
        );
        return Encoding.UTF8.GetByteCount(text) <= MostBytes ? text : null;
    }

    /// <summary>Its modules, dark ones true, row by row, without the quiet zone of four modules that must stand around it.</summary>
    /// <remarks>Error correction M, as the guideline asks; it stays within version 13.</remarks>
    public static bool[][] Modules(string text)
    {
        using var generator = new QRCodeGenerator();
        using var code = generator.CreateQrCode(text, QRCodeGenerator.ECCLevel.M, forceUtf8: true);
        var size = code.ModuleMatrix.Count - 2 * Quiet;
        return
        [
            .. code
                .ModuleMatrix.Skip(Quiet)
                .Take(size)
                .Select(row => row.Cast<bool>().Skip(Quiet).Take(size).ToArray()),
        ];
    }

    /// <summary>Its dark modules as the path of an SVG picture, one unit each, moved in by the quiet zone.</summary>
    public static string Path(bool[][] modules)
    {
        var path = new StringBuilder();
        for (var row = 0; row < modules.Length; row++)
        for (var column = 0; column < modules.Length; column++)
        {
            var from = column;
            while (column < modules.Length && modules[row][column])
                column++;
            if (column > from)
                path.Append(
                    CultureInfo.InvariantCulture,
                    $"M{from + Quiet} {row + Quiet}h{column - from}v1h-{column - from}z"
                );
        }
        return path.ToString();
    }

    private static string OneLine(string text, int most)
    {
        var plain = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        var end = Math.Min(plain.Length, most);
        // a letter of two halves is not cut through
        return plain[..(end < plain.Length && char.IsHighSurrogate(plain[end - 1]) ? end - 1 : end)];
    }
}
