using Microsoft.Data.Sqlite;
using static SQLitePCL.raw;

namespace Gesamt.Web.Hosting;

/// <summary>What can be wrong with the house itself: its disk, its folder, its database.</summary>
public static class HouseTrouble
{
    // errno of Linux: ENOSPC, EROFS, EDQUOT
    private const int NoSpace = 28,
        ReadOnly = 30,
        Quota = 122;

    /// <summary>What to do, in a sentence, and that nothing was lost; null for what is no fault of the house.</summary>
    public static string? Of(Exception exception) =>
        exception.GetBaseException() switch
        {
            SqliteException { SqliteErrorCode: SQLITE_FULL } => Full,
            SqliteException { SqliteErrorCode: SQLITE_READONLY or SQLITE_CANTOPEN or SQLITE_PERM } => Locked,
            SqliteException { SqliteErrorCode: SQLITE_BUSY or SQLITE_LOCKED } =>
                "Something else is writing at the moment. Nothing was lost and nothing was done: try again in a minute.",
            SqliteException { SqliteErrorCode: SQLITE_IOERR } =>
                "The disk cannot be read or written. Nothing was done: look at the disk, and at the newest backup.",
            SqliteException { SqliteErrorCode: SQLITE_CORRUPT or SQLITE_NOTADB } =>
                "The database is damaged. Nothing was done: stop Gesamt and restore the newest backup into a new folder.",
            IOException { HResult: NoSpace or Quota } => Full,
            IOException { HResult: ReadOnly } => Locked,
            UnauthorizedAccessException => Locked,
            _ => null,
        };

    /// <summary>Whether the database takes nothing any more: whatever else is tried now fails as well. A file that finds no room, or cannot be read, may be the only one.</summary>
    public static bool StopsAll(Exception exception) =>
        exception.GetBaseException() is SqliteException { SqliteErrorCode: SQLITE_FULL or SQLITE_READONLY };

    /// <summary>What is wrong, in its first sentence and a space after it, for what says itself what to do; empty for what is no fault of the house.</summary>
    public static string NameOf(Exception exception) =>
        Of(exception) is { } trouble ? trouble[..(trouble.IndexOf('.', StringComparison.Ordinal) + 1)] + " " : "";

    private const string Full =
        "The disk is full. Nothing was lost, and what was just sent was not kept: make room on it, then send it again.";
    private const string Locked =
        "The folder of the studio cannot be written. Nothing was lost, and what was just sent was not kept: give Gesamt leave to write there, then send it again.";
}
