using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Accounts;

/// <summary>Years that were handed over: nobody writes into them by hand.</summary>
internal static class ClosedYears
{
    /// <exception cref="InvalidException">The day lies in a year that is closed.</exception>
    public static async Task DemandOpenAsync(Desk desk, LocalDate day, string field = "on")
    {
        var year = day.Year;
        if (await desk.Db.ClosedYears.AnyAsync(y => y.Year == year))
            throw new InvalidException(
                (field, $"{year} is closed and handed over. Open it again under Money, Accountant, to write into it.")
            );
    }
}
