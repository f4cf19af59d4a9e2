using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Gesamt.Core.Amounts;
using Gesamt.Store.Model;
using Gesamt.Web.Erasing;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Microsoft.Data.Sqlite;
using NodaTime;
using NodaTime.Extensions;

namespace Gesamt.Web.StandIns;

/// <summary>A payment as the payer sees it on the stand-in's page.</summary>
/// <param name="Choices">What there is to try: sample cards, or sample accounts.</param>
public sealed record PayPageDto(
    string What,
    string Amount,
    bool ByCard,
    string State,
    string ReturnTo,
    IReadOnlyList<SampleCardDto> Choices,
    string Token
);

/// <summary>A made-up card or account to try with.</summary>
public sealed record SampleCardDto(string Number, string Does);

/// <summary>A payment as the house itself lists it.</summary>
/// <param name="Notice">What its last notice said, and its signature: it can be sent again, as often as one likes.</param>
public sealed record HousePaymentDto(
    string Session,
    string What,
    string Amount,
    string Means,
    string State,
    bool CanComeBack,
    string Notice,
    string Signature
);

/// <summary>The stand-in for a provider of payments: no money moves. Some cards and accounts pay, some later, some are refused, some come back.</summary>
public sealed partial class PaymentHouse : StandInFile, IPaymentProvider, IStandInMemory
{
    public const string Good = "1000 2000 3000 4000";
    public const string NoMoney = "1000 2000 3000 4018";
    public const string Expired = "1000 2000 3000 4026";
    public const string Slow = "1000 2000 3000 4034";
    public const string NoRefunds = "1000 2000 3000 4042";
    public const string NoMoneyOnce = "1000 2000 3000 4059";
    public const string NoMoneyLater = "1000 2000 3000 4067";
    public const string GoodAccount = "2000 0000 0000 0001";
    public const string EmptyAccount = "2000 0000 0000 0019";

    private static readonly Duration CardDelay = Duration.FromHours(1),
        AccountDelay = Duration.FromDays(1);

    /// <summary>Cards and accounts to try with, and what each does.</summary>
    private static readonly SampleCardDto[] Cards =

        [
            new(Good, "pays"),
            new(NoMoney, "is refused: not enough money"),
            new(Expired, "is refused: expired"),
            new(Slow, "pays, and it is known an hour later"),
            new(NoRefunds, "pays, and takes no refund"),
            new(NoMoneyOnce, "pays; charged later it is refused the first time"),
            new(NoMoneyLater, "pays; charged later it is always refused"),
        ],
        Accounts =

        [
            new(GoodAccount, "pays, and the money is there a day later"),
            new(EmptyAccount, "is refused a day later: nothing on it"),
        ];

    private readonly TimeProvider time;
    private readonly byte[] secret;

    public PaymentHouse(Settings settings, TimeProvider time)
        : base(
            settings.Data,
            "card-house.db",
            """
            CREATE TABLE IF NOT EXISTS Sessions(
                Session TEXT PRIMARY KEY, Key TEXT NOT NULL UNIQUE, Minor INTEGER NOT NULL, Currency TEXT NOT NULL,
                What TEXT NOT NULL, ReturnTo TEXT NOT NULL, Means TEXT NOT NULL, Number TEXT NOT NULL DEFAULT '',
                SettlesAt INTEGER, BackAt INTEGER, ChangedAt INTEGER NOT NULL) STRICT;
            CREATE TABLE IF NOT EXISTS Refunds(
                Key TEXT PRIMARY KEY, Session TEXT NOT NULL, Minor INTEGER NOT NULL, Refused INTEGER NOT NULL) STRICT;
            CREATE TABLE IF NOT EXISTS Kept(Token TEXT PRIMARY KEY, Session TEXT NOT NULL UNIQUE) STRICT;
            CREATE TABLE IF NOT EXISTS Charges(
                Session TEXT PRIMARY KEY, Token TEXT NOT NULL, Refused INTEGER NOT NULL) STRICT;
            CREATE TABLE IF NOT EXISTS Secret(Bytes BLOB NOT NULL) STRICT;
            """
        )
    {
        this.time = time;
        using var open = Open();
        if (Read(open, "SELECT Bytes FROM Secret", row => (byte[])row["Bytes"]) is [var kept, ..])
            secret = kept;
        else
        {
            secret = RandomNumberGenerator.GetBytes(32);
            Run(open, "INSERT INTO Secret(Bytes) VALUES($b)", ("$b", secret));
        }
    }

    /// <inheritdoc/>
    public void Forget(GoneOutside gone)
    {
        using var open = Open();
        foreach (var session in gone.Checkouts)
            Run(open, "UPDATE Sessions SET What = '', ReturnTo = '' WHERE Session = $s", ("$s", session));
        Clear(open);
    }

    private sealed record Row(
        string Session,
        long Minor,
        string Currency,
        string What,
        string ReturnTo,
        PaymentMeans Means,
        string Number,
        Instant? SettlesAt,
        bool Back,
        bool ChargeRefused
    )
    {
        public Money Amount => new(Minor, Core.Amounts.Currency.Of(Currency));

        public CheckoutState StateAt(Instant now) =>
            Number.Length == 0 ? CheckoutState.Open
            : SettlesAt > now ? CheckoutState.Pending
            : Number == EmptyAccount || ChargeRefused ? CheckoutState.Refused
            : CheckoutState.Paid;
    }

    private Instant Now => time.GetUtcNow().ToInstant();

    /// <inheritdoc/>
    public IReadOnlyList<PaymentMeans> Ways { get; } = [PaymentMeans.Card, PaymentMeans.Account];

    /// <inheritdoc/>
    public Task<(string Session, string Page)> BeginAsync(PaymentAsk ask)
    {
        using var open = Open();
        Run(
            open,
            """
            INSERT INTO Sessions(Session, Key, Minor, Currency, What, ReturnTo, Means, ChangedAt)
            VALUES($s, $k, $m, $c, $w, $r, $e, $n) ON CONFLICT(Key) DO UPDATE SET ReturnTo = excluded.ReturnTo
            """,
            ("$s", RandomNumberGenerator.GetHexString(32, lowercase: true)),
            ("$k", ask.Key),
            ("$m", ask.Amount.Minor),
            ("$c", ask.Amount.Currency.Code),
            ("$w", ask.What),
            ("$r", ask.ReturnTo),
            ("$e", ask.Means.ToString()),
            ("$n", Now.ToUnixTimeTicks())
        );
        var session = Read(
            open,
            "SELECT Session FROM Sessions WHERE Key = $k",
            row => row.GetString(0),
            ("$k", ask.Key)
        )[0];
        if (ask.Keeps)
            Keep(open, session);
        return Task.FromResult((session, $"/cards/{session}"));
    }

    /// <inheritdoc/>
    public Task<ProviderPayment> AskAsync(string session)
    {
        if (Find(session) is not { } row)
            return Task.FromResult(ProviderPayment.Nothing);
        var state = row.StateAt(Now);
        using var open = Open();
        return Task.FromResult(
            new ProviderPayment(
                state,
                state != CheckoutState.Refused ? ""
                    : row.Means == PaymentMeans.Card ? "not enough money"
                    : "there was nothing on the account",
                row.Back,
                [
                    .. Read(
                        open,
                        "SELECT Key, Minor, Refused FROM Refunds WHERE Session = $s ORDER BY rowid",
                        refund => new ProviderRefund(
                            refund.GetString(0),
                            row.Amount with
                            {
                                Minor = refund.GetInt64(1),
                            },
                            refund.GetInt64(2) == 1 ? RefundState.Refused : RefundState.Done,
                            refund.GetInt64(2) == 1 ? "this card takes no refund" : ""
                        ),
                        ("$s", session)
                    ),
                ],
                state == CheckoutState.Paid ? KeptOf(open, row) : null
            )
        );
    }

    /// <inheritdoc/>
    public Task RefundAsync(string session, string key, Money amount)
    {
        if (Find(session) is not { } row)
            return Task.CompletedTask;
        using var open = Open();
        Run(
            open,
            "INSERT INTO Refunds(Key, Session, Minor, Refused) VALUES($k, $s, $m, $r) ON CONFLICT DO NOTHING",
            ("$k", key),
            ("$s", session),
            ("$m", amount.Minor),
            ("$r", row.Number == NoRefunds || row.Back ? 1 : 0)
        );
        Touch(open, session);
        return Task.CompletedTask;
    }

    /// <inheritdoc/>
    public Task<IReadOnlyList<string>> ChangedAsync(Instant since)
    {
        using var open = Open();
        return Task.FromResult<IReadOnlyList<string>>(
            Read(
                open,
                "SELECT Session FROM Sessions WHERE Number <> '' AND (ChangedAt >= $t OR (SettlesAt >= $t AND SettlesAt <= $n)) ORDER BY ChangedAt",
                row => row.GetString(0),
                ("$t", since.ToUnixTimeTicks()),
                ("$n", Now.ToUnixTimeTicks())
            )
        );
    }

    /// <inheritdoc/>
    public string? SessionOf(string notice, string signature)
    {
        var right = Encoding.ASCII.GetBytes(Sign(notice));
        if (!CryptographicOperations.FixedTimeEquals(right, Encoding.ASCII.GetBytes(signature)))
            return null;
        using var read = JsonDocument.Parse(notice);
        return read.RootElement.GetProperty("session").GetString();
    }

    /// <exception cref="MissingException">There is no such payment.</exception>
    public PayPageDto Page(string session, string token) =>
        Find(session) is { } row
            ? new(
                row.What,
                MoneyText.Of(row.Amount),
                row.Means == PaymentMeans.Card,
                row.StateAt(Now).ToString(),
                row.ReturnTo,
                row.Means == PaymentMeans.Card ? Cards : Accounts,
                token
            )
            : throw new MissingException("payment");

    /// <summary>Tries a card or an account.</summary>
    /// <exception cref="InvalidException">It is refused; the reason is the bank's.</exception>
    public void Pay(string session, string number)
    {
        var row = Find(session) ?? throw new MissingException("payment");
        if (row.Number.Length > 0)
            throw new InvalidException(("number", "This is paid already, or on its way."));
        var plain = string.Join(' ', number.Where(char.IsAsciiDigit).Chunk(4).Select(four => new string(four)));
        var samples = row.Means == PaymentMeans.Card ? Cards : Accounts;
        if (samples.All(sample => sample.Number != plain))
            throw new InvalidException(
                ("number", "This is none of the samples. No real card or account may be typed in here.")
            );
        if (plain == NoMoney)
            throw new InvalidException(
                ("number", "The bank refused this card: not enough money. Nothing was charged; try another card.")
            );
        if (plain == Expired)
            throw new InvalidException(
                ("number", "The bank refused this card: it has expired. Nothing was charged; try another card.")
            );
        var settles =
            row.Means == PaymentMeans.Account ? Now + AccountDelay
            : plain == Slow ? Now + CardDelay
            : Now;
        using var open = Open();
        Run(
            open,
            "UPDATE Sessions SET Number = $p, SettlesAt = $a WHERE Session = $s",
            ("$p", plain),
            ("$a", settles.ToUnixTimeTicks()),
            ("$s", session)
        );
        Touch(open, session);
    }

    /// <summary>The payer's bank takes a payment back.</summary>
    /// <exception cref="RefusedException">It is not paid, or was taken back.</exception>
    public void TakeBack(string session)
    {
        var row = Find(session) ?? throw new MissingException("payment");
        if (row.Back || row.StateAt(Now) != CheckoutState.Paid)
            throw new RefusedException("Only what was paid, and not taken back yet, can be taken back.");
        using var open = Open();
        Run(open, "UPDATE Sessions SET BackAt = $t WHERE Session = $s", ("$t", Now.ToUnixTimeTicks()), ("$s", session));
        Touch(open, session);
    }

    /// <summary>The newest payments that somebody tried.</summary>
    public IReadOnlyList<HousePaymentDto> All()
    {
        using var open = Open();
        return
        [
            .. Rows(open, "WHERE Number <> '' ORDER BY ChangedAt DESC LIMIT 100")
                .Select(row =>
                {
                    var state = row.StateAt(Now);
                    var notice = JsonSerializer.Serialize(
                        new Dictionary<string, string>
                        {
                            ["session"] = row.Session,
                            ["says"] = row.Back ? "taken back" : state.ToString(),
                        }
                    );
                    return new HousePaymentDto(
                        row.Session,
                        row.What,
                        MoneyText.Of(row.Amount),
                        row.Means == PaymentMeans.Card ? "card" : "account",
                        row.Back ? "taken back" : state.ToString().ToLowerInvariant(),
                        !row.Back && state == CheckoutState.Paid,
                        notice,
                        Sign(notice)
                    );
                }),
        ];
    }

    /// <summary>HMAC-SHA-256 over the body, in hexadecimal digits.</summary>
    private string Sign(string notice) =>
        Convert.ToHexStringLower(HMACSHA256.HashData(secret, Encoding.UTF8.GetBytes(notice)));

    private void Touch(SqliteConnection open, string session) =>
        Run(
            open,
            "UPDATE Sessions SET ChangedAt = $t WHERE Session = $s",
            ("$t", Now.ToUnixTimeTicks()),
            ("$s", session)
        );

    private Row? Find(string session)
    {
        using var open = Open();
        return Rows(open, "WHERE Session = $s", ("$s", session)).SingleOrDefault();
    }

    private static List<Row> Rows(SqliteConnection open, string where, params (string, object?)[] values) =>
        Read(
            open,
            string.Create(
                CultureInfo.InvariantCulture,
                $"""
                SELECT Session, Minor, Currency, What, ReturnTo, Means, Number, SettlesAt, BackAt,
                    EXISTS(SELECT 1 FROM Charges c WHERE c.Session = Sessions.Session AND c.Refused = 1)
                FROM Sessions {where}
                """
            ),
            row => new Row(
                row.GetString(0),
                row.GetInt64(1),
                row.GetString(2),
                row.GetString(3),
                row.GetString(4),
                Enum.Parse<PaymentMeans>(row.GetString(5)),
                row.GetString(6),
                row.IsDBNull(7) ? null : Instant.FromUnixTimeTicks(row.GetInt64(7)),
                !row.IsDBNull(8),
                row.GetInt64(9) == 1
            ),
            values
        );
}
