using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.FirstSteps;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Prices;

/// <summary>A price from a quantity on.</summary>
public sealed record PriceStepDto(string From, string UnitPrice);

/// <summary>What a service may have besides its price.</summary>
/// <param name="Text">Markdown.</param>
/// <param name="Picture">SHA-256 of a file for papers.</param>
/// <param name="Hours">That one of it is expected to take; the owner’s own, empty where it is not known.</param>
/// <param name="Cost">Of one of it, before tax; the owner’s own, empty where it is not known.</param>
public sealed record ServiceMoreDto(
    string Text,
    string Link,
    string? Picture,
    PriceStepDto[] Steps,
    bool Gross,
    string Hours,
    string Cost,
    bool OnRateSheet,
    bool PutAway
);

/// <summary>A service of the price list.</summary>
/// <param name="Id">0 for a new one.</param>
public sealed record ServiceDto(
    long Id,
    string Title,
    string Detail,
    string Unit,
    string UnitPrice,
    string Tax,
    ServiceMoreDto? More = null
);

/// <summary>A price list as it is saved, in its order.</summary>
public sealed record SaveServicesDto(int Edition, ServiceDto[] Services);

/// <summary>The services that all kinds share.</summary>
public sealed record SharedServicesDto(int Edition, IReadOnlyList<ServiceDto> Services);

/// <summary>The services of one kind, or those that all kinds share.</summary>
public static class PriceList
{
    /// <summary>Most services of one kind.</summary>
    public const int Most = 200;

    private const decimal MostPrice = 100_000_000,
        MostHours = 10_000;

    /// <summary>In their order; those put away as well.</summary>
    /// <param name="kind">Null for those that all kinds share.</param>
    public static Task<List<ServiceRow>> RowsAsync(Desk desk, KindId? kind) =>
        desk.Db.Services.AsNoTracking().Where(s => s.KindId == kind).OrderBy(s => s.Position).ToListAsync();

    /// <summary>What a project of a kind can be offered: the kind's own, then those for all kinds.</summary>
    public static async Task<IReadOnlyList<ServiceRow>> OfferedAsync(Desk desk, IReadOnlyList<KindId> kinds)
    {
        List<ServiceRow> offered = [];
        foreach (var kind in kinds)
            offered.AddRange(await RowsAsync(desk, kind));
        offered.AddRange(await RowsAsync(desk, null));
        return [.. offered.Where(service => !service.PutAway)];
    }

    public static async Task<SharedServicesDto> SharedAsync(Desk desk) =>
        new(desk.Studio.SharedServicesEdition, [.. (await RowsAsync(desk, null)).Select(Of)]);

    public static ServiceDto Of(ServiceRow row) =>
        new(
            row.Id,
            row.Title,
            row.Detail,
            UnitWords.One(row.Unit),
            NumberText.Number(row.UnitPrice),
            NumberText.Number(row.TaxPartsPerMillion / 10_000m),
            new(
                row.Text,
                row.Link,
                row.Picture,
                [
                    .. StepsOf(row)
                        .Select(step => new PriceStepDto(
                            NumberText.Number(step.From),
                            NumberText.Number(step.UnitPrice)
                        )),
                ],
                row.Gross,
                row.Hours is { } hours ? NumberText.Number(hours) : "",
                row.Cost is { } cost ? NumberText.Number(cost) : "",
                row.OnRateSheet,
                row.PutAway
            )
        );

    /// <summary>“ per day”; empty where there is no unit.</summary>
    public static string PerOne(string unit) => unit.Length > 0 ? $" per {UnitWords.One(unit)}" : "";

    public static IReadOnlyList<PriceStep> StepsOf(ServiceRow row) =>
        row.Steps is { } steps ? StoreJson.Read<List<PriceStep>>(steps) : [];

    /// <summary>Replaces a list by what was typed. A service keeps its number, so that proposals go on naming it.</summary>
    /// <exception cref="InvalidException">A service has no title, or a number is not one; the field is named by its place in the list.</exception>
    /// <exception cref="StaleException">It was saved elsewhere in between.</exception>
    public static async Task SaveAsync(Desk desk, KindId? id, SaveServicesDto save, Func<Task<object>> now)
    {
        await desk.ActAsync(async act =>
        {
            var edition = await NextEditionAsync(desk, id, save.Edition);
            if (edition is null)
                throw new StaleException(await now());
            await KeepAsync(desk, id, save.Services);
            await OpenSteps.DoneAsync(desk, FirstStep.Prices);
        });
    }

    /// <summary>Keeps a whole list, inside an act.</summary>
    public static async Task KeepAsync(Desk desk, KindId? id, IReadOnlyList<ServiceDto> services)
    {
        if (services.Count > Most)
            throw new InvalidException(("services", $"A list has at most {Most} services."));
        List<(string, string)> errors = [];
        var rows = await desk.Db.Services.Where(s => s.KindId == id).ToDictionaryAsync(s => (long)s.Id);
        foreach (var (service, i) in services.Select((service, i) => (service, i)))
        {
            if (!rows.Remove(service.Id, out var row))
                desk.Db.Services.Add(row = new() { Title = "", KindId = id });
            Fill(row, service, i, errors);
        }
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
        desk.Db.Services.RemoveRange(rows.Values);
        await desk.Db.SaveChangesAsync();
    }

    /// <summary>The list's next edition; null where another was saved since.</summary>
    private static async Task<int?> NextEditionAsync(Desk desk, KindId? id, int edition)
    {
        if (id is null)
        {
            var studio = await desk.Db.Studio.SingleAsync();
            return studio.SharedServicesEdition == edition ? ++studio.SharedServicesEdition : null;
        }
        var kind = await desk.Db.Kinds.SingleOrDefaultAsync(k => k.Id == id) ?? throw new MissingException("kind");
        return kind.Edition == edition ? ++kind.Edition : null;
    }

    private static void Fill(ServiceRow row, ServiceDto service, int i, List<(string, string)> errors)
    {
        string Text(string field, string text, int most, int least = 0)
        {
            var trimmed = text.Trim();
            if (trimmed.Length < least || trimmed.Length > most)
                errors.Add(
                    (
                        $"services[{i}].{field}",
                        least > 0
                            ? $"A service needs a {field} of {least} to {most} characters."
                            : $"Write at most {most} characters."
                    )
                );
            return trimmed;
        }
        decimal Number(string field, string text, decimal most)
        {
            if (
                NumberText.Exact(text) is { } number
                && number >= 0
                && number <= most
                && decimal.Round(number, 4) == number
            )
                return number;
            errors.Add(
                (
                    $"services[{i}].{field}",
                    $"Give a number from 0 to {most:0}, with at most four decimals.{NumberText.Doubt(text)}"
                )
            );
            return 0;
        }
        decimal? Known(string field, string text, decimal most) =>
            string.IsNullOrWhiteSpace(text) ? null : Number(field, text, most);
        (row.Position, row.Title, row.Detail, row.Unit) = (
            i,
            Text("title", service.Title, 160, least: 1),
            Text("detail", service.Detail, 500),
            Text("unit", service.Unit, 40)
        );
        row.UnitPrice = Number("unitPrice", service.UnitPrice, MostPrice);
        row.TaxPartsPerMillion = (int)(Number("tax", service.Tax, 100) * 10_000);
        if (service.More is not { } more)
            return;
        (row.Text, row.Link, row.Picture) = (
            Text("text", more.Text, 20_000),
            Text("link", more.Link, 500),
            more.Picture
        );
        if (row.Link.Length > 0 && !WebAddress.Is(row.Link))
            errors.Add(($"services[{i}].link", WebAddress.Allowed));
        var steps = more
            .Steps.Select(step => new PriceStep(
                Number("steps", step.From, 1_000_000),
                Number("steps", step.UnitPrice, MostPrice)
            ))
            .OrderBy(step => step.From)
            .ToList();
        if (steps.Zip(steps.Skip(1)).Any(pair => pair.First.From == pair.Second.From))
            errors.Add(($"services[{i}].steps", "Each price step begins at a quantity of its own."));
        row.Steps = steps.Count == 0 ? null : StoreJson.Write(steps);
        (row.Gross, row.OnRateSheet, row.PutAway) = (more.Gross, more.OnRateSheet, more.PutAway);
        (row.Hours, row.Cost) = (Known("hours", more.Hours, MostHours), Known("cost", more.Cost, MostPrice));
    }
}
