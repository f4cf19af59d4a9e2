using System.Collections.Immutable;
using NodaTime;

namespace Gesamt.Formats.Pdf;

/// <summary>A question as it was asked, with its answer.</summary>
public sealed record AnsweredQuestion(string Question, string Answer);

/// <summary>An answered form as a sheet to carry.</summary>
/// <param name="About">For which project, whose answers they are, and when they came.</param>
public sealed record AnswersPaper(Letterhead Head, string Title, string About, ImmutableArray<AnsweredQuestion> Answers)
{
    /// <summary>Draws it on A4. The same answers give the same bytes.</summary>
    public byte[] Draw(Instant at, byte[]? logo = null) =>
        PdfSheet.Draw(
            Head,
            Title,
            at,
            logo,
            sheet =>
            {
                sheet.Title(Title);
                sheet.Paragraph(About, quiet: true);
                foreach (var one in Answers)
                {
                    sheet.Gap(8);
                    sheet.Paragraph(one.Question, quiet: true);
                    foreach (var line in one.Answer.Split('\n', StringSplitOptions.RemoveEmptyEntries))
                        sheet.Paragraph(line);
                }
            },
            Title
        );
}
