using System.Security.Cryptography;
using System.Text;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using OtpNet;
using QRCoder;

namespace Gesamt.Web.SignIn;

/// <param name="On">Whether a code is asked for at every sign-in.</param>
/// <param name="RecoveryLeft">Recovery codes not used yet.</param>
public sealed record CodesDto(bool On, int RecoveryLeft);

/// <summary>A secret not in use yet.</summary>
/// <param name="Secret">In Base32 (RFC 4648), for typing.</param>
/// <param name="Picture">The same as an address of otpauth in a QR code, as a data address of an SVG.</param>
public sealed record NewCodesDto(string Secret, string Picture);

/// <summary>The secret that was shown, and a code made with it.</summary>
public sealed record TurnOnCodesDto(string Secret, string Code);

/// <param name="Recovery">Shown once, never again.</param>
public sealed record RecoveryDto(IReadOnlyList<string> Recovery);

/// <summary>The password, asked once more.</summary>
public sealed record TurnOffCodesDto(string Password);

/// <summary>One-time codes by time (TOTP, RFC 6238) as a second key to the owner's door, and recovery codes for the day the telephone is lost.</summary>
public static class OneTimeCodes
{
    private const int RecoveryCount = 10,
        SecretBytes = 20;

    // one step before and after: clocks differ (RFC 6238, 5.2)
    private static readonly VerificationWindow Window = new(previous: 1, future: 1);

    public static void MapCodes(this RouteGroupBuilder api)
    {
        api.MapGet("/codes", async (Desk desk) => Of(await desk.Db.Studio.AsNoTracking().SingleAsync()));
        api.MapPost(
            "/codes/new",
            (Desk desk) =>
            {
                var secret = Base32Encoding.ToString(KeyGeneration.GenerateRandomKey(SecretBytes));
                var uri = new OtpUri(OtpType.Totp, secret, desk.Studio.Owner, $"Gesamt, {desk.Studio.Name}").ToString();
                var svg = new SvgQRCode(QRCodeGenerator.GenerateQrCode(uri, QRCodeGenerator.ECCLevel.M)).GetGraphic(4);
                return new NewCodesDto(
                    secret,
                    $"data:image/svg+xml;base64,{Convert.ToBase64String(Encoding.UTF8.GetBytes(svg))}"
                );
            }
        );
        api.MapPost(
            "/codes/on",
            async (TurnOnCodesDto turn, Desk desk, IDataProtectionProvider protection) =>
                await TurnOnAsync(desk, protection, turn)
        );
        api.MapPost(
            "/codes/off",
            async (TurnOffCodesDto turn, Desk desk, IPasswordHasher<StudioRow> hasher) =>
            {
                var studio = await desk.Db.Studio.SingleAsync();
                if (
                    hasher.VerifyHashedPassword(studio, studio.PasswordHash!, turn.Password)
                    == PasswordVerificationResult.Failed
                )
                    throw new InvalidException(("password", "The password is not right."));
                (studio.CodeSecret, studio.CodeStep, studio.RecoveryCodes) = (null, 0, "");
                await desk.Db.SaveChangesAsync();
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>Whether a code opens now. Each opens once; a recovery code is used up by it.</summary>
    /// <param name="studio">Tracked; saved by the caller.</param>
    public static bool Opens(StudioRow studio, string code, IDataProtectionProvider protection, DateTime now)
    {
        var plain = Plain(code);
        if (
            studio.RecoveryCodes.Split('\n', StringSplitOptions.RemoveEmptyEntries) is var left
            && left.Contains(HashOf(plain))
        )
        {
            studio.RecoveryCodes = string.Join('\n', left.Where(hash => hash != HashOf(plain)));
            return true;
        }
        if (
            SecretOf(studio, protection) is not { } secret
            || !new Totp(secret).VerifyTotp(now, plain, out var step, Window)
            || step <= studio.CodeStep
        )
            return false;
        studio.CodeStep = step;
        return true;
    }

    private static async Task<RecoveryDto> TurnOnAsync(
        Desk desk,
        IDataProtectionProvider protection,
        TurnOnCodesDto turn
    )
    {
        var studio = await desk.Db.Studio.SingleAsync();
        if (studio.CodeSecret is not null)
            throw new RefusedException("One-time codes are on already. Turn them off first to use another secret.");
        byte[] secret;
        try
        {
            secret = Base32Encoding.ToBytes(turn.Secret);
        }
        catch (ArgumentException)
        {
            secret = [];
        }
        if (secret.Length < SecretBytes)
            throw new InvalidException(("secret", "Begin again: this secret is not one that was made here."));
        // proven before it is asked for, so that nobody shuts themselves out
        if (!new Totp(secret).VerifyTotp(desk.Now.ToDateTimeUtc(), Plain(turn.Code), out var step, Window))
            throw new InvalidException(
                ("code", "This is not the code of this moment. Type the six digits your telephone shows now.")
            );
        var recovery = Enumerable
            .Range(0, RecoveryCount)
            .Select(_ => RandomNumberGenerator.GetString("abcdefghjkmnpqrstuvwxyz23456789", 10))
            .ToList();
        studio.CodeSecret = Protector(protection).Protect(Convert.ToBase64String(secret));
        (studio.CodeStep, studio.RecoveryCodes) = (step, string.Join('\n', recovery.Select(HashOf)));
        await desk.Db.SaveChangesAsync();
        return new([.. recovery.Select(code => $"{code[..5]}-{code[5..]}")]);
    }

    private static byte[]? SecretOf(StudioRow studio, IDataProtectionProvider protection)
    {
        try
        {
            return studio.CodeSecret is { } kept
                ? Convert.FromBase64String(Protector(protection).Unprotect(kept))
                : null;
        }
        catch (CryptographicException)
        {
            return null; // its key is lost: a recovery code opens
        }
    }

    private static CodesDto Of(StudioRow studio) =>
        new(
            studio.CodeSecret is not null,
            studio.RecoveryCodes.Split('\n', StringSplitOptions.RemoveEmptyEntries).Length
        );

    private static string Plain(string code) => new([.. code.ToLowerInvariant().Where(char.IsAsciiLetterOrDigit)]);

    private static string HashOf(string code) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(code)));

    private static IDataProtector Protector(IDataProtectionProvider protection) =>
        protection.CreateProtector("one-time codes");
}
