using System.Security.Cryptography;
using System.Text;

namespace Gesamt.Web.Letters;

/// <summary>The Message-ID of a letter whose writer was erased: it says no domain of theirs any more, and the same letter is still known where the mailbox gives it again.</summary>
public static class UnnamedMessageId
{
    public static string Of(string messageId) =>
        $"{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(messageId)))}@erased.invalid";
}
