using System.Text;

namespace Gesamt.Formats.Files;

/// <summary>A kind of file that is kept: what its bytes say it is, whatever its name claims.</summary>
/// <param name="MediaType">As registered with IANA.</param>
/// <param name="Ending">The usual ending of its name, with the dot.</param>
public sealed record FileType(string MediaType, string Ending);

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
        [".docx"] = new("application/vnd.openxmlformats-officedocument.wordprocessingml.document", ".docx"),
        [".xlsx"] = new("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", ".xlsx"),
        [".pptx"] = new("application/vnd.openxmlformats-officedocument.presentationml.presentation", ".pptx"),
        [".odt"] = new("application/vnd.oasis.opendocument.text", ".odt"),
        [".ods"] = new("application/vnd.oasis.opendocument.spreadsheet", ".ods"),
    };

    /// <summary>The kind of a file; null when it is none that is kept.</summary>
    /// <param name="head">Its first bytes, up to <see cref="HeadLength"/>.</param>
    /// <param name="name">Decides only between kinds that share their first bytes: ZIP packages, and plain texts.</param>
    public static FileType? Of(ReadOnlySpan<byte> head, string name)
    {
        if (head.Length >= 12 && head[4..].StartsWith("ftyp"u8))
            return OfBrand(head[8..]);
        foreach (var (start, form, type) in Known)
            if (head.StartsWith(start) && (form.Length == 0 || head.Length >= 12 && head[8..].StartsWith(form)))
                return type;
        if (head.StartsWith("PK\x03\x04"u8))
            return OfficeByEnding.GetValueOrDefault(Path.GetExtension(name)) ?? new("application/zip", ".zip");
        return IsText(head) ? Text(name) : null;
    }

    /// <summary>By the first bytes, and by what a container says at the ninth.</summary>
    private static readonly (byte[] Start, byte[] Form, FileType Type)[] Known =
    [
        ([0x89, .. "PNG\r\n"u8, 0x1A, (byte)'\n'], [], new("image/png", ".png")),
        ([0xFF, 0xD8, 0xFF], [], new("image/jpeg", ".jpg")),
        ([.. "GIF87a"u8], [], new("image/gif", ".gif")),
        ([.. "GIF89a"u8], [], new("image/gif", ".gif")),
        ([.. "RIFF"u8], [.. "WEBP"u8], new("image/webp", ".webp")),
        ([.. "%PDF-"u8], [], new("application/pdf", ".pdf")),
        ([.. "ID3"u8], [], new("audio/mpeg", ".mp3")),
        ([0xFF, 0xFB], [], new("audio/mpeg", ".mp3")),
        ([0xFF, 0xF3], [], new("audio/mpeg", ".mp3")),
        ([0xFF, 0xF2], [], new("audio/mpeg", ".mp3")),
        ([.. "II*\0"u8], [], new("image/tiff", ".tif")),
        ([.. "MM\0*"u8], [], new("image/tiff", ".tif")),
        ([.. "8BPS\0"u8], [], new("image/vnd.adobe.photoshop", ".psd")),
        ([.. "%!PS"u8], [], new("application/postscript", ".ps")),
        ([.. "RIFF"u8], [.. "WAVE"u8], new("audio/vnd.wave", ".wav")),
        ([.. "RIFF"u8], [.. "AVI "u8], new("video/avi", ".avi")),
        ([.. "FORM"u8], [.. "AIFF"u8], new("audio/aiff", ".aif")),
        ([.. "fLaC"u8], [], new("audio/flac", ".flac")),
        ([.. "OggS\0"u8], [], new("application/ogg", ".ogg")),
        ([0x1A, 0x45, 0xDF, 0xA3], [], new("video/webm", ".webm")),
        ([.. "OTTO\0"u8], [], new("font/otf", ".otf")),
        ([0x00, 0x01, 0x00, 0x00], [], new("font/ttf", ".ttf")),
        ([.. "wOFF"u8], [], new("font/woff", ".woff")),
        ([.. "wOF2"u8], [], new("font/woff2", ".woff2")),
    ];

    /// <summary>By the major brand of an ISO base media file (ISO/IEC 14496-12 §4.3): the pictures of telephones are such files too (ISO/IEC 23008-12 Annex B, AVIF 1.1 §6).</summary>
    private static FileType OfBrand(ReadOnlySpan<byte> brand) =>
        brand.StartsWith("heic"u8) || brand.StartsWith("heix"u8) ? new("image/heic", ".heic")
        : brand.StartsWith("mif1"u8) ? new("image/heif", ".heif")
        : brand.StartsWith("avif"u8) || brand.StartsWith("avis"u8) ? new("image/avif", ".avif")
        : new("video/mp4", ".mp4");

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
            ".csv" => new("text/csv", ".csv"),
            ".ics" => new("text/calendar", ".ics"),
            ".vcf" => new("text/vcard", ".vcf"),
            ".eml" => new("message/rfc822", ".eml"),
            // markup could run where it is opened, so it is not kept under a name that opens it
            ".html" or ".htm" or ".svg" or ".xml" or ".js" => null,
            _ => new("text/plain", ".txt"),
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
