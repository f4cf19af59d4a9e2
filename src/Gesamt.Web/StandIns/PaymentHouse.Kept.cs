using System.Security.Cryptography;
using Gesamt.Store.Model;
using Gesamt.Web.Invoicing;
using Microsoft.Data.Sqlite;

namespace Gesamt.Web.StandIns;

/// <summary>Cards that are kept, and what becomes of them when they are charged.</summary>
public sealed partial class PaymentHouse
{
    /// <inheritdoc/>
    public IReadOnlyList<PaymentMeans> Keeps { get; } = [PaymentMeans.Card];

    private static void Keep(SqliteConnection open, string session) =>
        Run(
            open,
            "INSERT INTO Kept(Token, Session) VALUES($t, $s) ON CONFLICT DO NOTHING",
            ("$t", RandomNumberGenerator.GetHexString(32, lowercase: true)),
            ("$s", session)
        );

    private static ProviderMeans? KeptOf(SqliteConnection open, Row row) =>
        Read(open, "SELECT Token FROM Kept WHERE Session = $s", kept => kept.GetString(0), ("$s", row.Session))
            is [var token]
            ? new(token, $"card ending in {row.Number[^4..]}")
            : null;

    /// <inheritdoc/>
    public Task<string> ChargeAsync(string token, PaymentAsk ask)
    {
        using var open = Open();
        if (
            Read(open, "SELECT Session FROM Sessions WHERE Key = $k", row => row.GetString(0), ("$k", ask.Key))
            is [var charged]
        )
            return Task.FromResult(charged);
        var number = Read(
            open,
            "SELECT s.Number FROM Kept k JOIN Sessions s ON s.Session = k.Session WHERE k.Token = $t",
            row => row.GetString(0),
            ("$t", token)
        )[0];
        var before = Read(open, "SELECT Session FROM Charges WHERE Token = $t", row => row.GetString(0), ("$t", token));
        var session = RandomNumberGenerator.GetHexString(32, lowercase: true);
        Run(
            open,
            "INSERT INTO Charges(Session, Token, Refused) VALUES($s, $t, $r)",
            ("$s", session),
            ("$t", token),
            ("$r", number == NoMoneyLater || (number == NoMoneyOnce && before.Count == 0) ? 1 : 0)
        );
        Run(
            open,
            """
            INSERT INTO Sessions(Session, Key, Minor, Currency, What, ReturnTo, Means, Number, SettlesAt, ChangedAt)
            VALUES($s, $k, $m, $c, $w, '', $e, $p, $n, $n)
            """,
            ("$s", session),
            ("$k", ask.Key),
            ("$m", ask.Amount.Minor),
            ("$c", ask.Amount.Currency.Code),
            ("$w", ask.What),
            ("$e", ask.Means.ToString()),
            ("$p", number),
            ("$n", Now.ToUnixTimeTicks())
        );
        return Task.FromResult(session);
    }
}
