using System.Security.Cryptography;

namespace Gesamt.Web.Hosting;

/// <summary>Names that nobody can guess, for addresses that strangers see.</summary>
public static class Codes
{
    /// <summary>Ten letters and digits that survive being read aloud.</summary>
    public static string New() => RandomNumberGenerator.GetString("abcdefghjkmnpqrstuvwxyz23456789", 10);
}
