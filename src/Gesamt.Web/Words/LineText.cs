using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Store.Model;

namespace Gesamt.Web.Words;

/// <summary>The rows that facts point to, so that the line can say them in words.</summary>
/// <param name="Missed">Letters that were stopped for a reason since undone, and whose time has passed.</param>
public sealed record LineRows(
    IReadOnlyDictionary<LetterId, LetterRow> Letters,
    IReadOnlyDictionary<NoteId, NoteRow> Notes,
    IReadOnlyDictionary<TaskId, TaskRow> Tasks,
    IReadOnlyDictionary<InvoiceId, InvoiceRow> Invoices,
    IReadOnlyDictionary<PaymentId, PaymentRow> Payments,
    IReadOnlyDictionary<VersionId, VersionRow> Versions,
    IReadOnlyDictionary<string, string> StepNames,
    string Client,
    string Owner,
    string MainDate,
    IReadOnlyDictionary<FileId, FileRow> Files,
    IReadOnlyDictionary<ReviewId, ReviewRow> Reviews,
    IReadOnlyDictionary<ReviewId, int?> Rounds,
    string Missed,
    IReadOnlyDictionary<MeetingId, MeetingRow> Meetings,
    IReadOnlyDictionary<int, string> Forms,
    Func<NodaTime.Instant, string> When
);

/// <summary>What a fact reads like on the line.</summary>
public sealed record LineWords(
    EntrySort Sort,
    EntryFrom From,
    string Title,
    string Detail = "",
    OpensDto? Opens = null
);

/// <summary>A fact, or several stopped steps that are told as one.</summary>
public sealed record Gathered(Fact Fact, IReadOnlyList<StepRef> Steps);

/// <summary>Facts in words. Returns null for what is only bookkeeping and stands on the line through something else.</summary>
public static class LineText
{
    public static LineWords? Of(Gathered happened, LineRows rows) =>
        happened.Steps.Count > 1
            ? Stopped(happened, rows)
            : happened.Fact.What switch
            {
                Happening.InquiryCame { Answers: { } answers } => new(
                    EntrySort.Letters,
                    EntryFrom.Client,
                    $"Inquiry from {rows.Client}",
                    "the answers of the form",
                    new(OpensWhat.Answers, answers.Value)
                ),
                Happening.InquiryCame => new(EntrySort.Letters, EntryFrom.Client, $"Inquiry from {rows.Client}"),
                Happening.LetterReceived received => Letter(rows.Letters[received.Letter], rows, received.Automatic),
                Happening.LetterSent sent => Sent(rows.Letters[sent.Letter], sent.ByItself, rows),
                Happening.LetterRefused refused => new(
                    EntrySort.Letters,
                    EntryFrom.Done,
                    $"“{rows.Letters[refused.Letter].Subject}” was refused",
                    rows.Letters[refused.Letter].Problem ?? "sent again since",
                    Open(refused.Letter)
                ),
                Happening.LetterTakenOver taken => new(
                    EntrySort.Letters,
                    taken.FromClient ? EntryFrom.Client : EntryFrom.Done,
                    taken.FromClient
                        ? $"{rows.Client}: “{ShortText.Of(rows.Letters[taken.Letter].Body)}”"
                        : $"Letter “{rows.Letters[taken.Letter].Subject}”",
                    "taken over from a file",
                    Open(taken.Letter)
                ),
                Happening.FormAsked asked => new(
                    EntrySort.Letters,
                    EntryFrom.Done,
                    $"Form “{rows.Forms.GetValueOrDefault(asked.Form, "")}” put to {rows.Client}"
                ),
                Happening.FormTakenBack back => new(
                    EntrySort.Letters,
                    EntryFrom.Done,
                    $"Form “{rows.Forms.GetValueOrDefault(back.Form, "")}” taken back"
                ),
                Happening.FormReturned returned => new(
                    EntrySort.Letters,
                    EntryFrom.Client,
                    $"{rows.Client} returned “{rows.Forms.GetValueOrDefault(returned.Form, "a form")}”",
                    "the answers",
                    new(OpensWhat.Answers, returned.Answers.Value)
                ),
                Happening.FollowedOn => new(EntrySort.Notes, EntryFrom.Done, "A project followed on from this one"),
                Happening.VariantChosen chosen => new(
                    EntrySort.Steps,
                    EntryFrom.Done,
                    $"The variant “{chosen.Variant}” chosen"
                ),
                Happening.RunOffered => new(
                    EntrySort.Steps,
                    EntryFrom.Note,
                    "A routine is offered",
                    "there is less time than it asks for"
                ),
                Happening.RunDeclined => new(EntrySort.Steps, EntryFrom.Done, "The offered routine was left"),
                Happening.StepDone { Letter: null } done
                    when rows.StepNames.ContainsKey($"{done.Step.Run.Value}:{done.Step.Step}") => new(
                    EntrySort.Steps,
                    EntryFrom.Done,
                    $"Done: {StepOf(done.Step, rows)}"
                ),
                Happening.LetterUncertain uncertain => new(
                    EntrySort.Letters,
                    EntryFrom.Done,
                    $"“{rows.Letters[uncertain.Letter].Subject}” may have gone out",
                    "Ask whether it arrived; it is never sent again by itself",
                    Open(uncertain.Letter)
                ),
                Happening.InquiryRead read => new(
                    EntrySort.Notes,
                    EntryFrom.Done,
                    "Answers read",
                    read.FollowUp ? "the follow-ups begin" : ""
                ),
                Happening.Imported => new(EntrySort.Notes, EntryFrom.Done, "Taken over from a table"),
                Happening.BriefPut => new(EntrySort.Papers, EntryFrom.Done, $"Brief put to {rows.Client}"),
                Happening.BriefTakenBack => new(EntrySort.Papers, EntryFrom.Done, "Brief taken back"),
                Happening.BriefApproved approved => new(
                    EntrySort.Papers,
                    EntryFrom.Client,
                    $"{rows.Client} approved the brief",
                    $"SHA-256 {approved.Hash[..8]}"
                ),
                Happening.BriefRemarked remarked => new(
                    EntrySort.Papers,
                    EntryFrom.Client,
                    $"{rows.Client} remarks on the brief",
                    $"“{ShortText.Of(rows.Notes[remarked.Words].Text)}”",
                    new(OpensWhat.Note, remarked.Words.Value)
                ),
                Happening.MeetingOffered => new(EntrySort.Meetings, EntryFrom.Done, "Times for a meeting offered"),
                Happening.MeetingNotOffered => new(EntrySort.Meetings, EntryFrom.Done, "The offer of times taken back"),
                Happening.MeetingBooked booked => new(
                    EntrySort.Meetings,
                    happened.Fact.By == Actor.Client ? EntryFrom.Client : EntryFrom.Done,
                    $"{rows.Meetings[booked.Meeting].Name} on {rows.When(booked.Start)}",
                    happened.Fact.By == Actor.Client ? $"chosen by {rows.Client}" : "",
                    new(OpensWhat.Meeting, booked.Meeting.Value)
                ),
                Happening.MeetingMoved moved => new(
                    EntrySort.Meetings,
                    happened.Fact.By == Actor.Client ? EntryFrom.Client : EntryFrom.Done,
                    $"{rows.Meetings[moved.Meeting].Name} moved to {rows.When(moved.Start)}",
                    "",
                    new(OpensWhat.Meeting, moved.Meeting.Value)
                ),
                Happening.MeetingCancelled cancelled => new(
                    EntrySort.Meetings,
                    cancelled.ByClient ? EntryFrom.Client : EntryFrom.Done,
                    $"{rows.Meetings[cancelled.Meeting].Name} cancelled",
                    cancelled.ByClient ? $"by {rows.Client}" : "",
                    new(OpensWhat.Meeting, cancelled.Meeting.Value)
                ),
                Happening.MeetingHeld held => new(
                    EntrySort.Meetings,
                    EntryFrom.Done,
                    $"{rows.Meetings[held.Meeting].Name} held",
                    ShortText.Of(rows.Meetings[held.Meeting].Notes),
                    new(OpensWhat.Meeting, held.Meeting.Value)
                ),
                Happening.MarkedFit => new(EntrySort.Notes, EntryFrom.Done, "Marked as a fit"),
                Happening.NoAnswerNeeded => new(EntrySort.Notes, EntryFrom.Note, "No answer needed"),
                Happening.CallHeld call => Note(rows.Notes[call.Note], "call, private note"),
                Happening.NoteWritten note => Note(rows.Notes[note.Note], "private note"),
                Happening.ProposalSent sent => new(
                    EntrySort.Papers,
                    EntryFrom.Done,
                    $"Proposal, version {rows.Versions[sent.Version].Number}, is out",
                    $"valid until {DateWords.Long(sent.ValidUntil)}",
                    new(OpensWhat.Proposal, sent.Version.Value)
                ),
                Happening.ProposalOpened => new(
                    EntrySort.Papers,
                    EntryFrom.Client,
                    $"{rows.Client} opened the proposal"
                ),
                Happening.ProposalWithdrawn withdrawn => new(
                    EntrySort.Papers,
                    EntryFrom.Done,
                    $"Proposal, version {rows.Versions[withdrawn.Version].Number}, withdrawn"
                ),
                Happening.ProposalDeclined => new(
                    EntrySort.Papers,
                    EntryFrom.Client,
                    $"{rows.Client} declined the proposal"
                ),
                Happening.ChangeAsked asked => new(
                    EntrySort.Papers,
                    EntryFrom.Client,
                    $"{rows.Client} asks for a change",
                    $"“{rows.Notes[asked.Words].Text}”",
                    new(OpensWhat.Note, asked.Words.Value)
                ),
                Happening.ProposalAccepted accepted => new(
                    EntrySort.Papers,
                    EntryFrom.Client,
                    $"{rows.Client} chose, {MoneyText.Of(accepted.Agreed)}",
                    $"{MoneyText.Of(accepted.DueOnBooking)} due on booking",
                    new(OpensWhat.Proposal, accepted.Version.Value)
                ),
                Happening.PriceAgreed agreed => new(
                    EntrySort.Papers,
                    EntryFrom.Done,
                    $"Price agreed, {MoneyText.Of(agreed.Agreed)}"
                ),
                Happening.ContractSigned signed => new(
                    EntrySort.Papers,
                    signed.Signer == Signer.Client ? EntryFrom.Client : EntryFrom.Done,
                    signed.Signer == Signer.Client
                        ? $"{rows.Client} signed the contract"
                        : $"{rows.Owner} signed the contract",
                    "",
                    new(OpensWhat.Contract, signed.Contract.Value)
                ),
                Happening.ContractVoided => new(EntrySort.Papers, EntryFrom.Done, "Contract voided"),
                Happening.InvoiceIssued issued => new(
                    EntrySort.Money,
                    EntryFrom.Done,
                    $"Invoice {rows.Invoices[issued.Invoice].Number}, {MoneyText.Of(issued.Amount)}",
                    $"due {DateWords.Long(issued.Due)}",
                    new(OpensWhat.Invoice, issued.Invoice.Value)
                ),
                Happening.PaymentReceived paid => new(
                    EntrySort.Money,
                    EntryFrom.Client,
                    $"{MoneyText.Of(paid.Amount)} received",
                    MeansOf(rows.Payments[paid.Payment], rows),
                    new(OpensWhat.Payment, paid.Payment.Value)
                ),
                Happening.InvoiceCredited credited => new(
                    EntrySort.Money,
                    EntryFrom.Done,
                    $"Credit note {rows.Invoices[credited.Note].Number}, {MoneyText.Of(credited.Amount)}",
                    $"takes back invoice {rows.Invoices[credited.Invoice].Number}",
                    new(OpensWhat.Invoice, credited.Note.Value)
                ),
                Happening.PaymentVoided => new(
                    EntrySort.Money,
                    EntryFrom.Done,
                    "A payment was recorded by mistake and taken back",
                    rows.Missed.Length > 0 ? $"missed meanwhile and not sent: {rows.Missed}" : ""
                ),
                Happening.PaymentChargedBack => new(EntrySort.Money, EntryFrom.Client, "A payment was charged back"),
                Happening.TaskDone done => new(
                    EntrySort.Tasks,
                    EntryFrom.Done,
                    rows.Tasks[done.Task].Title,
                    "task done"
                ),
                Happening.HandedOver => new(EntrySort.Papers, EntryFrom.Done, "Handed over"),
                Happening.Approved => new(EntrySort.Papers, EntryFrom.Client, $"{rows.Client} approved the work"),
                Happening.DateSet set => new(
                    EntrySort.Tasks,
                    EntryFrom.Done,
                    $"{ShortText.Capital(set.Name)}: {DateWords.Long(set.Date)}"
                ),
                Happening.GateWaived waived => new(
                    EntrySort.Notes,
                    EntryFrom.Done,
                    $"{waived.Gate} waived",
                    Why(waived.Why, rows)
                ),
                Happening.Ended ended => new(
                    EntrySort.Notes,
                    EntryFrom.Done,
                    EndWords(ended.Reason),
                    Why(ended.Words, rows)
                ),
                Happening.TakenUp => new(EntrySort.Notes, EntryFrom.Done, "Taken up again"),
                Happening.RestBegan rest => new(
                    EntrySort.Notes,
                    EntryFrom.Done,
                    rest.Until is { } until ? $"Rests until {DateWords.Long(until)}" : "Rests",
                    Why(rest.Why, rows)
                ),
                Happening.RestEnded => new(EntrySort.Notes, EntryFrom.Done, "The rest is over"),
                Happening.NotWonAfterAll => new(EntrySort.Notes, EntryFrom.Done, "Not won after all"),
                Happening.StepStopped stopped => new(
                    EntrySort.Steps,
                    EntryFrom.Done,
                    $"{ShortText.Capital(StepOf(stopped.Step, rows))} stopped",
                    StopWords(stopped.Why, rows)
                ),
                Happening.StepFixed set => new(
                    EntrySort.Steps,
                    EntryFrom.Done,
                    $"{ShortText.Capital(StepOf(set.Step, rows))} set to {DateWords.Long(set.At.Date)}",
                    "by hand"
                ),
                Happening.PhaseSet phase => new(
                    EntrySort.Work,
                    EntryFrom.Done,
                    $"{ShortText.Capital(phase.Phase)}: {PhaseWords(phase.State)}"
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
                    $"Client page: {PartWords(part.Part)} opened"
                ),
                Happening.PartClosed part => new(
                    EntrySort.Work,
                    EntryFrom.Done,
                    $"Client page: {PartWords(part.Part)} closed"
                ),
                Happening.PutAway => new(EntrySort.Notes, EntryFrom.Done, "Put away"),
                Happening.TakenOut => new(EntrySort.Notes, EntryFrom.Done, "Back in the daily lists"),
                Happening.Unreadable => Untold,
                Happening.StepSkipped skipped => new(
                    EntrySort.Steps,
                    EntryFrom.Done,
                    $"{ShortText.Capital(StepOf(skipped.Step, rows))} skipped"
                ),
                _ => null,
            };

    /// <summary>An entry whose fact or rows are damaged.</summary>
    public static LineWords Untold { get; } =
        new(EntrySort.Notes, EntryFrom.Note, Hosting.Untold.Words, Hosting.Untold.Detail);

    /// <summary>Steps stopped at one instant for one reason stand on the line once.</summary>
    public static IEnumerable<Gathered> Gather(IEnumerable<Fact> facts) =>
        from fact in facts
        group fact by fact.What is Happening.StepStopped stopped
            ? (fact.Recorded, stopped.Why, 0L)
            : (fact.Recorded, StopRule.Ended, fact.Id.Value) into same
        select new Gathered(
            same.First(),
            [.. same.Select(fact => fact.What).OfType<Happening.StepStopped>().Select(stopped => stopped.Step)]
        );

    private static LineWords Stopped(Gathered happened, LineRows rows)
    {
        var why = StopWords(((Happening.StepStopped)happened.Fact.What).Why, rows);
        var names = happened
            .Steps.Select(step => StepOf(step, rows))
            .GroupBy(name => name)
            .Select(same => same.Count() > 1 ? $"{same.Key} ({same.Count()})" : same.Key);
        return new(
            EntrySort.Steps,
            EntryFrom.Done,
            $"{happened.Steps.Count} planned steps stopped {why}",
            string.Join(", ", names)
        );
    }

    public static string EndWords(EndReason reason) =>
        reason switch
        {
            EndReason.Declined => "Declined by us",
            EndReason.Referred => "Referred to a colleague",
            EndReason.Lost => "Lost: they decided otherwise",
            EndReason.GoneQuiet => "Gone quiet",
            EndReason.Cancelled => "Cancelled",
            _ => "Not an inquiry",
        };

    public static string StopWords(StopRule why, LineRows rows) =>
        why switch
        {
            StopRule.Answered => $"because {rows.Client} answered",
            StopRule.Opened => $"because {rows.Client} opened the proposal",
            StopRule.Chosen => $"because {rows.Client} chose",
            StopRule.Signed => $"because {rows.Client} signed",
            StopRule.Paid => "because it was paid",
            StopRule.Ended => "because the project ended",
            StopRule.Resting => "because the project rests",
            StopRule.FormReturned => $"because {rows.Client} returned the form",
            StopRule.HandedOver => "because it was handed over",
            StopRule.ByHand => "by hand",
            StopRule.PutAway => "because the project was put away",
            StopRule.Past => "because the date it speaks of has come",
            StopRule.NotTheirs => "because it was not their turn",
            StopRule.Finished => "because the project was finished",
            StopRule.Replaced => "because a newer one took its place",
            StopRule.CauseGone => "because what they hung on was taken back",
            _ => "because a proposal took its place",
        };

    public static string StepOf(StepRef step, LineRows rows) =>
        rows.StepNames.GetValueOrDefault($"{step.Run.Value}:{step.Step}", step.Step);

    private static LineWords Letter(LetterRow letter, LineRows rows, bool automatic) =>
        new(
            EntrySort.Letters,
            EntryFrom.Client,
            $"{rows.Client}: “{ShortText.Of(letter.Body)}”",
            automatic ? "an automatic reply, which answers nothing" : letter.Subject,
            Open(letter.Id)
        );

    private static LineWords Sent(LetterRow letter, bool byItself, LineRows rows) =>
        new(
            EntrySort.Letters,
            EntryFrom.Done,
            $"Letter “{letter.Subject}”",
            byItself ? "sent by itself" : $"from {rows.Owner}",
            Open(letter.Id)
        );

    private static LineWords Note(NoteRow note, string detail) =>
        new(EntrySort.Notes, EntryFrom.Note, ShortText.Of(note.Text), detail, new(OpensWhat.Note, note.Id.Value));

    private static string Why(NoteId? note, LineRows rows) => note is { } id ? rows.Notes[id].Text : "";

    public static string RoundOf(ReviewId review, LineRows rows)
    {
        var number = rows.Rounds.GetValueOrDefault(review) is { } round ? $"round {round}" : "a withdrawn round";
        return ShortText.Capital(rows.Reviews[review].Phase is { } phase ? $"{phase}, {number}" : number);
    }

    private static string Low(string words) => char.ToLowerInvariant(words[0]) + words[1..];

    public static string PhaseWords(PhaseState state) =>
        state switch
        {
            PhaseState.Ahead => "ahead",
            PhaseState.InWork => "in work",
            PhaseState.Resting => "resting",
            _ => "done",
        };

    private static string GroupWords(FileGroup group, FileRow file) =>
        group switch
        {
            FileGroup.Supplied => file.By == Actor.Client ? "supplied by the client" : "supplied",
            FileGroup.Drafts => $"draft {file.Version}{(file.Phase is { } phase ? $", {phase}" : "")}",
            _ => "final",
        };

    public static string PartWords(PagePart part) =>
        part switch
        {
            PagePart.Whole => "the project as a whole",
            PagePart.Drafts => "drafts",
            PagePart.Files => "files",
            _ => "help",
        };

    private static string MeansOf(PaymentRow payment, LineRows rows) =>
        $"{MeansOf(payment)}{(payment.InvoiceId is { } invoice ? $", invoice {rows.Invoices[invoice].Number}" : ", ahead of any invoice")}";

    private static string MeansOf(PaymentRow payment) =>
        payment.Means switch
        {
            PaymentMeans.Card => "by card",
            PaymentMeans.Transfer => "by transfer",
            PaymentMeans.Cash => "in cash",
            _ => "by cheque",
        };

    private static OpensDto Open(LetterId letter) => new(OpensWhat.Letter, letter.Value);
}
