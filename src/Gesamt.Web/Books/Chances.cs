using Gesamt.Core.Amounts;
using Gesamt.Core.Books;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Store;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Books;

/// <summary>How likely projects of a stage are to be booked.</summary>
/// <param name="Percent">Whole per cent.</param>
/// <param name="Counted">“23 of 35”: those that were booked of all that reached the stage and are decided.</param>
/// <param name="Own">The owner's own figure; null for what the counts say.</param>
public sealed record StageChanceDto(Stage Stage, int Percent, string Counted, int? Own);

/// <param name="Percent">0 to 100 as it was typed, in whole per cent; empty goes back to what the counts say.</param>
public sealed record SetChanceDto(string Percent);

/// <summary>How likely projects of a stage are to be booked: counted over the studio's own, or as the owner says.</summary>
internal static class Chances
{
    private static readonly Stage[] Unbooked = [Stage.Lead, Stage.Proposal, Stage.Contract, Stage.Payment];

    private sealed record LostAt(Stage Stage, int Count);

    // the season and the forecast begin with these
    private static readonly Func<GesamtDb, Task<int>> Won = EF.CompileAsyncQuery(
        (GesamtDb db) => db.ProjectsToCount.Count(p => p.Standing.BookedAt != null)
    );
    private static readonly Func<GesamtDb, IAsyncEnumerable<LostAt>> Lost = EF.CompileAsyncQuery(
        (GesamtDb db) =>
            db
                .ProjectsToCount.Where(p =>
                    p.Standing.BookedAt == null
                    && p.Standing.Ended != null
                    && p.Standing.Ended != EndReason.NotAnInquiry
                )
                .GroupBy(p => p.Standing.Stage)
                .Select(same => new LostAt(same.Key, same.Count()))
    );

    /// <summary>By stage, those before the booking.</summary>
    public static async Task<IReadOnlyDictionary<Stage, Chance>> OfAsync(Desk desk)
    {
        var own = StoreJson
            .Read<List<OwnChance>>(desk.Studio.Chances)
            .ToDictionary(one => one.Stage, one => one.Percent);
        var won = await Won(desk.Db);
        var lost = await Lost(desk.Db).ToDictionaryAsync(one => one.Stage, one => one.Count);
        return Unbooked.ToDictionary(
            stage => stage,
            stage => new Chance(
                won,
                lost.Where(one => one.Key >= stage).Sum(one => one.Value),
                own.TryGetValue(stage, out var percent) ? percent : null
            )
        );
    }

    public static async Task<IReadOnlyList<StageChanceDto>> ShownAsync(Desk desk) =>
        [
            .. (await OfAsync(desk)).Select(one => new StageChanceDto(
                one.Key,
                one.Value.Percent,
                Counted(one.Value),
                one.Value.Own
            )),
        ];

    /// <summary>“23 of 35”.</summary>
    public static string Counted(Chance chance) => $"{chance.Won} of {chance.Won + chance.Lost}";

    /// <summary>The owner's own figure for a stage, or none any more.</summary>
    /// <exception cref="InvalidException">It is no share.</exception>
    public static Task SetAsync(Desk desk, Stage stage, string typed) =>
        desk.ActAsync(async act =>
        {
            if (!Unbooked.Contains(stage))
                throw new InvalidException(
                    ("stage", "A stage before the booking: Lead, Proposal, Contract or Payment.")
                );
            int? percent = typed.Trim().Length == 0 ? null : WholePercent(typed);
            var studio = await act.Db.Studio.SingleAsync();
            var own = StoreJson.Read<List<OwnChance>>(studio.Chances).Where(one => one.Stage != stage);
            studio.Chances = StoreJson.Write(
                (percent is { } said ? own.Append(new(stage, said)) : own).OrderBy(one => one.Stage).ToList()
            );
        });

    private static int WholePercent(string typed) =>
        NumberText.Percent(typed) is { InPercent: var percent } && decimal.Truncate(percent) == percent
            ? (int)percent
            : throw new InvalidException(("percent", "From 0 to 100 per cent, in whole ones."));
}
