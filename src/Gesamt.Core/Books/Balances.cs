using Gesamt.Core.Amounts;
using NodaTime;

namespace Gesamt.Core.Books;

/// <summary>Where money lies: with a balance at the beginning of the day on which its books begin.</summary>
/// <param name="IsFirst">Of its currency: what names no account lies on it.</param>
public sealed record Account(AccountId Id, LocalDate Opened, Money Opening, bool IsFirst)
{
    /// <summary>Whether an entry is one of this account: from the opening day on, for what was before is in the opening balance.</summary>
    public bool Holds(Entry entry) =>
        entry.On >= Opened
        && entry.Amount.Currency == Opening.Currency
        && (entry.Account is { } named ? named == Id : IsFirst);
}

/// <summary>Money moved from one account to another: neither income nor cost.</summary>
/// <param name="Arrived">In the currency of the account it went to; the same amount where both have one currency.</param>
public sealed record Transfer(LocalDate On, AccountId From, AccountId To, Money Left, Money Arrived);

/// <summary>What an account had and has, and what went on between.</summary>
/// <param name="Before">At the end of the day before; nothing where it was not open yet.</param>
/// <param name="Opened">The opening balance, where it was opened in these days.</param>
/// <param name="In">What came in.</param>
/// <param name="Out">What went out, as a positive amount.</param>
/// <param name="Moved">By transfers, in less out.</param>
public sealed record AccountDays(Money Before, Money Opened, Money In, Money Out, Money Moved)
{
    /// <summary>At the end of the last day.</summary>
    public Money After => Before + Opened + In - Out + Moved;
}

/// <summary>Balances: opening balance and in less out and transfers, from the opening day on. Common practice.</summary>
public static class Balances
{
    /// <summary>At the end of a day; null before the account was opened.</summary>
    public static Money? At(
        Account account,
        IEnumerable<Entry> entries,
        IEnumerable<Transfer> transfers,
        LocalDate day
    ) => day < account.Opened ? null : Of(account, entries, transfers, account.Opened, day).After;

    /// <summary>From one day to another, both included.</summary>
    public static AccountDays Of(
        Account account,
        IEnumerable<Entry> entries,
        IEnumerable<Transfer> transfers,
        LocalDate first,
        LocalDate last
    )
    {
        var nothing = Money.Zero(account.Opening.Currency);
        var days = new AccountDays(
            account.Opened < first ? account.Opening : nothing,
            account.Opened >= first && account.Opened <= last ? account.Opening : nothing,
            nothing,
            nothing,
            nothing
        );
        foreach (var entry in entries.Where(entry => account.Holds(entry) && entry.On <= last))
            days =
                entry.On < first ? days with { Before = days.Before + entry.Amount }
                : entry.Amount.Minor > 0 ? days with { In = days.In + entry.Amount }
                : days with { Out = days.Out - entry.Amount };
        foreach (var transfer in transfers.Where(transfer => transfer.On >= account.Opened && transfer.On <= last))
        {
            var moved =
                (transfer.To == account.Id ? transfer.Arrived : nothing)
                - (transfer.From == account.Id ? transfer.Left : nothing);
            days =
                transfer.On < first
                    ? days with
                    {
                        Before = days.Before + moved,
                    }
                    : days with
                    {
                        Moved = days.Moved + moved,
                    };
        }
        return days;
    }
}
