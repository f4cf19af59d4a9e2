using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Facts;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Prices;

/// <summary>A service on a rate sheet, as it was sent.</summary>
/// <param name="Service">Of the price list.</param>
/// <param name="Price">“140.00 € per m², before tax”.</param>
public sealed record RateEntry(int Service, string Title, string Detail, string Price);

/// <summary>A service that can stand on a rate sheet.</summary>
/// <param name="Chosen">Whether the price list puts it there.</param>
public sealed record RateChoiceDto(int Service, string Title, string Price, bool Chosen);

/// <summary>The rate sheet of a project.</summary>
/// <param name="Since">Since when one is with the client; null while none is.</param>
/// <param name="Ticked">What they ticked last; null while they have not.</param>
public sealed record RateDeskDto(
    IReadOnlyList<RateChoiceDto> Services,
    bool CanSend,
    string? Since,
    IReadOnlyList<string>? Ticked
);

/// <param name="Services">In the order of the sheet.</param>
public sealed record SendRateSheetDto(IReadOnlyList<int> Services, string Subject, string Body);

/// <summary>A list of chosen services with their prices, put to the client before the call: they tick what interests them.</summary>
public static class RateSheet
{
    private const int MostServices = 40;

    /// <summary>What can be put to the client, and what is.</summary>
    public static async Task<RateDeskDto> OfAsync(Desk desk, ProjectFile file)
    {
        var open = RateSheets.Open(file.History);
        var ticked = await desk
            .Db.RateSheets.AsNoTracking()
            .Where(r => r.ProjectId == file.Id && r.Ticked != null)
            .OrderByDescending(r => r.Id)
            .FirstOrDefaultAsync();
        return new(
            [
                .. (await PriceList.OfferedAsync(desk, file.Row.Kinds)).Select(service => new RateChoiceDto(
                    service.Id,
                    service.Title,
                    Price(desk, service),
                    service.OnRateSheet
                )),
            ],
            open is null && WhyNot(file) is null,
            open is { } sent ? desk.Short(desk.Calendar.DateOf(sent.Happened)) : null,
            ticked is null ? null : [.. Chosen(ticked).Select(entry => entry.Title)]
        );
    }

    /// <summary>Puts services to the client, with the letter that says so.</summary>
    /// <exception cref="InvalidException">No service, one that is not there, or too many.</exception>
    /// <exception cref="RefusedException">One is with the client, a price is agreed, or the project has ended.</exception>
    public static Task<LetterRow> SendAsync(Desk desk, ProjectId project, SendRateSheetDto send) =>
        desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            if (WhyNot(file) is { } why)
                throw new RefusedException(why);
            if (RateSheets.Open(file.History) is not null)
                throw new RefusedException("A rate sheet is with the client already. Take it back first.");
            if (send.Services.Count is 0 or > MostServices)
                throw new InvalidException(("services", $"Choose 1 to {MostServices} services."));
            var offered = (await PriceList.OfferedAsync(desk, file.Row.Kinds)).ToDictionary(s => s.Id);
            var entries = send
                .Services.Distinct()
                .Select(id =>
                    offered.TryGetValue(id, out var service)
                        ? new RateEntry(id, service.Title, service.Detail, Price(desk, service))
                        : throw new InvalidException(("services", "One of them is not on the price list any more."))
                )
                .ToList();
            var row = new RateSheetRow
            {
                ProjectId = project,
                Services = StoreJson.Write(entries),
                At = desk.Now,
            };
            act.Db.RateSheets.Add(row);
            await act.Db.SaveChangesAsync();
            var letter = await LettersOut.ClaimAsync(act, file, send.Subject, send.Body, null);
            await act.RecordAsync(file, Actor.Owner, new Happening.RateSheetSent(row.Id));
            return letter;
        });

    /// <exception cref="RefusedException">None is with the client.</exception>
    public static Task TakeBackAsync(Desk desk, ProjectId project) =>
        desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(project);
            await act.RecordAsync(file, Actor.Owner, new Happening.RateSheetTakenBack(Open(file)));
        });

    /// <summary>The one that waits for the client; null for none.</summary>
    public static async Task<IReadOnlyList<RateEntry>?> ShownAsync(Desk desk, ProjectFile file) =>
        RateSheets.Open(file.History) is { What.Sheet: var sheet }
            ? Entries(await desk.Db.RateSheets.AsNoTracking().SingleAsync(r => r.Id == sheet))
            : null;

    /// <summary>What the client ticked comes back as an entry on the line.</summary>
    /// <param name="services">Of the price list.</param>
    /// <exception cref="InvalidException">Nothing is ticked, or something that is not on the sheet.</exception>
    public static async Task TickAsync(Act act, ProjectFile file, IReadOnlyList<int> services)
    {
        var sheet = Open(file);
        var row = await act.Db.RateSheets.SingleAsync(r => r.Id == sheet);
        var ticked = services.Distinct().ToList();
        if (ticked.Count == 0)
            throw new InvalidException(("services", "Tick at least one of them."));
        if (ticked.Except(Entries(row).Select(entry => entry.Service)).Any())
            throw new InvalidException(("services", "One of them is not on this sheet. Load the page again."));
        (row.Ticked, row.AnsweredAt) = (StoreJson.Write(ticked), act.Now);
        await act.Db.SaveChangesAsync();
        await act.RecordAsync(file, Actor.Client, new Happening.RateSheetTicked(row.Id));
    }

    /// <summary>Services the client ticked last, of the price list; none while they have not.</summary>
    public static async Task<IReadOnlyList<int>> TickedServicesAsync(Desk desk, ProjectId project) =>
        await desk
            .Db.RateSheets.AsNoTracking()
            .Where(r => r.ProjectId == project && r.Ticked != null)
            .OrderByDescending(r => r.Id)
            .Select(r => r.Ticked)
            .FirstOrDefaultAsync()
            is { } ticked
            ? StoreJson.Read<List<int>>(ticked)
            : [];

    /// <summary>What was ticked on each sheet of a project, as its line tells it.</summary>
    public static async Task<IReadOnlyDictionary<int, string>> TickedAsync(Desk desk, ProjectId project) =>
        (
            await desk.Db.RateSheets.AsNoTracking().Where(r => r.ProjectId == project && r.Ticked != null).ToListAsync()
        ).ToDictionary(row => row.Id, row => string.Join(", ", Chosen(row).Select(entry => entry.Title)));

    private static IEnumerable<RateEntry> Chosen(RateSheetRow row) =>
        StoreJson.Read<List<int>>(row.Ticked!) is var ticked
            ? Entries(row).Where(entry => ticked.Contains(entry.Service))
            : [];

    private static List<RateEntry> Entries(RateSheetRow row) => StoreJson.Read<List<RateEntry>>(row.Services);

    private static int Open(ProjectFile file) =>
        RateSheets.Open(file.History)?.What.Sheet
        ?? throw new RefusedException("No rate sheet waits at the moment. Load the page again to see what does.");

    private static string? WhyNot(ProjectFile file) =>
        file.Case.End is not null ? "The project has ended. Take it up again first."
        : Core.Invoicing.AgreedPrice.Of(file.History) is not null ? "A price is agreed already."
        : null;

    private static string Price(Desk desk, ServiceRow service)
    {
        string Of(decimal price) =>
            Money.Of(price, desk.Currency) is var rounded && rounded.Major == price
                ? MoneyText.Of(rounded)
                : $"{NumberText.Number(price)} {desk.Currency.Code}";
        var steps = PriceList
            .StepsOf(service)
            .Select(step => $", {Of(step.UnitPrice)} from {NumberText.Number(step.From)}");
        return $"{Of(service.UnitPrice)}{PriceList.PerOne(service.Unit)}{string.Concat(steps)}, {(service.Gross ? "with" : "before")} tax";
    }
}
