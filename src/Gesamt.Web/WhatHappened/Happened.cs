using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Core.Turns;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Accounts;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Papers;
using Gesamt.Web.Recurring;
using Gesamt.Web.Words;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.WhatHappened;

/// <param name="On">The day it happened, today or earlier; now when left out.</param>
/// <param name="Words">What was said in a call, a reason, a colleague's name, or the name typed as a signature.</param>
/// <param name="Until">Until when it rests.</param>
/// <param name="Amount">What was paid, or the agreed price without tax, such as 1200.50.</param>
/// <param name="Tax">Tax on an agreed price, per cent.</param>
/// <param name="OnBooking">The part of an agreed price due on booking, per cent.</param>
/// <param name="Invoice">The invoice that was paid; null for a payment ahead of any.</param>
/// <param name="File">The kept scan of a contract signed on paper.</param>
/// <param name="Colleague">To whom it was referred, when that is somebody known.</param>
/// <param name="Subject">A letter that goes with an end; none when left out.</param>
/// <param name="Credit">Whether unpaid invoices of a project that ends are credited.</param>
/// <param name="Terms">Whether the money of a cancelled project is settled by the terms of its kind.</param>
/// <param name="Ahead">Whether more than is open was paid, and the rest is kept as paid ahead.</param>
/// <param name="At">The time of day; noon of an earlier day, or now, where none is given.</param>
/// <param name="Recurring">What becomes of recurring invoices, where it ends or rests and has some.</param>
public sealed record HappenedDto(
    HappenedSort Sort,
    LocalDate? On = null,
    string? Words = null,
    LocalDate? Until = null,
    string? Amount = null,
    string? Tax = null,
    string? OnBooking = null,
    PaymentMeans? Means = null,
    long? Invoice = null,
    long? File = null,
    bool Credit = false,
    long? Colleague = null,
    string? Subject = null,
    string? Body = null,
    RecurringThen? Recurring = null,
    bool? Terms = null,
    bool? Ahead = null,
    LocalTime? At = null
);

/// <summary>What becomes of the recurring invoices of a project that ends or rests.</summary>
public enum RecurringThen
{
    Stop,
    GoOn,
}

/// <summary>“What happened?”: how the owner records what came outside Gesamt, and decides.</summary>
public static class Happened
{
    /// <summary>What can be said to have happened, as things stand.</summary>
    public static IReadOnlyList<HappenedSort> Possible(ProjectFile file, Instant now) =>
        PossibleNow.Of(file.Case, file.Row.Standing.ToCore(), now);

    /// <exception cref="RefusedException">It cannot be said of this project as things stand.</exception>
    /// <exception cref="InvalidException">Something it needs is missing or not allowed; the field is named.</exception>
    public static async Task RecordAsync(Desk desk, ProjectId id, HappenedDto what, string address, string agent)
    {
        if (what.Sort == HappenedSort.Countersign)
        {
            await Contracting.CountersignAsync(desk, id, what.Words ?? "", address, agent);
            return;
        }
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            if (!Possible(file, desk.Now).Contains(what.Sort))
                throw new RefusedException("This cannot be said of the project as it stands now. Load the page again.");
            if (what.Sort == HappenedSort.Milestone && !PossibleNow.MilestonesToSay(file.Case).Contains(what.Words))
                throw new InvalidException(("words", "One of the kind’s own steps that is not reached yet."));
            var happened = Moments.Of(desk, what.On, what.At);
            if (StopsWork(what.Sort))
                await RecurringThenAsync(act, file, what.Recurring);
            switch (what.Sort)
            {
                case HappenedSort.Paid:
                    await PaidAsync(act, file, what, happened);
                    break;
                case HappenedSort.SignedOnPaper:
                    await act.RecordAtAsync(
                        file,
                        Actor.Owner,
                        happened,
                        await Agreements.PaperAsync(desk, file, what.File is { } scan ? new FileId(scan) : null)
                    );
                    await InstalmentInvoices.IssueBookingAsync(act, file);
                    break;
                case HappenedSort.PriceAgreed:
                    await act.RecordAtAsync(
                        file,
                        Actor.Owner,
                        happened,
                        [.. Withdrawn(file), await PriceAsync(desk, file, what)]
                    );
                    break;
                case HappenedSort.BookedStraightAway:
                    await BookStraightAwayAsync(act, file, what, happened);
                    break;
                case HappenedSort.HandedOver:
                    await act.RecordAtAsync(
                        file,
                        Actor.Owner,
                        happened,
                        [new Happening.HandedOver(), .. await Tasks.CloseUpAsync(desk, file)]
                    );
                    break;
                case HappenedSort.Waived:
                    await act.RecordAtAsync(
                        file,
                        Actor.Owner,
                        happened,
                        new Happening.GateWaived((Gate)file.Row.Standing.Stage, await ReasonAsync(desk, id, what))
                    );
                    await InstalmentInvoices.IssueBookingAsync(act, file);
                    break;
                case var end when Ends(end):
                    await EndAsync(act, file, what, happened);
                    break;
                default:
                    await act.RecordAtAsync(file, Actor.Owner, happened, await FactAsync(desk, id, what));
                    break;
            }
        });
    }

    private static bool Ends(HappenedSort sort) =>
        sort
            is HappenedSort.NotAFit
                or HappenedSort.Referred
                or HappenedSort.Lost
                or HappenedSort.GoneQuiet
                or HappenedSort.Cancelled
                or HappenedSort.NotAnInquiry;

    private static bool StopsWork(HappenedSort sort) => sort == HappenedSort.Rest || Ends(sort);

    /// <summary>A client is not billed, or charged, on and on for what has ended: whoever ends it says which.</summary>
    private static async Task RecurringThenAsync(Act act, ProjectFile file, RecurringThen? then)
    {
        if (!RecurringInvoices.Running(file.History).Any())
            return;
        if (then is null)
            throw new InvalidException(("recurring", "Say whether the recurring invoices stop or go on."));
        if (then == RecurringThen.Stop)
            await Recurrences.StopAllAsync(act, file);
    }

    private static async Task<Happening> FactAsync(Desk desk, ProjectId id, HappenedDto what) =>
        what.Sort switch
        {
            HappenedSort.Fit => new Happening.MarkedFit(),
            HappenedSort.FitTakenBack => new Happening.FitTakenBack(),
            HappenedSort.Milestone => new Happening.MilestoneReached(what.Words ?? ""),
            HappenedSort.NotWonAfterAll => new Happening.NotWonAfterAll(),
            HappenedSort.Read => new Happening.InquiryRead(true),
            HappenedSort.TakenUp => new Happening.TakenUp(),
            HappenedSort.NoAnswerNeeded => new Happening.NoAnswerNeeded(),
            HappenedSort.Approved => new Happening.Approved(),
            HappenedSort.GoOn => new Happening.RestEnded(),
            HappenedSort.Rest => new Happening.RestBegan(Later(desk, what.Until), await ReasonAsync(desk, id, what)),
            HappenedSort.Call => new Happening.CallHeld(
                await Notes.AddAsync(desk, id, NoteSort.Call, what.Words ?? "")
            ),
            _ => throw new ArgumentOutOfRangeException(nameof(what), what.Sort, "No such act."),
        };

    /// <summary>Ending withdraws what is out and, if wanted, credits what is unpaid; what was paid is untouched.</summary>
    private static async Task EndAsync(Act act, ProjectFile file, HappenedDto what, Instant happened)
    {
        var person = what.Colleague is { } id ? await Letters.Writing.ColleagueAsync(act.Desk, id) : null;
        var colleague = person?.Name;
        if (what.Sort == HappenedSort.Referred && colleague is null && string.IsNullOrWhiteSpace(what.Words))
            throw new InvalidException(("words", "Name the colleague it was referred to."));
        var said = string.Join(". ", new[] { colleague, what.Words }.Where(text => !string.IsNullOrWhiteSpace(text)));
        NoteId? words = said.Length == 0 ? null : await Notes.AddAsync(act.Desk, file.Id, NoteSort.Note, said);
        if (!string.IsNullOrWhiteSpace(what.Body))
            await Letters.LettersOut.ClaimAsync(
                act,
                file,
                new Letters.Written(what.Subject ?? "", what.Body),
                with: Letters.Writing.About(person)
            );
        if (what is { Terms: true, Sort: HappenedSort.Cancelled })
            await Cancelling.SettleAsync(act, file, act.Calendar.DateOf(happened));
        else if (what.Credit)
            foreach (var (invoice, _) in Owed.Open(file.History).ToList())
                await Crediting.OpenAsync(act, file, invoice.What);
        await act.RecordAtAsync(
            file,
            Actor.Owner,
            happened,
            [.. Withdrawn(file), .. Voided(file), new Happening.Ended(ReasonOf(what.Sort), words)]
        );
    }

    /// <summary>A trusted client is booked on their word: the price is agreed, nothing is due on booking, and no contract is asked for.</summary>
    private static async Task BookStraightAwayAsync(Act act, ProjectFile file, HappenedDto what, Instant happened)
    {
        var why = await ReasonAsync(act.Desk, file.Id, what);
        var price = await PriceAsync(act.Desk, file, what with { OnBooking = "0" });
        Happening[] waived = file.Case.Kind.Gates.Contains(Gate.Contract)
            ? [new Happening.GateWaived(Gate.Contract, why)]
            : [];
        await act.RecordAtAsync(
            file,
            Actor.Owner,
            happened,
            [new Happening.MarkedFit(), .. Withdrawn(file), price, .. waived]
        );
        await InstalmentInvoices.IssueBookingAsync(act, file);
    }

    private static EndReason ReasonOf(HappenedSort sort) =>
        sort switch
        {
            HappenedSort.NotAFit => EndReason.Declined,
            HappenedSort.Referred => EndReason.Referred,
            HappenedSort.Lost => EndReason.Lost,
            HappenedSort.GoneQuiet => EndReason.GoneQuiet,
            HappenedSort.Cancelled => EndReason.Cancelled,
            _ => EndReason.NotAnInquiry,
        };

    private static IEnumerable<Happening> Withdrawn(ProjectFile file) =>
        ProposalState.Open(file.History) is { } open ? [new Happening.ProposalWithdrawn(open.What.Version)] : [];

    /// <summary>A contract the client has not signed yet; a signed one stays what it is.</summary>
    private static IEnumerable<Happening> Voided(ProjectFile file) =>
        ContractState.Open(file.History) is { } open ? [new Happening.ContractVoided(open.What.Contract)] : [];

    private static async Task PaidAsync(Act act, ProjectFile file, HappenedDto what, Instant happened)
    {
        var amount = TypedMoney.Of(act.Desk.CurrencyOf(file), what.Amount, "amount");
        var open = Owed.Open(file.History).ToList();
        var (most, invoice) =
            what.Invoice is { } id
            && open.FirstOrDefault(o => o.Invoice.What.Invoice.Value == id) is { Invoice.Fact: not null } found
                ? (found.Owed, (InvoiceId?)found.Invoice.What.Invoice)
            : what.Invoice is null && open.Count == 0 && AgreedPrice.Of(file.History) is { } price
                ? (
                    price.Agreed
                        - Owed.Credited(file.History, price.Agreed.Currency)
                        - Payments.TotalOfPrice(file.History, price.Agreed.Currency),
                    null
                )
            : throw new InvalidException(("invoice", "Choose the invoice that was paid."));
        // more than is open is a slip of the hand more often than money
        if (amount > most && what.Ahead != true)
            throw new InvalidException(
                (
                    "ahead",
                    $"{MoneyText.Of(most)} is open{(invoice is null ? "" : " on this invoice")}. If more came, tick this: the rest is kept for what is billed next."
                )
            );
        if (what.Means is not { } means)
            throw new InvalidException(("means", "Say how it was paid: by transfer, by cheque or in cash."));
        await ClosedYears.DemandOpenAsync(act.Desk, act.Calendar.DateOf(happened));
        await Checkout.BookAsync(act, file, invoice, amount, means, null, Actor.Owner, happened);
    }

    private static Task<Happening> PriceAsync(Desk desk, ProjectFile file, HappenedDto what)
    {
        var net = TypedMoney.Of(desk.CurrencyOf(file), what.Amount, "amount");
        return Agreements.PriceAsync(
            desk,
            file,
            net.Major,
            PercentOf(what.Tax, "tax"),
            PercentOf(what.OnBooking, "onBooking")
        );
    }

    private static Rate PercentOf(string? text, string field) =>
        NumberText.Percent(text ?? "")
        ?? throw new InvalidException((field, $"Give a number from 0 to 100.{NumberText.Doubt(text ?? "")}"));

    private static async Task<NoteId> ReasonAsync(Desk desk, ProjectId id, HappenedDto what) =>
        string.IsNullOrWhiteSpace(what.Words)
            ? throw new InvalidException(("words", "Give the reason in a few words."))
            : await Notes.AddAsync(desk, id, NoteSort.Note, what.Words);

    /// <summary>A payment that was recorded by mistake is taken back.</summary>
    /// <exception cref="RefusedException">It cannot be; the words say why, or where.</exception>
    public static Task VoidAsync(Desk desk, ProjectId id, PaymentId payment) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(id);
            var row =
                await act.Db.Payments.SingleOrDefaultAsync(p => p.Id == payment && p.ProjectId == id)
                ?? throw new MissingException("payment");
            if (await act.Db.BankBookings.AnyAsync(b => b.PaymentId == payment))
                throw new RefusedException("A bank statement brought this payment: undo its line under Money, Bank.");
            await Refunding.VoidAsync(act, file, row);
        });

    private static bool IsOpen(ProjectFile file, Gate gate) =>
        GateRule.Read(file.Case).Any(reading => reading.Gate == gate && !reading.IsClosed);

    private static LocalDate? Later(Desk desk, LocalDate? until) =>
        until is null || until > desk.Today
            ? until
            : throw new InvalidException(
                ("until", "Rest until a day after today, or leave it empty to be asked again in 14 days.")
            );
}
