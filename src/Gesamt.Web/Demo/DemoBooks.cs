using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Store.Model;
using Gesamt.Web.Accounts;
using Gesamt.Web.Books;
using Gesamt.Web.Hosting;
using Gesamt.Web.Reports;
using Gesamt.Web.Spent;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Demo;

/// <summary>The demo's accounts, costs, recurring costs and other income, laid through the product's own acts once its projects are.</summary>
internal static class DemoBooks
{
    /// <summary>A line of the file: “-12d cost: Diesel; Quay Filling Station; van; 61.20; 23; receipt”.</summary>
    private sealed record Line(LocalDate On, string Sort, string[] Parts)
    {
        public string Of(int i) => i < Parts.Length ? Parts[i] : "";
    }

    public static async Task LayAsync(IServiceProvider services, string path)
    {
        foreach (var text in await File.ReadAllLinesAsync(path))
        {
            if (text.StartsWith('#') || text.Trim().Length == 0)
                continue;
            await using var scope = services.CreateAsyncScope();
            var desk = scope.ServiceProvider.GetRequiredService<Desk>();
            await LayAsync(desk, Read(desk, text));
        }
    }

    private static Line Read(Desk desk, string text)
    {
        var (head, rest) = (text[..text.IndexOf(':')], text[(text.IndexOf(':') + 1)..]);
        var words = head.Split(' ', 2);
        var days = int.Parse(words[0].TrimEnd('d'), NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture);
        return new(desk.Today.PlusDays(days), words[1], rest.Split(';', StringSplitOptions.TrimEntries));
    }

    private static async Task LayAsync(Desk desk, Line line)
    {
        switch (line.Sort)
        {
            case "account":
                var takes = line.Of(3).Split(',', StringSplitOptions.TrimEntries).Select(Enum.Parse<PaymentMeans>);
                await AccountBooks.SaveAsync(
                    desk,
                    (AccountId?)null,
                    new(line.Of(0), desk.Currency.Code, line.Of(2), [.. takes], line.On, line.Of(1))
                );
                break;
            case "again":
                await RecurringCosts.SaveAsync(
                    desk,
                    null,
                    new(
                        line.Of(1),
                        line.Of(0),
                        line.Of(2),
                        line.Of(3),
                        line.Of(4),
                        null,
                        null,
                        new(Enum.Parse<Every>(line.Of(5)), line.On, null)
                    )
                );
                break;
            case "cost":
                await CostAsync(desk, line);
                break;
            case "income":
                await Incomes.SaveAsync(
                    desk,
                    null,
                    new(line.On, line.Of(1), line.Of(0), line.Of(2), line.Of(3), line.Of(4))
                );
                break;
            case "transfer":
                await AccountBooks.SaveAsync(
                    desk,
                    (TransferId?)null,
                    new(
                        line.On,
                        (await AccountAsync(desk, line.Of(0))).Value,
                        (await AccountAsync(desk, line.Of(1))).Value,
                        line.Of(2),
                        "",
                        line.Of(3)
                    )
                );
                break;
            case "goal":
                await Goals.SaveAsync(
                    desk,
                    null,
                    new(
                        line.On.Year,
                        line.Of(0),
                        [
                            .. line
                                .Parts.Skip(1)
                                .Select(part => part.Split(',', StringSplitOptions.TrimEntries))
                                .Select(Measure),
                        ]
                    )
                );
                break;
            default:
                throw new FormatException($"Unknown entry “{line.Sort}”.");
        }
    }

    private static async Task CostAsync(Desk desk, Line line)
    {
        var title = line.Of(6);
        ProjectId? project =
            title.Length == 0
                ? null
                : await desk.Db.Projects.Where(p => p.Title == title).Select(p => p.Id).SingleAsync();
        desk.Db.ChangeTracker.Clear();
        var id = await Costs.AddAsync(
            desk,
            project,
            new KeepCostDto(line.On, line.Of(1), line.Of(0), line.Of(2), line.Of(3), line.Of(4), ChargeOn: false)
        );
        if (line.Of(5) != "receipt")
            return;
        var name = $"receipt {line.On.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture)}.png";
        using var picture = new MemoryStream(DemoPictures.Draw(name));
        await Costs.ReceiptAsync(desk, id, name, picture, CancellationToken.None);
    }

    /// <summary>“Booked,0,12,1500”, the last a price; or “typed,6,2,4,evenings at the desk”, a number as it stands and its words.</summary>
    private static SaveMeasureDto Measure(string[] said) =>
        said[0] == "typed"
            ? new(said[4], said[1], said[2], said[3])
            : new("", said[1], said[2], "", Enum.Parse<GoalFigure>(said[0]), AtLeast: said.Length > 3 ? said[3] : null);

    private static Task<AccountId> AccountAsync(Desk desk, string name) =>
        desk.Db.Accounts.Where(a => a.Name == name).Select(a => a.Id).SingleAsync();
}
