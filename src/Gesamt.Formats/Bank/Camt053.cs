using System.Collections.Immutable;
using System.Globalization;
using System.Xml;
using System.Xml.Linq;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Formats.Bank;

/// <summary>The versions of camt.053.001 that banks give out.</summary>
public enum Camt053Version
{
    V02 = 2,
    V08 = 8,
}

/// <summary>Bank statements by ISO 20022, camt.053.001.02 and camt.053.001.08: read leniently, written strictly.</summary>
/// <remarks>What is not booked yet (pending, for information) is left out: it comes again when it is. An entry over several payments is one line for each where their amounts add up to it.</remarks>
public static class Camt053
{
    private const string Namespace = "urn:iso:std:iso:20022:tech:xsd:camt.053.001.";

    /// <summary>Whether a file is one, as far as its first bytes say.</summary>
    public static bool Is(byte[] file) =>
        System
            .Text.Encoding.UTF8.GetString(file.AsSpan(0, Math.Min(file.Length, 2_000)))
            .Contains("camt.053", StringComparison.Ordinal);

    /// <summary>All statements of a file.</summary>
    /// <exception cref="FormatException">It is none, or something in it cannot be read; the words say what.</exception>
    public static ImmutableArray<BankStatement> Read(byte[] file)
    {
        XElement root;
        try
        {
            using var stream = new MemoryStream(file);
            // entities could name files of this machine, or grow without end
            using var reader = XmlReader.Create(
                stream,
                new() { DtdProcessing = DtdProcessing.Prohibit, MaxCharactersInDocument = 100_000_000 }
            );
            root = XElement.Load(reader);
        }
        catch (XmlException e)
        {
            throw new FormatException($"This is no XML that can be read: {e.Message}", e);
        }
        if (!root.Name.NamespaceName.StartsWith(Namespace, StringComparison.Ordinal))
            throw new FormatException("This is no bank statement by camt.053.");
        return [.. Path(root, "BkToCstmrStmt").SelectMany(message => Path(message, "Stmt")).Select(Statement)];
    }

    /// <summary>A statement as a bank would give it out.</summary>
    public static byte[] Write(
        BankStatement statement,
        string id,
        Instant at,
        Camt053Version version = Camt053Version.V08
    ) => Camt053Writing.Write(statement, id, at, version, $"{Namespace}{(int)version:00}");

    private static BankStatement Statement(XElement statement) =>
        new(
            Text(statement, "Acct", "Id", "IBAN") is { Length: > 0 } iban
                ? Iban.Plain(iban)
                : Text(statement, "Acct", "Id", "Othr", "Id"),
            [.. Path(statement, "Ntry").Where(IsBooked).SelectMany(Lines)]
        );

    /// <summary>Version 02 has the state as a text, version 08 as a code.</summary>
    private static bool IsBooked(XElement entry) =>
        (Text(entry, "Sts", "Cd") is { Length: > 0 } code ? code : Text(entry, "Sts")) is "BOOK" or "";

    private static IEnumerable<BankLine> Lines(XElement entry)
    {
        var amount = Amount(entry, Text(entry, "CdtDbtInd"));
        var on =
            Day(entry, "BookgDt")
            ?? Day(entry, "ValDt")
            ?? throw new FormatException("An entry has no day on which it was booked.");
        var details = Path(entry, "NtryDtls").SelectMany(group => Path(group, "TxDtls")).ToList();
        var bank = Text(entry, "AcctSvcrRef");
        var parts = details.Select(detail => PartOf(detail, entry)).ToList();
        if (
            details.Count > 1
            && parts.TrueForAll(part => part is not null)
            && parts.Select(part => part!.Value).Sum(amount.Currency) == amount
        )
            return details.Select(
                (detail, i) =>
                    Line(
                        detail,
                        entry,
                        on,
                        parts[i]!.Value,
                        Text(detail, "Refs", "AcctSvcrRef") is { Length: > 0 } own && own != bank ? own
                            : bank.Length > 0 ? string.Create(CultureInfo.InvariantCulture, $"{bank}/{i + 1}")
                            : ""
                    )
            );
        return [Line(details.FirstOrDefault() ?? entry, entry, on, amount, bank)];
    }

    private static BankLine Line(XElement detail, XElement entry, LocalDate on, Money amount, string bank)
    {
        var who = amount.Minor < 0 ? "Cdtr" : "Dbtr";
        var party = First(
            Text(detail, "RltdPties", who, "Nm"),
            Text(detail, "RltdPties", who, "Pty", "Nm"),
            Text(detail, "RltdPties", $"Ultmt{who}", "Nm"),
            Text(detail, "RltdPties", $"Ultmt{who}", "Pty", "Nm")
        );
        var remittance = Path(detail, "RmtInf").ToList();
        var structured = remittance
            .SelectMany(info => Path(info, "Strd"))
            .Select(one => Text(one, "CdtrRefInf", "Ref"))
            .FirstOrDefault(reference => reference.Length > 0);
        var words = remittance.SelectMany(info => Path(info, "Ustrd")).Select(one => one.Value.Trim());
        var end = Text(detail, "Refs", "EndToEndId");
        // many banks carry the reference where the payer's own belongs
        var reference = structured ?? (CreditorReference.IsValid(end) ? end : "");
        return new(
            on,
            amount,
            party,
            First(string.Join(' ', words), Text(detail, "AddtlTxInf"), Text(entry, "AddtlNtryInf")),
            reference,
            bank
        );
    }

    private static Money? PartOf(XElement detail, XElement entry)
    {
        var sign = First(Text(detail, "CdtDbtInd"), Text(entry, "CdtDbtInd"));
        return Path(detail, "Amt").Any() ? Amount(detail, sign)
            : Path(detail, "AmtDtls").SelectMany(one => Path(one, "TxAmt")).FirstOrDefault() is { } transaction
                ? Amount(transaction, sign)
            : null;
    }

    private static Money Amount(XElement of, string sign)
    {
        var amount = Path(of, "Amt").FirstOrDefault() ?? throw new FormatException("An entry has no amount.");
        var code = (string?)amount.Attribute("Ccy") ?? "";
        if (
            !decimal.TryParse(amount.Value, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var major)
            || major > 1_000_000_000_000m
        )
            throw new FormatException($"“{amount.Value}” is no amount.");
        var money = Money.Of(major, Currency.Of(code));
        return sign == "DBIT" ? -money : money;
    }

    private static LocalDate? Day(XElement entry, string name)
    {
        var text = First(Text(entry, name, "Dt"), Text(entry, name, "DtTm"));
        if (text.Length == 0)
            return null;
        return LocalDatePattern.Iso.Parse(text[..Math.Min(10, text.Length)]) is { Success: true, Value: var day }
            ? day
            : throw new FormatException($"“{text}” is no day.");
    }

    private static IEnumerable<XElement> Path(XElement from, string name) =>
        from.Elements().Where(child => child.Name.LocalName == name);

    private static string Text(XElement from, params ReadOnlySpan<string> path)
    {
        XElement? at = from;
        foreach (var name in path)
            at = at is null ? null : Path(at, name).FirstOrDefault();
        return at is null || at.HasElements ? "" : at.Value.Trim();
    }

    private static string First(params ReadOnlySpan<string> texts)
    {
        foreach (var text in texts)
            if (text.Length > 0)
                return text;
        return "";
    }
}
