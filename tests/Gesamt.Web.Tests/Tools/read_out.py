"""Reads what a studio hands out with nothing but common libraries: tables, the calendar feed, contacts, mailboxes and the folder of a year.

Takes a ZIP of what was handed out. Prints one line for each thing it found; ends with an error where anything does not read.
"""

import collections
import csv
import decimal
import io
import mailbox
import sys
import tempfile
import zipfile
from xml.dom import minidom

import icalendar
import vobject


def table(content):
    text = content.decode("utf-8")
    assert text.startswith("\ufeff")
    rows = list(csv.reader(io.StringIO(text[1:], newline=""), strict=True))
    assert rows and all(len(row) == len(rows[0]) for row in rows), rows[0]
    assert len(set(rows[0])) == len(rows[0]), rows[0]
    return rows


def number(cell):
    return decimal.Decimal(cell)


def calendar(content):
    seen = collections.Counter()
    read = icalendar.Calendar.from_ical(content)
    uids = [str(event["UID"]) for event in read.walk("VEVENT")]
    assert len(uids) == len(set(uids))
    for event in read.walk("VEVENT"):
        start, summary = event.decoded("DTSTART"), str(event["SUMMARY"])
        assert start and summary
        seen["timed" if hasattr(start, "hour") else "whole"] += 1
    return seen


def letters(content):
    with tempfile.NamedTemporaryFile() as file:
        file.write(content)
        file.flush()
        box = mailbox.mbox(file.name)
        read = list(box)
        for message in read:
            assert message["From"] and message["Date"] and message["Message-ID"], message.items()
            for part in message.walk():
                part.get_payload(decode=True)
        return len(read)


def year(content):
    """The accountant's folder: what its own check says, counted again."""
    folder = zipfile.ZipFile(io.BytesIO(content))
    assert folder.testzip() is None
    named = set(folder.namelist())
    journal = table(folder.read("journal.csv"))
    column = {name: at for at, name in enumerate(journal[0])}
    received = collections.Counter()
    for row in journal[1:]:
        received[row[column["Currency"]]] += number(row[column["Amount"]])
        receipt = row[column["Receipt"]]
        assert not receipt or receipt in named, receipt
    for row in table(folder.read("control.csv"))[1:]:
        assert received[row[0]] == number(row[1]) and number(row[5]) == 0, row
    for name in named:
        if name.endswith(".pdf"):
            assert folder.read(name).startswith(b"%PDF-"), name
        elif name.endswith(".xml"):
            minidom.parseString(folder.read(name))
        elif name.endswith(".csv"):
            table(folder.read(name))
    return len(journal) - 1


out = zipfile.ZipFile(sys.argv[1])
messages = 0
for name in sorted(out.namelist()):
    content = out.read(name)
    if name.endswith(".csv"):
        print("table", name, len(table(content)) - 1)
    elif name.endswith(".ics"):
        print("events", sum(calendar(content).values()))
    elif name.endswith(".vcf"):
        cards = list(vobject.readComponents(content.decode("utf-8").replace("VERSION:4.0", "VERSION:3.0")))
        assert all(card.fn.value for card in cards)
        print("cards", len(cards))
    elif name.endswith(".mbox"):
        messages += letters(content)
    elif name.endswith(".zip"):
        print("year", name, year(content))
    else:
        raise AssertionError(name)
print("letters", messages)
