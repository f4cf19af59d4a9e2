using System.Collections.Immutable;
using System.Text;
using System.Xml.Linq;
using CsCheck;
using Gesamt.Core.Amounts;
using Gesamt.Core.Banking;
using Gesamt.Formats.Bank;
using NodaTime;
using Xunit;

namespace Gesamt.Formats.Tests.Bank;

public class Camt053Tests
{
    private static Money Eur(decimal amount) => Money.Of(amount, Currency.Eur);

    private static BankStatement Read(string entries, string version = "02") =>
        Assert.Single(Camt053.Read(Bytes(entries, version)));

    private static byte[] Bytes(string entries, string version = "02") =>
        Encoding.UTF8.GetBytes(
            $"""
            <?xml version="1.0" encoding="UTF-8"?>
            <Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.{version}">
              <BkToCstmrStmt>
                <GrpHdr><MsgId>1</MsgId><CreDtTm>2027-01-25T18:00:00Z</CreDtTm></GrpHdr>
                <Stmt>
                  <Id>1</Id><CreDtTm>2027-01-25T18:00:00Z</CreDtTm>
                  <Acct><Id><IBAN>IE29AIBK93115212345678</IBAN></Id></Acct>
                  {entries}
                </Stmt>
              </BkToCstmrStmt>
            </Document>
            """
        );

    private const string Old = """
        <Ntry><Amt Ccy="EUR">400.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts>
          <BookgDt><Dt>2027-01-25</Dt></BookgDt><AcctSvcrRef>B-1</AcctSvcrRef>
          <NtryDtls><TxDtls><Refs><EndToEndId>NOTPROVIDED</EndToEndId></Refs>
            <RltdPties><Dbtr><Nm>Oona Pettigrew</Nm></Dbtr></RltdPties>
            <RmtInf><Strd><CdtrRefInf><Ref>RF18539007547034</Ref></CdtrRefInf></Strd></RmtInf></TxDtls></NtryDtls></Ntry>
        <Ntry><Amt Ccy="EUR">20.50</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts>BOOK</Sts>
          <BookgDt><DtTm>2027-01-26T09:00:00</DtTm></BookgDt>
          <NtryDtls><TxDtls><RltdPties><Cdtr><Nm>Paint &amp; Co</Nm></Cdtr></RltdPties>
            <RmtInf><Ustrd>order</Ustrd><Ustrd>4711</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>
        <Ntry><Amt Ccy="EUR">7.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>PDNG</Sts><BookgDt><Dt>2027-01-26</Dt></BookgDt></Ntry>
        """;

    private const string New = """
        <Ntry><Amt Ccy="EUR">400.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts>
          <BookgDt><Dt>2027-01-25</Dt></BookgDt><AcctSvcrRef>B-1</AcctSvcrRef>
          <NtryDtls><TxDtls><RltdPties><Dbtr><Pty><Nm>Oona Pettigrew</Nm></Pty></Dbtr></RltdPties>
            <RmtInf><Strd><CdtrRefInf><Ref>RF18539007547034</Ref></CdtrRefInf></Strd></RmtInf></TxDtls></NtryDtls></Ntry>
        <Ntry><Amt Ccy="EUR">20.50</Amt><CdtDbtInd>DBIT</CdtDbtInd><Sts><Cd>BOOK</Cd></Sts>
          <BookgDt><Dt>2027-01-26</Dt></BookgDt>
          <NtryDtls><TxDtls><RltdPties><Cdtr><Pty><Nm>Paint &amp; Co</Nm></Pty></Cdtr></RltdPties>
            <RmtInf><Ustrd>order</Ustrd><Ustrd>4711</Ustrd></RmtInf></TxDtls></NtryDtls></Ntry>
        <Ntry><Amt Ccy="EUR">7.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts><Cd>PDNG</Cd></Sts><BookgDt><Dt>2027-01-26</Dt></BookgDt></Ntry>
        """;

    [Theory, InlineData("02", Old), InlineData("08", New)] // ISO 20022, by the names of its elements
    public void Both_versions_say_the_same(string version, string entries)
    {
        var statement = Read(entries, version);
        Assert.Equal("IE29AIBK93115212345678", statement.Account);
        Assert.Equal(
            [
                new(new(2027, 1, 25), Eur(400), "Oona Pettigrew", "", "RF18539007547034", "B-1"),
                new(new(2027, 1, 26), Eur(-20.50m), "Paint & Co", "order 4711"),
            ],
            statement.Lines
        );
    }

    [Fact] // one entry over several payments, each with its own amount
    public void A_batch_is_a_line_for_each_payment()
    {
        const string batch = """
            <Ntry><Amt Ccy="EUR">30.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>2027-01-25</Dt></BookgDt>
              <AcctSvcrRef>B-9</AcctSvcrRef><NtryDtls>
              <TxDtls><AmtDtls><TxAmt><Amt Ccy="EUR">10.00</Amt></TxAmt></AmtDtls><RmtInf><Ustrd>a</Ustrd></RmtInf></TxDtls>
              <TxDtls><AmtDtls><TxAmt><Amt Ccy="EUR">{0}</Amt></TxAmt></AmtDtls><RmtInf><Ustrd>b</Ustrd></RmtInf></TxDtls>
              </NtryDtls></Ntry>
            """;
        var lines = Read(batch.Replace("{0}", "20.00", StringComparison.Ordinal)).Lines;
        Assert.Equal(
            [("a", Eur(10), "B-9/1"), ("b", Eur(20), "B-9/2")],
            lines.Select(l => (l.Text, l.Amount, l.BankReference))
        );
        // parts that do not add up to it are no parts
        Assert.Equal(
            [Eur(30)],
            Read(batch.Replace("{0}", "21.00", StringComparison.Ordinal)).Lines.Select(l => l.Amount)
        );
    }

    [Fact]
    public void A_reference_in_the_payers_own_field_is_one_too() =>
        Assert.Equal(
            "RF18539007547034",
            Read(
                """
                <Ntry><Amt Ccy="EUR">1.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>2027-01-25</Dt></BookgDt>
                <NtryDtls><TxDtls><Refs><EndToEndId>RF18539007547034</EndToEndId></Refs></TxDtls></NtryDtls></Ntry>
                """
            )
                .Lines[0]
                .Reference
        );

    [Fact]
    public void What_is_no_statement_is_refused_in_words()
    {
        foreach (
            var file in new[]
            {
                "no xml",
                "<Document xmlns=\"urn:other\"/>",
                "<!DOCTYPE x [<!ENTITY e SYSTEM \"file:///etc/passwd\">]><x>&e;</x>",
            }
        )
            Assert.Throws<FormatException>(() => Camt053.Read(Encoding.UTF8.GetBytes(file)));
        const string entry =
            "<Ntry><Amt Ccy=\"{0}\">{1}</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>{2}</Dt></BookgDt></Ntry>";
        foreach (
            var (code, amount, day) in new[]
            {
                ("EUR", "much", "2027-01-25"),
                ("XXX", "1.00", "2027-01-25"),
                ("EUR", "1.00", "soon"),
                ("EUR", "1.00", ""),
            }
        )
            Assert.Throws<FormatException>(() =>
                Read(
                    entry
                        .Replace("{0}", code, StringComparison.Ordinal)
                        .Replace("{1}", amount, StringComparison.Ordinal)
                        .Replace("{2}", day, StringComparison.Ordinal)
                )
            );
    }

    [Fact]
    public void What_is_written_is_read_again()
    {
        var line = Gen.Select(
            Gen.Int[0, 400],
            Gen.Long[-500_000, 500_000].Where(minor => minor != 0),
            Gen.String[Gen.Char["aä €&<>\"'7RF"], 0, 20],
            Gen.Bool,
            (day, minor, words, referenced) =>
                new BankLine(
                    new LocalDate(2027, 1, 1).PlusDays(day),
                    new(minor, Currency.Eur),
                    Trimmed(words + "x"),
                    referenced ? "" : Trimmed(words),
                    referenced ? CreditorReference.Of("2027-006") : "",
                    $"B{day}"
                )
        );
        line.Array[0, 6]
            .Sample(lines =>
            {
                var statement = new BankStatement("IE29AIBK93115212345678", [.. lines]);
                foreach (var version in Enum.GetValues<Camt053Version>())
                {
                    var written = Camt053.Write(statement, "1", Instant.FromUtc(2027, 1, 25, 18, 0), version);
                    Assert.True(Camt053.Is(written));
                    Assert.Equal(statement.Lines.AsEnumerable(), Assert.Single(Camt053.Read(written)).Lines);
                }
            });
    }

    private static string Trimmed(string text) => text.Trim();

    // the sequences of ISO 20022, camt.053.001.02 and .08, from memory of the message definition reports
    [Theory]
    [InlineData(Camt053Version.V02, "AmtDtls RltdPties RmtInf")]
    [InlineData(Camt053Version.V08, "Amt CdtDbtInd RltdPties RmtInf")]
    public void Elements_are_written_in_the_order_of_the_message(Camt053Version version, string details)
    {
        var statement = new BankStatement(
            "IE29AIBK93115212345678",
            [
                new(new(2027, 1, 25), Eur(1), "x", "", CreditorReference.Of("1"), "B"),
                new(new(2027, 1, 25), Eur(-1), "x", "words", "", "C"),
            ]
        );
        var root = XDocument
            .Parse(Encoding.UTF8.GetString(Camt053.Write(statement, "1", Instant.FromUtc(2027, 1, 25, 18, 0), version)))
            .Root!;
        var sequences = new Dictionary<string, string>
        {
            ["Stmt"] = "Id ElctrncSeqNb CreDtTm Acct Bal Ntry",
            ["Ntry"] = "Amt CdtDbtInd Sts BookgDt ValDt AcctSvcrRef BkTxCd NtryDtls",
            ["Bal"] = "Tp Amt CdtDbtInd Dt",
            ["TxDtls"] = details,
            ["RltdPties"] = "Dbtr Cdtr",
            ["CdtrRefInf"] = "Tp Ref",
            ["Tp"] = "CdOrPrtry Issr",
        };
        foreach (var element in root.DescendantsAndSelf())
            if (sequences.TryGetValue(element.Name.LocalName, out var sequence))
            {
                var places = element
                    .Elements()
                    .Select(child => Array.IndexOf(sequence.Split(' '), child.Name.LocalName))
                    .ToImmutableArray();
                Assert.DoesNotContain(-1, places);
                Assert.Equal(places.Order(), places);
            }
    }
}
