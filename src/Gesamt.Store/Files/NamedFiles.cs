using System.Reflection;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Gesamt.Store.Files;

/// <summary>A column that names kept files, of a table as it lies in the database.</summary>
/// <param name="NameColumn">The column with the file's own name; null where it has none.</param>
/// <param name="Key">The column by which the row is known.</param>
public sealed record NamingColumn(Type Row, string Table, string Column, string? NameColumn, string Key)
{
    /// <summary>Whether the table is of this house alone, and so in no archive.</summary>
    public bool StaysHere => Row.IsDefined(typeof(StaysHereAttribute), false);
}

/// <summary>Every place where a row names a kept file, read off the rows themselves (<see cref="NamesFileAttribute"/>): what no row names can go.</summary>
public static class NamedFiles
{
    /// <summary>All such columns, in the order of their tables' names.</summary>
    public static IReadOnlyList<NamingColumn> Columns(IModel model) =>
        [
            .. model
                .GetEntityTypes()
                .OrderBy(entity => entity.GetTableName(), StringComparer.Ordinal)
                .SelectMany(entity =>
                    entity
                        .ClrType.GetProperties()
                        .Select(property => (property, Mark: property.GetCustomAttribute<NamesFileAttribute>()))
                        .Where(one => one.Mark is not null)
                        .Select(one => new NamingColumn(
                            entity.ClrType,
                            entity.GetTableName()!,
                            one.property.Name,
                            one.Mark!.Named,
                            entity.FindPrimaryKey()!.Properties[0].GetColumnName()
                        ))
                ),
        ];

    /// <summary>The SHA-256 of every file that a row names.</summary>
    public static async Task<HashSet<string>> HashesAsync(GesamtDb db, CancellationToken stop = default)
    {
        HashSet<string> named = [];
        foreach (var one in Columns(db.Model))
        {
            // names of this program's own columns, which no parameter can stand for
            var sql = $"""SELECT DISTINCT "{one.Column}" AS Value FROM "{one.Table}" WHERE "{one.Column}" <> ''""";
            named.UnionWith(await db.Database.SqlQueryRaw<string>(sql).ToListAsync(stop));
        }
        return named;
    }
}
