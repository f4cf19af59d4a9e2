using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Forms;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Core.Routines;
using Gesamt.Core.Stages;
using Gesamt.Core.Texts;
using Gesamt.Core.Turns;
using Gesamt.Core.Waiting;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Briefs;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Lists;
using Gesamt.Web.Meetings;
using Gesamt.Web.People;
using Gesamt.Web.Proposals;
using Gesamt.Web.Recurring;
using Gesamt.Web.RunSheets;
using Gesamt.Web.Spent;
using Gesamt.Web.Testimonials;
using Gesamt.Web.WhatHappened;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Projects;

/// <summary>Puts together one project's record.</summary>
public static class Record
{
    private const int MostOthers = 8;

    private static readonly Func<GesamtDb, PersonId, ProjectId, Task<List<Other>>> Others = Prepared.Rows(
        (GesamtDb db, PersonId client, ProjectId but) =>
            db
                .Projects.AsNoTracking()
                .Where(p => p.ClientId == client && p.Id != but)
                .OrderByDescending(p => p.Id)
                .Take(MostOthers)
                .Select(p => new Other(p.Id, p.Title, p.Standing.Stage, p.Standing.Ended, p.PageGroup))
    );

    private sealed record Other(ProjectId Id, string Title, Stage Stage, EndReason? Ended, string? PageGroup);

    private static readonly Func<GesamtDb, KindId, Task<List<int>>> TaxRates = Prepared.Rows(
        (GesamtDb db, KindId kind) =>
            db.Services.Where(s => s.KindId == kind).OrderBy(s => s.Id).Select(s => s.TaxPartsPerMillion)
    );

    private static readonly Func<GesamtDb, ProjectId, Task<List<string>>> Labels = Prepared.Rows(
        (GesamtDb db, ProjectId id) =>
            db.Labels.Where(l => l.ProjectId == id).OrderBy(l => l.Label).Select(l => l.Label)
    );

    private static readonly Func<GesamtDb, IReadOnlyCollection<Core.VersionId>, Task<List<SignatureRow>>> Signatures =
        Prepared.Rows(
            (GesamtDb db, IReadOnlyCollection<Core.VersionId> signed) =>
                db.Signatures.AsNoTracking().Where(s => signed.Contains(s.VersionId)).OrderBy(s => s.Id)
        );

    /// <summary>The record, by its places.</summary>
    public static async Task<RecordDto> OfAsync(Desk desk, ProjectId id)
    {
        var file = await desk.OpenAsync(id);
        var names = (await Routines.RoutineNames.OfAsync(desk)).For(file.Case.Kind.MainDate);
        var rows = await RowsAsync(desk, file, names);
        return new(
            id.Value,
            await HeadAsync(desk, file),
            await PathAsync(desk, file, rows),
            new(Line(desk, file, rows), await Ahead.OfAsync(desk, file, rows, names)),
            new(
                await MoneyAsync(desk, file),
                ToPay(desk, file, rows),
                RecordTasks.Of(desk, file, rows.Tasks),
                await PapersAsync(desk, file, rows),
                ContractRule.CanAmend(file.Case),
                await WorkAsync(desk, file, rows),
                new(RecordWork.Parts(desk, file), await RecordWork.LinkEndedAsync(desk, file)),
                new(MeetingViews.Of(desk, file, rows.Meetings.Values), await MeetingViews.OfferedAsync(desk, file)),
                await SpentView.LineAsync(desk, file),
                PraiseOfProject.Line(desk, file),
                await ProjectRunSheet.LineAsync(desk, file),
                await ProjectLists.LinesAsync(desk, file),
                await Work.GivenAccess.OfAsync(desk, file)
            ),
            await AboutAsync(desk, file),
            Involved(desk, file)
        );
    }

    private static async Task<RecordHeadDto> HeadAsync(Desk desk, ProjectFile file)
    {
        var client = file.Row.Client!;
        var date = file.Case.MainDate?.Date;
        return new(
            file.Row.Title,
            file.Row.Kind!.Name,
            file.Row.FurtherKinds.Count == 0 ? [] : await FurtherKindsAsync(desk, file),
            new(
                client.Id.Value,
                client.Name,
                client.Organisation,
                client.Mail,
                client.Phone,
                client.Profile,
                client.Picture is not null
            ),
            file.Row.Source,
            file.Row.Campaign,
            new(
                ShortText.Capital(file.Case.Kind.MainDate),
                date,
                desk.Short(date),
                date is { } day ? DateWords.Distance(day, desk.Today) : null
            ),
            file.Row.Rehearsal ? RehearsalClock(desk) : null,
            await OthersAsync(desk, file),
            [
                .. Work
                    .Dates.Others(file.Case)
                    .Select(name => (name, Day: file.Case.DateNamed(name)?.Date))
                    .OrderBy(one => one.Day ?? NodaTime.LocalDate.MaxIsoValue)
                    .Select(one => new MainDateDto(
                        one.name,
                        one.Day,
                        desk.Short(one.Day),
                        one.Day is { } on ? DateWords.Distance(on, desk.Today) : null
                    )),
            ],
            file.Row.Client!.ErasedAt is { } erased ? DateWords.Long(desk.Calendar.DateOf(erased)) : null
        );
    }

    private static async Task<IReadOnlyList<FurtherKindDto>> FurtherKindsAsync(Desk desk, ProjectFile file)
    {
        var kinds = file.Row.Kinds;
        var named = await desk
            .Db.Kinds.Where(k => kinds.Contains(k.Id) && k.Id != file.Row.KindId)
            .OrderBy(k => k.Name)
            .Select(k => new { k.Id, k.Name })
            .ToListAsync();
        return [.. named.Select(k => new FurtherKindDto(k.Id.Value, k.Name))];
    }

    private static async Task<IReadOnlyList<OtherProjectDto>> OthersAsync(Desk desk, ProjectFile file) =>
        [
            .. (await Others(desk.Db, file.Row.ClientId, file.Id)).Select(p => new OtherProjectDto(
                p.Id.Value,
                p.Title,
                p.Ended is { } end ? LineText.EndWords(end) : p.Stage.ToString(),
                p.PageGroup is not null && p.PageGroup == file.Row.PageGroup
            )),
        ];

    private static async Task<RecordPathDto> PathAsync(Desk desk, ProjectFile file, LineRows rows)
    {
        var standing = file.Row.Standing.ToCore();
        return new(
            standing.Stage,
            standing.Ended is { } end ? LineText.EndWords(end) : null,
            standing.BookedAt is not null,
            file.Case.IsPutAway,
            TurnOf(desk, standing),
            Gates.Of(desk, file, rows),
            await HappenAsync(desk, file),
            NextActs.Of(file.Case, standing, desk.Now)
        );
    }

    private static async Task<HappenDto> HappenAsync(Desk desk, ProjectFile file)
    {
        var rates = await TaxRates(desk.Db, file.Row.KindId);
        return new(
            [.. Happened.Possible(file, desk.Now).Select(sort => new CanHappenDto(sort, PossibleNow.Ends(sort)))],
            NumberText.Number(UsualOffer.Tax(rates).InPercent),
            NumberText.Number(desk.Studio.Habits().OnBooking.InPercent),
            [.. PossibleNow.MilestonesToSay(file.Case)],
            desk.Studio.Owner
        );
    }

    private static async Task<WorkDto> WorkAsync(Desk desk, ProjectFile file, LineRows rows)
    {
        var standing = file.Row.Standing.ToCore();
        return new(
            RecordWork.Phases(desk, file, rows.Tasks.Values),
            RecordWork.Files(desk, file, rows.Files.Values),
            RecordWork.Rounds(file),
            standing.Stage == Stage.Delivery
                && standing.Ended is null
                && !file.History.Any<Core.Facts.Happening.HandedOver>(),
            RecordWork.Checklists(file, rows.Forms)
        );
    }

    private static async Task<AboutDto> AboutAsync(Desk desk, ProjectFile file)
    {
        var answers = (await desk.Db.OfProjectAsync<AnswersRow>(file.Id)).OrderBy(a => a.Id.Value);
        return new(
            [
                .. answers.SelectMany(a =>
                    desk.Tell(
                        () => StoreJson.Read<List<Answer>>(a.Items).Select(a => AnswerDto.Of(a)),
                        () => [new(a.Form, Untold.Detail)]
                    )
                ),
            ],
            await ProjectBrief.DetailsAsync(desk, file),
            await ProjectBrief.OfAsync(desk, file),
            await Labels(desk.Db, file.Id),
            file.Row.Standing.Stage == Stage.Lead ? await Matches.OfAsync(desk, file.Row.Client!) : []
        );
    }

    private static InvolvedDto Involved(Desk desk, ProjectFile file) =>
        new(
            [
                .. file
                    .Row.People.OrderBy(p => p.Id)
                    .Select(p => new PartOfPersonDto(
                        p.PersonId.Value,
                        p.Person!.Name,
                        p.Person.Mail ?? p.Person.Phone,
                        p.Part,
                        PersonPage.PartWords(p.Part)
                    )),
            ],
            Sending.ReplyAddress(desk, file.Row),
            file.Row.Client!.ErasedAt is null && file.MailTo is null,
            file.MailTo is null ? file.MailContact.Mail : null
        );

    private static string RehearsalClock(Desk desk) =>
        $"{desk.Short(desk.Today)}, {DateWords.Time(desk.Calendar.LocalOf(desk.Now).TimeOfDay)}";

    /// <summary>Whose turn it is, with its age.</summary>
    public static TurnDto TurnOf(Desk desk, Standing standing)
    {
        var age = standing.Since is { } since ? Age.Of(since, desk.Now, desk.Calendar.Zone) : (Age?)null;
        return new(
            standing.Turn,
            standing.Waits,
            WordsOf(desk, standing),
            age?.Short ?? "",
            age?.Long ?? "",
            Standing.NudgedWords(standing.Nudged),
            standing.Until is { } until ? desk.Short(desk.Calendar.DateOf(until)) : null
        );
    }

    /// <summary>The reason as a sentence; for money that is late, the other clock beside it.</summary>
    public static string WordsOf(Desk desk, Standing standing) =>
        standing is { Waits: WaitKind.PayInvoice, LateSince: { } due }
            ? $"Invoice {DateWords.Due(due, desk.Today, false)}"
            : standing.Words;

    private static async Task<LineRows> RowsAsync(Desk desk, ProjectFile file, IRoutineNames names)
    {
        var (db, id) = (desk.Db, file.Id);
        var letters = (await db.OfProjectAsync<LetterRow>(id)).ToDictionary(l => l.Id);
        var steps = file.Case.Runs.SelectMany(run =>
            run.Routine.Steps.Select(step => ($"{run.Id.Value}:{step.Key}", RoutineWords.What(step.Action, names)))
        );
        return new()
        {
            Letters = letters,
            Notes = (await db.OfProjectAsync<NoteRow>(id)).ToDictionary(n => n.Id),
            Tasks = (await db.OfProjectAsync<TaskRow>(id)).ToDictionary(t => t.Id),
            Invoices = (await db.OfProjectAsync<InvoiceRow>(id)).ToDictionary(i => i.Id),
            Payments = (await db.OfProjectAsync<PaymentRow>(id)).ToDictionary(p => p.Id),
            Versions = (await db.OfProjectAsync<VersionRow>(id)).ToDictionary(v => v.Id),
            Files = (await db.OfProjectAsync<FileRow>(id)).ToDictionary(f => f.Id),
            Reviews = (await db.OfProjectAsync<ReviewRow>(id)).ToDictionary(r => r.Id),
            Meetings = (await db.OfProjectAsync<MeetingRow>(id)).ToDictionary(m => m.Id),
            Rounds = Core.Work.ReviewRule.Of(file.History).ToDictionary(review => review.Id, review => review.Round),
            Forms =
                file.History.Any<Core.Facts.Happening.FormAsked>()
                || file.History.Any<Core.Facts.Happening.ChecklistAnswered>()
                    ? await db.Forms.AsNoTracking().ToDictionaryAsync(f => f.Id, f => f.Title)
                    : new Dictionary<int, string>(),
            Signatures = await SignaturesAsync(db, file),
            Amendments = ContractState.Amendments(file.History),
            Means = file.History.Any<Core.Facts.Happening.MeansKept>()
                ? await db.KeptMeans.Where(k => k.ProjectId == id).ToDictionaryAsync(k => k.Id, k => k.Words)
                : new Dictionary<Core.KeptMeansId, string>(),
            RateSheets = file.History.Any<Core.Facts.Happening.RateSheetTicked>()
                ? await Prices.RateSheet.TickedAsync(desk, id)
                : new Dictionary<int, string>(),
            StepNames = steps.ToDictionary(pair => pair.Item1, pair => pair.Item2),
            Missed = Missed(desk, file, names),
            Client = file.Row.Client!.Name.Split(' ')[0],
            Owner = desk.Studio.Owner,
            MainDate = file.Case.Kind.MainDate,
            When = at =>
                $"{DateWords.Short(desk.Calendar.DateOf(at), desk.Today)}, {DateWords.Time(desk.Calendar.LocalOf(at).TimeOfDay)}",
        };
    }

    /// <summary>Only where somebody signed.</summary>
    private static async Task<ILookup<Core.VersionId, SignatureRow>> SignaturesAsync(
        Store.GesamtDb db,
        ProjectFile file
    )
    {
        var signed = ContractState.Papers(file.History).Select(paper => paper.Version).ToList();
        return (signed.Count == 0 ? [] : await Signatures(db, signed)).ToLookup(s => s.VersionId);
    }

    private static string Missed(Desk desk, ProjectFile file, IRoutineNames names) =>
        string.Join(
            ", ",
            Resuming
                .Of(file.Case, desk.Now)
                .Missed.Select(step => RoutineWords.What(step.Step.Action, names))
                .GroupBy(name => name)
                .Select(same => same.Count() > 1 ? $"{same.Key} ({same.Count()})" : same.Key)
        );

    private static IReadOnlyList<EntryDto> Line(Desk desk, ProjectFile file, LineRows rows) =>
        [
            .. from happened in LineText.Gather(file.History.Facts)
            let words = desk.Tell(() => LineText.Of(happened, rows), () => LineText.Untold)
            where words is not null
            orderby happened.Fact.Happened, happened.Fact.Id.Value
            let local = desk.Calendar.LocalOf(happened.Fact.Happened)
            select new EntryDto(
                happened.Fact.Id.Value,
                new(
                    DateWords.Short(local.Date, desk.Today),
                    DateWords.Time(local.TimeOfDay),
                    $"{DateWords.Long(local.Date)}, {DateWords.Time(local.TimeOfDay)}, {desk.Studio.Zone}"
                ),
                words.Sort,
                words.From,
                words.Title,
                words.Detail,
                words.Opens
            ),
        ];

    private static ToPayDto ToPay(Desk desk, ProjectFile file, LineRows rows)
    {
        var open = Owed.Open(file.History).ToList();
        var ahead =
            open.Count == 0 && AgreedPrice.Of(file.History) is { } price
                ? price.Agreed
                    - Owed.Credited(file.History, price.Agreed.Currency)
                    - Payments.TotalOfPrice(file.History, price.Agreed.Currency)
                : (Core.Amounts.Money?)null;
        return new(
            [
                .. open.Select(o => new OpenInvoiceDto(
                    o.Invoice.What.Invoice.Value,
                    $"{rows.Invoices[o.Invoice.What.Invoice].Number}, {DateWords.Due(o.Invoice.What.Due, desk.Today, false)}",
                    MoneyText.Field(o.Owed)
                )),
            ],
            ahead is { Minor: > 0 } rest ? MoneyText.Field(rest) : null
        );
    }

    /// <summary>What was agreed and how far it is paid, then what was billed besides; null where there is neither.</summary>
    private static async Task<SheetMoneyDto?> MoneyAsync(Desk desk, ProjectFile file)
    {
        var (history, price) = (file.History, AgreedPrice.Of(file.History));
        var currency = desk.CurrencyOf(file);
        var extras = history.Of<Core.Facts.Happening.InvoiceIssued>().Where(one => one.What.Extra).ToList();
        var recurring = await Recurrences.OfAsync(desk, file);
        if (price is null && extras.Count == 0 && recurring.Count == 0)
            return null;
        List<MoneyLineDto> lines = [];
        var paid = Payments.TotalOfPrice(history, currency);
        if (price is not null)
            lines.AddRange([new("Agreed", MoneyText.Of(price.Agreed)), new("Paid", MoneyText.Of(paid))]);
        if (extras.Count > 0)
            lines.Add(
                new(
                    "Billed besides",
                    MoneyText.Of(
                        extras.Select(one => one.What.Amount - Owed.CreditedOn(history, one.What)).Sum(currency)
                    )
                )
            );
        lines.AddRange(
            Owed.Open(history)
                .Select(open => new MoneyLineDto(
                    $"Open, {DateWords.Due(open.Invoice.What.Due, desk.Today, false)}",
                    MoneyText.Of(open.Owed)
                ))
        );
        if (Owed.Credited(history, currency) is { Minor: > 0 } credited)
            lines.Add(new("Credited", MoneyText.Of(credited)));
        if (Owed.Ahead(history, currency) is { Minor: > 0 } ahead)
            lines.Add(new("Paid ahead", MoneyText.Of(ahead)));
        lines.AddRange(
            Billing
                .Planned(file.Case)
                .Select(p => new MoneyLineDto(
                    p.Due is { } due ? $"To come, due {DateWords.Short(due, desk.Today)}" : "To come",
                    MoneyText.Of(p.Amount)
                ))
        );
        int? share =
            price is null ? null
            : price.Agreed.Minor == 0 ? 100
            : (int)Math.Clamp(100 * paid.Minor / price.Agreed.Minor, 0, 100);
        return new(share, lines, recurring, await Recurrences.KeptAsync(desk, file));
    }

    private static async Task<IReadOnlyList<SheetPaperDto>> PapersAsync(Desk desk, ProjectFile file, LineRows rows) =>
        [
            .. await SentProposals.LastAsync(desk, file) is { } proposal
                ? new[] { OfProposal(desk, file, proposal) }
                : [],
            .. SheetContracts.Of(desk, file, rows),
            .. rows
                .Invoices.Values.OrderBy(i => i.Id.Value)
                .Select(i => new SheetPaperDto(
                    $"{(i.Sort == InvoiceSort.CreditNote ? "Credit note" : "Invoice")} {i.Number}",
                    "",
                    $"/api/invoices/{i.Id.Value}.pdf",
                    null
                )),
        ];

    private static SheetPaperDto OfProposal(Desk desk, ProjectFile file, VersionRow proposal)
    {
        var sent = SentProposals.Of(desk, file, proposal);
        var until =
            AgreedPrice.Of(file.History) is not null ? "accepted"
            : sent.RanOut ? $"ran out {sent.ValidUntil}"
            : $"valid until {sent.ValidUntil}";
        return new(
            sent.Number == 1 ? "Proposal" : $"Proposal, version {sent.Number}",
            $"{until}, {(sent.Opened is { } opened ? $"opened {opened}" : "not opened yet")}",
            null,
            proposal.Id.Value
        );
    }
}
