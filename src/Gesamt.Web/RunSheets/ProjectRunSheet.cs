using System.Collections.Immutable;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;
using Gesamt.Core.Work;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;

namespace Gesamt.Web.RunSheets;

/// <summary>The run sheet of a project: written by the owner, provisional until it is agreed, and again after every change.</summary>
public static class ProjectRunSheet
{
    /// <summary>“provisional, 3 days, 14 items”; null while there is none.</summary>
    public static async Task<string?> LineAsync(Desk desk, ProjectFile file)
    {
        if (await RowAsync(desk, file) is not { } row)
            return null;
        var agreed = await AgreedAsync(desk, file);
        return desk.Tell(
            () =>
            {
                var sheet = SheetOf(file, row);
                var days = RunSheetRule.Days(sheet.Items).Length;
                return $"{StateWords(desk, sheet, agreed)}, {Count(days, "day")}, {Count(sheet.Items.Length, "item")}";
            },
            () => Untold.Words
        );
    }

    private static string Count(int count, string of) => $"{count} {of}{(count == 1 ? "" : "s")}";

    public static async Task<RunSheetDto> OfAsync(Desk desk, ProjectFile file)
    {
        var row = await RowAsync(desk, file) ?? Empty(file);
        var (sheet, agreed) = (SheetOf(file, row), await AgreedAsync(desk, file));
        string[] dates = [file.Case.Kind.MainDate, .. Work.Dates.Others(file.Case)];
        return new(
            row.Edition,
            file.Row.Title,
            row.DateName ?? file.Case.Kind.MainDate,
            [.. dates.Where(name => name.Length > 0).Distinct()],
            sheet.MainDay is { } day ? DateWords.Full(day) : null,
            row.Earlier,
            [
                .. RunSheetRule
                    .Days(sheet.Items)
                    .Select(one => (Day: one, Date: sheet.MainDay?.PlusDays(one)))
                    .Select(one => new RunDayDto(
                        one.Day,
                        RunItems.DayWords(one.Day, one.Date),
                        desk.Short(one.Date) ?? RunItems.DayWords(one.Day, null)
                    )),
            ],
            RunItems.Of(sheet.Items),
            StateWords(desk, sheet, agreed),
            Stands(sheet, agreed),
            Changes(sheet, agreed)
        );
    }

    /// <summary>Every item with its day and true start, as a table.</summary>
    public static async Task<FileContentHttpResult> TableAsync(Desk desk, ProjectFile file)
    {
        var row = await RowAsync(desk, file) ?? Empty(file);
        var sheet = SheetOf(file, row);
        return TableFile.Of(
            "run-sheet",
            ["Day", "Start", "Length", "What", "Where", "Who", "For"],
            RunItems
                .Of(sheet.Items)
                .Select(item =>
                    (IReadOnlyList<string>)
                        [
                            sheet.MainDay is { } day
                                ? TableFile.Day(day.PlusDays(item.Day))
                                : RunItems.DayWords(item.Day, null),
                            LocalTimePattern.CreateWithInvariantCulture("HH:mm").Format(item.Start),
                            item.Length,
                            item.What,
                            item.Where,
                            item.Who,
                            RunItems.ForWords(item.For),
                        ]
                )
        );
    }

    /// <summary>Keeps the sheet as it was written.</summary>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    /// <exception cref="StaleException">It was saved in another window meanwhile.</exception>
    public static Task SaveAsync(Desk desk, ProjectId project, SaveRunSheetDto save) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var items = RunItems.Read(save.Items);
            List<(string, string)> errors = [];
            RunItems.CheckEarlier(save.Earlier, "earlier", errors);
            var isMain = save.DateName == file.Case.Kind.MainDate;
            if (!isMain && !Work.Dates.Others(file.Case).Contains(save.DateName))
                errors.Add(("dateName", "Choose one of the project’s dates."));
            if (errors.Count > 0)
                throw new InvalidException([.. errors]);
            await WriteAsync(
                act,
                file,
                save.Edition,
                row =>
                    (row.DateName, row.Earlier, row.Items) = (
                        isMain ? null : save.DateName,
                        save.Earlier,
                        RunItems.Write(items)
                    )
            );
        });

    /// <summary>Adds the items of a template to what stands.</summary>
    public static Task LayAsync(Desk desk, ProjectId project, LayRunSheetDto lay) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var template = await RunSheetTemplates.OneAsync(act.Db, lay.Key);
            var laid = RunItems.Read(template.Items).Select(item => item with { Key = Codes.New() }).ToList();
            await WriteAsync(
                act,
                file,
                lay.Edition,
                row =>
                    row.Items = RunItems.Write(RunItems.Read([.. RunItems.Of([.. RunItems.Read(row.Items), .. laid])]))
            );
        });

    private static async Task WriteAsync(Act act, ProjectFile file, int edition, Action<RunSheetRow> write)
    {
        var row = await act.Db.RunSheets.SingleOrDefaultAsync(r => r.ProjectId == file.Id);
        if ((row?.Edition ?? 0) != edition)
            throw new StaleException(await OfAsync(act.Desk, file));
        if (row is null)
            act.Db.RunSheets.Add(row = Empty(file));
        write(row);
        row.Edition++;
        await act.Db.SaveChangesAsync();
        if (file.History.Any<Happening.RunSheetKept>())
            act.Touch(file.Id);
        else
            await act.RecordAsync(file, Actor.Owner, new Happening.RunSheetKept());
    }

    private static RunSheetRow Empty(ProjectFile file) =>
        new()
        {
            ProjectId = file.Id,
            Items = "[]",
            Earlier = file.Case.Kind.GuestsEarlier,
        };

    /// <summary>Only where one was begun.</summary>
    internal static async Task<RunSheetRow?> RowAsync(Desk desk, ProjectFile file) =>
        file.History.Any<Happening.RunSheetKept>()
            ? await desk.Db.RunSheets.AsNoTracking().SingleOrDefaultAsync(r => r.ProjectId == file.Id)
            : null;

    internal static RunSheet SheetOf(ProjectFile file, RunSheetRow row) =>
        new(file.Case.DateNamed(row.DateName ?? file.Case.Kind.MainDate)?.Date, row.Earlier, RunItems.Read(row.Items));

    /// <summary>What was agreed last, and when.</summary>
    private static async Task<(RunSheet Sheet, NodaTime.Instant At)?> AgreedAsync(Desk desk, ProjectFile file)
    {
        if (RunSheetRule.Agreed(file.History) is not { } agreed)
            return null;
        var version = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == agreed.What.Agreed);
        return (Versions.Read<RunSheet>(version), agreed.Happened);
    }

    private static IReadOnlyList<string> Changes(RunSheet sheet, (RunSheet Sheet, NodaTime.Instant At)? agreed) =>
        agreed is { } last ? [.. RunSheetRule.Changes(last.Sheet, RunSheetRule.Shared(sheet))] : [];

    private static bool Stands(RunSheet sheet, (RunSheet Sheet, NodaTime.Instant At)? agreed) =>
        agreed is not null && Changes(sheet, agreed).Count == 0;

    internal static async Task<bool> IsAgreedAsync(Desk desk, ProjectFile file, RunSheet sheet) =>
        Stands(sheet, await AgreedAsync(desk, file));

    private static string StateWords(Desk desk, RunSheet sheet, (RunSheet Sheet, NodaTime.Instant At)? agreed) =>
        Stands(sheet, agreed) ? $"agreed {desk.Short(desk.Calendar.DateOf(agreed!.Value.At))}"
        : agreed is not null ? "provisional, changed since it was agreed"
        : "provisional";

    /// <summary>What its client reads; null where there is none.</summary>
    public static async Task<ShownRunSheetDto?> ShownAsync(Desk desk, ProjectFile file)
    {
        if (await RowAsync(desk, file) is not { } row)
            return null;
        var agreed = await AgreedAsync(desk, file);
        return desk.Tell(
            () =>
            {
                var sheet = SheetOf(file, row);
                return new ShownRunSheetDto(
                    RunItems.Copied(RunSheetRule.Copy(sheet, RunReader.Client)),
                    HashOf(sheet),
                    Stands(sheet, agreed) ? desk.Short(desk.Calendar.DateOf(agreed!.Value.At)) : null,
                    Changes(sheet, agreed)
                );
            },
            () => (ShownRunSheetDto?)null
        );
    }

    private static string HashOf(RunSheet sheet) => Versions.HashOf(RunSheetRule.Shared(sheet));

    /// <summary>It is right as it stands.</summary>
    /// <param name="hash">Of what was read; null for the owner, who was told so.</param>
    /// <exception cref="RefusedException">It was changed while it was read, or is agreed already.</exception>
    public static Task AgreeAsync(Desk desk, ProjectId project, string? hash) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = await RowAsync(desk, file) ?? throw new MissingException("run sheet");
            var (sheet, agreed) = (SheetOf(file, row), await AgreedAsync(desk, file));
            if (hash is not null && hash != HashOf(sheet))
                throw new RefusedException("The run sheet was changed while you read it. Load the page again.");
            if (Stands(sheet, agreed))
                throw new RefusedException("It is agreed already.");
            var version = await Versions.AddAsync(desk, project, PaperSort.RunSheet, RunSheetRule.Shared(sheet));
            await act.RecordAsync(
                file,
                hash is null ? Actor.Owner : Actor.Client,
                new Happening.RunSheetAgreed(version.Id)
            );
        });

    /// <summary>The copy of one reader as PDF on A4, one day a page.</summary>
    public static async Task<byte[]> PdfAsync(Desk desk, ProjectFile file, RunReader reader)
    {
        var row = await RowAsync(desk, file) ?? throw new MissingException("run sheet");
        var (sheet, agreed) = (SheetOf(file, row), await AgreedAsync(desk, file));
        return new Formats.Pdf.RunSheetPaper(
            Print.Letterhead(desk),
            file.Row.Title,
            ReaderWords(reader),
            ShortText.Capital(StateWords(desk, sheet, agreed)),
            [
                .. RunItems
                    .Copied(RunSheetRule.Copy(sheet, reader))
                    .Select(day => new Formats.Pdf.RunSheetDay(
                        day.Words,
                        [
                            .. day.Lines.Select(line => new Formats.Pdf.RunSheetLine(
                                line.Time,
                                line.What,
                                Detail(line, reader),
                                line.Where,
                                line.Who
                            )),
                        ]
                    )),
            ]
        ).Draw(desk.Now, Print.Logo(desk, Print.Letterhead(desk)));
    }

    private static string Detail(CopiedLineDto line, RunReader reader)
    {
        string[] parts =
        [
            line.Until.Length > 0 ? $"until {line.Until}" : "",
            line.Guests.Length > 0 ? $"guests are told {line.Guests}" : "",
            reader is RunReader.Me or RunReader.Client ? $"for {line.For}" : "",
        ];
        return string.Join(", ", parts.Where(part => part.Length > 0));
    }

    private static string ReaderWords(RunReader reader) =>
        reader switch
        {
            RunReader.Me => "The whole of it",
            RunReader.Client => "For the client",
            RunReader.Suppliers => "For suppliers",
            _ => "For guests",
        };
}
