using Gesamt.Core.People;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Store.Search;

/// <summary>What was found: a project, person, letter, file, paper or note.</summary>
public enum FoundSort
{
    Project,
    Person,
    Letter,
    File,
    Paper,
    Note,
}

/// <summary>A hit, with the project it belongs to and the words around what was found.</summary>
public sealed record Found(FoundSort Sort, long Id, long ProjectId, string Title, string Words);

/// <summary>Full-text search over the studio in SQLite's FTS5, kept by triggers on the tables themselves.</summary>
/// <remarks>Made anew at every start if it is missing: a migration that rebuilds a table drops the table's triggers without a word.</remarks>
public static class SearchIndex
{
    private const int LongestWord = 40;

    // each source: its table, its sort, the project it belongs to, a title and a text; {0} is the row (new or old)
    private static readonly (string Table, FoundSort Sort, string Project, string Title, string Text)[] Sources =
    [
        (
            "Projects",
            FoundSort.Project,
            "{0}.Id",
            "{0}.Title",
            "coalesce({0}.Summary, '') || ' ' || (SELECT p.Name || ' ' || coalesce(p.Organisation, '') FROM People p WHERE p.Id = {0}.ClientId)"
        ),
        (
            "People",
            FoundSort.Person,
            "0",
            "{0}.Name",
            "coalesce({0}.Organisation, '') || ' ' || coalesce({0}.Mail, '') || ' ' || coalesce({0}.Phone, '')"
        ),
        (
            "Letters",
            FoundSort.Letter,
            "coalesce({0}.ProjectId, 0)",
            "{0}.Subject",
            "{0}.FromName || ' ' || {0}.ToName || ' ' || {0}.Body"
        ),
        ("Files", FoundSort.File, "{0}.ProjectId", "{0}.Name", "{0}.Use"),
        ("Invoices", FoundSort.Paper, "{0}.ProjectId", "{0}.Number", "''"),
        ("Notes", FoundSort.Note, "{0}.ProjectId", "''", "{0}.Text"),
    ];

    // names that are found when they are misspelt: three-letter pieces of titles and names
    private static readonly (string Table, FoundSort Sort, string Name)[] Names =
    [
        ("Projects", FoundSort.Project, "{0}.Title"),
        ("People", FoundSort.Person, "{0}.Name || ' ' || coalesce({0}.Organisation, '')"),
    ];

    private const double Alike = 0.45;

    /// <summary>Makes the index and its triggers if they are missing, and fills a new one.</summary>
    public static async Task PrepareAsync(GesamtDb db)
    {
        var isNew =
            await db
                .Database.SqlQuery<int>($"SELECT count(*) AS Value FROM sqlite_master WHERE name = 'Search'")
                .SingleAsync() == 0;
        await db.Database.ExecuteSqlRawAsync(
            "CREATE VIRTUAL TABLE IF NOT EXISTS Search USING fts5(Sort UNINDEXED, ProjectId UNINDEXED, Title, Text, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3')"
        );
        foreach (var source in Sources)
        {
            foreach (var sql in Triggers(source))
                await db.Database.ExecuteSqlRawAsync(sql);
            if (isNew)
                await db.Database.ExecuteSqlRawAsync(Filled(source));
        }
        await PrepareNamesAsync(db);
    }

    private static async Task PrepareNamesAsync(GesamtDb db)
    {
        var isNew =
            await db
                .Database.SqlQuery<int>($"SELECT count(*) AS Value FROM sqlite_master WHERE name = 'Names'")
                .SingleAsync() == 0;
        await db.Database.ExecuteSqlRawAsync(
            "CREATE VIRTUAL TABLE IF NOT EXISTS Names USING fts5(Sort UNINDEXED, Name, tokenize = 'trigram')"
        );
        foreach (var (table, sort, name) in Names)
        {
            foreach (var sql in NameTriggers(table, sort, name))
                await db.Database.ExecuteSqlRawAsync(sql);
            var filled =
                $"INSERT INTO Names(rowid, Sort, Name) SELECT {RowId(sort, "t")}, '{sort}', {Of(name, "t")} FROM {table} t";
            if (isNew)
                await db.Database.ExecuteSqlRawAsync(filled);
        }
    }

    private static IEnumerable<string> NameTriggers(string table, FoundSort sort, string name)
    {
        var insert = $"INSERT INTO Names(rowid, Sort, Name) VALUES({RowId(sort, "new")}, '{sort}', {Of(name, "new")});";
        var delete = $"DELETE FROM Names WHERE rowid = {RowId(sort, "old")};";
        yield return $"CREATE TRIGGER IF NOT EXISTS {table}_named AFTER INSERT ON {table} BEGIN {insert} END";
        yield return $"CREATE TRIGGER IF NOT EXISTS {table}_unnamed AFTER DELETE ON {table} BEGIN {delete} END";
        yield return $"CREATE TRIGGER IF NOT EXISTS {table}_renamed AFTER UPDATE OF {Columns(sort)} ON {table} BEGIN {delete} {insert} END";
    }

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

    private static string Filled((string Table, FoundSort Sort, string Project, string Title, string Text) source) =>
        $"INSERT INTO Search(rowid, Sort, ProjectId, Title, Text) SELECT {RowId(source.Sort, "t")}, '{source.Sort}', {Of(source.Project, "t")}, {Of(source.Title, "t")}, {Of(source.Text, "t")} FROM {source.Table} t";

    /// <summary>The best hits for all of the words, each taken as the beginning of one; titles weigh more than texts.</summary>
    /// <returns>Nothing for words that hold no letter or digit.</returns>
    public static async Task<IReadOnlyList<Found>> FindAsync(GesamtDb db, string words, int most)
    {
        var query = string.Join(' ', Words(words).Select(word => $"\"{word}\"*"));
        if (query.Length == 0)
            return [];
        await db.Database.OpenConnectionAsync();
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText =
            "SELECT rowid, Sort, ProjectId, Title, snippet(Search, 3, '', '', '…', 14) FROM Search WHERE Search MATCH $words ORDER BY bm25(Search, 0, 0, 8, 1) * CASE Sort WHEN 'Project' THEN 3 WHEN 'Person' THEN 2 ELSE 1 END LIMIT $most";
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

    private static readonly int SortsPerRow = Enum.GetValues<FoundSort>().Length;

    private static IEnumerable<string> Words(string text) =>
        new string([.. text.Select(c => char.IsLetterOrDigit(c) ? c : ' ')])
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Take(8)
            .Select(word => word.Length <= LongestWord ? word : word[..LongestWord]);

    private static IEnumerable<string> Triggers(
        (string Table, FoundSort Sort, string Project, string Title, string Text) source
    )
    {
        var insert =
            $"INSERT INTO Search(rowid, Sort, ProjectId, Title, Text) VALUES({RowId(source.Sort, "new")}, '{source.Sort}', {Of(source.Project, "new")}, {Of(source.Title, "new")}, {Of(source.Text, "new")});";
        var delete = $"DELETE FROM Search WHERE rowid = {RowId(source.Sort, "old")};";
        yield return $"CREATE TRIGGER IF NOT EXISTS {source.Table}_found AFTER INSERT ON {source.Table} BEGIN {insert} END";
        yield return $"CREATE TRIGGER IF NOT EXISTS {source.Table}_forgotten AFTER DELETE ON {source.Table} BEGIN {delete} END";
        // not by every change of a standing: only where the words themselves change
        yield return $"CREATE TRIGGER IF NOT EXISTS {source.Table}_reworded AFTER UPDATE OF {Columns(source.Sort)} ON {source.Table} BEGIN {delete} {insert} END";
    }

    private static string Columns(FoundSort sort) =>
        sort switch
        {
            FoundSort.Project => "Title, Summary, ClientId",
            FoundSort.Person => "Name, Organisation, Mail, Phone",
            FoundSort.Letter => "Subject, Body, ProjectId, FromName, ToName",
            FoundSort.File => "Name, Use",
            FoundSort.Paper => "Number",
            _ => "Text",
        };

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
