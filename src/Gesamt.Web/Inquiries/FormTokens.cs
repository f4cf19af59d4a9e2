using System.Globalization;
using System.Security.Cryptography;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.DataProtection;
using NodaTime;

namespace Gesamt.Web.Inquiries;

/// <summary>Tokens of public forms: made here, for one form, not long ago. Each holds a key by which a form that is sent twice is received once.</summary>
public sealed class FormTokens(IDataProtectionProvider protection, TimeProvider time)
{
    private static readonly Duration Longest = Duration.FromDays(7);

    public string New(string slug) =>
        Protector(slug)
            .Protect(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{Codes.New()}{Codes.New()} {time.Now().ToUnixTimeSeconds()}"
                )
            );

    /// <summary>The key in a token; null when it is none of this form's, or too old.</summary>
    public string? KeyOf(string slug, string? token)
    {
        try
        {
            var parts = Protector(slug).Unprotect(token ?? "").Split(' ');
            var made = Instant.FromUnixTimeSeconds(long.Parse(parts[1], CultureInfo.InvariantCulture));
            return time.Now() - made <= Longest ? parts[0] : null;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }

    private IDataProtector Protector(string slug) => protection.CreateProtector("form", slug);
}
