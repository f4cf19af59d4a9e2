using System.Collections.Immutable;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>One line of a printed run sheet, all of it as it is printed.</summary>
/// <param name="Time">“18:00”.</param>
/// <param name="Detail">Until when, who it is for, what guests are told.</param>
public sealed record RunSheetLine(string Time, string What, string Detail, string Where, string Who);

/// <summary>A day of it.</summary>
public sealed record RunSheetDay(string Title, ImmutableArray<RunSheetLine> Lines);

/// <summary>A run sheet as one reader has it, one day a page.</summary>
/// <param name="State">“Provisional”, or when it was agreed.</param>
public sealed record RunSheetPaper(
    Letterhead Head,
    string Title,
    string Reader,
    string State,
    ImmutableArray<RunSheetDay> Days
)
{
    private static readonly PdfColumn[] Columns =
    [
        new("what", 0),
        new("where", 110, Begins: true),
        new("who", 110, Begins: true),
        new("time", 48),
    ];

    /// <summary>Draws it on A4. The same sheet gives the same bytes.</summary>
    public byte[] Draw(Instant at, byte[]? logo = null) =>
        PdfSheet.Draw(
            Head,
            $"{Title}, run sheet",
            at,
            logo,
            sheet =>
            {
                foreach (var (day, i) in Days.Select((day, i) => (day, i)))
                {
                    if (i > 0)
                        sheet.NewPage();
                    sheet.Title(day.Title);
                    sheet.Paragraph($"{Title}. {Reader}. {State}.", quiet: true);
                    sheet.Gap(8);
                    if (day.Lines.IsEmpty)
                        sheet.Paragraph("Nothing on this day.");
                    else
                        sheet.Table(
                            Columns,
                            [
                                .. day.Lines.Select(line => new PdfRow(
                                    line.What,
                                    line.Detail,
                                    [line.Where, line.Who, line.Time]
                                )),
                            ],
                            after: 0
                        );
                }
                if (Days.IsEmpty)
                {
                    sheet.Title(Title);
                    sheet.Paragraph($"{Reader}. Nothing is on it yet.");
                }
            },
            $"{Title}, {Reader}"
        );
}
