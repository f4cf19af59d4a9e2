using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;

namespace Gesamt.Web.Words;

/// <inheritdoc cref="LineText"/>
public static partial class LineText
{
    /// <summary>Tasks and dates.</summary>
    private static LineWords? Tasks(Fact fact, LineRows rows) =>
        fact.What switch
        {
            Happening.TaskDone done => new(
                EntrySort.Tasks,
                fact.By == Actor.Client ? EntryFrom.Client : EntryFrom.Done,
                rows.Tasks[done.Task].Title,
                fact.By == Actor.Client ? $"task done by {rows.Client}" : "task done"
            ),
            Happening.DateSet set => new(
                EntrySort.Tasks,
                EntryFrom.Done,
                $"{ShortText.Capital(set.Name)}: {DateWords.Long(set.Date)}"
            ),
            _ => null,
        };

    /// <summary>Phases, files, rounds of review, the client page.</summary>
    private static LineWords? Work(Fact fact, LineRows rows) =>
        fact.What switch
        {
            Happening.PhaseSet phase => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"{ShortText.Capital(phase.Phase)}: {PhaseWords(phase.State)}"
            ),
            Happening.PhasesArranged arranged => new(
                EntrySort.Work,
                EntryFrom.Done,
                "Phases arranged for this project",
                string.Join(", ", arranged.Phases.Select(phase => phase.Name))
            ),
            Happening.ChecklistAnswered answered => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"Checklist “{rows.Forms.GetValueOrDefault(answered.Form, "taken away since")}”",
                $"{answered.Answered} of {answered.Questions} answered"
            ),
            Happening.FileKept kept => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"File “{rows.Files[kept.File].Name}” kept",
                GroupWords(kept.Group, rows.Files[kept.File])
            ),
            Happening.FileRemoved removed => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"File “{rows.Files[removed.File].Name}” taken out"
            ),
            Happening.FileFetched fetched => new(
                EntrySort.Work,
                EntryFrom.Client,
                $"{rows.Client} fetched “{rows.Files[fetched.File].Name}”"
            ),
            Happening.ReviewOpened up => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"{RoundOf(up.Review, rows)} put up for review",
                "",
                new(OpensWhat.Review, up.Review.Value)
            ),
            Happening.ReviewWithdrawn back => new(
                EntrySort.Work,
                EntryFrom.Done,
                "A round of review taken back",
                "",
                new(OpensWhat.Review, back.Review.Value)
            ),
            Happening.PartAsked asked => new(
                EntrySort.Work,
                EntryFrom.Client,
                $"{rows.Client} asks {Sight.AskWords(asked.Part)}",
                $"“{ShortText.Of(rows.Notes[asked.Words].Text)}”",
                new(OpensWhat.Note, asked.Words.Value)
            ),
            Happening.AccessReturned back => new(EntrySort.Work, EntryFrom.Done, $"Access handed back: {back.What}"),
            Happening.ListBegun { Sort: ListSort.Notes } begun => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"Shared notes begun: “{begun.Name}”"
            ),
            Happening.ListBegun begun => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"{(begun.Sort == ListSort.Board ? "Mood board" : "List")} begun: “{begun.Name}”"
            ),
            Happening.ListChanged changed => new(
                EntrySort.Work,
                EntryFrom.Client,
                $"{rows.Client} changed “{changed.Name}”"
            ),
            Happening.BoardPut put => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"The mood board “{put.Name}” was put to {rows.Client}"
            ),
            Happening.BoardApproved board => new(
                EntrySort.Work,
                EntryFrom.Client,
                $"{rows.Client} approved the mood board “{board.Name}”"
            ),
            Happening.RunSheetAgreed agreed => new(
                EntrySort.Work,
                fact.By == Actor.Client ? EntryFrom.Client : EntryFrom.Done,
                fact.By == Actor.Client ? $"{rows.Client} agreed to the run sheet" : "The run sheet is agreed",
                $"SHA-256 {rows.Versions[agreed.Agreed].Hash[..8]}"
            ),
            Happening.RemarkLeft remark => new(
                EntrySort.Work,
                EntryFrom.Client,
                $"{rows.Client} remarks on {Low(RoundOf(remark.Review, rows))}",
                $"“{ShortText.Of(rows.Notes[remark.Words].Text)}”",
                new(OpensWhat.Review, remark.Review.Value)
            ),
            Happening.ChangesAsked asked => new(
                EntrySort.Work,
                EntryFrom.Client,
                $"{rows.Client} asks for changes, {Low(RoundOf(asked.Review, rows))}",
                $"“{ShortText.Of(rows.Notes[asked.Words].Text)}”",
                new(OpensWhat.Review, asked.Review.Value)
            ),
            Happening.ReviewApproved yes => new(
                EntrySort.Work,
                EntryFrom.Client,
                $"{rows.Client} approved {Low(RoundOf(yes.Review, rows))}",
                "",
                new(OpensWhat.Review, yes.Review.Value)
            ),
            Happening.ApprovalWithdrawn no => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"The approval of {Low(RoundOf(no.Review, rows))} was taken back",
                "",
                new(OpensWhat.Review, no.Review.Value)
            ),
            Happening.PartOpened part => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"Client page: {Sight.Words(part.Part)} opened"
            ),
            Happening.PartClosed part => new(
                EntrySort.Work,
                EntryFrom.Done,
                $"Client page: {Sight.Words(part.Part)} closed"
            ),
            _ => null,
        };
}
