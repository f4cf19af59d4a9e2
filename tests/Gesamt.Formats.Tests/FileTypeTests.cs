using System.Text;
using CsCheck;
using Gesamt.Formats.Files;
using Gesamt.Formats.Tables;
using Xunit;

namespace Gesamt.Formats.Tests;

public sealed class FileTypeTests
{
    // first bytes as the formats' own documents give them (PNG 1.2 §3.1, JFIF 1.02, GIF89a, WebP container, ISO 32000-1 §7.5.2, ISO/IEC 14496-12 §4.3, APPNOTE 4.3.7)
    [Theory]
    [
        InlineData("89504E470D0A1A0A", "image/png", true),
        InlineData("FFD8FFE000104A464946", "image/jpeg", true),
        InlineData("474946383961", "image/gif", true),
        InlineData("524946460000000057454250", "image/webp", true)
    ]
    [
        InlineData("255044462D312E37", "application/pdf", false),
        InlineData("0000001866747970", "video/mp4", false),
        InlineData("504B0304", "application/zip", false)
    ]
    // TIFF 6.0 §2, Photoshop file format, PostScript Language Document Structuring Conventions 3.0, ISO/IEC 23008-12 Annex B, AVIF 1.1
    [
        InlineData("49492A0008000000", "image/tiff", false),
        InlineData("4D4D002A00000008", "image/tiff", false),
        InlineData("384250530001", "image/vnd.adobe.photoshop", false),
        InlineData("252150532D41646F62652D332E30", "application/postscript", false),
        InlineData("000000186674797068656963", "image/heic", false),
        InlineData("00000018667479706D696631", "image/heif", false),
        InlineData("000000206674797061766966", "image/avif", false)
    ]
    // RIFF of 1991, AIFF 1.3, RFC 9639, RFC 3533, RFC 9559, OpenType 1.9, W3C WOFF 2.0; MPEG audio layer III without a tag: ISO/IEC 11172-3 §2.4.1.3
    [
        InlineData("524946460000000057415645", "audio/vnd.wave", false),
        InlineData("524946460000000041564920", "video/avi", false),
        InlineData("464F524D0000000041494646", "audio/aiff", false),
        InlineData("664C614300000022", "audio/flac", false),
        InlineData("4F676753000200", "application/ogg", false),
        InlineData("1A45DFA3", "video/webm", false),
        InlineData("FFFB9064", "audio/mpeg", false),
        InlineData("4F54544F000B", "font/otf", false),
        InlineData("0001000000", "font/ttf", false),
        InlineData("774F4632", "font/woff2", false)
    ]
    public void A_file_is_told_by_its_first_bytes_whatever_its_name(string hex, string type, bool picture)
    {
        var head = Convert.FromHexString(hex).Concat(new byte[16]).ToArray();
        Assert.Equal(
            (type, picture),
            FileTypes.Of(head, "holiday.txt") is { } told
                ? (told.MediaType, FileTypes.IsShownPicture(told.MediaType))
                : default
        );
    }

    // media types as registered with IANA
    [Theory]
    [
        InlineData("image/webp", FileLook.Picture),
        InlineData("application/pdf", FileLook.Pages),
        InlineData("video/mp4", FileLook.Film),
        InlineData("audio/mpeg", FileLook.Sound),
        InlineData("text/csv", FileLook.Text),
        InlineData("application/zip", FileLook.Nothing),
        InlineData("image/heic", FileLook.Nothing),
        InlineData("image/tiff", FileLook.Nothing)
    ]
    public void A_page_shows_what_it_can(string type, FileLook look) => Assert.Equal(look, FileTypes.LookOf(type));

    [Theory]
    [
        InlineData("a.docx", FileLook.Document),
        InlineData("a.xlsx", FileLook.Sheets),
        InlineData("a.pptx", FileLook.Nothing),
        InlineData("a.odt", FileLook.Nothing)
    ]
    public void A_package_is_shown_by_what_it_holds(string name, FileLook look) =>
        Assert.Equal(look, FileTypes.LookOf(FileTypes.Of("PK\x03\x04"u8, name)!.MediaType));

    [Theory]
    [
        InlineData("words in a file", "notes.txt", "text/plain"),
        InlineData("a;b\n1;2", "table.csv", "text/csv"),
        InlineData("BEGIN:VCALENDAR", "day.ics", "text/calendar"),
        InlineData("Grüße", "gruss.txt", "text/plain")
    ]
    public void Plain_texts_are_told_apart_by_their_name(string text, string name, string type) =>
        Assert.Equal(type, FileTypes.Of(Encoding.UTF8.GetBytes(text), name)?.MediaType);

    [Theory] // the first words of a text are no sign of a font or a picture
    [
        InlineData("OTTO wants the wall by May"),
        InlineData("OggS and ends"),
        InlineData("RIFF and WAVE"),
        InlineData("MM/YYYY")
    ]
    public void A_text_stays_a_text(string words) =>
        Assert.Equal("text/plain", FileTypes.Of(Encoding.UTF8.GetBytes(words), "notes.txt")?.MediaType);

    [Theory] // markup and programs could act where they are opened
    [
        InlineData("<!doctype html>", "a.txt"),
        InlineData("  <svg xmlns=''>", "a.txt"),
        InlineData("\uFEFF<script>", "a.txt"),
        InlineData("#!/bin/sh", "a.txt"),
        InlineData("let x", "a.js"),
        InlineData("hello", "a.html"),
        InlineData("a\0b", "a.txt"),
        InlineData("", "a.txt")
    ]
    public void What_could_act_is_not_kept(string text, string name) =>
        Assert.Null(FileTypes.Of(Encoding.UTF8.GetBytes(text), name));

    [Fact] // a character of several bytes may be cut where the head ends
    public void A_text_cut_within_a_character_is_still_a_text() =>
        Assert.Equal(
            "text/plain",
            FileTypes.Of(Encoding.UTF8.GetBytes(new string('ü', 256) + "ß").AsSpan(0, 511), "a.txt")?.MediaType
        );

    [Fact]
    public void A_zip_package_is_told_by_its_name() =>
        Assert.Equal(
            [
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                "application/vnd.oasis.opendocument.text",
                "application/zip",
            ],
            new[] { "a.xlsx", "b.ODT", "c.exe" }.Select(name => FileTypes.Of("PK\u0003\u0004"u8, name)!.MediaType)
        );

    [Fact] // whatever the bytes are, the answer is a kind or none, never an exception
    public void Any_bytes_have_an_answer() =>
        Gen.Byte.Array[0, 600].Sample(bytes => FileTypes.Of(bytes, "x.csv") is null or { MediaType.Length: > 0 });

    [Fact]
    public void A_thumbnail_is_small_and_keeps_its_shape()
    {
        using var surface = SkiaSharp.SKSurface.Create(new SkiaSharp.SKImageInfo(1600, 400));
        surface.Canvas.Clear(SkiaSharp.SKColors.Teal);
        var wide = surface.Snapshot().Encode(SkiaSharp.SKEncodedImageFormat.Png, 90).ToArray();
        using var small = SkiaSharp.SKBitmap.Decode(Thumbnails.Of(() => new MemoryStream(wide)));
        Assert.Equal((480, 120), (small.Width, small.Height));
    }

    [Fact] // its head says 8,000 by 6,000, which is told before anything of it is decoded
    public void A_huge_picture_is_drawn_without_being_held_whole()
    {
        var huge = Png(8_000, 6_000);
        var before = Environment.WorkingSet;
        using var small = SkiaSharp.SKBitmap.Decode(Thumbnails.Of(() => new MemoryStream(huge)));
        Assert.Equal((480, 360), (small.Width, small.Height));
        // held whole it would be 192 MB
        Assert.True(
            Environment.WorkingSet - before < 130_000_000,
            $"{(Environment.WorkingSet - before) / 1_000_000} MB"
        );
        // the upper half white, the lower black: every strip stands in its place
        Assert.True(small.GetPixel(240, 90).Red > 240 && small.GetPixel(240, 270).Red < 15);
    }

    [Fact]
    public void A_picture_larger_than_any_has_none() =>
        Assert.Null(Thumbnails.Of(() => new MemoryStream(Png(60_000, 60_000, rows: 1))));

    /// <summary>A PNG (W3C PNG, third edition) of one bit a pixel, made without holding it: the upper half white.</summary>
    private static byte[] Png(int width, int height, int? rows = null)
    {
        using var data = new MemoryStream();
        using (
            var zip = new System.IO.Compression.ZLibStream(
                data,
                System.IO.Compression.CompressionLevel.Fastest,
                leaveOpen: true
            )
        )
        {
            var row = new byte[1 + (width + 7) / 8];
            for (var y = 0; y < (rows ?? height); y++)
            {
                row.AsSpan(1).Fill(y < height / 2 ? (byte)0xff : (byte)0);
                zip.Write(row);
            }
        }
        using var png = new MemoryStream();
        png.Write([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]);
        byte[] Big(int value) => [(byte)(value >> 24), (byte)(value >> 16), (byte)(value >> 8), (byte)value];
        Chunk("IHDR", [.. Big(width), .. Big(height), 1, 0, 0, 0, 0]);
        Chunk("IDAT", data.ToArray());
        Chunk("IEND", []);
        return png.ToArray();

        void Chunk(string type, byte[] content)
        {
            byte[] body = [.. Encoding.ASCII.GetBytes(type), .. content];
            png.Write([.. Big(content.Length), .. body, .. Big((int)Crc(body))]);
        }

        static uint Crc(byte[] bytes)
        {
            var crc = 0xffffffffu;
            foreach (var b in bytes)
            {
                crc ^= b;
                for (var bit = 0; bit < 8; bit++)
                    crc = (crc & 1) == 1 ? (crc >> 1) ^ 0xedb88320u : crc >> 1;
            }
            return ~crc;
        }
    }

    [Theory]
    [
        InlineData("plan.pdf", "application/pdf", "plan.pdf"),
        InlineData("photo.JPEG", "image/jpeg", "photo.JPEG"),
        InlineData("notes", "text/plain", "notes.txt"),
        InlineData("logo.ai", "application/pdf", "logo.ai"),
        InlineData("wall.TIFF", "image/tiff", "wall.TIFF"),
        InlineData("table.xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "table.xlsx")
    ]
    [
        InlineData("page.html", "text/plain", "page.html.txt"),
        InlineData("shell.php", "text/plain", "shell.php.txt"),
        InlineData("run.bat", "text/plain", "run.bat.txt"),
        InlineData("app.hta", "text/plain", "app.hta.txt"),
        InlineData("picture.svg", "image/png", "picture.svg.png"),
        InlineData("photo.jpg", "image/heic", "photo.jpg.heic"),
        InlineData("set-up.exe", "application/zip", "set-up.exe.zip"),
        InlineData("x.html", "application/x-unknown", "x.html.bin")
    ]
    public void A_name_handed_out_ends_as_what_its_bytes_are(string name, string type, string handedOut) =>
        Assert.Equal(handedOut, FileTypes.HandedOut(name, type));

    [Fact]
    public void What_is_no_picture_has_no_thumbnail() =>
        Assert.Null(Thumbnails.Of(() => new MemoryStream("no picture"u8.ToArray())));

    [Fact] // RFC 4180, 2.6 and 2.7: commas, quotes and line breaks are quoted, quotes doubled
    public void A_table_is_quoted_as_rfc_4180_says() =>
        Assert.Equal(
            "\uFEFFProject,Words\r\nA,\"one, \"\"two\"\"\r\nthree\"\r\n",
            Encoding.UTF8.GetString(
                Csv.Write(
                    ["Project", "Words"],
                    [
                        ["A", "one, \"two\"\r\nthree"],
                    ]
                )
            )
        );

    [Theory] // what a table program would take for a formula stays text (OWASP, CSV injection; from memory)
    [InlineData("=1+1"), InlineData("@SUM(A1)"), InlineData("+1"), InlineData("\t=1")]
    public void A_formula_in_a_name_is_disarmed(string cell) =>
        Assert.DoesNotContain(
            $"\r\n{cell}",
            Encoding.UTF8.GetString(
                Csv.Write(
                    ["A"],
                    [
                        [cell],
                    ]
                )
            )
        );
}
