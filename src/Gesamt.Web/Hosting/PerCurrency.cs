using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Store.Projects;

namespace Gesamt.Web.Hosting;

/// <summary>Amounts of several currencies: they stand beside each other and are never added up.</summary>
public static class PerCurrency
{
    /// <summary>The currency a project's price is agreed in, or what it was billed in; the studio's own while there is neither.</summary>
    public static Currency CurrencyOf(this Desk desk, ProjectFile file) =>
        AgreedPrice.Of(file.History)?.Agreed.Currency ?? BilledIn(file) ?? desk.Currency;

    /// <summary>The currency a project was billed in; null while it was not.</summary>
    public static Currency? BilledIn(ProjectFile file) =>
        file.History.Last<Happening.InvoiceIssued>()?.What.Amount.Currency;

    /// <summary>What a project asks for is never in two currencies, since they would have to be added up.</summary>
    public static string OneAlone(Currency settled) =>
        $"What this project asks for so far is in {settled.Code}. Another currency needs a project of its own.";

    /// <summary>One amount of a stored row.</summary>
    /// <param name="code">Its currency by ISO 4217; null for the studio's own.</param>
    public static Money Amount(this Desk desk, long minor, string? code) =>
        new(minor, code is null ? desk.Currency : Currency.Of(code));

    /// <summary>“€ 5 400.00”, or “€ 5 400.00, $ 1 200.00” where there are several: the studio's own first, and by itself also when it is nothing.</summary>
    public static string Sum(this Desk desk, IEnumerable<(long Minor, string? Code)> amounts)
    {
        var sums = amounts
            .GroupBy(amount => amount.Code ?? desk.Currency.Code)
            .ToDictionary(same => same.Key, same => same.Sum(amount => amount.Minor));
        var own = new Money(sums.GetValueOrDefault(desk.Currency.Code), desk.Currency);
        var others = sums.Where(sum => sum.Key != desk.Currency.Code && sum.Value != 0)
            .OrderBy(sum => sum.Key, StringComparer.Ordinal)
            .Select(sum => MoneyText.Of(new(sum.Value, Currency.Of(sum.Key))))
            .ToList();
        return string.Join(", ", others.Count > 0 && own.Minor == 0 ? others : [MoneyText.Of(own), .. others]);
    }
}
