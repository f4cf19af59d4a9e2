using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Invoicing;
using NodaTime;

namespace Gesamt.Formats.Invoices;

/// <summary>An invoice or credit note by the semantic model of EN 16931-1, as far as a studio needs it. Names follow its business terms (BT, BG).</summary>
/// <param name="Number">BT-1.</param>
/// <param name="IssuedOn">BT-2.</param>
/// <param name="Due">BT-9; null for a credit note.</param>
/// <param name="Seller">BG-4.</param>
/// <param name="Buyer">BG-7.</param>
/// <param name="Lines">BG-25.</param>
/// <param name="Totals">BG-22 and BG-23.</param>
public sealed record EInvoice(
    string Number,
    LocalDate IssuedOn,
    LocalDate? Due,
    EParty Seller,
    EParty Buyer,
    ImmutableArray<ELine> Lines,
    Totals Totals
)
{
    /// <summary>The invoice a credit note takes back (BG-3); null for an invoice.</summary>
    public EPreceding? Credits { get; init; }

    /// <summary>The buyer's order number (BT-13), or else a word by which they know what it is about (BT-10).</summary>
    public string OrderReference { get; init; } = "";

    /// <summary>BT-10.</summary>
    public string BuyerReference { get; init; } = "";

    /// <summary>BG-14, or BT-72 for a single day.</summary>
    public Performed? Performed { get; init; }

    /// <summary>BT-22.</summary>
    public string Note { get; init; } = "";

    /// <summary>BT-20.</summary>
    public string Terms { get; init; } = "";

    /// <summary>Discounts on the whole, by tax (BG-20).</summary>
    public ImmutableArray<EAllowance> Allowances { get; init; } = [];

    /// <summary>BT-120 of what is exempt.</summary>
    public string ExemptReason { get; init; } = "";

    /// <summary>BG-16; null where there is no account to pay to.</summary>
    public EPayment? Payment { get; init; }

    /// <summary>BT-5.</summary>
    public Currency Currency => Totals.RoundingAmount.Currency;
}

/// <summary>A party of an invoice.</summary>
/// <param name="Name">BT-27, BT-44.</param>
/// <param name="Address">BT-35, 36, 162; BT-50, 51, 163: a line each.</param>
/// <param name="Country">ISO 3166-1, two letters: BT-40, BT-55.</param>
/// <param name="TaxNumber">As it is typed; a VAT identifier where it begins with its country (BT-31, BT-48), else a number at the tax office (BT-32).</param>
/// <param name="Mail">BT-34, BT-49, in the scheme of mail addresses; empty for none.</param>
/// <param name="Contact">BT-41, BT-56; empty for none.</param>
/// <param name="Phone">BT-42; empty for none.</param>
public sealed record EParty(
    string Name,
    ImmutableArray<string> Address,
    string Country,
    string TaxNumber,
    string Mail = "",
    string Contact = "",
    string Phone = ""
);

/// <summary>A line.</summary>
/// <param name="Quantity">BT-129.</param>
/// <param name="Unit">BT-130 by its common name, such as “day”; empty for pieces.</param>
/// <param name="Net">BT-131.</param>
/// <param name="Price">BT-146: of one, without tax, exact.</param>
/// <param name="Less">BT-136; nothing for none.</param>
/// <param name="Name">BT-153.</param>
/// <param name="Description">BT-154.</param>
public sealed record ELine(
    decimal Quantity,
    string Unit,
    Money Net,
    decimal Price,
    Money Less,
    Tax Tax,
    string Name,
    string Description = ""
);

/// <summary>A discount on what is taxed alike.</summary>
/// <param name="Amount">BT-92.</param>
/// <param name="Reason">BT-97.</param>
public sealed record EAllowance(Tax Tax, Money Amount, string Reason);

/// <summary>What a credit note refers to.</summary>
/// <param name="Number">BT-25.</param>
/// <param name="IssuedOn">BT-26.</param>
public sealed record EPreceding(string Number, LocalDate IssuedOn);

/// <summary>A transfer.</summary>
/// <param name="Reference">BT-83, a creditor reference of ISO 11649.</param>
/// <param name="Iban">BT-84.</param>
/// <param name="Name">BT-85.</param>
/// <param name="Bic">BT-86; empty for none.</param>
public sealed record EPayment(string Reference, string Iban, string Name, string Bic = "");

/// <summary>Tax numbers as they are typed.</summary>
public static class TaxNumbers
{
    // the member states (Directive 2006/112/EC, article 215) and neighbours that write their country before the number
    private const string Prefixes =
        "AT BE BG CY CZ DE DK EE EL ES FI FR HR HU IE IT LT LU LV MT NL PL PT RO SE SI SK XI GB CH NO IS LI MC SM";

    /// <summary>The VAT identifier in it, with its country before it (BR-CO-9); null where it is a number of another sort.</summary>
    /// <remarks>“VAT IE 0000000XX”, “ATU 1234 5678”; Greece writes EL.</remarks>
    public static string? Vat(string typed)
    {
        var plain = new string([.. typed.ToUpperInvariant().Where(char.IsAsciiLetterOrDigit)]);
        foreach (var word in new[] { "VATID", "VATNO", "VAT", "UID" })
            if (plain.StartsWith(word, StringComparison.Ordinal))
                plain = plain[word.Length..];
        return
            plain.Length is >= 6 and <= 16
            && Prefixes.Contains(plain[..2], StringComparison.Ordinal)
            && plain[2..].Any(char.IsAsciiDigit)
            ? plain
            : null;
    }
}

/// <summary>Countries by their two letters.</summary>
public static class Countries
{
    // ISO 3166-1, all officially assigned two-letter codes; 1A for Kosovo and XI for Northern Ireland stand in the list of EN 16931 besides
    private const string Codes = """
        AD AE AF AG AI AL AM AO AQ AR AS AT AU AW AX AZ BA BB BD BE BF BG BH BI BJ BL BM BN BO BQ BR BS BT BV BW BY BZ CA
        CC CD CF CG CH CI CK CL CM CN CO CR CU CV CW CX CY CZ DE DJ DK DM DO DZ EC EE EG EH ER ES ET FI FJ FK FM FO FR GA
        GB GD GE GF GG GH GI GL GM GN GP GQ GR GS GT GU GW GY HK HM HN HR HT HU ID IE IL IM IN IO IQ IR IS IT JE JM JO JP
        KE KG KH KI KM KN KP KR KW KY KZ LA LB LC LI LK LR LS LT LU LV LY MA MC MD ME MF MG MH MK ML MM MN MO MP MQ MR MS
        MT MU MV MW MX MY MZ NA NC NE NF NG NI NL NO NP NR NU NZ OM PA PE PF PG PH PK PL PM PN PR PS PT PW PY QA RE RO RS
        RU RW SA SB SC SD SE SG SH SI SJ SK SL SM SN SO SR SS ST SV SX SY SZ TC TD TF TG TH TJ TK TL TM TN TO TR TT TV TW
        TZ UA UG UM US UY UZ VA VC VE VG VI VN VU WF WS YE YT ZA ZM ZW
        """;

    /// <summary>All of them in their order.</summary>
    public static readonly ImmutableArray<string> All =
    [
        .. Codes.Split((char[])[' ', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries),
    ];

    public static bool IsCode(string code) => All.Contains(code);
}
