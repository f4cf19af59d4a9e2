using Microsoft.Data.Sqlite;

namespace Gesamt.Web.StandIns;

/// <summary>The file of a stand-in: its own world, apart from the studio's database.</summary>
public abstract class StandInFile
{
    private readonly string connection;

    protected StandInFile(string folder, string name, string schema)
    {
        Directory.CreateDirectory(folder);
        connection = new SqliteConnectionStringBuilder
        {
            DataSource = Path.Combine(folder, name),
            DefaultTimeout = 10,
        }.ToString();
        using var open = Open();
        Run(open, $"PRAGMA journal_mode=WAL; {schema}");
    }

    protected SqliteConnection Open()
    {
        var open = new SqliteConnection(connection);
        open.Open();
        return open;
    }

    protected static int Run(SqliteConnection open, string sql, params (string Name, object? Value)[] values)
    {
        using var command = Command(open, sql, values);
        return command.ExecuteNonQuery();
    }

    protected static SqliteCommand Command(
        SqliteConnection open,
        string sql,
        params (string Name, object? Value)[] values
    )
    {
        var command = open.CreateCommand();
        command.CommandText = sql;
        foreach (var (name, value) in values)
            command.Parameters.AddWithValue(name, value ?? DBNull.Value);
        return command;
    }

    /// <summary>Leaves nothing of what was deleted on the disk.</summary>
    protected static void Clear(SqliteConnection open) =>
        Run(open, "PRAGMA secure_delete = ON; VACUUM; PRAGMA wal_checkpoint(TRUNCATE)");

    protected static List<T> Read<T>(
        SqliteConnection open,
        string sql,
        Func<SqliteDataReader, T> row,
        params (string Name, object? Value)[] values
    )
    {
        using var command = Command(open, sql, values);
        using var reader = command.ExecuteReader();
        List<T> rows = [];
        while (reader.Read())
            rows.Add(row(reader));
        return rows;
    }
}
