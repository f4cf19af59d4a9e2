using System.Text.RegularExpressions;
using Gesamt.Core.People;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Store.Search;

/// <summary>What was found. New sorts are added at the end: the number is part of the index’s keys.</summary>
public enum FoundSort
{
    Project,
    Person,
    Letter,
    File,
    Paper,
    Note,
    Answers,
    Brief,
    Task,
    Meeting,
    Proposal,
    Contract,
    List,

    /// <summary>An entry of a list, by its cells; which list that is, and whether it is still there, is told by its row.</summary>
    Entry,
}

/// <summary>A hit, with the project it belongs to and the words around what was found.</summary>
/// <param name="Title">What it is called; empty where it has no name of its own.</param>
public sealed record Found(FoundSort Sort, long Id, long ProjectId, string Title, string Words);

/// <summary>Full-text search over the studio in SQLite's FTS5, kept by triggers on the tables themselves.</summary>
/// <remarks>Made anew at a start if it is missing or was made otherwise: a migration that rebuilds a table drops the table's triggers without a word.</remarks>
public static class SearchIndex
{
    private const int LongestWord = 40;

    /// <summary>The tables of FTS5 it is made of.</summary>
    public static readonly IReadOnlyList<string> Indexes = ["Search", "Names"];

    // what the law keeps of somebody erased is found by nobody
    private const string NotErased = "NOT EXISTS (SELECT 1 FROM Erasures e WHERE e.ProjectId = {0}.ProjectId)";

    /// <summary>What of a table is found: SQL over one row, which stands as {0}.</summary>
    /// <param name="Columns">The columns whose change changes the words: not every change of a standing.</param>
    /// <param name="Only">Which rows are found.</param>
    /// <param name="Besides">Another table whose change changes the words of some rows; null for none.</param>
    private sealed record Source(
        string Table,
        FoundSort Sort,
        string Title,
        string Text,
        string Columns,
        string Project = "{0}.ProjectId",
        string Only = "1",
        Besides? Besides = null
    );

    /// <param name="Of">Which rows of the source, which stand as t, a changed row changes, which stands as new.</param>
    private sealed record Besides(string Table, string Columns, string Of);

    private static readonly Source[] Sources =
    [
        new(
            "Projects",
            FoundSort.Project,
            "{0}.Title",
            "coalesce({0}.Summary, '') || ' ' || (SELECT p.Name || ' ' || coalesce(p.Organisation, '') FROM People p WHERE p.Id = {0}.ClientId)",
            "Title, Summary, ClientId",
            Project: "{0}.Id",
            Besides: new("People", "Name, Organisation", "t.ClientId = new.Id")
        ),
        new(
            "People",
            FoundSort.Person,
            "{0}.Name",
            "coalesce({0}.Organisation, '') || ' ' || coalesce({0}.Mail, '') || ' ' || coalesce({0}.Phone, '')",
            "Name, Organisation, Mail, Phone, MergedInto, RemovedAt",
            Project: "0",
            Only: "{0}.MergedInto IS NULL AND {0}.RemovedAt IS NULL"
        ),
        new(
            "Letters",
            FoundSort.Letter,
            "{0}.Subject",
            "{0}.FromName || ' ' || {0}.ToName || ' ' || {0}.Body",
            "Subject, Body, ProjectId, FromName, ToName",
            Project: "coalesce({0}.ProjectId, 0)"
        ),
        new("Files", FoundSort.File, "{0}.Name", "{0}.Use", "Name, Use"),
        new("Invoices", FoundSort.Paper, "{0}.Number", "''", "Number"),
        new("Notes", FoundSort.Note, "''", "{0}.Text", "Text, Removed", Only: "NOT {0}.Removed"),
        new("Answers", FoundSort.Answers, "''", Texts("{0}.Items", "'text'"), "Items"),
        new("Briefs", FoundSort.Brief, "''", "{0}.Text", "Text"),
        new("Tasks", FoundSort.Task, "{0}.Title", "''", "Title, Removed", Only: "NOT {0}.Removed"),
        new(
            "Meetings",
            FoundSort.Meeting,
            "{0}.Name",
            "{0}.Notes || ' ' || " + Texts("{0}.Answers", "'text'"),
            "Name, Notes, Answers"
        ),
        new(
            "Versions",
            FoundSort.Proposal,
            "''",
            Texts("CAST({0}.Canonical AS TEXT)", "'title', 'intro', 'detail', 'terms'"),
            "Canonical",
            Only: "{0}.Sort = 'Proposal' AND " + NotErased
        ),
        new(
            "Versions",
            FoundSort.Contract,
            "''",
            Texts("CAST({0}.Canonical AS TEXT)", "'text'"),
            "Canonical",
            Only: "{0}.Sort = 'Contract' AND " + NotErased
        ),
        new(
            "Lists",
            FoundSort.List,
            "{0}.Name",
            "''",
            "Name, Removed",
            Project: "coalesce({0}.ProjectId, 0)",
            Only: "NOT {0}.Removed"
        ),
        new(
            "ListEntries",
            FoundSort.Entry,
            "''",
            "(SELECT coalesce(group_concat(j.atom, '. '), '') FROM json_each(CASE WHEN json_valid({0}.Cells) THEN {0}.Cells ELSE '[]' END) j WHERE j.type = 'text' AND j.atom <> '') || ' ' || coalesce({0}.FileName, '')",
            "Cells, FileName, Removed",
            Project: "coalesce((SELECT l.ProjectId FROM Lists l WHERE l.Id = {0}.ListId), 0)",
            Only: "NOT {0}.Removed"
        ),
    ];

    // names that are found when they are misspelt: three-letter pieces of titles and names
    private static readonly (Source Source, string Name)[] Names =
    [
        (SourceOf(FoundSort.Project), "{0}.Title"),
        (SourceOf(FoundSort.Person), "{0}.Name || ' ' || coalesce({0}.Organisation, '')"),
    ];

    private static Source SourceOf(FoundSort sort) => Sources.Single(source => source.Sort == sort);

    // the texts under these names anywhere in a JSON value; nothing of one that does not read
    private static string Texts(string json, string keys) =>
        $"(SELECT coalesce(group_concat(j.atom, '. '), '') FROM json_tree(CASE WHEN json_valid({json}) THEN {json} ELSE '[]' END) j WHERE j.type = 'text' AND j.atom <> '' AND j.key IN ({keys}))";

    private const double Alike = 0.45;

    /// <summary>Makes the index, its triggers and what it holds, unless it is there as this program makes it.</summary>
    public static async Task PrepareAsync(GesamtDb db)
    {
        await PrepareAsync(
            db,
            "Search",
            "Sort UNINDEXED, ProjectId UNINDEXED, Title, Text, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3'",
            [.. Sources.Select(source => new Fill(source, "Search", row => Filling(source, row)))]
        );
        await PrepareAsync(
            db,
            "Names",
            "Sort UNINDEXED, Name, tokenize = 'trigram'",
            [.. Names.Select(name => new Fill(name.Source, "Names", row => Naming(name.Source, name.Name, row)))]
        );
    }

    /// <summary>How the rows of a source come into one of the two indexes.</summary>
    /// <param name="Insert">The statement for one row, or for a table under that name.</param>
    private sealed record Fill(Source Source, string Index, Func<string, string> Insert)
    {
        public IEnumerable<string> Triggers()
        {
            var insert = $"{Insert("new")} WHERE {Of(Source.Only, "new")};";
            var delete = $"DELETE FROM {Index} WHERE rowid = {RowId(Source.Sort, "old")};";
            var name = $"{Source.Sort}_{Index}".ToLowerInvariant();
            yield return Trigger($"{name}_in", $"AFTER INSERT ON {Source.Table} BEGIN {insert} END");
            yield return Trigger($"{name}_out", $"AFTER DELETE ON {Source.Table} BEGIN {delete} END");
            yield return Trigger(
                $"{name}_on",
                $"AFTER UPDATE OF {Source.Columns} ON {Source.Table} BEGIN {delete} {insert} END"
            );
            if (Source.Besides is not { } besides)
                yield break;
            var those = $"FROM {Source.Table} t WHERE {besides.Of}";
            yield return Trigger(
                $"{name}_besides",
                $"AFTER UPDATE OF {besides.Columns} ON {besides.Table} BEGIN DELETE FROM {Index} WHERE rowid IN (SELECT {RowId(Source.Sort, "t")} {those}); {Insert("t")} {those} AND {Of(Source.Only, "t")}; END"
            );
        }

        public string All() => $"{Insert("t")} FROM {Source.Table} t WHERE {Of(Source.Only, "t")}";

        private static string Trigger(string name, string does) => $"CREATE TRIGGER {name} {does}";
    }

    private static string Filling(Source source, string row) =>
        $"INSERT INTO Search(rowid, Sort, ProjectId, Title, Text) SELECT {RowId(source.Sort, row)}, '{source.Sort}', {Of(source.Project, row)}, {Of(source.Title, row)}, {Of(source.Text, row)}";

    private static string Naming(Source source, string name, string row) =>
        $"INSERT INTO Names(rowid, Sort, Name) SELECT {RowId(source.Sort, row)}, '{source.Sort}', {Of(name, row)}";

    private static async Task PrepareAsync(GesamtDb db, string index, string columns, IReadOnlyList<Fill> fills)
    {
        // the file keeps the wording of what made it, so that another making is seen
        var wanted = fills
            .SelectMany(fill => fill.Triggers())
            .Prepend($"CREATE VIRTUAL TABLE {index} USING fts5({columns})")
            .ToList();
        var made = (
            await db
                .Database.SqlQuery<Made>(
                    $"SELECT name AS Name, sql AS Sql FROM sqlite_master WHERE type IN ('table', 'trigger') AND sql IS NOT NULL"
                )
                .ToListAsync()
        )
            .Where(one => one.Name == index || Regex.IsMatch(one.Sql, $@"^CREATE TRIGGER\b.*\b(INTO|FROM) {index}\b"))
            .ToList();
        if (made.Select(one => one.Sql).ToHashSet().SetEquals(wanted))
            return;
        foreach (var one in made.Where(one => one.Name != index))
            await RunAsync(db, $"DROP TRIGGER \"{one.Name}\"");
        await RunAsync(db, $"DROP TABLE IF EXISTS {index}");
        foreach (var sql in wanted.Concat(fills.Select(fill => fill.All())))
            await RunAsync(db, sql);
    }

    /// <summary>A table or trigger as the file keeps it.</summary>
    private sealed record Made(string Name, string Sql);

    private static Task RunAsync(GesamtDb db, string sql) => db.Database.ExecuteSqlRawAsync(sql);

    /// <summary>Projects and people whose names are like the words, most alike first: what was misspelt.</summary>
    public static async Task<IReadOnlyList<Found>> FindAlikeAsync(GesamtDb db, string words, int most)
    {
        var plain = string.Join(' ', Words(words)).ToLowerInvariant();
        var pieces = Enumerable
            .Range(0, Math.Max(0, plain.Length - 2))
            .Select(i => plain.Substring(i, 3))
            .Where(piece => !piece.Contains(' ', StringComparison.Ordinal))
            .Distinct()
            .Take(24)
            .ToList();
        if (pieces.Count == 0)
            return [];
        await db.Database.OpenConnectionAsync();
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = "SELECT rowid, Sort, Name FROM Names WHERE Names MATCH $pieces ORDER BY rank LIMIT 60";
        Add(command, "$pieces", string.Join(" OR ", pieces.Select(piece => $"\"{piece}\"")));
        await using var reader = await command.ExecuteReaderAsync();
        List<(Found Found, double Like)> alike = [];
        while (await reader.ReadAsync())
        {
            var (id, sort, name) = (
                reader.GetInt64(0) / SortsPerRow,
                Enum.Parse<FoundSort>(reader.GetString(1)),
                reader.GetString(2).Trim()
            );
            if (
                Words(words).Select(word => Similarity.OfAnyWord(word, name)).DefaultIfEmpty().Average()
                is >= Alike
                    and var like
            )
                alike.Add((new(sort, id, sort == FoundSort.Project ? id : 0, name, ""), like));
        }
        return [.. alike.OrderByDescending(one => one.Like).Take(most).Select(one => one.Found)];
    }

    /// <summary>The best hits for all of the words, each taken as the beginning of one; titles weigh more than texts.</summary>
    /// <returns>Nothing for words that hold no letter or digit.</returns>
    public static async Task<IReadOnlyList<Found>> FindAsync(GesamtDb db, string words, int most)
    {
        var query = string.Join(' ', Words(words).Select(word => $"\"{word}\"*"));
        if (query.Length == 0)
            return [];
        await db.Database.OpenConnectionAsync();
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = Finding;
        Add(command, "$words", query);
        Add(command, "$most", most);
        await using var reader = await command.ExecuteReaderAsync();
        List<Found> found = [];
        while (await reader.ReadAsync())
            found.Add(
                new(
                    Enum.Parse<FoundSort>(reader.GetString(1)),
                    reader.GetInt64(0) / SortsPerRow,
                    reader.GetInt64(2),
                    reader.GetString(3),
                    reader.GetString(4).Trim()
                )
            );
        return found;
    }

    // room for sorts to come, so that no key changes with a new one
    private const int SortsPerRow = 32;

    // a hit's sort is told by its key: asked of its row, all that is found of a common word would be fetched to be put in order
    private static readonly string Finding = string.Create(
        System.Globalization.CultureInfo.InvariantCulture,
        $"SELECT rowid, Sort, ProjectId, Title, snippet(Search, 3, '', '', '…', 14) FROM Search WHERE Search MATCH $words ORDER BY bm25(Search, 0, 0, 8, 1) * CASE rowid % {SortsPerRow} WHEN {(int)FoundSort.Project} THEN 3 WHEN {(int)FoundSort.Person} THEN 2 ELSE 1 END LIMIT $most"
    );

    private static IEnumerable<string> Words(string text) =>
        new string([.. text.Select(c => char.IsLetterOrDigit(c) ? c : ' ')])
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Take(8)
            .Select(word => word.Length <= LongestWord ? word : word[..LongestWord]);

    // one number space for all tables, so that a row is found again by its key
    private static string RowId(FoundSort sort, string row) => $"{row}.Id * {SortsPerRow} + {(int)sort}";

    private static string Of(string expression, string row) =>
        string.Format(System.Globalization.CultureInfo.InvariantCulture, expression, row);

    private static void Add(System.Data.Common.DbCommand command, string name, object value)
    {
        var parameter = command.CreateParameter();
        (parameter.ParameterName, parameter.Value) = (name, value);
        command.Parameters.Add(parameter);
    }
}
