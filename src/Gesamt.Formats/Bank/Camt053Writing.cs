using System.Globalization;
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
    public static byte[] Write(BankStatement statement, string id, Instant at, string name)
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
                    statement.Lines.Select(line => Entry(E, line))
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

    private static XElement Entry(Func<string, object?[], XElement> element, BankLine line)
    {
        XElement E(string name, params object?[] content) => element(name, content);
        var (incoming, amount) = (line.Amount.Minor > 0, line.Amount.Minor < 0 ? -line.Amount : line.Amount);
        var written = E(
            "Amt",
            new XAttribute("Ccy", amount.Currency.Code),
            amount.Major.ToString($"F{amount.Currency.Exponent}", CultureInfo.InvariantCulture)
        );
        var sign = E("CdtDbtInd", incoming ? "CRDT" : "DBIT");
        var day = LocalDatePattern.Iso.Format(line.On);
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
            written,
            sign,
            E("Sts", E("Cd", "BOOK")),
            E("BookgDt", E("Dt", day)),
            E("ValDt", E("Dt", day)),
            line.BankReference.Length > 0 ? E("AcctSvcrRef", line.BankReference) : null,
            E("BkTxCd", E("Prtry", E("Cd", "TRANSFER"))),
            E(
                "NtryDtls",
                E(
                    "TxDtls",
                    E("Amt", written.Attribute("Ccy") is { } code ? new XAttribute(code) : null, written.Value),
                    new XElement(sign),
                    line.Party.Length > 0
                        ? E("RltdPties", E(incoming ? "Dbtr" : "Cdtr", E("Pty", E("Nm", Clean(line.Party)))))
                        : null,
                    remittance is null ? null : E("RmtInf", remittance)
                )
            )
        );
    }

    private static string Clean(string text) => new([.. text.Where(XmlConvert.IsXmlChar)]);
}
