using Gesamt.Core;
using Gesamt.Core.Letters;
using Gesamt.Core.Routines;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <param name="Name">The owner's alone; no client sees it.</param>
/// <param name="Number">By which it is called up while writing.</param>
/// <param name="Kind">The kind whose own it is; null for one that all share.</param>
/// <param name="UsedBy">Routines that send it, over all kinds.</param>
public sealed record LetterTextRowDto(
    int Id,
    string Key,
    long? Kind,
    string Name,
    int? Number,
    string Subject,
    string Body,
    int Edition,
    IReadOnlyList<string> UsedBy,
    IReadOnlyList<LetterFileDto> Files
);

/// <summary>A letter’s text as it is saved.</summary>
/// <param name="Kind">Of a new one: the kind whose own it is to be.</param>
/// <param name="Key">Of a new one: the shared letter in whose place it stands for that kind.</param>
public sealed record SaveLetterDto(
    string Name,
    int? Number,
    string Subject,
    string Body,
    int Edition,
    LetterFileDto[] Files,
    long? Kind = null,
    string? Key = null
);

/// <summary>A letter’s number and key.</summary>
public sealed record LetterMadeDto(int Id, string Key);

/// <summary>The studio's letters: shared by all kinds or one kind's own, each with its own name, number and files.</summary>
public static class LetterTexts
{
    private const int MostNumber = 999;

    /// <summary>All texts, with what uses each.</summary>
    public static async Task<IReadOnlyList<LetterTextRowDto>> AllAsync(Desk desk)
    {
        var used = await RoutineUses.OfAsync(desk, action => action.LetterKey);
        return
        [
            .. (
                await desk
                    .Db.LetterTemplates.AsNoTracking()
                    .Include(t => t.Files)
                    .Where(t => !t.Removed)
                    .OrderBy(t => t.Name)
                    .ToListAsync()
            ).Select(t => new LetterTextRowDto(
                t.Id,
                t.Key,
                t.KindId?.Value,
                t.Name,
                t.Number,
                t.Subject,
                t.Body,
                t.Edition,
                [.. used[t.Key].Distinct()],
                [.. t.Files.Select(f => new LetterFileDto(f.Name, f.Hash, f.Size, f.Type))]
            )),
        ];
    }

    /// <summary>Changes a letter, or keeps a new one under a key made from its name. Letters held or sent keep the text they were made with.</summary>
    /// <exception cref="LetterTextException">A blank is misspelt or left open.</exception>
    public static async Task<LetterMadeDto> SaveAsync(Desk desk, int? id, SaveLetterDto save)
    {
        return await desk.ActAsync(async act =>
        {
            await CheckAsync(desk, id, save);
            LetterText.Parse(save.Subject);
            LetterText.Parse(save.Body);
            var row = id is null
                ? null
                : await desk
                    .Db.LetterTemplates.Include(t => t.Files)
                    .SingleOrDefaultAsync(l => l.Id == id && !l.Removed)
                    ?? throw new MissingException("letter");
            if (row is null)
                desk.Db.LetterTemplates.Add(
                    row = new()
                    {
                        KindId = save.Kind is { } kind ? new(kind) : null,
                        Key = save.Key ?? await NewKeyAsync(desk, save.Name),
                        Name = "",
                        Subject = "",
                        Body = "",
                    }
                );
            else if (row.Edition != save.Edition)
                throw new StaleException(
                    new SaveLetterDto(row.Name, row.Number, row.Subject, row.Body, row.Edition, [])
                );
            (row.Name, row.Number, row.Subject, row.Body, row.Edition) = (
                save.Name.Trim(),
                save.Number,
                save.Subject.Trim(),
                save.Body.Trim(),
                row.Edition + 1
            );
            row.Files =
            [
                .. (await LetterEndpoints.FilesAsync(desk, save.Files)).Select(f => new TemplateFileRow
                {
                    Name = f.Name,
                    Hash = f.Hash,
                    Size = f.Size,
                    Type = f.Type,
                }),
            ];
            await RoutineTrouble.RefreshAsync(desk);
            return new LetterMadeDto(row.Id, row.Key);
        });
    }

    /// <summary>Takes a letter away, or puts it back. Routines that send it stay off until it is back or they send another.</summary>
    public static async Task RemoveAsync(Desk desk, int id, bool removed)
    {
        await desk.ActAsync(async act =>
        {
            var row =
                await desk.Db.LetterTemplates.SingleOrDefaultAsync(l => l.Id == id)
                ?? throw new MissingException("letter");
            // its number is free for another; one that is put back asks for a new one
            (row.Removed, row.Number) = (removed, null);
            await RoutineTrouble.RefreshAsync(desk);
        });
    }

    private static async Task CheckAsync(Desk desk, int? id, SaveLetterDto save)
    {
        List<(string, string)> errors =
        [
            .. new[] { ("name", save.Name, 80), ("subject", save.Subject, 200), ("body", save.Body, 50_000) }
                .Where(f => f.Item2.Trim().Length == 0 || f.Item2.Trim().Length > f.Item3)
                .Select(f => (f.Item1, $"Write 1 to {f.Item3} characters.")),
        ];
        if (save.Number is < 1 or > MostNumber)
            errors.Add(("number", $"From 1 to {MostNumber}, or nothing."));
        if (
            save.Number is { } number
            && await desk
                .Db.LetterTemplates.Where(t => t.Number == number && t.Id != id)
                .Select(t => t.Name)
                .FirstOrDefaultAsync()
                is { } other
        )
            errors.Add(("number", $"“{other}” has this number."));
        if (id is null)
            await CheckKindAsync(desk, save, errors);
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
    }

    private static async Task CheckKindAsync(Desk desk, SaveLetterDto save, List<(string, string)> errors)
    {
        KindId? kind = save.Kind is { } number ? new(number) : null;
        if (kind is { } known && !await desk.Db.Kinds.AnyAsync(k => k.Id == known && !k.Removed))
            errors.Add(("kind", "One of the kinds of work, or none for all of them."));
        if (
            save.Key is { } key
            && (
                kind is null
                || !await desk.Db.LetterTemplates.AnyAsync(t => t.Key == key && t.KindId == null)
                || await desk.Db.LetterTemplates.AnyAsync(t => t.Key == key && t.KindId == kind)
            )
        )
            errors.Add(("key", "A shared letter that this kind has no words of its own for yet."));
    }

    private static async Task<string> NewKeyAsync(Desk desk, string name)
    {
        var key = RoutineText.KeyOf(name);
        return await desk.Db.LetterTemplates.AnyAsync(l => l.Key == key)
            ? $"{key}-{Guid.NewGuid():n}"[..(key.Length + 7)]
            : key;
    }
}
