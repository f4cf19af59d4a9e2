using Gesamt.Store.Model;
using NodaTime;

namespace Gesamt.Web.Accounts;

/// <summary>An account as it is made and changed.</summary>
/// <param name="Currency">By ISO 4217.</param>
/// <param name="OpenedOn">Its books begin with this day; null for today.</param>
/// <param name="Opening">The balance at the beginning of the opening day, in major units; may be below nothing.</param>
/// <param name="Takes">Means of payment that arrive here.</param>
public sealed record SaveAccountDto(
    string Name,
    string Currency,
    string Iban,
    PaymentMeans[] Takes,
    LocalDate? OpenedOn,
    string Opening
);

/// <summary>The number of what was just made.</summary>
public sealed record BookIdDto(long Id);

/// <summary>A transfer as it is made and changed.</summary>
/// <param name="On">Null for today.</param>
/// <param name="Left">In major units of the account it left.</param>
/// <param name="Arrived">In those of the account it went to; empty where both have one currency.</param>
public sealed record SaveTransferDto(LocalDate? On, long From, long To, string Left, string Arrived, string Words);
