using Gesamt.Core.Amounts;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Templates;

/// <summary>What a studio of a trade may begin with.</summary>
/// <param name="Kinds">Its kinds of work by name.</param>
public sealed record StartingSetDto(string Key, string Name, string Words, IReadOnlyList<string> Kinds);

/// <summary>What there is to choose from when a studio begins.</summary>
/// <param name="Zones">Every time zone of the tz database that is in use.</param>
/// <param name="Zone">Where the studio's days begin now.</param>
public sealed record BeginDto(
    IReadOnlyList<StartingSetDto> Sets,
    IReadOnlyList<string> Currencies,
    IReadOnlyList<string> Zones,
    string Currency,
    string Zone
);

/// <summary>What a studio begins with.</summary>
/// <param name="Set">A starting set by its key; null to begin with nothing.</param>
/// <param name="Tax">Per cent that its services are taxed with, until the owner says otherwise.</param>
public sealed record ChosenSetDto(string? Set, string Currency, string Zone, string Tax);

/// <summary>The starting sets that ship with the program, each a folder of readable files.</summary>
public static class StartingSets
{
    private sealed record SetFile(string Name, string Words, int Position);

    private sealed record KindName(string Name, int Position = 0);

    /// <summary>What can be chosen.</summary>
    public static async Task<BeginDto> OfAsync(Desk desk, Settings settings)
    {
        List<(int Position, StartingSetDto Set)> sets = [];
        foreach (var folder in Directory.GetDirectories(settings.Sets))
            if (Path.Combine(folder, "set.json") is var path && File.Exists(path))
            {
                var file = StoreJson.Read<SetFile>(await File.ReadAllTextAsync(path));
                sets.Add(
                    (file.Position, new(Path.GetFileName(folder), file.Name, file.Words, await KindsAsync(folder)))
                );
            }
        return new(
            [.. sets.OrderBy(one => one.Position).Select(one => one.Set)],
            [.. Currency.All.Keys.Order(StringComparer.Ordinal)],
            Zones(),
            desk.Studio.Currency,
            desk.Studio.Zone
        );
    }

    /// <summary>Every zone with a place in its name, and UTC; older names of the same place are left out.</summary>
    public static IReadOnlyList<string> Zones() =>
        [
            .. NodaTime
                .TimeZones.TzdbDateTimeZoneSource.Default.ZoneLocations!.Select(place => place.ZoneId)
                .Append("Etc/UTC")
                .Distinct()
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>A zone under the name it goes by today; UTC for one that is none.</summary>
    public static string ZoneOf(string name) =>
        NodaTime.TimeZones.TzdbDateTimeZoneSource.Default.CanonicalIdMap.TryGetValue(name, out var zone)
            ? zone
            : "Etc/UTC";

    /// <summary>Begins a new studio with a set, or with nothing.</summary>
    /// <exception cref="RefusedException">It has begun already.</exception>
    /// <exception cref="InvalidException">The set, currency, zone or rate is none.</exception>
    public static async Task BeginAsync(Desk desk, Settings settings, ChosenSetDto chosen)
    {
        if (OpenSteps.Of(desk).All(open => open.Step != FirstStep.Choose))
            throw new RefusedException("This studio has begun already. Further sets are added under Templates.");
        List<(string, string)> errors = [];
        if (!Currency.All.ContainsKey(chosen.Currency))
            errors.Add(("currency", "One of the currencies in the list."));
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(chosen.Zone) is null)
            errors.Add(("zone", "A time zone by its name, such as Europe/Dublin."));
        var tax = TaxOf(chosen.Tax, errors);
        var folder = chosen.Set is { } set ? FolderOf(settings, set, errors) : null;
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
        await desk.ActAsync(async act =>
        {
            var studio = await desk.Db.Studio.SingleAsync();
            (studio.Currency, studio.Zone) = (chosen.Currency, chosen.Zone);
            if (folder is not null)
                await KindFiles.LoadAsync(desk.Db, folder, settings.UsualSet, tax);
            await RoutineTrouble.RefreshAsync(desk);
            await OpenSteps.DoneAsync(desk, FirstStep.Choose);
        });
    }

    /// <summary>Adds a set to what is there already.</summary>
    /// <exception cref="InvalidException">There is no such set.</exception>
    /// <returns>Its first kind.</returns>
    public static async Task<KindRow> AddAsync(Desk desk, Settings settings, string key)
    {
        List<(string, string)> errors = [];
        var folder = FolderOf(settings, key, errors);
        if (folder is null)
            throw new InvalidException([.. errors]);
        var tax = await desk
            .Db.Services.GroupBy(s => s.TaxPartsPerMillion)
            .OrderByDescending(same => same.Count())
            .Select(same => same.Key)
            .FirstOrDefaultAsync();
        return await desk.ActAsync(async act =>
        {
            var last = await desk.Db.Kinds.MaxAsync(k => (int?)k.Position) ?? -1;
            var kinds = await KindFiles.LoadAsync(desk.Db, folder, settings.UsualSet, new(tax));
            foreach (var kind in kinds)
                kind.Position += last + 1;
            await RoutineTrouble.RefreshAsync(desk);
            return kinds[0];
        });
    }

    private static string? FolderOf(Settings settings, string key, List<(string, string)> errors)
    {
        // named by the list alone: a key is never a path
        var folder = Directory.GetDirectories(settings.Sets).FirstOrDefault(one => Path.GetFileName(one) == key);
        if (folder is not null && File.Exists(Path.Combine(folder, "set.json")))
            return folder;
        errors.Add(("set", "One of the starting sets in the list."));
        return null;
    }

    private static Rate TaxOf(string text, List<(string, string)> errors)
    {
        if (string.IsNullOrWhiteSpace(text))
            return default;
        if (NumberText.Percent(text) is { } rate)
            return rate;
        errors.Add(("tax", $"Per cent from 0 to 100, such as 23 or 13.5.{NumberText.Doubt(text)}"));
        return default;
    }

    private static async Task<IReadOnlyList<string>> KindsAsync(string folder)
    {
        List<KindName> names = [];
        foreach (var path in Directory.GetFiles(Path.Combine(folder, "kinds"), "*.json"))
            names.Add(StoreJson.Read<KindName>(await File.ReadAllTextAsync(path)));
        return [.. names.OrderBy(kind => kind.Position).Select(kind => kind.Name)];
    }
}
