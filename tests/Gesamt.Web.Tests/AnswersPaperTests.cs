using System.Net;

namespace Gesamt.Web.Tests;

/// <summary>Answers on paper, to carry.</summary>
public sealed class AnswersPaperTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    [Fact]
    public async Task An_answered_form_prints_with_every_question_and_answer_as_poppler_reads_it()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "paper@answers.example");
        var record = await owner.GetAsync($"/api/projects/{project}");
        var entry = record
            .GetProperty("line")
            .GetProperty("past")
            .EnumerateArray()
            .Select(one => one.GetProperty("opens"))
            .First(opens =>
                opens.ValueKind == System.Text.Json.JsonValueKind.Object
                && opens.GetProperty("what").GetString() == "Answers"
            )
            .GetProperty("id")
            .GetInt64();
        var paper = await owner.AskAsync($"/api/projects/{project}/answers/{entry}/paper.pdf");
        Assert.Equal("application/pdf", paper.Content.Headers.ContentType?.MediaType);
        var printed = PdfTools
            .Run("pdftotext", await paper.Content.ReadAsByteArrayAsync(), "-layout", "FILE", "-")
            .Said;
        foreach (var answer in record.GetProperty("about").GetProperty("answers").EnumerateArray())
        {
            Assert.Contains(Words(answer, "question"), printed, StringComparison.Ordinal);
            Assert.Contains(Words(answer, "text"), printed, StringComparison.Ordinal);
        }
        // another project's answers are not read by its number
        var other = await studio.InquireAsync(new Visitor(studio), "other@answers.example");
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await owner.AskAsync($"/api/projects/{other}/answers/{entry}/paper.pdf")).StatusCode
        );
    }

    /// <summary>Its first words: longer ones go over several lines.</summary>
    private static string Words(System.Text.Json.JsonElement answer, string what) =>
        string.Join(' ', answer.GetProperty(what).GetString()!.Split([' ', '\n']).Take(3));
}
