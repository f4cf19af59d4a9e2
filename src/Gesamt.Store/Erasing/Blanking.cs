using System.Globalization;
using System.Reflection;
using Gesamt.Core;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Gesamt.Store.Erasing;

/// <summary>Blanks what is personal in the rows of projects and people, as the rows themselves say it (<see cref="PersonalAttribute"/>): by SQL, table by table, in the caller's transaction.</summary>
public static class Blanking
{
    /// <summary>All of some projects that is kept so long and no longer.</summary>
    public static async Task ProjectsAsync(GesamtDb db, IReadOnlyCollection<ProjectId> projects, Kept kept)
    {
        var ids = List(projects.Select(project => project.Value));
        foreach (var entity in db.Model.GetEntityTypes().Where(entity => !entity.IsOwned()))
            if (OfProjects(entity.ClrType, ids) is { } rows)
                await BlankAsync(db, entity, rows, kept);
    }

    /// <summary>People themselves, with what is told of them besides projects.</summary>
    public static async Task PeopleAsync(GesamtDb db, IReadOnlyCollection<PersonId> people)
    {
        var ids = List(people.Select(person => person.Value));
        await BlankAsync(db, Entity<PersonRow>(db), $"Id IN ({ids})", Kept.Not);
        await BlankAsync(db, Entity<LabelRow>(db), $"PersonId IN ({ids})", Kept.Not);
        await BlankAsync(db, Entity<JoinRow>(db), $"FromId IN ({ids}) OR ToId IN ({ids})", Kept.Not);
        await BlankAsync(db, Entity<SignCodeRow>(db), $"PersonId IN ({ids})", Kept.Not);
    }

    /// <summary>Letters, with their files, whatever project they belong to.</summary>
    public static async Task LettersAsync(GesamtDb db, IReadOnlyCollection<LetterId> letters)
    {
        var ids = List(letters.Select(letter => letter.Value));
        await BlankAsync(db, Entity<LetterRow>(db), $"Id IN ({ids})", Kept.Not);
        await BlankAsync(db, Entity<LetterFileRow>(db), $"LetterId IN ({ids})", Kept.Not);
        await BlankAsync(db, Entity<OutboxRow>(db), $"LetterId IN ({ids})", Kept.Not);
    }

    /// <summary>Which rows of a table belong to some projects, themselves or through what they belong to; null for a table whose rows belong to none.</summary>
    public static string? OfProjects(Type row, string projects) =>
        row == typeof(ProjectRow) ? $"Id IN ({projects})"
        : row == typeof(LetterFileRow) ? $"LetterId IN (SELECT Id FROM Letters WHERE ProjectId IN ({projects}))"
        : row == typeof(SignatureRow) || row == typeof(SignCodeRow)
            ? $"VersionId IN (SELECT Id FROM Versions WHERE ProjectId IN ({projects}))"
        : row == typeof(EntryRow) || row == typeof(ListChangeRow)
            ? $"ListId IN (SELECT Id FROM Lists WHERE ProjectId IN ({projects}))"
        : row == typeof(BankLineRow)
            ? $"Id IN (SELECT b.LineId FROM BankBookings b JOIN Payments p ON p.Id = b.PaymentId WHERE p.ProjectId IN ({projects})) OR CostId IN (SELECT Id FROM Costs WHERE ProjectId IN ({projects}))"
        : row == typeof(LabelRow)
            ? $"ProjectId IN ({projects}) OR TaskId IN (SELECT Id FROM Tasks WHERE ProjectId IN ({projects}))"
        : row.GetProperty("ProjectId") is not null ? $"ProjectId IN ({projects})"
        : null;

    private static IEntityType Entity<T>(GesamtDb db) => db.Model.FindEntityType(typeof(T))!;

    private static async Task BlankAsync(GesamtDb db, IEntityType entity, string rows, Kept kept)
    {
        var table = entity.GetTableName()!;
        string sql;
        if (entity.ClrType.GetCustomAttribute<PersonalAttribute>() is { } all)
        {
            if (all.Kept != kept)
                return;
            sql = $"""DELETE FROM "{table}" WHERE {rows}""";
        }
        else
        {
            var sets = entity
                .GetProperties()
                .Select(property => (property, Mark: property.PropertyInfo?.GetCustomAttribute<PersonalAttribute>()))
                .Where(one => one.Mark?.Kept == kept)
                .Select(one => Set(one.property, one.Mark!.Blank))
                .ToList();
            if (sets.Count == 0)
                return;
            sql = $"""UPDATE "{table}" SET {string.Join(", ", sets)} WHERE {rows}""";
        }
        // names of this program's own tables and columns, and numbers of rows
        await db.Database.ExecuteSqlRawAsync(
            sql.Replace("{", "{{", StringComparison.Ordinal).Replace("}", "}}", StringComparison.Ordinal)
        );
    }

    private static string Set(IProperty property, object? blank)
    {
        var column = $"\"{property.GetColumnName()}\"";
        return blank switch
        {
            null => $"{column} = {(property.IsNullable ? "NULL" : "''")}",
            bool yes => $"{column} = {(yes ? 1 : 0)}",
            // nothing stays nothing
            _ when property.IsNullable => $"{column} = CASE WHEN {column} IS NULL THEN NULL ELSE '{blank}' END",
            _ => $"{column} = '{blank}'",
        };
    }

    private static string List(IEnumerable<long> ids) =>
        string.Join(", ", ids.Select(id => id.ToString(CultureInfo.InvariantCulture)));
}
