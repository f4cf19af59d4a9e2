using System.Collections.Frozen;

namespace Gesamt.Core.Amounts;

/// <summary>A currency of ISO 4217 with the number of decimal places of its minor unit (EUR 2, JPY 0, KWD 3).</summary>
public readonly record struct Currency
{
    // ISO 4217 list one: every code whose minor unit is not 2; all other listed codes have 2.
    private const string None = "BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF";
    private const string Three = "BHD IQD JOD KWD LYD OMR TND";
    private const string Four = "CLF UYW";
    private const string Two = """
        AED AFN ALL AMD ANG AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BOV BRL BSD BTN BWP BYN BZD CAD CDF
        CHE CHF CHW CNY COP COU CRC CUC CUP CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ
        GYD HKD HNL HTG HUF IDR ILS INR IRR JMD KES KGS KHR KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK
        MNT MOP MRU MUR MVR MWK MXN MXV MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN PGK PHP PKR PLN QAR RON RSD RUB
        SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL THB TJS TMT TOP TRY TTD TWD TZS UAH USD USN
        UYU UZS VED VES WST XCD YER ZAR ZMW ZWG ZWL
        """;

    private static readonly FrozenDictionary<string, int> Places = new[] { (None, 0), (Two, 2), (Three, 3), (Four, 4) }
        .SelectMany(group =>
            group
                .Item1.Split((char[])[' ', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries)
                .Select(code => (code, group.Item2))
        )
        .ToFrozenDictionary(pair => pair.code, pair => pair.Item2);

    private readonly string? code;

    private Currency(string code) => this.code = code;

    public static readonly Currency Eur = new("EUR");

    /// <summary>The three-letter code of ISO 4217.</summary>
    public string Code => code ?? throw new InvalidOperationException("An amount needs its currency.");

    /// <summary>Decimal places of the minor unit.</summary>
    public int Exponent => Places[Code];

    /// <summary>All codes known here with their decimal places.</summary>
    public static IReadOnlyDictionary<string, int> All => Places;

    /// <exception cref="FormatException">The code is none of ISO 4217's with a minor unit.</exception>
    public static Currency Of(string code) =>
        Places.ContainsKey(code) ? new(code) : throw new FormatException($"“{code}” is no currency code of ISO 4217.");

    /// <summary>The one currency of two amounts.</summary>
    /// <exception cref="CurrencyMismatchException">They differ: amounts of different currencies are never summed.</exception>
    public static Currency Same(Money a, Money b) =>
        a.Currency == b.Currency ? a.Currency : throw new CurrencyMismatchException(a.Currency, b.Currency);

    public override string ToString() => Code;
}

/// <summary>Two amounts of different currencies met in one sum.</summary>
public sealed class CurrencyMismatchException(Currency a, Currency b)
    : InvalidOperationException($"{a} and {b} are never added up.");
