using System.Net;
using System.Text.Json;

namespace Gesamt.Web.Tests;

public sealed partial class BooksTests
{
    [Fact]
    public async Task Accounts_follow_what_moves_and_a_transfer_is_neither_income_nor_cost()
    {
        var owner = await studio.OwnerAsync();
        var account = await DoneAsync(
            await owner.PostAsync(
                "/api/accounts",
                new
                {
                    name = "Savings",
                    currency = "EUR",
                    iban = "",
                    takes = Array.Empty<string>(),
                    openedOn = "2027-01-04",
                    opening = "1000",
                }
            )
        );
        async Task<string> BalanceAsync() =>
            Plain(
                (await owner.GetAsync("/api/accounts"))
                    .GetProperty("accounts")
                    .EnumerateArray()
                    .Single(one => one.GetProperty("id").GetInt64() == account)
                    .GetProperty("balance")
            );
        Assert.Equal("€ 1 000.00", await BalanceAsync());
        await DoneAsync(
            await owner.PostAsync(
                "/api/incomes",
                new
                {
                    on = "2027-01-10",
                    payer = "County",
                    what = "Grant",
                    category = "",
                    amount = "3000",
                    tax = "0",
                    account,
                }
            )
        );
        await DoneAsync(await owner.PostAsync("/api/costs", Cost("Kiln", "420", "2027-01-12", account)));
        Assert.Equal("€ 3 580.00", await BalanceAsync());
        var before = await owner.GetAsync("/api/money?year=2027");
        var first = (await owner.GetAsync("/api/accounts")).GetProperty("accounts")[0].GetProperty("id").GetInt64();
        object Transfer(string left, string on) =>
            new
            {
                on,
                from = account,
                to = first,
                left,
                arrived = "",
                words = "",
            };
        await DoneAsync(await owner.PostAsync("/api/transfers", Transfer("80", "2027-01-13")));
        Assert.Equal("€ 3 500.00", await BalanceAsync());
        var after = await owner.GetAsync("/api/money?year=2027");
        Assert.Equal(before.GetProperty("head").ToString(), after.GetProperty("head").ToString());
        // what lies before the opening day is refused
        Assert.Contains(
            "begin on",
            await RefusedAsync(await owner.PostAsync("/api/transfers", Transfer("80", "2027-01-03")), "on"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "begin on",
            await RefusedAsync(await owner.PostAsync("/api/costs", Cost("Kiln", "420", "2027-01-03", account)), "on"),
            StringComparison.Ordinal
        );
        // the statement ends with the balance
        var statement = await owner.GetAsync($"/api/accounts/{account}?year=2027");
        Assert.Equal("€ 3 500.00", Plain(statement.GetProperty("after")));
        Assert.Equal("3 500.00", Plain(statement.GetProperty("rows")[0].GetProperty("balance")));
        // money lies on it: it stays
        var removed = await owner.PostAsync($"/api/accounts/{account}/removed", new { removed = true });
        Assert.Equal(HttpStatusCode.Conflict, removed.StatusCode);
    }

    [Fact] // ISO 4217: three decimals, which look like thousands
    public async Task A_balance_in_dinars_is_kept_as_its_field_holds_it()
    {
        var owner = await studio.OwnerAsync();
        object Dinars(string opening) =>
            new
            {
                name = "Gulf account",
                currency = "KWD",
                iban = "",
                takes = Array.Empty<string>(),
                openedOn = "2027-01-04",
                opening,
            };
        var account = await DoneAsync(await owner.PostAsync("/api/accounts", Dinars("1.234")));
        async Task<JsonElement> SavedAsync() =>
            (await owner.GetAsync("/api/accounts"))
                .GetProperty("accounts")
                .EnumerateArray()
                .Single(one => one.GetProperty("id").GetInt64() == account);
        Assert.Equal("KWD 1.234", Plain((await SavedAsync()).GetProperty("balance")));
        var field = (await SavedAsync()).GetProperty("said").GetProperty("opening").GetString()!;
        Assert.True((await PutAsync(owner, $"/api/accounts/{account}", Dinars(field))).IsSuccessStatusCode);
        Assert.Equal("KWD 1.234", Plain((await SavedAsync()).GetProperty("balance")));
        Assert.True(
            (await owner.PostAsync($"/api/accounts/{account}/removed", new { removed = true })).IsSuccessStatusCode
        );
    }
}
