using System.Text;
using CsCheck;
using Gesamt.Formats.People;
using Gesamt.Formats.Tables;
using Xunit;

namespace Gesamt.Formats.Tests;

public sealed class TableAndCardTests
{
    [Fact] // read by Debian's python3-vobject (RFC 6350, which it reads as 3.0)
    public void Cards_read_the_same_to_another_parser()
    {
        var card = new Card(
            "Zoë O’Brien; Núñez, sisters",
            "Harbour, Lane & Co",
            "zoe@harbour.example",
            "+353 87 555 0142",
            "4 Ferry Street\nDunmarrin",
            "https://profile.example/zoe",
            $"A long note {string.Concat(Enumerable.Repeat("with an umlaut ü ", 12))}end"
        );
        var read = Python.Run(
            "import sys, vobject\nc = vobject.readOne(sys.stdin.read().replace('VERSION:4.0', 'VERSION:3.0'))\nprint(c.fn.value); print(c.email.value); print(c.tel.value); print(repr(c.adr.value.street)); print(c.url.value); print(c.note.value)",
            VCards.Write([card])
        );
        Assert.Equal([card.Name, card.Mail!, card.Phone!, "'4 Ferry Street\\nDunmarrin'", card.Url!, card.Note!], read);
        Assert.Equal(
            card with
            {
                Address = "4 Ferry Street\nDunmarrin",
            },
            Assert.Single(VCards.Read(VCards.Write([card])))
        );
    }

    [Fact] // written by Debian's python3-openpyxl (ECMA-376)
    public void A_workbook_of_another_program_reads_as_the_table_it_is()
    {
        var made = Python.Run(
            """
            import sys, io, base64, datetime, openpyxl
            book = openpyxl.Workbook()
            sheet = book.create_sheet('Jobs')
            sheet.append(['No', 'Name', 'Event date', 'Price', 'Paid', 'Phone', None])
            sheet.append(['017', ' Zoë O’Brien ', datetime.date(2027, 3, 12), 1234.5, True, 353875550142])
            sheet.append([])
            sheet.append([18, 'Núñez & Co', datetime.datetime(2027, 12, 1, 9, 30), 0.1, False, '087 555'])
            sheet.append([None, 'Late', 'in May', 4200, None, None, 'beyond'])
            out = io.BytesIO(); book.save(out)
            print(base64.b64encode(out.getvalue()).decode())
            """,
            ""
        );
        var table = TableText.Read(Convert.FromBase64String(Assert.Single(made)));
        Assert.Null(table.Separator);
        Assert.Equal(["No", "Name", "Event date", "Price", "Paid", "Phone"], table.Headings);
        Assert.Equal(
            [
                ["017", "Zoë O’Brien", "2027-03-12", "1234.5", "True", "353875550142"],
                ["18", "Núñez & Co", "2027-12-01 09:30", "0.1", "False", "087 555"],
                ["", "Late", "in May", "4200", "", ""],
            ],
            table.Rows
        );
    }

    [Theory]
    [InlineData("PK\u0003\u0004 and nothing of a workbook")]
    [InlineData("PK\u0003\u0004")]
    public void What_only_begins_like_a_workbook_is_refused_in_words(string text) =>
        Assert.Contains(
            "cannot be read",
            Assert.Throws<FormatException>(() => TableText.Read(Encoding.Latin1.GetBytes(text))).Message
        );

    [Fact]
    public void Whatever_stands_in_a_workbook_it_reads_or_is_refused() =>
        Gen
            .Byte.Array[0, 300]
            .Sample(bytes =>
            {
                foreach (var head in new byte[][] { [.. "PK\u0003\u0004"u8], [0xd0, 0xcf, 0x11, 0xe0] })
                    Assert.ThrowsAny<FormatException>(() => TableText.Read([.. head, .. bytes]));
            });

    [Fact]
    public void No_line_of_a_card_is_longer_than_75_octets() =>
        Gen.String[Gen.Char["aü€,;\n\\ "], 1, 200]
            .Where(text => text.Trim().Length > 0)
            .Sample(text =>
            {
                var written = VCards.Write([new(text, null, null, null, null, null, text)]);
                Assert.All(written.Split("\r\n"), line => Assert.True(Encoding.UTF8.GetByteCount(line) <= 75));
                Assert.Equal(Gesamt.Core.Texts.Typed.OneLine(text), Assert.Single(VCards.Read(written)).Name);
            });

    [Fact]
    public void Older_cards_with_groups_parameters_and_folds_are_read()
    {
        var cards = VCards.Read(
            "BEGIN:VCARD\nVERSION:3.0\nN:Pettigrew;Oona;;;\nitem1.EMAIL;TYPE=INTERNET;X=\"a:b\":oona@harbour.example\nTEL;TYPE=CELL:087 555\n  0142\nADR;TYPE=WORK:;;4 Ferry Street;Dunmarrin;;D01;Ireland\nORG:Harbour Lane;Bakery\nEND:VCARD\n"
        );
        Assert.Equal(
            new Card(
                "Oona Pettigrew",
                "Harbour Lane, Bakery",
                "oona@harbour.example",
                "087 555 0142",
                "4 Ferry Street, Dunmarrin, D01, Ireland",
                null,
                null
            ),
            Assert.Single(cards)
        );
        Assert.Throws<FormatException>(() => VCards.Read("hello"));
    }

    [Theory]
    [InlineData("a,b\n1,2\n", ',')]
    [InlineData("a;b\n1;2,5\n", ';')]
    [InlineData("a\tb\n1\t2\n", '\t')]
    [InlineData("a|b\n1|2\n", '|')]
    public void The_separator_is_found(string text, char separator)
    {
        var table = TableText.Read(Encoding.UTF8.GetBytes(text));
        Assert.Equal((separator, 2, 1), (table.Separator, table.Headings.Count, table.Rows.Count));
    }

    [Fact] // RFC 4180, 2.5 to 2.7
    public void Quoted_cells_hold_separators_line_breaks_and_quotes()
    {
        var table = TableText.Read(
            Encoding.UTF8.GetBytes("\ufeffname,words\r\nMona,\"a wall, of \"\"bricks\"\"\r\nand more\"\r\n\r\nIda\r\n")
        );
        Assert.Equal(["name", "words"], table.Headings);
        Assert.Equal(["Mona", "a wall, of \"bricks\"\r\nand more"], table.Rows[0]);
        Assert.Equal(["Ida", ""], table.Rows[1]);
    }

    [Fact]
    public void A_table_in_windows_1252_is_read_too()
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        Assert.Equal(
            "Müller €",
            TableText.Read(Encoding.GetEncoding(1252).GetBytes("name;x\nMüller €;1\n")).Rows[0][0]
        );
    }

    [Theory]
    [InlineData("")]
    [InlineData("name,mail\n")]
    [InlineData("a\0b")]
    public void What_is_no_table_says_so(string text) =>
        Assert.Throws<FormatException>(() => TableText.Read(Encoding.UTF8.GetBytes(text)));

    [Fact] // RFC 6350, 5.3 and 6.7.6; vCard 2.1 with quoted-printable (RFC 2045, 6.7) as older phones write it
    public void Preferred_ways_stand_first_and_further_ones_and_the_uid_are_kept()
    {
        var four = Assert.Single(
            VCards.Read(
                "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Oona\r\nEMAIL;PREF=2:old@oona.example\r\nEMAIL;PREF=1:new@oona.example\r\nTEL;TYPE=home:01\r\nTEL;TYPE=\"cell,pref\":+353 87 555 0142\r\nUID:urn:uuid:4fbe8971\r\nEND:VCARD\r\n"
            )
        );
        Assert.Equal(("new@oona.example", "+353 87 555 0142", "urn:uuid:4fbe8971"), (four.Mail, four.Phone, four.Uid));
        Assert.Equal(["old@oona.example", "01"], [.. four.MoreMails, .. four.MorePhones]);
        var old = Assert.Single(
            VCards.Read(
                "BEGIN:VCARD\nVERSION:2.1\nN;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:Gr=C3=B6hl;Zo=C3=AB\nNOTE;ENCODING=QUOTED-PRINTABLE:first line=0D=0A=\nsecond line\nEMAIL;PREF;INTERNET:zoe@grohl.example\nEND:VCARD\n"
            )
        );
        Assert.Equal(("Zoë Gröhl", "zoe@grohl.example", "first line\r\nsecond line"), (old.Name, old.Mail, old.Note));
    }

    [Fact]
    public void A_card_with_several_ways_comes_back_as_it_was()
    {
        var card = new Card("Oona", null, "a@oona.example", "+353 1", null, null, null)
        {
            MoreMails = ["b@oona.example", "c@oona.example"],
            MorePhones = ["+353 2"],
            Uid = "urn:uuid:1",
        };
        Assert.Equal(card, Assert.Single(VCards.Read(VCards.Write([card]))));
    }

    [Theory]
    [
        InlineData(1250, "Łukasz Żółć"),
        InlineData(1250, "Jiří Dvořák a Žofie Šípková"),
        InlineData(1252, "Zoë Gröhl"),
        InlineData(1252, "Åse Sørensen"),
        InlineData(1252, "João Conceição"),
        InlineData(1200, "Łukasz Gröhl"),
        InlineData(1201, "Хлеб")
    ]
    public void Tables_of_every_usual_encoding_are_read(int page, string name)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var encoding = Encoding.GetEncoding(page);
        Assert.Equal(
            name,
            TableText.Read([.. encoding.GetPreamble(), .. encoding.GetBytes($"Name;Price\r\n{name};1.500\r\n")]).Rows[
                0
            ][0]
        );
    }

    [Fact] // UTF-16 without a mark, as some programs save it
    public void UTF_16_is_told_without_its_mark() =>
        Assert.Equal("Oona", TableText.Read(Encoding.Unicode.GetBytes("Name;Price\r\nOona;12\r\n")).Rows[0][0]);

    [Fact]
    public void Numbers_and_phones_stand_as_they_are_and_formulas_behind_an_apostrophe() =>
        Assert.Equal(
            "\ufeffa\r\n+353 87 555 0142\r\n-12.50\r\n'=1+1\r\n'+cmd\r\n'@x\r\n",
            Encoding.UTF8.GetString(
                Csv.Write(
                    ["a"],
                    [
                        ["+353 87 555 0142"],
                        ["-12.50"],
                        ["=1+1"],
                        ["+cmd"],
                        ["@x"],
                    ]
                )
            )
        );
}
