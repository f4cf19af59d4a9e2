using Gesamt.Core;
using Gesamt.Core.Letters;
using Gesamt.Core.Projects;
using Gesamt.Core.Routines;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Prices;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Templates;

/// <summary>A kind in the list.</summary>
public sealed record KindDto(long Id, string Key, string Name, int Projects);

/// <summary>A kind of work and what it brings along, to be edited.</summary>
/// <param name="Projects">How many were begun with it.</param>
public sealed record KindPageDto(
    long Id,
    string Key,
    string Name,
    int Projects,
    int Edition,
    IReadOnlyList<ServiceDto> Services,
    ContractTemplateDto Contract,
    IReadOnlyList<RoutineRowDto> Routines,
    KindSettingsDto Settings,
    IReadOnlyList<string> Fills
);

/// <summary>A kind of work that is begun from nothing.</summary>
/// <param name="MainDate">What the date that matters is called; empty for work without one.</param>
/// <param name="Usual">Whether the usual letters and follow-ups come along.</param>
public sealed record NewKindDto(string Name, string MainDate, bool Usual);

/// <summary>The contract of a kind, as this edition.</summary>
/// <param name="File">The owner’s own file in place of the text.</param>
/// <param name="AsksCode">Whether whoever signs types a code that was sent to their mail address.</param>
public sealed record ContractTemplateDto(string Title, string Body, ContractFileDto? File, bool AsksCode, int Edition)
{
    internal static ContractTemplateDto Of(ContractTemplateRow? row) =>
        row is null
            ? new("Contract", "", null, false, 0)
            : new(
                row.Title,
                row.Body,
                row.File is { } file ? new(file, row.FileName) : null,
                row.AsksCode,
                row.Edition
            );
}

/// <summary>Reads and changes what kinds bundle. Projects already begun keep what was pinned on them; sent papers never change.</summary>
public static class Kinds
{
    /// <summary>A kind’s page.</summary>
    public static async Task<KindPageDto> OfAsync(Desk desk, KindId id)
    {
        var kind = await KindAsync(desk, id);
        var rules = StoreJson.Read<KindRules>(kind.Rules);
        var contract = await desk.Db.ContractTemplates.AsNoTracking().FirstOrDefaultAsync(c => c.KindId == id);
        return new(
            id.Value,
            kind.Key,
            kind.Name,
            await desk.Db.Projects.CountAsync(p => p.KindId == id),
            kind.Edition,
            [.. (await PriceList.RowsAsync(desk, id)).Select(PriceList.Of)],
            ContractTemplateDto.Of(contract),
            [.. (await RoutineList.AllAsync(desk)).Where(r => r.Kind == id.Value)],
            KindSettings.Of(kind, rules),
            [.. Forms.Fills, .. rules.AllDetails.Select(detail => detail.Name)]
        );
    }

    /// <summary>Begins a kind with nothing, or with the usual letters and follow-ups.</summary>
    /// <exception cref="InvalidException">The name is none, or another kind's.</exception>
    public static async Task<KindId> AddAsync(Desk desk, Settings settings, NewKindDto make) =>
        await desk.ActAsync(async act =>
        {
            var name = make.Name.Trim();
            if (name.Length is 0 or > 60)
                throw new InvalidException(("name", "A name of 1 to 60 characters is needed."));
            if (await desk.Db.Kinds.AnyAsync(k => k.Name == name && !k.Removed))
                throw new InvalidException(("name", "Another kind has this name."));
            var kind = new KindRow
            {
                Key = await KindCopy.FreeKeyAsync(desk.Db, RoutineText.KeyOf(name)),
                Name = name,
                Rules = StoreJson.Write(KindRules.Default with { MainDate = make.MainDate.Trim() }),
                Position = (await desk.Db.Kinds.MaxAsync(k => (int?)k.Position) ?? -1) + 1,
            };
            desk.Db.Kinds.Add(kind);
            await desk.Db.SaveChangesAsync();
            if (make.Usual)
                await KindFiles.AddUsualAsync(desk.Db, kind, settings.UsualSet);
            await RoutineTrouble.RefreshAsync(desk);
            return kind.Id;
        });

    /// <exception cref="LetterTextException">A blank is misspelt or left open.</exception>
    /// <exception cref="InvalidException">It has no title, neither a text nor a file, or the file is no PDF that can be signed.</exception>
    public static async Task SaveContractAsync(Desk desk, KindId id, ContractTemplateDto save)
    {
        await desk.ActAsync(async act =>
        {
            var kind = await KindAsync(desk, id);
            var row = await desk.Db.ContractTemplates.FirstOrDefaultAsync(c => c.KindId == id);
            if ((row?.Edition ?? 0) != save.Edition)
                throw new StaleException(ContractTemplateDto.Of(row));
            Check(("title", save.Title, 120));
            if (save.File is null || save.Body.Trim().Length > 0)
                Check(("body", save.Body, 50_000));
            ContractText.Check(save.Body);
            var file = await SigningReading.FileAsync(desk, save.File);
            if (row is null)
                desk.Db.ContractTemplates.Add(
                    row = new()
                    {
                        KindId = kind.Id,
                        Title = "",
                        Body = "",
                    }
                );
            (row.Title, row.Body, row.AsksCode) = (save.Title.Trim(), save.Body.Trim(), save.AsksCode);
            (row.File, row.FileName, row.Edition) = (file?.Hash, file?.Name ?? "", row.Edition + 1);
        });
    }

    private static void Check(params (string Field, string Text, int Most)[] fields)
    {
        var errors = fields
            .Where(f => f.Text.Trim().Length == 0 || f.Text.Trim().Length > f.Most)
            .Select(f => (f.Field, $"Write 1 to {f.Most} characters."))
            .ToArray();
        if (errors.Length > 0)
            throw new InvalidException(errors);
    }

    private static async Task<KindRow> KindAsync(Desk desk, KindId id) =>
        await desk.Db.Kinds.AsNoTracking().SingleOrDefaultAsync(k => k.Id == id) ?? throw new MissingException("kind");
}
