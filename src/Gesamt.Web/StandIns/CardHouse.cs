using System.Security.Cryptography;
using Gesamt.Core.Amounts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;

namespace Gesamt.Web.StandIns;

/// <summary>A payment as the payer sees it on the stand-in's page.</summary>
public sealed record CardPageDto(
    string What,
    string Amount,
    bool Paid,
    string ReturnTo,
    IReadOnlyList<SampleCardDto> Cards,
    string Token
);

/// <summary>A made-up card to try with.</summary>
public sealed record SampleCardDto(string Number, string Does);

/// <summary>The stand-in card payment: no money moves. Some cards pay, others are refused.</summary>
public sealed class CardHouse(Settings settings)
    : StandInFile(
        settings.Data,
        "card-house.db",
        """
        CREATE TABLE IF NOT EXISTS Payments(
            Session TEXT PRIMARY KEY, Key TEXT NOT NULL UNIQUE, Minor INTEGER NOT NULL, Currency TEXT NOT NULL,
            What TEXT NOT NULL, ReturnTo TEXT NOT NULL, Paid INTEGER NOT NULL DEFAULT 0) STRICT;
        """
    ),
        ICardPayments
{
    public const string Good = "1000 2000 3000 4000";
    public const string NoMoney = "1000 2000 3000 4018";
    public const string Expired = "1000 2000 3000 4026";

    /// <summary>Cards to try with, and what each does.</summary>
    public static readonly SampleCardDto[] Samples =
    [
        new(Good, "pays"),
        new(NoMoney, "is refused: not enough money"),
        new(Expired, "is refused: expired"),
    ];

    public bool Available => true;

    /// <inheritdoc/>
    public Task<(string Session, string Page)> BeginAsync(string key, Money amount, string what, string returnTo)
    {
        using var open = Open();
        Run(
            open,
            "INSERT INTO Payments(Session, Key, Minor, Currency, What, ReturnTo) VALUES($s, $k, $m, $c, $w, $r) ON CONFLICT(Key) DO UPDATE SET ReturnTo = excluded.ReturnTo",
            ("$s", RandomNumberGenerator.GetHexString(32, lowercase: true)),
            ("$k", key),
            ("$m", amount.Minor),
            ("$c", amount.Currency.Code),
            ("$w", what),
            ("$r", returnTo)
        );
        var session = Read(open, "SELECT Session FROM Payments WHERE Key = $k", row => row.GetString(0), ("$k", key))[
            0
        ];
        return Task.FromResult((session, $"/cards/{session}"));
    }

    /// <inheritdoc/>
    public Task<CheckoutState> AskAsync(string session) =>
        Task.FromResult(Find(session) is { Paid: true } ? CheckoutState.Paid : CheckoutState.Open);

    /// <exception cref="MissingException">There is no such payment.</exception>
    public CardPageDto Page(string session, string token) =>
        Find(session) is { } row
            ? new(
                row.What,
                MoneyText.Of(new(row.Minor, Currency.Of(row.Currency))),
                row.Paid,
                row.ReturnTo,
                Samples,
                token
            )
            : throw new MissingException("payment");

    /// <summary>Tries a card.</summary>
    /// <exception cref="InvalidException">The card is refused; the reason is the bank's.</exception>
    public void Pay(string session, string number)
    {
        _ = Find(session) ?? throw new MissingException("payment");
        switch (string.Join(' ', number.Where(char.IsAsciiDigit).Chunk(4).Select(four => new string(four))))
        {
            case Good:
                break;
            case NoMoney:
                throw new InvalidException(
                    ("number", "The bank refused this card: not enough money. Nothing was charged; try another card.")
                );
            case Expired:
                throw new InvalidException(
                    ("number", "The bank refused this card: it has expired. Nothing was charged; try another card.")
                );
            default:
                throw new InvalidException(
                    ("number", "This is none of the sample cards. No real card may be typed in here.")
                );
        }
        using var open = Open();
        Run(open, "UPDATE Payments SET Paid = 1 WHERE Session = $s", ("$s", session));
    }

    private (long Minor, string Currency, string What, string ReturnTo, bool Paid)? Find(string session)
    {
        using var open = Open();
        var rows = Read(
            open,
            "SELECT Minor, Currency, What, ReturnTo, Paid FROM Payments WHERE Session = $s",
            row => (row.GetInt64(0), row.GetString(1), row.GetString(2), row.GetString(3), row.GetInt64(4) == 1),
            ("$s", session)
        );
        return rows.Count == 0 ? null : rows[0];
    }
}
