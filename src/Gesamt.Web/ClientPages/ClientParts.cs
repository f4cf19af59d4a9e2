using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.ClientPages;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Turns;
using Gesamt.Core.Work;
using Gesamt.Formats.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Briefs;
using Gesamt.Web.Hosting;
using Gesamt.Web.Lists;
using Gesamt.Web.Projects;
using Gesamt.Web.Reviews;
using Gesamt.Web.RunSheets;
using Gesamt.Web.Testimonials;
using Gesamt.Web.Work;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>A phase of the work as the client follows it.</summary>
public sealed record ClientPhaseDto(string Name, PhaseState State, string When);

/// <param name="Where">The part of the page it is done in.</param>
public sealed record ToDoDto(string Words, string Where);

/// <summary>The project as a whole: what is done, and what is left.</summary>
public sealed record WholeDto(
    string DateName,
    string? Date,
    string? Distance,
    IReadOnlyList<ClientPhaseDto> Phases,
    bool Finished
);

/// <summary>A file the client can open.</summary>
public sealed record ClientFileDto(string Id, string Name, string About, string Use, FileLook Look);

/// <param name="At">When it was said.</param>
/// <param name="Pin">Where it points; null for the round as a whole.</param>
/// <param name="Where">“page 3”, “at 1:05”; empty for a place of a picture, and for the round as a whole.</param>
public sealed record SaidDto(string Text, string At, PinDto? Pin, string Where);

/// <param name="Last">That it is the last round the price includes; said before one too many.</param>
/// <param name="Beyond">That it goes beyond what the price includes.</param>
public sealed record RoundDto(
    string Id,
    string Title,
    ReviewState State,
    string When,
    bool Last,
    bool Beyond,
    IReadOnlyList<ClientFileDto> Files,
    IReadOnlyList<SaidDto> Said
);

/// <param name="Rounds">Newest first.</param>
public sealed record DraftsDto(int Agreed, IReadOnlyList<RoundDto> Rounds);

/// <param name="HandedOver">When the work was handed over.</param>
/// <param name="Words">How the goals were met, what comes after; null for nothing.</param>
/// <param name="FinalsWait">What the final files wait for; empty where they can be opened.</param>
public sealed record FilesPageDto(
    string? HandedOver,
    bool WaitsForYes,
    string? Approved,
    IReadOnlyList<ClientFileDto> Final,
    IReadOnlyList<ClientFileDto> Supplied,
    string FinalsWait,
    HandoverWordsDto? Words
);

/// <summary>The parts of a client page that the owner opens one by one.</summary>
public static class ClientParts
{
    /// <summary>The project from its first day to its last.</summary>
    public static WholeDto Whole(Desk desk, ProjectFile file)
    {
        var phases = PhaseRule.Of(file.Case);
        return new(
            ShortText.Capital(file.Case.Kind.MainDate),
            file.Case.MainDate is { } date ? DateWords.Long(date.Date) : null,
            file.Case.MainDate is { } main ? DateWords.Distance(main.Date, desk.Today) : null,
            [
                .. phases.Select(phase => new ClientPhaseDto(
                    ShortText.Capital(phase.Name),
                    phase.State,
                    phase.Since is { } since ? DateWords.Short(desk.Calendar.DateOf(since), desk.Today) : ""
                )),
            ],
            file.Row.Standing.Stage == Core.Stages.Stage.Finished
        );
    }

    /// <summary>Rounds of review with their drafts, as far as they are shown.</summary>
    public static async Task<DraftsDto> DraftsAsync(Desk desk, ProjectFile file)
    {
        var shown = Sight.Shown(file.History);
        var rows = await desk.Db.Reviews.AsNoTracking().Where(r => r.ProjectId == file.Id).ToDictionaryAsync(r => r.Id);
        var files = (await FilesOfAsync(desk, file, FileGroup.Drafts)).ToDictionary(f => f.Id);
        var said = (
            await desk
                .Db.Notes.AsNoTracking()
                .Where(n => n.ProjectId == file.Id && n.ReviewId != null)
                .OrderBy(n => n.Id)
                .ToListAsync()
        ).ToLookup(n => n.ReviewId!.Value);
        var agreed = file.Case.Kind.Rounds;
        return new(
            agreed,
            [
                .. ReviewRule
                    .Of(file.History)
                    .Where(review => review.Round is not null && rows.ContainsKey(review.Id))
                    .Reverse()
                    .Select(review => new RoundDto(
                        rows[review.Id].PublicId,
                        ReviewRule.Title(review.Phase, review.Round!.Value, agreed),
                        review.State,
                        desk.Precisely(review.Answered ?? review.Opened),
                        review.Round == agreed,
                        review.Round > agreed,
                        [
                            .. Reviewing
                                .FilesOf(rows[review.Id])
                                .Where(id => shown.Contains(id) && files.ContainsKey(id))
                                .Select(id => Of(desk, files[id])),
                        ],
                        [.. said[review.Id].Select(note => Of(desk, note, files))]
                    )),
            ]
        );
    }

    /// <summary>The files that were shown to the client, and those they sent.</summary>
    public static async Task<FilesPageDto> FilesAsync(Desk desk, ProjectFile file)
    {
        var (shown, history) = (Sight.Shown(file.History), file.History);
        var final = await FilesOfAsync(desk, file, FileGroup.Final);
        var supplied = await FilesOfAsync(desk, file, FileGroup.Supplied);
        var (handed, approved) = (
            history.Last<Happening.HandedOver>()?.Happened,
            history.Last<Happening.Approved>()?.Happened
        );
        return new(
            handed is { } at ? DateWords.Long(desk.Calendar.DateOf(at)) : null,
            handed is not null && approved is null,
            approved is { } yes ? DateWords.Long(desk.Calendar.DateOf(yes)) : null,
            [.. final.Where(f => shown.Contains(f.Id)).Select(f => Of(desk, f))],
            [.. supplied.Where(f => shown.Contains(f.Id)).Select(f => Of(desk, f))],
            FinalFiles.WaitFor(file.Case) is { } open
                ? $"These open as soon as everything is paid: {MoneyText.Of(open)} is still to come."
                : "",
            await Handover.WordsAsync(desk, file)
        );
    }

    /// <summary>What the client is asked for now, in the order in which the page has it.</summary>
    internal static IReadOnlyList<ToDoDto> ToDo(
        ProjectFile file,
        Asked asked,
        IReadOnlyDictionary<InvoiceId, InvoicePageDto> invoices
    )
    {
        List<ToDoDto> toDo = [];
        if (asked.Time is { } time)
            toDo.Add(new($"Choose a time: {time}", "time"));
        if (asked.Rates)
            toDo.Add(new("Tick what interests you on the rate sheet", "rates"));
        if (asked.Brief is { Open: true })
            toDo.Add(new("Read the brief, and say whether it is right", "brief"));
        toDo.AddRange(asked.Forms.Select(form => new ToDoDto($"Fill in “{form.Title}”", $"form-{form.Slug}")));
        if (asked.RunSheet is { Agreed: null, Days.Count: > 0 })
            toDo.Add(new("Read the run sheet, and say whether it is right", "run-sheet"));
        toDo.AddRange(
            asked
                .Boards.Where(board => board.Hash is not null)
                .Select(board => new ToDoDto(
                    $"Look at the mood board “{board.Name}”, and say whether it is right",
                    $"list-{board.Id}"
                ))
        );
        toDo.AddRange(
            asked
                .Tasks.Where(task => task.Done is null)
                .Select(task => new ToDoDto(
                    task.Due.Length > 0 ? $"{task.Title}, {task.Due}" : task.Title,
                    $"task-{task.Id}"
                ))
        );
        toDo.AddRange(ClientWay.ToDo(file.History).Select(task => Of(task, invoices)));
        // a favour comes last
        if (asked.Testimonial is { Open: true })
            toDo.Add(new("Read the words that would be quoted, and say yes or no", "testimonial"));
        return toDo;
    }

    /// <summary>What is on the page and asks for something.</summary>
    /// <param name="Time">What there is to choose a time for.</param>
    /// <param name="Rates">Whether a rate sheet waits.</param>
    internal sealed record Asked(
        string? Time,
        ShownBriefDto? Brief,
        IReadOnlyList<ClientFormDto> Forms,
        bool Rates,
        IReadOnlyList<ClientTaskDto> Tasks,
        ShownTestimonialDto? Testimonial,
        ShownRunSheetDto? RunSheet,
        IReadOnlyList<ListDto> Boards
    );

    private static ToDoDto Of(ClientTask task, IReadOnlyDictionary<InvoiceId, InvoicePageDto> invoices) =>
        task switch
        {
            ClientTask.LookAt look => new(
                $"Look at {(look.Review.Phase is { } phase ? $"the {phase}" : "the draft")} and say what you think",
                "drafts"
            ),
            ClientTask.Pay pay => new(
                $"Pay invoice {invoices[pay.Invoice].Number}, {MoneyText.Of(pay.Owed)}, due {DateWords.Long(pay.Due)}",
                "pay"
            ),
            _ => new("Look at what was handed over, and say whether all is well", "files"),
        };

    private static Task<List<FileRow>> FilesOfAsync(Desk desk, ProjectFile file, FileGroup group) =>
        desk
            .Db.Files.AsNoTracking()
            .Where(f => f.ProjectId == file.Id && f.Group == group && !f.Removed)
            .OrderBy(f => f.Id)
            .ToListAsync();

    private static SaidDto Of(Desk desk, NoteRow note, IReadOnlyDictionary<FileId, FileRow> files) =>
        Reviewing.PinOf(note) is { } pin && files.TryGetValue(pin.File, out var file)
            ? new(note.Text, desk.Precisely(note.At), new(file.PublicId, pin.X, pin.Y, pin.Page, pin.Second), pin.Words)
            : new(note.Text, desk.Precisely(note.At), null, "");

    private static ClientFileDto Of(Desk desk, FileRow row) =>
        new(row.PublicId, row.Name, RecordWork.About(desk, row), row.Use, FileTypes.LookOf(row.Type));
}
