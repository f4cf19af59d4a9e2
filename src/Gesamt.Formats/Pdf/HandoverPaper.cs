using System.Collections.Immutable;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>Something that was handed over, with a word on its use.</summary>
public sealed record HandedThing(string Name, string Use);

/// <summary>A heading with the words below it.</summary>
public sealed record HandoverPart(string Heading, string Words);

/// <summary>What was handed over, on a paper that the client keeps.</summary>
/// <param name="When">“Handed over on 3 March 2027.”</param>
public sealed record HandoverPaper(
    Letterhead Head,
    string Title,
    string When,
    ImmutableArray<HandedThing> Things,
    ImmutableArray<HandoverPart> Parts
)
{
    private static readonly PdfColumn[] Columns = [new("what", 0), new("what it is for", 240, Begins: true)];

    /// <summary>Draws it on A4. The same handover gives the same bytes.</summary>
    public byte[] Draw(Instant at, byte[]? logo = null) =>
        PdfSheet.Draw(
            Head,
            $"{Title}, handed over",
            at,
            logo,
            sheet =>
            {
                sheet.Title(Title);
                sheet.Paragraph(When, quiet: true);
                sheet.Gap(8);
                if (!Things.IsEmpty)
                    sheet.Table(
                        Columns,
                        [.. Things.Select(thing => new PdfRow(thing.Name, "", [thing.Use]))],
                        after: 0
                    );
                foreach (var part in Parts)
                {
                    sheet.Gap(12);
                    sheet.Heading(part.Heading);
                    foreach (var line in part.Words.Split('\n', StringSplitOptions.RemoveEmptyEntries))
                        sheet.Paragraph(line);
                }
            },
            $"{Title}, handed over"
        );
}
