using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Texts;
using Gesamt.Formats.Pdf;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using NodaTime;

namespace Gesamt.Web.Projects;

/// <summary>A project's whole history on paper: the line of its record with every letter, note and answer opened. The owner's own: what is theirs alone stands in it.</summary>
public static class WholeHistory
{
    public static async Task<byte[]> PaperAsync(Desk desk, ProjectId id)
    {
        var file = await desk.OpenAsync(id);
        var record = await Record.OfAsync(desk, id);
        var head = Print.Letterhead(desk);
        List<(LocalDate Day, HistoryEntry Entry)> entries = [];
        foreach (var one in record.Line.Past)
        {
            var day = desk.Calendar.DateOf(file.History.Facts.First(fact => fact.Id.Value == one.Id).Happened);
            entries.Add((day, await EntryAsync(desk, id, one)));
        }
        var paper = new HistoryPaper(
            head,
            record.Head.Title,
            $"{record.Head.Kind}, for {record.Head.Client.Name}. {record.Path.Turn.Words}. As of {desk.Precisely(desk.Now)}.",
            Facts(record),
            [
                .. entries
                    .GroupBy(one => one.Day)
                    .Select(same => new HistoryDay(DateWords.Long(same.Key), [.. same.Select(one => one.Entry)])),
            ],
            Parts(record)
        );
        return paper.Draw(desk.Now, Print.Logo(desk, head));
    }

    private static async Task<HistoryEntry> EntryAsync(Desk desk, ProjectId id, EntryDto one)
    {
        var title = one.Title.TrimEnd('.');
        if (one.Opens is not { } opens)
            return new(one.At.Time, title, one.Detail, "", []);
        ReaderDto read;
        try
        {
            read = await Reader.OfAsync(desk, id, opens.What, opens.Id);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            // one entry that cannot be read never takes the others with it
            return new(one.At.Time, title, Untold.Detail, "", []);
        }
        return new(
            one.At.Time,
            title,
            string.Join(
                ". ",
                new[] { title.Contains(read.Title, StringComparison.Ordinal) ? "" : read.Title, read.Under }.Where(
                    text => text.Length > 0
                )
            ),
            read.Text.Trim(),
            [
                .. read.Answers.Select(answer => new AnsweredQuestion(answer.Question, answer.Text)),
                .. read.Sums.Select(sum => new AnsweredQuestion(sum.Label, sum.Amount)),
                .. (read.Review?.Said ?? []).Select(said => new AnsweredQuestion(
                    $"{said.Where} {said.At}".Trim(),
                    said.Text
                )),
            ]
        );
    }

    private static ImmutableArray<(string, string)> Facts(RecordDto record) =>
        [
            .. new (string Name, string? Value)[]
            {
                ("Client", record.Head.Client.Name),
                ("Organisation", record.Head.Client.Organisation),
                ("Mail", record.Head.Client.Mail),
                ("Phone", record.Head.Client.Phone),
                (record.Head.Date.Name, record.Head.Date.Words),
                ("Came by", record.Head.Source),
            }
                .Concat(
                    (record.Sheet.Money?.Lines ?? []).Select(line => (Name: line.Label, Value: (string?)line.Amount))
                )
                .Where(fact => fact.Value is { Length: > 0 })
                .Select(fact => (ShortText.Capital(fact.Name), fact.Value!)),
        ];

    private static ImmutableArray<HandoverPart> Parts(RecordDto record) =>
        [
            .. new (string Heading, IEnumerable<string> Lines)[]
            {
                (
                    "People",
                    record.Involved.People.Select(one =>
                        $"{one.Name}, {one.Words}{(one.Reach is { } reach ? $", {reach}" : "")}"
                    )
                ),
                (
                    "Details",
                    record
                        .About.Details.Where(detail => detail.Value.Length > 0)
                        .Select(detail => $"{detail.Name}: {detail.Value}")
                ),
                (
                    "Papers",
                    record.Sheet.Papers.Select(one => one.About.Length > 0 ? $"{one.Name}, {one.About}" : one.Name)
                ),
                ("Files", record.Sheet.Work.Files.Select(one => $"{one.Name}, {one.About}")),
            }
                .Where(part => part.Lines.Any())
                .Select(part => new HandoverPart(part.Heading, string.Join('\n', part.Lines))),
        ];
}
