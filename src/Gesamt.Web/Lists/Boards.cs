using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using Gesamt.Formats.Files;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Lists;

/// <summary>Where a board that was put to the client stands.</summary>
/// <param name="Hash">What they would say yes to; null where there is nothing to approve.</param>
internal sealed record BoardStand(string Words, string? Hash);

/// <summary>What mood boards have besides other lists: pictures, and an end, when the final one is approved.</summary>
public static class Boards
{
    /// <summary>Puts a picture on a board.</summary>
    /// <exception cref="InvalidException">It is no picture.</exception>
    public static async Task<string> AddPictureAsync(
        Desk desk,
        string list,
        string name,
        Stream content,
        ListWriter by,
        CancellationToken stop
    )
    {
        var (plain, hash, size, type) = await KeptFiles.TakeAsync(desk.Vault, name, content, stop);
        if (!FileTypes.IsShownPicture(type))
            throw new InvalidException(
                ("file", $"“{plain}” is no picture. A board takes JPEG, PNG, WebP and the like.")
            );
        return await desk.ActAsync(async act =>
        {
            var row = await ProjectLists.OneAsync(act.Db, list);
            if (row.Sort != ListSort.Board)
                throw new RefusedException("Pictures stand on a mood board.");
            var entry = await ListEntries.AddAsync(act, row, Codes.New(), by);
            (entry.Hash, entry.FileName, entry.Type, entry.Size) = (hash, plain, type, size);
            await ListEntries.PutAsync(act, row, entry, EntryState.Fresh, by, isNew: true);
            return entry.Key;
        });
    }

    /// <summary>The picture of an entry, whole or small.</summary>
    public static async Task<IResult> PictureAsync(
        Desk desk,
        FileVault vault,
        HttpContext http,
        string list,
        string key,
        bool small
    )
    {
        var row = await ProjectLists.OneAsync(desk.Db, list);
        var entry =
            await desk
                .Db.Entries.AsNoTracking()
                .SingleOrDefaultAsync(e => e.ListId == row.Id && e.Key == key && !e.Removed && e.Hash != null)
            ?? throw new MissingException("picture");
        return small
            ? await FileEndpoints.PreviewAsync(http, vault, entry.Hash!, entry.Type!)
            : FileEndpoints.Whole(http, vault, entry.Hash!, entry.FileName!, entry.Type!);
    }

    /// <summary>Puts the final board to the client, who changes nothing on it from then on; or collects again.</summary>
    public static Task PutAsync(Desk desk, string list, bool final) =>
        desk.ActAsync(async act =>
        {
            var row = await ProjectLists.OneAsync(act.Db, list);
            if (row.Sort != ListSort.Board || row.ProjectId is not { } project)
                throw new RefusedException("Only a mood board of a project is put to a client.");
            if (row.Final == final)
                return;
            if (final && !(await ListEntries.StandingAsync(act.Db, row.Id)).Exists(entry => !entry.Struck))
                throw new RefusedException("Nothing stands on the board yet.");
            row.Final = final;
            if (!final)
            {
                act.Touch(project);
                return;
            }
            if (row.Reader == ListReader.Owner)
                row.Reader = ListReader.Shown;
            await act.RecordAsync(await act.OpenAsync(project), Actor.Owner, new Happening.BoardPut(row.Id, row.Name));
        });

    /// <summary>The client says yes to the board as they read it.</summary>
    /// <exception cref="RefusedException">It is not put to them, is approved already, or was changed while they read it.</exception>
    public static Task ApproveAsync(Desk desk, ProjectFile file, ListRow board, string hash) =>
        desk.ActAsync(async act =>
        {
            if (!board.Final)
                throw new RefusedException("The board is still being collected.");
            var now = Of(board, await EntriesAsync(act.Desk, board));
            if (Versions.HashOf(now) != hash)
                throw new RefusedException("The board was changed while you looked at it. Load the page again.");
            if (await ApprovedHashAsync(act.Desk, file, board) == hash)
                throw new RefusedException("It is approved already.");
            var version = await Versions.AddAsync(act.Desk, file.Id, PaperSort.Board, now);
            await act.RecordAsync(file, Actor.Client, new Happening.BoardApproved(board.Id, version.Id, board.Name));
        });

    private static async Task<List<(EntryRow, EntryState)>> EntriesAsync(Desk desk, ListRow board) =>
        (await ListEntries.StandingAsync(desk.Db, board.Id)).ConvertAll(entry => (entry, ListEntries.StateOf(entry)));

    /// <summary>What would be approved: the pictures that stand, in their order.</summary>
    private static AgreedBoard Of(ListRow board, IEnumerable<(EntryRow Entry, EntryState State)> entries) =>
        new(
            board.Name,
            [
                .. entries
                    .Where(one => ListRule.Stands(one.State) && one.Entry.Hash is not null)
                    .Select(one => new AgreedPicture(one.Entry.Hash!, one.State[ListRule.Words])),
            ]
        );

    /// <summary>Where a board stands that was put to the client.</summary>
    internal static async Task<BoardStand> StandAsync(
        Desk desk,
        ProjectFile file,
        ListRow board,
        IEnumerable<(EntryRow Entry, EntryState State)> entries
    )
    {
        var hash = Versions.HashOf(Of(board, entries));
        var approved = await ApprovedHashAsync(desk, file, board);
        return approved == hash
                ? new(
                    $"approved {desk.Short(desk.Calendar.DateOf(ListRule.Approved(file.History, board.Id)!.Value.Happened))}",
                    null
                )
            : approved is not null ? new("changed since it was approved", hash)
            : new("put to the client", hash);
    }

    private static async Task<string?> ApprovedHashAsync(Desk desk, ProjectFile file, ListRow board) =>
        ListRule.Approved(file.History, board.Id) is { } approved
            ? await desk.Db.Versions.Where(v => v.Id == approved.What.Agreed).Select(v => v.Hash).SingleAsync()
            : null;
}
