using Gesamt.Core.Amounts;
using Gesamt.Core.Forms;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <summary>How much of a service a project needs, where the record knows it already: the size of a wall is the quantity of what is priced by the square metre.</summary>
internal sealed class KnownQuantities
{
    private readonly IReadOnlyDictionary<string, decimal> byUnit;

    private KnownQuantities(IReadOnlyDictionary<string, decimal> byUnit) => this.byUnit = byUnit;

    /// <summary>Of a project's details; a unit that two of them have says nothing.</summary>
    public static async Task<KnownQuantities> OfAsync(Desk desk, ProjectFile file)
    {
        var values = await desk
            .Db.Details.AsNoTracking()
            .Where(detail => detail.ProjectId == file.Id)
            .ToDictionaryAsync(detail => detail.Name, detail => detail.Value);
        return new(
            file.Case.Kind.AllDetails.Where(detail =>
                    detail is { Sort: FieldSort.Number, Unit.Length: > 0 } && values.ContainsKey(detail.Name)
                )
                .Select(detail =>
                    (detail.Unit, Number: Sizes.Number(values[detail.Name], detail.Unit, NumberMarks.Point))
                )
                .Where(known => known.Number > 0)
                .GroupBy(known => UnitWords.One(known.Unit!))
                .Where(same => same.Count() == 1)
                .ToDictionary(same => same.Key, same => same.Single().Number!.Value)
        );
    }

    /// <summary>The quantity of what is priced by this unit; one where nothing is known.</summary>
    public decimal Of(string unit, decimal otherwise = 1) =>
        byUnit.TryGetValue(UnitWords.One(unit), out var known) ? known : otherwise;
}
