using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Forms;
using Gesamt.Core.Letters;
using Gesamt.Core.Meetings;
using Gesamt.Core.Proposals;
using Gesamt.Core.Work;
using Gesamt.Formats.Files;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Meetings;
using Gesamt.Web.Papers;
using Gesamt.Web.Reviews;
using Gesamt.Web.Words;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Projects;

/// <summary>An entry opened whole.</summary>
/// <param name="File">A paper to open beside it.</param>
/// <param name="Note">The owner's own words, which can be changed.</param>
public sealed record ReaderDto(
    string Title,
    string Under,
    string Text,
    string Quoted,
    IReadOnlyList<AnswerDto> Answers,
    IReadOnlyList<MoneyLineDto> Sums,
    string? File,
    long? HeldLetter,
    string? Gaps,
    ReviewReadDto? Review = null,
    PaymentReadDto? Payment = null,
    InvoiceReadDto? Invoice = null,
    MeetingDto? Meeting = null,
    LetterReadDto? Letter = null,
    long? Note = null
);

/// <param name="Files">What went or came with it.</param>
/// <param name="CanAnswer">Whether it came from the client.</param>
/// <param name="CanWait">Whether it is held by a routine and can be put off.</param>
/// <param name="CanTakeBack">Whether it is on its way and has not left the house.</param>
public sealed record LetterReadDto(
    long Id,
    IReadOnlyList<FileDto> Files,
    bool CanAnswer,
    bool CanWait,
    bool CanTakeBack,
    bool CanWriteAgain,
    string? Problem,
    bool HasHtml
);

/// <summary>A round of review opened whole.</summary>
public sealed record ReviewReadDto(
    long Id,
    ReviewState State,
    IReadOnlyList<ReviewFileDto> Files,
    IReadOnlyList<ReviewSaidDto> Said
);

/// <summary>What the client said of a round.</summary>
/// <param name="File">The draft it points at; null for the round as a whole.</param>
/// <param name="X">From the left edge, in thousandths of the width.</param>
/// <param name="Y">From the top edge, in thousandths of the height.</param>
/// <param name="Page">Of a document, from 1.</param>
/// <param name="Where">“page 3”, “at 1:05”; empty for a place of a picture.</param>
public sealed record ReviewSaidDto(string Text, string At, long? File, int? X, int? Y, int? Page, string Where);

/// <summary>A file of a draft.</summary>
public sealed record ReviewFileDto(long Id, string Name, string About, FileLook Look);

/// <summary>Opens an entry of the line.</summary>
public static class Reader
{
    /// <summary>How a file of a letter is shown; films and sounds are fetched, since what came by mail is handed out as nothing but bytes.</summary>
    private static FileLook LookOf(LetterFileRow file) =>
        FileTypes.LookOf(file.Type) is var look && look is FileLook.Film or FileLook.Sound ? FileLook.Nothing : look;

    /// <summary>What an entry of the line opens.</summary>
    public static async Task<ReaderDto> OfAsync(Desk desk, ProjectId project, OpensWhat what, long id) =>
        what switch
        {
            OpensWhat.Letter => Letter(
                desk,
                await OneAsync(
                    desk.Db.Letters.Include(l => l.Files).Where(l => l.Id == new LetterId(id) && l.ProjectId == project)
                )
            ),
            OpensWhat.Answers => Answers(
                desk,
                await OneAsync(desk.Db.Answers.Where(a => a.Id == new AnswersId(id) && a.ProjectId == project))
            ),
            OpensWhat.Note => Note(
                desk,
                await OneAsync(desk.Db.Notes.Where(n => n.Id == new NoteId(id) && n.ProjectId == project))
            ),
            OpensWhat.Proposal => Proposal(desk, await OneAsync(VersionsOf(desk, project, PaperSort.Proposal, id))),
            OpensWhat.Contract => await ContractAsync(
                desk,
                await OneAsync(VersionsOf(desk, project, PaperSort.Contract, id))
            ),
            OpensWhat.Invoice => await MoneyRead.InvoiceAsync(
                desk,
                await OneAsync(desk.Db.Invoices.Where(i => i.Id == new InvoiceId(id) && i.ProjectId == project))
            ),
            OpensWhat.Payment => await MoneyRead.PaymentAsync(
                desk,
                await OneAsync(desk.Db.Payments.Where(p => p.Id == new PaymentId(id) && p.ProjectId == project))
            ),
            OpensWhat.Review => await ReviewAsync(
                desk,
                await OneAsync(desk.Db.Reviews.Where(r => r.Id == new ReviewId(id) && r.ProjectId == project))
            ),
            OpensWhat.Meeting => await MeetingAsync(
                desk,
                await OneAsync(desk.Db.Meetings.Where(m => m.Id == new MeetingId(id) && m.ProjectId == project))
            ),
            _ => throw new MissingException("entry"),
        };

    private static IQueryable<VersionRow> VersionsOf(Desk desk, ProjectId project, PaperSort sort, long id) =>
        desk.Db.Versions.Where(v => v.Id == new VersionId(id) && v.ProjectId == project && v.Sort == sort);

    private static async Task<ReaderDto> MeetingAsync(Desk desk, MeetingRow row)
    {
        var file = await desk.OpenAsync(row.ProjectId);
        var meeting = MeetingViews.Of(desk, row, MeetingState.WasMissed(file.History, row.Id));
        return new(
            meeting.Name,
            $"{meeting.When}, {meeting.State}",
            string.Join("\n\n", new[] { meeting.Place, meeting.Agenda, meeting.Notes }.Where(text => text.Length > 0)),
            "",
            meeting.Answers,
            [],
            null,
            null,
            null,
            Meeting: meeting
        );
    }

    private static async Task<T> OneAsync<T>(IQueryable<T> query)
        where T : class => await query.AsNoTracking().SingleOrDefaultAsync() ?? throw new MissingException("entry");

    private static ReaderDto Letter(Desk desk, LetterRow letter) =>
        new(
            letter.Subject,
            $"{letter.FromName} to {letter.ToName}, {State(desk, letter)}",
            SignCodes.Hidden(
                letter.Body.Replace(
                    Blanks.LinkPlaceholder,
                    "[their own link, put in when it leaves]",
                    StringComparison.Ordinal
                )
            ),
            letter.Quoted,
            [],
            [],
            null,
            letter.State == LetterState.Held ? letter.Id.Value : null,
            letter.Gaps.Length > 0 ? letter.Gaps : null,
            Letter: new(
                letter.Id.Value,
                [
                    .. letter.Files.Select(f => new FileDto(
                        f.Name,
                        $"/api/letters/{letter.Id.Value}/files/{f.Id}",
                        LookOf(f)
                    )),
                ],
                letter.State is LetterState.Received or LetterState.Kept && letter.FromMail != desk.Studio.Mail,
                letter is { State: LetterState.Held, Step: not null },
                letter.State == LetterState.Ready,
                letter.State == LetterState.Draft,
                letter.Problem,
                letter is { HasHtml: true, Original: not null }
            )
        );

    private static string State(Desk desk, LetterRow letter) =>
        letter.State switch
        {
            LetterState.Held => $"waits for your OK since {desk.Precisely(letter.At)}",
            LetterState.Stopped => "stopped before it was sent",
            LetterState.Skipped => "skipped",
            LetterState.Uncertain => "may have gone out",
            LetterState.Ready when letter.GoesAt is { } goes => $"goes out {desk.Precisely(goes)}",
            LetterState.Ready => "leaves in a few seconds",
            LetterState.PutOff => "put off; it comes up again at its time",
            LetterState.Kept => $"taken over from a file, {desk.Precisely(letter.At)}",
            LetterState.Draft => "a draft",
            _ => desk.Precisely(letter.At),
        };

    private static ReaderDto Answers(Desk desk, AnswersRow answers) =>
        new(
            answers.Form,
            desk.Precisely(answers.At),
            "",
            "",
            [.. StoreJson.Read<List<Answer>>(answers.Items).Select(a => AnswerDto.Of(a))],
            [],
            null,
            null,
            null
        );

    /// <summary>Answers as a sheet to carry, on A4.</summary>
    public static async Task<byte[]> AnswersPaperAsync(Desk desk, ProjectId project, long id)
    {
        var answers = await OneAsync(desk.Db.Answers.Where(a => a.Id == new AnswersId(id) && a.ProjectId == project));
        var row = (await desk.OpenAsync(project)).Row;
        var head = Print.Letterhead(desk);
        return new Formats.Pdf.AnswersPaper(
            head,
            answers.Form,
            $"{row.Title}. {row.Client!.Name}, {desk.Precisely(answers.At)}.",
            [
                .. StoreJson
                    .Read<List<Answer>>(answers.Items)
                    .Select(one => AnswerDto.Of(one))
                    .Select(one => new Formats.Pdf.AnsweredQuestion(one.Question, one.Text)),
            ]
        ).Draw(desk.Now, Print.Logo(desk, head));
    }

    private static ReaderDto Note(Desk desk, NoteRow note) =>
        new(
            note.Sort switch
            {
                NoteSort.Call => "Call",
                NoteSort.Words => "Their words",
                _ => "Note",
            },
            desk.Precisely(note.At),
            note.Text,
            "",
            [],
            [],
            null,
            null,
            null,
            Note: note.Sort == NoteSort.Words ? null : note.Id.Value
        );

    private static ReaderDto Proposal(Desk desk, VersionRow version)
    {
        var offer = Versions.OfferOf(version);
        return new(
            $"Proposal, version {version.Number}",
            $"valid until {DateWords.Long(offer.ValidUntil)}. SHA-256 {version.Hash}",
            string.Join(
                "\n\n",
                offer.Parts.OfType<OfferPart.Words>().Select(words => $"{words.Heading}\n{words.Body}".Trim())
            ),
            "",
            [],
            [
                .. offer.Lines.Select(line => new MoneyLineDto(
                    $"{line.Words} ({Role(line.Role)})",
                    MoneyText.Of(line.Priced(offer.Currency).Net)
                )),
            ],
            null,
            null,
            null
        );
    }

    private static string Role(LineRole role) =>
        role switch
        {
            LineRole.Included => "included",
            LineRole.OneOf => "choice of one",
            _ => "extra",
        };

    private static async Task<ReaderDto> ContractAsync(Desk desk, VersionRow version)
    {
        var contract = Versions.Read<ContractSnapshot>(version);
        return new(
            contract.Title,
            $"version {version.Number}, {desk.Precisely(version.At)}. SHA-256 {version.Hash}{Later(desk, await KeptPapers.OfAsync(desk, version))}",
            contract.SignedBy.File is { } own
                ? $"The contract is your own file, “{own.Name}”, SHA-256 {own.Hash}."
                : string.Join("\n\n", contract.Blocks.Select(block => $"{block.Number} {block.Plain}".Trim())),
            "",
            [],
            [],
            $"/api/contracts/{version.Id.Value}.pdf",
            null,
            null
        );
    }

    /// <summary>A paper of an older Gesamt was not kept when it was made, and may have looked otherwise.</summary>
    internal static string Later(Desk desk, PaperRow? paper) =>
        paper is { DrawnLater: true } ? $". Its file was drawn later, {desk.Precisely(paper.At)}" : "";

    private static async Task<ReaderDto> ReviewAsync(Desk desk, ReviewRow row)
    {
        var file = await desk.OpenAsync(row.ProjectId);
        var review = ReviewRule.Of(file.History).First(r => r.Id == row.Id);
        var ids = Reviewing.FilesOf(row);
        var files = await desk.Db.Files.AsNoTracking().Where(f => ids.Contains(f.Id)).OrderBy(f => f.Id).ToListAsync();
        var notes = await desk
            .Db.Notes.AsNoTracking()
            .Where(n => n.ReviewId == row.Id)
            .OrderBy(n => n.Id)
            .ToListAsync();
        var title = review.Round is { } round
            ? ReviewRule.Title(row.Phase, round, file.Case.Kind.Rounds)
            : "A round that was taken back";
        var state = review.State switch
        {
            ReviewState.Open => "waits for the client",
            ReviewState.Returned => $"changes asked by {row.AnsweredBy}, {desk.Precisely(review.Answered!.Value)}",
            ReviewState.Approved => $"approved by {row.AnsweredBy}, {desk.Precisely(review.Answered!.Value)}",
            _ => "does not count",
        };
        return new(
            title,
            state,
            "",
            "",
            [],
            [],
            null,
            null,
            null,
            new(
                row.Id.Value,
                review.State,
                [
                    .. files.Select(f => new ReviewFileDto(
                        f.Id.Value,
                        f.Name,
                        RecordWork.About(desk, f),
                        FileTypes.LookOf(f.Type)
                    )),
                ],
                [
                    .. notes
                        .Select(n => (Note: n, Pin: Reviewing.PinOf(n)))
                        .Select(n => new ReviewSaidDto(
                            n.Note.Text,
                            desk.Precisely(n.Note.At),
                            n.Pin?.File.Value,
                            n.Pin?.X,
                            n.Pin?.Y,
                            n.Pin?.Page,
                            n.Pin?.Words ?? ""
                        )),
                ]
            )
        );
    }
}
