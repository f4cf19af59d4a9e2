using System.Globalization;
using System.Security.Cryptography;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>A file inside a PDF that says the same as its pages (ISO 32000-1, 7.11.4; its relation as in ISO 32000-2, 14.13).</summary>
public static class PdfAttachment
{
    /// <summary>The PDF with the file in it; its pages stay byte for byte.</summary>
    /// <param name="name">As readers show it, in ASCII.</param>
    /// <param name="type">Its media type, such as text/xml.</param>
    /// <exception cref="NotSupportedException">The PDF has no classic cross-reference table.</exception>
    public static byte[] Attach(byte[] pdf, string name, byte[] content, string type, string description, Instant at)
    {
        var update = new PdfUpdate(pdf);
        var (file, place) = (update.New(), update.New());
        var date = at.ToDateTimeUtc().ToString("'D:'yyyyMMddHHmmss'Z'", CultureInfo.InvariantCulture);
        // the checksum of an embedded file is by the standard an MD5, to find damage and nothing else
#pragma warning disable CA5351
        var sum = Convert.ToHexString(MD5.HashData(content));
#pragma warning restore CA5351
        update.Put(
            file,
            $"<</Type/EmbeddedFile/Subtype/{type.Replace("/", "#2F", StringComparison.Ordinal)}/Length {content.Length}/Params<</Size {content.Length}/ModDate({date})/CheckSum<{sum}>>>>>\nstream\n",
            content,
            "\nendstream"
        );
        update.Put(
            place,
            $"<</Type/Filespec/F({name})/UF({name})/Desc{PdfUpdate.Text(description)}/AFRelationship/Alternative/EF<</F {file} 0 R/UF {file} 0 R>>>>"
        );
        update.Add(update.Root, $"/Names<</EmbeddedFiles<</Names[({name}) {place} 0 R]>>>>/AF[{place} 0 R]");
        return update.Write().File;
    }
}
