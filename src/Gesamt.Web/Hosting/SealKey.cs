using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using NodaTime;

namespace Gesamt.Web.Hosting;

/// <summary>The studio's own key, with which its signed papers are sealed: made when it is first needed, kept beside the database in keys/seal.p12, and so in every backup.</summary>
/// <remarks>
/// The certificate is signed by nobody but itself and lies in each sealed file: it proves that nothing was changed since, and
/// that two papers were sealed by the same studio; who the studio is, it does not prove. One that has run out is put aside and a new
/// one made; what was sealed with it stays as valid as it was.
/// </remarks>
public sealed class SealKey(Settings settings, ILogger<SealKey> log)
{
    private const int Years = 15,
        RsaBits = 3072;
    private readonly Lock one = new();
    private X509Certificate2? key;

    private string Place => Path.Combine(settings.Keys, "seal.p12");

    /// <summary>The key to seal with now.</summary>
    public X509Certificate2 At(Instant now, string studio)
    {
        lock (one)
        {
            key ??= Load();
            if (key is not null && key.NotAfter.ToUniversalTime() <= now.ToDateTimeUtc())
            {
                PutAside(key.NotAfter.Year.ToString(System.Globalization.CultureInfo.InvariantCulture));
                key = null;
            }
            return key ??= Make(now, studio);
        }
    }

    private X509Certificate2? Load()
    {
        if (!File.Exists(Place))
            return null;
        try
        {
            return X509CertificateLoader.LoadPkcs12FromFile(Place, null);
        }
        catch (CryptographicException damaged)
        {
            log.LogError(damaged, "The key of the seal is damaged; it is put aside, and a new one is made");
            PutAside("damaged");
            return null;
        }
    }

    private void PutAside(string why) => File.Move(Place, $"{Place}.{why}", overwrite: true);

    private X509Certificate2 Make(Instant now, string studio)
    {
        using var rsa = RSA.Create(RsaBits);
        var name = new X500DistinguishedNameBuilder();
        name.AddCommonName(studio.Trim() is { Length: > 0 and <= 64 } whole ? whole : "A studio");
        name.AddOrganizationName("Sealed with Gesamt");
        var request = new CertificateRequest(name.Build(), rsa, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(
            new X509KeyUsageExtension(X509KeyUsageFlags.DigitalSignature | X509KeyUsageFlags.NonRepudiation, true)
        );
        // clocks differ, and the studio's may have been set ahead: who looks at once must not find it from the future
        var machine = Instant.FromDateTimeOffset(TimeProvider.System.GetUtcNow());
        var from = (machine < now ? machine : now).ToDateTimeOffset().AddDays(-1);
        using var made = request.CreateSelfSigned(from, from.AddYears(Years));
        Directory.CreateDirectory(settings.Keys);
        var bytes = made.Export(X509ContentType.Pkcs12);
        File.WriteAllBytes($"{Place}.new", bytes);
        File.Move($"{Place}.new", Place, overwrite: true);
        return X509CertificateLoader.LoadPkcs12(bytes, null);
    }
}
