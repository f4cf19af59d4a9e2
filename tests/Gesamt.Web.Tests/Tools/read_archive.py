"""Reads an archive with nothing but its description and common libraries, as somebody else's program would.

Prints one line for each thing it found; ends with an error where anything is not as docs/archive.md says.
"""

import csv
import email
import email.policy
import hashlib
import io
import json
import sys
import zipfile
from xml.dom import minidom

import icalendar
import jsonschema
import vobject

csv.field_size_limit(2**30)
archive = zipfile.ZipFile(sys.argv[1])
listed = json.loads(archive.read("archive.json"))
schema = json.loads(archive.read("archive.schema.json"))
assert listed["format"] == "gesamt-archive" and listed["version"] == 2
assert {one["name"] for one in listed["entries"]} | {"archive.json"} == set(archive.namelist())

by_hash = {}
for one in listed["entries"]:
    content = archive.read(one["name"])
    assert len(content) == one["bytes"], one["name"]
    assert hashlib.sha256(content).hexdigest() == one["sha256"], one["name"]
    by_hash[one["sha256"]] = one["name"]
print("entries", len(listed["entries"]))


def checked(name, value):
    rules = {**schema, "$ref": f"#/$defs/{name.replace('~', '~0').replace('/', '~1')}"}
    jsonschema.Draft202012Validator(
        rules, format_checker=jsonschema.Draft202012Validator.FORMAT_CHECKER
    ).validate(value)
    return value


checked("archive.json", listed)
rows = {}
for name in archive.namelist():
    if name.startswith("tables/") and name.endswith(".json"):
        rows[name[7:-5]] = checked(name, json.loads(archive.read(name)))
facts = [json.loads(line) for line in archive.read("facts.jsonl").decode().splitlines()]
for fact in facts:
    checked("facts.jsonl", fact)
print("facts", len(facts))
for name, table in sorted(rows.items()):
    told = list(csv.reader(io.StringIO(archive.read(f"tables/{name}.csv").decode("utf-8-sig"), newline="")))
    assert len(told) == len(table) + 1, name
    assert all(len(row) == len(told[0]) for row in told), name
    print("table", name, len(table))

# every file that a row names is there, by its hash
named = 0
for table in rows.values():
    for row in table:
        for column in ("hash", "original", "data", "receiptHash", "fileHash", "logo", "picture"):
            value = row.get(column)
            if isinstance(value, str) and len(value) == 64 and "canonical" not in row and "signer" not in row:
                if column == "picture" and "unitPrice" in row:
                    continue
                assert value in by_hash, (column, value)
                named += 1
print("named files", named)

# a letter is the message that its row tells of
letters = {row["id"]: row for row in rows["letters"]}
read = 0
for name in archive.namelist():
    if not name.startswith("letters/"):
        continue
    message = email.message_from_bytes(archive.read(name), policy=email.policy.default)
    row = letters[int(name.split("/")[2][:6])]
    if row["original"] is None:
        assert str(message["Subject"]) == " ".join(row["subject"].split()), name
        assert row["toMail"] in str(message["To"]), name
        first = next(line for line in row["body"].splitlines() if line.strip() and "{{" not in line and "[[" not in line)
        assert first.strip()[:40] in message.get_body(("plain",)).get_content(), name
        attached = [part.get_filename() for part in message.iter_attachments() if part.get_filename()]
        assert len(attached) >= sum(1 for file in rows["letter-files"] if file["letterId"] == row["id"]), name
    read += 1
print("letters", read)

calendar = icalendar.Calendar.from_ical(archive.read("calendar.ics"))
print("events", len([one for one in calendar.walk() if one.name in ("VEVENT", "VTODO")]))
print("cards", len(list(vobject.readComponents(archive.read("people.vcf").decode()))))

for name in archive.namelist():
    if name.startswith("papers/") and name.endswith(".xml"):
        paper = minidom.parseString(archive.read(name)).documentElement
        assert paper.localName in ("Invoice", "CreditNote"), name
    if name.startswith("papers/") and name.endswith(".pdf"):
        assert archive.read(name).startswith(b"%PDF-"), name
print("papers", sum(1 for name in archive.namelist() if name.startswith("papers/")))

# a version is what was signed: its hash is that of its JSON in canonical form (RFC 8785), which it stands in
for row in rows["versions"]:
    canonical = json.dumps(row["canonical"], ensure_ascii=False, separators=(",", ":"), sort_keys=True)
    if hashlib.sha256(canonical.encode()).hexdigest() == row["hash"]:
        print("sealed", row["id"])
