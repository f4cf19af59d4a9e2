using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using NodaTime;

namespace Gesamt.Core.Invoicing;

/// <summary>An agreed instalment for which no invoice was issued yet.</summary>
/// <param name="Index">Which part of the agreement, from 0.</param>
/// <param name="On">The day its invoice goes out; null while what it hangs on is not known.</param>
/// <param name="Due">Its due date as it is known now.</param>
/// <param name="Again">The credit note that took back what is billed again, of a project that had ended and was taken up.</param>
public sealed record PlannedInvoice(
    int Index,
    int Of,
    Money Amount,
    LocalDate? On,
    LocalDate? Due,
    DueRule Rule,
    InvoiceId? Again = null
)
{
    /// <summary>The due day of one that is issued on a day: as planned, but never before it was issued.</summary>
    public LocalDate DueIfIssued(LocalDate on) => Due is { } due && due > on ? due : on;
}

/// <summary>Which instalments are still to be invoiced, and when. Dates follow the date that matters until the invoice is issued.</summary>
public static class Billing
{
    public static ImmutableArray<PlannedInvoice> Planned(Case project)
    {
        if (project.End is not null || AgreedPrice.Of(project.History) is not { } price)
            return [];
        return
        [
            .. from part in price.Parts.Select(
                (part, index) => (part.Due, Index: index, Open: StillToBill(project.History, index, part.Amount))
            )
            where part.Open.Amount.Minor > 0
            let dates = DatesOf(project, price, part.Due)
            select new PlannedInvoice(
                part.Index,
                price.Parts.Count(one => one.Amount.Minor > 0),
                part.Open.Amount,
                dates.On,
                dates.Due,
                part.Due,
                part.Open.Again
            ),
        ];
    }

    /// <summary>All of an instalment that was never issued; of one whose last invoice was credited at an end that was taken back since, what was credited.</summary>
    private static (Money Amount, InvoiceId? Again) StillToBill(History history, int part, Money agreed)
    {
        if (history.Last<Happening.InvoiceIssued>(issued => issued.Part == part) is not { What: var last })
            return (agreed, null);
        var credit = history.Last<Happening.InvoiceCredited>(credited =>
            credited.AtEnd && credited.Invoice == last.Invoice
        );
        // an amendment since has split anew what is left, this among it
        var again =
            credit is { Fact: var fact }
            && !(history.Last<Happening.PriceAmended>() is { } amended && History.IsAfter(amended.Fact, fact))
            && history.Last<Happening.TakenUp>() is { } taken
            && History.IsAfter(taken.Fact, fact);
        return again ? (credit!.Value.What.Amount, credit.Value.What.Note) : (Money.Zero(agreed.Currency), null);
    }

    /// <summary>When the next invoice goes out by itself, in sending hours; null when none can yet. Nothing is invoiced before the client has signed, where the kind asks for a contract.</summary>
    public static Instant? NextAt(Case project) =>
        SignedOn(project) is null || Waits(project)
            ? null
            : Planned(project).Min(planned => planned.On is { } on ? SendingAt(project, on) : (Instant?)null);

    /// <summary>Those whose time has come.</summary>
    public static IEnumerable<PlannedInvoice> DueNow(Case project, Instant now) =>
        SignedOn(project) is null || Waits(project)
            ? []
            : Planned(project).Where(planned => planned.On is { } on && SendingAt(project, on) <= now);

    /// <summary>While an amendment is with the client nothing is invoiced: it says what is left to pay.</summary>
    public static bool Waits(Case project) => ContractState.Open(project.History) is { What.Amends: not null };

    /// <summary>From when a payment on booking counts: of an amendment from its own signature.</summary>
    private static LocalDate? BookedOn(Case project, AgreedPrice price) =>
        price.Amended ? project.Calendar.DateOf(price.Fact.Happened) : SignedOn(project);

    private static Instant SendingAt(Case project, LocalDate on) =>
        project.Calendar.WithinSendingHours(
            project.Calendar.At(on + Calendar.StudioCalendar.DefaultTime),
            earlier: false
        );

    private static (LocalDate? On, LocalDate? Due) DatesOf(Case project, AgreedPrice price, DueRule rule) =>
        rule switch
        {
            DueRule.OnBooking booking => BookedOn(project, price) is { } signed
                ? (signed, signed.PlusDays(booking.Days))
                : (null, null),
            DueRule.OnDate date => (date.Date.PlusDays(-date.InvoiceDaysBefore), date.Date),
            DueRule.AroundMainDate around => Around(project, project.MainDate, around.Offset, around.InvoiceDaysBefore),
            DueRule.AroundDate around => Around(
                project,
                project.DateNamed(around.Name),
                around.Offset,
                around.InvoiceDaysBefore
            ),
            DueRule.OnHandover handover => project.History.Last<Happening.HandedOver>() is { } handed
                ? (
                    project.Calendar.DateOf(handed.Happened),
                    project.Calendar.DateOf(handed.Happened).PlusDays(handover.Days)
                )
                : (null, null),
            _ => throw new ArgumentOutOfRangeException(nameof(rule), rule, "No such due rule."),
        };

    private static (LocalDate? On, LocalDate? Due) Around(
        Case project,
        LocalDateTime? named,
        Span offset,
        int invoiceDaysBefore
    ) =>
        named is { Date: var date } && project.Calendar.Add(date, offset) is var due
            ? (due.PlusDays(-invoiceDaysBefore), due)
            : (null, null);

    /// <summary>The day from which booking counts: the client's signature, else, for a kind without a contract or where it was waived, the agreement.</summary>
    private static LocalDate? SignedOn(Case project)
    {
        var asks =
            project.Kind.Gates.Contains(Gate.Contract)
            && !project.History.Any<Happening.GateWaived>(waived => waived.Gate == Gate.Contract);
        var amendments = ContractState.Amendments(project.History);
        var signed = asks
            ? project
                .History.Of<Happening.ContractSigned>()
                .Where(s => s.What.Signer == Signer.Client && !amendments.Contains(s.What.Contract))
                .Select(s => (Instant?)s.Happened)
                .Min()
            : AgreedPrice.Of(project.History)?.First;
        return signed is { } at ? project.Calendar.DateOf(at) : null;
    }
}
