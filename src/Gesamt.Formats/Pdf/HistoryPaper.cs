using System.Collections.Immutable;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>Something that happened, with its whole text where it has one.</summary>
/// <param name="Time">“10:30”.</param>
/// <param name="Under">Who wrote to whom, or what it came to; empty for nothing.</param>
/// <param name="Answers">Questions with their answers, and figures with their names.</param>
public sealed record HistoryEntry(
    string Time,
    string Title,
    string Under,
    string Text,
    ImmutableArray<AnsweredQuestion> Answers
);

/// <summary>What happened on one day.</summary>
/// <param name="Day">“Monday, 25 January 2027”.</param>
public sealed record HistoryDay(string Day, ImmutableArray<HistoryEntry> Entries);

/// <summary>The whole history of a project, to be read from its first day to its last.</summary>
/// <param name="About">What it is, for whom, and where it stands.</param>
/// <param name="Facts">What is known of it, by name.</param>
public sealed record HistoryPaper(
    Letterhead Head,
    string Title,
    string About,
    ImmutableArray<(string Name, string Value)> Facts,
    ImmutableArray<HistoryDay> Days,
    ImmutableArray<HandoverPart> Parts
)
{
    private const int Across = 3;

    /// <summary>Draws it on A4. The same history gives the same bytes.</summary>
    public byte[] Draw(Instant at, byte[]? logo = null) =>
        PdfSheet.Draw(Head, $"{Title}: its history", at, logo, Draw, $"{Title}: its history");

    private void Draw(PdfSheet sheet)
    {
        sheet.Title(Title);
        sheet.Paragraph(About, quiet: true);
        sheet.Gap(10);
        foreach (var some in Facts.Chunk(Across))
            sheet.Facts(Across, some);
        foreach (var day in Days)
        {
            sheet.Heading(day.Day);
            foreach (var entry in day.Entries)
                Draw(sheet, entry);
        }
        foreach (var part in Parts)
        {
            sheet.Heading(part.Heading);
            foreach (var line in part.Words.Split('\n', StringSplitOptions.RemoveEmptyEntries))
                sheet.Paragraph(line);
        }
    }

    private static void Draw(PdfSheet sheet, HistoryEntry entry)
    {
        sheet.Strong($"{entry.Time}  {entry.Title}");
        if (entry.Under.Length > 0)
            sheet.Paragraph(entry.Under, quiet: true);
        foreach (var one in entry.Answers)
        {
            sheet.Paragraph(one.Question, quiet: true, leads: true);
            sheet.Paragraph(one.Answer.Length > 0 ? one.Answer : "(nothing)");
        }
        if (entry.Text.Length > 0)
            sheet.Paragraph(entry.Text);
        sheet.Gap(4);
    }
}
