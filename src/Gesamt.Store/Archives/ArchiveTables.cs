using System.Linq.Expressions;
using System.Reflection;
using System.Runtime.CompilerServices;
using System.Text.Json;
using Gesamt.Core;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Gesamt.Store.Archives;

/// <summary>The tables of an archive: all that the database has, but for what is derived and what stays in this house.</summary>
public static class ArchiveTables
{
    /// <summary>What happened, by which all else is told.</summary>
    private const string Facts = "facts";

    /// <summary>In the order of their names, the facts first.</summary>
    public static IReadOnlyList<ArchiveTable> Of(IModel model) =>
        [
            .. model
                .GetEntityTypes()
                .Where(entity => !entity.IsOwned() && !StaysOut(entity.ClrType))
                .Select(entity =>
                    (ArchiveTable)Activator.CreateInstance(typeof(Table<>).MakeGenericType(entity.ClrType), entity)!
                )
                .OrderBy(table => table.Name != Facts)
                .ThenBy(table => table.Name, StringComparer.Ordinal),
        ];

    internal static bool StaysOut(MemberInfo member) =>
        member.IsDefined(typeof(DerivedAttribute), false) || member.IsDefined(typeof(StaysHereAttribute), false);

    /// <summary>“ProjectPeople” is “project-people” in an archive.</summary>
    public static string NameOf(string table) =>
        string.Concat(
            table.Select(
                (c, at) => char.IsUpper(c) && at > 0 ? $"-{char.ToLowerInvariant(c)}" : $"{char.ToLowerInvariant(c)}"
            )
        );

    private sealed class Table<T>(IEntityType entity) : ArchiveTable(NameOf(entity.GetTableName()!), typeof(T))
        where T : class
    {
        private const string OwnProject = "ProjectId";

        // how many rows are written between two looks at whether to stop
        private const int AtOnce = 1_000;

        private readonly PropertyInfo key = entity.FindPrimaryKey()!.Properties[0].PropertyInfo!;

        public override string Entry => Name == Facts ? "facts.jsonl" : $"tables/{Name}.json";

        public override Task<int> CountAsync(GesamtDb db, CancellationToken stop) => db.Set<T>().CountAsync(stop);

        public override async IAsyncEnumerable<byte[]> RowsAsync(
            GesamtDb db,
            [EnumeratorCancellation] CancellationToken stop
        )
        {
            await foreach (var row in Ordered(db.Set<T>()).AsNoTracking().AsAsyncEnumerable().WithCancellation(stop))
                yield return JsonSerializer.SerializeToUtf8Bytes(row, RowJson.Options);
        }

        public override async IAsyncEnumerable<byte[]> RowsAsync(
            GesamtDb db,
            ProjectId project,
            [EnumeratorCancellation] CancellationToken stop
        )
        {
            if (OfProject(db, project) is not { } rows)
                yield break;
            await foreach (var row in Ordered(rows).AsNoTracking().AsAsyncEnumerable().WithCancellation(stop))
                yield return JsonSerializer.SerializeToUtf8Bytes(row, RowJson.Options);
        }

        /// <summary>What belongs to a project, itself or through its letter, version or list; null for a table that belongs to none.</summary>
        private static IQueryable<T>? OfProject(GesamtDb db, ProjectId project) =>
            (IQueryable<T>?)
                (IQueryable?)(
                    typeof(T) == typeof(ProjectRow) ? db.AllProjects.Where(p => p.Id == project)
                    : typeof(T) == typeof(PersonRow)
                        ? db.People.Where(p =>
                            db.ProjectPeople.Any(part => part.ProjectId == project && part.PersonId == p.Id)
                            || db.AllProjects.Any(of => of.Id == project && of.ClientId == p.Id)
                        )
                    : typeof(T) == typeof(LetterFileRow)
                        ? db.LetterFiles.Where(f => db.Letters.Any(l => l.Id == f.LetterId && l.ProjectId == project))
                    : typeof(T) == typeof(SignatureRow)
                        ? db.Signatures.Where(s => db.Versions.Any(v => v.Id == s.VersionId && v.ProjectId == project))
                    : typeof(T) == typeof(EntryRow)
                        ? db.Entries.Where(e => db.Lists.Any(l => l.Id == e.ListId && l.ProjectId == project))
                    : typeof(T) == typeof(ListChangeRow)
                        ? db.ListChanges.Where(c => db.Lists.Any(l => l.Id == c.ListId && l.ProjectId == project))
                    : typeof(T).GetProperty(OwnProject)?.PropertyType is { } type
                        ? type == typeof(ProjectId)
                                ? db.Set<T>().Where(row => EF.Property<ProjectId>(row, OwnProject) == project)
                            : db.Set<T>().Where(row => EF.Property<ProjectId?>(row, OwnProject) == project)
                    : null
                );

        private IQueryable<T> Ordered(IQueryable<T> rows)
        {
            var row = Expression.Parameter(typeof(T));
            return rows.Provider.CreateQuery<T>(
                Expression.Call(
                    typeof(Queryable),
                    nameof(Queryable.OrderBy),
                    [typeof(T), key.PropertyType],
                    rows.Expression,
                    Expression.Quote(Expression.Lambda(Expression.Property(row, key), row))
                )
            );
        }

        public override async Task LayAsync(
            GesamtDb db,
            Stream content,
            Func<object, Task> eachRow,
            CancellationToken stop
        )
        {
            var number = 0;
            try
            {
                await foreach (var row in ReadAsync(content, stop))
                {
                    number++;
                    await eachRow(row);
                    db.Add(row);
                    if (number % AtOnce == 0)
                        await SaveAsync(db, stop);
                }
                await SaveAsync(db, stop);
            }
            catch (Exception e)
                when (e is JsonException or FormatException or ArgumentException or InvalidOperationException)
            {
                throw new InvalidDataException($"{Entry}, row {number + 1}: {e.Message}", e);
            }
            catch (DbUpdateException e)
            {
                throw new InvalidDataException(
                    $"{Entry}, up to row {number}: {e.InnerException?.Message ?? e.Message}",
                    e
                );
            }
        }

        private IAsyncEnumerable<T> ReadAsync(Stream content, CancellationToken stop) =>
            (
                Name == Facts
                    ? JsonSerializer.DeserializeAsyncEnumerable<T>(content, topLevelValues: true, RowJson.Options, stop)
                    : JsonSerializer.DeserializeAsyncEnumerable<T>(content, RowJson.Options, stop)
            ).Select(row => row ?? throw new JsonException("A row is null."));

        private static async Task SaveAsync(GesamtDb db, CancellationToken stop)
        {
            await db.SaveChangesAsync(stop);
            db.ChangeTracker.Clear();
        }
    }
}

/// <summary>One table of an archive.</summary>
/// <param name="name">As it is called there.</param>
/// <param name="row">What a row of it is.</param>
public abstract class ArchiveTable(string name, Type row)
{
    public string Name { get; } = name;
    public Type Row { get; } = row;

    /// <summary>The entry that holds its rows: an array, or a row a line where they are the facts.</summary>
    public abstract string Entry { get; }

    /// <summary>The names of its columns as they stand in each row, in that order.</summary>
    public IReadOnlyList<string> Columns =>
        [.. RowJson.Options.GetTypeInfo(Row).Properties.Select(property => property.Name)];

    public abstract Task<int> CountAsync(GesamtDb db, CancellationToken stop);

    /// <summary>Its rows by their numbers, each as a JSON object in UTF-8.</summary>
    public abstract IAsyncEnumerable<byte[]> RowsAsync(GesamtDb db, CancellationToken stop);

    /// <summary>The same of one project alone; none where its rows belong to no project.</summary>
    public abstract IAsyncEnumerable<byte[]> RowsAsync(GesamtDb db, ProjectId project, CancellationToken stop);

    /// <summary>Lays the rows of an entry, in the caller's transaction.</summary>
    /// <param name="eachRow">Told of each before it is written.</param>
    /// <exception cref="InvalidDataException">A row is none of this table; says which.</exception>
    public abstract Task LayAsync(GesamtDb db, Stream content, Func<object, Task> eachRow, CancellationToken stop);
}
