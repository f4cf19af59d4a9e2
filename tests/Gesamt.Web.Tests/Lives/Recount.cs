using System.Security.Cryptography;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace Gesamt.Web.Tests.Lives;

/// <summary>A fact as it lies in the file, read without the product's code.</summary>
public sealed record RawFact(long Id, long Project, long Happened, long Recorded, string By, string Kind, JsonObject Of)
{
    public long Number(string name) => Of[name]?.GetValue<long>() ?? 0;

    public long Minor(string name) => Of[name]?["minor"]?.GetValue<long>() ?? 0;
}

public sealed record RawTask(long Project, string? Due);

public sealed record RawProject(
    long Id,
    JsonObject Rules,
    string Stage,
    string Turn,
    string? Ended,
    bool Booked,
    long? Agreed,
    long Paid,
    long Owed,
    bool Rehearsal,
    bool PutAway
);

public sealed record RawLetter(
    long Id,
    long? Project,
    string State,
    string? Template,
    bool ByItself,
    string ToMail,
    long? Run,
    string? Step,
    int? Occurrence,
    long At
);

public sealed record RawInvoice(long Id, long Project, string Sort, long Total, long Owed);

public sealed record RawVersion(long Id, byte[] Canonical, string Hash, long Project);

/// <summary>Everything a recount needs, straight from the file.</summary>
public sealed class RawStudio
{
    public IReadOnlyList<RawFact> Facts { get; }
    public IReadOnlyList<RawProject> Projects { get; }
    public IReadOnlyList<RawTask> OpenTasks { get; }
    public IReadOnlyList<RawLetter> Letters { get; }
    public IReadOnlyList<RawVersion> Versions { get; }
    public IReadOnlyList<RawInvoice> Invoices { get; }

    public RawStudio(string database)
    {
        using var open = new SqliteConnection($"Data Source={database};Mode=ReadOnly;Pooling=False");
        open.Open();
        List<T> All<T>(string sql, Func<SqliteDataReader, T> row)
        {
            using var command = open.CreateCommand();
            command.CommandText = sql;
            using var reader = command.ExecuteReader();
            List<T> rows = [];
            while (reader.Read())
                rows.Add(row(reader));
            return rows;
        }
        Facts = All(
            "SELECT Id, ProjectId, Happened, Recorded, \"By\", Kind, Payload FROM Facts ORDER BY Recorded, Id",
            r => new RawFact(
                r.GetInt64(0),
                r.GetInt64(1),
                r.GetInt64(2),
                r.GetInt64(3),
                r.GetString(4),
                r.GetString(5),
                JsonNode.Parse(r.GetString(6))!.AsObject()
            )
        );
        Projects = All(
            "SELECT Id, Rules, Standing_Stage, Standing_Turn, Standing_Ended, Standing_BookedAt, Standing_AgreedMinor, Standing_PaidMinor, Standing_OwedMinor, Rehearsal, Standing_PutAway FROM Projects JOIN PinnedRules ON ProjectId = Id",
            r => new RawProject(
                r.GetInt64(0),
                JsonNode.Parse(r.GetString(1))!.AsObject(),
                r.GetString(2),
                r.GetString(3),
                r.IsDBNull(4) ? null : r.GetString(4),
                !r.IsDBNull(5),
                r.IsDBNull(6) ? null : r.GetInt64(6),
                r.GetInt64(7),
                r.GetInt64(8),
                r.GetInt64(9) == 1,
                r.GetInt64(10) == 1
            )
        );
        OpenTasks = All(
            "SELECT ProjectId, Due FROM Tasks WHERE DoneAt IS NULL AND Removed = 0",
            r => new RawTask(r.GetInt64(0), r.IsDBNull(1) ? null : r.GetString(1))
        );
        Letters = All(
            "SELECT Id, ProjectId, State, Template, ByItself, ToMail, RunId, Step, Occurrence, At FROM Letters",
            r => new RawLetter(
                r.GetInt64(0),
                r.IsDBNull(1) ? null : r.GetInt64(1),
                r.GetString(2),
                r.IsDBNull(3) ? null : r.GetString(3),
                r.GetInt64(4) == 1,
                r.GetString(5),
                r.IsDBNull(6) ? null : r.GetInt64(6),
                r.IsDBNull(7) ? null : r.GetString(7),
                r.IsDBNull(8) ? null : r.GetInt32(8),
                r.GetInt64(9)
            )
        );
        Invoices = All(
            "SELECT Id, ProjectId, Sort, TotalMinor, OwedMinor FROM Invoices",
            r => new RawInvoice(r.GetInt64(0), r.GetInt64(1), r.GetString(2), r.GetInt64(3), r.GetInt64(4))
        );
        Versions = All(
            "SELECT Id, Canonical, Hash, ProjectId FROM Versions",
            r => new RawVersion(r.GetInt64(0), (byte[])r.GetValue(1), r.GetString(2), r.GetInt64(3))
        );
    }
}

/// <summary>Where a project stands, counted naively from its facts as the rules of the trade say, without a line of the product.</summary>
public sealed class Recount
{
    private readonly List<RawFact> facts;
    private readonly JsonObject rules;

    public Recount(RawProject project, IEnumerable<RawFact> all)
    {
        rules = project.Rules;
        // what was taken back was never there
        facts = [.. all];
        foreach (var of in all.Where(f => f.Kind is "NoteTakenBack" or "NotePutBack").GroupBy(f => f.Number("note")))
            if (of.MaxBy(f => (f.Recorded, f.Id))!.Kind == "NoteTakenBack")
                facts.RemoveAll(f => f.Kind is "NoteWritten" or "CallHeld" && f.Number("note") == of.Key);
        foreach (var again in all.Where(f => f.Kind is "MeetingAsksAgain" or "StepAsksAgain"))
            if (facts.LastOrDefault(f => IsTakenBackBy(f, again)) is { } answer)
                facts.Remove(answer);
    }

    private static bool IsTakenBackBy(RawFact answer, RawFact again) =>
        After(again, answer)
        && (
            again.Kind == "MeetingAsksAgain"
                ? answer.Kind is "MeetingHeld" or "MeetingMissed" && answer.Number("meeting") == again.Number("meeting")
                : (answer.Kind == "StepSkipped" || answer.Kind == "StepDone" && answer.Of["letter"] is null)
                    && JsonNode.DeepEquals(answer.Of["step"], again.Of["step"])
        );

    private IEnumerable<RawFact> Of(params string[] kinds) => facts.Where(f => kinds.Contains(f.Kind));

    private RawFact? Last(params string[] kinds) => Of(kinds).LastOrDefault();

    private bool Any(params string[] kinds) => Of(kinds).Any();

    private static bool After(RawFact later, RawFact earlier) =>
        later.Recorded > earlier.Recorded || later.Recorded == earlier.Recorded && later.Id > earlier.Id;

    private List<RawFact> Payments()
    {
        var gone = Of("PaymentVoided", "PaymentChargedBack").Select(f => f.Number("payment")).ToHashSet();
        return [.. Of("PaymentReceived").Where(f => !gone.Contains(f.Number("payment")))];
    }

    /// <summary>What was given back of payments that still count.</summary>
    private List<RawFact> Refunds()
    {
        var standing = Payments().Select(f => f.Number("payment")).ToHashSet();
        return [.. Of("PaymentRefunded").Where(f => standing.Contains(f.Number("payment")))];
    }

    public long Paid => Payments().Sum(f => f.Minor("amount")) - Refunds().Sum(f => f.Minor("amount"));

    private IEnumerable<RawFact> Besides => Of("InvoiceIssued").Where(f => f.Of["extra"]?.GetValue<bool>() == true);

    private long CreditedOn(long invoice) =>
        Of("InvoiceCredited").Where(f => f.Number("invoice") == invoice).Sum(f => f.Minor("amount"));

    /// <summary>Of all that was paid what is for the price: an invoice besides it takes what it asks for first, and what goes back is first what the price had.</summary>
    private long PaidOfPrice(bool goodwill)
    {
        var asks = Besides.ToDictionary(
            f => f.Number("invoice"),
            f => f.Minor("amount") - CreditedOn(f.Number("invoice"))
        );
        var had = new Dictionary<long, long>();
        foreach (var payment in Payments().OrderBy(f => f.Happened))
        {
            var amount = payment.Minor("amount");
            if (payment.Of["invoice"] is not null && asks.TryGetValue(payment.Number("invoice"), out var asked))
            {
                var taken = Math.Min(asked, amount);
                asks[payment.Number("invoice")] = asked - taken;
                amount -= taken;
            }
            had[payment.Number("payment")] = amount;
        }
        foreach (var refund in Refunds().Where(f => goodwill || f.Of["note"] is null))
            had[refund.Number("payment")] = Math.Max(0, had[refund.Number("payment")] - refund.Minor("amount"));
        return had.Values.Sum();
    }

    public long? Agreed =>
        Last("ProposalAccepted", "PriceAgreed", "PriceAmended") is { } price ? price.Minor("agreed") : null;
    public string? Ended =>
        Last("Ended") is { } end && !(Last("TakenUp") is { } up && After(up, end)) ? (string)end.Of["reason"]! : null;

    /// <summary>An agreed part is invoiced as it was agreed, unless it is billed again after a credit note.</summary>
    /// <returns>Which was not; null where all were.</returns>
    public static string? BilledOtherwise(IEnumerable<RawFact> facts)
    {
        JsonArray agreed = [];
        HashSet<int> billed = [];
        foreach (var fact in facts.OrderBy(f => f.Recorded).ThenBy(f => f.Id))
            if (fact.Kind is "ProposalAccepted" or "PriceAgreed" or "PriceAmended")
                agreed = fact.Of["parts"]!.AsArray();
            else if (fact.Kind == "InvoiceIssued" && (int?)fact.Of["part"] is { } part && billed.Add(part))
                if (
                    agreed[part]!["amount"]!["minor"]!.GetValue<long>() is var promised
                    && promised != fact.Minor("amount")
                )
                    return $"part {part} was agreed at {promised} and invoiced at {fact.Minor("amount")}";
        return null;
    }

    /// <summary>Issued less credited less paid, and what was given back of it; all that is more than an invoice asks for is taken by those that are open.</summary>
    public long Owed
    {
        get
        {
            long On(RawFact? invoice) =>
                Payments()
                    .Where(f =>
                        invoice is null
                            ? f.Of["invoice"] is null
                            : f.Of["invoice"] is not null && f.Number("invoice") == invoice.Number("invoice")
                    )
                    .Sum(f =>
                        f.Minor("amount")
                        - Refunds()
                            .Where(refund => refund.Number("payment") == f.Number("payment"))
                            .Sum(refund => refund.Minor("amount"))
                    );
            var open = Of("InvoiceIssued")
                .Select(f => f.Minor("amount") - CreditedOn(f.Number("invoice")) - On(f))
                .ToList();
            var ahead = On(null) - open.Where(one => one < 0).Sum();
            var asked = open.Where(one => one > 0).Sum();
            return asked - Math.Clamp(ahead, 0, asked);
        }
    }

    /// <summary>Credited for good: what was credited at an end that was taken back is owed again; what was credited before an amendment its price leaves out.</summary>
    private long Forgiven =>
        Of("InvoiceCredited")
            .Where(f => f.Of["atEnd"]?.GetValue<bool>() == false || !(Last("TakenUp") is { } up && After(up, f)))
            .Where(f => !(Last("PriceAmended") is { } amended && After(amended, f)))
            .Where(f => Besides.All(besides => besides.Number("invoice") != f.Number("invoice")))
            .Sum(f => f.Minor("amount"));

    private bool Closed(string gate, bool before)
    {
        if (Of("GateWaived").Any(f => (string)f.Of["gate"]! == gate))
            return true;
        switch (gate)
        {
            case "Lead":
                return Last("MarkedFit", "FitTakenBack")?.Kind == "MarkedFit"
                    && rules["demands"]!
                        .AsArray()
                        .All(d => Of("DetailKnown").Any(f => (string)f.Of["detail"]! == (string)d!));
            case "Proposal":
                return Agreed is not null;
            case "Contract":
                var voided = Of("ContractVoided").Select(f => f.Number("contract")).ToHashSet();
                return Of("ContractSigned")
                    .Where(f => !voided.Contains(f.Number("contract")) && !Amendments.Contains(f.Number("contract")))
                    .GroupBy(f => f.Number("contract"))
                    .Any(c => c.Select(f => (string)f.Of["signer"]!).Distinct().Count() == 2);
            case "Payment":
                return Last("ProposalAccepted", "PriceAgreed") is { } price
                    && (
                        price.Minor("dueOnBooking") == 0
                            ? before
                            : PaidOfPrice(goodwill: false) >= price.Minor("dueOnBooking")
                    );
            default:
                return Any("HandedOver")
                    && Any("Approved")
                    && Agreed is { } agreed
                    && PaidOfPrice(goodwill: true) >= agreed - Forgiven
                    && ClosingStepsDone();
        }
    }

    private HashSet<long> Amendments =>
        [.. Of("ContractSent").Where(f => f.Of["amends"] is not null).Select(f => f.Number("contract"))];

    private bool ClosingStepsDone()
    {
        var open = new Dictionary<long, bool>();
        foreach (var f in facts)
            if (f.Kind == "TaskMade" && f.Of["closing"]?.GetValue<bool>() == true)
                open[f.Number("task")] = true;
            else if (f.Kind is "TaskDone" or "TaskReopened" && open.ContainsKey(f.Number("task")))
                open[f.Number("task")] = f.Kind == "TaskReopened";
            else if (f.Kind == "TaskRemoved")
                open.Remove(f.Number("task"));
        return open.Values.All(isOpen => !isOpen);
    }

    private Dictionary<string, bool> Gates()
    {
        var closed = new Dictionary<string, bool>();
        var before = false;
        foreach (var gate in rules["gates"]!.AsArray().Select(g => (string)g!))
            before = closed[gate] = Closed(gate, before);
        if (closed.ContainsKey("Lead") && (Any("ProposalSent") || closed.Any(g => g.Key != "Lead" && g.Value)))
            closed["Lead"] = true;
        return closed;
    }

    public string Stage => Gates().FirstOrDefault(g => !g.Value).Key ?? "Finished";

    /// <summary>Won once, won for good: looked at after every fact; “not won after all” takes it back, and with it all that was evidence until then.</summary>
    public bool Booked
    {
        get
        {
            var (won, from) = (false, 0);
            for (var i = 0; i < facts.Count; i++)
                if (facts[i].Kind == "NotWonAfterAll")
                    (won, from) = (false, i + 1);
                else if (!won)
                    won = new Recount(
                        rules,
                        [
                            .. facts
                                .Take(i + 1)
                                .Where(
                                    (f, at) =>
                                        at >= from
                                        || f.Kind is not ("ContractSigned" or "GateWaived" or "PaymentReceived")
                                ),
                        ]
                    ).IsMet;
            return won;
        }
    }

    private Recount(JsonObject rules, List<RawFact> facts) => (this.rules, this.facts) = (rules, facts);

    private bool IsMet
    {
        get
        {
            var gates = Gates();
            bool Is(string gate) => gates.GetValueOrDefault(gate, true);
            return (string)rules["win"]! switch
            {
                "Signature" => Is("Contract"),
                "Payment" => Is("Payment"),
                _ => Is("Contract") && Is("Payment"),
            };
        }
    }

    /// <summary>Letters that only reminded: they answer nothing.</summary>
    private HashSet<long> Reminders() =>
        [
            .. Of("StepDone")
                .Where(f => f.Of["letter"] is not null && Reminding.Contains((string)f.Of["step"]!["step"]!))
                .Select(f => f.Number("letter")),
        ];

    private static readonly string[] Reminding =
    [
        "still-interested",
        "still-interested-again",
        "did-it-reach-you",
        "still-open",
        "runs-out-soon",
        "contract-waiting",
        "before",
        "late-1",
        "late-3",
        "late-7",
        "late-14",
        "look-it-over",
        "look-it-over-again",
    ];

    /// <summary>Whose turn it is, where it is plain; null where it takes the whole rule.</summary>
    public string? Turn(long now, string today, IEnumerable<RawTask> openTasks)
    {
        var reminders = Reminders();
        bool IsAnswer(RawFact f) =>
            f.Kind
                is "CallHeld"
                    or "PriceAgreed"
                    or "NoAnswerNeeded"
                    or "ProposalSent"
                    or "ContractSent"
                    or "ReviewOpened"
                    or "TakenUp"
                    or "MeetingHeld"
                    or "BriefPut"
            || f.Kind == "LetterSent"
                && f.Of["byItself"]?.GetValue<bool>() == false
                && !reminders.Contains(f.Number("letter"));
        var answered = facts.LastOrDefault(IsAnswer);
        var said = facts
            .Where(f =>
                (
                    f.Kind
                        is "InquiryCame"
                            or "ChangeAsked"
                            or "ContractAsked"
                            or "InvoiceAsked"
                            or "RefundRefused"
                            or "ContractDeclined"
                            or "RateSheetTicked"
                            or "FormReturned"
                            or "BriefRemarked"
                            or "PartAsked"
                    || f.Kind == "LetterReceived" && f.Of["automatic"]?.GetValue<bool>() != true
                    || f.Kind == "MeetingCancelled" && f.Of["byClient"]?.GetValue<bool>() == true
                ) && (answered is null || After(f, answered))
            )
            .ToList();
        var quiet = new[] { Ended is null ? null : Last("Ended"), Last("RestBegan") }
            .OfType<RawFact>()
            .OrderBy(f => f.Recorded)
            .ThenBy(f => f.Id)
            .LastOrDefault();
        // at one instant of a standing clock, and where something older was left unanswered too, it takes the whole rule
        if (quiet is not null && said.Any(f => f.Happened >= quiet.Recorded))
            return said.All(f => f.Happened > quiet.Recorded) ? "Yours" : null;
        var dueTask = openTasks.Any(t => t.Due is { } due && string.CompareOrdinal(due, today) <= 0);
        // what was declined, remarked, not charged or is to be closed with a task takes the whole rule
        if (Ended is not null)
            return dueTask || Any("ProposalDeclined", "RemarkLeft", "ChargeRefused") ? null : "Nobodys";
        if (Last("RestBegan") is not null)
            return null;
        if (Stage == "Finished")
            return dueTask ? "Yours" : null;
        if (said.Count > 0)
            return "Yours";
        return dueTask ? "Yours" : null;
    }

    /// <summary>What of a letter's own words was not so when it left; null when they were, or nobody can tell.</summary>
    /// <param name="occurrence">Which of several invoices it speaks of.</param>
    /// <param name="day">The day it left, in the studio's zone.</param>
    public string? Untruth(RawFact sent, string template, int occurrence, string day)
    {
        var before = facts.Where(f => After(sent, f)).ToList();
        var then = new Recount(rules, before);
        var proposal = before.LastOrDefault(f => f.Kind == "ProposalSent");
        bool Since(RawFact? since, params string[] kinds) =>
            since is not null && before.Any(f => kinds.Contains(f.Kind) && After(f, since));
        return template switch
        {
            "still-interested" or "last-question" => then.OwnerOwes(),
            "did-it-reach-you" when Since(proposal, "ProposalOpened", "ProposalAccepted", "ProposalDeclined") =>
                "asks whether the proposal arrived after it was opened or answered",
            "still-open"
            or "runs-out-soon"
                when Since(proposal, "ProposalAccepted", "ProposalDeclined", "ProposalWithdrawn", "PriceAgreed") =>
                "says the proposal is open after it was answered or withdrawn",
            "still-open" when !Since(proposal, "ProposalOpened") =>
                "says they have looked at a proposal that was never opened",
            "contract-waiting"
                when before.LastOrDefault(f => f.Kind == "ContractSent" && f.Of["amends"] is null) is { } contract
                    && before.Any(f =>
                        f.Kind == "ContractSigned"
                            && (string)f.Of["signer"]! == "Client"
                            && f.Number("contract") == contract.Number("contract")
                        || f.Kind is "ContractDeclined" or "ContractVoided"
                            && f.Number("contract") == contract.Number("contract")
                    ) => "says the contract waits after it was signed, declined or voided",
            "payment-before" or "payment-late" when then.Owed == 0 => "asks for money when nothing is owed",
            "payment-before"
                when before.Where(f => f.Kind == "InvoiceIssued").ElementAtOrDefault(occurrence) is { } invoice
                    && string.CompareOrdinal((string)invoice.Of["due"]!, day) < 0 => "says that something past is due",
            "look-it-over" when before.Any(f => f.Kind == "Approved") =>
                "asks whether it was looked over after it was approved",
            "welcome" when !then.Booked => "welcomes whoever has not booked",
            "receipt" when !before.Any(f => f.Kind == "PaymentReceived") => "thanks for a payment that never came",
            "signed" when !before.Any(f => f.Kind == "ContractSigned" && (string)f.Of["signer"]! == "Client") =>
                "thanks for a signature that was never given",
            "before-the-date" or "start-questions" or "neighbours" when before.Any(f => f.Kind == "HandedOver") =>
                "prepares what was handed over",
            "before-the-date"
                when before.LastOrDefault(f =>
                    f.Kind == "DateSet" && (string)f.Of["name"]! == (string)rules["mainDate"]!
                )
                    is { } date
                    && string.CompareOrdinal((string)date.Of["date"]!, day) < 0 => "speaks of a date that is past",
            _ => null,
        };
    }

    /// <summary>“I have not heard from you since”: why that is not so; null when the owner's own word was the last.</summary>
    private string? OwnerOwes()
    {
        var reminders = Reminders();
        var last = facts.LastOrDefault(f =>
            f.Kind
                is "InquiryCame"
                    or "CallHeld"
                    or "MarkedFit"
                    or "MeetingBooked"
                    or "MeetingHeld"
                    or "MeetingMissed"
                    or "PriceAgreed"
                    or "FormReturned"
                    or "FormAsked"
                    or "RateSheetSent"
                    or "RateSheetTicked"
                    or "MeetingOffered"
                    or "ProposalAccepted"
            || f.Kind == "LetterReceived" && f.Of["automatic"]?.GetValue<bool>() != true
            || f.Kind == "LetterSent"
                && f.Of["byItself"]?.GetValue<bool>() == false
                && !reminders.Contains(f.Number("letter"))
        );
        return last?.Kind is "LetterSent" or "FormAsked" or "MeetingOffered" or "RateSheetSent"
            ? null
            : $"asks why nobody answered, and the last word was {last?.Kind ?? "nobody's"}";
    }

    public static bool IsSealed(RawVersion version) =>
        Convert.ToHexStringLower(SHA256.HashData(version.Canonical)) == version.Hash;
}
