using System.Buffers.Binary;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Access;

/// <summary>Codes of six digits that are sent to somebody's mail address before they sign. They are worked out from their row with a key that lies outside the database, and kept nowhere.</summary>
public sealed partial class SignCodes(KeyRing ring)
{
    /// <summary>Stands in a stored letter for the code; it is put in when the letter is handed over.</summary>
    public static string PlaceholderOf(SignCodeRow row) =>
        string.Create(CultureInfo.InvariantCulture, $"⟦code {row.Id}⟧");

    /// <summary>Which code a text stands in for; null for none.</summary>
    public static int? MentionedIn(string text) =>
        Placeholder().Match(text) is { Success: true } found
            ? int.Parse(found.Groups[1].Value, CultureInfo.InvariantCulture)
            : null;

    /// <summary>A stored text as it is read in the house, where nobody sees the code.</summary>
    public static string Hidden(string text) => Placeholder().Replace(text, "(a code of six digits)");

    /// <summary>“042917”.</summary>
    public string CodeOf(SignCodeRow row)
    {
        var key = ring.LinksKey ?? throw new RefusedException(KeyRing.NoLinks);
        var mac = HMACSHA256.HashData(
            key,
            Encoding.UTF8.GetBytes($"code:{row.VersionId.Value}:{row.PersonId.Value}:{row.Seed}")
        );
        return (BinaryPrimitives.ReadUInt32BigEndian(mac) % 1_000_000).ToString("D6", CultureInfo.InvariantCulture);
    }

    /// <summary>Whether it is what was typed; blanks between the digits do not matter.</summary>
    public bool Is(SignCodeRow row, string typed) =>
        CryptographicOperations.FixedTimeEquals(
            Encoding.UTF8.GetBytes(string.Concat(typed.Where(char.IsAsciiDigit))),
            Encoding.UTF8.GetBytes(CodeOf(row))
        );

    [GeneratedRegex(@"⟦code (\d{1,9})⟧")]
    private static partial Regex Placeholder();
}
