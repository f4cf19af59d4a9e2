using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Store.Model;
using Gesamt.Web.Accounts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Spent;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Books;

/// <summary>Money from somebody who is no client: typed in, and never counted as a client's.</summary>
public static class Incomes
{
    /// <param name="id">The one that is changed; null writes a new one down.</param>
    /// <exception cref="InvalidException">A field is wrong; it is named.</exception>
    public static Task<IncomeId> SaveAsync(Desk desk, IncomeId? id, KeepIncomeDto income) =>
        desk.ActAsync(async act =>
        {
            var row = id is { } known ? await OneAsync(desk, known) : null;
            if (row is null)
                row = new()
                {
                    Payer = "",
                    What = "",
                    Currency = (await Costs.CurrencyAsync(desk, null, income.Account)).Code,
                };
            else
                await ClosedYears.DemandOpenAsync(desk, row.On);
            row.On = desk.Calendar.DateOf(Moments.Of(desk, income.On));
            await ClosedYears.DemandOpenAsync(desk, row.On);
            row.What = TypedText.Of("what", income.What, 1, Keeping.LongestWords, "What it was for");
            row.Payer = TypedText.Of("payer", income.Payer, 0, Keeping.LongestName, "Who paid it");
            row.Category = TypedText.Of("category", income.Category, 0, Keeping.LongestCategory, "A category");
            row.GrossMinor = TypedMoney.Of(Currency.Of(row.Currency), income.Amount, "amount").Minor;
            row.TaxPartsPerMillion = Keeping.TaxOf(income.Tax);
            row.AccountId = await AccountChoice.OfAsync(desk, income.Account, Currency.Of(row.Currency), row.On);
            if (id is null)
                act.Db.Incomes.Add(row);
            await act.Db.SaveChangesAsync();
            return row.Id;
        });

    /// <summary>Takes it out, or puts it back.</summary>
    public static Task RemoveAsync(Desk desk, IncomeId id, bool removed) =>
        desk.ActAsync(async act =>
        {
            var row = await OneAsync(desk, id);
            await ClosedYears.DemandOpenAsync(desk, row.On);
            row.Removed = removed;
        });

    /// <summary>One of them, as it is opened to be changed.</summary>
    public static async Task<KeepIncomeDto> OpenAsync(Desk desk, IncomeId id)
    {
        var row = await OneAsync(desk, id);
        return new(
            row.On,
            row.Payer,
            row.What,
            row.Category,
            MoneyText.Field(new(row.GrossMinor, Currency.Of(row.Currency))),
            NumberText.Number(new Rate(row.TaxPartsPerMillion).InPercent),
            row.AccountId?.Value
        );
    }

    private static async Task<IncomeRow> OneAsync(Desk desk, IncomeId id) =>
        await desk.Db.Incomes.SingleOrDefaultAsync(i => i.Id == id) ?? throw new MissingException("income");
}
