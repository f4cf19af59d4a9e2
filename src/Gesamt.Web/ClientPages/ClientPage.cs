using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Core.Turns;
using Gesamt.Core.Work;
using Gesamt.Formats.Invoices;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Briefs;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Gesamt.Web.Lists;
using Gesamt.Web.Meetings;
using Gesamt.Web.Papers;
using Gesamt.Web.Prices;
using Gesamt.Web.Recurring;
using Gesamt.Web.RunSheets;
using Gesamt.Web.Templates;
using Gesamt.Web.Testimonials;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>An invoice on the page.</summary>
public sealed record InvoicePageDto(
    string PublicId,
    string Number,
    string Total,
    string Owed,
    string Due,
    bool Paid,
    bool IsCredit,
    InvoicePayDto? Pay
);

/// <summary>How an open invoice is paid.</summary>
/// <param name="Transfer">Null where the studio has no account.</param>
/// <param name="OnItsWay">A payment through the provider that is not there yet, or was refused, in words; empty for none.</param>
/// <param name="SaidPaid">Whether they said that it is paid.</param>
/// <param name="Asked">Whether they asked about it, and nobody has answered yet.</param>
public sealed record InvoicePayDto(TransferDto? Transfer, string OnItsWay, bool SaidPaid, bool Asked);

/// <summary>What a transfer needs.</summary>
/// <param name="Code">The QR code for a bank's app as the path of a picture, its dark modules one unit wide; null where there is none.</param>
/// <param name="CodeSize">How many modules it has a side, with its quiet zone.</param>
public sealed record TransferDto(string Iban, string Bic, string Reference, string? Code, int CodeSize);

/// <summary>The ways in which the studio can be paid on this page.</summary>
/// <param name="At">A way of the studio's own choosing, a link or words; empty for none.</param>
/// <param name="Consent">The words to be agreed to where what is paid with can be kept and charged; null where it cannot, or is.</param>
/// <param name="Kept">What is kept to be charged; null for nothing.</param>
public sealed record PayWaysDto(bool Card, bool Account, string At, string? Consent, ChargedMeansDto? Kept);

/// <summary>Whose page it is: the studio as the client knows it.</summary>
/// <param name="Logo">Its address; null where there is none.</param>
public sealed record StudioFaceDto(string Name, string Owner, string Brand, string Mail, string? Logo);

/// <summary>The way to a booking: what there is to choose, to sign and to pay.</summary>
/// <param name="AskedForChange">What was asked for and waits for an answer.</param>
/// <param name="Signs">Whether a contract is signed on the way.</param>
/// <param name="Kept">Every contract and amendment that was signed or can be, the first one first.</param>
/// <param name="ToCome">What is still to come, and how long it takes; empty when nothing is.</param>
public sealed record BookingDto(
    ClientStep Step,
    bool Signs,
    string ToCome,
    ProposalPageDto? Proposal,
    ContractPageDto? Contract,
    IReadOnlyList<KeptContractDto> Kept,
    IReadOnlyList<InvoicePageDto> Invoices,
    bool AskedForChange,
    PayWaysDto Ways
);

/// <summary>The parts that the owner opens; each is null until it is.</summary>
/// <param name="Whole">The project as a whole.</param>
/// <param name="Help">Where a question goes.</param>
/// <param name="Rates">The rate sheet that waits for them.</param>
/// <param name="Tasks">What is theirs to do.</param>
/// <param name="Introduction">What they read to begin with.</param>
/// <param name="RunSheet">What happens by the hour.</param>
/// <param name="Lists">What is kept in columns.</param>
/// <param name="Boards">Mood boards.</param>
/// <param name="Notes">What is written down together.</param>
/// <param name="Testimonial">What they let the studio say and show.</param>
public sealed record OpenPartsDto(
    WholeDto? Whole,
    DraftsDto? Drafts,
    FilesPageDto? Files,
    string? Help,
    ShownBriefDto? Brief,
    IReadOnlyList<ClientFormDto> Forms,
    IReadOnlyList<RateEntry>? Rates,
    IReadOnlyList<ClientTaskDto>? Tasks,
    ShownTestimonialDto? Testimonial,
    ShownRunSheetDto? RunSheet,
    IntroductionDto? Introduction,
    IReadOnlyList<ListDto>? Lists,
    IReadOnlyList<ListDto>? Boards,
    IReadOnlyList<ListDto>? Notes
);

/// <param name="ChooseTime">What there is to choose a time for.</param>
public sealed record ClientMeetingsDto(IReadOnlyList<ClientMeetingDto> All, string? ChooseTime);

/// <summary>A project as its client sees it.</summary>
/// <param name="Token">Goes back with every write of this page.</param>
/// <param name="ToDo">What they are asked for besides the steps of the booking.</param>
/// <param name="ReadOnly">Whether they only read its parts for now: until the start call.</param>
/// <param name="Others">Other projects of theirs, where the owner put them together.</param>
public sealed record ClientPageDto(
    StudioFaceDto Studio,
    string Project,
    string Person,
    string Token,
    BookingDto Booking,
    OpenPartsDto Parts,
    ClientMeetingsDto Meetings,
    IReadOnlyList<ToDoDto> ToDo,
    bool ReadOnly,
    IReadOnlyList<OtherPageDto> Others
);

/// <summary>Puts together what a client may see: only what was sent or shown to them.</summary>
public static class ClientPage
{
    /// <param name="person">Whose page it is; null for the owner, who looks at it.</param>
    /// <param name="address">The address of another page of theirs; left out while the owner only looks.</param>
    /// <param name="open">Which parts are open: as the facts say, or, seen beforehand by the owner, one more.</param>
    public static async Task<ClientPageDto> OfAsync(
        Desk desk,
        IPaymentProvider provider,
        ProjectFile file,
        PersonId? person,
        string token,
        Func<PagePart, bool> open,
        Func<LinkRow, string>? address = null
    )
    {
        var (history, studio) = (file.History, desk.Studio);
        var contract = await Contracting.ShownAsync(desk, file);
        var waiting = ProposalState.Open(file.History)?.What.Version;
        var invoices = await InvoicesAsync(desk, file);
        var step = ClientWay.StepOf(file.Case, contract?.Id);
        var proposal = await ProposalPage.OfAsync(desk, file, step, contract);
        var shownContract =
            contract is null || step == ClientStep.Choose
                ? null
                : await ContractPage.OfAsync(desk, file, contract, person);
        var brief = await ProjectBrief.ShownAsync(desk, file);
        var forms = await ClientForms.OpenAsync(desk, file);
        var rates = await RateSheet.ShownAsync(desk, file);
        var time = await MeetingViews.OfferedAsync(desk, file);
        var runSheet = open(PagePart.RunSheet) ? await ProjectRunSheet.ShownAsync(desk, file) : null;
        var testimonial = await ClientTestimonial.ShownAsync(desk, file);
        var tasks = open(PagePart.Tasks) ? await ClientTasks.OfAsync(desk, file) : null;
        async Task<IReadOnlyList<ListDto>?> Lists(ListSort sort) =>
            open(ProjectLists.PartOf(sort)) ? await ListView.ShownAsync(desk, file, sort) : null;
        var reads = StartCall.IsAwaited(file.Case);
        var boards = await Lists(ListSort.Board);
        return new(
            new(studio.Name, studio.Owner, studio.Brand, studio.Mail, studio.Logo is null ? null : "/logo"),
            file.Row.Title,
            await NameAsync(desk, file, person),
            token,
            new(
                step,
                BookingWay.Signs(file.Case),
                BookingWay.ToCome(desk, file.Case, step, proposal?.Priced, shownContract),
                proposal,
                shownContract,
                await ContractPage.KeptAsync(desk, file),
                [.. invoices.Values],
                history.Last<Happening.ChangeAsked>() is { } asked && asked.What.Version == waiting,
                new(
                    provider.Ways.Contains(PaymentMeans.Card),
                    provider.Ways.Contains(PaymentMeans.Account),
                    desk.Studio.PayAt,
                    provider.Keeps.Count > 0
                    && Charging.Kept(history) is null
                    && RecurringInvoices.Running(history).Any()
                        ? KeptMeans.Consent(desk)
                        : null,
                    await Recurrences.KeptAsync(desk, file)
                )
            ),
            new(
                open(PagePart.Whole) ? ClientParts.Whole(desk, file) : null,
                open(PagePart.Drafts) ? await ClientParts.DraftsAsync(desk, file) : null,
                open(PagePart.Files) ? await ClientParts.FilesAsync(desk, file) : null,
                open(PagePart.Help) ? Letters.Sending.ReplyAddress(desk, file.Row) : null,
                brief,
                forms,
                rates,
                tasks,
                testimonial,
                runSheet,
                open(PagePart.Introduction) && !file.Case.Kind.Introduction.IsEmpty
                    ? IntroductionDto.Of(file.Case.Kind.Introduction)
                    : null,
                await Lists(ListSort.Rows),
                boards,
                await Lists(ListSort.Notes)
            ),
            new(await MeetingViews.ForClientAsync(desk, file), time),
            ClientParts.ToDo(
                file,
                new(
                    time,
                    brief,
                    forms,
                    rates is not null,
                    reads ? [] : tasks ?? [],
                    testimonial,
                    reads ? null : runSheet,
                    reads ? [] : boards ?? []
                ),
                invoices
            ),
            reads,
            await PagesTogether.OthersAsync(desk, file, person, address)
        );
    }

    /// <summary>Who looks at the page: the client, or somebody with a part in the project.</summary>
    private static async Task<string> NameAsync(Desk desk, ProjectFile file, PersonId? person) =>
        person is { } who && who != file.Row.ClientId
            ? await desk.Db.People.Where(p => p.Id == who).Select(p => p.Name).SingleAsync()
            : file.Row.Client!.Name;

    /// <summary>In the order in which they were issued.</summary>
    private static async Task<IReadOnlyDictionary<InvoiceId, InvoicePageDto>> InvoicesAsync(Desk desk, ProjectFile file)
    {
        var rows = await desk
            .Db.Invoices.AsNoTracking()
            .Where(i => i.ProjectId == file.Id)
            .OrderBy(i => i.Id)
            .ToListAsync();
        var checkouts = rows.Exists(row => row.OwedMinor > 0)
            ? await desk.Db.Checkouts.AsNoTracking().Where(c => c.ProjectId == file.Id).OrderBy(c => c.Id).ToListAsync()
            : [];
        return new OrderedDictionary<InvoiceId, InvoicePageDto>(
            rows.Select(row =>
            {
                var currency = Currency.Of(row.Currency);
                return KeyValuePair.Create(
                    row.Id,
                    new InvoicePageDto(
                        row.PublicId,
                        row.Number,
                        MoneyText.Of(new(row.TotalMinor, currency)),
                        MoneyText.Of(new(row.OwedMinor, currency)),
                        DateWords.Long(row.Due),
                        row.OwedMinor <= 0,
                        row.Sort == InvoiceSort.CreditNote,
                        row.OwedMinor > 0 ? Pay(desk, file, row, checkouts) : null
                    )
                );
            })
        );
    }

    private static InvoicePayDto Pay(Desk desk, ProjectFile file, InvoiceRow row, List<CheckoutRow> checkouts)
    {
        var last = checkouts.FindLast(c => c.InvoiceId == row.Id && c.State is not CheckoutState.Open);
        var amount = last is null ? "" : MoneyText.Of(new(last.AmountMinor, Currency.Of(row.Currency)));
        return new(
            Transfer(desk, row),
            last?.State switch
            {
                CheckoutState.Pending => $"Your payment of {amount} is on its way.",
                CheckoutState.Refused => $"Your payment of {amount} was refused: {last.Words}. Nothing was taken.",
                _ => "",
            },
            file.History.Any<Happening.SaidToBePaid>(said => said.Invoice == row.Id),
            Core.Waiting.Unanswered.Asked(file.Case, row.Id)
        );
    }

    private static TransferDto? Transfer(Desk desk, InvoiceRow row)
    {
        var snapshot = StoreJson.Read<InvoiceSnapshot>(row.Snapshot);
        var iban = snapshot.Iban ?? desk.Studio.Iban;
        if (iban.Length == 0)
            return null;
        var (head, reference) = (snapshot.Head, snapshot.More?.Reference ?? "");
        var code =
            reference.Length > 0
                ? EpcCode.Text(
                    head?.Studio ?? desk.Studio.Name,
                    iban,
                    head?.Bic ?? "",
                    new(row.OwedMinor, Currency.Of(row.Currency)),
                    reference
                )
                : null;
        var modules = code is null ? null : EpcCode.Modules(code);
        return new(
            Iban.Written(iban),
            head?.Bic ?? "",
            reference.Length > 0 ? CreditorReference.Written(reference) : row.Number,
            modules is null ? null : EpcCode.Path(modules),
            modules is null ? 0 : modules.Length + 2 * EpcCode.Quiet
        );
    }
}
