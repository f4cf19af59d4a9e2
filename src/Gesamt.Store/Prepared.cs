using System.Linq.Expressions;
using Gesamt.Core;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Store;

/// <summary>What is asked with almost every page, made ready once. A query that is written where it is asked is built as an expression and looked up by the whole of it each time, which costs as much again as asking SQLite does.</summary>
/// <remarks>Kept in static fields, so that nothing can be caught in it but what it is given. For a single value Entity Framework's own <see cref="EF.CompileAsyncQuery{TContext, TResult}(Expression{Func{TContext, TResult}})"/> serves as well.</remarks>
public static class Prepared
{
    public static Func<GesamtDb, Task<List<T>>> Rows<T>(Expression<Func<GesamtDb, IQueryable<T>>> query)
    {
        var ask = EF.CompileAsyncQuery(query);
        return db => ask(db).ToListAsync().AsTask();
    }

    public static Func<GesamtDb, TGiven, Task<List<T>>> Rows<TGiven, T>(
        Expression<Func<GesamtDb, TGiven, IQueryable<T>>> query
    )
    {
        var ask = EF.CompileAsyncQuery(query);
        return (db, given) => ask(db, given).ToListAsync().AsTask();
    }

    public static Func<GesamtDb, TFirst, TSecond, Task<List<T>>> Rows<TFirst, TSecond, T>(
        Expression<Func<GesamtDb, TFirst, TSecond, IQueryable<T>>> query
    )
    {
        var ask = EF.CompileAsyncQuery(query);
        return (db, first, second) => ask(db, first, second).ToListAsync().AsTask();
    }

    /// <summary>The rows of one sort that belong to a project, in no order.</summary>
    public static Task<List<T>> OfProjectAsync<T>(this GesamtDb db, ProjectId project)
        where T : class => OfProject<T>.Rows(db, project);

    private static class OfProject<T>
        where T : class
    {
        // some rows may belong to none
        public static readonly Func<GesamtDb, ProjectId, Task<List<T>>> Rows = Prepared.Rows(
            (GesamtDb db, ProjectId project) =>
                db.Set<T>().AsNoTracking().Where(row => EF.Property<ProjectId?>(row, "ProjectId") == project)
        );
    }
}
