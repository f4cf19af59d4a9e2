using System.Globalization;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Store.Json;
using Microsoft.Data.Sqlite;
using NodaTime;
using NodaTime.Text;

namespace Gesamt.Bench;

/// <summary>Ten years of a busy studio, made from the demo's own rows: its ended projects again and again, each with numbers and names of its own, and with the long exchange of letters that real projects have.</summary>
public sealed partial class Bulk(string database)
{
    private static readonly string[] Tables =
    [
        "People",
        "Projects",
        "PinnedRules",
        "Answers",
        "Notes",
        "Tasks",
        "Meetings",
        "Details",
        "Briefs",
        "Runs",
        "Files",
        "Reviews",
        "Letters",
        "Versions",
        "RateSheets",
        "Signatures",
        "Recurring",
        "KeptMeans",
        "Invoices",
        "Papers",
        "Payments",
        "Refunds",
        "Hours",
        "Costs",
        "PlannedSteps",
        "Stays",
        "Facts",
    ];

    // which table a number in a fact's payload, or in a column, belongs to
    private static readonly Dictionary<string, string> Points = new(StringComparer.OrdinalIgnoreCase)
    {
        ["ProjectId"] = "Projects",
        ["ClientId"] = "People",
        ["RunId"] = "Runs",
        ["run"] = "Runs",
        ["LetterId"] = "Letters",
        ["letter"] = "Letters",
        ["note"] = "Notes",
        ["words"] = "Notes",
        ["why"] = "Notes",
        ["answers"] = "Answers",
        ["version"] = "Versions",
        ["contract"] = "Versions",
        ["amends"] = "Versions",
        ["VersionId"] = "Versions",
        ["FromProposal"] = "Versions",
        ["ProposalId"] = "Versions",
        ["SendsVersion"] = "Versions",
        ["invoice"] = "Invoices",
        ["InvoiceId"] = "Invoices",
        ["Credits"] = "Invoices",
        ["payment"] = "Payments",
        ["PaymentId"] = "Payments",
        ["refund"] = "Refunds",
        ["NoteId"] = "Invoices",
        ["recurring"] = "Recurring",
        ["means"] = "KeptMeans",
        ["hours"] = "Hours",
        ["cost"] = "Costs",
        ["task"] = "Tasks",
        ["file"] = "Files",
        ["review"] = "Reviews",
        ["ReviewId"] = "Reviews",
        ["meeting"] = "Meetings",
        ["sheet"] = "RateSheets",
        ["ToPerson"] = "People",
    };
    private const int Rewrites = 3;
    private readonly Dictionary<string, long> largest = [];
    private int copy;

    private sealed record Row(string[] Names, object?[] Values);

    /// <summary>Copies ended projects until there are so many, and open ones with a step that will be due so many times.</summary>
    /// <param name="open">So many open projects, copies of the demo's.</param>
    /// <remarks>Of the ended ones, two in three were carried through, each after a proposal that was written anew several times: a project then leaves about five papers.</remarks>
    public void Lay(int projects, int due, int lettersEach, int open)
    {
        using var db = new SqliteConnection($"Data Source={database};Pooling=False");
        db.Open();
        Run(db, "PRAGMA foreign_keys=OFF; PRAGMA synchronous=OFF; PRAGMA cache_size=-200000");
        inserts.Clear();
        if (largest.Count == 0)
            foreach (var table in Tables.Where(table => table != "PinnedRules"))
                largest[table] = Number(db, $"SELECT coalesce(max(Id), 0) + 1 FROM {table}");
        var ended = Rows(
                db,
                $"SELECT Id FROM Projects WHERE Id < {largest["Projects"]} AND (Standing_Ended IS NOT NULL OR Standing_Stage = 'Finished') UNION ALL SELECT Id FROM Projects WHERE Id < {largest["Projects"]} AND Standing_Stage = 'Finished'"
            )
            .Select(row => (long)row.Values[0]!)
            .ToList();
        var waiting = Rows(
                db,
                "SELECT ProjectId FROM PlannedSteps WHERE State = 'Planned' AND Step = 'still-open' ORDER BY Id LIMIT 1"
            )
            .Select(row => (long)row.Values[0]!)
            .ToList();
        using var transaction = db.BeginTransaction();
        var have = Number(db, "SELECT count(*) FROM Projects") - copy;
        var running = Rows(
                db,
                $"SELECT Id FROM Projects WHERE Id < {largest["Projects"]} AND Standing_Ended IS NULL AND Standing_Stage <> 'Finished' AND Rehearsal = 0"
            )
            .Select(row => (long)row.Values[0]!)
            .ToList();
        var opened = Number(
            db,
            "SELECT count(*) FROM Projects WHERE Standing_Ended IS NULL AND Standing_Stage <> 'Finished' AND Rehearsal = 0"
        );
        for (var i = (int)opened; i < open; i++)
            Copy(db, running[i % running.Count], ++copy, lettersEach);
        foreach (var source in Enumerable.Repeat(waiting, due).SelectMany(one => one))
            Copy(db, source, ++copy, 0);
        for (; have + copy < projects; )
            // the demo's three years, three times one after the other
            Copy(db, ended[copy % ended.Count], ++copy, lettersEach, years: 3 * (copy / ended.Count % 3));
        transaction.Commit();
        Run(db, "ANALYZE");
    }

    /// <summary>Lines of the bank that wait to be matched: amounts of open invoices, paid without their number.</summary>
    public void LayLines(int lines)
    {
        using var db = new SqliteConnection($"Data Source={database};Pooling=False");
        db.Open();
        Run(
            db,
            $"""
            INSERT INTO BankLines(FileId, Key, Account, "On", AmountMinor, Currency, Party, Text, Reference, State, ByItself)
            SELECT (SELECT max(Id) FROM BankFiles), 'bulk ' || Id, 'bulk', Due, OwedMinor, Currency, 'Somebody', 'thank you', '', 'Open', 0
            FROM Invoices WHERE OwedMinor > 0 ORDER BY Id LIMIT {lines}
            """
        );
    }

    private void Copy(SqliteConnection open, long project, int copy, int letters, int years = 0)
    {
        var client = Number(open, $"SELECT ClientId FROM Projects WHERE Id = {project}");
        foreach (var table in Tables)
        foreach (
            var row in Rows(
                open,
                table switch
                {
                    "People" => $"SELECT * FROM People WHERE Id = {client}",
                    "Projects" => $"SELECT * FROM Projects WHERE Id = {project}",
                    "Signatures" =>
                        $"SELECT * FROM Signatures WHERE VersionId IN (SELECT Id FROM Versions WHERE ProjectId = {project})",
                    _ => $"SELECT * FROM {table} WHERE ProjectId = {project}",
                }
            )
        )
            Insert(open, table, Back(Moved(table, row, copy), years));
        if (letters == 0)
            return;
        Exchange(open, project + copy * largest["Projects"], copy, letters);
        Rewrite(open, project + copy * largest["Projects"], copy);
    }

    /// <summary>Versions of the proposal before the one that was read.</summary>
    private void Rewrite(SqliteConnection open, long project, int copy)
    {
        var sent = Rows(
            open,
            $"SELECT v.*, f.Recorded FROM Facts f JOIN Versions v ON v.Id = json_extract(f.Payload, '$.version') WHERE f.ProjectId = {project} AND f.Kind = '{nameof(Happening.ProposalSent)}' ORDER BY f.Recorded LIMIT 1"
        );
        if (sent is not [var first])
            return;
        Run(
            open,
            $"UPDATE Versions SET Number = Number + 100 WHERE ProjectId = {project} AND Sort = 'Proposal'; UPDATE Versions SET Number = Number - {100 - Rewrites} WHERE ProjectId = {project} AND Sort = 'Proposal'"
        );
        for (var i = 0; i < Rewrites; i++)
        {
            var id = 5_000_000L + copy * 10L + i;
            var at = (long)first.Values[^1]! - (Rewrites - i) * NodaConstants.TicksPerHour;
            var row = new Row(first.Names[..^1], [.. first.Values[..^1]]);
            row.Values[Array.IndexOf(row.Names, "Id")] = id;
            row.Values[Array.IndexOf(row.Names, "Number")] = (long)i + 1;
            row.Values[Array.IndexOf(row.Names, "At")] = at;
            Insert(open, "Versions", row);
            var valid = Instant.FromUnixTimeTicks(at).InUtc().Date.PlusDays(30);
            Happen(open, 200_000_000L + id * 2, project, at, new Happening.ProposalSent(new VersionId(id), valid));
            Happen(open, 200_000_001L + id * 2, project, at + 1, new Happening.ProposalWithdrawn(new VersionId(id)));
        }
    }

    private void Happen(SqliteConnection open, long id, long project, long at, Happening what, bool client = false) =>
        Insert(
            open,
            "Facts",
            new(
                ["Id", "ProjectId", "Happened", "Recorded", "By", "Kind", "Version", "Payload"],
                [
                    id,
                    project,
                    at,
                    at,
                    client ? "Client" : "Owner",
                    FactJson.KindOf(what),
                    (long)FactJson.Version,
                    FactJson.Write(what),
                ]
            )
        );

    private Row Moved(string table, Row row, int copy)
    {
        var values = (object?[])row.Values.Clone();
        for (var i = 0; i < values.Length; i++)
            values[i] = (row.Names[i], values[i]) switch
            {
                (_, null) => null,
                ("Id", long id) => id + copy * largest[table],
                ("Version", var same) => same, // of a payload, not of a paper
                ("Payload", string payload) => Payload(payload, copy),
                ("Code" or "PublicId" or "MessageId" or "Reference", string name) => $"{name}-{copy}",
                ("Key", string key) when table is "Refunds" => $"{key}-{copy}",
                ("Number", string number) => $"{number}-{copy}",
                ("Sequence", long sequence) => sequence + copy * 100_000L,
                ("Name" or "Title", string name) when table is "People" or "Projects" =>
                    $"{name} {copy.ToString(CultureInfo.InvariantCulture)}",
                (var name, long number) when Points.TryGetValue(name, out var target) => number
                    + copy * largest[target],
                (_, var same) => same,
            };
        return new(row.Names, values);
    }

    /// <summary>A row as it would be had everything come so many years earlier, on the same days of the week; what lies ahead stays ahead.</summary>
    private static Row Back(Row row, int years)
    {
        var days = years * 364;
        if (days == 0)
            return row;
        object? Earlier(object? value) =>
            value switch
            {
                long ticks when ticks > Ago && ticks < Now => ticks - days * NodaConstants.TicksPerDay,
                string text => IsoDay()
                    .Replace(
                        text,
                        day =>
                            LocalDatePattern.Iso.Parse(day.Value) is { Success: true, Value: var date } && date < Today
                                ? LocalDatePattern.Iso.Format(date.PlusDays(-days))
                                : day.Value
                    ),
                _ => value,
            };
        var earlier = new Row(row.Names, [.. row.Values.Select(Earlier)]);
        if (Array.IndexOf(row.Names, "IssuedOn") is var issued and >= 0)
            earlier.Values[Array.IndexOf(row.Names, "Year")] = (long)
                LocalDatePattern.Iso.Parse((string)earlier.Values[issued]!).Value.Year;
        return earlier;
    }

    private static readonly LocalDate Today = InstantPattern.General.Parse(House.Clock).Value.InUtc().Date;

    // no number of a row and no amount is as large as a moment of these decades in ticks
    private static readonly long Ago = Instant.FromUtc(2015, 1, 1, 0, 0).ToUnixTimeTicks(),
        Now = InstantPattern.General.Parse(House.Clock).Value.ToUnixTimeTicks();

    [GeneratedRegex(@"\b20\d\d-\d\d-\d\d")]
    private static partial Regex IsoDay();

    private string Payload(string payload, int copy)
    {
        var node = JsonNode.Parse(payload)!.AsObject();
        Move(node, copy);
        return node.ToJsonString();
    }

    private void Move(JsonObject node, int copy)
    {
        foreach (var (name, value) in node.ToList())
            if (value is JsonObject inner)
                Move(inner, copy);
            else if (
                value is JsonValue number
                && Points.TryGetValue(name, out var table)
                && number.TryGetValue<long>(out var id)
            )
                node[name] = id + copy * largest[table];
    }

    /// <summary>Letters to and fro, as facts made by Core.</summary>
    private void Exchange(SqliteConnection open, long project, int copy, int letters)
    {
        var first = Number(open, $"SELECT min(Recorded) FROM Facts WHERE ProjectId = {project}");
        var last = Number(open, $"SELECT min(Recorded) + 36000000000 FROM Facts WHERE ProjectId = {project}");
        for (var i = 0; i < letters; i++)
        {
            var id = 20_000_000L + copy * 100L + i;
            var at = first + (last - first) * i / letters;
            var came = i % 2 == 1;
            Insert(
                open,
                "Letters",
                new(
                    [
                        "Id",
                        "ProjectId",
                        "State",
                        "ByItself",
                        "FromName",
                        "FromMail",
                        "ToName",
                        "ToMail",
                        "Subject",
                        "Body",
                        "Quoted",
                        "At",
                        "MessageId",
                        "Gaps",
                        "Edition",
                    ],
                    [
                        id,
                        project,
                        came ? "Received" : "Sent",
                        0L,
                        "Somebody",
                        "one@bulk.example",
                        "Somebody else",
                        "two@bulk.example",
                        $"About the wall, {copy}",
                        "The scaffold stands on the left and the gulls look towards the ferry. Could the lettering be a little taller, and the varnish matt?",
                        "",
                        at,
                        $"bulk-{id}@bulk.example",
                        "",
                        0L,
                    ]
                )
            );
            Happening what = came
                ? new Happening.LetterReceived(new LetterId(id), false)
                : new Happening.LetterSent(new LetterId(id), false);
            Happen(open, 40_000_000L + id * 2, project, at, what, came);
            Happen(open, 40_000_001L + id * 2, project, at, new Happening.NoAnswerNeeded(), came);
        }
    }

    private readonly Dictionary<string, SqliteCommand> inserts = [];

    private void Insert(SqliteConnection open, string table, Row row)
    {
        var key = $"{table}({string.Join(',', row.Names)})";
        if (!inserts.TryGetValue(key, out var command))
        {
            command = open.CreateCommand();
            command.CommandText =
                $"INSERT INTO {table}({string.Join(',', row.Names.Select(name => $"\"{name}\""))}) VALUES({string.Join(',', row.Names.Select((_, i) => $"$p{i}"))})";
            for (var i = 0; i < row.Names.Length; i++)
                command.Parameters.Add(new SqliteParameter($"$p{i}", DBNull.Value));
            inserts[key] = command;
        }
        for (var i = 0; i < row.Values.Length; i++)
            command.Parameters[i].Value = row.Values[i] ?? DBNull.Value;
        command.ExecuteNonQuery();
    }

    private static List<Row> Rows(SqliteConnection open, string sql)
    {
        using var command = open.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        List<Row> rows = [];
        var names = Enumerable.Range(0, reader.FieldCount).Select(reader.GetName).ToArray();
        while (reader.Read())
            rows.Add(
                new(
                    names,
                    [.. Enumerable.Range(0, names.Length).Select(i => reader.IsDBNull(i) ? null : reader.GetValue(i))]
                )
            );
        return rows;
    }

    public static long Number(SqliteConnection open, string sql)
    {
        using var command = open.CreateCommand();
        command.CommandText = sql;
        return Convert.ToInt64(command.ExecuteScalar(), CultureInfo.InvariantCulture);
    }

    private static void Run(SqliteConnection open, string sql)
    {
        using var command = open.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }
}
