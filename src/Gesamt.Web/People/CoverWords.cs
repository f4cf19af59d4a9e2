using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.People;

/// <summary>The words by which somebody could be known, for a screen that is covered while others look at it.</summary>
public static class CoverWords
{
    private static readonly char[] Between = [' ', '\u00a0', '-', '.', ',', '/', '(', ')', '"', '“', '”'];

    /// <summary>Words that the pages know by what they mean: they are no names, whoever is called so.</summary>
    private static readonly HashSet<string> Meanings =
    [
        .. new[] { typeof(Fact).Assembly, typeof(PersonRow).Assembly, typeof(CoverWords).Assembly }
            .SelectMany(assembly => assembly.GetTypes())
            .Where(type => type.IsEnum)
            .SelectMany(Enum.GetNames),
    ];

    /// <summary>What names begin with and everything else does too.</summary>
    private static readonly HashSet<string> Everyday = ["The", "And", "Of", "For", "At", "In", "On"];

    /// <summary>Each once: of the names and organisations of everybody, of those whose letters are not filed, and of whom money went to or came from. What begins small is no name by itself.</summary>
    public static async Task<IReadOnlyList<string>> OfAsync(Desk desk)
    {
        var people = await desk
            .Db.People.AsNoTracking()
            .Where(p => p.RemovedAt == null)
            .Select(p => new { p.Name, p.Organisation })
            .ToListAsync();
        var senders = await desk
            .Db.Letters.AsNoTracking()
            .Where(l => l.State == LetterState.Received && l.ProjectId == null)
            .Select(l => l.FromName)
            .ToListAsync();
        var paid = await desk
            .Db.Costs.Where(c => !c.Removed)
            .Select(c => c.Payee)
            .Union(desk.Db.RecurringCosts.Select(c => c.Payee))
            .Union(desk.Db.Incomes.Where(i => !i.Removed).Select(i => i.Payer))
            .ToListAsync();
        return
        [
            .. people
                .SelectMany(p => new[] { p.Name, p.Organisation })
                .Concat(senders)
                .Concat(paid)
                .OfType<string>()
                .SelectMany(name => name.Split(Between, StringSplitOptions.RemoveEmptyEntries))
                .Where(word =>
                    word.Length > 1 && !char.IsLower(word[0]) && !Meanings.Contains(word) && !Everyday.Contains(word)
                )
                .Distinct()
                .Order(StringComparer.Ordinal),
        ];
    }
}
