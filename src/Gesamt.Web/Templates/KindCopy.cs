using Gesamt.Core;
using Gesamt.Core.Routines;
using Gesamt.Store;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <summary>What of a kind comes along when it is copied.</summary>
public enum KindPart
{
    Forms,
    Services,
    Contract,
    Routines,
}

/// <param name="Without">Parts left out; routines and forms one by one.</param>
public sealed record CopyKindDto(string Name, KindPart[] Without, int[] WithoutRoutines, int[] WithoutForms);

/// <summary>The number of a kind.</summary>
public sealed record KindIdDto(long Id);

/// <summary>All kinds in their new order.</summary>
public sealed record KindOrderDto(long[] Kinds);

/// <summary>New kinds by copying one, their order, and taking one away.</summary>
public static class KindCopy
{
    /// <summary>A new kind with the rules of another and the parts that were not left out, in their order. Letters and task lists are shared and named, not copied. Forms are closed and routines off until they were looked at.</summary>
    /// <exception cref="InvalidException">The name is none, or another kind's.</exception>
    public static async Task<KindId> CopyAsync(Desk desk, KindId from, CopyKindDto copy)
    {
        return await desk.ActAsync(async act =>
        {
            var source =
                await desk.Db.Kinds.AsNoTracking().SingleOrDefaultAsync(k => k.Id == from && !k.Removed)
                ?? throw new MissingException("kind");
            var name = copy.Name.Trim();
            if (name.Length is 0 or > 60)
                throw new InvalidException(("name", "A name of 1 to 60 characters is needed."));
            if (await desk.Db.Kinds.AnyAsync(k => k.Name == name && !k.Removed))
                throw new InvalidException(("name", "Another kind has this name."));
            var key = await FreeKeyAsync(desk.Db, RoutineText.KeyOf(name));
            var kind = new KindRow
            {
                Key = key,
                Name = name,
                Rules = source.Rules,
                Position = source.Position + 1,
            };
            await desk
                .Db.Kinds.Where(k => k.Position > source.Position)
                .ExecuteUpdateAsync(set => set.SetProperty(k => k.Position, k => k.Position + 1));
            desk.Db.Kinds.Add(kind);
            await desk.Db.SaveChangesAsync();
            if (!copy.Without.Contains(KindPart.Services))
                desk.Db.Services.AddRange(
                    (
                        await desk
                            .Db.Services.AsNoTracking()
                            .Where(s => s.KindId == from && !s.PutAway)
                            .OrderBy(s => s.Position)
                            .ToListAsync()
                    ).Select(s => new ServiceRow
                    {
                        KindId = kind.Id,
                        Gross = s.Gross,
                        Text = s.Text,
                        Link = s.Link,
                        Picture = s.Picture,
                        Steps = s.Steps,
                        Hours = s.Hours,
                        Cost = s.Cost,
                        OnRateSheet = s.OnRateSheet,
                        Title = s.Title,
                        Detail = s.Detail,
                        Unit = s.Unit,
                        UnitPrice = s.UnitPrice,
                        TaxPartsPerMillion = s.TaxPartsPerMillion,
                        Position = s.Position,
                    })
                );
            if (
                !copy.Without.Contains(KindPart.Contract)
                && await desk.Db.ContractTemplates.AsNoTracking().FirstOrDefaultAsync(c => c.KindId == from)
                    is { } contract
            )
                desk.Db.ContractTemplates.Add(
                    new()
                    {
                        KindId = kind.Id,
                        Title = contract.Title,
                        Body = contract.Body,
                        File = contract.File,
                        FileName = contract.FileName,
                        AsksCode = contract.AsksCode,
                        Edition = 1,
                    }
                );
            foreach (
                var own in await desk
                    .Db.LetterTemplates.AsNoTracking()
                    .Where(t => t.KindId == from && !t.Removed)
                    .ToListAsync()
            )
                desk.Db.LetterTemplates.Add(
                    new()
                    {
                        KindId = kind.Id,
                        Key = own.Key,
                        Name = own.Name,
                        Subject = own.Subject,
                        Body = own.Body,
                    }
                );
            if (!copy.Without.Contains(KindPart.Forms))
                await FormsAsync(desk, from, kind, copy.WithoutForms);
            if (!copy.Without.Contains(KindPart.Routines))
                desk.Db.Routines.AddRange(
                    (
                        await desk
                            .Db.Routines.AsNoTracking()
                            .Where(r => r.KindId == from && !r.Removed && !copy.WithoutRoutines.Contains(r.Id))
                            .OrderBy(r => r.Position)
                            .ThenBy(r => r.Id)
                            .ToListAsync()
                    ).Select(
                        (r, i) =>
                            new RoutineRow
                            {
                                KindId = kind.Id,
                                Key = r.Key,
                                Routine = r.Routine,
                                Off = true,
                                Trouble = r.Trouble,
                                Position = i,
                            }
                    )
                );
            return kind.Id;
        });
    }

    /// <summary>The key, or one near it where another kind has it.</summary>
    public static async Task<string> FreeKeyAsync(GesamtDb db, string key) =>
        await db.Kinds.AnyAsync(k => k.Key == key) ? $"{key}-{Codes.New()[..4]}" : key;

    private static async Task FormsAsync(Desk desk, KindId from, KindRow kind, int[] without)
    {
        foreach (
            var form in await desk
                .Db.Forms.AsNoTracking()
                .Where(f => f.KindId == from && !without.Contains(f.Id))
                .OrderBy(f => f.Id)
                .ToListAsync()
        )
        {
            desk.Db.Forms.Add(
                new()
                {
                    KindId = kind.Id,
                    Purpose = form.Purpose,
                    Slug = await Forms.SlugAsync(desk, $"{kind.Name} {form.Title}"),
                    Title = form.Title,
                    Intro = form.Intro,
                    Fields = form.Fields,
                    Thanks = form.Thanks,
                    GoTo = form.GoTo,
                    Source = form.Source,
                    BeforeDraft = form.BeforeDraft,
                    Closed = form.Purpose != FormPurpose.Checklist,
                }
            );
            await desk.Db.SaveChangesAsync();
        }
    }

    /// <summary>Puts kinds in order.</summary>
    public static async Task OrderAsync(Desk desk, long[] kinds)
    {
        await desk.ActAsync(async act =>
        {
            foreach (var row in await desk.Db.Kinds.ToListAsync())
                if (Array.IndexOf(kinds, row.Id.Value) is >= 0 and var at)
                    row.Position = at;
        });
    }

    /// <summary>Takes a kind away, or puts it back. Projects that began with it keep all that was pinned on them, and its name.</summary>
    /// <exception cref="RefusedException">A form of it is open: a page somewhere may still show it.</exception>
    public static async Task RemoveAsync(Desk desk, KindId id, bool removed)
    {
        await desk.ActAsync(async act =>
        {
            var row = await desk.Db.Kinds.SingleOrDefaultAsync(k => k.Id == id) ?? throw new MissingException("kind");
            if (
                removed
                && await desk.Db.Forms.AnyAsync(f => f.KindId == id && !f.Closed && f.Purpose == FormPurpose.Inquiry)
            )
                throw new RefusedException("Close its inquiry forms first: a page somewhere may still show them.");
            row.Removed = removed;
            await RoutineTrouble.RefreshAsync(desk);
        });
    }
}
