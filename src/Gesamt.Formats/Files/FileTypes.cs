using System.Text;

namespace Gesamt.Formats.Files;

/// <summary>A kind of file that is kept: what its bytes say it is, whatever its name claims.</summary>
/// <param name="MediaType">As registered with IANA.</param>
/// <param name="Ending">The usual ending of its name, with the dot.</param>
public sealed record FileType(string MediaType, string Ending, bool IsPicture);

/// <summary>How a page can show a file in its own place.</summary>
public enum FileLook
{
    Nothing,
    Picture,
    Film,
    Sound,

    /// <summary>Page by page.</summary>
    Pages,

    /// <summary>The words of a document, with their headings and tables.</summary>
    Document,

    /// <summary>Sheets of cells.</summary>
    Sheets,

    /// <summary>As it is written.</summary>
    Text,
}

/// <summary>Tells kinds of files by their first bytes, as the WHATWG MIME Sniffing Standard and the formats' own documents give them.</summary>
public static class FileTypes
{
    /// <summary>Bytes that are enough to tell.</summary>
    public const int HeadLength = 512;

    /// <summary>What is kept, in words for a refusal.</summary>
    public const string Allowed =
        "pictures (PNG, JPEG, GIF, WebP, TIFF, HEIC, AVIF, Photoshop), PDF, PostScript, plain text, CSV, ZIP, documents and tables of office programs, films (MP4, MOV, WebM, AVI), sound (MP3, WAV, AIFF, FLAC, Ogg) and fonts";

    private static readonly Dictionary<string, FileType> OfficeByEnding = new(StringComparer.OrdinalIgnoreCase)
    {
        [".docx"] = new("application/vnd.openxmlformats-officedocument.wordprocessingml.document", ".docx", false),
        [".xlsx"] = new("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", ".xlsx", false),
        [".pptx"] = new("application/vnd.openxmlformats-officedocument.presentationml.presentation", ".pptx", false),
        [".odt"] = new("application/vnd.oasis.opendocument.text", ".odt", false),
        [".ods"] = new("application/vnd.oasis.opendocument.spreadsheet", ".ods", false),
    };

    /// <summary>The kind of a file; null when it is none that is kept.</summary>
    /// <param name="head">Its first bytes, up to <see cref="HeadLength"/>.</param>
    /// <param name="name">Decides only between kinds that share their first bytes: ZIP packages, and plain texts.</param>
    public static FileType? Of(ReadOnlySpan<byte> head, string name)
    {
        if (head.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]))
            return new("image/png", ".png", true);
        if (head.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]))
            return new("image/jpeg", ".jpg", true);
        if (head.StartsWith("GIF87a"u8) || head.StartsWith("GIF89a"u8))
            return new("image/gif", ".gif", true);
        if (head.Length >= 12 && head.StartsWith("RIFF"u8) && head[8..].StartsWith("WEBP"u8))
            return new("image/webp", ".webp", true);
        if (head.StartsWith("%PDF-"u8))
            return new("application/pdf", ".pdf", false);
        if (head.Length >= 12 && head[4..].StartsWith("ftyp"u8))
            return OfBrand(head[8..]);
        if (head.StartsWith("ID3"u8) || head.Length >= 2 && head[0] == 0xFF && head[1] is 0xFB or 0xF3 or 0xF2)
            return new("audio/mpeg", ".mp3", false);
        foreach (var (start, form, type) in Carried)
            if (head.StartsWith(start) && (form.Length == 0 || head.Length >= 12 && head[8..].StartsWith(form)))
                return type;
        if (head.StartsWith("PK\x03\x04"u8))
            return OfficeByEnding.GetValueOrDefault(Path.GetExtension(name)) ?? new("application/zip", ".zip", false);
        return IsText(head) ? Text(name) : null;
    }

    /// <summary>What is kept and handed out, and shown in no page: by its first bytes, and by what its container says at the ninth.</summary>
    private static readonly (byte[] Start, byte[] Form, FileType Type)[] Carried =
    [
        ([.. "II*\0"u8], [], new("image/tiff", ".tif", false)),
        ([.. "MM\0*"u8], [], new("image/tiff", ".tif", false)),
        ([.. "8BPS\0"u8], [], new("image/vnd.adobe.photoshop", ".psd", false)),
        ([.. "%!PS"u8], [], new("application/postscript", ".ps", false)),
        ([.. "RIFF"u8], [.. "WAVE"u8], new("audio/vnd.wave", ".wav", false)),
        ([.. "RIFF"u8], [.. "AVI "u8], new("video/avi", ".avi", false)),
        ([.. "FORM"u8], [.. "AIFF"u8], new("audio/aiff", ".aif", false)),
        ([.. "fLaC"u8], [], new("audio/flac", ".flac", false)),
        ([.. "OggS\0"u8], [], new("application/ogg", ".ogg", false)),
        ([0x1A, 0x45, 0xDF, 0xA3], [], new("video/webm", ".webm", false)),
        ([.. "OTTO\0"u8], [], new("font/otf", ".otf", false)),
        ([0x00, 0x01, 0x00, 0x00], [], new("font/ttf", ".ttf", false)),
        ([.. "wOFF"u8], [], new("font/woff", ".woff", false)),
        ([.. "wOF2"u8], [], new("font/woff2", ".woff2", false)),
    ];

    /// <summary>By the major brand of an ISO base media file (ISO/IEC 14496-12 §4.3): the pictures of telephones are such files too (ISO/IEC 23008-12 Annex B, AVIF 1.1 §6).</summary>
    private static FileType OfBrand(ReadOnlySpan<byte> brand) =>
        brand.StartsWith("heic"u8) || brand.StartsWith("heix"u8) ? new("image/heic", ".heic", false)
        : brand.StartsWith("mif1"u8) ? new("image/heif", ".heif", false)
        : brand.StartsWith("avif"u8) || brand.StartsWith("avis"u8) ? new("image/avif", ".avif", false)
        : new("video/mp4", ".mp4", false);

    /// <summary>Whether it is a picture that every browser shows, and that can be made small.</summary>
    /// <inheritdoc cref="LookOf"/>
    public static bool IsShownPicture(string mediaType) => LookOf(mediaType) == FileLook.Picture;

    /// <param name="mediaType">As <see cref="FileType.MediaType"/> gives it.</param>
    public static FileLook LookOf(string mediaType) =>
        mediaType switch
        {
            "image/png" or "image/jpeg" or "image/gif" or "image/webp" => FileLook.Picture,
            "application/pdf" => FileLook.Pages,
            "video/mp4" => FileLook.Film,
            "audio/mpeg" => FileLook.Sound,
            "text/plain" or "text/csv" => FileLook.Text,
            "application/vnd.openxmlformats-officedocument.wordprocessingml.document" => FileLook.Document,
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet" => FileLook.Sheets,
            _ => FileLook.Nothing,
        };

    private static readonly Dictionary<string, string[]> Endings = new(StringComparer.Ordinal)
    {
        ["image/png"] = [".png"],
        ["image/jpeg"] = [".jpg", ".jpeg"],
        ["image/gif"] = [".gif"],
        ["image/webp"] = [".webp"],
        ["image/tiff"] = [".tif", ".tiff", ".dng", ".cr2", ".nef", ".arw"],
        ["image/vnd.adobe.photoshop"] = [".psd", ".psb"],
        ["image/heic"] = [".heic"],
        ["image/heif"] = [".heif", ".heic"],
        ["image/avif"] = [".avif"],
        // drawing programs write PDF under a name of their own
        ["application/pdf"] = [".pdf", ".ai"],
        ["application/postscript"] = [".ps", ".eps", ".ai"],
        ["video/mp4"] = [".mp4", ".m4v", ".m4a", ".mov"],
        ["video/avi"] = [".avi"],
        ["video/webm"] = [".webm", ".mkv"],
        ["audio/mpeg"] = [".mp3"],
        ["audio/vnd.wave"] = [".wav"],
        ["audio/aiff"] = [".aif", ".aiff"],
        ["audio/flac"] = [".flac"],
        ["application/ogg"] = [".ogg", ".oga", ".ogv", ".opus"],
        ["font/otf"] = [".otf"],
        ["font/ttf"] = [".ttf"],
        ["font/woff"] = [".woff"],
        ["font/woff2"] = [".woff2"],
        ["application/zip"] = [".zip"],
        ["text/csv"] = [".csv"],
        ["text/calendar"] = [".ics"],
        ["text/vcard"] = [".vcf"],
        ["message/rfc822"] = [".eml"],
        ["text/plain"] = [".txt", ".text", ".md", ".log"],
    };

    /// <summary>A file's name as it is handed out: one whose ending would open as something else than its bytes are gets the usual ending of what they are behind it, so that nothing runs by being pressed.</summary>
    public static string HandedOut(string name, string mediaType)
    {
        var endings =
            Endings.GetValueOrDefault(mediaType)
            ?? [.. OfficeByEnding.Values.Where(type => type.MediaType == mediaType).Select(type => type.Ending)];
        if (endings.Length == 0)
            endings = [".bin"];
        return endings.Contains(Path.GetExtension(name), StringComparer.OrdinalIgnoreCase) ? name : name + endings[0];
    }

    private static FileType? Text(string name) =>
        Path.GetExtension(name).ToLowerInvariant() switch
        {
            ".csv" => new("text/csv", ".csv", false),
            ".ics" => new("text/calendar", ".ics", false),
            ".vcf" => new("text/vcard", ".vcf", false),
            ".eml" => new("message/rfc822", ".eml", false),
            // markup could run where it is opened, so it is not kept under a name that opens it
            ".html" or ".htm" or ".svg" or ".xml" or ".js" => null,
            _ => new("text/plain", ".txt", false),
        };

    private static bool IsText(ReadOnlySpan<byte> head)
    {
        if (head.IsEmpty || head.Contains((byte)0))
            return false;
        // the last character may be cut in two
        for (var cut = 0; cut < 4 && cut < head.Length; cut++)
            if (IsUtf8(head[..^cut]))
                return !LooksLikeMarkup(head);
        return false;
    }

    private static bool LooksLikeMarkup(ReadOnlySpan<byte> head)
    {
        var text = Encoding.UTF8.GetString(head).TrimStart('\uFEFF', ' ', '\t', '\r', '\n');
        return text.StartsWith('<') || text.StartsWith("#!", StringComparison.Ordinal);
    }

    private static bool IsUtf8(ReadOnlySpan<byte> bytes) => System.Text.Unicode.Utf8.IsValid(bytes);
}
