using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Spent;

/// <summary>What suppliers would ask: kept with their file and the day until which it holds; taken, a quote becomes a cost.</summary>
public static class Quotes
{
    public static void MapQuotes(this RouteGroupBuilder api)
    {
        var quotes = api.MapGroup("/projects/{id:long}/quotes");
        quotes.MapPost(
            "",
            async (long id, KeepQuoteDto quote, Desk desk) =>
                new SpentIdDto((await AddAsync(desk, new(id), quote)).Value)
        );
        quotes.MapPut(
            "/{quote:long}",
            async (long id, long quote, KeepQuoteDto to, Desk desk) =>
            {
                await ChangeAsync(desk, new(id), new(quote), row => Write(row, to));
                return TypedResults.NoContent();
            }
        );
        quotes.MapPost(
            "/{quote:long}/removed",
            async (long id, long quote, RemovedDto to, Desk desk) =>
            {
                await ChangeAsync(desk, new(id), new(quote), row => row.Removed = to.Removed);
                return TypedResults.NoContent();
            }
        );
        quotes.MapPost(
            "/{quote:long}/take",
            async (long id, long quote, Desk desk) => new SpentIdDto((await TakeAsync(desk, new(id), new(quote))).Value)
        );
        quotes
            .MapPost(
                "/{quote:long}/file",
                async (long id, long quote, string name, Desk desk, HttpContext http, CancellationToken stop) =>
                {
                    var (plain, hash, _, type) = await KeptFiles.TakeAsync(desk.Vault, name, http.Request.Body, stop);
                    await ChangeAsync(
                        desk,
                        new(id),
                        new(quote),
                        row => (row.FileName, row.FileHash, row.FileType) = (plain, hash, type)
                    );
                    return TypedResults.NoContent();
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        quotes
            .MapGet(
                "/{quote:long}/file",
                async (long id, long quote, Desk desk, FileVault vault, HttpContext http) =>
                {
                    var row =
                        await desk
                            .Db.Quotes.AsNoTracking()
                            .SingleOrDefaultAsync(q =>
                                q.Id == new QuoteId(quote) && q.ProjectId == new ProjectId(id) && q.FileHash != null
                            )
                        ?? throw new MissingException("file");
                    return FileEndpoints.Whole(http, vault, row.FileHash!, row.FileName!, row.FileType!);
                }
            )
            .ExcludeFromDescription();
    }

    /// <summary>Those of a project, the last first.</summary>
    public static async Task<IReadOnlyList<QuoteDto>> OfAsync(Desk desk, ProjectFile file)
    {
        var rows = await desk
            .Db.Quotes.AsNoTracking()
            .Where(q => q.ProjectId == file.Id && !q.Removed)
            .OrderByDescending(q => q.Id)
            .ToListAsync();
        var taken = await TakenAsync(desk, [.. rows.Select(row => row.CostId).OfType<CostId>()]);
        return [.. rows.Select(row => Of(desk, row, row.CostId is { } cost && taken.Contains(cost)))];
    }

    private static QuoteDto Of(Desk desk, QuoteRow row, bool taken)
    {
        var amount = new Money(row.GrossMinor, Currency.Of(row.Currency));
        return new(
            row.Id.Value,
            new(
                row.Supplier,
                row.What,
                MoneyText.Field(amount),
                NumberText.Number(new Rate(row.TaxPartsPerMillion).InPercent),
                row.ValidUntil
            ),
            MoneyText.Of(amount),
            taken ? "taken"
                : row.ValidUntil is not { } until ? ""
                : $"{(until < desk.Today ? "ran out" : "valid until")} {desk.Short(until)}",
            row.FileName,
            taken
        );
    }

    /// <summary>Keeps a quote.</summary>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<QuoteId> AddAsync(Desk desk, ProjectId project, KeepQuoteDto quote) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = new QuoteRow
            {
                ProjectId = project,
                Supplier = "",
                What = "",
                Currency = desk.CurrencyOf(file).Code,
            };
            Write(row, quote);
            act.Db.Quotes.Add(row);
            await act.Db.SaveChangesAsync();
            act.Touch(project);
            return row.Id;
        });

    private static Task ChangeAsync(Desk desk, ProjectId project, QuoteId id, Action<QuoteRow> change) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(act, project, id);
            if (await IsTakenAsync(act.Desk, row))
                throw new RefusedException("It was taken, and became a cost: change that.");
            change(row);
            act.Touch(project);
        });

    /// <summary>What was quoted is a cost of today, with the quote as its receipt until there is a better one.</summary>
    /// <exception cref="RefusedException">It was taken already.</exception>
    private static Task<CostId> TakeAsync(Desk desk, ProjectId project, QuoteId id) =>
        desk.ActAsync(async act =>
        {
            var file = await act.OpenAsync(project);
            var row = await OneAsync(act, project, id);
            if (row.Removed || await IsTakenAsync(act.Desk, row))
                throw new RefusedException("It was taken already, or taken out.");
            var cost = new CostRow
            {
                ProjectId = project,
                On = act.Today,
                Payee = row.Supplier,
                What = row.What,
                GrossMinor = row.GrossMinor,
                Currency = row.Currency,
                TaxPartsPerMillion = row.TaxPartsPerMillion,
                ReceiptHash = row.FileHash,
                ReceiptName = row.FileName,
                ReceiptType = row.FileType,
            };
            act.Db.Costs.Add(cost);
            await act.Db.SaveChangesAsync();
            row.CostId = cost.Id;
            await act.Db.SaveChangesAsync();
            await act.RecordAsync(file, Actor.Owner, new Happening.CostKept(cost.Id));
            return cost.Id;
        });

    private static void Write(QuoteRow row, KeepQuoteDto quote)
    {
        row.Supplier = TypedText.Of("supplier", quote.Supplier, 1, Keeping.LongestName, "Who quotes");
        row.What = TypedText.Of("what", quote.What, 1, Keeping.LongestWords, "What it is for");
        row.GrossMinor = TypedMoney.Of(Currency.Of(row.Currency), quote.Amount, "amount").Minor;
        row.TaxPartsPerMillion = Keeping.TaxOf(quote.Tax);
        row.ValidUntil = quote.ValidUntil;
    }

    private static async Task<bool> IsTakenAsync(Desk desk, QuoteRow row) =>
        row.CostId is { } cost && (await TakenAsync(desk, [cost])).Count > 0;

    /// <summary>The costs that still stand: one that was taken out leaves its quote free again.</summary>
    private static async Task<IReadOnlySet<CostId>> TakenAsync(Desk desk, IReadOnlyList<CostId> costs) =>
        costs.Count == 0
            ? new HashSet<CostId>()
            : await desk.Db.Costs.Where(c => costs.Contains(c.Id) && !c.Removed).Select(c => c.Id).ToHashSetAsync();

    private static async Task<QuoteRow> OneAsync(Act act, ProjectId project, QuoteId id) =>
        await act.Db.Quotes.SingleOrDefaultAsync(q => q.Id == id && q.ProjectId == project)
        ?? throw new MissingException("quote");
}
