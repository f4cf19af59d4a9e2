using System.Text;
using System.Xml;
using System.Xml.Linq;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Formats.Bank;

/// <summary>Writes statements by ISO 20022; elements stand in the order of the message's sequences.</summary>
internal static class Camt053Writing
{
    public static byte[] Write(BankStatement statement, string id, Instant at, Camt053Version version, string name)
    {
        XNamespace space = name;
        XElement E(string element, params object?[] content) => new(space + element, content);
        var time = InstantPattern.General.Format(at);
        var document = E(
            "Document",
            E(
                "BkToCstmrStmt",
                E("GrpHdr", E("MsgId", id), E("CreDtTm", time)),
                E(
                    "Stmt",
                    E("Id", id),
                    E("ElctrncSeqNb", "1"),
                    E("CreDtTm", time),
                    E("Acct", E("Id", E("IBAN", statement.Account))),
                    Balances(E, statement, LocalDatePattern.Iso.Format(at.InUtc().Date)),
                    statement.Lines.Select(line => Entry(E, line, version))
                )
            )
        );
        using var bytes = new MemoryStream();
        using (
            var writer = XmlWriter.Create(
                bytes,
                new()
                {
                    Encoding = new UTF8Encoding(false),
                    Indent = true,
                    NewLineChars = "\n",
                }
            )
        )
            new XDocument(document).Save(writer);
        return bytes.ToArray();
    }

    /// <summary>What the account held before and after; its first statement begins with nothing.</summary>
    private static IEnumerable<XElement> Balances(
        Func<string, object?[], XElement> element,
        BankStatement statement,
        string day
    )
    {
        XElement E(string name, params object?[] content) => element(name, content);
        XElement Balance(string code, Money amount) =>
            E(
                "Bal",
                E("Tp", E("CdOrPrtry", E("Cd", code))),
                Written(E, amount),
                E("CdtDbtInd", amount.Minor < 0 ? "DBIT" : "CRDT"),
                E("Dt", E("Dt", day))
            );
        if (statement.Lines is not [var first, ..])
            return [];
        var sum = statement.Lines.Select(line => line.Amount).Sum(first.Amount.Currency);
        return [Balance("OPBD", Money.Zero(sum.Currency)), Balance("CLBD", sum)];
    }

    private static XElement Written(Func<string, object?[], XElement> element, Money amount) =>
        element(
            "Amt",
            [
                new XAttribute("Ccy", amount.Currency.Code),
                MoneyText.Exact(amount with { Minor = Math.Abs(amount.Minor) }),
            ]
        );

    private static XElement Entry(Func<string, object?[], XElement> element, BankLine line, Camt053Version version)
    {
        XElement E(string name, params object?[] content) => element(name, content);
        var incoming = line.Amount.Minor > 0;
        var old = version == Camt053Version.V02;
        var sign = E("CdtDbtInd", incoming ? "CRDT" : "DBIT");
        var day = LocalDatePattern.Iso.Format(line.On);
        var name = E("Nm", Clean(line.Party));
        var remittance =
            line.Reference.Length > 0
                ? E(
                    "Strd",
                    E(
                        "CdtrRefInf",
                        E("Tp", E("CdOrPrtry", E("Cd", "SCOR")), E("Issr", "ISO")),
                        E("Ref", CreditorReference.Plain(line.Reference))
                    )
                )
            : line.Text.Length > 0 ? E("Ustrd", Clean(line.Text))
            : null;
        return E(
            "Ntry",
            Written(element, line.Amount),
            sign,
            // version 02 has the state and the name as plain text, and the amount of a part among its details
            old ? E("Sts", "BOOK") : E("Sts", E("Cd", "BOOK")),
            E("BookgDt", E("Dt", day)),
            E("ValDt", E("Dt", day)),
            line.BankReference.Length > 0 ? E("AcctSvcrRef", line.BankReference) : null,
            E("BkTxCd", E("Prtry", E("Cd", "TRANSFER"))),
            E(
                "NtryDtls",
                E(
                    "TxDtls",
                    old ? E("AmtDtls", E("TxAmt", Written(element, line.Amount))) : Written(element, line.Amount),
                    old ? null : new XElement(sign),
                    line.Party.Length > 0
                        ? E("RltdPties", E(incoming ? "Dbtr" : "Cdtr", old ? name : E("Pty", name)))
                        : null,
                    remittance is null ? null : E("RmtInf", remittance)
                )
            )
        );
    }

    private static string Clean(string text) => new([.. text.Where(XmlConvert.IsXmlChar)]);
}
