using System.Collections.Immutable;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Gesamt.Core.Amounts;
using NodaTime;

namespace Gesamt.Core.Banking;

/// <summary>A line of a bank statement as the bank gave it.</summary>
/// <param name="Amount">Money in is positive, money out negative.</param>
/// <param name="Party">Whoever paid, or was paid.</param>
/// <param name="Text">What stands with it, in the payer's words.</param>
/// <param name="Reference">A structured reference (ISO 11649); empty for none.</param>
/// <param name="BankReference">The bank's own reference of the line; empty for none.</param>
public sealed record BankLine(
    LocalDate On,
    Money Amount,
    string Party,
    string Text,
    string Reference = "",
    string BankReference = ""
);

/// <summary>A statement of one account.</summary>
/// <param name="Account">IBAN, or the number the bank writes; empty where the file names none.</param>
public sealed record BankStatement(string Account, ImmutableArray<BankLine> Lines);

/// <summary>By what a line is known again, in whatever file it comes: the same file twice brings nothing twice.</summary>
public static class BankLineKey
{
    /// <summary>The key of each line in its order: account and the bank's own reference; without one, account, day, amount and text, with its number among equal lines of that statement.</summary>
    public static ImmutableArray<string> Of(BankStatement statement)
    {
        Dictionary<string, int> seen = [];
        return
        [
            .. statement.Lines.Select(line =>
            {
                if (line.BankReference.Length > 0)
                    return Hash($"{statement.Account}\n{line.BankReference}");
                var plain = string.Create(
                    CultureInfo.InvariantCulture,
                    $"{statement.Account}\n{line.On:uuuu-MM-dd}\n{line.Amount.Minor} {line.Amount.Currency.Code}\n{line.Party}\n{line.Text}\n{line.Reference}"
                );
                var number = seen[plain] = seen.GetValueOrDefault(plain) + 1;
                return Hash(string.Create(CultureInfo.InvariantCulture, $"{plain}\n{number}"));
            }),
        ];
    }

    // what strangers wrote on a transfer is of any length
    private static string Hash(string plain) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(plain)));
}
