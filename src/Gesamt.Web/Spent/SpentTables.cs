using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Gesamt.Web.Spent;

/// <summary>The hours and costs of a project as tables, the earliest first.</summary>
internal static class SpentTables
{
    public static async Task<FileContentHttpResult> HoursAsync(Desk desk, ProjectFile file)
    {
        var (hours, _) = await SpentView.RowsAsync(desk, file.Id);
        var (tasks, taken) = (await SpentView.TasksAsync(desk, hours), await Taken.OfAsync(desk, file));
        return TableFile.Of(
            "hours",
            ["Day", "Hours", "What", "Task", "Charged"],
            hours
                .Reverse()
                .Select(row =>
                    (IReadOnlyList<string>)
                        [
                            TableFile.Day(row.On),
                            TableFile.Number(WorkTime.Hours(row.Minutes)),
                            row.Words,
                            row.TaskId is { } task ? tasks.GetValueOrDefault(task, "") : "",
                            taken.Of(row) ?? "",
                        ]
                )
        );
    }

    public static async Task<FileContentHttpResult> CostsAsync(Desk desk, ProjectFile file)
    {
        var (_, costs) = await SpentView.RowsAsync(desk, file.Id);
        var taken = await Taken.OfAsync(desk, file);
        return TableFile.Of(
            "costs",
            [
                "Day",
                "Paid to",
                "What",
                "Category",
                "Amount with tax",
                "Currency",
                "Tax per cent",
                "Charged on",
                "Charged",
            ],
            costs
                .Reverse()
                .Select(row =>
                    (IReadOnlyList<string>)
                        [
                            TableFile.Day(row.On),
                            row.Payee,
                            row.What,
                            row.Category,
                            MoneyText.Exact(new(row.GrossMinor, Currency.Of(row.Currency))),
                            row.Currency,
                            TableFile.Number(new Rate(row.TaxPartsPerMillion).InPercent),
                            TableFile.YesNo(row.ChargeOn),
                            taken.Of(row) ?? "",
                        ]
                )
        );
    }
}
