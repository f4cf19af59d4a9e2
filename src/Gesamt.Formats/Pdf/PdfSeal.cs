using System.Formats.Asn1;
using System.Globalization;
using System.Security.Cryptography;
using System.Security.Cryptography.Pkcs;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>Seals a PDF: an invisible signature over all of it (ISO 32000-1, 12.8), CAdES in a detached CMS with the signing certificate named (ETSI EN 319 142-1, baseline B).</summary>
public static class PdfSeal
{
    // room for the CMS with its certificate
    private const int Room = 8192;
    private const string Sha256 = "2.16.840.1.101.3.4.2.1",
        SigningCertificateV2 = "1.2.840.113549.1.9.16.2.47";

    /// <summary>The sealed file. Whatever is changed in it or added to it later, any reader of signatures tells.</summary>
    /// <param name="reason">Said with the signature.</param>
    /// <exception cref="NotSupportedException">The PDF has no classic cross-reference table.</exception>
    public static byte[] Seal(byte[] pdf, X509Certificate2 certificate, string reason, Instant at)
    {
        var update = new PdfUpdate(pdf);
        var (signature, field, page) = (update.New(), update.New(), update.FirstPage);
        update.Put(
            signature,
            $"<</Type/Sig/Filter/Adobe.PPKLite/SubFilter/ETSI.CAdES.detached/M({Date(at)})/Reason{PdfUpdate.Text(reason)}/ByteRange[0 {Empty} {Empty} {Empty}]/Contents<{new string('0', Room * 2)}>>>"
        );
        update.Put(
            field,
            $"<</Type/Annot/Subtype/Widget/FT/Sig/T(Seal)/F 132/Rect[0 0 0 0]/P {page} 0 R/V {signature} 0 R>>"
        );
        update.Add(update.Root, $"/AcroForm<</SigFlags 3/Fields[{field} 0 R]>>");
        Annotate(update, page, field);
        var (file, places) = update.Write();
        return Signed(file, places[signature], certificate);
    }

    private const string Empty = "0000000000";

    private static string Date(Instant at) =>
        at.ToDateTimeUtc().ToString("'D:'yyyyMMddHHmmss'Z'", CultureInfo.InvariantCulture);

    /// <summary>Beside the notes the page has, such as links.</summary>
    private static void Annotate(PdfUpdate update, int page, int field)
    {
        var dictionary = update.Dictionary(page);
        var notes = dictionary.IndexOf("/Annots", StringComparison.Ordinal);
        if (notes < 0)
            update.Add(page, $"/Annots[{field} 0 R]");
        else
            update.Put(page, dictionary.Insert(dictionary.IndexOf('[', notes) + 1, $"{field} 0 R "));
    }

    /// <summary>Signs everything but the place the signature itself is written into.</summary>
    private static byte[] Signed(byte[] file, int signature, X509Certificate2 certificate)
    {
        var contents = Find(file, "/Contents<", signature) + "/Contents".Length;
        var after = contents + 2 + Room * 2;
        var range = Find(file, "/ByteRange[", signature) + "/ByteRange[".Length;
        Put(file, range, $"0 {contents:D10} {after:D10} {file.Length - after:D10}");
        var cms = Cms([.. file.AsSpan(0, contents), .. file.AsSpan(after)], certificate);
        if (cms.Length > Room)
            throw new InvalidOperationException($"The signature has {cms.Length} bytes; there is room for {Room}.");
        Put(file, contents + 1, Convert.ToHexString(cms));
        return file;
    }

    private static byte[] Cms(byte[] content, X509Certificate2 certificate)
    {
        var cms = new SignedCms(new ContentInfo(content), detached: true);
        var signer = new CmsSigner(SubjectIdentifierType.IssuerAndSerialNumber, certificate)
        {
            DigestAlgorithm = new Oid(Sha256),
            IncludeOption = X509IncludeOption.EndCertOnly,
        };
        // ESSCertIDv2 of RFC 5035, its hash SHA-256 by default
        var named = new AsnWriter(AsnEncodingRules.DER);
        using (named.PushSequence())
        using (named.PushSequence())
        using (named.PushSequence())
            named.WriteOctetString(SHA256.HashData(certificate.RawData));
        signer.SignedAttributes.Add(new AsnEncodedData(new Oid(SigningCertificateV2), named.Encode()));
        cms.ComputeSignature(signer);
        return cms.Encode();
    }

    private static int Find(byte[] file, string words, int from) =>
        from + file.AsSpan(from).IndexOf(Encoding.Latin1.GetBytes(words));

    private static void Put(byte[] file, int at, string words) =>
        Encoding.Latin1.GetBytes(words).CopyTo(file.AsSpan(at));
}
