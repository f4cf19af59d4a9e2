using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Store.Model;

namespace Gesamt.Web.Words;

/// <summary>The rows that facts point to, so that the line can say them in words.</summary>
public sealed class LineRows
{
    /// <summary>Letters of the project, by number.</summary>
    public required IReadOnlyDictionary<LetterId, LetterRow> Letters { get; init; }

    /// <summary>Notes, calls and words.</summary>
    public required IReadOnlyDictionary<NoteId, NoteRow> Notes { get; init; }

    /// <summary>Tasks, also those done.</summary>
    public required IReadOnlyDictionary<TaskId, TaskRow> Tasks { get; init; }

    /// <summary>Invoices and credit notes.</summary>
    public required IReadOnlyDictionary<InvoiceId, InvoiceRow> Invoices { get; init; }

    /// <summary>Payments, also those taken back.</summary>
    public required IReadOnlyDictionary<PaymentId, PaymentRow> Payments { get; init; }

    /// <summary>What a payment was over.</summary>
    public Money AmountOf(PaymentId payment) =>
        new(Payments[payment].AmountMinor, Currency.Of(Payments[payment].Currency));

    /// <summary>Versions of proposals and contracts.</summary>
    public required IReadOnlyDictionary<VersionId, VersionRow> Versions { get; init; }

    /// <summary>Files.</summary>
    public required IReadOnlyDictionary<FileId, FileRow> Files { get; init; }

    /// <summary>Drafts put up for approval.</summary>
    public required IReadOnlyDictionary<ReviewId, ReviewRow> Reviews { get; init; }

    /// <summary>Meetings.</summary>
    public required IReadOnlyDictionary<MeetingId, MeetingRow> Meetings { get; init; }

    /// <summary>Rounds of review by their number; those by mistake have none.</summary>
    public required IReadOnlyDictionary<ReviewId, int?> Rounds { get; init; }

    /// <summary>Titles of the forms that are asked for.</summary>
    public required IReadOnlyDictionary<int, string> Forms { get; init; }

    /// <summary>What the steps of the runs do, by run and key.</summary>
    public required IReadOnlyDictionary<string, string> StepNames { get; init; }

    /// <summary>Letters that were stopped for a reason since undone, and whose time has passed.</summary>
    public required string Missed { get; init; }

    /// <summary>Signatures of the project, by what is signed.</summary>
    public ILookup<VersionId, SignatureRow> Signatures { get; init; } =
        Array.Empty<SignatureRow>().ToLookup(signature => signature.VersionId);

    /// <summary>Versions that are amendments.</summary>
    public IReadOnlySet<VersionId> Amendments { get; init; } = new HashSet<VersionId>();

    /// <summary>Rate sheets, by number.</summary>
    public IReadOnlyDictionary<int, string> RateSheets { get; init; } = new Dictionary<int, string>();

    /// <summary>What clients keep to be charged, as the provider says it.</summary>
    public IReadOnlyDictionary<KeptMeansId, string> Means { get; init; } = new Dictionary<KeptMeansId, string>();

    /// <summary>The client's first name.</summary>
    public required string Client { get; init; }
    public required string Owner { get; init; }

    /// <summary>What the date that matters is called.</summary>
    public required string MainDate { get; init; }

    /// <summary>An instant in the studio's words.</summary>
    public required Func<NodaTime.Instant, string> When { get; init; }

    /// <summary>“the contract”, or “the amendment”.</summary>
    public string ContractWords(VersionId version) => Amendments.Contains(version) ? "the amendment" : "the contract";

    /// <summary>The first name of whoever of several signed; of the client where one signs alone.</summary>
    public string SignedBy(VersionId version) =>
        Signatures[version].LastOrDefault(signature => signature.PersonId is not null) is { } last
            ? FirstName(last.Name)
            : Client;

    public string NameOf(VersionId version, PersonId person) =>
        Signatures[version].FirstOrDefault(signature => signature.PersonId == person) is { } signed
            ? FirstName(signed.Name)
            : Client;

    private static string FirstName(string name) => name.Split(' ')[0];
}

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

/// <summary>Facts in words. Returns null for what is <see cref="Silent"/>: only bookkeeping, which stands on the line through something else.</summary>
public static partial class LineText
{
    /// <summary>The words of an entry; null for what the line is silent about.</summary>
    public static LineWords? Of(Gathered happened, LineRows rows) =>
        happened.Steps.Count > 1
            ? Stopped(happened, rows)
            : Letters(happened.Fact, rows)
                ?? Meetings(happened.Fact, rows)
                ?? Papers(happened.Fact, rows)
                ?? Money(happened.Fact, rows)
                ?? Tasks(happened.Fact, rows)
                ?? Work(happened.Fact, rows)
                ?? Steps(happened.Fact, rows)
                ?? Notes(happened.Fact, rows);

    /// <summary>What stands on the line through something else, and so has no words of its own.</summary>
    public static IReadOnlySet<Type> Silent { get; } =
        new HashSet<Type>
        {
            typeof(Happening.DetailKnown), // the answers, or the sheet
            typeof(Happening.NoteTakenBack), // its note goes with it
            typeof(Happening.NotePutBack),
            typeof(Happening.MeetingAsksAgain),
            typeof(Happening.StepAsksAgain), // the answer goes with it
            typeof(Happening.ContractSent), // the letter that carried it, or the choice
            typeof(Happening.FileShown), // the file
            typeof(Happening.FileHidden),
            typeof(Happening.TaskMade), // the sheet, until it is done
            typeof(Happening.RunSheetKept), // the sheet
            typeof(Happening.AccessNoted), // the sheet
            typeof(Happening.PraiseKept), // the letter or note it stands in, and the sheet
            typeof(Happening.HoursKept), // the sheet
            typeof(Happening.CostKept),
            typeof(Happening.TaskMoved),
            typeof(Happening.TaskRemoved),
            typeof(Happening.TaskReopened),
            typeof(Happening.RunBegan), // what lies ahead
            typeof(Happening.StepHeld), // what waits for an OK
            typeof(Happening.StepReplanned),
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

    private static string MeansOf(PaymentRow payment, LineRows rows) =>
        $"{MeansOf(payment)}{(payment.InvoiceId is { } invoice ? $", invoice {rows.Invoices[invoice].Number}" : ", ahead of any invoice")}";

    /// <summary>“by card”.</summary>
    internal static string MeansOf(PaymentRow payment) =>
        payment.Means switch
        {
            PaymentMeans.Card => "by card",
            PaymentMeans.Transfer => "by transfer",
            PaymentMeans.Cash => "in cash",
            PaymentMeans.Account => "from their account",
            _ => "by cheque",
        };

    private static OpensDto Open(LetterId letter) => new(OpensWhat.Letter, letter.Value);
}
