using System.IO.Compression;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Writer;

namespace Gesamt.Browser.Tests;

/// <summary>Files as other programs make them, each in a folder of its own.</summary>
public static class MadeFiles
{
    /// <summary>A document (PDF) with a page for each of the words; its font is none that lies in it (ISO 32000-1 §9.6.2.2).</summary>
    public static string Pdf(string name, params string[] pages)
    {
        var builder = new PdfDocumentBuilder();
        var font = builder.AddStandard14Font(Standard14Font.Helvetica);
        foreach (var words in pages)
            builder.AddPage(PageSize.A4).AddText(words, 24, new(60, 700), font);
        return Kept(name, builder.Build());
    }

    /// <summary>A document of a word processor (ECMA-376 part 1, §11.3.10): a heading, a paragraph, a table.</summary>
    public static string Docx(string name, string heading, string paragraph, params string[] cells) =>
        Package(
            name,
            "word/document.xml",
            "application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml",
            $"""
            <w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>
            <w:p><w:pPr><w:pStyle w:val="Heading1"/></w:pPr><w:r><w:t>{heading}</w:t></w:r></w:p>
            <w:p><w:r><w:t>{paragraph}</w:t></w:r></w:p>
            <w:tbl><w:tr>{string.Concat(
                cells.Select(cell => $"<w:tc><w:p><w:r><w:t>{cell}</w:t></w:r></w:p></w:tc>")
            )}</w:tr></w:tbl>
            </w:body></w:document>
            """
        );

    /// <summary>A workbook (ECMA-376 part 1, §12.3.23) of one sheet with one row of words.</summary>
    public static string Xlsx(string name, string sheet, params string[] cells) =>
        Package(
            name,
            "xl/workbook.xml",
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml",
            $"""
            <workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="{sheet}" sheetId="1" r:id="rId1"/></sheets></workbook>
            """,
            (
                "xl/_rels/workbook.xml.rels",
                """
                <Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>
                """
            ),
            (
                "xl/worksheets/sheet1.xml",
                $"""
                <worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData><row r="1">{string.Concat(
                    cells.Select((cell, i) => $"<c r=\"{(char)('A' + i)}1\" t=\"inlineStr\"><is><t>{cell}</t></is></c>")
                )}</row></sheetData></worksheet>
                """
            )
        );

    public static string Kept(string name, byte[] bytes)
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("gesamt-file").FullName, name);
        File.WriteAllBytes(path, bytes);
        return path;
    }

    private static string Package(
        string name,
        string part,
        string type,
        string xml,
        params (string Path, string Xml)[] more
    )
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            void Add(string path, string text)
            {
                using var writer = new StreamWriter(zip.CreateEntry(path).Open());
                writer.Write(text);
            }
            Add(
                "[Content_Types].xml",
                $"""
                <Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/{part}" ContentType="{type}"/></Types>
                """
            );
            Add(
                "_rels/.rels",
                $"""
                <Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="{part}"/></Relationships>
                """
            );
            Add(part, xml);
            foreach (var (path, text) in more)
                Add(path, text);
        }
        return Kept(name, bytes.ToArray());
    }
}
