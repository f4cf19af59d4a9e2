namespace Gesamt.Web.Tests.Lives;

/// <summary>What the owner does with the books: costs of the studio, costs that come again, other income, accounts, transfers, years.</summary>
public static partial class Acts
{
    private static readonly string[] Sums = ["12.50", "1,200", "0", "-4", "80", "a lot", "0.01", "99999999999"];

    private static Task BooksAsync(Life life, Random random) =>
        random.Next(9) switch
        {
            8 => GoalAsync(life, random),
            0 => CostAgainAsync(life, random),
            1 => AccountAsync(life, random),
            2 => TransferAsync(life, random),
            3 => IncomeAsync(life, random),
            4 => YearAsync(life, random),
            5 => CostOutAsync(life, random),
            _ => StudioCostAsync(life, random),
        };

    private static async Task GoalAsync(Life life, Random random)
    {
        var known = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Goals.Select(g => g.Id.Value).ToListAsync()
        );
        if (known.Count > 0 && random.Next(3) == 0)
        {
            await life.OwnerAsync(
                "POST",
                $"/api/goals/{Operations.Pick(known, random)}/removed",
                new { removed = random.Next(2) == 0 }
            );
            return;
        }
        await life.OwnerAsync(
            known.Count > 0 && random.Next(2) == 0 ? "PUT" : "POST",
            known.Count > 0 && random.Next(2) == 0 ? $"/api/goals/{Operations.Pick(known, random)}" : "/api/goals",
            new
            {
                year = life.Today.Year - random.Next(0, 2),
                title = Said(random),
                measures = Enumerable
                    .Range(0, random.Next(0, 4))
                    .Select(_ => new
                    {
                        words = Said(random),
                        start = Operations.Pick(Sums, random),
                        target = Operations.Pick(Sums, random),
                        present = Operations.Pick(Sums, random),
                        figure = Operations.Pick([null, .. Enum.GetNames<Gesamt.Store.Model.GoalFigure>()], random),
                        kind = random.Next(4) == 0 ? random.Next(1, 9) : (int?)null,
                        source = (string?)null,
                        atLeast = Operations.Pick(["", "1000", "much"], random),
                    })
                    .ToArray(),
            }
        );
    }

    private static string Past(Life life, Random random) => Iso(life.Today.PlusDays(-random.Next(-3, 500)));

    private static string Said(Random random) =>
        random.Next(4) == 0 ? Operations.Pick(Operations.OddWords, random) : $"Own books {Life.Private}";

    private static Task StudioCostAsync(Life life, Random random) =>
        life.OwnerAsync(
            "POST",
            "/api/costs",
            new
            {
                on = Past(life, random),
                payee = Said(random),
                what = Said(random),
                category = "materials",
                amount = Operations.Pick(Sums, random),
                tax = Operations.Pick(["23", "0", "9", "x"], random),
                chargeOn = false,
                account = random.Next(3) == 0 ? random.Next(1, 5) : (int?)null,
            }
        );

    private static async Task CostOutAsync(Life life, Random random)
    {
        var known = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.Costs.Select(c => c.Id.Value).ToListAsync()
        );
        if (known.Count > 0)
            await life.OwnerAsync(
                "POST",
                $"/api/costs/{Operations.Pick(known, random)}/removed",
                new { removed = random.Next(2) == 0 }
            );
    }

    private static async Task CostAgainAsync(Life life, Random random)
    {
        var known = await life.Studio.LookAsync(
            (Gesamt.Store.GesamtDb db) => db.RecurringCosts.Select(r => r.Id.Value).ToListAsync()
        );
        if (known.Count > 0 && random.Next(2) == 0)
        {
            await life.OwnerAsync(
                "POST",
                $"/api/recurring-costs/{Operations.Pick(known, random)}/stopped",
                new { stopped = random.Next(2) == 0 }
            );
            return;
        }
        var when = new
        {
            every = Operations.Pick(["Week", "TwoWeeks", "Month", "Quarter", "Year"], random),
            first = Iso(life.Today.PlusDays(random.Next(-90, 60))),
            until = random.Next(3) == 0 ? Iso(life.Today.PlusDays(random.Next(-10, 400))) : null,
        };
        await life.OwnerAsync(
            known.Count > 0 && random.Next(2) == 0 ? "PUT" : "POST",
            known.Count > 0 && random.Next(2) == 0
                ? $"/api/recurring-costs/{Operations.Pick(known, random)}"
                : "/api/recurring-costs",
            new
            {
                payee = "Trust",
                what = Said(random),
                category = "rent",
                amount = Operations.Pick(Sums, random),
                tax = "0",
                account = (int?)null,
                project = (int?)null,
                when,
            }
        );
    }

    private static Task IncomeAsync(Life life, Random random) =>
        life.OwnerAsync(
            "POST",
            "/api/incomes",
            new
            {
                on = Past(life, random),
                payer = Said(random),
                what = Said(random),
                category = "",
                amount = Operations.Pick(Sums, random),
                tax = "0",
                account = random.Next(3) == 0 ? random.Next(1, 5) : (int?)null,
            }
        );

    private static Task AccountAsync(Life life, Random random) =>
        random.Next(3) == 0
            ? life.OwnerAsync(
                "POST",
                $"/api/accounts/{random.Next(1, 5)}/removed",
                new { removed = random.Next(2) == 0 }
            )
            : life.OwnerAsync(
                "POST",
                "/api/accounts",
                new
                {
                    name = Said(random),
                    currency = Operations.Pick(["EUR", "GBP", "euro"], random),
                    iban = "",
                    takes = new[] { "Cash" },
                    openedOn = Past(life, random),
                    opening = Operations.Pick(["", "100", "-40.50", "none"], random),
                }
            );

    private static Task TransferAsync(Life life, Random random) =>
        life.OwnerAsync(
            "POST",
            "/api/transfers",
            new
            {
                on = Past(life, random),
                from = random.Next(1, 5),
                to = random.Next(1, 5),
                left = Operations.Pick(Sums, random),
                arrived = Operations.Pick(Sums, random),
                words = "",
            }
        );

    private static Task YearAsync(Life life, Random random) =>
        life.OwnerAsync(
            "POST",
            $"/api/money/years/{life.Today.Year - random.Next(0, 3)}/closed",
            new { closed = random.Next(3) == 0 }
        );
}
