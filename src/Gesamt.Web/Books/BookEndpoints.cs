using Gesamt.Core.Stages;
using Gesamt.Store.Files;
using Gesamt.Web.Accounts;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Microsoft.AspNetCore.Mvc;

namespace Gesamt.Web.Books;

/// <summary>The addresses of the books: the year, what its figures are made of, costs, income, accounts, tax, the year's folder.</summary>
public static class BookEndpoints
{
    public static void MapBooks(this RouteGroupBuilder api)
    {
        Looked(api.MapGroup("/money"));
        WrittenDown(api);
        OnAccounts(api);
    }

    private static void Looked(RouteGroupBuilder money)
    {
        money.MapGet("", ([AsParameters] MoneyQuery query, Desk desk) => MoneyOverview.OfAsync(desk, query));
        money.MapGet(
            "/parts",
            ([AsParameters] MoneyQuery query, MoneyShow? show, bool? undated, int? most, Desk desk) =>
                MoneyParts.OfAsync(desk, query, show, undated ?? false, most)
        );
        money
            .MapGet(
                "/entries.csv",
                async ([AsParameters] MoneyQuery query, Desk desk) =>
                    TableFile.Of(await MoneyParts.CsvAsync(desk, query), $"entries-{desk.Today:uuuu-MM-dd}")
            )
            .ExcludeFromDescription();
        money.MapGet("/chances", (Desk desk) => Chances.ShownAsync(desk));
        money.MapPut(
            "/chances/{stage}",
            async (Stage stage, SetChanceDto to, Desk desk) =>
            {
                await Chances.SetAsync(desk, stage, to.Percent);
                return TypedResults.NoContent();
            }
        );
        money.MapGet(
            "/tax",
            (string? from, string? until, Desk desk) =>
            {
                var (first, last) = MoneyRange.Quarter(desk.Today);
                return TaxSummary.OfAsync(
                    desk,
                    string.IsNullOrEmpty(from) ? first : MoneyRange.Day("from", from),
                    string.IsNullOrEmpty(until) ? last : MoneyRange.Day("until", until)
                );
            }
        );
        money.MapPost(
            "/tax",
            async (TaxAsDto to, Desk desk) =>
            {
                await TaxSummary.SetAsync(desk, to.As);
                return TypedResults.NoContent();
            }
        );
        money.MapGet("/years", (Desk desk) => YearFolder.YearsAsync(desk));
        money.MapPost(
            "/years/{year:int}/closed",
            async (int year, ClosedDto to, Desk desk) =>
            {
                await YearFolder.CloseAsync(desk, year, to.Closed);
                return TypedResults.NoContent();
            }
        );
        money
            .MapGet(
                "/years/{year:int}/folder.zip",
                (int year, Desk desk) => YearFolder.OfAsync(desk, MoneyRange.YearOf(desk, $"{year}"))
            )
            .ExcludeFromDescription();
    }

    private static void WrittenDown(RouteGroupBuilder api)
    {
        var costs = api.MapGroup("/costs");
        costs.MapGet("/usual", (Desk desk) => Costs.UsualAsync(desk));
        costs.MapGet("/{id:long}", (long id, Desk desk) => Costs.OpenAsync(desk, new(id)));
        costs.MapPost(
            "",
            async (KeepCostDto cost, long? project, Desk desk) =>
                new BookIdDto((await Costs.AddAsync(desk, project is { } of ? new(of) : null, cost)).Value)
        );
        costs.MapPut(
            "/{id:long}",
            async (long id, KeepCostDto to, Desk desk) =>
            {
                await Costs.ChangeAsync(desk, new(id), to);
                return TypedResults.NoContent();
            }
        );
        costs.MapPost(
            "/{id:long}/removed",
            async (long id, RemovedDto to, Desk desk) =>
            {
                await Costs.RemoveAsync(desk, new(id), to.Removed);
                return TypedResults.NoContent();
            }
        );
        costs
            .MapPost(
                "/{id:long}/receipt",
                async (long id, string name, Desk desk, HttpContext http, CancellationToken stop) =>
                {
                    await Costs.ReceiptAsync(desk, new(id), name, http.Request.Body, stop);
                    return TypedResults.NoContent();
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        costs
            .MapGet(
                "/{id:long}/receipt",
                async (long id, Desk desk, FileVault vault, HttpContext http) =>
                {
                    var row = await Costs.WithReceiptAsync(desk, new(id));
                    return FileEndpoints.Whole(http, vault, row.ReceiptHash!, row.ReceiptName!, row.ReceiptType!);
                }
            )
            .ExcludeFromDescription();
        api.MapGet("/bank/out", (Desk desk) => BankOut.OfAsync(desk));
        api.MapPost(
            "/bank/lines/{id:long}/cost",
            async (long id, BankPaysDto pays, Desk desk) =>
            {
                await BankOut.PaysAsync(desk, new(id), new(pays.Cost));
                return TypedResults.NoContent();
            }
        );
        var recurring = api.MapGroup("/recurring-costs");
        recurring.MapPost(
            "",
            async (SaveRecurringCostDto save, Desk desk) =>
                new BookIdDto((await RecurringCosts.SaveAsync(desk, null, save)).Value)
        );
        recurring.MapPut(
            "/{id:long}",
            async (long id, SaveRecurringCostDto save, Desk desk) =>
                new BookIdDto((await RecurringCosts.SaveAsync(desk, new(id), save)).Value)
        );
        recurring.MapPost(
            "/{id:long}/stopped",
            async (long id, StoppedDto to, Desk desk) =>
            {
                await RecurringCosts.StopAsync(desk, new(id), to.Stopped);
                return TypedResults.NoContent();
            }
        );
        var incomes = api.MapGroup("/incomes");
        incomes.MapGet("/{id:long}", (long id, Desk desk) => Incomes.OpenAsync(desk, new(id)));
        incomes.MapPost(
            "",
            async (KeepIncomeDto income, Desk desk) =>
                new BookIdDto((await Incomes.SaveAsync(desk, null, income)).Value)
        );
        incomes.MapPut(
            "/{id:long}",
            async (long id, KeepIncomeDto income, Desk desk) =>
                new BookIdDto((await Incomes.SaveAsync(desk, new(id), income)).Value)
        );
        incomes.MapPost(
            "/{id:long}/removed",
            async (long id, RemovedDto to, Desk desk) =>
            {
                await Incomes.RemoveAsync(desk, new(id), to.Removed);
                return TypedResults.NoContent();
            }
        );
    }

    private static void OnAccounts(RouteGroupBuilder api)
    {
        var accounts = api.MapGroup("/accounts");
        accounts.MapGet("", (Desk desk) => AccountsView.OfAsync(desk));
        accounts.MapGet(
            "/{id:long}",
            (long id, string? year, Desk desk) =>
                AccountsView.StatementAsync(desk, new(id), MoneyRange.YearOf(desk, year))
        );
        accounts.MapPost(
            "",
            async (SaveAccountDto save, Desk desk) =>
                new BookIdDto((await AccountBooks.SaveAsync(desk, (Core.AccountId?)null, save)).Value)
        );
        accounts.MapPut(
            "/{id:long}",
            async (long id, SaveAccountDto save, Desk desk) =>
                new BookIdDto((await AccountBooks.SaveAsync(desk, new Core.AccountId(id), save)).Value)
        );
        accounts.MapPost(
            "/{id:long}/removed",
            async (long id, RemovedDto to, Desk desk) =>
            {
                await AccountBooks.RemoveAsync(desk, new Core.AccountId(id), to.Removed);
                return TypedResults.NoContent();
            }
        );
        var transfers = api.MapGroup("/transfers");
        transfers.MapPost(
            "",
            async (SaveTransferDto save, Desk desk) =>
                new BookIdDto((await AccountBooks.SaveAsync(desk, (Core.TransferId?)null, save)).Value)
        );
        transfers.MapPut(
            "/{id:long}",
            async (long id, SaveTransferDto save, Desk desk) =>
                new BookIdDto((await AccountBooks.SaveAsync(desk, new Core.TransferId(id), save)).Value)
        );
        transfers.MapPost(
            "/{id:long}/removed",
            async (long id, RemovedDto to, Desk desk) =>
            {
                await AccountBooks.RemoveAsync(desk, new Core.TransferId(id), to.Removed);
                return TypedResults.NoContent();
            }
        );
    }
}
