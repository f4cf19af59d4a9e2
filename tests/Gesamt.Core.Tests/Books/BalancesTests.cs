using Gesamt.Core.Books;

namespace Gesamt.Core.Tests.Books;

public sealed class BalancesTests
{
    private static readonly Currency Pound = Currency.Of("GBP");
    private static readonly LocalDate Start = new(2026, 1, 1);

    private static Money Eur(long major) => new(major * 100, Currency.Eur);

    private static Entry Entry(LocalDate on, long major, EntrySort sort, AccountId? account = null) =>
        new(on, sort, Eur(major), account);

    [Fact]
    public void Opening_balance_and_in_less_out()
    {
        var account = new Account(new(1), Start, Eur(1_000), IsFirst: true);
        var balance = Balances.At(
            account,
            [Entry(Start, 3_000, EntrySort.Payment), Entry(Start.PlusDays(20), -420, EntrySort.Cost)],
            [],
            Start.PlusDays(30)
        );
        Assert.Equal(Eur(3_580), balance);
    }

    [Fact]
    public void What_was_before_the_opening_day_is_in_the_opening_balance()
    {
        var account = new Account(new(1), Start, Eur(1_000), IsFirst: true);
        var entries = new[]
        {
            Entry(Start.PlusDays(-1), 500, EntrySort.Payment),
            Entry(Start, 40, EntrySort.OtherIncome),
        };
        Assert.Null(Balances.At(account, entries, [], Start.PlusDays(-1)));
        Assert.Equal(Eur(1_040), Balances.At(account, entries, [], Start));
    }

    [Fact]
    public void What_names_no_account_lies_on_the_first_of_its_currency()
    {
        var first = new Account(new(1), Start, Eur(0), IsFirst: true);
        var second = new Account(new(2), Start, Eur(0), IsFirst: false);
        var pounds = new Account(new(3), Start, Money.Zero(Pound), IsFirst: true);
        var entries = new[]
        {
            Entry(Start, 100, EntrySort.Payment),
            Entry(Start, 30, EntrySort.Payment, new AccountId(2)),
            new Entry(Start, EntrySort.Payment, new(700, Pound), null),
        };
        Assert.Equal(Eur(100), Balances.At(first, entries, [], Start));
        Assert.Equal(Eur(30), Balances.At(second, entries, [], Start));
        Assert.Equal(new Money(700, Pound), Balances.At(pounds, entries, [], Start));
    }

    [Fact]
    public void A_transfer_moves_money_and_is_neither_income_nor_cost()
    {
        var from = new Account(new(1), Start, Eur(500), IsFirst: true);
        var to = new Account(new(2), Start, Money.Zero(Pound), IsFirst: true);
        Transfer[] transfers = [new(Start.PlusDays(2), from.Id, to.Id, Eur(120), new(10_000, Pound))];
        Assert.Equal(Eur(500), Balances.At(from, [], transfers, Start.PlusDays(1)));
        Assert.Equal(Eur(380), Balances.At(from, [], transfers, Start.PlusDays(2)));
        Assert.Equal(new Money(10_000, Pound), Balances.At(to, [], transfers, Start.PlusDays(2)));
        Assert.Equal(Eur(0), EntryBook.Sum([], Currency.Eur).Result);
    }

    private sealed record Year(Account[] Accounts, Entry[] Entries, Transfer[] Transfers);

    private static readonly Gen<LocalDate> Days = Gen.Int[0, 729].Select(days => Start.PlusDays(days));

    private static readonly Gen<Entry> AnyEntry = Gen.Select(
        Days,
        Gen.Enum<EntrySort>(),
        Gen.Long[1, 500_000],
        Gen.Int[0, 4],
        (on, sort, minor, account) =>
        {
            // 0 names none; 1 to 3 are in euro, 4 is in pounds
            var isIn = sort is EntrySort.Payment or EntrySort.OtherIncome;
            return new Entry(
                on,
                sort,
                new(isIn ? minor : -minor, account == 4 ? Pound : Currency.Eur),
                account == 0 ? null : new AccountId(account)
            );
        }
    );

    private static readonly Gen<Transfer> AnyTransfer = Gen.Select(
            Days,
            Gen.Int[1, 3],
            Gen.Int[1, 4],
            Gen.Long[1, 90_000],
            Gen.Long[1, 90_000],
            (on, from, to, left, arrived) =>
                new Transfer(
                    on,
                    new(from),
                    new(to),
                    new(left, Currency.Eur),
                    to == 4 ? new(arrived, Pound) : new(left, Currency.Eur)
                )
        )
        .Where(transfer => transfer.From != transfer.To);

    private static readonly Gen<Year> AnyYear = Gen.Select(
        AnyEntry.Array[0, 60],
        AnyTransfer.Array[0, 12],
        Gen.Long[-100_000, 300_000].Array[4],
        (entries, transfers, opening) =>
            new Year(
                [
                    new(new(1), Start, new(opening[0], Currency.Eur), true),
                    new(new(2), Start, new(opening[1], Currency.Eur), false),
                    new(new(3), Start, new(opening[2], Currency.Eur), false),
                    new(new(4), Start, new(opening[3], Pound), true),
                ],
                entries,
                transfers
            )
    );

    /// <summary>Received − spent = change of all balances, in each currency, over years with refunds, transfers and an exchange between two currencies.</summary>
    [Fact]
    public void What_is_left_is_what_all_balances_change_by() =>
        AnyYear.Sample(year =>
        {
            foreach (var currency in new[] { Currency.Eur, Pound })
            {
                var days = year
                    .Accounts.Where(account => account.Opening.Currency == currency)
                    .Select(account =>
                        Balances.Of(account, year.Entries, year.Transfers, new(2027, 1, 1), new(2027, 12, 31))
                    )
                    .ToList();
                var change = days.Select(one => one.After - one.Before - one.Moved).Sum(currency);
                var result = EntryBook.Sum(year.Entries.Where(entry => entry.On.Year == 2027), currency).Result;
                Assert.Equal(result, change);
                // within one currency a transfer changes nothing in all
                var exchanged = year
                    .Transfers.Where(one => one.On.Year == 2027 && one.Left.Currency != one.Arrived.Currency)
                    .ToList();
                var moved =
                    currency == Pound
                        ? exchanged.Select(one => one.Arrived).Sum(Pound)
                        : -exchanged.Select(one => one.Left).Sum(Currency.Eur);
                Assert.Equal(moved, days.Select(one => one.Moved).Sum(currency));
            }
        });

    /// <summary>Days that follow each other: what one ends with the next begins with.</summary>
    [Fact]
    public void A_year_begins_with_what_the_last_one_ended_with() =>
        AnyYear.Sample(year =>
        {
            foreach (var account in year.Accounts)
            {
                var first = Balances.Of(account, year.Entries, year.Transfers, Start, new(2026, 12, 31));
                var second = Balances.Of(account, year.Entries, year.Transfers, new(2027, 1, 1), new(2027, 12, 31));
                Assert.Equal(first.After, second.Before);
                Assert.Equal(account.Opening, first.Opened);
                Assert.Equal(second.After, Balances.At(account, year.Entries, year.Transfers, new(2027, 12, 31)));
            }
        });

    [Fact]
    public void A_month_is_its_entries_and_a_year_its_months() =>
        AnyYear.Sample(year =>
        {
            foreach (var currency in new[] { Currency.Eur, Pound })
            {
                var months = EntryBook.ByMonth(year.Entries, currency, new(2026, 1), new(2027, 12));
                Assert.Equal(24, months.Length);
                foreach (var (month, sums) in months)
                {
                    var of = year
                        .Entries.Where(e => e.Amount.Currency == currency && e.On.ToYearMonth() == month)
                        .ToList();
                    Assert.Equal(of.Sum(e => e.Amount.Minor), sums.Result.Minor);
                    Assert.Equal(-of.Where(e => e.Sort == EntrySort.Cost).Sum(e => e.Amount.Minor), sums.Spent.Minor);
                    Assert.Equal(
                        of.Where(e => e.Sort == EntrySort.OtherIncome).Sum(e => e.Amount.Minor),
                        sums.Other.Minor
                    );
                }
                Assert.Equal(
                    EntryBook.Sum(year.Entries, currency),
                    months.Aggregate(EntrySums.Zero(currency), (sum, month) => sum + month.Sums)
                );
            }
        });
}
