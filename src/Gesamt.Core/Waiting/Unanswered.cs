using Gesamt.Core.Amounts;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Projects;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Core.Waiting;

/// <summary>What the client said or did that the owner has not answered.</summary>
public static class Unanswered
{
    /// <summary>What the client said or did that nobody has answered.</summary>
    public static IEnumerable<Wait> Of(Case project)
    {
        var history = project.History;
        if (First<Happening.InquiryCame>(project) is { } inquiry)
            yield return new(WaitKind.AnswerInquiry, inquiry.Happened, "Answer the inquiry");
        if (First<Happening.LetterReceived>(project, letter => !letter.Automatic) is { } letter)
            yield return new(WaitKind.AnswerLetter, letter.Happened, "Answer their letter");
        if (First<Happening.ChangeAsked>(project) is { } change)
            yield return new(WaitKind.ChangeAsked, change.Happened, AskedWords(change.What.Sort));
        if (First<Happening.ProposalDeclined>(project) is { } declined && !history.Any<Happening.ProposalAccepted>())
            yield return new(WaitKind.Declined, declined.Happened, "They declined the proposal");
        if (First<Happening.ContractAsked>(project) is { } objected)
            yield return new(WaitKind.ContractAsked, objected.Happened, AskedOfContract(objected.What.Sort));
        if (First<Happening.ContractDeclined>(project) is { } unsigned)
            yield return new(WaitKind.ContractDeclined, unsigned.Happened, "They declined to sign");
        if (First<Happening.InvoiceAsked>(project) is { } bill)
            yield return new(
                WaitKind.InvoiceAsked,
                bill.Happened,
                bill.What.Sort == AskSort.Objection ? "They object to an invoice" : "They asked about an invoice"
            );
        if (First<Happening.RefundRefused>(project) is { } refused)
            yield return new(
                WaitKind.RefundRefused,
                refused.Happened,
                $"Give {MoneyText.Of(refused.What.Amount)} back by another way"
            );
        if (
            First<Happening.ChargeRefused>(project, one => one.Again is null) is { } charge
            && Owed.Open(history).Any(open => open.Invoice.What.Invoice == charge.What.Invoice)
        )
            yield return new(
                WaitKind.ChargeRefused,
                charge.Happened,
                $"{MoneyText.Of(charge.What.Amount)} could not be charged"
            );
        if (First<Happening.RateSheetTicked>(project) is { } ticked)
            yield return new(WaitKind.ReadRateSheet, ticked.Happened, "Read what they ticked");
        if (First<Happening.MeetingCancelled>(project, cancelled => cancelled.ByClient) is { } cancelled)
            yield return new(WaitKind.MeetingCancelled, cancelled.Happened, "They cancelled the meeting");
        if (First<Happening.FormReturned>(project) is { } form)
            yield return new(WaitKind.ReadForm, form.Happened, "Read the answers to the form");
        if (First<Happening.BriefRemarked>(project) is { } brief)
            yield return new(WaitKind.BriefRemarked, brief.Happened, "They remarked on the brief");
        // the next round answers the changes asked for and the remarks with them
        if (ReviewRule.ToRework(history) is null && First<Happening.RemarkLeft>(project) is { } remark)
            yield return new(WaitKind.AnswerRemark, remark.Happened, "They left a remark");
        if (First<Happening.PartAsked>(project) is { } asked)
            yield return new(WaitKind.AnswerRemark, asked.Happened, $"They ask {Sight.AskWords(asked.What.Part)}");
    }

    /// <summary>Whether the client objects to an invoice, and nobody has answered.</summary>
    public static bool Objects(Case project, InvoiceId invoice) =>
        First<Happening.InvoiceAsked>(project, asked => asked.Invoice == invoice && asked.Sort == AskSort.Objection)
            is not null;

    /// <summary>Whether the client asked about an invoice, or objects to it, and nobody has answered.</summary>
    public static bool Asked(Case project, InvoiceId invoice) =>
        First<Happening.InvoiceAsked>(project, asked => asked.Invoice == invoice) is not null;

    private static string AskedWords(AskSort sort) =>
        sort switch
        {
            AskSort.Question => "They asked about the proposal",
            AskSort.Objection => "They object to the proposal",
            _ => "They asked for a change",
        };

    private static string AskedOfContract(AskSort sort) =>
        sort switch
        {
            AskSort.Question => "They asked about the contract",
            AskSort.Objection => "They object to the contract",
            _ => "They asked for a change of the contract",
        };

    /// <summary>The oldest of a kind of fact since the owner last answered.</summary>
    private static Seen<T>? First<T>(Case project, Func<T, bool>? where = null)
        where T : Happening
    {
        var answered = Answers(project).LastOrDefault();
        foreach (var seen in project.History.Of<T>())
            if ((where is null || where(seen.What)) && (answered is null || History.IsAfter(seen.Fact, answered)))
                return seen;
        return null;
    }

    /// <summary>What answered the client. A letter that only reminded answers nothing, whoever gave it their OK.</summary>
    private static IEnumerable<Fact> Answers(Case project)
    {
        var nudges = Reminders.Letters(project);
        return project.History.Facts.Where(fact =>
            IsAnswer(fact.What) && !(fact.What is Happening.LetterSent sent && nudges.Contains(sent.Letter))
        );
    }

    /// <summary>A letter the owner wrote or gave an OK, a recorded call, a price agreed by word, “no answer needed”, a proposal sent; letters sent by themselves answer nothing.</summary>
    private static bool IsAnswer(Happening what) =>
        what
            is Happening.LetterSent { ByItself: false }
                or Happening.CallHeld
                or Happening.PriceAgreed
                or Happening.NoAnswerNeeded
                or Happening.ProposalSent
                or Happening.ContractSent
                or Happening.ReviewOpened
                or Happening.TakenUp
                or Happening.MeetingHeld
                or Happening.BriefPut;

    /// <summary>When a letter or a call last went one way or the other: what a decision waited for.</summary>
    public static Instant? LastExchange(Case project) =>
        Answers(project)
            .Concat(
                project
                    .History.Of<Happening.LetterReceived>()
                    .Where(letter => !letter.What.Automatic)
                    .Select(letter => letter.Fact)
            )
            .Select(fact => (Instant?)fact.Happened)
            .Max();
}
