using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Accounts;

/// <summary>On which account money arrives or is paid from.</summary>
internal static class AccountChoice
{
    /// <summary>The account that takes this way to pay; null leaves it to the first of the currency.</summary>
    /// <param name="iban">The bank's own number, where a statement of it says so.</param>
    public static async Task<AccountId?> ForAsync(
        Desk desk,
        PaymentMeans means,
        Currency currency,
        LocalDate on,
        string? iban = null
    )
    {
        var code = currency.Code;
        var accounts = await desk
            .Db.Accounts.AsNoTracking()
            .Where(a => !a.Removed && a.Currency == code && a.OpenedOn <= on)
            .OrderBy(a => a.Id)
            .ToListAsync();
        return (
            accounts.FirstOrDefault(a => iban is { Length: > 0 } && a.Iban == iban)
            ?? accounts.FirstOrDefault(a => StoreJson.Read<List<PaymentMeans>>(a.Takes).Contains(means))
        )?.Id;
    }

    /// <summary>The account that was chosen; null for none.</summary>
    /// <exception cref="InvalidException">It cannot hold that money.</exception>
    public static async Task<AccountId?> OfAsync(Desk desk, long? account, Currency currency, LocalDate on)
    {
        if (account is not { } number)
            return null;
        var row =
            await desk.Db.Accounts.AsNoTracking().SingleOrDefaultAsync(a => a.Id == new AccountId(number) && !a.Removed)
            ?? throw new InvalidException(("account", "There is no such account."));
        if (row.Currency != currency.Code)
            throw new InvalidException(("account", $"{row.Name} is kept in {row.Currency}, not in {currency.Code}."));
        if (on < row.OpenedOn)
            throw new InvalidException(
                (
                    "on",
                    $"The books of {row.Name} begin on {desk.Short(row.OpenedOn)}: what was before is in its balance."
                )
            );
        return row.Id;
    }
}
