using NodaTime;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Writer;

namespace Gesamt.Formats.Pdf;

/// <summary>Puts the studio's own pages behind a PDF of the owner's.</summary>
public static class PdfJoin
{
    private const int MostPages = 300;

    /// <summary>Why a PDF cannot be the contract itself; null when it can.</summary>
    public static string? WhyNot(byte[] pdf)
    {
        try
        {
            using var document = PdfDocument.Open(pdf);
            if (document.IsEncrypted)
                return "This PDF is encrypted. Keep it without a password, and choose it again.";
            if (document.NumberOfPages is 0 or > MostPages)
                return $"A contract has 1 to {MostPages} pages; this PDF has {document.NumberOfPages}.";
            Joined(pdf, pdf);
            return null;
        }
        // a stranger's file fails in any of its parser's own ways; what they are is not promised
        catch (Exception e) when (e is not (OutOfMemoryException or OperationCanceledException))
        {
            return "This PDF cannot be read. Save it anew as a plain PDF, and choose it again.";
        }
    }

    /// <summary>All pages of the one, then all of the other, as one document.</summary>
    public static byte[] Behind(byte[] first, byte[] own, string title, Instant at)
    {
        var update = new PdfUpdate(Joined(first, own));
        update.Add(update.Root, "/Lang(en)");
        update.Inform(title, at);
        return update.Write().File;
    }

    private static byte[] Joined(byte[] first, byte[] second) => PdfMerger.Merge([first, second]);
}
